"""Left and right cancelling where they are heard together."""

from collections.abc import Iterator

from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import CENTRE_LOST_DB, CENTRE_WEAK_DB, finding, places
from ruvak.core.results.records import RunResult
from ruvak.core.rig.rig import Rig


def centre(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Stop when the centre is lost, Fix when it is weakened or lost in mono only."""
    for place in places(rig, result):
        if place.sum is None or place.sum.centre_db > CENTRE_WEAK_DB:
            continue
        params: dict[str, float | str] = {
            "place": place.words,
            "depth_db": -place.sum.centre_db,
            "depth_worst_db": -place.sum.centre_worst_db,
        }
        if place.stereo is not None:
            yield finding("mono_cancels", Grade.FIX, result, place.gear, place.id, params)
        elif place.sum.centre_db <= CENTRE_LOST_DB:
            yield finding("centre_cancels", Grade.STOP, result, place.gear, place.id, params)
        else:
            yield finding("centre_weakened", Grade.FIX, result, place.gear, place.id, params)
