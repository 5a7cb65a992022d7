"""The building's earth, what else joins devices, and what disturbs them: records only.

Every field that a float could misread carries its unit. Emfs and voltages are rms.
"""

from typing import Annotated, Literal, TypeVar, get_args

from pydantic import AfterValidator, Field, StringConstraints
from pydantic_core import PydanticCustomError

from ruvak.core.rig.points import BondEnd
from ruvak.core.rig.values import (
    AboveZero,
    Deviation,
    Id,
    Identified,
    Label,
    NotNegative,
    Number,
    Record,
    Spread,
    Words,
)

Preset = Literal["linear", "switched-mode", "dimmers"]
"""Shape of a mains spectrum relative to its fundamental."""

MainsFrequency = Literal["50", "60"]
AudioFrequency = Annotated[float, Field(strict=True, allow_inf_nan=False, ge=1.0, le=100_000.0)]
PointKind = Literal["building", "board", "circuit", "strip", "outlet"]
JoinKind = Literal["strip", "circuit", "board", "building", "site"]
"""Where the paths of two outlets join: the same strip, circuit, board, building, or only between buildings."""


class Position(Record):
    """Where something stands on the plan; x to the right, y away from the listener, from any corner one likes."""

    x_m: Annotated[Number, Field(ge=-10_000, le=10_000)]
    """Metres to the right."""
    y_m: Annotated[Number, Field(ge=-10_000, le=10_000)]
    """Metres away from the listener."""


class MainsLine(Record):
    """One harmonic of the mains, as a phasor."""

    h: Annotated[int, Field(strict=True, ge=1, le=40)]
    """Its number: 1 is the mains frequency."""
    v: Annotated[Number, Field(ge=0)]
    """Volts rms."""
    phase_deg: Number = 0.0
    """Phase in degrees."""


class EarthVoltage(Record):
    """An outlet's earth measured against another's (`against`; left out: the main bar), signal leads out.

    Either each harmonic as `lines`, which stand as entered; or `reading_v`, what a meter shows (total rms), divided
    by its spectrum's root sum of squares to give the fundamental.
    """

    against: Id | None = None
    """The earth point it was measured against; left out, the main bar."""
    lines: tuple[MainsLine, ...] = Field(default=(), max_length=40)
    """Each harmonic as measured."""
    reading_v: Annotated[Number, Field(ge=0)] | None = None
    """What a meter shows, total volts rms."""
    spectrum: Preset = "switched-mode"
    """How a reading is shared among the harmonics."""


class EarthPoint(Identified):
    """One node of the protective earth's tree, and the conductor that leads to it from `parent`.

    Without a parent it hangs on the main bar. `emf_v`: what stands along that conductor, fundamental, of unknown
    phase; left out, the rig's assumptions for its kind. `voltage`: measured; it replaces emf_v.
    """

    name: Label
    """What it is called."""
    kind: PointKind
    """A building, board, circuit, strip or outlet."""
    parent: Id | None = None
    """The earth point its conductor comes from; left out, the main bar."""
    ohm: NotNegative | None = None
    """Resistance of that conductor in ohms; left out, the assumption for its kind."""
    henry: NotNegative | None = None
    """Inductance of that conductor in henries; left out, reckoned from its length."""
    emf_v: Deviation | None = None
    """Volts along that conductor, fundamental, rms; left out, the assumption for its kind."""
    voltage: EarthVoltage | None = None
    """Its measured voltage; replaces emf_v."""
    at: Position | None = None
    """On the plan; left out, where the first device plugged in there stands, else where its parent does."""
    residual_a: AboveZero | None = None
    """Rated residual current of the protective device there, where there is one: 0.03 for 30 mA."""
    breaker_a: AboveZero | None = None
    """Rated current of its breaker or fuse in amperes; left out, not known. Nothing that is heard follows from it."""


BondKind = Literal["video", "usb", "network", "aerial", "lighting", "rack", "other"]


class Bond(Identified):
    """Metal that joins two devices, or a device and an earth point, beside the audio runs.

    An end is a device's id (its chassis), device.point ("laptop.g", "desk.usb.shell"), or an earth point's id.
    """

    name: Label
    """What it is called."""
    kind: BondKind
    """What joins them; sets the resistance where none is stated."""
    a: BondEnd
    """One end: a device, device.point, or an earth point."""
    b: BondEnd
    """The other end."""
    ohm: NotNegative | None = None
    """Resistance in ohms; left out, the assumption for its kind."""
    henry: NotNegative | None = None
    """Inductance in henries; left out, reckoned from the assumed length."""


class Beside(Record):
    """A lead lying along a mains cable: the stretch, how far apart, and the cable."""

    length_m: AboveZero
    """Metres they lie side by side."""
    distance_m: AboveZero
    """From the lead to the nearer conductor of the mains pair."""
    current_a: NotNegative
    """Load current of the pair, fundamental."""
    spacing_m: AboveZero | None = None
    """Between the pair's two conductors."""
    residual_a: NotNegative | None = None
    """Net current of the pair that returns elsewhere."""
    twist_db: NotNegative | None = None
    """By how much the pair's twist lowers its field."""
    spectrum: Preset | None = None
    """Harmonics of its current; left out, the assumption for the mains."""


class MainsRun(Identified):
    """A mains cable on the plan, from point to point: what lies along it catches its field."""

    name: Label
    """What it is called."""
    points: tuple[Position, ...] = Field(min_length=2, max_length=100)
    """Where it bends on the plan, from end to end."""
    current_a: NotNegative
    """Load current, fundamental."""
    spacing_m: AboveZero | None = None
    """Between the pair's two conductors."""
    residual_a: NotNegative | None = None
    """Net current that returns elsewhere."""
    twist_db: NotNegative | None = None
    """By how much the pair's twist lowers its field."""
    spectrum: Preset | None = None
    """Harmonics of its current; left out, the assumption for the mains."""


class Segment(Record):
    """Default of a conductor that leads to an earth point of some kind."""

    ohm: NotNegative
    """Resistance in ohms."""
    length_m: NotNegative
    """Length in metres, which sets its inductance."""


Order = Annotated[str, StringConstraints(pattern=r"^([1-9]|[123][0-9]|40)$")]
"""A harmonic's number as a text, 1 to 40."""
Kind = TypeVar("Kind", bound=str)
Figure = TypeVar("Figure")


def complete(kinds: tuple[Kind, ...]) -> AfterValidator:
    """Asks for an entry of each kind."""

    def all_there(given: dict[Kind, Figure]) -> dict[Kind, Figure]:
        missing = [kind for kind in kinds if kind not in given]
        if missing:
            raise PydanticCustomError("incomplete", "lacks {missing}", {"missing": ", ".join(missing)})
        return given

    return AfterValidator(all_there)


class Harmonics(Record):
    """A preset: amplitude relative to h = 1."""

    lines: dict[Order, Number] = Field(min_length=1, max_length=40)
    """Amplitude by harmonic number, a ratio to harmonic 1."""
    source: Words
    """Where the shape is from."""


class Disturbances(Record):
    """What disturbs where nobody has measured: earth voltages, fields, the mains. A rig carries its own copy.

    `between_v`: earth voltage between two outlets by where their paths join, fundamental. To switch a cause off,
    state 0.
    """

    between_v: Annotated[dict[JoinKind, Deviation], complete(get_args(JoinKind))]
    """Volts between the earths of two outlets, fundamental, rms, by where their paths join; 0 switches it off."""
    segments: Annotated[dict[PointKind, Segment], complete(get_args(PointKind))]
    """Conductor to an earth point that states none, by the point's kind."""
    unknown_outlet: JoinKind
    """Where the outlet of a device joins the others while nobody has said."""
    henry_per_m: NotNegative
    """Self-inductance of earth conductors and cords."""
    cord_m: NotNegative
    """Length of a mains cord in metres."""
    bond_ohm: Annotated[dict[BondKind, NotNegative], complete(get_args(BondKind))]
    """Resistance in ohms of a bond that states none, by its kind."""
    bond_m: NotNegative
    """Length of a bond in metres."""
    earth_spectrum: Preset
    """Harmonics of voltages between earths."""
    mains_spectrum: Preset
    """Of the mains' voltage and current: touch current, induction and electric field are their derivatives."""
    mains_v: Annotated[dict[MainsFrequency, AboveZero], complete(get_args(MainsFrequency))]
    """By mains frequency in Hz, phase to neutral."""
    touch_a: Deviation
    """Of class 2 gear that states none; at the venue's mains."""
    open_earth_a: Deviation = Spread(
        likely=0.0005, worst=0.0035, source="IEC 62368-1 allows earthed equipment 3.5 mA; the likely from memory"
    )
    """Through the filter of class 1 gear: by its protective earth, or by its leads' screens where that is open."""
    field_t: Deviation
    """Uniform alternating field, fundamental."""
    loop_width_m: NotNegative
    """How far a lead lies from the earth path beside it: with its length, the loop the field goes through."""
    pair_spacing_m: AboveZero
    """Metres between the two conductors of a mains cable."""
    pair_twist_db: NotNegative
    """By how many dB the twist of a mains cable lowers its field."""
    electric_f_per_m: Deviation
    """From live mains to a lead's outermost conductors."""
    computer_v: Deviation
    """Between a computer's signal reference and its chassis, at each of its two lines."""
    computer_hz: tuple[AudioFrequency, ...] = Field(min_length=1, max_length=8)
    """Frequencies in Hz at which computers are noisy."""
    presets: Annotated[dict[Preset, Harmonics], complete(get_args(Preset))]
    """The shapes of spectra, by name."""
