"""Pieces and devices that somebody marked as suspect, faulty or away."""

from collections.abc import Iterator

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import finding
from ruvak.core.results.records import RunResult
from ruvak.core.rig.rig import KitItem, Rig, name_of
from ruvak.core.rig.wiring_fault import fault_words


def condition(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Fix for what is faulty or away, watch for what is suspect; each thing once."""
    run = next(run for run in rig.runs if run.id == result.run)
    for owner in dict.fromkeys((*run.pieces, *run.owners)):
        thing = rig.owners_by_id[owner]
        if isinstance(thing, KitItem) and thing.faults:
            yield _tested(rig, result, thing)
            continue
        if thing.condition == "good":
            continue
        params: dict[str, float | str] = {
            "thing": name_of(rig, owner),
            "condition": thing.condition,
            "remark": f" ({thing.remark})" if thing.remark else "",
        }
        code, grade = (FindingCode.SUSPECT, Grade.WATCH) if thing.is_usable else (FindingCode.UNUSABLE, Grade.FIX)
        yield finding(code, grade, result, owner, "", params)


def _tested(rig: Rig, result: RunResult, item: KitItem) -> Finding:
    """Fix for a fault that is there, watch for one that comes and goes. What is heard of it takes a second solution, so
    that is added once the run is assembled."""
    is_steady = any(fault.is_steady for fault in item.faults)
    part = rig.parts_by_id[item.part]
    params: dict[str, float | str] = {
        "thing": item.tag,
        "fault": ", and ".join(fault_words(part, fault) for fault in item.faults),
        "heard": "" if is_steady else " It will crackle when somebody moves it.",
    }
    grade = Grade.FIX if is_steady else Grade.WATCH
    return finding(FindingCode.LEAD_FAULT, grade, result, item.id, "", params)
