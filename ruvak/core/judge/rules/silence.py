"""Runs that bring nothing, or lack an end."""

from collections.abc import Iterator

from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import finding, places
from ruvak.core.results.records import RunResult
from ruvak.core.rig.rig import Rig

_WHY_MONO = (
    "Mono sound puts the same on both sides, and this wiring keeps only the difference between them. Switch mono "
    "off, or sum the sides before this input."
)
_WHY_OPEN = "No wire leads from the source to this input; follow the strip to the gap and close it."


def silence(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Stop when nothing usable arrives anywhere it should; Watch while the run is not plugged in."""
    if not result.source_channels or not result.inputs:
        missing = "source" if not result.source_channels else "destination"
        yield finding("not_connected", Grade.WATCH, result, "", "", {"missing_end": missing})
        return
    for place in places(rig, result):
        if place.arrives:
            continue
        level_db = max(channel.gain_db for channel in place.channels)
        params: dict[str, float | str] = {
            "place": place.words,
            "level_db": -level_db,
            "why": _WHY_MONO if result.mono else _WHY_OPEN,
        }
        yield finding("silent", Grade.STOP, result, place.gear, place.id, params)
