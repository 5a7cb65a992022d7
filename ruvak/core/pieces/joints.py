"""What wirings are put together from: lines between two connectors, several of one kind, items that reach."""

from collections.abc import Iterator
from itertools import islice

from ruvak.core.pieces.chains import Chain, Step, fill_chain, kinds
from ruvak.core.pieces.pool import Groups, Pool, Socket, Way
from ruvak.core.pieces.route import Route
from ruvak.core.rig.connectors import Form, carries_many_channels, made_for
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import Join, KitItem

CHAINS_EACH = 24
LONG_M = 50.0
"""Farther than this no usual lead reaches, so that two are plugged together."""
EACH_WAY = 6
"""How many routes by one kind of fork are looked at."""


def forms_at(pool: Pool, ends: tuple[Endpoint, ...]) -> tuple[Form, ...]:
    """The forms of devices' sockets."""
    return tuple(pool.form_at(end) for end in ends)


def forms_of(sockets: tuple[Socket, ...]) -> tuple[Form, ...]:
    """The forms of a part's connectors."""
    return tuple(socket.form for socket in sockets)


def are_made_for(forms: tuple[Form, ...], sockets: tuple[Socket, ...]) -> bool:
    """Whether each goes into the socket at its place as it is made to."""
    return all(made_for(form, socket.form) for form, socket in zip(forms, sockets, strict=True))


def lines_between(
    pool: Pool,
    start: tuple[Endpoint, Form],
    goal: tuple[Endpoint, Form],
    need_m: float,
    used: frozenset[str],
    most: int,
    must: Groups = (),
) -> Iterator[Chain | None]:
    """Filled chains of at most `most` pieces between two connectors; None in place of one that lacks a part of a group
    it `must` have, so that what counts the first few counts it too."""
    for steps in islice(kinds(pool, start[1], goal[1], most), 40 * CHAINS_EACH):
        if not has_each(steps, must):
            if _may_reach(steps, need_m):
                yield None
            continue
        chain = fill_chain(pool, steps, start[0], goal[0], need_m, used)
        if chain is not None:
            yield chain


def _may_reach(steps: tuple[Step, ...], need_m: float) -> bool:
    return need_m <= 0.0 or any(step.way.cabled for step in steps)


def has_each(steps: tuple[Step, ...], must: Groups) -> bool:
    """Whether one of these steps is a part of each group."""
    return all(any(step.way.part in parts for step in steps) for parts in must)


def best_items(pool: Pool, way: Way, need_m: float, used: frozenset[str] = frozenset()) -> tuple[KitItem, ...]:
    """The best of a part: one that reaches by itself, and the shortest. None of what is neither owned nor made up."""
    options = pool.items(way.part, used)
    if not way.cabled or not options:
        return options[:1]
    reaching = [item for item in options if (item.length_m or 0.0) >= need_m]
    shortest = min(options, key=lambda item: (item.is_suspect, item.length_m or 0.0))
    return tuple(dict.fromkeys([*reaching[:1], shortest]))


def put_together(chains: list[Chain]) -> Route:
    """Lines side by side as one wiring."""
    return Route(
        tuple(item for chain in chains for item in chain.items),
        tuple(join for chain in chains for join in chain.joins),
        sum(chain.misfits for chain in chains),
    )


def gather(
    pool: Pool,
    item: KitItem,
    entries: tuple[Socket, ...],
    sources: tuple[Endpoint, ...],
    need_m: float = 0.0,
    most: int = 1,
) -> Iterator[tuple[tuple[Join, ...], tuple[KitItem, ...], float]]:
    """The sources into the entries in order, straight or each by a few leads of the same kinds that reach so far."""
    first = (sources[0], pool.form_at(sources[0]))
    for steps in kinds(pool, first[1], entries[0].form, most):
        chains: list[Chain] = []
        for source, entry in zip(sources, entries, strict=True):
            used = frozenset({item.id, *(item.id for chain in chains for item in chain.items)})
            goes = steps[-1].exit.form if steps else pool.form_at(source)
            if not made_for(goes, entry.form) or (steps and not made_for(pool.form_at(source), steps[0].entry.form)):
                break
            chain = fill_chain(pool, steps, source, Endpoint(item.id, entry.id), need_m, used)
            if chain is None:
                break
            chains.append(chain)
        if len(chains) == len(sources):
            together = put_together(chains)
            yield together.joins, together.items, min(chain.length_m for chain in chains)


def lead_onward(
    pool: Pool,
    item: KitItem,
    joins: tuple[Join, ...],
    starts: list[tuple[Endpoint, Form]],
    goals: tuple[Endpoint, ...],
    need_m: float,
    must: Groups = (),
) -> Iterator[Route | None]:
    """From an item's exits to the goals by the same kinds of pieces; None as in lines_between."""
    most = 2 if need_m <= LONG_M else 3
    last_forms = forms_at(pool, goals)
    for steps in islice(kinds(pool, starts[0][1], last_forms[0], most), most * CHAINS_EACH):
        if not _fits_all(steps, starts, last_forms):
            continue
        if not has_each(steps, must):
            if _may_reach(steps, need_m):
                yield None
            continue
        chains: list[Chain] = []
        for (start, _), goal in zip(starts, goals, strict=True):
            used = frozenset({item.id, *(item.id for chain in chains for item in chain.items)})
            chain = fill_chain(pool, steps, start, goal, max(0.0, need_m), used)
            if chain is None:
                break
            chains.append(chain)
        if len(chains) == len(goals):
            route = put_together(chains)
            yield Route((item, *route.items), (*joins, *route.joins), route.misfits)


def _fits_all(steps: tuple[Step, ...], starts: list[tuple[Endpoint, Form]], goals: tuple[Form, ...]) -> bool:
    """Whether the same pieces plug into each start and each goal as they are made to."""
    for form, goal in zip((form for _, form in starts), goals, strict=True):
        first, last = (steps[0].entry.form, steps[-1].exit.form) if steps else (goal, form)
        if not made_for(form, first) or not made_for(last, goal):
            return False
    return True


def sockets_of_channels(
    sockets: tuple[Socket, ...], count: int, others: tuple[Socket, ...], channels: tuple[int, ...]
) -> tuple[Socket, ...] | None:
    """Those of a lead's many plugs that so many lines take: of a loom the channels named, or the first. None where a
    part has others than are wanted; only of a loom's may some hang free. `others`: the plugs at its other side."""
    if len(sockets) == count:
        return sockets
    wanted = channels or tuple(range(1, count + 1))
    is_loom = any(carries_many_channels(socket.form) for socket in others)
    fits_in = is_loom and len(wanted) == count and max(wanted) <= len(sockets)
    return tuple(sockets[channel - 1] for channel in wanted) if fits_in else None
