"""Data lines: leads made for something else, too long a way, an end that nothing ends, too many on one line."""

from collections.abc import Iterator

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import finding, input_words
from ruvak.core.judge.rules.classes import WORDS
from ruvak.core.results.records import RunResult
from ruvak.core.rig.rig import Rig, name_of

LEAD_PERCENT = 10.0
"""What a lead may send back: 110 ohm instead of 120 are 4 %, a microphone lead's 70 are 26: common practice."""
END_PERCENT = 30.0
"""What the end may: the resistor and 32 receivers beside it are 14 %, two resistors 33, none nearly all."""


def data(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Of a run that carries data."""
    line = result.data
    if line is None:
        return
    carries, place = WORDS[line.carries], input_words(rig, result.inputs[-1])
    for lead in line.leads:
        if lead.reflected_percent > LEAD_PERCENT:
            yield finding(
                FindingCode.LEAD_CLASS,
                Grade.WATCH,
                result,
                "",
                lead.owner,
                {
                    "lead": name_of(rig, lead.owner),
                    "carries": carries,
                    "lead_ohm": lead.ohm,
                    "wave_ohm": line.wave_ohm,
                    "reflected_percent": lead.reflected_percent,
                },
            )
    gear, subject = result.inputs[-1].gear, result.inputs[-1].input
    params: dict[str, float | str] = {"carries": carries, "place": place}
    if line.receivers > line.most_receivers:
        many = {**params, "receivers": str(line.receivers), "most": _many(line.most_receivers)}
        yield finding(FindingCode.DATA_LOADS, Grade.FIX, result, gear, subject, many)
    if line.length_m > line.limit_m:
        long = {**params, "length_m": line.length_m, "limit_m": line.limit_m}
        yield finding(FindingCode.DATA_LONG, Grade.FIX, result, gear, subject, long)
    if line.end_reflected_percent > END_PERCENT and not _leads_on(rig, result):
        ends = {**params, "end_ohm": line.end_ohm, "wave_ohm": line.wave_ohm}
        ends["reflected_percent"] = line.end_reflected_percent
        code = FindingCode.DATA_OPEN if line.end_ohm > line.wave_ohm else FindingCode.DATA_OVERENDED
        yield finding(code, Grade.WATCH, result, gear, subject, ends)


def _leads_on(rig: Rig, result: RunResult) -> bool:
    """Whether another run goes on from where this one ends: the line's end is farther on."""
    ends = {receiver.gear for receiver in result.inputs}
    run = next(run for run in rig.runs if run.id == result.run)
    return any(
        join.a.owner in ends and join.a not in run.ends
        for other in rig.runs
        if other.id != result.run
        for join in other.joins
    )


def _many(count: int) -> str:
    return "one" if count == 1 else str(count)
