"""Other ways to get from a run's source to its destination gear, the simplest of each kind."""

from collections.abc import Iterator
from dataclasses import replace
from itertools import islice, takewhile

from ruvak.core.pieces.cures import Made, ids_of, is_pad
from ruvak.core.pieces.pool import Pool, pool_for
from ruvak.core.pieces.practice import misuses_di
from ruvak.core.pieces.route import Route, put_ops, simplicity
from ruvak.core.pieces.routes import routes
from ruvak.core.rig.edits import Edit, Op, SetField
from ruvak.core.rig.part import Connector
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import Join, Rig, Run, is_two_way
from ruvak.core.trace.run_ends import ends_of

MOST = 48
WIDE_FOR_PADS = 12
"""How many lines behind a fork are looked at for a pad, which may stand anywhere in it."""
EACH, LOOKED_THROUGH, MADE_EACH = 32, 300, 6
"""Routes looked at for one choice of sockets; looked through for what is made against the trouble; taken of these."""


def paths(rig: Rig, run: Run, made: tuple[Made, ...] = ()) -> tuple[Route, ...]:
    """Rewirings that reach, simplest first, one for each set of kinds and sockets; the present wiring among them.

    `made`: what is made against what is wrong; longer rewirings are looked through for those that have all of it.
    Only a run that ends at one device is searched. What is built in stays, and what another run goes by too: then only
    the stretch before it is rewired, or the one behind it where a device is plugged straight in. A run that is nothing
    but built in may be passed by.
    """
    in_others = {piece for other in rig.runs if other.id != run.id for piece in other.pieces}
    shared = {piece for piece in run.pieces if piece in in_others and is_two_way(rig.part_of(piece))}
    installed = ({item.id for item in rig.kit if item.installed} & set(run.pieces)) | shared
    if installed and installed != set(run.pieces):
        return _around(rig, run, installed, pads=is_pad in made)
    sources, targets = ends_of(rig, run, "out"), ends_of(rig, run, "in")
    gear = {end.owner for end in targets}
    if not 1 <= len(sources) <= 2 or len(gear) != 1:
        return ()
    pool, need_m = pool_for(rig, run.id, twice=True), _need_m(rig, run)
    pads = is_pad in made
    if pads:
        pool = replace(pool, wide=WIDE_FOR_PADS)
    needed = ids_of(made, pool.parts.values())
    result: dict[tuple[object, ...], Route] = {}
    for goals in _goals(rig, run, gear.pop(), tuple(targets)):
        for place, route in enumerate(
            islice(_usual(pool, tuple(sources), goals, need_m, pads), LOOKED_THROUGH if made else EACH)
        ):
            if place >= EACH and not route.has_one_of_each(needed):
                continue
            parts = tuple(sorted(item.part for item in route.items))
            key = (goals, parts)
            if key not in result or simplicity(route) < simplicity(result[key]):
                result[key] = route
    ordered = sorted(result.values(), key=simplicity)
    return (*ordered[:MOST], *_made_for_it(ordered[MOST:], needed))


def _usual(
    pool: Pool, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...], need_m: float, pads: bool = False
) -> Iterator[Route]:
    """Ways to wire these sockets without a DI where nobody would put one; with pads only where they are asked for."""
    for route in routes(pool, sources, goals, need_m):
        own = pads or all(item.id in pool.first or not is_pad(pool.parts[item.part]) for item in route.items)
        if own and not misuses_di(pool, route, goals):
            yield route


def _made_for_it(longer: list[Route], needed: tuple[tuple[str, ...], ...]) -> Iterator[Route]:
    """Of the longer ones a few with all that is made against the trouble, of each number of pieces those whose leads
    before the first such piece are shortest: what stands before it is what it is to cure."""
    by_pieces: dict[int, list[Route]] = {}
    for route in longer if needed else ():
        if route.has_one_of_each(needed):
            by_pieces.setdefault(len(route.items), []).append(route)
    for some in by_pieces.values():
        yield from sorted(some, key=lambda route: _before_m(route, needed))[:MADE_EACH]


def _before_m(route: Route, needed: tuple[tuple[str, ...], ...]) -> float:
    before = takewhile(lambda item: not any(item.part in some for some in needed), route.items)
    return sum(item.length_m or 0.0 for item in before)


def _around(rig: Rig, run: Run, installed: set[str], pads: bool) -> tuple[Route, ...]:
    before = [join for join in run.joins if join.b.owner in installed]
    behind = [join for join in run.joins if join.a.owner in installed]
    first = _stretch(rig, run, tuple(ends_of(rig, run, "out")), tuple(join.b for join in before))
    last = _stretch(rig, run, tuple(join.a for join in behind), tuple(ends_of(rig, run, "in")))
    stretch = next((entry for entry in (first, last) if entry is not None and entry[2]), None)
    if stretch is None:
        return ()
    sources, goals, pieces, joins = stretch
    pool = pool_for(rig, run.id, twice=True)
    need_m = max((item.length_m or 0.0 for item in rig.kit if item.id in pieces), default=0.0)
    kept_items = tuple(item for item in rig.kit if item.id in run.pieces and item.id not in pieces)
    kept_joins = tuple(join for join in run.joins if join not in joins)
    result: dict[tuple[str, ...], Route] = {}
    for route in islice(_usual(pool, sources, goals, need_m, pads), LOOKED_THROUGH if pads else EACH):
        key = tuple(sorted(item.part for item in route.items))
        if key not in result or simplicity(route) < simplicity(result[key]):
            result[key] = route
    ordered = sorted(result.values(), key=simplicity)[:MOST]
    return tuple(
        Route((*route.items, *kept_items), (*route.joins, *kept_joins), route.misfits)
        if stretch is first
        else Route((*kept_items, *route.items), (*kept_joins, *route.joins), route.misfits)
        for route in ordered
    )


def _stretch(
    rig: Rig, run: Run, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...]
) -> tuple[tuple[Endpoint, ...], tuple[Endpoint, ...], set[str], set[Join]] | None:
    """What lies between: its pieces and joins. None where something built in is among it, or nothing leads there."""
    partner: dict[str, list[Join]] = {}
    for join in run.joins:
        for end in join.ends:
            partner.setdefault(end.owner, []).append(join)
    kit = {item.id: item for item in rig.kit}
    ends = {end.owner for end in (*sources, *goals)}
    queue = [join for join in run.joins if set(join.ends) & set(sources)]
    pieces, joins = set[str](), set[Join]()
    while queue:
        join = queue.pop()
        if join in joins:
            continue
        joins.add(join)
        for owner in (end.owner for end in join.ends):
            if owner in ends or owner not in kit or owner in pieces:
                continue
            pieces.add(owner)
            queue += partner[owner]
    reached = {end for join in joins for end in join.ends}
    if not sources or not goals or not set(goals) <= reached or any(kit[piece].installed for piece in pieces):
        return None
    return sources, goals, pieces, joins


def edit_for(rig: Rig, run: Run, route: Route, label: str) -> Edit:
    """The edit that rewires the run so, adding to the kit what is not owned."""
    ops: list[Op] = put_ops(rig, route.items)
    pieces = tuple(item.id for item in route.items)
    for field, value in (("pieces", pieces), ("joins", route.joins)):
        ops.append(SetField(kind="runs", id=run.id, field=field, value=value))
    return Edit(label=label, ops=tuple(ops))


def _goals(rig: Rig, run: Run, gear: str, now: tuple[Endpoint, ...]) -> list[tuple[Endpoint, ...]]:
    """Today's sockets; then, for each form of socket, one of the free ones and two neighbours."""
    taken = {end for other in rig.runs if other.id != run.id for end in other.ends}
    by_form: dict[str, list[Connector]] = {}
    for connector in rig.part_of(gear).connectors:
        if connector.side == "in" and Endpoint(gear, connector.id) not in taken:
            by_form.setdefault(connector.form, []).append(connector)
    result = {now: None}
    for connectors in by_form.values():
        ends = sorted((Endpoint(gear, connector.id) for connector in connectors), key=lambda end: end not in now)
        result |= {(end,): None for end in ends[:2]}
        in_order = [Endpoint(gear, connector.id) for connector in connectors]
        starts = [in_order.index(end) for end in now if end in in_order] or [0]
        pair = in_order[starts[0] : starts[0] + 2]
        if len(pair) == 2:
            result[(pair[0], pair[1])] = None
    return list(result)


def _need_m(rig: Rig, run: Run) -> float:
    """The longest lead of today's run: a rewiring has to reach as far."""
    return max((item.length_m or 0.0 for item in rig.kit if item.id in run.pieces), default=0.0)
