"""Runs that bring nothing, or lack an end."""

from collections.abc import Iterator

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import HeardAt, active, finding, places
from ruvak.core.results.records import InputResult, RunResult
from ruvak.core.rig.rig import Rig, name_of

LOUD_UNDER_NOMINAL_DB = 40.0
"""Hum this far under what the input is made for is still loud: common practice."""
_WHY_MONO = (
    "Mono sound puts the same on both sides, and this wiring keeps only the difference between them. Switch mono "
    "off, or sum the sides before this input."
)
_WHY_OPEN = "No wire leads from the source to this input; follow the strip to the gap and close it."
_WHY_SHORTED = (
    "The signal is shorted on its way: the two contacts this input listens to are joined. Follow the strip to where "
    "their lines merge; another lead or an adapter with the right contacts is wanted there."
)


def silence(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Stop when nothing usable arrives anywhere it should; Watch while the run is not plugged in."""
    if not result.sources or not result.inputs:
        missing = "source" if not result.sources else "destination"
        yield finding(FindingCode.NOT_CONNECTED, Grade.WATCH, result, "", "", {"missing_end": missing})
        return
    for place in places(rig, result):
        if place.arrives:
            continue
        hum_dbu = _loud_hum_dbu(result, place)
        if hum_dbu is not None:
            heard: dict[str, float | str] = {"place": place.words, "hum_dbu": hum_dbu}
            yield finding(FindingCode.HUM_ALONE, Grade.STOP, result, place.gear, place.id, heard)
            continue
        level_db = max(channel.gain_db for channel in place.channels)
        params: dict[str, float | str] = {"place": place.words, "level_db": -level_db, "why": _why(result, place)}
        yield finding(FindingCode.SILENT, Grade.STOP, result, place.gear, place.id, params)
    yield from _lost_sources(rig, result)


def _loud_hum_dbu(result: RunResult, place: HeardAt) -> float | None:
    """The loudest hum there, A-weighted, where it is loud for that input; else None."""
    loud = [
        receiver.hum.weighted_dbu
        for receiver in _receivers(result, place)
        if receiver.hum is not None and (level := active(receiver)) is not None
        if receiver.hum.weighted_dbu > level.nominal_dbu - LOUD_UNDER_NOMINAL_DB
    ]
    return max(loud, default=None)


def _receivers(result: RunResult, place: HeardAt) -> Iterator[InputResult]:
    names = place.stereo.inputs if place.stereo else (place.id,)
    yield from (entry for entry in result.inputs if entry.gear == place.gear and entry.input in names)


def _lost_sources(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Where some sources arrive, one that arrives nowhere."""
    arriving = {
        channel.source for receiver in result.inputs for channel in receiver.channels if channel.in_phase is not None
    }
    for number, source in enumerate(result.sources):
        if arriving and number not in arriving:
            name = name_of(rig, source.gear)
            yield finding(FindingCode.SOURCE_LOST, Grade.STOP, result, source.gear, source.output, {"source": name})


def _why(result: RunResult, place: HeardAt) -> str:
    if any(source.mono for source in result.sources):
        return _WHY_MONO
    verdicts = {receiver.balance.verdict for receiver in _receivers(result, place)}
    if "shorted" in verdicts:
        return _WHY_SHORTED
    return _WHY_OPEN
