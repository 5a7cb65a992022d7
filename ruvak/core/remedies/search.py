"""Finds, solves and ranks what would cure a run."""

import hashlib
from collections import Counter
from collections.abc import Iterator

from ruvak.core.analyse import Analysis, RunAnalysis, alone, analyse, glance, prepare
from ruvak.core.judge.finding import SEVERITY, Finding, Grade
from ruvak.core.judge.rule import active
from ruvak.core.judge.sentences import number, signed
from ruvak.core.legs.routes import Route, simplicity
from ruvak.core.parts.library import library
from ruvak.core.remedies.paths import edit_for, paths
from ruvak.core.remedies.remedy import Effect, Figures, Needed, Remedy
from ruvak.core.remedies.settings import settings_edits
from ruvak.core.rig.edits import Edit, SetSetting, apply
from ruvak.core.rig.part import Part
from ruvak.core.rig.rig import KitItem, Rig, Run

MAX_CANDIDATES = 10
"""How many rewirings get the full analysis."""
SHOWN = 8
ARROW = "\N{RIGHTWARDS ARROW}"


def remedies_for(rig: Rig, run_id: str, shown: int = SHOWN) -> tuple[Remedy, ...]:
    """Solved remedies of one run, best first, then what is often tried and does not help.

    KeyError for an unknown run; empty when the run is clear.
    """
    rig = prepare(rig)
    run = next((one for one in rig.runs if one.id == run_id), None)
    if run is None:
        raise KeyError(run_id)
    return _Search(rig, run).ranked(shown)


def figures_of(found: RunAnalysis) -> Figures:
    """The sum where the run is heard (its first mix, else its first input), levels at its inputs."""
    result = found.result
    sums = [mix.sum for mix in result.mixes] or [one.sum for one in result.inputs[:1]]
    levels = [level for one in result.inputs if (level := active(one)) is not None]
    return Figures(
        grade=found.findings[0].grade,
        codes=tuple(finding.code for finding in found.findings),
        centre_db=_thousandths(sums[0].centre_db if sums and sums[0] else None),
        arriving_dbu=_thousandths(max((level.arriving_dbu for level in levels), default=None)),
        headroom_db=_thousandths(min((level.headroom_db for level in levels), default=None)),
    )


def _thousandths(level_db: float | None) -> float | None:
    """A run whose figures move by less is not touched: the last bits of a solution differ with every change."""
    return None if level_db is None else round(level_db, 3)


class _Search:
    def __init__(self, rig: Rig, run: Run) -> None:
        self.rig, self.run = rig, run
        self.before = analyse(rig)
        self.found = self._mine(self.before)

    def _mine(self, analysis: Analysis) -> RunAnalysis:
        return next(one for one in analysis.runs if one.run == self.run.id)

    def ranked(self, shown: int) -> tuple[Remedy, ...]:
        if self.found.findings[0].grade is Grade.CLEAR:
            return ()
        flips = list(settings_edits(self.rig, self.found))
        solved = [self._solved(edit, edit.label, (), 1) for edit in flips]
        for route in self._screened():
            solved += self._rewired(route, flips)
        helping = sorted((one for one in solved if one.helps), key=self._rank)
        best: list[tuple[Counter[str], Remedy]] = []
        for one in helping:
            kind = Counter(self._kind(one))
            # What does no more than a shorter list of the same things is not worth reading.
            if not any(fewer <= kind for fewer, _ in best):
                best.append((kind, one))
        tried = [one for one in solved if not one.helps and self._worth_a_warning(one)]
        return (*(one for _, one in best[:shown]), *tried)

    def _screened(self) -> list[Route]:
        """The rewirings worth a full analysis, by a glance at each with the run on its own.

        What only adds pieces to a wiring that is clear already is not looked at.
        """
        clear: list[tuple[tuple[str, ...], Counter[str]]] = []
        promising: list[tuple[tuple[int, int, int, float, float], Route]] = []
        for route in paths(self.rig, self.run):
            goals = tuple(join.b for join in route.joins if join.b.split(".")[0] not in {i.id for i in route.items})
            parts = Counter(item.part for item in route.items)
            if any(goals == others and fewer <= parts for others, fewer in clear):
                continue
            found = self._at_a_glance(edit_for(self.rig, self.run, route, "a glance"))
            if found[0].grade is Grade.CLEAR:
                clear.append((goals, parts))
            promising.append(((-SEVERITY[found[0].grade], len(found), *simplicity(route)), route))
        return [route for _, route in sorted(promising, key=lambda pair: pair[0])][:MAX_CANDIDATES]

    def _at_a_glance(self, edit: Edit) -> tuple[Finding, ...]:
        return glance(alone(apply(self.rig, edit), self.run.id))[0]

    def _rewired(self, path: Route, flips: list[Edit]) -> Iterator[Remedy]:
        """The rewiring alone; where it leaves something to watch, also with one switch flipped."""
        if {item.id for item in path.items} == set(self.run.legs) and path.joins == self.run.joins:
            return
        changes = len({item.id for item in path.items} ^ set(self.run.legs))
        title, detail = self._title(path)
        edit = edit_for(self.rig, self.run, path, title[:120])
        plain = self._solved(edit, title, path.items, changes, detail)
        yield plain
        if plain.helps and plain.effects[0].after.grade is not Grade.CLEAR:
            for flip in flips:
                both = Edit(label=f"{title}; {flip.label}"[:120], ops=edit.ops + flip.ops)
                if self._at_a_glance(both)[0].grade is not Grade.CLEAR:
                    continue
                combined = self._solved(both, f"{title}; {flip.label}", path.items, changes + 1, detail)
                if combined.effects[0].after.grade is Grade.CLEAR:
                    yield combined

    def _solved(self, edit: Edit, title: str, items: tuple[KitItem, ...], changes: int, detail: str = "") -> Remedy:
        after = analyse(apply(self.rig, edit))
        mine = self._mine(after)
        effects = tuple(self._effects(after))
        before_rank, after_rank = self._severity(self.found), self._severity(mine)
        parts = {part.id: part for part in apply(self.rig, edit).parts}
        return Remedy(
            id=_name(edit),
            title=title,
            detail=detail,
            effect=self._sentence(effects[0], mine),
            helps=after_rank > before_rank and not any(_worse(effect) for effect in effects),
            edit=edit,
            pieces=tuple(
                Needed(item=item.id, words=_words(parts[item.part].name, item), in_kit=item.owned)
                for item in items
                if item.id not in self.run.legs
            ),
            changes=changes,
            effects=effects,
            verdict=after.verdict,
            after=mine,
        )

    def _severity(self, found: RunAnalysis) -> tuple[int, int]:
        """Better is larger: the worst grade, then how few findings."""
        return SEVERITY[found.findings[0].grade], -len(found.findings)

    def _effects(self, after: Analysis) -> Iterator[Effect]:
        names = {run.id: run.name for run in self.rig.runs}
        pairs = zip(self.before.runs, after.runs, strict=True)
        for old, new in sorted(pairs, key=lambda pair: pair[0].run != self.run.id):
            effect = Effect(run=old.run, name=names[old.run], before=figures_of(old), after=figures_of(new))
            if old.run == self.run.id or effect.before != effect.after:
                yield effect

    def _rank(self, one: Remedy) -> tuple[float, ...]:
        after = one.effects[0].after
        missing = sum(not piece.in_kit for piece in one.pieces)
        return (-SEVERITY[after.grade], float(len(after.codes)), float(missing), float(one.changes))

    def _kind(self, one: Remedy) -> tuple[str, ...]:
        """What there is to do: parts put in, parts taken out, switches flipped."""
        flips = tuple(f"{op.gear}.{op.setting}={op.value}" for op in one.edit.ops if isinstance(op, SetSetting))
        after = apply(self.rig, one.edit)
        owners = {item.id: item.part for item in (*self.rig.kit, *after.kit)}
        used = next(run for run in after.runs if run.id == self.run.id)
        now, then = (Counter(owners[leg] for leg in legs) for legs in (used.legs, self.run.legs))
        put_in, taken_out = (now - then).elements(), (then - now).elements()
        moved = ("moved",) if not (now - then or then - now) and used.joins != self.run.joins else ()
        return (*(f"+{part}" for part in put_in), *(f"-{part}" for part in taken_out), *flips, *moved)

    def _worth_a_warning(self, one: Remedy) -> bool:
        """A flipped switch that turns one trouble into another."""
        effect = one.effects[0]
        only_switches = all(isinstance(op, SetSetting) for op in one.edit.ops)
        return only_switches and effect.after.codes != effect.before.codes

    def _title(self, path: Route) -> tuple[str, str]:
        """What it is (its boxes and adapters, else its leads), and what goes with it and goes away."""
        parts = self.rig.parts_by_id
        new = [item for item in path.items if item.id not in self.run.legs]
        main = [item for item in new if not _part(parts, item).cables] or new
        gone = [item.tag for item in self.rig.kit if item.id in set(self.run.legs) - {one.id for one in path.items}]
        title = " and ".join(_words(_part(parts, item).name, item) for item in main) or "Fewer legs"
        rest = [_words(_part(parts, item).name, item) for item in new if item not in main]
        detail = [f"with {' and '.join(rest)}"] if rest else []
        detail += [f"in place of {' and '.join(gone)}"] if gone else []
        return title, ", ".join(detail)

    def _sentence(self, effect: Effect, after: RunAnalysis) -> str:
        said = []
        if "silent" in effect.after.codes:
            return f"Silences it: what was left of the sides goes too. {after.findings[0].sentence}"
        if effect.before.centre_db is not None and effect.after.centre_db is not None:
            said.append(f"centre {signed(effect.before.centre_db)} {ARROW} {signed(effect.after.centre_db)} dB")
        if effect.before.arriving_dbu is not None and effect.after.arriving_dbu is not None:
            pair = f"{number(effect.before.arriving_dbu)} {ARROW} {number(effect.after.arriving_dbu)} dBu"
            said.append(f"arrives {pair}")
        left = [one.sentence for one in after.findings if one.grade is not Grade.CLEAR]
        return "; ".join(said) + (f". Still: {left[0]}" if left else "")


def _worse(effect: Effect) -> bool:
    return SEVERITY[effect.after.grade] < SEVERITY[effect.before.grade]


def _part(parts: dict[str, Part], item: KitItem) -> Part:
    return parts.get(item.part) or library()[item.part]


def _words(name: str, item: KitItem) -> str:
    length = f", {item.length_m:g} m" if item.length_m else ""
    return f"{item.tag if item.owned else ''} {name}{length}".strip()


def _name(edit: Edit) -> str:
    """A short stable id, the same for the same edit."""
    return hashlib.sha256(edit.model_dump_json().encode()).hexdigest()[:12]
