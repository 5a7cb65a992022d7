"""Phantom power that does not arrive, and phantom power that arrives where it does harm."""

from collections.abc import Iterator

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import finding
from ruvak.core.judge.sentences import SWITCHING_PHANTOM
from ruvak.core.results.records import PhantomAt, RunResult
from ruvak.core.rig.rig import Rig, name_of

HARMFUL_A, UNWANTED_A, PLUG_IN_V = 0.003, 0.0005, 6.0
"""Direct current in an output's leg: 48 V drive some 7 mA into one, the few volts of plug-in power never so much; above
those volts less is too much, for a coil tied to nothing carries none."""
UPSET_V = 1.0
"""Between the legs of a source that wants none: enough to pull a ribbon or a coil aside."""

TOLD_V = 0.5
"""A range narrower than this is told as one figure."""

PRESENT_V = 0.5
"""Less than this is none."""
PLUG_IN_BELOW_V = 10.0
"""What wants less is an electret capsule on a few volts, not a microphone on phantom."""
PHANTOM_HOW = (
    "Switch phantom on at its input; every piece on the way must let direct current through, so no transformer, and "
    "three wires joined."
)
PLUG_IN_HOW = (
    "Plug it into a microphone socket that gives power (a camera, a recorder, a computer), by contacts that meet, or "
    "use one with a battery."
)


def phantom(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Per output of the run's sources, by its worst channel."""
    worst: dict[tuple[str, str], PhantomAt] = {}
    for supply in result.phantom:
        known = worst.setdefault((supply.gear, supply.output), supply)
        if supply.leg_a > known.leg_a:
            worst[supply.gear, supply.output] = supply
    for supply in worst.values():
        if supply.wanted_v is not None:
            yield from _judge_wanted(rig, result, supply, supply.wanted_v)
        elif _harms(supply):
            params: dict[str, float | str] = {
                "source": name_of(rig, supply.gear),
                "volt": supply.volt,
                "current_ma": 1000.0 * supply.leg_a,
            }
            yield finding(FindingCode.PHANTOM_HARMS, Grade.STOP, result, supply.gear, supply.output, params)


def _harms(phantom_at: PhantomAt) -> bool:
    above_plug_in = abs(phantom_at.volt) > PLUG_IN_V
    return phantom_at.leg_a > HARMFUL_A or (
        above_plug_in and (phantom_at.leg_a > UNWANTED_A or abs(phantom_at.across_v) > UPSET_V)
    )


def _judge_wanted(rig: Rig, result: RunResult, phantom_at: PhantomAt, wanted_v: float) -> Iterator[Finding]:
    plug_in = wanted_v < PLUG_IN_BELOW_V
    params: dict[str, float | str] = {
        "source": name_of(rig, phantom_at.gear),
        "volt": phantom_at.volt,
        "volts": _volts(phantom_at),
        "wanted_v": wanted_v,
        "power": "power from its socket (plug-in power)" if plug_in else "phantom power",
        "how": PLUG_IN_HOW if plug_in else PHANTOM_HOW,
        "caution": "" if plug_in else SWITCHING_PHANTOM,
    }
    if phantom_at.volt < PRESENT_V:
        yield finding(FindingCode.PHANTOM_MISSING, Grade.STOP, result, phantom_at.gear, phantom_at.output, params)
    elif phantom_at.volt < wanted_v or phantom_at.volt_low < wanted_v:
        grade = Grade.FIX if phantom_at.volt < wanted_v else Grade.WATCH
        yield finding(FindingCode.PHANTOM_LOW, grade, result, phantom_at.gear, phantom_at.output, params)


def _volts(phantom_at: PhantomAt) -> str:
    """As a figure, or as the range it may have by how the microphone is made inside."""
    if phantom_at.volt_high - phantom_at.volt_low < TOLD_V:
        return f"{phantom_at.volt:.1f} V"
    return f"{phantom_at.volt_low:.1f} to {phantom_at.volt_high:.1f} V (by how it is wired inside)"
