"""What stands between two points of a part: resistors, capacitors, coils, transformers, amplifier stages."""

from typing import Annotated, Literal

from pydantic import Field

from ruvak.core.rig.points import Contact, InnerNode, Point
from ruvak.core.rig.values import AboveZero, Level, NotNegative, Record, Value


class Resistor(Record):
    """Between two points of a box."""

    type: Literal["resistor"] = "resistor"
    a: Point
    b: Point
    ohm: AboveZero


class Capacitor(Record):
    """Between two points of a box."""

    type: Literal["capacitor"] = "capacitor"
    a: Point
    b: Point
    farad: AboveZero


class Transformer(Record):
    """Two windings. `turns_ratio` is primary turns over secondary turns; winding capacitance half at each end."""

    type: Literal["transformer"] = "transformer"
    primary_a: Point
    primary_b: Point
    secondary_a: Point
    secondary_b: Point
    turns_ratio: AboveZero
    primary_ohm: NotNegative
    secondary_ohm: NotNegative
    magnetising_h: AboveZero
    leakage_h: NotNegative
    winding_f: NotNegative
    saturates_dbu: Level | None = None
    """Level over the primary, rms of a sine at saturates_hz, above which the core saturates; in proportion to
    frequency elsewhere."""
    saturates_hz: AboveZero = Value(value=30.0, source="where makers state it: common practice")


class Inductor(Record):
    """A coil with its winding resistance, between two points."""

    type: Literal["inductor"] = "inductor"
    a: Point
    b: Point
    henry: AboveZero
    ohm: NotNegative


class Buffer(Record):
    """An amplifier stage: what stands between a and b, times the gain, drives c against d. Nothing goes back."""

    type: Literal["buffer"] = "buffer"
    a: Point
    b: Point
    c: Point
    d: Point
    input_ohm: AboveZero
    output_ohm: NotNegative
    gain_db: Level


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
