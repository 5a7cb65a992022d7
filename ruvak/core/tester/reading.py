"""What a lead tester reads: between two contacts there is a connection, none, or one that comes and goes."""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from ruvak.core.rig.points import Contact, Point
from ruvak.core.rig.values import Number, Record

State = Literal["joined", "open", "flickers"]
Place = Literal["near", "middle", "far"]
MOST_OHM = 10.0
"""A meter that reads more finds no connection: a hundred metres of thin lead have less."""
MOST_READINGS = 8000
"""Every pair of contacts of a 40-way multicore's ends."""


class ContactReading(Record):
    """One pair of contacts."""

    a: Point
    """A contact, written connector.contact."""
    b: Point
    """Another contact, of the same plug or of another."""
    state: State
    """Joined, open, or now one and now the other while the lead is moved."""
    ohm: Annotated[Number, Field(ge=0)] | None = None
    """Resistance, where the tester says it."""

    @model_validator(mode="after")
    def _is_of_two_contacts(self) -> Self:
        if self.a == self.b or not (isinstance(self.a, Contact) and isinstance(self.b, Contact)):
            raise ValueError("A reading is between two contacts, written plug.contact.")
        return self


Readings = Annotated[tuple[ContactReading, ...], Field(max_length=MOST_READINGS)]


class LeadTest(Record):
    """What was read of one piece."""

    readings: Readings = ()
    """Each pair once; a later reading of a pair replaces an earlier one."""
    lamp: Literal["pass", "fail"] | None = None
    """Of a tester that says no more than that."""
    moved_at: Place | None = None
    """Where the lead was moved while it was read: at the first plug, in the middle, at the other plug."""
