"""Several sockets to one: a lead or box that brings the sources together, and a line onward from it."""

from collections.abc import Iterator
from dataclasses import replace
from itertools import islice

from ruvak.core.pieces.joints import (
    EACH_WAY,
    are_made_for,
    best_items,
    forms_at,
    forms_of,
    gather,
    lines_between,
    sockets_of_channels,
)
from ruvak.core.pieces.pool import Pool, Socket, Way
from ruvak.core.pieces.route import Route
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import Join, KitItem


def merge(
    pool: Pool, sources: tuple[Endpoint, ...], goal: Endpoint, need_m: float, channels: tuple[int, ...] = ()
) -> Iterator[Route]:
    """A lead or box that brings the sources together, with a line to the goal behind it."""
    for way in pool.ways:
        entries = sockets_of_channels(way.entries, len(sources), way.exits, channels) if len(way.exits) == 1 else None
        if entries is not None and not pool.leaves_out_named(way):
            one_way = replace(way, entries=entries)
            few = islice(_merged_by(pool, one_way, sources, goal, need_m), EACH_WAY * pool.wide // 2)
            yield from filter(None, few)


def _merged_by(
    pool: Pool, way: Way, sources: tuple[Endpoint, ...], goal: Endpoint, need_m: float
) -> Iterator[Route | None]:
    """None as in lines_between."""
    for item in best_items(pool, way, need_m):
        onward = (Endpoint(item.id, way.exits[0].id), way.exits[0].form)
        for joins, leads, reached_m in _bring(pool, item, way.entries, sources, need_m):
            left_m = max(0.0, need_m - (item.length_m or 0.0) - reached_m)
            used = frozenset({item.id, *(lead.id for lead in leads)})
            must = pool.lacking(item.part, leads)
            end = (goal, pool.form_at(goal))
            for line in islice(lines_between(pool, onward, end, left_m, used, 2, must), pool.wide):
                if line is None:
                    yield None
                else:
                    yield Route((*leads, item, *line.items), (*joins, *line.joins), line.misfits)


def _bring(
    pool: Pool, item: KitItem, entries: tuple[Socket, ...], sources: tuple[Endpoint, ...], need_m: float
) -> Iterator[tuple[tuple[Join, ...], tuple[KitItem, ...], float]]:
    """Each by a lead of its own, or both by one; or the whole way side by side, the item at the far end."""
    far_m = need_m - (item.length_m or 0.0)
    if pool.asked:
        yield from _by_box(pool, item, entries, sources, far_m)
    yield from gather(pool, item, entries, sources)
    yield from _by_twins(pool, item, entries, sources)
    if far_m > 0.0:
        yield from islice(gather(pool, item, entries, sources, far_m, 2), EACH_WAY)


def _by_twins(
    pool: Pool, item: KitItem, entries: tuple[Socket, ...], sources: tuple[Endpoint, ...]
) -> Iterator[tuple[tuple[Join, ...], tuple[KitItem, ...], float]]:
    """The same by one lead with two ways through (a twin RCA lead)."""
    for way in pool.ways:
        if not way.cabled or not len(way.entries) == len(way.exits) == len(sources) == 2:
            continue
        if are_made_for(forms_at(pool, sources), way.entries) and are_made_for(forms_of(way.exits), entries):
            for twin in best_items(pool, way, 0.0):
                ins, outs = ([Endpoint(twin.id, entry.id) for entry in side] for side in (way.entries, way.exits))
                onward = [Endpoint(item.id, entry.id) for entry in entries]
                pairs = zip((*sources, *outs), (*ins, *onward), strict=True)
                yield tuple(Join(a=a, b=b) for a, b in pairs), (twin,), twin.length_m or 0.0


def _by_box(
    pool: Pool, item: KitItem, entries: tuple[Socket, ...], sources: tuple[Endpoint, ...], need_m: float
) -> Iterator[tuple[tuple[Join, ...], tuple[KitItem, ...], float]]:
    """The sources by leads into a named box with two ways through, such as a stereo isolator, and on into the item."""
    for way in pool.ways:
        if way.part not in pool.asked or way.cabled or not len(way.entries) == len(way.exits) == len(sources) == 2:
            continue
        if not are_made_for(forms_of(way.exits), entries):
            continue
        for box in best_items(pool, way, 0.0):
            onward = tuple(
                Join(a=Endpoint(box.id, leaving.id), b=Endpoint(item.id, entry.id))
                for leaving, entry in zip(way.exits, entries, strict=True)
            )
            for joins, leads, reached_m in gather(pool, box, way.entries, sources, max(0.0, need_m)):
                if item.id not in {lead.id for lead in leads}:
                    yield (*joins, *onward), (*leads, box), reached_m
