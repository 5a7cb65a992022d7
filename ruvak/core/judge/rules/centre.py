"""Left and right cancelling where they are heard together."""

from collections.abc import Iterator

from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import CENTRE_LOST_DB, CENTRE_WEAK_DB, Place, finding, places
from ruvak.core.results.records import RunResult, Sum
from ruvak.core.rig.rig import Rig


def centre(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Stop when the centre is lost, Fix when it is weakened or lost in mono only."""
    for place in places(rig, result):
        if place.stereo is not None:
            yield from _in_mono(result, place, place.stereo.pair)
            continue
        if place.sum is None or place.sum.centre_db > CENTRE_WEAK_DB:
            continue
        if place.sum.centre_db <= CENTRE_LOST_DB:
            yield finding("centre_cancels", Grade.STOP, result, place.gear, place.id, _depth(place, place.sum))
        else:
            yield finding("centre_weakened", Grade.FIX, result, place.gear, place.id, _depth(place, place.sum))


def _in_mono(result: RunResult, place: Place, pair: Sum | None) -> Iterator[Finding]:
    """What a stereo destination's two sides leave of the middle when somebody plays them in mono."""
    if pair is not None and pair.centre_db <= CENTRE_WEAK_DB:
        yield finding("mono_cancels", Grade.FIX, result, place.gear, place.id, _depth(place, pair))


def _depth(place: Place, found: Sum) -> dict[str, float | str]:
    return {"place": place.words, "depth_db": -found.centre_db, "depth_worst_db": -found.centre_worst_db}
