"""Outputs that drive more than they are built for: in ohms, or on a constant-voltage line in watts."""

from collections.abc import Iterator

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import finding
from ruvak.core.results.records import RunResult, SourceResult
from ruvak.core.rig.rig import Rig, name_of

FAR_TOO_LOW = 0.25
"""Below this share of the lowest load an output distorts or shuts down: common practice."""
FULL = 0.8
"""A constant-voltage line is planned to this share of its amplifier's power: common practice."""


def load(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Per source that states the lowest load it drives properly."""
    for source in result.sources:
        if source.min_load_ohm is None:
            continue
        if (line_v := _line_v(rig, source)) is not None:
            yield from _line(rig, result, source, line_v, source.min_load_ohm)
            continue
        if source.load_ohm >= source.min_load_ohm:
            continue
        grade = Grade.FIX if source.load_ohm < FAR_TOO_LOW * source.min_load_ohm else Grade.WATCH
        params: dict[str, float | str] = {
            "source": name_of(rig, source.gear),
            "load_ohm": source.load_ohm,
            "min_load_ohm": source.min_load_ohm,
            "why": _why(result, source),
        }
        yield finding(FindingCode.LOAD_LOW, grade, result, source.gear, source.output, params)


def _line(rig: Rig, result: RunResult, source: SourceResult, line_v: float, min_load_ohm: float) -> Iterator[Finding]:
    """P = V squared over R: what all loudspeakers on the line ask at full level, against what it can give."""
    asks_w, gives_w = line_v**2 / source.load_ohm, line_v**2 / min_load_ohm
    if asks_w <= FULL * gives_w:
        return
    params: dict[str, float | str] = {
        "source": name_of(rig, source.gear),
        "line_v": line_v,
        "asks_w": asks_w,
        "gives_w": gives_w,
    }
    code, grade = (
        (FindingCode.LINE_FULL, Grade.WATCH) if asks_w <= gives_w else (FindingCode.LINE_OVERLOADED, Grade.FIX)
    )
    yield finding(code, grade, result, source.gear, source.output, params)


def _line_v(rig: Rig, source: SourceResult) -> float | None:
    output = next(output for output in rig.part_of(source.gear).outputs if output.id == source.output)
    return output.line_v.value if output.type == "unbalanced" and output.line_v is not None else None


def _why(result: RunResult, source: SourceResult) -> str:
    if source.signal == "loudspeaker":
        return "Take a loudspeaker off this output, or use an amplifier made for so low a load: it may shut down."
    if len(result.sources) > 1:
        return "Two outputs joined by wire drive each other; put a resistor in each, or give each an input of its own."
    return "Too much hangs on this output, or one of its legs is grounded; use an output or lead made for it."
