"""Outputs and inputs of a part: what they give, want and bear, and by which contacts."""

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from ruvak.core.rig.points import Point
from ruvak.core.rig.values import (
    AboveZero,
    Deviation,
    Id,
    Label,
    Level,
    LevelDeviation,
    LevelNotNegative,
    NotNegative,
    Quantity,
    Record,
    Value,
)

SignalClass = Literal[
    "microphone",
    "instrument",
    "consumer-line",
    "professional-line",
    "headphone",
    "loudspeaker",
    "digital-audio",
    "eight-channel-digital",
    "lighting-data",
    "computer-data",
    "video",
]
"""What kind of signal a socket is made for; two kinds may share a plug."""
SOUND: frozenset[SignalClass] = frozenset(
    ("microphone", "instrument", "consumer-line", "professional-line", "headphone")
)
"""Kinds among which level and impedance decide; every other kind is a family of its own."""

LINE: frozenset[SignalClass] = frozenset(("consumer-line", "professional-line"))
"""Kinds that gear gives to other gear."""

NOT_SOUND: frozenset[SignalClass] = frozenset(("lighting-data",))
"""Kinds that nobody hears."""


def family_of(signal: SignalClass | None) -> str:
    """ "sound" for the kinds of sound at low level and for what is not stated, else the kind itself."""
    return "sound" if signal is None or signal in SOUND else signal


ChannelName = Annotated[str, StringConstraints(pattern=r"^[A-Z0-9]{1,3}$")]


class Channel(Record):
    """One signal of an unbalanced output: its short name ("L", "R", or "1") and the contact it leaves by.

    `inner`: where the emf and its impedance end, if more stands between there and the contact (a pickup's volume
    control and capacitance); those are elements of the part.
    """

    id: ChannelName
    """Short name: L, R or 1."""
    hot: Point
    """The contact it leaves by."""
    inner: Point | None = None
    """Where its emf and source impedance end inside; left out, at the contact."""


class BalancedChannel(Record):
    """One signal of a balanced output and the two contacts it leaves by."""

    id: ChannelName
    """Short name: L, R or 1."""
    hot: Point
    """The contact of the hot leg."""
    cold: Point
    """The contact of the cold leg."""


class PhantomNeed(Record):
    """A microphone's electronics, fed against g from both legs, or from the hot contact of an unbalanced one.

    They draw this current whatever the voltage.
    """

    ampere: AboveZero
    """Current it draws, in amperes."""
    leg_ohm: AboveZero = Value(value=2200.0, source="from memory: resistors that take the supply from the two legs")
    """Resistor from each leg to its electronics, in ohms."""
    wiring: Literal["resistors", "centre-tap", "unknown"] = "unknown"
    """How the supply leaves the legs inside: by a resistor from each, or by the centre tap of the output transformer,
    where only the winding's own resistance lies between. Unknown: most likely by resistors, and the other gives the
    range."""
    min_v: NotNegative = Value(value=24.0, source="from memory: half of the nominal supply")
    """Below it, between the legs' middle and g, it does not work."""


FULL_OUTPUT = Value(value=0.0, source="what is played reaches full output")
NO_PIN1 = Value(value=0.0, source="AES48: screen contact bonded to the chassis")


class UnbalancedOutput(Record):
    """Each channel's emf stands from g to hot through z_ohm; all share one return to `common`."""

    type: Literal["unbalanced"] = "unbalanced"
    """Which kind of output this is."""
    id: Id
    """Its name within the part."""
    connectors: tuple[Id, ...] = Field(min_length=1)
    """The sockets it appears at."""
    channels: tuple[Channel, ...] = Field(min_length=1, max_length=2)
    """Its one or two signals."""
    common: Point
    """The contact all channels return by."""
    z_ohm: NotNegative
    """Source impedance of each channel, in ohms."""
    return_ohm: NotNegative
    """Resistance from common to the signal reference, in ohms."""
    peak_dbu: Level
    """Largest open-circuit level, rms of a sine, with the volume at 0 dB."""
    nominal_dbu: Level | None = None
    """Average open-circuit programme level; left out for a digital device: then the rig's alignment sets it."""
    kept_free_db: LevelNotNegative = FULL_OUTPUT
    """How far under its full output whoever plays or mixes keeps the peaks."""
    channel_match_db: LevelDeviation
    """Level difference between the two channels, left over right; half is given to each."""
    z_mismatch: Deviation
    """(Z left - Z right) / Z, a plain ratio; half is given to each."""
    level_setting: Id | None = None
    """The volume control that sets it, by its name."""
    mono_setting: Id | None = None
    """The switch that sums its channels, by its name."""
    min_load_ohm: AboveZero | None = None
    """The lowest load it drives properly, between its legs."""
    driven_sleeve: Annotated[bool, Field(strict=True)] = False
    """Its common contact is an amplifier's output as well: joined to anything on an earth it is shorted."""
    line_v: AboveZero | None = None
    """Amplifiers for a constant-voltage line (100 V, 70 V): rms at full level; what it can give in watts is this
    squared over min_load_ohm."""
    pin1_ohm: Deviation = NO_PIN1
    """Transfer impedance of the common contact's bond: current into it drives every channel's hot with this much."""
    phantom: PhantomNeed | None = None
    """An electret capsule: what it draws of the power its socket gives (plug-in power)."""
    signal: SignalClass | None = None
    """What kind of signal it gives."""


class BalancedOutput(Record):
    """Two legs a channel, each through `leg_ohm`; what their emfs stand on is the topology.

    active: +E/2 and -E/2 from g. impedance: E on hot alone, cold to g through the same impedance. cross-coupled:
    +E/2 and -E/2 from a midpoint that `common_ohm` ties to g. floating (a transformer or a coil): from a midpoint
    that only `winding_f` ties to g. E is the open-circuit level between the legs, and what peak_dbu counts.
    """

    type: Literal["balanced"] = "balanced"
    """Which kind of output this is."""
    id: Id
    """Its name within the part."""
    connectors: tuple[Id, ...] = Field(min_length=1)
    """The sockets it appears at."""
    channels: tuple[BalancedChannel, ...] = Field(min_length=1, max_length=2)
    """Its one or two signals."""
    topology: Literal["active", "impedance", "cross-coupled", "floating"]
    """What the emfs of the two legs stand on."""
    leg_ohm: NotNegative
    """Source impedance of each leg, in ohms."""
    leg_mismatch: Deviation
    """(Z hot - Z cold) / Z, a plain ratio; half is given to each leg."""
    common_ohm: AboveZero | None = None
    """Cross-coupled outputs: from the midpoint to the signal reference, in ohms."""
    winding_f: NotNegative = Value(value=0.0, source="counted in the stray capacitance")
    """Floating outputs: capacitance of the winding to the signal reference, in farads."""
    peak_dbu: Level
    """Largest open-circuit level between the legs, rms of a sine in dBu, with the volume at 0 dB."""
    nominal_dbu: Level | None = None
    """Average open-circuit programme level in dBu; left out for a digital device: then the rig's alignment sets it."""
    kept_free_db: LevelNotNegative = FULL_OUTPUT
    """How many dB under its full output whoever plays or mixes keeps the peaks."""
    channel_match_db: LevelDeviation = Value(value=0.0, source="one channel")
    """Level difference between the two channels in dB, left over right; half is given to each."""
    level_setting: Id | None = None
    """The volume control that sets it, by its name."""
    mono_setting: Id | None = None
    """The switch that sums its channels, by its name."""
    min_load_ohm: AboveZero | None = None
    """The lowest load it drives properly, between its legs."""
    screen: Point | None = None
    """Its screen contact, where the bond of that matters."""
    pin1_ohm: Deviation = NO_PIN1
    """Transfer impedance of the screen contact's bond: current into it drives every channel's hot with this much."""
    phantom: PhantomNeed | None = None
    """What a microphone draws of phantom power."""
    signal: SignalClass | None = None
    """What kind of signal it gives."""


Output = Annotated[UnbalancedOutput | BalancedOutput, Field(discriminator="type")]


class Sensitivity(Record):
    """What an input wants and bears with its switch in one position. Levels are what arrives at the contacts."""

    when: str | None = None
    """The position of mode_setting these figures belong to; left out where there is none."""
    nominal_dbu: Level
    """Average level that drives the device properly with its control at the mark."""
    boost_db: LevelNotNegative
    """What the control still adds above the mark."""
    clip_dbu: Level
    """Level in dBu, rms of a sine, above which it clips."""
    noise_dbu: Level
    """The input's own noise, 20 Hz to 20 kHz, referred to its contacts."""


class InputMode(Sensitivity):
    """How a balanced input behaves with its switch in one position."""

    z_differential_ohm: AboveZero
    """Impedance between the legs, in ohms."""
    z_common_ohm: AboveZero
    """From each leg to g."""
    z_common_mismatch: Deviation
    """(Z hot - Z cold) / Z, a plain ratio; half is given to each."""
    rejection_db: LevelDeviation
    """The receiver's own, with ideal legs and no source imbalance. A stated value adds v_cm in phase with hot."""
    rejection_corner_hz: AboveZero
    """Above it the rejection falls by 6 dB an octave."""


class UnbalancedMode(Sensitivity):
    """How an unbalanced input behaves with its switch in one position: one impedance from hot to g."""

    z_ohm: AboveZero
    """Impedance from hot to the signal reference, in ohms."""


class PhantomFeed(Record):
    """Supply of microphones through equal resistors to both legs, or one to the hot of an unbalanced input.

    `setting` switches it, without one it is always on. IEC 61938: 48 V within 4 V, 6.81 kohm a leg, at most 10 mA.
    """

    volt: Quantity = Value(value=48.0, low=44.0, high=52.0, source="IEC 61938, P48")
    """Open-circuit voltage in volts."""
    feed_ohm: AboveZero = Value(value=6810.0, source="IEC 61938, P48")
    """Resistor to each fed contact, in ohms."""
    setting: Id | None = None
    """The switch that turns it on, by its name; left out, it is always on."""


class BalancedInput(Record):
    """A differential receiver: takes hot minus cold, and a little of what both carry."""

    type: Literal["balanced"] = "balanced"
    """Which kind of input this is."""
    id: Id
    """Its name within the part."""
    label: Label
    """What is printed beside it."""
    connectors: tuple[Id, ...] = Field(min_length=1)
    """The sockets that lead to it."""
    hot: Point
    """The contact that counts plus."""
    cold: Point
    """The contact that counts minus."""
    screen: Point
    """The contact the lead's screen arrives at."""
    mode_setting: Id | None = None
    """The switch that changes its figures, by its name."""
    modes: tuple[InputMode, ...] = Field(min_length=1, max_length=6)
    """Its figures, by position of that switch."""
    pin1_ohm: Deviation = NO_PIN1
    """Transfer impedance of the screen contact's bond: current into it adds this much to hot."""
    phantom: PhantomFeed | None = None
    """Its microphone supply."""
    signal: SignalClass | None = None
    """What kind of signal it is made for."""


class UnbalancedInput(Record):
    """Takes what stands between hot and g; `common` is the contact that brings g out."""

    type: Literal["unbalanced"] = "unbalanced"
    """Which kind of input this is."""
    id: Id
    """Its name within the part."""
    label: Label
    """What is printed beside it."""
    connectors: tuple[Id, ...] = Field(min_length=1)
    """The sockets that lead to it."""
    hot: Point
    """The contact the signal arrives at."""
    common: Point
    """The contact the signal returns by."""
    mode_setting: Id | None = None
    """The switch that changes its figures, by its name."""
    modes: tuple[UnbalancedMode, ...] = Field(min_length=1, max_length=6)
    """Its figures, by position of that switch."""
    pin1_ohm: Deviation = NO_PIN1
    """Transfer impedance of the screen contact's bond: current into it adds this much to hot."""
    phantom: PhantomFeed | None = None
    """Plug-in power: a few volts through one resistor to hot."""
    signal: SignalClass | None = None
    """What kind of signal it is made for."""


Input = Annotated[BalancedInput | UnbalancedInput, Field(discriminator="type")]


class Mix(Record):
    """Inputs that are heard together. A stereo mix has a left and a right; a mono one only `left`."""

    id: Id
    """Its name within the part."""
    label: Label
    """What it is called."""
    left: tuple[Id, ...]
    """Inputs heard on the left, or in mono."""
    right: tuple[Id, ...] = ()
    """Inputs heard on the right; none in a mono mix."""
