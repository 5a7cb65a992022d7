"""Too quiet for the input's control, or loud enough to clip it."""

from collections.abc import Iterator

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import active, finding, input_words, of_instrument, usable
from ruvak.core.results.records import InputResult, RunResult
from ruvak.core.rig.rig import Rig

QUIET_FIX_DB = 6.0
"""Short of gain by this much an audience strains to hear; less is a warning: common practice."""
CLOSE_HEADROOM_DB = 3.0
HOW = "Raise the source, or choose a more sensitive input or switch position."
HOW_INSTRUMENT = (
    "An instrument by itself is too weak for a line input: take it through a DI box into a microphone input, or into "
    "an instrument input."
)
HOW_LOUDSPEAKER = "Use an amplifier made for it: a 100 V loudspeaker wants a 100 V line, others an ordinary output."


def level(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Per input, in the position its switch is in."""
    for receiver in result.inputs:
        levels = active(receiver)
        if levels is None or not usable(result, receiver):
            continue
        params: dict[str, float | str] = {
            "place": input_words(rig, receiver),
            "arriving_dbu": levels.arriving_dbu,
            "peak_dbu": levels.peak_dbu,
            "gap_db": levels.gap_db,
            "boost_db": levels.boost_db,
            "short_db": levels.short_db,
            "over_db": -levels.headroom_db,
            "headroom_db": levels.headroom_db,
            "how": _how(result, receiver),
        }
        if levels.short_db > (0.0 if receiver.loudspeaker is None else QUIET_FIX_DB):
            grade = Grade.FIX if levels.short_db > QUIET_FIX_DB else Grade.WATCH
            yield finding(FindingCode.LEVEL_LOW, grade, result, receiver.gear, receiver.input, params)
        if receiver.loudspeaker is not None:
            # What it bears is told in watts, and a lead's loss by itself.
            continue
        if levels.headroom_db < 0.0:
            yield finding(FindingCode.LEVEL_CLIPS, Grade.FIX, result, receiver.gear, receiver.input, params)
        elif levels.headroom_db < CLOSE_HEADROOM_DB:
            yield finding(FindingCode.LEVEL_CLOSE, Grade.WATCH, result, receiver.gear, receiver.input, params)


def _how(result: RunResult, input_result: InputResult) -> str:
    if input_result.loudspeaker is not None:
        return HOW_LOUDSPEAKER
    return HOW_INSTRUMENT if of_instrument(result, input_result) else HOW
