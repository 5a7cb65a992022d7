"""A case that nothing earths and that lets more current through somebody than a mains filter should."""

from collections.abc import Iterator

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import finding
from ruvak.core.results.records import RunResult
from ruvak.core.rig.rig import Rig, name_of

FELT_A = 0.0005
"""What people begin to feel: IEC 60479-1, from memory; twice what a sound two-pin device lets through."""
HARMFUL_A = 0.0035
"""What even an earthed device may leak at most: IEC 62368-1, from memory."""


def touch(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Per floating device of the run, by its likely touch current."""
    for case in result.case_voltages:
        if case.touch_likely_a < FELT_A:
            continue
        params: dict[str, float | str] = {
            "device": name_of(rig, case.gear),
            "volt": case.likely_v,
            "current_ma": 1000.0 * case.touch_likely_a,
        }
        grade = Grade.STOP if case.touch_likely_a >= HARMFUL_A else Grade.WATCH
        yield finding(FindingCode.CASE_LIVE, grade, result, case.gear, "case", params)
