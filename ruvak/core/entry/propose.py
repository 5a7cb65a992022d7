"""Legs for the runs a line asks for: searched by what plugs into what, ranked by what they do when solved."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import chain, islice

from ruvak.core.analyse import alone, glance
from ruvak.core.entry.plan import End, Through, Wanted
from ruvak.core.judge.finding import SEVERITY, Finding, Grade
from ruvak.core.legs.pool import Pool, pool_for
from ruvak.core.legs.routes import Route, put_ops, routes, simplicity
from ruvak.core.parts.library import embed
from ruvak.core.rig.connectors import fits
from ruvak.core.rig.edits import Op, PutGear, PutPart, PutRun
from ruvak.core.rig.part import Part
from ruvak.core.rig.rig import Gear, Join, Rig, Run
from ruvak.core.trace.layout import inside_links
from ruvak.core.trace.trace import Trace, connector_at, merged, points_of, trace

ASSUMED_REACH_M = 3.0
"""How far a lead has to reach where the line does not say: a lead beside the desk, common practice."""
SOLVED, SOLVED_AT_MOST = 4, 12
"""How many wirings of one run are solved before one is chosen, and how many while every one leaves something wrong."""
LOOKED_AT = 10
LOOKED_AT_FOR_NAMED = 400
"""How many wirings are put together, and how many when one must contain what the line names."""


@dataclass(frozen=True)
class Proposal:
    """One run as it would be built."""

    wanted: Wanted
    run: Run
    route: Route
    ops: tuple[Op, ...]
    findings: tuple[Finding, ...]
    small: Rig
    """The rig with this run alone, and its trace."""
    traced: Trace


@dataclass(frozen=True)
class _Wiring:
    """A candidate: sockets chosen, legs chosen."""

    sources: tuple[str, ...]
    goals: tuple[str, ...]
    route: Route


class Proposer:
    """Builds on a rig run after run: what one takes, the next cannot have."""

    def __init__(self, rig: Rig) -> None:
        self.rig = rig
        self._kinds_before: tuple[tuple[str, ...], tuple[str, ...]] | None = None

    def propose(self, wanted: Wanted, named: tuple[str, int, str, str]) -> Proposal | None:
        """The best wiring, and the rig goes on with it; None where nothing leads from one to the other.

        `named`: the run's id, number, name and note.
        """
        run_id, number, name, said = named
        new: dict[str, Gear] = {end.gear.id: end.gear for end in (*wanted.sources, wanted.goal) if end and end.is_new}
        base = embed(self.rig.replaced(gear=(*self.rig.gear, *new.values())))
        # What the line names by its tag is preferred to what would do as well.
        pool = replace(pool_for(base), first=frozenset(wanted.items))
        candidates = chain(self._plainest(pool, wanted), self._candidates(pool, wanted))
        note = "; ".join([*(["phantom"] if "phantom" in wanted.options else []), *([said] if said else [])])
        best: tuple[tuple[object, ...], Proposal] | None = None
        for count, wiring in enumerate(candidates):
            if count >= SOLVED and best is not None and best[1].findings[0].grade is Grade.WATCH:
                break
            legs = tuple(dict.fromkeys(item.id for item in wiring.route.items))
            run = Run(id=run_id, number=number, name=name, legs=legs, joins=wiring.route.joins, note=note)
            ops: tuple[Op, ...] = (*self._gear_ops(base, new), *put_ops(base, wiring.route.items), PutRun(thing=run))
            small = alone(_with(base, wiring.route, run), run.id)
            traced = trace(small)
            findings = glance(small, traced)[0]
            worst = -SEVERITY[findings[0].grade]
            rank = (worst, len([one for one in findings if one.grade is findings[0].grade]), *simplicity(wiring.route))
            proposal = Proposal(wanted, run, wiring.route, ops, findings, small, traced)
            if best is None or rank < best[0]:
                best = rank, proposal
            if findings[0].grade is Grade.CLEAR:
                # Candidates come simplest first, so nothing that follows can rank before a clear one.
                break
        if best is None:
            return None
        chosen = best[1]
        self.rig = _with(base, chosen.route, chosen.run)
        self._kinds_before = _kinds(chosen.route)
        return chosen

    def _gear_ops(self, base: Rig, new: dict[str, Gear]) -> Iterator[Op]:
        known = set(self.rig.parts_by_id)
        for gear in new.values():
            if gear.part not in known:
                known.add(gear.part)
                yield PutPart(thing=base.parts_by_id[gear.part])
            yield PutGear(thing=gear)

    def _plainest(self, pool: Pool, wanted: Wanted) -> Iterator[_Wiring]:
        """One owned piece a line that is made for both sockets: where that is clear, nothing else need be sought."""
        if wanted.parts or wanted.items or wanted.through:
            return
        for sources in _source_choices(wanted.sources):
            for goals in wanted.goal.choices if wanted.goal else ():
                first = (
                    next(self._wired(pool, wanted, sources, goals), None) if _free(pool.rig, sources + goals) else None
                )
                if first is not None and simplicity(first.route)[:2] == (0, float(len(sources))):
                    yield first
                    return

    def _candidates(self, pool: Pool, wanted: Wanted) -> Iterator[_Wiring]:
        """The simplest wirings of each choice of sockets; of a series of runs, the one like the run before."""
        found: list[_Wiring] = []
        for sources in _source_choices(wanted.sources):
            for goals in wanted.goal.choices if wanted.goal else ((),):
                if not _free(pool.rig, (*sources, *goals)):
                    continue
                if wanted.length_m is None and not wanted.through and _straight(pool.rig, sources, goals):
                    yield _Wiring(sources, goals, Route((), (Join(a=sources[0], b=goals[0]),)))
                    return
                few: list[_Wiring] = []
                for wiring in islice(self._wired(pool, wanted, sources, goals), LOOKED_AT):
                    if self._kinds_before == _kinds(wiring.route):
                        yield wiring
                        return
                    few.append(wiring)
                found += sorted(few, key=lambda wiring: simplicity(wiring.route))[:SOLVED_AT_MOST]
        yield from sorted(found, key=lambda wiring: simplicity(wiring.route))[:SOLVED_AT_MOST]

    def _wired(self, pool: Pool, wanted: Wanted, sources: tuple[str, ...], goals: tuple[str, ...]) -> Iterator[_Wiring]:
        need_m = wanted.length_m if wanted.length_m is not None else ASSUMED_REACH_M
        if wanted.through:
            found = _through(pool, wanted.through, sources, goals, need_m)
        else:
            found = routes(pool, sources, goals, need_m)
        for route in islice(found, LOOKED_AT_FOR_NAMED):
            if _has(route, wanted):
                yield _Wiring(sources, goals, route)


def _straight(rig: Rig, sources: tuple[str, ...], goals: tuple[str, ...]) -> bool:
    """Whether one of the two is the plug of a device's own lead (not an XLR on a panel) and goes right in."""
    if len(sources) != 1 or len(goals) != 1:
        return False
    one, other = connector_at(rig, sources[0]).form, connector_at(rig, goals[0]).form
    return fits(one, other) and not one.startswith("xlr")


def _kinds(route: Route) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """Parts in order and the sockets at both ends without their numbers: what runs of a series have in common."""
    ends = (route.joins[0].a, route.joins[-1].b)
    return _parts_of(route), tuple(end.rstrip("0123456789").split(".")[1] for end in ends)


def _parts_of(route: Route) -> tuple[str, ...]:
    return tuple(item.part for item in route.items)


def _source_choices(sources: tuple[End, ...]) -> Iterator[tuple[str, ...]]:
    first, *rest = sources
    for choice in first.choices:
        yield (*choice, *(end for other in rest for end in other.choices[0]))


def _free(rig: Rig, ends: tuple[str, ...]) -> bool:
    taken = {end for run in rig.runs for join in run.joins for end in (join.a, join.b)}
    return not taken & set(ends)


def _has(route: Route, wanted: Wanted) -> bool:
    """Whether everything named on the way is in it."""
    parts = [item.part for item in route.items]
    ids = {item.id for item in route.items}
    return all(any(part in options for part in parts) for options in wanted.parts) and ids >= set(wanted.items)


def _with(rig: Rig, route: Route, run: Run) -> Rig:
    """The rig with the run in it; nothing is checked, the route was built from what fits."""
    have = set(rig.owners_by_id)
    items = tuple(dict.fromkeys(item for item in route.items if item.id not in have))
    return embed(rig.replaced(kit=(*rig.kit, *items), runs=(*rig.runs, run)))


def _through(
    pool: Pool, through: tuple[Through, ...], sources: tuple[str, ...], goals: tuple[str, ...], need_m: float
) -> Iterator[Route]:
    """To what is built in, through it, and on from there; the stated length is that of the first stretch."""
    first, *rest = through
    if len(sources) == len(first.entries) or len(sources) == 1:
        exits = tuple(exit_of(pool.rig.part_of(first.item.id), entry) for entry in first.entries)
        for before in islice(routes(pool, sources, first.entries, need_m), 12):
            taken = Pool(
                pool.rig, tuple(i for i in pool.free if i.id not in {one.id for one in before.items}), pool.first
            )
            for after in islice(_onward(taken, tuple(rest), exits, goals), 8):
                yield Route((*before.items, first.item, *after.items), (*before.joins, *after.joins))


def _onward(pool: Pool, rest: tuple[Through, ...], exits: tuple[str, ...], goals: tuple[str, ...]) -> Iterator[Route]:
    if rest:
        yield from _through(pool, rest, exits, goals, 0.0)
    elif not goals:
        yield Route((), ())
    else:
        yield from routes(pool, exits, goals, 0.0)


def exit_of(part: Part, entry: str) -> str:
    """Where signal that enters a built-in part comes out again: owner.connector. The entry itself if nowhere."""
    owner, name = entry.split(".")
    joined = merged(points_of(part), inside_links(part, screens=False))
    signal = [
        joined[point] for point in joined if point.startswith(f"{name}.") and not point.endswith((".1", ".shell"))
    ]
    for connector in part.connectors:
        mine = {joined[p] for p in joined if p.startswith(f"{connector.id}.")}
        if connector.id != name and mine & set(signal):
            return f"{owner}.{connector.id}"
    return entry
