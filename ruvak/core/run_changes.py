"""What an edit did to runs: each as it was and as it became, drawn and solved by itself."""

from collections.abc import Iterator

from ruvak.core.analyse import Analysis, quick_findings
from ruvak.core.judge.finding import Finding
from ruvak.core.parts.library import embed
from ruvak.core.rig.edits import Edit, touched_by
from ruvak.core.rig.prune import sub_rig
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.values import Record
from ruvak.core.trace.drawing import RunDrawing, draw
from ruvak.core.trace.trace import trace

MOST_SHOWN = 4
"""More runs than these nobody compares by their drawings."""


class RunThen(Record):
    """A run at one moment, solved by itself."""

    finding: Finding
    """Its worst finding."""
    drawing: RunDrawing
    """Its conductors from source to destination."""


class RunChange(Record):
    """A run before and after an edit; null where it was not there."""

    run: str
    """Its id."""
    name: str
    """What it was called last."""
    before: RunThen | None
    """Before the edit; null where the edit added it."""
    after: RunThen | None
    """After the edit; null where the edit deleted it."""


class VerdictChange(Record):
    """A run whose worst finding is another one after an edit."""

    run: str
    """Its id."""
    name: str
    """What it is called."""
    before: Finding
    """Its worst finding as it was."""
    after: Finding
    """As it would be."""


def verdict_changes(rig: Rig, before: Analysis, after: Analysis) -> Iterator[VerdictChange]:
    """Runs of both analyses, named as in the rig, whose worst finding differs in what it says."""
    then = {run.run: run for run in before.runs}
    names = {run.id: run.name for run in rig.runs}
    for run in after.runs:
        was = then.get(run.run)
        if was is not None and was.findings[0].sentence != run.findings[0].sentence:
            yield VerdictChange(run=run.run, name=names[run.run], before=was.findings[0], after=run.findings[0])


def changed_runs(before: Rig, after: Rig, edit: Edit) -> tuple[RunChange, ...]:
    """The first runs that an edit touched, by themselves, by a device at their ends or by a piece, and that differ."""
    result: list[RunChange] = []
    for run_id in _touched(before, after, edit):
        then, now = _at(before, run_id), _at(after, run_id)
        if then != now:
            name = next(run.name for rig in (after, before) for run in rig.runs if run.id == run_id)
            result.append(RunChange(run=run_id, name=name, before=then, after=now))
        if len(result) == MOST_SHOWN:
            break
    return tuple(result)


def _touched(before: Rig, after: Rig, edit: Edit) -> Iterator[str]:
    things = {(touched.kind, touched.id) for touched in map(touched_by, edit.ops)}
    owners = {id_ for kind, id_ in things if kind in ("gear", "kit")}
    everywhere = any(kind not in ("gear", "kit", "runs", "parts") for kind, _ in things)
    seen: set[str] = set()
    for run in (*after.runs, *before.runs):
        concerned = ("runs", run.id) in things or owners & {*run.pieces, *run.owners} or everywhere
        if concerned and run.id not in seen:
            seen.add(run.id)
            yield run.id


def _at(rig: Rig, run_id: str) -> RunThen | None:
    run = next((run for run in rig.runs if run.id == run_id), None)
    if run is None:
        return None
    alone = sub_rig(embed(rig), run_id)
    traced = trace(alone)
    (findings,) = quick_findings(alone, traced)
    return RunThen(finding=findings[0], drawing=draw(alone, traced, run))
