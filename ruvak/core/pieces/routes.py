"""Complete wirings between a run's source sockets and destination sockets: one to one, pairs, forks and merges."""

from collections.abc import Collection, Iterable, Iterator
from dataclasses import dataclass, replace
from itertools import chain, islice, product, zip_longest

from ruvak.core.errors import BadEdit
from ruvak.core.parts.library import library
from ruvak.core.pieces.chains import Chain, Step, fill_chain, kinds, kinds_with
from ruvak.core.pieces.pool import Pool, Socket, Way
from ruvak.core.rig.connectors import Form, carries_many_channels, made_for
from ruvak.core.rig.edits import Op, PutThing
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import Join, KitItem, Rig

CHAINS_EACH = 24
LONG_M = 50.0
"""Farther than this no usual lead reaches, so that two are plugged together."""
EACH_WAY = 6
"""How many routes by one kind of fork are looked at."""


@dataclass(frozen=True)
class Route:
    """A complete wiring: the pieces in order of use, and the joins. `misfits`: see chains.misfit."""

    items: tuple[KitItem, ...]
    joins: tuple[Join, ...]
    misfits: int = 0

    @property
    def to_get(self) -> int:
        """How many pieces are not owned."""
        return sum(not item.owned for item in self.items)

    def has_one_of_each(self, options: Iterable[Collection[str]]) -> bool:
        """Whether one of its parts is among each of these."""
        parts = [item.part for item in self.items]
        return all(any(part in some for part in parts) for some in options)


def routes(
    pool: Pool,
    sources: tuple[Endpoint, ...],
    goals: tuple[Endpoint, ...],
    need_m: float,
    channels: tuple[int, ...] = (),
) -> Iterator[Route]:
    """Ways to wire these sockets, simplest first; need_m is how far each line has to reach.

    `channels`: where one end is a socket with several channels, those that the other end's sockets go to, from 1; left
    out, the first.
    """
    many = [_has_many_channels(pool, ends) for ends in (sources, goals)]
    if many == [True, False]:
        yield from _fork(pool, sources[0], goals, need_m, channels)
    elif many == [False, True]:
        yield from _merge(pool, sources, goals[0], need_m, channels)
    elif len(sources) == len(goals):
        if len(sources) == 2:
            # In turn, so that a few looked at are of each kind.
            rows = zip_longest(
                _twins(pool, sources, goals, need_m),
                _side_by_side(pool, sources, goals, need_m),
                _twins_in_line(pool, sources, goals, need_m),
                _twins_then_singles(pool, sources, goals, need_m),
            )
            yield from (route for row in rows for route in row if route is not None)
        else:
            yield from _side_by_side(pool, sources, goals, need_m)
    elif len(sources) == 1:
        yield from _fork(pool, sources[0], goals, need_m)
    elif len(goals) == 1:
        yield from _merge(pool, sources, goals[0], need_m)


def _has_many_channels(pool: Pool, ends: tuple[Endpoint, ...]) -> bool:
    return len(ends) == 1 and carries_many_channels(_form(pool, ends[0]))


def _of_channels(
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


def simplicity(route: Route) -> tuple[int, float, float]:
    """Smaller is simpler: little to get; few pieces, a box counting as two and a misfit as half; little lead."""
    boxes = sum(item.length_m is None for item in route.items)
    pieces = len(route.items) + 0.5 * boxes + 0.5 * route.misfits
    return route.to_get, pieces, sum(item.length_m or 0.0 for item in route.items)


def put_ops(rig: Rig, items: tuple[KitItem, ...]) -> list[Op]:
    """What adds the items a rig does not have yet, and their parts. Raises BadEdit for a part nobody knows."""
    ops: list[Op] = []
    known, have = set(rig.parts_by_id), set(rig.owners_by_id)
    for item in items:
        if item.part not in known:
            if item.part not in library():
                raise BadEdit("part", f"There is no part '{item.part}' here or in the library.")
            ops.append(PutThing(kind="parts", thing=library()[item.part]))
            known.add(item.part)
        if item.id not in have:
            ops.append(PutThing(kind="kit", thing=item))
            have.add(item.id)
    return ops


def _form(pool: Pool, end: Endpoint) -> Form:
    return pool.form_at(end)


def _lines(
    pool: Pool,
    start: tuple[Endpoint, Form],
    goal: tuple[Endpoint, Form],
    need_m: float,
    used: frozenset[str],
    most: int,
) -> Iterator[Chain]:
    """Filled chains between two connectors."""
    for steps in islice(kinds(pool, start[1], goal[1], most), 40 * CHAINS_EACH):
        chain = fill_chain(pool, steps, start[0], goal[0], need_m, used)
        if chain is not None:
            yield chain


def _side_by_side(
    pool: Pool, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...], need_m: float
) -> Iterator[Route]:
    """The same kinds of pieces for each line; where none of the usual length has what it must, with that put in."""
    start, goal = _form(pool, sources[0]), _form(pool, goals[0])
    usual = _of_same_kinds(pool, kinds(pool, start, goal), sources, goals, need_m)
    first = next(usual, None)
    if first is not None:
        yield from chain((first,), usual)
    else:
        longer = (steps for parts in pool.must for steps in kinds_with(pool, start, goal, parts))
        yield from _of_same_kinds(pool, longer, sources, goals, need_m)


def _of_same_kinds(
    pool: Pool,
    sequences: Iterable[tuple[Step, ...]],
    sources: tuple[Endpoint, ...],
    goals: tuple[Endpoint, ...],
    need_m: float,
) -> Iterator[Route]:
    """Of the first so many sequences those that have what they must and reach, on each line."""
    start, *rest = zip(sources, goals, strict=True)
    for steps in islice(sequences, 40 * CHAINS_EACH):
        if not all(any(step.way.part in parts for step in steps) for parts in pool.must):
            continue
        filled = fill_chain(pool, steps, *start, need_m)
        if filled is None:
            continue
        chains = [filled]
        for source, target in rest:
            used = frozenset(item.id for chain in chains for item in chain.items)
            more = _same_kinds(pool, steps, (source, target), need_m, used)
            if more is None:
                break
            chains.append(more)
        if len(chains) == len(sources):
            yield _together(chains)


def _same_kinds(
    pool: Pool, steps: tuple[Step, ...], ends: tuple[Endpoint, Endpoint], need_m: float, used: frozenset[str]
) -> Chain | None:
    forms = [_form(pool, ends[0]), *(step.exit.form for step in steps)]
    entries = [*(step.entry.form for step in steps), _form(pool, ends[1])]
    if not all(made_for(form, other) for form, other in zip(forms, entries, strict=True)):
        return None
    return fill_chain(pool, steps, ends[0], ends[1], need_m, used)


def _twins(pool: Pool, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...], need_m: float) -> Iterator[Route]:
    """One lead or box with two ways through, perhaps with the same adapters or leads behind both."""
    for way in pool.ways:
        if len(way.entries) != 2 or len(way.exits) != 2:
            continue
        yield from islice(_twins_by(pool, way, sources, goals, need_m), EACH_WAY)


def _twins_by(
    pool: Pool, way: Way, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...], need_m: float
) -> Iterator[Route]:
    for item in _items(pool, way, need_m):
        starts = [(Endpoint(item.id, exit_.id), exit_.form) for exit_ in way.exits]
        for joins, leads, reached_m in _gather(pool, item, way.entries, sources):
            taken = {lead.id for lead in leads}
            left_m = need_m - (item.length_m or 0.0) - reached_m
            for route in islice(_onward(pool, item, joins, starts, goals, left_m), 2):
                if not taken & {item.id for item in route.items}:
                    yield Route((*leads, *route.items), route.joins, route.misfits)


def _twins_in_line(
    pool: Pool, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...], need_m: float
) -> Iterator[Route]:
    """A box with two ways between two twin leads, or one of them: nothing but twins from end to end."""
    twins = [way for way in pool.ways if len(way.entries) == 2 and len(way.exits) == 2]
    start, goal = _forms(pool, sources), _forms(pool, goals)
    for box in (way for way in twins if not way.cabled):
        before = [None, *(way for way in twins if way.cabled and _fits(_forms_of(way.exits), box.entries))]
        behind = [None, *(way for way in twins if way.cabled and _fits(_forms_of(box.exits), way.entries))]
        for first, last in product(before, behind):
            chain = [way for way in (first, box, last) if way is not None]
            if len(chain) > 1 and _fits(start, chain[0].entries) and _fits(goal, chain[-1].exits):
                route = _twin_items(pool, chain, sources, goals, need_m)
                if route is not None:
                    yield route


def _twins_then_singles(
    pool: Pool, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...], need_m: float
) -> Iterator[Route]:
    """A short twin lead into a box with two ways, and from there the same pieces for each line."""
    twins = [way for way in pool.ways if len(way.entries) == 2 and len(way.exits) == 2]
    start = _forms(pool, sources)
    for box in (way for way in twins if not way.cabled):
        for first in (way for way in twins if way.cabled and _fits(start, way.entries)):
            if not _fits(_forms_of(first.exits), box.entries):
                continue
            leads, boxes = _items(pool, first, 0.0), _items(pool, box, 0.0)
            if not leads or not boxes:
                continue
            lead, item = leads[0], boxes[0]
            joins, ends = _join_twins([first, box], [lead, item], sources)
            exits = list(zip(ends, _forms_of(box.exits), strict=True))
            left_m = need_m - (lead.length_m or 0.0)
            for route in islice(_onward(pool, item, joins, exits, goals, left_m), 2):
                yield Route((lead, *route.items), route.joins, route.misfits)


def _twin_items(
    pool: Pool, chain: list[Way], sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...], need_m: float
) -> Route | None:
    """The first items that reach; None where too few are left or they are too short."""
    items: list[KitItem] = []
    left_m = need_m
    for way in chain:
        options = _items(pool, way, left_m, frozenset(item.id for item in items))
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


def _forms(pool: Pool, ends: tuple[Endpoint, ...]) -> tuple[Form, ...]:
    return tuple(_form(pool, end) for end in ends)


def _fits(forms: tuple[Form, ...], sockets: tuple[Socket, ...]) -> bool:
    return all(made_for(form, socket.form) for form, socket in zip(forms, sockets, strict=True))


def _forms_of(sockets: tuple[Socket, ...]) -> tuple[Form, ...]:
    return tuple(socket.form for socket in sockets)


def _fork(
    pool: Pool, source: Endpoint, goals: tuple[Endpoint, ...], need_m: float, channels: tuple[int, ...] = ()
) -> Iterator[Route]:
    """A lead or box that takes the source apart, with lines to each goal behind it, perhaps a lead before it."""
    for way in pool.ways:
        exits = _of_channels(way.exits, len(goals), way.entries, channels) if len(way.entries) == 1 else None
        if exits is not None:
            one_way = replace(way, exits=exits)
            yield from islice(_forked_by(pool, one_way, source, goals, need_m), EACH_WAY * pool.wide // 2)


def _forked_by(pool: Pool, way: Way, source: Endpoint, goals: tuple[Endpoint, ...], need_m: float) -> Iterator[Route]:
    for item in _items(pool, way, need_m):
        entry = (Endpoint(item.id, way.entries[0].id), way.entries[0].form)
        starts = [(Endpoint(item.id, exit_.id), exit_.form) for exit_ in way.exits]
        before = _lines(pool, (source, _form(pool, source)), entry, 0.0, frozenset({item.id}), 1)
        for lead_in in islice(before, 3):
            left_m = need_m - (item.length_m or 0.0) - lead_in.length_m
            for route in islice(_onward(pool, item, lead_in.joins, starts, goals, left_m), pool.wide):
                if not {item.id for item in lead_in.items} & {item.id for item in route.items}:
                    yield Route((*lead_in.items, *route.items), route.joins, lead_in.misfits + route.misfits)


def _onward(
    pool: Pool,
    item: KitItem,
    joins: tuple[Join, ...],
    starts: list[tuple[Endpoint, Form]],
    goals: tuple[Endpoint, ...],
    need_m: float,
) -> Iterator[Route]:
    """From an item's exits to the goals by the same kinds of pieces."""
    most = 2 if need_m <= LONG_M else 3
    for steps in islice(kinds(pool, starts[0][1], _form(pool, goals[0]), most), most * CHAINS_EACH):
        chains: list[Chain] = []
        for (start, form), goal in zip(starts, goals, strict=True):
            used = frozenset({item.id, *(item.id for chain in chains for item in chain.items)})
            last = steps[-1].exit.form if steps else form
            if not made_for(form, steps[0].entry.form if steps else _form(pool, goal)):
                break
            if not made_for(last, _form(pool, goal)):
                break
            chain = fill_chain(pool, steps, start, goal, max(0.0, need_m), used)
            if chain is None:
                break
            chains.append(chain)
        if len(chains) == len(goals):
            route = _together(chains)
            yield Route((item, *route.items), (*joins, *route.joins), route.misfits)


def _merge(
    pool: Pool, sources: tuple[Endpoint, ...], goal: Endpoint, need_m: float, channels: tuple[int, ...] = ()
) -> Iterator[Route]:
    """A lead or box that brings the sources together, with a line to the goal behind it."""
    for way in pool.ways:
        entries = _of_channels(way.entries, len(sources), way.exits, channels) if len(way.exits) == 1 else None
        if entries is not None:
            one_way = replace(way, entries=entries)
            yield from islice(_merged_by(pool, one_way, sources, goal, need_m), EACH_WAY * pool.wide // 2)


def _merged_by(pool: Pool, way: Way, sources: tuple[Endpoint, ...], goal: Endpoint, need_m: float) -> Iterator[Route]:
    for item in _items(pool, way, need_m):
        onward = (Endpoint(item.id, way.exits[0].id), way.exits[0].form)
        for joins, leads, reached_m in _bring(pool, item, way.entries, sources, need_m):
            left_m = max(0.0, need_m - (item.length_m or 0.0) - reached_m)
            used = frozenset({item.id, *(lead.id for lead in leads)})
            for line in islice(_lines(pool, onward, (goal, _form(pool, goal)), left_m, used, 2), pool.wide):
                yield Route((*leads, item, *line.items), (*joins, *line.joins), line.misfits)


def _gather(
    pool: Pool,
    item: KitItem,
    entries: tuple[Socket, ...],
    sources: tuple[Endpoint, ...],
    need_m: float = 0.0,
    most: int = 1,
) -> Iterator[tuple[tuple[Join, ...], tuple[KitItem, ...], float]]:
    """The sources into the entries in order, straight or each by a few leads of the same kinds that reach so far."""
    first = (sources[0], _form(pool, sources[0]))
    for steps in kinds(pool, first[1], entries[0].form, most):
        chains: list[Chain] = []
        for source, entry in zip(sources, entries, strict=True):
            used = frozenset({item.id, *(item.id for chain in chains for item in chain.items)})
            goes = steps[-1].exit.form if steps else _form(pool, source)
            if not made_for(goes, entry.form) or (steps and not made_for(_form(pool, source), steps[0].entry.form)):
                break
            chain = fill_chain(pool, steps, source, Endpoint(item.id, entry.id), need_m, used)
            if chain is None:
                break
            chains.append(chain)
        if len(chains) == len(sources):
            together = _together(chains)
            yield together.joins, together.items, min(chain.length_m for chain in chains)


def _bring(
    pool: Pool, item: KitItem, entries: tuple[Socket, ...], sources: tuple[Endpoint, ...], need_m: float
) -> Iterator[tuple[tuple[Join, ...], tuple[KitItem, ...], float]]:
    """Each by a lead of its own, or both by one; or the whole way side by side, the item at the far end."""
    yield from _gather(pool, item, entries, sources)
    yield from _by_twins(pool, item, entries, sources)
    far_m = need_m - (item.length_m or 0.0)
    if far_m > 0.0:
        yield from islice(_gather(pool, item, entries, sources, far_m, 2), EACH_WAY)


def _by_twins(
    pool: Pool, item: KitItem, entries: tuple[Socket, ...], sources: tuple[Endpoint, ...]
) -> Iterator[tuple[tuple[Join, ...], tuple[KitItem, ...], float]]:
    """The same by one lead with two ways through (a twin RCA lead)."""
    for way in pool.ways:
        if not way.cabled or not len(way.entries) == len(way.exits) == len(sources) == 2:
            continue
        if _fits(_forms(pool, sources), way.entries) and _fits(_forms_of(way.exits), entries):
            for twin in _items(pool, way, 0.0):
                ins, outs = ([Endpoint(twin.id, entry.id) for entry in side] for side in (way.entries, way.exits))
                onward = [Endpoint(item.id, entry.id) for entry in entries]
                pairs = zip((*sources, *outs), (*ins, *onward), strict=True)
                yield tuple(Join(a=a, b=b) for a, b in pairs), (twin,), twin.length_m or 0.0


def _items(pool: Pool, way: Way, need_m: float, used: frozenset[str] = frozenset()) -> tuple[KitItem, ...]:
    """The best of a part: one that reaches by itself, and the shortest. None of what is neither owned nor made up."""
    options = pool.items(way.part, used)
    if not way.cabled or not options:
        return options[:1]
    reaching = [item for item in options if (item.length_m or 0.0) >= need_m]
    shortest = min(options, key=lambda item: item.length_m or 0.0)
    return tuple(dict.fromkeys([*reaching[:1], shortest]))


def _together(chains: list[Chain]) -> Route:
    return Route(
        tuple(item for chain in chains for item in chain.items),
        tuple(join for chain in chains for join in chain.joins),
        sum(chain.misfits for chain in chains),
    )
