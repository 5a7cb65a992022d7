"""What a tester would read of a lead that is wired in a certain way."""

from collections.abc import Iterable
from itertools import combinations

from ruvak.core.rig.part import Part, contacts_in
from ruvak.core.rig.points import Contact
from ruvak.core.rig.wiring_fault import WiringFault, with_faults
from ruvak.core.tester.metal import groups_of
from ruvak.core.tester.reading import ContactReading, LeadTest

Pair = tuple[Contact, Contact]


def pairs_of(part: Part) -> list[Pair]:
    """Every two contacts."""
    return list(combinations(contacts_in(part), 2))


def readings_of(part: Part, faults: Iterable[WiringFault], pairs: Iterable[Pair] | None = None) -> LeadTest:
    """These pairs, or all, of a piece with these faults."""
    contacts = contacts_in(part)
    groups = dict(zip(contacts, groups_of(with_faults(part, faults), contacts), strict=True))
    return LeadTest(
        readings=tuple(
            ContactReading(a=a, b=b, state="joined" if groups[a] == groups[b] else "open")
            for a, b in (pairs_of(part) if pairs is None else pairs)
        )
    )
