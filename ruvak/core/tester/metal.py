"""Which contacts of a piece are one piece of metal."""

from collections.abc import Iterator
from itertools import combinations

from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Contact, InnerNode
from ruvak.core.rig.wiring_fault import metal_of
from ruvak.core.trace.trace import element_points, merge_groups

Groups = tuple[int, ...]
"""Of each contact, in the part's order: the place of the first contact that it is joined to."""
_CONDUCTING = frozenset({"resistor", "transformer", "inductor"})
"""What a tester's current passes through besides metal: a reading across it says nothing of a fault."""


def groups_of(part: Part, contacts: tuple[Contact, ...]) -> Groups:
    """Which contacts a tester reads as joined."""
    names = merge_groups(contacts, _metal(part))
    first: dict[str, int] = {}
    return tuple(first.setdefault(names[contact], place) for place, contact in enumerate(contacts))


def across_components(part: Part, contacts: tuple[Contact, ...]) -> frozenset[frozenset[Contact]]:
    """Pairs between which there is a resistor, a winding or a coil: they are not judged."""
    metal = merge_groups(contacts, _metal(part))
    conducting = [element_points(element) for element in part.elements if element.type in _CONDUCTING]
    across = ((points[0], point) for points in conducting for point in points[1:])
    joined = merge_groups(contacts, [*_metal(part), *across])
    return frozenset(
        frozenset((a, b)) for a, b in combinations(contacts, 2) if metal[a] != metal[b] and joined[a] == joined[b]
    )


def _metal(part: Part) -> Iterator[tuple[Contact | InnerNode, Contact | InnerNode]]:
    return ((a, b) for a, b, _ in metal_of(part))
