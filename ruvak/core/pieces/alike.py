"""Which leads and adapters join the same contacts: of wirings that differ in nothing else, one is worth solving."""

from collections.abc import Hashable

from ruvak.core.rig.connectors import SHAPES
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Contact, Point


def contacts_joined(part: Part) -> Hashable:
    """What a piece does to the signal's contacts; nothing (false) for a lead that joins like to like.

    A lead and an adapter between the same plugs, wired alike, are equal. A box, or what has a switched contact, is
    equal to its own kind alone.
    """
    return part.id if part.elements or part.switches else _pairs(part)


def _pairs(part: Part) -> frozenset[tuple[str, ...]]:
    families = {connector.id: SHAPES[connector.form].family for connector in part.connectors}

    def name(point: Point | None) -> str:
        return f"{families[point.connector]}.{point.contact}" if isinstance(point, Contact) else str(point)

    joined: list[tuple[Point | None, Point | None]] = [(wire.a, wire.b) for wire in part.wires]
    joined += [(conductor.a, conductor.b) for cable in part.cables for conductor in cable.conductors]
    pairs = (tuple(sorted((name(near), name(far)))) for near, far in joined)
    return frozenset(pair for pair in pairs if pair[0] != pair[1])
