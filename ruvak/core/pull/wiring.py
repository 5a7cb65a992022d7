"""Leads that can stand in for each other, and leads that go into each other."""

from functools import cache

from ruvak.core.parts.library import library
from ruvak.core.rig.connectors import fits
from ruvak.core.rig.part import Part, contacts_in
from ruvak.core.tester.metal import Groups, groups_of

Wiring = tuple[tuple[str, ...], Groups, str | None]
"""Forms of the plugs in order, what is joined to what, and what the lead is made to carry."""


def wiring_of(part: Part) -> Wiring:
    """What has to be the same of a lead that takes another's place."""
    forms = tuple(str(connector.form) for connector in part.connectors)
    return forms, groups_of(part, contacts_in(part)), part.signal


def is_plain_lead(part: Part) -> bool:
    """Whether it is one lead with two ends, which another of any length can replace."""
    return part.kind == "lead" and len(part.connectors) == 2 and bool(part.cables) and not part.elements


def extends_itself(part: Part) -> bool:
    """Whether the end of one goes into the start of another: two of them make a longer one."""
    first, last = part.connectors[0], part.connectors[-1]
    return len(part.connectors) == 2 and fits(last.form, first.form)


@cache
def stock_lengths_m(wiring: Wiring) -> tuple[float, ...]:
    """Lengths in which such leads are usually made, the shortest first."""
    lengths = {
        length
        for part in library().values()
        if is_plain_lead(part) and wiring_of(part) == wiring
        for length in part.stock_lengths_m
    }
    return tuple(sorted(lengths))
