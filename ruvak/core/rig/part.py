"""What a piece of gear, a lead, an adapter or a box is made of: contacts, wires, elements, outputs, inputs.

Inside a part a point is either a contact, written connector.contact ("in.T"), or an inner node, a bare
name ("g" is the signal reference, "chassis" the metalwork). Everything electrical is stated here;
names and descriptions never enter a computation.
"""

from typing import Annotated, Literal

from pydantic import Field

from ruvak.core.rig.connectors import SHAPES, Form
from ruvak.core.rig.element import Element
from ruvak.core.rig.points import Contact, Point
from ruvak.core.rig.ports import Input, Mix, Output, SignalClass
from ruvak.core.rig.values import (
    AboveZero,
    Decibels,
    Deviation,
    Id,
    Identified,
    Label,
    NotNegative,
    Number,
    Record,
    Share,
    Value,
    Words,
)


class Connector(Record):
    """A socket or plug. `side` says which way signal normally passes through it: in to the part or out of it."""

    id: Id
    """Its name within the part; contacts are written connector.contact."""
    label: Label
    """What is printed beside it."""
    form: Form
    """Its shape, and whether it is a plug or a socket."""
    side: Literal["in", "out", "both"]
    """Which way signal passes: an insert or a headset socket has both."""
    contact_ohm: AboveZero | None = None
    """Resistance of each mated contact here when worn or measured; otherwise the rig's assumption applies."""
    ring: Literal["open", "sleeve"] = "open"
    """Two-contact phone sockets only: what the ring of a longer plug meets."""


class Wire(Record):
    """A join without resistance worth counting: solder, a link on a board, a strap in a plug."""

    a: Point
    """One end."""
    b: Point
    """The other end."""


class Switch(Record):
    """A contact that opens or closes when something is plugged in: inserts, normalled and left/mono sockets."""

    connector: Id
    """The socket whose plug works it."""
    a: Point
    """One contact."""
    b: Point
    """The other contact."""
    closed: Literal["empty", "plugged"]
    """Joined while the connector is empty, or while something is plugged into it."""


class Conductor(Record):
    """One core or the screen of a cable. An end left out is cut: it goes nowhere."""

    a: Point | None = None
    """Contact at its near end; left out, it is cut there."""
    b: Point | None = None
    """Contact at its far end; left out, it is cut there."""
    kind: Literal["core", "screen"]
    """A core, or the screen around the cores."""


class Cable(Record):
    """Conductors running side by side, with what a metre of them costs (SI units, per metre)."""

    conductors: tuple[Conductor, ...] = Field(min_length=1, max_length=64)
    """Cores, two by two in pairs, and the screen."""
    core_ohm_per_m: NotNegative
    """Resistance of each core in ohms a metre."""
    screen_ohm_per_m: NotNegative
    """Resistance of the screen in ohms a metre."""
    core_to_core_f_per_m: NotNegative
    """Capacitance between the two cores of a pair, farads a metre."""
    core_to_screen_f_per_m: NotNegative
    """Capacitance from each core to the screen, farads a metre."""
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
    field_mismatch: Deviation = Value(value=0.0, source="not stated")
    """(share of the first core of each pair - share of the second) / their mean, of an electric field that no screen
    keeps out."""
    optical: Annotated[bool, Field(strict=True)] = False
    """A light guide: its conductors stand for light, which no field reaches and which joins no metal."""
    core_screen_mismatch: Deviation = Value(value=0.0, source="not stated")
    """(C first - C second) / C of a pair's capacitances to the screen; half is given to each."""


SettingValue = Annotated[bool, Field(strict=True)] | Number | Label


class ChoiceSetting(Record):
    """A switch with named positions."""

    type: Literal["choice"] = "choice"
    """Which kind of control this is."""
    id: Id
    """Its name within the part."""
    label: Label
    """What is printed beside it."""
    options: tuple[Label, ...] = Field(min_length=2, max_length=12)
    """Its positions."""
    default: Label
    """The position it is in unless the device says otherwise."""


class LevelSetting(Record):
    """A volume control in dB; 0 is fully up."""

    type: Literal["level"] = "level"
    """Which kind of control this is."""
    id: Id
    """Its name within the part."""
    label: Label
    """What is printed beside it."""
    min_db: Decibels
    """Lowest position in dB."""
    max_db: Decibels
    """Highest position in dB."""
    default_db: Decibels
    """Position in dB unless the device says otherwise."""


class SwitchSetting(Record):
    """On or off."""

    type: Literal["switch"] = "switch"
    """Which kind of control this is."""
    id: Id
    """Its name within the part."""
    label: Label
    """What is printed beside it."""
    default: Annotated[bool, Field(strict=True)] = False
    """On or off unless the device says otherwise."""


Setting = Annotated[ChoiceSetting | LevelSetting | SwitchSetting, Field(discriminator="type")]


class Earthing(Record):
    """How the gear meets the building: by its cord's earth conductor, by its interference capacitor, or not at all.

    class-1: chassis to the outlet's protective earth. class-2: no earth, but the interference capacitor drives the
    chassis from half the mains' voltage. floating: battery, or fed by a host or by phantom.
    """

    type: Literal["class-1", "class-2", "floating"]
    """Protective earth (class-1), double insulation (class-2), or neither (floating)."""
    cord_ohm: AboveZero | None = None
    """Protective conductor of the cord, class 1 only."""
    cord_h: NotNegative | None = None
    """Its inductance; left out, the rig's assumption for a cord."""
    touch_a: Deviation | None = None
    """Class 2 only: current from the chassis to earth, fundamental; left out, the rig's assumption."""
    reference_to_chassis_ohm: NotNegative = Value(value=0.0, source="common practice: g bonded to chassis")
    """Resistance between signal reference and chassis, in ohms."""
    reference_to_chassis_f: NotNegative = Value(value=0.0, source="none")
    """Capacitance beside that resistance, in farads."""
    computer: Annotated[bool, Field(strict=True)] = False
    """Noise of a computer stands between g and chassis, at each of the rig's computer lines."""
    computer_v: Deviation | None = None
    """How much; left out, the rig's assumption."""


Role = Literal["radio-receiver", "hearing-loop", "in-ear-transmitter"]
"""A receiver of radio microphones, the amplifier of a hearing loop, a transmitter that people have in their ears."""


class Part(Identified):
    """One kind of thing. A rig carries the parts it uses, so a later library never changes an old verdict."""

    revision: Annotated[int, Field(strict=True, ge=1, le=1_000_000)] = 1
    """Counts up when the library's figures of this part change."""
    name: Label
    """What it is called in lists."""
    words: Words = ""
    """A sentence about it."""
    kind: Literal["gear", "lead", "adapter", "box"]
    """A device, a lead, an adapter or a box."""
    connectors: tuple[Connector, ...] = Field(min_length=1, max_length=256)
    """Its sockets and plugs."""
    signal: SignalClass | None = None
    """Leads and adapters only: what it is made for, where that is not audio."""
    proposed: Annotated[bool, Field(strict=True)] = True
    """Whether it is proposed where nobody owns it; a lead wired crosswise is used only where it is named or owned."""
    called: tuple[Label, ...] = Field(default=(), max_length=64)
    """What people call it when they type a run; never part of a computation."""
    wires: tuple[Wire, ...] = Field(default=(), max_length=512)
    """Joins inside."""
    switches: tuple[Switch, ...] = Field(default=(), max_length=128)
    """Contacts that a plug opens or closes."""
    cables: tuple[Cable, ...] = Field(default=(), max_length=128)
    """Lengths of cable inside; a lead's are as long as the piece is."""
    elements: tuple[Element, ...] = Field(default=(), max_length=256)
    """Resistors, capacitors, coils, transformers and amplifier stages inside."""
    outputs: tuple[Output, ...] = Field(default=(), max_length=128)
    """Signals it gives."""
    inputs: tuple[Input, ...] = Field(default=(), max_length=128)
    """Signals it takes."""
    mixes: tuple[Mix, ...] = Field(default=(), max_length=16)
    """Which inputs are heard together."""
    records: Annotated[bool, Field(strict=True)] = False
    """What goes in is recorded or broadcast, and heard again elsewhere: hum has to be lower than in a hall."""
    needs_computer: Annotated[bool, Field(strict=True)] = False
    """It works only with a computer, by USB: planned without one, one is planned beside it."""
    role: Role | None = None
    """What else it is to the people who check it; no computation uses it."""
    settings: tuple[Setting, ...] = Field(default=(), max_length=64)
    """Its switches and controls."""
    earthing: Earthing | None = None
    """How it meets the mains and the building's earth; left out for leads and passive boxes."""
    earthing_setting: Id | None = None
    """A choice (mains, battery, …); `earthings` then says for each position what `earthing` says for other parts."""
    earthings: dict[Label, Earthing] = Field(default_factory=dict, max_length=12)
    """Earthing by position of earthing_setting."""
    stock_lengths_m: tuple[Number, ...] = Field(default=(), max_length=32)
    """Leads only: lengths in which it is usually made, for what has to be borrowed or bought."""


def usb_ends(part: Part) -> tuple[str, ...]:
    """Its plugs and sockets that lead to a computer, by their names."""
    forms = (Form.USB_PLUG, Form.USB_DEVICE_SOCKET)
    return tuple(connector.id for connector in part.connectors if connector.form in forms)


def belongs_to_computer(part: Part) -> bool:
    """Whether it works only with a computer. A device with a USB plug fixed to it does, in rigs of before this was
    stated too."""
    return part.needs_computer or any(connector.form is Form.USB_PLUG for connector in part.connectors)


def is_computer(part: Part) -> bool:
    """Whether it is a laptop, a desktop computer or the like."""
    earthings = (*part.earthings.values(), *([part.earthing] if part.earthing is not None else []))
    return any(earthing.computer for earthing in earthings)


MIXER_INPUTS = 6
"""A device with fewer is no mixer."""


def is_mixer(part: Part) -> bool:
    """Whether it takes many inputs and passes them on, and is no computer."""
    return len(part.inputs) >= MIXER_INPUTS and len(part.outputs) > 1 and not is_computer(part)


def sounds(part: Part, receiver: Input) -> bool:
    """Whether what an input takes is heard in the room: of a loudspeaker, or of a device that passes it on by its link
    alone."""
    is_speaker = len(receiver.connectors) > 1 or len(receiver.modes) > 1 or receiver.signal == "loudspeaker"
    return is_speaker and not part.outputs and not part.records


def contacts_in(part: Part) -> tuple[Contact, ...]:
    """Every contact of every plug and socket, in drawing order."""
    return tuple(
        Contact(connector.id, contact) for connector in part.connectors for contact in SHAPES[connector.form].contacts
    )
