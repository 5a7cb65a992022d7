"""Treble or bass lost on the way."""

from collections.abc import Iterator

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import finding, input_words, of_instrument, usable
from ruvak.core.judge.sentences import OHM
from ruvak.core.results.records import RunResult
from ruvak.core.rig.rig import Rig

DULL_WATCH_DB, DULL_FIX_DB = 1.0, 3.0
THIN_WATCH_HZ, THIN_FIX_HZ = 40.0, 100.0
HOW = "Something in the run blocks low frequencies; look at its transformers and capacitors."
HOW_INSTRUMENT = (
    f"What it is plugged into loads it too hard. A piezo pickup wants 10 M{OHM}, other pickups 1 M{OHM}: use a "
    "preamplifier or DI box made for it, close to the instrument."
)


def tone(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Per input that something usable reaches."""
    for receiver in result.inputs:
        if receiver.response is None or not usable(result, receiver):
            continue
        params: dict[str, float | str] = {
            "place": input_words(rig, receiver),
            "loss_db": receiver.response.loss_10k_db,
            "how": HOW_INSTRUMENT if of_instrument(result, receiver) else HOW,
        }
        if receiver.response.loss_10k_db > DULL_WATCH_DB:
            grade = Grade.FIX if receiver.response.loss_10k_db > DULL_FIX_DB else Grade.WATCH
            yield finding(FindingCode.DULL, grade, result, receiver.gear, receiver.input, params)
        low_hz = receiver.response.low_3db_hz
        if low_hz is not None and low_hz > THIN_WATCH_HZ:
            grade = Grade.FIX if low_hz > THIN_FIX_HZ else Grade.WATCH
            yield finding(FindingCode.THIN, grade, result, receiver.gear, receiver.input, {**params, "low_hz": low_hz})
