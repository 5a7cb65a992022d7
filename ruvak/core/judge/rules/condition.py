"""Pieces and devices that somebody marked as suspect, faulty or away."""

from collections.abc import Iterator

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import finding
from ruvak.core.results.records import RunResult
from ruvak.core.rig.rig import Rig, name_of


def condition(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Fix for what is faulty or away, watch for what is suspect; each thing once."""
    run = next(run for run in rig.runs if run.id == result.run)
    for owner in dict.fromkeys((*run.pieces, *run.owners)):
        thing = rig.owners_by_id[owner]
        if thing.condition == "good":
            continue
        params: dict[str, float | str] = {
            "thing": name_of(rig, owner),
            "condition": thing.condition,
            "remark": f" ({thing.remark})" if thing.remark else "",
        }
        code, grade = (FindingCode.SUSPECT, Grade.WATCH) if thing.is_usable else (FindingCode.UNUSABLE, Grade.FIX)
        yield finding(code, grade, result, owner, "", params)
