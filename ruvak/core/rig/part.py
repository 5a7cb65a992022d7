"""What a piece of gear, a lead, an adapter or a box is made of: contacts, wires, elements, outputs, inputs.

Inside a part a point is either a contact, written connector.contact ("in.T"), or an inner node, a bare
name ("g" is the signal reference, "chassis" the metalwork). Everything electrical is stated here;
names and descriptions never enter a computation.
"""

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from ruvak.core.rig.connectors import Form
from ruvak.core.rig.element import Element
from ruvak.core.rig.points import Point
from ruvak.core.rig.values import (
    AboveZero,
    Decibels,
    Deviation,
    Id,
    Identified,
    Label,
    Level,
    LevelDeviation,
    LevelNotNegative,
    NotNegative,
    Number,
    Quantity,
    Record,
    Share,
    Value,
    Words,
)


class Connector(Record):
    """A socket or plug. `side` says which way signal normally passes through it: in to the part or out of it."""

    id: Id
    label: Label
    form: Form
    side: Literal["in", "out", "both"]
    """Which way signal passes: an insert or a headset socket has both."""
    contact_ohm: AboveZero | None = None
    """Resistance of each mated contact here when worn or measured; otherwise the rig's assumption applies."""
    ring: Literal["open", "sleeve"] = "open"
    """Two-contact phone sockets only: what the ring of a longer plug meets."""


class Wire(Record):
    """A join without resistance worth counting: solder, a link on a board, a strap in a plug."""

    a: Point
    b: Point


class Switch(Record):
    """A contact that opens or closes when something is plugged in: inserts, normalled and left/mono sockets."""

    connector: Id
    a: Point
    b: Point
    closed: Literal["empty", "plugged"]
    """Joined while the connector is empty, or while something is plugged into it."""


class Conductor(Record):
    """One core or the screen of a cable. An end left out is cut: it goes nowhere."""

    a: Point | None = None
    b: Point | None = None
    kind: Literal["core", "screen"]


class Cable(Record):
    """Conductors running side by side, with what a metre of them costs (SI units, per metre)."""

    conductors: tuple[Conductor, ...] = Field(min_length=1, max_length=64)
    core_ohm_per_m: NotNegative
    screen_ohm_per_m: NotNegative
    core_to_core_f_per_m: NotNegative
    core_to_screen_f_per_m: NotNegative
    pair_h_per_m: NotNegative
    """Loop inductance of two cores: half of it belongs to each core alone."""
    external_h_per_m: NotNegative
    """Inductance shared by all conductors alike, so that screen current couples equally into each core."""
    screen_coupling_h_per_m: Deviation = Value(value=0.0, source="not stated")
    """How much more of the screen's flux the first core of each pair takes than the second."""
    characteristic_ohm: AboveZero | None = None
    """Wave impedance of a pair, where it is made for data."""
    screen_coverage: Share = Value(value=1.0, source="a screen without holes")
    """Share of an outside electric field that ends on the screen; the rest goes to the cores, evenly.

    Effective, that is by capacitance: holes let far less through than their share of the surface.
    """
    core_screen_mismatch: Deviation = Value(value=0.0, source="not stated")
    """(C first - C second) / C of a pair's capacitances to the screen; half is given to each."""


SignalClass = Literal[
    "microphone",
    "instrument",
    "consumer-line",
    "professional-line",
    "headphone",
    "loudspeaker",
    "digital-audio",
    "lighting-data",
    "computer-data",
    "video",
]
"""What kind of signal a socket is made for; two kinds may share a plug."""

ChannelName = Annotated[str, StringConstraints(pattern=r"^[A-Z0-9]{1,3}$")]


class Channel(Record):
    """One signal of an unbalanced output: its short name ("L", "R", or "1") and the contact it leaves by.

    `inner`: where the emf and its impedance end, if more stands between there and the contact (a pickup's volume
    control and capacitance); those are elements of the part.
    """

    id: ChannelName
    hot: Point
    inner: Point | None = None


class BalancedChannel(Record):
    """One signal of a balanced output and the two contacts it leaves by."""

    id: ChannelName
    hot: Point
    cold: Point


class PhantomNeed(Record):
    """A microphone's electronics, fed against g from both legs, or from the hot contact of an unbalanced one.

    They draw this current whatever the voltage.
    """

    ampere: AboveZero
    leg_ohm: AboveZero = Value(value=2200.0, source="from memory: resistors that take the supply from the two legs")
    min_v: NotNegative = Value(value=24.0, source="from memory: half of the nominal supply")
    """Below it, between the legs' middle and g, it does not work."""


FULL_OUTPUT = Value(value=0.0, source="what is played reaches full output")
NO_PIN1 = Value(value=0.0, source="AES48: screen contact bonded to the chassis")


class UnbalancedOutput(Record):
    """Each channel's emf stands from g to hot through z_ohm; all share one return to `common`."""

    type: Literal["unbalanced"] = "unbalanced"
    id: Id
    connectors: tuple[Id, ...] = Field(min_length=1)
    channels: tuple[Channel, ...] = Field(min_length=1, max_length=2)
    common: Point
    z_ohm: NotNegative
    return_ohm: NotNegative
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
    mono_setting: Id | None = None
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


class BalancedOutput(Record):
    """Two legs a channel, each through `leg_ohm`; what their emfs stand on is the topology.

    active: +E/2 and -E/2 from g. impedance: E on hot alone, cold to g through the same impedance. cross-coupled:
    +E/2 and -E/2 from a midpoint that `common_ohm` ties to g. floating (a transformer or a coil): from a midpoint
    that only `winding_f` ties to g. E is the open-circuit level between the legs, and what peak_dbu counts.
    """

    type: Literal["balanced"] = "balanced"
    id: Id
    connectors: tuple[Id, ...] = Field(min_length=1)
    channels: tuple[BalancedChannel, ...] = Field(min_length=1, max_length=2)
    topology: Literal["active", "impedance", "cross-coupled", "floating"]
    leg_ohm: NotNegative
    leg_mismatch: Deviation
    """(Z hot - Z cold) / Z, a plain ratio; half is given to each leg."""
    common_ohm: AboveZero | None = None
    winding_f: NotNegative = Value(value=0.0, source="counted in the stray capacitance")
    peak_dbu: Level
    nominal_dbu: Level | None = None
    kept_free_db: LevelNotNegative = FULL_OUTPUT
    channel_match_db: LevelDeviation = Value(value=0.0, source="one channel")
    level_setting: Id | None = None
    mono_setting: Id | None = None
    min_load_ohm: AboveZero | None = None
    """The lowest load it drives properly, between its legs."""
    screen: Point | None = None
    """Its screen contact, where the bond of that matters."""
    pin1_ohm: Deviation = NO_PIN1
    """Transfer impedance of the screen contact's bond: current into it drives every channel's hot with this much."""
    phantom: PhantomNeed | None = None
    signal: SignalClass | None = None


Output = Annotated[UnbalancedOutput | BalancedOutput, Field(discriminator="type")]


class Sensitivity(Record):
    """What an input wants and bears with its switch in one position. Levels are what arrives at the contacts."""

    when: str | None = None
    nominal_dbu: Level
    """Average level that drives the device properly with its control at the mark."""
    boost_db: LevelNotNegative
    """What the control still adds above the mark."""
    clip_dbu: Level
    noise_dbu: Level
    """The input's own noise, 20 Hz to 20 kHz, referred to its contacts."""


class InputMode(Sensitivity):
    """How a balanced input behaves with its switch in one position."""

    z_differential_ohm: AboveZero
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


class PhantomFeed(Record):
    """Supply of microphones through equal resistors to both legs, or one to the hot of an unbalanced input.

    `setting` switches it, without one it is always on. IEC 61938: 48 V within 4 V, 6.81 kohm a leg, at most 10 mA.
    """

    volt: Quantity = Value(value=48.0, low=44.0, high=52.0, source="IEC 61938, P48")
    feed_ohm: AboveZero = Value(value=6810.0, source="IEC 61938, P48")
    setting: Id | None = None


class BalancedInput(Record):
    """A differential receiver: takes hot minus cold, and a little of what both carry."""

    type: Literal["balanced"] = "balanced"
    id: Id
    label: Label
    connectors: tuple[Id, ...] = Field(min_length=1)
    hot: Point
    cold: Point
    screen: Point
    mode_setting: Id | None = None
    modes: tuple[InputMode, ...] = Field(min_length=1, max_length=6)
    pin1_ohm: Deviation = NO_PIN1
    """Transfer impedance of the screen contact's bond: current into it adds this much to hot."""
    phantom: PhantomFeed | None = None
    signal: SignalClass | None = None


class UnbalancedInput(Record):
    """Takes what stands between hot and g; `common` is the contact that brings g out."""

    type: Literal["unbalanced"] = "unbalanced"
    id: Id
    label: Label
    connectors: tuple[Id, ...] = Field(min_length=1)
    hot: Point
    common: Point
    mode_setting: Id | None = None
    modes: tuple[UnbalancedMode, ...] = Field(min_length=1, max_length=6)
    pin1_ohm: Deviation = NO_PIN1
    """Transfer impedance of the screen contact's bond: current into it adds this much to hot."""
    phantom: PhantomFeed | None = None
    """Plug-in power: a few volts through one resistor to hot."""
    signal: SignalClass | None = None


Input = Annotated[BalancedInput | UnbalancedInput, Field(discriminator="type")]


class Mix(Record):
    """Inputs that are heard together. A stereo mix has a left and a right; a mono one only `left`."""

    id: Id
    label: Label
    left: tuple[Id, ...]
    right: tuple[Id, ...] = ()


SettingValue = Annotated[bool, Field(strict=True)] | Number | Label


class ChoiceSetting(Record):
    """A switch with named positions."""

    type: Literal["choice"] = "choice"
    id: Id
    label: Label
    options: tuple[Label, ...] = Field(min_length=2, max_length=12)
    default: Label


class LevelSetting(Record):
    """A volume control in dB; 0 is fully up."""

    type: Literal["level"] = "level"
    id: Id
    label: Label
    min_db: Decibels
    max_db: Decibels
    default_db: Decibels


class SwitchSetting(Record):
    """On or off."""

    type: Literal["switch"] = "switch"
    id: Id
    label: Label
    default: Annotated[bool, Field(strict=True)] = False


Setting = Annotated[ChoiceSetting | LevelSetting | SwitchSetting, Field(discriminator="type")]


class Earthing(Record):
    """How the gear meets the building: by its cord's earth conductor, by its interference capacitor, or not at all.

    class-1: chassis to the outlet's protective earth. class-2: no earth, but the interference capacitor drives the
    chassis from half the mains' voltage. floating: battery, or fed by a host or by phantom.
    """

    type: Literal["class-1", "class-2", "floating"]
    cord_ohm: AboveZero | None = None
    """Protective conductor of the cord, class 1 only."""
    cord_h: NotNegative | None = None
    """Its inductance; left out, the rig's assumption for a cord."""
    touch_a: Deviation | None = None
    """Class 2 only: current from the chassis to earth, fundamental; left out, the rig's assumption."""
    reference_to_chassis_ohm: NotNegative = Value(value=0.0, source="common practice: g bonded to chassis")
    reference_to_chassis_f: NotNegative = Value(value=0.0, source="none")
    computer: Annotated[bool, Field(strict=True)] = False
    """Noise of a computer stands between g and chassis, at each of the rig's computer lines."""
    computer_v: Deviation | None = None
    """How much; left out, the rig's assumption."""


class Part(Identified):
    """One kind of thing. A rig carries the parts it uses, so a later library never changes an old verdict."""

    revision: Annotated[int, Field(strict=True, ge=1, le=1_000_000)] = 1
    name: Label
    words: Words = ""
    kind: Literal["gear", "lead", "adapter", "box"]
    connectors: tuple[Connector, ...] = Field(min_length=1, max_length=256)
    signal: SignalClass | None = None
    """Leads only: what it is made for, where that is not audio."""
    called: tuple[Label, ...] = Field(default=(), max_length=24)
    """What people call it when they type a run; never part of a computation."""
    wires: tuple[Wire, ...] = Field(default=(), max_length=512)
    switches: tuple[Switch, ...] = Field(default=(), max_length=128)
    cables: tuple[Cable, ...] = Field(default=(), max_length=128)
    elements: tuple[Element, ...] = Field(default=(), max_length=256)
    outputs: tuple[Output, ...] = Field(default=(), max_length=128)
    inputs: tuple[Input, ...] = Field(default=(), max_length=128)
    mixes: tuple[Mix, ...] = Field(default=(), max_length=16)
    records: Annotated[bool, Field(strict=True)] = False
    """What goes in is recorded or broadcast, and heard again elsewhere: hum has to be lower than in a hall."""
    settings: tuple[Setting, ...] = Field(default=(), max_length=64)
    earthing: Earthing | None = None
    earthing_setting: Id | None = None
    """A choice (mains, battery, …); `earthings` then says for each position what `earthing` says for other parts."""
    earthings: dict[Label, Earthing] = Field(default_factory=dict, max_length=12)
    stock_lengths_m: tuple[Number, ...] = Field(default=(), max_length=32)
    """Leads only: lengths in which it is usually made, for what has to be borrowed or bought."""
