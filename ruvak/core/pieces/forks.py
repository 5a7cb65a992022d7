"""One socket to several: a lead or box that takes the source apart, and lines onward from it."""

from collections.abc import Iterator
from dataclasses import replace
from itertools import islice, permutations

from ruvak.core.pieces.chains import Chain
from ruvak.core.pieces.joints import (
    EACH_WAY,
    best_items,
    forms_at,
    lead_onward,
    lines_between,
    put_together,
    sockets_of_channels,
)
from ruvak.core.pieces.pool import Pool, Way
from ruvak.core.pieces.route import Route
from ruvak.core.rig.connectors import SHAPES, Form
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import KitItem

BESIDE_M = 1.0
"""How far a lead reaches to what stands beside a box."""


def fork(
    pool: Pool, source: Endpoint, goals: tuple[Endpoint, ...], need_m: float, channels: tuple[int, ...] = ()
) -> Iterator[Route]:
    """A lead or box that takes the source apart, with lines to each goal behind it, perhaps a lead before it."""
    for way in pool.ways:
        exits = sockets_of_channels(way.exits, len(goals), way.entries, channels) if len(way.entries) == 1 else None
        if exits is not None and not pool.leaves_out_named(way):
            one_way = replace(way, exits=exits)
            few = islice(_forked_by(pool, one_way, source, goals, need_m), EACH_WAY * pool.wide // 2)
            yield from filter(None, few)


def _forked_by(
    pool: Pool, way: Way, source: Endpoint, goals: tuple[Endpoint, ...], need_m: float
) -> Iterator[Route | None]:
    """None as in lead_onward."""
    for item in best_items(pool, way, need_m):
        entry = (Endpoint(item.id, way.entries[0].id), way.entries[0].form)
        starts = [(Endpoint(item.id, exit_.id), exit_.form) for exit_ in way.exits]
        before = lines_between(pool, (source, pool.form_at(source)), entry, 0.0, frozenset({item.id}), 1)
        for lead_in in filter(None, islice(before, 3)):
            left_m = need_m - (item.length_m or 0.0) - lead_in.length_m
            alike = len({form for _, form in starts}) == len(set(forms_at(pool, goals))) == 1
            behind = (
                lead_onward(pool, item, lead_in.joins, starts, goals, left_m, pool.lacking(item.part, lead_in.items))
                if alike
                else _onward_apart(pool, item, lead_in, starts, goals, left_m)
            )
            for route in islice(behind, pool.wide):
                if route is None:
                    yield None
                elif not {item.id for item in lead_in.items} & {item.id for item in route.items}:
                    yield Route((*lead_in.items, *route.items), route.joins, lead_in.misfits + route.misfits)


def _onward_apart(
    pool: Pool,
    item: KitItem,
    lead_in: Chain,
    starts: list[tuple[Endpoint, Form]],
    goals: tuple[Endpoint, ...],
    need_m: float,
) -> Iterator[Route]:
    """From exits of different kinds to goals of different kinds, each by its own pieces: from a DI's microphone output
    to the desk, and from its link to the amplifier beside the player, which is near. Nothing is parted so between two
    sockets of one device."""
    if len({goal.owner for goal in goals}) < len(goals):
        return
    families = [SHAPES[form].family for form in forms_at(pool, goals)]

    def of_other_kinds(order: tuple[tuple[Endpoint, Form], ...]) -> int:
        return sum(SHAPES[form].family != family for (_, form), family in zip(order, families, strict=True))

    order = min(permutations(starts), key=of_other_kinds)
    chains: list[Chain] = []
    for (start, form), goal in zip(order, goals, strict=True):
        used = frozenset(piece.id for chain in (lead_in, *chains) for piece in chain.items) | {item.id}
        far_m = max(need_m, BESIDE_M) if form.startswith("xlr") else BESIDE_M
        lines = islice(lines_between(pool, (start, form), (goal, pool.form_at(goal)), far_m, used, 2), EACH_WAY)
        line = min(
            filter(None, lines),
            key=lambda each: (len(each.items), each.misfits, _changes_plugs(pool, each, form)),
            default=None,
        )
        if line is None:
            return
        chains.append(line)
    route = put_together(chains)
    yield Route((item, *route.items), (*lead_in.joins, *route.joins), route.misfits)


def _changes_plugs(pool: Pool, line: Chain, form: Form) -> bool:
    """Whether a line ends in another kind of plug than the socket that it begins at: into a combo socket an XLR stays
    one."""
    if not line.items:
        return False
    last = line.joins[-1].a.connector
    ends = pool.parts[line.items[-1].part].connectors
    return next(SHAPES[connector.form].family for connector in ends if connector.id == last) != SHAPES[form].family
