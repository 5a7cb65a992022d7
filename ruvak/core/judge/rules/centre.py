"""Left and right cancelling where they are heard together."""

from collections.abc import Iterator

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import CENTRE_LOST_DB, CENTRE_WEAK_DB, HeardAt, finding, input_words, places
from ruvak.core.results.missing_side import is_missing_side
from ruvak.core.results.records import MixResult, RunResult, Sum
from ruvak.core.rig.rig import Rig


def centre(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Stop when the centre is lost, Fix when it is weakened or lost in mono only."""
    for place in places(rig, result):
        if place.stereo is not None:
            yield from _in_mono(result, place, place.stereo.pair)
            yield from _within_sides(rig, result, place.stereo)
        else:
            yield from _in_sum(result, place.gear, place.id, place.words, place.sum)


def _within_sides(rig: Rig, result: RunResult, stereo: MixResult) -> Iterator[Finding]:
    """Both channels of a source at one input of a stereo destination: its two sides have then nothing to do with it."""
    for receiver in result.inputs:
        own = receiver.gear == stereo.gear and receiver.input in stereo.inputs
        if own and not is_missing_side(result.inputs, result.mixes, receiver):
            yield from _in_sum(result, receiver.gear, receiver.input, input_words(rig, receiver), receiver.sum)


def _in_sum(result: RunResult, gear: str, subject: str, words: str, heard: Sum | None) -> Iterator[Finding]:
    if heard is None or heard.centre_db > CENTRE_WEAK_DB:
        return
    lost = heard.centre_db <= CENTRE_LOST_DB
    code, grade = (FindingCode.CENTRE_CANCELS, Grade.STOP) if lost else (FindingCode.CENTRE_WEAKENED, Grade.FIX)
    yield finding(code, grade, result, gear, subject, _depth(words, heard))


def _in_mono(result: RunResult, place: HeardAt, pair: Sum | None) -> Iterator[Finding]:
    """What a stereo destination's two sides leave of the middle when somebody plays them in mono."""
    if pair is not None and pair.centre_db <= CENTRE_WEAK_DB:
        yield finding(FindingCode.MONO_CANCELS, Grade.FIX, result, place.gear, place.id, _depth(place.words, pair))


def _depth(words: str, result: Sum) -> dict[str, float | str]:
    return {"place": words, "depth_db": -result.centre_db, "depth_worst_db": -result.centre_worst_db}
