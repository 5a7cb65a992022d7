"""Two sockets to two by pieces with two ways through them: twin leads, stereo boxes."""

from collections.abc import Iterator
from itertools import islice, product

from ruvak.core.pieces.joints import EACH_WAY, are_made_for, best_items, forms_at, forms_of, gather, lead_onward
from ruvak.core.pieces.pool import Pool, Way
from ruvak.core.pieces.route import Route
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import Join, KitItem

LINES_BEHIND = 2
"""How many lines behind a piece with two ways through it are looked at."""


def twin_routes(
    pool: Pool, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...], need_m: float
) -> Iterator[Route]:
    """One lead or box with two ways through, perhaps with the same adapters or leads behind both."""
    for way in pool.ways:
        if len(way.entries) != 2 or len(way.exits) != 2:
            continue
        yield from filter(None, islice(_twins_by(pool, way, sources, goals, need_m), EACH_WAY))


def _twins_by(
    pool: Pool, way: Way, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...], need_m: float
) -> Iterator[Route | None]:
    """None as in lead_onward."""
    for item in best_items(pool, way, need_m):
        starts = [(Endpoint(item.id, exit_.id), exit_.form) for exit_ in way.exits]
        for joins, leads, reached_m in gather(pool, item, way.entries, sources):
            taken = {lead.id for lead in leads}
            left_m = need_m - (item.length_m or 0.0) - reached_m
            must = pool.lacking(item.part, leads)
            for route in islice(lead_onward(pool, item, joins, starts, goals, left_m, must), LINES_BEHIND):
                if route is None:
                    yield None
                elif not taken & {item.id for item in route.items}:
                    yield Route((*leads, *route.items), route.joins, route.misfits)


def twins_in_line(
    pool: Pool, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...], need_m: float
) -> Iterator[Route]:
    """A box with two ways between two twin leads, or one of them: nothing but twins from end to end."""
    twins = [way for way in pool.ways if len(way.entries) == 2 and len(way.exits) == 2]
    start, goal = forms_at(pool, sources), forms_at(pool, goals)
    for box in (way for way in twins if not way.cabled):
        before = [None, *(way for way in twins if way.cabled and are_made_for(forms_of(way.exits), box.entries))]
        behind = [None, *(way for way in twins if way.cabled and are_made_for(forms_of(box.exits), way.entries))]
        for first, last in product(before, behind):
            chain = [way for way in (first, box, last) if way is not None]
            if len(chain) > 1 and are_made_for(start, chain[0].entries) and are_made_for(goal, chain[-1].exits):
                route = _twin_items(pool, chain, sources, goals, need_m)
                if route is not None:
                    yield route


def twins_then_singles(
    pool: Pool, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...], need_m: float
) -> Iterator[Route]:
    """A short twin lead into a box with two ways, and from there the same pieces for each line."""
    twins = [way for way in pool.ways if len(way.entries) == 2 and len(way.exits) == 2]
    start = forms_at(pool, sources)
    for box in (way for way in twins if not way.cabled):
        for first in (way for way in twins if way.cabled and are_made_for(start, way.entries)):
            if not are_made_for(forms_of(first.exits), box.entries):
                continue
            leads, boxes = best_items(pool, first, 0.0), best_items(pool, box, 0.0)
            if not leads or not boxes:
                continue
            lead, item = leads[0], boxes[0]
            joins, ends = _join_twins([first, box], [lead, item], sources)
            exits = list(zip(ends, forms_of(box.exits), strict=True))
            left_m = need_m - (lead.length_m or 0.0)
            must = pool.lacking(item.part, (lead,))
            for route in filter(None, islice(lead_onward(pool, item, joins, exits, goals, left_m, must), LINES_BEHIND)):
                yield Route((lead, *route.items), route.joins, route.misfits)


def _twin_items(
    pool: Pool, chain: list[Way], sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...], need_m: float
) -> Route | None:
    """The first items that reach; None where too few are left or they are too short."""
    items: list[KitItem] = []
    left_m = need_m
    for way in chain:
        options = best_items(pool, way, left_m, frozenset(item.id for item in items))
        if not options:
            return None
        items.append(options[0])
        left_m = max(0.0, left_m - (options[0].length_m or 0.0))
    if left_m > 0.0:
        return None
    joins, ends = _join_twins(chain, items, sources)
    return Route(tuple(items), (*joins, *(Join(a=end, b=goal) for end, goal in zip(ends, goals, strict=True))))


def _join_twins(
    chain: list[Way], items: list[KitItem], sources: tuple[Endpoint, ...]
) -> tuple[tuple[Join, ...], tuple[Endpoint, ...]]:
    """Pieces with two ways through them one behind the other: their joins, and the exits of the last."""
    joins: list[Join] = []
    ends = sources
    for way, item in zip(chain, items, strict=True):
        joins += [Join(a=end, b=Endpoint(item.id, entry.id)) for end, entry in zip(ends, way.entries, strict=True)]
        ends = tuple(Endpoint(item.id, entry.id) for entry in way.exits)
    return tuple(joins), ends
