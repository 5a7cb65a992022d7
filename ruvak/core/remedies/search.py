"""Finds, solves and ranks what would cure a run."""

import hashlib
from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from itertools import chain, islice

from ruvak.core.analyse import (
    Analysis,
    Assessment,
    RunAnalysis,
    RunVerdict,
    assess,
    prepare,
    quick_findings,
    rest_of_rig,
)
from ruvak.core.analysis_cache import AnalysisCache
from ruvak.core.judge.finding import SEVERITY, Finding, Grade
from ruvak.core.judge.sentences import number, signed
from ruvak.core.parts.library import library
from ruvak.core.pieces.cures import cures
from ruvak.core.pieces.routes import Route, simplicity
from ruvak.core.pieces.screens import opens_screen
from ruvak.core.remedies.figures import HUM_TOLD_DB, figures_of
from ruvak.core.remedies.lifts import CAUTION, may_open_screen
from ruvak.core.remedies.pairs import beside, same_way
from ruvak.core.remedies.paths import edit_for, paths
from ruvak.core.remedies.remedy import Effect, Needed, Remedy
from ruvak.core.remedies.settings import settings_edits
from ruvak.core.results.norton import NortonEquivalent
from ruvak.core.rig.edits import Edit, SetField, apply, is_setting
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.prune import prune
from ruvak.core.rig.rig import Join, KitItem, Rig, Run
from ruvak.core.trace.trace import connector_at

MAX_SOLVED, MAX_WARNINGS = 4, 1
"""How many candidates get the full analysis, and how many of what people try in vain."""
ENOUGH_CLEAR, COMBINED, NEARLY = 5, 4, 2
"""So many clear rewirings end the search, simplest first; so many rewirings are tried with a switch flipped as well,
and so many of those that leave least to be cured by one."""
MAX_FIRST = 2
"""How many are solved while somebody waits for the first."""
ARROW = "\N{RIGHTWARDS ARROW}"


def remedies_for(
    rig: Rig, run_id: str, before: Analysis | None = None, cache: AnalysisCache | None = None
) -> tuple[Remedy, ...]:
    """Solved remedies of one run, best first, then what is often tried and does not help.

    KeyError for an unknown run; empty when the run is clear. `before`: the rig's analysis, where it is at hand
    already; `cache`: what was solved before.
    """
    return _search(rig, run_id, before, cache).ranked()


def first_remedy(
    rig: Rig, run_id: str, before: Analysis | None = None, cache: AnalysisCache | None = None
) -> Remedy | None:
    """As remedies_for(), but the first that clears the run in the order of trying, which is soonest; None without."""
    return _search(rig, run_id, before, cache).first()


def _search(rig: Rig, run_id: str, before: Analysis | None, cache: AnalysisCache | None) -> "_Search":
    rig = prepare(rig)
    run = next((run for run in rig.runs if run.id == run_id), None)
    if run is None:
        raise KeyError(run_id)
    return _Search(rig, run, before, cache or AnalysisCache())


@dataclass(frozen=True)
class _Candidate:
    """An edit and what a glance at the run by itself says of it."""

    edit: Edit
    title: str
    items: tuple[KitItem, ...]
    changes: int
    detail: str
    findings: tuple[Finding, ...]
    simplicity: tuple[int, float, float] = (0, 0.0, 0.0)


class _Search:
    def __init__(self, rig: Rig, run: Run, before: Analysis | None, cache: AnalysisCache) -> None:
        self.rig, self.run, self.cache = rig, run, cache
        self.sub_rig = rig.with_fields(runs=(run,))
        known = before if before is not None else assess(rig, run.id, cache)
        self.before: tuple[RunVerdict | RunAnalysis, ...] = known.runs
        self.target = (
            next(entry for entry in known.runs if entry.run == run.id)
            if isinstance(known, Analysis)
            else known.target_run
        )
        self.norton: NortonEquivalent | None = None
        self.glanced = quick_findings(prune(self.sub_rig))[0]

    def first(self) -> Remedy | None:
        """Switches, then rewirings as they are found, until one clears the run and harms no other.

        Soonest by a glance at the run by itself, where that hums too; whatever is shown has had the whole rig.
        """
        if self._nothing_to_offer():
            return None
        if _hums(self.target.findings) and not _hums(self.glanced):
            self._look_around()
        clear = (entry for entry in chain(self._flips(), self._rewirings()) if entry.findings[0].grade is Grade.CLEAR)
        solved = (self._solved(entry) for entry in islice(clear, MAX_FIRST))
        return next((remedy for remedy in solved if remedy.helps), None)

    def ranked(self) -> tuple[Remedy, ...]:
        """Candidates by a glance at each, then the best ones solved with the whole rig."""
        if self._nothing_to_offer():
            return ()
        if _hums(self.target.findings):
            self._look_around()
        flips = list(self._flips())
        rewired = sorted(self._rewirings(), key=self._promise)
        unclear = [entry for entry in rewired if entry.findings[0].grade is not Grade.CLEAR]
        nearly = sorted(unclear, key=lambda candidate: self._left_to_cure(candidate, flips))[:NEARLY]
        worth_it = [*unclear[:COMBINED], *(entry for entry in nearly if entry not in unclear[:COMBINED])]
        both = [entry for route in worth_it for entry in self._with_flips(route, flips)]
        best: list[tuple[Counter[str], Remedy]] = []
        solved, paired = 0, False
        for entry in sorted([*flips, *rewired, *both], key=self._promise):
            kind = Counter(self._kind(entry.edit))
            # What does no more than a shorter list of the same things is not worth reading.
            if self._severity(entry.findings) <= self._severity(self.glanced) or any(
                fewer <= kind for fewer, _ in best
            ):
                continue
            if solved == MAX_SOLVED:
                break
            solved += 1
            remedy = self._solved(entry)
            if remedy.helps:
                best.append((kind, remedy))
            if not paired and (twice := self._on_those_beside(entry)) is not None:
                paired = True
                remedy = self._solved(twice)
                if remedy.helps:
                    best.append((Counter(self._kind(twice.edit)), remedy))
        worth_a_warning = [flip for flip in flips if self._only_moves_the_trouble(flip)]
        tried = [self._solved(entry) for entry in worth_a_warning[:MAX_WARNINGS]]
        helping = sorted((remedy for _, remedy in best), key=self._rank)
        return (*helping, *(remedy for remedy in tried if not remedy.helps))

    def _look_around(self) -> None:
        """From now on candidates are looked at in the rest of the rig: what closes their loops may be other runs."""
        self.norton = rest_of_rig(self.rig, self.run.id, self.cache)
        self.glanced = quick_findings(prune(self.sub_rig), norton=self.norton)[0]

    def _nothing_to_offer(self) -> bool:
        """It is clear; or a device at its end has lost its mains earth: no wiring makes that right, and an isolator
        would take the last earth its metal has."""
        result = self.target.result
        owners = {source.gear for source in result.sources} | {receiver.gear for receiver in result.inputs}
        lost = any(gear.earth_open for gear in self.rig.gear if gear.id in owners)
        return lost or self.target.findings[0].grade is Grade.CLEAR

    def _on_those_beside(self, candidate: "_Candidate") -> "_Candidate | None":
        """With the same boxes in every run that hums between the same two devices; None where there is none."""
        boxes = Counter(
            item.part for item in candidate.items if item.id not in self.run.pieces and item.length_m is None
        )
        if not any(self._has_coil(item) for item in candidate.items if item.id not in self.run.pieces):
            return None
        humming = {run.run for run in self.before if _hums(run.findings)}
        rig, ops, items, names = apply(self.rig, candidate.edit), candidate.edit.ops, candidate.items, []
        for other in (run for run in beside(self.rig, self.run) if run.id in humming):
            route = same_way(rig, other, boxes)
            if route is None:
                return None
            edit = edit_for(rig, other, route, "the same")
            rig, ops = apply(rig, edit), (*ops, *edit.ops)
            items = (*items, *(item for item in route.items if item.id not in other.pieces))
            names.append(other.name)
        if not names:
            return None
        title = f"{candidate.title}, and the same on {' and '.join(names)}"
        edit = Edit(label=title[:120], ops=ops)
        changes = candidate.changes * (1 + len(names))
        return _Candidate(edit, title, items, changes, candidate.detail, candidate.findings, candidate.simplicity)

    def _has_coil(self, item: KitItem) -> bool:
        return any(element.type == "transformer" for element in _part(self.rig.parts_by_id, item).elements)

    def _promise(self, candidate: "_Candidate") -> tuple[float, ...]:
        missing = sum(not item.owned for item in candidate.items)
        worst = candidate.findings[0].grade
        return (
            -SEVERITY[worst],
            float(len(candidate.findings)),
            float(missing),
            float(candidate.changes),
            *candidate.simplicity,
        )

    def _left_to_cure(self, candidate: "_Candidate", flips: list["_Candidate"]) -> tuple[float, ...]:
        """As _promise, without the findings that some switch or control by itself would take away."""
        before = {finding.code for finding in self.glanced}
        cured = {code for flip in flips for code in before - {finding.code for finding in flip.findings}}
        if any(code.goes_with_less_level for code in cured):
            # Turned down for one of them it is turned down for all.
            cured |= {code for code in before if code.goes_with_less_level}
        left = [finding for finding in candidate.findings if finding.code not in cured]
        worst = SEVERITY[left[0].grade] if left else SEVERITY[Grade.CLEAR]
        return (-float(worst), float(len(left)), *self._promise(candidate)[2:])

    def _flips(self) -> Iterator["_Candidate"]:
        """Switches and controls, by a glance at each with the run on its own."""
        for edit in settings_edits(self.rig, self.target):
            yield _Candidate(edit, edit.label, (), len(edit.ops), "", self._at_a_glance(edit))

    def _rewirings(self) -> Iterator["_Candidate"]:
        """Other wirings the same way, simplest first.

        What only adds pieces to a wiring that is clear already is not looked at, and no more once enough are clear.
        """
        clear: list[tuple[tuple[Endpoint, ...], Counter[str]]] = []
        may_open = may_open_screen(self.rig, self.target)
        today = len(_goals_of(self.run.joins, self.run.pieces))
        # Two sides on two inputs are given up for one input only where nothing else is found.
        routes = paths(self.rig, self.run, cures(finding.code.cure for finding in self.target.findings))
        ends = [(_goals_of(route.joins, [item.id for item in route.items]), route) for route in routes]
        for goals, route in sorted(ends, key=lambda end: len(end[0]) < today):
            if clear and len(goals) < today:
                break
            if not may_open and self._opens_screen(route.items):
                continue
            if {item.id for item in route.items} == set(self.run.pieces) and route.joins == self.run.joins:
                continue
            parts = Counter(item.part for item in route.items)
            if any(goals == others and fewer <= parts for others, fewer in clear):
                continue
            title, detail = self._title(route)
            edit = edit_for(self.rig, self.run, route, title[:120])
            changes = len({item.id for item in route.items} ^ set(self.run.pieces))
            result = self._at_a_glance(edit)
            if result[0].grade is Grade.CLEAR:
                clear.append((goals, parts))
            yield _Candidate(edit, title, route.items, changes, detail, result, simplicity(route))
            if len(clear) == ENOUGH_CLEAR:
                break

    def _opens_screen(self, items: tuple[KitItem, ...]) -> bool:
        """Whether anything that is not there today opens a screen."""
        parts = self.rig.parts_by_id
        return any(opens_screen(_part(parts, item)) for item in items if item.id not in self.run.pieces)

    def _at_a_glance(self, edit: Edit) -> tuple[Finding, ...]:
        # The run by itself, so that nothing else of the rig has to be checked.
        return quick_findings(prune(apply(self.sub_rig, edit)), norton=self.norton)[0]

    def _with_flips(self, candidate: "_Candidate", flips: list["_Candidate"]) -> Iterator["_Candidate"]:
        """A rewiring that leaves something to watch, with a switch flipped besides."""
        for flip in flips:
            title = f"{candidate.title}; {flip.title}"
            edit = Edit(label=title[:120], ops=candidate.edit.ops + flip.edit.ops)
            result = self._at_a_glance(edit)
            if result[0].grade is Grade.CLEAR:
                yield _Candidate(
                    edit, title, candidate.items, candidate.changes + 1, candidate.detail, result, candidate.simplicity
                )

    def _only_moves_the_trouble(self, candidate: "_Candidate") -> bool:
        """A flipped switch that turns one trouble into another: people try it."""
        codes = {finding.code for finding in candidate.findings}
        better = self._severity(candidate.findings) > self._severity(self.glanced)
        gone = {finding.code for finding in self.glanced} - codes
        return not better and bool(gone) and not any(code.harms_a_device for code in codes)

    def _solved(self, candidate: "_Candidate") -> Remedy:
        edit, rig = candidate.edit, apply(self.rig, candidate.edit)
        after = assess(rig, self.run.id, self.cache)
        own = after.target_run
        effects = tuple(self._effects(after))
        before_rank, after_rank = self._severity(self.target.findings), self._severity(own.findings)
        parts = {part.id: part for part in rig.parts}
        return Remedy(
            id=_name(edit),
            title=candidate.title,
            detail=candidate.detail,
            effect=self._sentence(effects[0], own),
            helps=after_rank > before_rank and not any(_worse(effect) for effect in effects),
            edit=edit,
            pieces=tuple(
                Needed(item=item.id, words=_words(parts[item.part].name, item), in_kit=item.owned)
                for item in candidate.items
                if item.id not in self.run.pieces
            ),
            changes=candidate.changes,
            caution=CAUTION if self._opens_screen(candidate.items) else "",
            effects=effects,
            verdict=after.verdict,
            after=own,
        )

    def _severity(self, findings: tuple[Finding, ...]) -> tuple[int, int]:
        """Better is larger: the worst grade, then how few findings."""
        return SEVERITY[findings[0].grade], -len(findings)

    def _effects(self, after: Assessment) -> Iterator[Effect]:
        names = {run.id: run.name for run in self.rig.runs}
        pairs = zip(self.before, after.runs, strict=True)
        for old, new in sorted(pairs, key=lambda pair: pair[0].run != self.run.id):
            effect = Effect(run=old.run, name=names[old.run], before=figures_of(old), after=figures_of(new))
            if old.run == self.run.id or effect.before != effect.after:
                yield effect

    def _rank(self, remedy: Remedy) -> tuple[float, ...]:
        after = remedy.effects[0].after
        missing = sum(not piece.in_kit for piece in remedy.pieces)
        # What it leaves wrong elsewhere counts before what it takes.
        elsewhere = sum(effect.after.grade is not Grade.CLEAR for effect in remedy.effects[1:])
        mended = sum(_mends(effect) for effect in remedy.effects[1:])
        trouble = (float(elsewhere), -float(mended), float(missing), float(remedy.changes))
        return (-SEVERITY[after.grade], float(len(after.codes)), *trouble)

    def _kind(self, edit: Edit) -> tuple[str, ...]:
        """What there is to do: parts put in, parts taken out, switches flipped."""
        moved_by = [op for op in edit.ops if isinstance(op, SetField) and is_setting(op)]
        # How far several are moved together is one thing to do: the smallest change that cures is told.
        together = len(moved_by) > 1
        flips = tuple(f"{op.id}.{op.key}" + ("" if together else f"={op.value}") for op in moved_by)
        after = apply(self.rig, edit)
        owners = {item.id: item.part for item in (*self.rig.kit, *after.kit)}
        used = next(run for run in after.runs if run.id == self.run.id)
        now, then = (Counter(owners[piece] for piece in pieces) for pieces in (used.pieces, self.run.pieces))
        put_in, taken_out = (now - then).elements(), (then - now).elements()
        moved = ("moved",) if not (now - then or then - now) and used.joins != self.run.joins else ()
        return (*(f"+{part}" for part in put_in), *(f"-{part}" for part in taken_out), *flips, *moved)

    def _title(self, path: Route) -> tuple[str, str]:
        """What it is (its boxes and adapters, else its leads), and what goes with it and goes away."""
        parts = self.rig.parts_by_id
        new = [item for item in path.items if item.id not in self.run.pieces]
        main = [item for item in new if not _part(parts, item).cables] or new
        gone = [item.tag for item in self.rig.kit if item.id in set(self.run.pieces) - {item.id for item in path.items}]
        title = " and ".join(_words(_part(parts, item).name, item) for item in main) or self._replugged(path)
        rest = [_words(_part(parts, item).name, item) for item in new if item not in main]
        detail = [f"with {' and '.join(rest)}"] if rest else []
        detail += [f"in place of {' and '.join(gone)}"] if gone and new else []
        return title, ", ".join(detail)

    def _replugged(self, path: Route) -> str:
        """Nothing new: other sockets, or fewer pieces."""
        now = set(self.run.ends)
        gear = {device.id: device.name for device in self.rig.gear}
        ends = [join.b for join in path.joins if join.b.owner in gear and join.b not in now]
        labels = [f"{gear[end.owner]}, {connector_at(self.rig, end).label}" for end in ends]
        if labels:
            return f"Plug into {' and '.join(labels)}"[:120]
        kept = {item.id for item in path.items}
        items = {item.id: item for item in self.rig.kit}
        gone = [items[piece] for piece in self.run.pieces if piece not in kept]
        words = [_words(self.rig.parts_by_id[item.part].name, item) for item in gone]
        return f"Take out {' and '.join(words)}"[:120] if words else "Change the plugs over"

    def _sentence(self, effect: Effect, after: RunAnalysis) -> str:
        said = []
        if any(code.is_silence for code in effect.after.codes):
            return f"Silences it: what was left of the sides goes too. {after.findings[0].sentence}"
        if effect.before.centre_db is not None and effect.after.centre_db is not None:
            said.append(f"centre {signed(effect.before.centre_db)} {ARROW} {signed(effect.after.centre_db)} dB")
        if effect.before.arriving_dbu is not None and effect.after.arriving_dbu is not None:
            levels = number(effect.before.arriving_dbu), number(effect.after.arriving_dbu)
            if levels[0] != levels[1]:
                said.append(f"arrives {levels[0]} {ARROW} {levels[1]} dBu")
        before_db, after_db = effect.before.hum_below_db, effect.after.hum_below_db
        if before_db is not None and after_db is not None and before_db != after_db:
            pair = f"{_below(before_db)} {ARROW} {_below(after_db)} dB"
            said.append(f"hum {pair} under the programme")
        left = [finding.sentence for finding in after.findings if finding.grade is not Grade.CLEAR]
        shown = ["; ".join(said), *(f"Still: {sentence}" for sentence in left[:1])]
        return ". ".join(entry for entry in shown if entry)


def _hums(findings: tuple[Finding, ...]) -> bool:
    return any(finding.code.is_hum for finding in findings)


def _below(below_db: float) -> str:
    return f"over {number(below_db)}" if below_db >= HUM_TOLD_DB else number(below_db)


def _worse(effect: Effect) -> bool:
    """A graver grade, or as grave as before and something new besides."""
    before, after = effect.before, effect.after
    if after.grade is before.grade:
        return bool(set(after.codes) - set(before.codes)) and after.grade is not Grade.CLEAR
    return SEVERITY[after.grade] < SEVERITY[before.grade]


def _mends(effect: Effect) -> bool:
    return effect.before.grade is not Grade.CLEAR and effect.after.grade is Grade.CLEAR


def _goals_of(joins: Iterable[Join], pieces: Iterable[str]) -> tuple[Endpoint, ...]:
    """The sockets a wiring ends at."""
    own = set(pieces)
    return tuple(join.b for join in joins if join.b.owner not in own)


def _part(parts: dict[str, Part], item: KitItem) -> Part:
    return parts.get(item.part) or library()[item.part]


def _words(name: str, item: KitItem) -> str:
    length = f", {item.length_m:g} m" if item.length_m else ""
    return f"{item.tag if item.owned else ''} {name}{length}".strip()


def _name(edit: Edit) -> str:
    """A short stable id, the same for the same edit."""
    return hashlib.sha256(edit.model_dump_json().encode()).hexdigest()[:12]
