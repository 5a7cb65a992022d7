"""Phantom power that does not arrive, and phantom power that arrives where it does harm."""

from collections.abc import Iterator

from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import finding
from ruvak.core.results.records import PhantomAt, RunResult
from ruvak.core.rig.rig import Rig

HARMFUL_A = 0.0005
"""Direct current in an output's leg: a coil tied to nothing carries none, an output stage was not made for any."""
UPSET_V = 1.0
"""Between the legs of a source that wants none: enough to pull a ribbon or a coil aside."""

PRESENT_V = 1.0
"""Less than this is none."""


def phantom(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Per output of the run's sources, by its worst channel."""
    worst: dict[tuple[str, str], PhantomAt] = {}
    for one in result.phantom:
        known = worst.setdefault((one.gear, one.output), one)
        if one.leg_a > known.leg_a:
            worst[one.gear, one.output] = one
    for one in worst.values():
        if one.wanted_v is not None:
            yield from _wanted(rig, result, one, one.wanted_v)
        elif one.leg_a > HARMFUL_A or abs(one.across_v) > UPSET_V:
            params: dict[str, float | str] = {
                "source": _name(rig, one),
                "volt": one.volt,
                "current_ma": 1000.0 * one.leg_a,
            }
            yield finding("phantom_harms", Grade.STOP, result, one.gear, one.output, params)


def _wanted(rig: Rig, result: RunResult, one: PhantomAt, wanted_v: float) -> Iterator[Finding]:
    params: dict[str, float | str] = {"source": _name(rig, one), "volt": one.volt, "wanted_v": wanted_v}
    if one.volt < PRESENT_V:
        yield finding("phantom_missing", Grade.STOP, result, one.gear, one.output, params)
    elif one.volt < wanted_v:
        yield finding("phantom_low", Grade.FIX, result, one.gear, one.output, params)


def _name(rig: Rig, one: PhantomAt) -> str:
    return getattr(rig.owners_by_id[one.gear], "name", one.gear)
