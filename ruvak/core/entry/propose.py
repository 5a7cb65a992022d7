"""Pieces for the runs a line asks for: searched by what plugs into what, ranked by what they do when solved."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass, replace
from heapq import nsmallest
from itertools import chain, islice, zip_longest

from ruvak.core.analyse import quick_findings
from ruvak.core.entry.hosts import hosts_for
from ruvak.core.entry.line_ends import End, links_of
from ruvak.core.entry.phantom import switch_phantom, wants_phantom
from ruvak.core.entry.stretches import through_routes
from ruvak.core.entry.wanted import Wanted
from ruvak.core.judge.finding import SEVERITY, Finding, Grade
from ruvak.core.parts.library import embed, library
from ruvak.core.pieces.cures import cures, ids_of, pad_loss_db
from ruvak.core.pieces.named import named_forks, named_routes
from ruvak.core.pieces.pool import Pool, Ways, data_of, pool_for
from ruvak.core.pieces.practice import misuses_di, practice_cost
from ruvak.core.pieces.routes import Route, put_ops, routes, simplicity
from ruvak.core.rig.connectors import SHAPES, fits
from ruvak.core.rig.edits import Edit, Op, PutThing, replay
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.prune import sub_rig
from ruvak.core.rig.rig import Gear, Join, Rig, Run
from ruvak.core.trace.run_ends import ends_of
from ruvak.core.trace.trace import Trace, connector_at, trace

ASSUMED_REACH_M = 3.0
"""How far a lead has to reach where the line does not say: a lead beside the desk, common practice."""
SOLVED = 3
"""How many wirings of one run are solved before one is chosen."""
CURING, LOOKED_AT_TO_CURE = (2, 1), 120
"""How many wirings are solved with what is made against what the best of them leaves wrong, and again with what is made
against what these leave wrong; and out of how many."""
TURNED_DOWN_DB = 6.0
"""What is less too loud than this is turned down and gets no pad: common practice."""
WIDE_TO_CURE = 12
"""How many lines behind a fork are looked at for that."""
LOOKED_AT = 120
LOOKED_AT_FOR_NAMED = 400
"""How many wirings are put together, and how many when one must contain what the line names."""


@dataclass(frozen=True)
class SubRigResult:
    """A run's findings, the small rig it was solved in, and that rig's trace."""

    findings: tuple[Finding, ...]
    rig: Rig
    traced: Trace


@dataclass(frozen=True)
class Built:
    """One run as it would be built, and the whole rig with it; of a series only the first is solved at once."""

    wanted: Wanted
    run: Run
    route: Route
    ops: tuple[Op, ...]
    rig: Rig
    solved: SubRigResult | None


@dataclass(frozen=True)
class Proposal:
    """One run as it would be built, solved."""

    wanted: Wanted
    run: Run
    route: Route
    ops: tuple[Op, ...]
    solved: SubRigResult


@dataclass(frozen=True)
class _Wiring:
    """A candidate: sockets chosen, pieces chosen."""

    sources: tuple[Endpoint, ...]
    goals: tuple[Endpoint, ...]
    route: Route
    cost: tuple[float, float, float]
    """Smaller is tried first: what has to be got and what is against practice, then the number of pieces, then lead."""


@dataclass(frozen=True)
class _Tried:
    """A candidate solved; the smallest rank is the best."""

    rank: tuple[float, ...]
    built: Built
    solved: SubRigResult
    grade: Grade
    """Its worst, little headroom aside."""


def _names_pieces(wanted: Wanted) -> bool:
    """Whether the line says what to use, so that practice has no say."""
    return bool(wanted.named or wanted.parts or wanted.items)


def _wiring(
    pool: Pool, wanted: Wanted, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...], route: Route
) -> _Wiring:
    to_get, pieces, lead_m = simplicity(route)
    against = practice_cost(pool, route, sources, goals, chosen=_names_pieces(wanted))
    return _Wiring(sources, goals, route, (to_get + against, pieces, lead_m))


class _Search:
    """The best of what was tried so far."""

    def __init__(self) -> None:
        self.best: _Tried | None = None
        self.newest: _Tried | None = None
        """The best since somebody last set it to None."""
        self.count = 0
        self._humming: list[Counter[str]] = []

    def add(self, wiring: _Wiring, one: _Tried) -> None:
        self.count += 1
        if self.best is None or one.rank < self.best.rank:
            self.best = one
        if self.newest is None or one.rank < self.newest.rank:
            self.newest = one
        if _only_hums(one.solved.findings):
            self._humming.append(Counter(_parts_of(wiring.route)))

    @property
    def is_clear(self) -> bool:
        """Candidates come simplest first, so nothing that follows can rank before a clear one."""
        return self.best is not None and self.best.grade is Grade.CLEAR

    def is_only_longer(self, pool: Pool, wiring: _Wiring) -> bool:
        """Whether it adds nothing but leads and adapters to one that only hums: they would not quieten it."""
        pieces = Counter(_parts_of(wiring.route))
        return any(_only_longer(pool, tried, pieces) for tried in self._humming)


class Proposer:
    """Builds on a rig run after run: what one takes, the next cannot have."""

    def __init__(self, rig: Rig) -> None:
        self.rig = embed(rig)
        self.users = {end: run.name for run in rig.runs for end in run.ends}
        """Which run uses a socket; those built here included."""
        self._known: Ways | None = None
        self._kinds_before: tuple[tuple[str, ...], tuple[str, ...]] | None = None

    def build(self, wanted: Wanted, named: tuple[str, int, str, str]) -> Built | None:
        """The best wiring, and the rig goes on with it; None where nothing leads from one to the other.

        `named`: the run's id, number, name and note.
        """
        # What an earlier run of this line has brought is there already, with its switches as that run set them.
        known = self.rig.owners_by_id
        ends = [end for end in (*wanted.sources, *wanted.goals) if end.is_new]
        new: dict[str, Gear] = {end.gear.id: end.gear for end in ends if end.gear.id not in known}
        base = self.rig
        brought = {through.item.id: through.item for through in wanted.through}
        if any(known.get(id_) != item for id_, item in brought.items()):
            # Multicores that the line brings, or makes larger.
            kept = tuple(brought.pop(item.id, item) for item in base.kit)
            base = embed(base.with_fields(kit=(*kept, *brought.values())))
        if new:
            new, bonds = hosts_for(self.rig, new.values(), wanted.host)
            base = embed(base.with_fields(gear=(*base.gear, *new.values()), bonds=(*base.bonds, *bonds)))
        # What the line names by its tag is preferred to what would do as well.
        signal = data_of(base, (socket for end in wanted.sources for choice in end.choices[:1] for socket in choice))
        asked = frozenset(part for options in wanted.parts for part in options)
        pool = replace(pool_for(base, known=self._known, signal=signal), first=frozenset(wanted.items), asked=asked)
        like_before = self._like_before(pool, wanted)
        if like_before is not None:
            chosen = self._build(base, new, wanted, named, like_before)
        else:
            result = self._best(base, new, wanted, named, pool)
            if result is None:
                return None
            chosen = result
        self.rig, self._known = chosen.rig, pool.through
        self._kinds_before = _kinds(chosen.route)
        self.users |= dict.fromkeys(chosen.run.ends, chosen.run.name)
        return chosen

    def can_build(self, wanted: Wanted) -> bool:
        """Whether anything leads from one to the other; nothing is solved and nothing is kept."""
        new = {end.gear.id: end.gear for end in (*wanted.sources, *wanted.goals) if end.is_new}
        base = self.rig.with_fields(
            gear=(*self.rig.gear, *(g for g in new.values() if g.id not in self.rig.owners_by_id))
        )
        brought = [t.item for t in wanted.through if t.item.id not in self.rig.owners_by_id]
        base = embed(base.with_fields(kit=(*base.kit, *dict.fromkeys(brought))))
        signal = data_of(base, (socket for end in wanted.sources for choice in end.choices[:1] for socket in choice))
        pool = pool_for(base, known=self._known, signal=signal)
        return any(
            next(self._find_wirings(pool, wanted, sources, goals), None) is not None
            for sources, goals in self._sockets(wanted)
        )

    def _sockets(self, wanted: Wanted) -> Iterator[tuple[tuple[Endpoint, ...], tuple[Endpoint, ...]]]:
        """Each choice of sockets at the two ends of which none is in use."""
        for sources in _source_choices(wanted.sources):
            for goals in _goal_choices(wanted):
                if not any(end in self.users for end in (*sources, *goals)):
                    yield sources, goals

    def _best(
        self, base: Rig, new: dict[str, Gear], wanted: Wanted, named: tuple[str, int, str, str], pool: Pool
    ) -> Built | None:
        """Candidates solved one after the other until one is clear.

        First a few, simplest first; then with what is made against what the best of these leaves wrong, for there are
        too many longer wirings to come upon that by chance.
        """
        search = _Search()
        plain = chain(self._plainest(pool, wanted), self._candidates(pool, wanted))

        def tries(some: Iterator[_Wiring], most: int) -> None:
            while search.count < most and not search.is_clear:
                wiring = next(some, None)
                if wiring is None:
                    return
                if not search.is_only_longer(pool, wiring):
                    search.add(wiring, self._try(base, new, wanted, named, wiring))

        if wanted.named:
            # What was typed is what is planned; what would do better is for the remedies to say.
            tries(islice(plain, SOLVED), SOLVED)
            return search.best.built if search.best is not None else None
        tries(plain, SOLVED)
        wrong: list[Finding] = []
        for most in CURING:
            if search.best is None or search.is_clear:
                break
            wrong += _to_cure_first((search.newest or search.best).solved.findings)
            search.newest = None
            needed = ids_of(cures(finding.code.cure for finding in wrong), pool.parts.values())
            if needed:
                needed = tuple(_pads_that_do(pool, ids, wrong) for ids in needed)
                wide = any(finding.code.is_too_loud for finding in wrong)
                before = search.count
                tries(self._curing(pool, wanted, needed, wide), search.count + most)
                if search.count == before and len(needed) > 1:
                    # Nothing has all of it: what is made against the first of them.
                    tries(self._curing(pool, wanted, needed[:1], wide), search.count + most)
        return search.best.built if search.best is not None else None

    def _curing(self, pool: Pool, wanted: Wanted, needed: tuple[tuple[str, ...], ...], wide: bool) -> Iterator[_Wiring]:
        """Wirings with what the line does not name but needs: the simplest of each number of pieces, then the next.

        `wide`: a pad stands anywhere behind a fork, so more lines are looked at there.
        """
        must = tuple(frozenset(parts) for parts in needed)
        pool = replace(pool, known=pool.through, must=must, wide=WIDE_TO_CURE if wide else pool.wide)
        by_pieces: dict[int, list[_Wiring]] = {}
        for sources, goals in self._sockets(wanted):
            curing = (
                wiring
                for wiring in self._find_wirings(pool, wanted, sources, goals)
                if wiring.route.has_one_of_each(needed)
            )
            for wiring in islice(curing, LOOKED_AT_TO_CURE):
                by_pieces.setdefault(len(wiring.route.items), []).append(wiring)
        columns = [sorted(by_pieces[count], key=lambda wiring: wiring.cost) for count in sorted(by_pieces)]
        for row in zip_longest(*columns):
            yield from sorted((entry for entry in row if entry is not None), key=lambda wiring: wiring.cost)

    def _try(
        self, base: Rig, new: dict[str, Gear], wanted: Wanted, named: tuple[str, int, str, str], wiring: _Wiring
    ) -> "_Tried":
        built = self._build(base, new, wanted, named, wiring)
        solved = solve_runs(built.rig, (built.run.id,))[0]
        # Little headroom is no reason for another wiring: whoever mixes turns it down.
        grades = [finding.grade for finding in solved.findings if not finding.code.asks_to_turn_down]
        grade = min(grades, key=lambda each: SEVERITY[each], default=Grade.CLEAR)
        rank = (-SEVERITY[grade], grades.count(grade), *wiring.cost)
        return _Tried(rank, replace(built, solved=solved), solved, grade)

    def _build(
        self, base: Rig, new: dict[str, Gear], wanted: Wanted, named: tuple[str, int, str, str], wiring: _Wiring
    ) -> Built:
        run_id, number, name, said = named
        note = "; ".join([*(["phantom"] if "phantom" in wanted.options else []), *([said] if said else [])])
        pieces = tuple(dict.fromkeys(item.id for item in wiring.route.items))
        run = Run(id=run_id, number=number, name=name, pieces=pieces, joins=wiring.route.joins, note=note)
        phantom = "phantom" in wanted.options or wants_phantom(base, wiring.sources)
        switches = tuple(switch_phantom(base, wiring.goals, on=True)) if phantom else ()
        ops: tuple[Op, ...] = (
            *self._gear_ops(base, new),
            *(PutThing(kind="bonds", thing=bond) for bond in base.bonds[len(self.rig.bonds) :]),
            *self._enlarged(wanted),
            *put_ops(self.rig, wiring.route.items),
            *switches,
            PutThing(kind="runs", thing=run),
        )
        rig = _with(base, wiring.route, run)
        if switches:
            rig = replay(rig, Edit(label="phantom", ops=switches))
        return Built(wanted, run, wiring.route, ops, rig, None)

    def _enlarged(self, wanted: Wanted) -> Iterator[Op]:
        """What makes a multicore of the rig a larger one."""
        for item in dict.fromkeys(through.item for through in wanted.through):
            if self.rig.owners_by_id.get(item.id, item) != item:
                if item.part not in self.rig.parts_by_id:
                    yield PutThing(kind="parts", thing=library()[item.part])
                yield PutThing(kind="kit", thing=item)

    def _gear_ops(self, base: Rig, new: dict[str, Gear]) -> Iterator[Op]:
        known = set(self.rig.parts_by_id)
        for gear in new.values():
            if gear.part not in known:
                known.add(gear.part)
                yield PutThing(kind="parts", thing=base.parts_by_id[gear.part])
            yield PutThing(kind="gear", thing=gear)

    def _plainest(self, pool: Pool, wanted: Wanted) -> Iterator[_Wiring]:
        """One owned piece a line that is made for both sockets: where that is clear, nothing else need be sought."""
        if wanted.parts or wanted.items or wanted.through:
            return
        for sources, goals in self._sockets(wanted):
            first = next(self._find_wirings(pool, wanted, sources, goals), None)
            if first is not None and first.cost[:2] == (0.0, float(len(sources))):
                yield first
                return

    def _like_before(self, pool: Pool, wanted: Wanted) -> _Wiring | None:
        """Of a series of runs: the wiring like that of the run before."""
        if self._kinds_before is None:
            return None
        for sources, goals in self._sockets(wanted):
            for wiring in islice(self._find_wirings(pool, wanted, sources, goals), LOOKED_AT):
                if self._kinds_before == _kinds(wiring.route):
                    return wiring
        return None

    def _candidates(self, pool: Pool, wanted: Wanted) -> Iterator[_Wiring]:
        """The simplest wirings, of each choice of sockets one first."""
        first: list[_Wiring] = []
        result: list[_Wiring] = []
        for sources, goals in self._sockets(wanted):
            plain = not (wanted.through or wanted.parts or wanted.items)
            if wanted.length_m is None and plain and _straight(pool.rig, sources, goals):
                route = Route((), (Join(a=sources[0], b=goals[0]),))
                yield _wiring(pool, wanted, sources, goals, route)
                return
            few = islice(self._find_wirings(pool, wanted, sources, goals), LOOKED_AT)
            simplest = nsmallest(SOLVED, few, key=lambda wiring: wiring.cost)
            first += simplest[:1]
            result += simplest[1:]
        # A channel's two inputs are both looked at before a second wiring to one of them.
        yield from sorted(first, key=lambda wiring: wiring.cost)
        yield from nsmallest(SOLVED, result, key=lambda wiring: wiring.cost)

    def _find_wirings(
        self, pool: Pool, wanted: Wanted, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...]
    ) -> Iterator[_Wiring]:
        need_m = wanted.length_m
        if need_m is None:
            need_m = 0.0 if _brings_its_lead(pool.rig, sources, goals) else ASSUMED_REACH_M
        if wanted.named and not wanted.through and len(sources) == len(goals) == 1:
            result = named_routes(pool, wanted.named, sources[0], goals[0], need_m)
        elif wanted.named and not wanted.through and len(sources) == 1 and len(goals) == 2:
            result = (route for route in routes(pool, sources, goals, need_m) if _has(route, wanted))
            first = next(result, None)
            if first is None:
                result = named_forks(pool, wanted.named, sources[0], goals, need_m)
            else:
                result = chain((first,), result)
        elif wanted.through:
            result = through_routes(pool, wanted.through, sources, goals, need_m, wanted.named)
        else:
            result = routes(pool, sources, goals, need_m)
        for route in islice(result, LOOKED_AT_FOR_NAMED):
            if _has(route, wanted) and (_names_pieces(wanted) or not misuses_di(pool, route, goals)):
                yield _wiring(pool, wanted, sources, goals, route)


def solved_together(built: list[Built]) -> list[Proposal]:
    """Solves together what was not solved while it was chosen."""
    rest = tuple(entry.run.id for entry in built if entry.solved is None)
    later = dict(zip(rest, solve_runs(built[-1].rig, rest), strict=True)) if rest else {}
    return [
        Proposal(entry.wanted, entry.run, entry.route, entry.ops, entry.solved or later[entry.run.id])
        for entry in built
    ]


def solve_runs(rig: Rig, run_ids: tuple[str, ...]) -> list[SubRigResult]:
    """Runs of a rig solved by themselves, with those that feed them; in the order of the rig."""
    small = sub_rig(rig, *run_ids, *_feeding(rig, run_ids))
    traced = trace(small)
    results = zip(small.runs, quick_findings(small, traced), strict=True)
    return [SubRigResult(findings, small, traced) for run, findings in results if run.id in run_ids]


def _feeding(rig: Rig, run_ids: tuple[str, ...]) -> set[str]:
    """Runs without which these carry nothing, since they start at a socket that leads on what comes in at another."""
    result: set[str] = set()
    wanted = [run for run in rig.runs if run.id in run_ids]
    while wanted:
        run = wanted.pop()
        leading = {end.owner for end in ends_of(rig, run, "out") if end.connector in links_of(rig.part_of(end.owner))}
        for other in rig.runs if leading else ():
            if (
                other.id not in result
                and other.id != run.id
                and leading & {end.owner for end in ends_of(rig, other, "in")}
            ):
                result.add(other.id)
                wanted.append(other)
    return result - set(run_ids)


def _to_cure_first(findings: tuple[Finding, ...]) -> list[Finding]:
    """What has a cure; a pad only where nothing else is wrong, since another wiring may be less loud, and where it is
    more than somebody would turn down."""
    curable = [
        finding
        for finding in findings
        if finding.code.cure is not None and not (finding.code.is_too_loud and _over_db(finding) < TURNED_DOWN_DB)
    ]
    return [finding for finding in curable if not finding.code.is_too_loud] or curable


def _over_db(finding: Finding) -> float:
    return float(finding.params.get("over_db", 0.0))


def _pads_that_do(pool: Pool, ids: tuple[str, ...], findings: list[Finding]) -> tuple[str, ...]:
    """Of pads those that take as much as is too much; of other parts, or where none takes as much, all."""
    over_db = max((_over_db(finding) for finding in findings if finding.code.is_too_loud), default=0.0)
    enough = tuple(entry for entry in ids if pad_loss_db(pool.parts[entry]) >= over_db)
    return enough if enough and all(pad_loss_db(pool.parts[entry]) > 0.0 for entry in ids) else ids


def _only_hums(findings: tuple[Finding, ...]) -> bool:
    """Whether hum is the one thing that has to be mended."""
    return any(finding.code.is_hum for finding in findings) and all(
        finding.code.is_hum or finding.grade is Grade.WATCH for finding in findings
    )


def _only_longer(pool: Pool, tried: Counter[str], pieces: Counter[str]) -> bool:
    """Whether a wiring adds nothing but leads and adapters to one that only hums: they would not quieten it."""
    return tried <= pieces and all(pool.parts[part].kind != "box" for part in pieces - tried)


def _brings_its_lead(rig: Rig, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...]) -> bool:
    """Whether everything at one end has a lead of its own, whose plug it is (not an XLR on a panel): that reaches."""
    sides = [[connector_at(rig, end).form for end in ends] for ends in (sources, goals) if ends]
    return any(all(SHAPES[form].plug and not form.startswith("xlr") for form in forms) for forms in sides)


def _straight(rig: Rig, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...]) -> bool:
    """Whether one of the two is the plug of a device's own lead (not an XLR on a panel) and goes right in."""
    if len(sources) != 1 or len(goals) != 1:
        return False
    one, other = connector_at(rig, sources[0]).form, connector_at(rig, goals[0]).form
    return fits(one, other) and not one.startswith("xlr")


def _kinds(route: Route) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """Parts in order and the sockets at both ends without their numbers: what runs of a series have in common."""
    ends = (route.joins[0].a, route.joins[-1].b)
    return _parts_of(route), tuple(end.connector.rstrip("0123456789") for end in ends)


def _parts_of(route: Route) -> tuple[str, ...]:
    return tuple(item.part for item in route.items)


def _source_choices(sources: tuple[End, ...]) -> Iterator[tuple[Endpoint, ...]]:
    first, *rest = sources
    for choice in first.choices:
        yield (*choice, *(end for other in rest for end in other.choices[0]))


def _goal_choices(wanted: Wanted) -> Iterator[tuple[Endpoint, ...]]:
    if wanted.goal is None:
        yield ()
    elif wanted.goal_beside is None:
        yield from wanted.goal.choices
    else:
        for choice, other in zip(wanted.goal.choices, wanted.goal_beside.choices, strict=False):
            yield (*choice, *other)


def _has(route: Route, wanted: Wanted) -> bool:
    """Whether everything named on the way is in it."""
    return route.has_one_of_each(wanted.parts) and {item.id for item in route.items} >= set(wanted.items)


def _with(rig: Rig, route: Route, run: Run) -> Rig:
    """The rig with the run in it; nothing is checked, the route was built from what fits."""
    have = set(rig.owners_by_id)
    items = tuple(dict.fromkeys(item for item in route.items if item.id not in have))
    return embed(rig.with_fields(kit=(*rig.kit, *items), runs=(*rig.runs, run)))
