"""What is otherwise inside a lead, adapter or box than its part says: broken, touching, exchanged."""

from collections.abc import Callable, Iterable, Iterator
from hashlib import sha256
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from ruvak.core.rig.connectors import CONTACT_WORDS
from ruvak.core.rig.part import Cable, Conductor, Part, Wire, contacts_in
from ruvak.core.rig.points import Contact, InnerNode, Point
from ruvak.core.rig.values import Record

FaultKind = Literal["open", "short", "exchanged", "flickers", "short-flickers"]
MOST_FAULTS = 16


class WiringFault(Record):
    """A fault between two contacts of a piece."""

    kind: FaultKind
    """open: what joins a and b is broken. short: a and b touch. exchanged: what belongs at a is at b, and the other way
    round. flickers, short-flickers: open or short only while the lead is moved."""
    a: Point
    """A contact, written connector.contact; of something broken, one of its ends."""
    b: Point
    """The other contact."""

    @model_validator(mode="after")
    def _is_between_two(self) -> Self:
        if self.a == self.b:
            raise ValueError("A fault is between two contacts.")
        return self

    @property
    def is_steady(self) -> bool:
        """Whether it is there without moving the lead."""
        return self.kind in ("open", "short", "exchanged")


WiringFaults = Annotated[tuple[WiringFault, ...], Field(max_length=MOST_FAULTS)]


def as_tested(part: Part, faults: Iterable[WiringFault]) -> Part:
    """The part as it is wired with these faults, under a name of its own, since others of its kind have none."""
    faults = tuple(faults)
    said = ",".join(f"{fault.kind} {fault.a} {fault.b}" for fault in faults)
    id_ = f"{part.id[:47]}-{sha256(said.encode()).hexdigest()[:16]}"
    return with_faults(part, faults).model_copy(update={"id": id_})


def with_faults(part: Part, faults: Iterable[WiringFault]) -> Part:
    """The part as it is wired with these faults; contacts that it does not have change nothing."""
    for fault in faults:
        if fault.is_steady:
            part = _CHANGES[fault.kind](part, fault)
    return part


def _open(part: Part, fault: WiringFault) -> Part:
    ends = {fault.a, fault.b}

    def broken(conductor: Conductor) -> Conductor:
        if {conductor.a, conductor.b} != ends:
            return conductor
        return conductor.model_copy(update={"b": None})

    cables = _each_conductor(part.cables, broken)
    return part.model_copy(update={"cables": cables, "wires": tuple(w for w in part.wires if {w.a, w.b} != ends)})


def _short(part: Part, fault: WiringFault) -> Part:
    names = {connector.id for connector in part.connectors}
    if not {point.connector for point in (fault.a, fault.b) if isinstance(point, Contact)} <= names:
        return part
    return part.model_copy(update={"wires": (*part.wires, Wire(a=fault.a, b=fault.b))})


def _exchanged(part: Part, fault: WiringFault) -> Part:
    other = {fault.a: fault.b, fault.b: fault.a}

    def turned(conductor: Conductor) -> Conductor:
        ends = {name: other.get(end, end) for name, end in (("a", conductor.a), ("b", conductor.b)) if end is not None}
        return conductor.model_copy(update=ends)

    wires = tuple(
        wire.model_copy(update={"a": other.get(wire.a, wire.a), "b": other.get(wire.b, wire.b)}) for wire in part.wires
    )
    return part.model_copy(update={"cables": _each_conductor(part.cables, turned), "wires": wires})


_CHANGES = {"open": _open, "short": _short, "exchanged": _exchanged}


def _each_conductor(cables: tuple[Cable, ...], change: Callable[[Conductor], Conductor]) -> tuple[Cable, ...]:
    return tuple(
        cable.model_copy(update={"conductors": tuple(change(conductor) for conductor in cable.conductors)})
        for cable in cables
    )


def metal_of(part: Part) -> Iterator[tuple[Contact | InnerNode, Contact | InnerNode, str]]:
    """Each piece of metal between two points of a part, with what it is: core, screen or wire. A switched contact
    counts as it stands with a plug in its socket, as on a tester."""
    for cable in part.cables:
        for conductor in cable.conductors:
            if conductor.a is not None and conductor.b is not None:
                yield conductor.a, conductor.b, conductor.kind
    for wire in part.wires:
        yield wire.a, wire.b, "wire"
    for switch in part.switches:
        if switch.closed == "plugged":
            yield switch.a, switch.b, "wire"


def unknown_points(part: Part, faults: Iterable[WiringFault]) -> list[str]:
    """Points that faults name and the part does not have."""
    named = [point for fault in faults for point in (fault.a, fault.b)]
    if not named:
        return []
    have = {*contacts_in(part), *(point for a, b, _ in metal_of(part) for point in (a, b))}
    return [str(point) for point in named if point not in have]


def contact_words(point: Contact | InnerNode) -> str:
    """As a technician says it: pin 2, tip, sleeve."""
    if isinstance(point, InnerNode):
        return "the joint inside"
    return CONTACT_WORDS.get(point.contact, f"contact {point.contact}")


def fault_words(part: Part, fault: WiringFault) -> str:
    """What is the matter, without the piece's name: pin 3 is broken."""
    a, b = contact_words(fault.a), contact_words(fault.b)
    if fault.kind in ("short", "exchanged", "short-flickers"):
        where = _plug_words(part, fault.a)
        what = {"short": f"{a} and {b} touch", "exchanged": f"{a} and {b} are exchanged"}
        return what.get(fault.kind, f"{a} and {b} touch when it is moved") + where
    kind = next((kind for p, q, kind in metal_of(part) if {p, q} == {fault.a, fault.b}), "core")
    if kind == "screen":
        name = "the screen"
    elif _is_same_plug(fault):
        name = f"the link from {a} to {b}{_plug_words(part, fault.a)}"
    else:
        name = a if a == b else f"{a} to {b}"
    return f"{name} is broken" if fault.kind == "open" else f"{name} breaks when it is moved"


def _is_same_plug(fault: WiringFault) -> bool:
    return isinstance(fault.a, Contact) and isinstance(fault.b, Contact) and fault.a.connector == fault.b.connector


def _plug_words(part: Part, point: Contact | InnerNode) -> str:
    """At which plug, where a piece has more than two and it matters."""
    if len(part.connectors) <= 2 or isinstance(point, InnerNode):
        return ""
    label = next((each.label for each in part.connectors if each.id == point.connector), point.connector)
    return f" at {label}"
