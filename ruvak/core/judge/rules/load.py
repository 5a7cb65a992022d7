"""Outputs that drive more than they are built for."""

from collections.abc import Iterator

from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import finding, gear_name
from ruvak.core.results.records import RunResult
from ruvak.core.rig.rig import Rig

FAR_TOO_LOW = 0.25
"""Below this share of the lowest load an output distorts or shuts down: common practice."""


def load(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Per source that states the lowest load it drives properly."""
    for source in result.sources:
        if source.min_load_ohm is None or source.load_ohm >= source.min_load_ohm:
            continue
        grade = Grade.FIX if source.load_ohm < FAR_TOO_LOW * source.min_load_ohm else Grade.WATCH
        params: dict[str, float | str] = {
            "source": gear_name(rig, source.gear),
            "load_ohm": source.load_ohm,
            "min_load_ohm": source.min_load_ohm,
            "why": _why(result),
        }
        yield finding("load_low", grade, result, source.gear, source.output, params)


def _why(result: RunResult) -> str:
    if len(result.sources) > 1:
        return "Two outputs joined by wire drive each other; put a resistor in each, or give each an input of its own."
    return "Too much hangs on this output, or one of its legs is grounded; use an output or lead made for it."
