"""Which contacts of a piece are one piece of metal."""

from itertools import combinations

from networkx.utils import UnionFind

from ruvak.core.rig.connectors import SHAPES
from ruvak.core.rig.element import ends_of_element
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Contact, InnerNode
from ruvak.core.rig.wiring_fault import metal_of

Pair = tuple[Contact, Contact]
Groups = tuple[int, ...]
"""Of each contact, in the part's order: the place of the first contact that it is joined to."""
_CONDUCTING = frozenset({"resistor", "transformer", "inductor"})
"""What a tester's current passes through besides metal: a reading across it says nothing of a fault."""


def contacts_of(part: Part) -> tuple[Contact, ...]:
    """Every contact of every plug and socket, in drawing order."""
    return tuple(
        Contact(connector.id, contact) for connector in part.connectors for contact in SHAPES[connector.form].contacts
    )


def groups_of(part: Part, contacts: tuple[Contact, ...]) -> Groups:
    """Which contacts a tester reads as joined."""
    joined: UnionFind[Contact | InnerNode] = UnionFind(contacts)
    for a, b, _ in metal_of(part):
        joined.union(a, b)
    first: dict[Contact | InnerNode, int] = {}
    return tuple(first.setdefault(joined[contact], place) for place, contact in enumerate(contacts))


def across_components(part: Part, contacts: tuple[Contact, ...]) -> frozenset[frozenset[Contact]]:
    """Pairs between which there is a resistor, a winding or an amplifier: they are not judged."""
    joined: UnionFind[Contact | InnerNode] = UnionFind(contacts)
    for a, b, _ in metal_of(part):
        joined.union(a, b)
    metal = {contact: joined[contact] for contact in contacts}
    for element in part.elements:
        if element.type in _CONDUCTING:
            points = [point for _, point in ends_of_element(element)]
            for point in points[1:]:
                joined.union(points[0], point)
    return frozenset(
        frozenset(pair)
        for pair in combinations(contacts, 2)
        if metal[pair[0]] != metal[pair[1]] and joined[pair[0]] == joined[pair[1]]
    )
