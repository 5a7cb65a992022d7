"""Finds, solves and ranks what would cure a run."""

import hashlib
from collections import Counter
from collections.abc import Iterator
from itertools import chain, islice

from ruvak.core.analyse import Analysis, Assessment, assess
from ruvak.core.analysis_cache import AnalysisCache
from ruvak.core.judge.finding import Grade
from ruvak.core.prepare import prepare
from ruvak.core.progress import Progress, report_nothing
from ruvak.core.remedies.candidates import (
    Candidate,
    flips,
    on_those_beside,
    opens_a_screen,
    rewirings,
    with_flips,
)
from ruvak.core.remedies.figures import figures_of
from ruvak.core.remedies.lifts import CAUTION
from ruvak.core.remedies.ranking import is_worse, kind_of, left_to_cure, order_of, promise, severity
from ruvak.core.remedies.remedy import Effect, Needed, Remedy
from ruvak.core.remedies.trouble import Trouble, hums
from ruvak.core.remedies.wording import item_in_words, write_effect
from ruvak.core.rig.edits import Edit, apply
from ruvak.core.rig.rig import Rig

MAX_SOLVED, MAX_WARNINGS = 4, 1
"""How many candidates get the full analysis, and how many of what people try in vain."""
COMBINED, NEARLY = 4, 2
"""So many rewirings are tried with a switch flipped as well, and so many of those that leave least to be cured by
one."""
MAX_FIRST = 2
"""How many are solved while somebody waits for the first."""


def remedies_for(
    rig: Rig,
    run_id: str,
    before: Analysis | None = None,
    cache: AnalysisCache | None = None,
    progress: Progress = report_nothing,
) -> tuple[Remedy, ...]:
    """Solved remedies of one run, best first, then what is often tried and does not help.

    KeyError for an unknown run; empty when the run is clear. `before`: the rig's analysis, where it is at hand
    already; `cache`: what was solved before.
    """
    return _rank(_trouble(rig, run_id, before, cache), progress)


def first_remedy(
    rig: Rig, run_id: str, before: Analysis | None = None, cache: AnalysisCache | None = None
) -> Remedy | None:
    """As remedies_for(), but the first that clears the run in the order of trying, which is soonest; None without."""
    return _find_first(_trouble(rig, run_id, before, cache))


def _trouble(rig: Rig, run_id: str, before: Analysis | None, cache: AnalysisCache | None) -> Trouble:
    rig = prepare(rig)
    run = next((run for run in rig.runs if run.id == run_id), None)
    if run is None:
        raise KeyError(run_id)
    return Trouble(rig, run, before, cache or AnalysisCache())


def _find_first(trouble: Trouble) -> Remedy | None:
    """Switches, then rewirings as they are found, until one clears the run and harms no other.

    Soonest by its quick findings, where that hums too; whatever is shown has had the whole rig.
    """
    if trouble.has_no_remedy():
        return None
    if hums(trouble.target.findings) and not hums(trouble.quick):
        trouble.include_rest()
    clear = (entry for entry in chain(flips(trouble), rewirings(trouble)) if entry.findings[0].grade is Grade.CLEAR)
    solved = (_solve(trouble, entry) for entry in islice(clear, MAX_FIRST))
    return next((remedy for remedy in solved if remedy.helps), None)


def _rank(trouble: Trouble, progress: Progress) -> tuple[Remedy, ...]:
    """Candidates by quick findings, then the best ones solved with the whole rig."""
    if trouble.has_no_remedy():
        return ()
    if hums(trouble.target.findings):
        trouble.include_rest()
    switched = list(flips(trouble))
    rewired = sorted(rewirings(trouble), key=promise)
    unclear = [entry for entry in rewired if entry.findings[0].grade is not Grade.CLEAR]
    nearly = sorted(unclear, key=lambda candidate: left_to_cure(candidate, switched, trouble.quick))[:NEARLY]
    worth_it = [*unclear[:COMBINED], *(entry for entry in nearly if entry not in unclear[:COMBINED])]
    both = [entry for route in worth_it for entry in with_flips(trouble, route, switched)]
    best: list[tuple[Counter[str], Remedy]] = []
    solved, paired = 0, False
    for entry in sorted([*switched, *rewired, *both], key=promise):
        kind = kind_of(trouble.rig, trouble.run, entry.edit)
        # What does no more than a shorter list of the same things is not worth reading.
        if severity(entry.findings) <= severity(trouble.quick) or any(fewer <= kind for fewer, _ in best):
            continue
        if solved == MAX_SOLVED:
            break
        progress(solved / (MAX_SOLVED + MAX_WARNINGS))
        solved += 1
        remedy = _solve(trouble, entry)
        if remedy.helps:
            best.append((kind, remedy))
        if not paired and (twice := on_those_beside(trouble, entry)) is not None:
            paired = True
            remedy = _solve(trouble, twice)
            if remedy.helps:
                best.append((kind_of(trouble.rig, trouble.run, twice.edit), remedy))
    worth_a_warning = [flip for flip in switched if _only_moves_the_trouble(trouble, flip)]
    tried = [_solve(trouble, entry) for entry in worth_a_warning[:MAX_WARNINGS]]
    helping = sorted((remedy for _, remedy in best), key=order_of)
    return (*helping, *(remedy for remedy in tried if not remedy.helps))


def _only_moves_the_trouble(trouble: Trouble, candidate: Candidate) -> bool:
    """A flipped switch that turns one trouble into another: people try it."""
    codes = {finding.code for finding in candidate.findings}
    better = severity(candidate.findings) > severity(trouble.quick)
    gone = {finding.code for finding in trouble.quick} - codes
    return not better and bool(gone) and not any(code.harms_a_device for code in codes)


def _solve(trouble: Trouble, candidate: Candidate) -> Remedy:
    edit, rig = candidate.edit, apply(trouble.rig, candidate.edit)
    after = assess(rig, trouble.run.id, trouble.cache)
    own = after.target_run
    effects = tuple(_effects(trouble, after))
    before_rank, after_rank = severity(trouble.target.findings), severity(own.findings)
    parts = {part.id: part for part in rig.parts}
    return Remedy(
        id=_name(edit),
        title=candidate.title,
        detail=candidate.detail,
        effect=write_effect(effects[0], own),
        helps=after_rank > before_rank and not any(is_worse(effect) for effect in effects),
        edit=edit,
        pieces=tuple(
            Needed(item=item.id, words=item_in_words(parts[item.part].name, item), in_kit=item.owned)
            for item in candidate.items
            if item.id not in trouble.run.pieces
        ),
        changes=candidate.changes,
        caution=CAUTION if opens_a_screen(trouble.rig, trouble.run, candidate.items) else "",
        effects=effects,
        verdict=after.verdict,
        after=own,
    )


def _effects(trouble: Trouble, after: Assessment) -> Iterator[Effect]:
    names = {run.id: run.name for run in trouble.rig.runs}
    pairs = zip(trouble.before, after.runs, strict=True)
    for old, new in sorted(pairs, key=lambda pair: pair[0].run != trouble.run.id):
        effect = Effect(run=old.run, name=names[old.run], before=figures_of(old), after=figures_of(new))
        if old.run == trouble.run.id or effect.before != effect.after:
            yield effect


def _name(edit: Edit) -> str:
    """A short stable id, the same for the same edit."""
    return hashlib.sha256(edit.model_dump_json().encode()).hexdigest()[:12]
