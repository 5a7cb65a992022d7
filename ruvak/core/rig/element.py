"""What stands between two points of a part: resistors, capacitors, coils, transformers, amplifier stages."""

from typing import Annotated, Literal

from pydantic import Field

from ruvak.core.rig.points import Contact, InnerNode, Point
from ruvak.core.rig.values import AboveZero, Level, NotNegative, Record, Value


class Resistor(Record):
    """Between two points of a box."""

    type: Literal["resistor"] = "resistor"
    """Which kind of element this is."""
    a: Point
    """One end."""
    b: Point
    """The other end."""
    ohm: AboveZero
    """Resistance in ohms."""


class Capacitor(Record):
    """Between two points of a box."""

    type: Literal["capacitor"] = "capacitor"
    """Which kind of element this is."""
    a: Point
    """One end."""
    b: Point
    """The other end."""
    farad: AboveZero
    """Capacitance in farads."""


class Transformer(Record):
    """Two windings. `turns_ratio` is primary turns over secondary turns; winding capacitance half at each end."""

    type: Literal["transformer"] = "transformer"
    """Which kind of element this is."""
    primary_a: Point
    """Start of the primary; in phase with the start of the secondary."""
    primary_b: Point
    """End of the primary."""
    secondary_a: Point
    """Start of the secondary."""
    secondary_b: Point
    """End of the secondary."""
    turns_ratio: AboveZero
    """Primary turns over secondary turns, a plain ratio."""
    primary_ohm: NotNegative
    """Resistance of the primary winding in ohms."""
    secondary_ohm: NotNegative
    """Resistance of the secondary winding in ohms."""
    magnetising_h: AboveZero
    """Magnetising inductance seen at the primary, in henries."""
    leakage_h: NotNegative
    """Leakage inductance seen at the primary, in henries."""
    winding_f: NotNegative
    """Capacitance between the windings in farads, half at each end."""
    saturates_dbu: Level | None = None
    """Level over the primary, rms of a sine at saturates_hz, above which the core saturates; in proportion to
    frequency elsewhere."""
    saturates_hz: AboveZero = Value(value=30.0, source="where makers state it: common practice")
    """Frequency in Hz at which saturates_dbu holds."""


class Inductor(Record):
    """A coil with its winding resistance, between two points."""

    type: Literal["inductor"] = "inductor"
    """Which kind of element this is."""
    a: Point
    """One end."""
    b: Point
    """The other end."""
    henry: AboveZero
    """Inductance in henries."""
    ohm: NotNegative
    """Winding resistance in ohms."""


class Buffer(Record):
    """An amplifier stage: what stands between a and b, times the gain, drives c against d. Nothing goes back."""

    type: Literal["buffer"] = "buffer"
    """Which kind of element this is."""
    a: Point
    """Input, plus."""
    b: Point
    """Input, minus."""
    c: Point
    """Output, plus."""
    d: Point
    """Output, minus."""
    input_ohm: AboveZero
    """Resistance between a and b in ohms."""
    output_ohm: NotNegative
    """Source resistance of the output in ohms."""
    gain_db: Level
    """Voltage gain in dB."""


Element = Annotated[Resistor | Capacitor | Inductor | Transformer | Buffer, Field(discriminator="type")]


def ends_of_element(element: Element) -> tuple[tuple[str, Contact | InnerNode], ...]:
    """Every field by which an element names a point, in the order it names them, and the point."""
    match element:
        case Transformer():
            names: tuple[str, ...] = ("primary_a", "primary_b", "secondary_a", "secondary_b")
        case Buffer():
            names = ("a", "b", "c", "d")
        case _:
            names = ("a", "b")
    return tuple((name, getattr(element, name)) for name in names)
