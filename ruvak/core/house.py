"""A whole house as one document: people, venues with their revisions, the cupboard, dates, and every rig."""

from datetime import datetime
from typing import Literal

from pydantic import AwareDatetime, Field

from ruvak.core.cupboard.item import CupboardItem
from ruvak.core.log.entry import Entry
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.values import Id, Label, Record, Words
from ruvak.core.venue.document import VenueDocument

Role = Literal["owner", "technician", "helper", "viewer"]
Shelf = Literal["plans", "templates", "archive"]


class HousePerson(Record):
    """Somebody with an account. Passphrases and links are never written out."""

    name: Label
    """The name to sign in with."""
    role: Role
    """What they may do."""


class HouseRevision(Record):
    """A venue as it was saved once."""

    number: int = Field(ge=1)
    """Its number."""
    words: Words
    """What was changed."""
    made_by: Words
    """Who saved it."""
    made_at: AwareDatetime
    """When."""
    document: VenueDocument
    """The venue."""


class HouseVenue(Record):
    """A venue of the house with all its revisions."""

    id: Id
    """Its id."""
    name: Label
    """What it is called."""
    revisions: tuple[HouseRevision, ...] = Field(min_length=1, max_length=1000)
    """The earliest first."""


class HouseNote(Record):
    """Something noted at a date."""

    words: Label
    """What."""
    item: Id | None = None
    """The thing of the cupboard that it names."""
    person: Words
    """Who noted it."""
    made_at: AwareDatetime
    """When."""
    done_by: Words | None = None
    """Who has seen to it; null while it is open."""


class HouseOccasion(Record):
    """A date with its hours."""

    id: Id
    """Its id."""
    name: Label
    """What it is."""
    starts_at: AwareDatetime
    """From when things are needed."""
    ends_at: AwareDatetime
    doors_at: AwareDatetime | None = None
    """When people are let in."""
    """Until when."""
    after: Id | None = None
    """The date that it was made like."""
    notes: tuple[HouseNote, ...] = Field(default=(), max_length=1000)
    """What was noted."""


class HouseRig(Record):
    """Where a rig stands in the house; the rig itself is a file of its own."""

    id: Id
    """The rig."""
    shelf: Shelf = "plans"
    """Among the plans, the templates, or in the archive."""
    occasion: Id | None = None
    """Its date."""
    venue: Id | None = None
    """The house's venue that it belongs to."""


class HouseLog(Record):
    """The file log.json of an exported house."""

    format: Literal["ruvak-log"] = "ruvak-log"
    """What kind of file this is."""
    version: Literal[1] = 1
    """Version of the format."""
    entries: tuple[Entry, ...] = Field(default=(), max_length=1_000_000)
    """Of every rig and every thing of the cupboard, in the order in which they came in."""


class HouseIndex(Record):
    """The file house.json of an exported house."""

    format: Literal["ruvak-house"] = "ruvak-house"
    """What kind of file this is."""
    version: Literal[1] = 1
    """Version of the format."""
    exported_at: datetime
    """When it was written."""
    people: tuple[HousePerson, ...] = Field(default=(), max_length=2000)
    """Everybody with an account."""
    occasions: tuple[HouseOccasion, ...] = Field(default=(), max_length=20_000)
    """Every date."""
    rigs: tuple[HouseRig, ...] = Field(default=(), max_length=20_000)
    """Where each rig stands."""


class HouseDocument(Record):
    """Everything of a house but its secrets and the history of its rigs."""

    index: HouseIndex
    """People, dates, and where each rig stands."""
    venues: tuple[HouseVenue, ...]
    """The house's venues."""
    cupboard: tuple[CupboardItem, ...]
    """What the house owns."""
    rigs: tuple[Rig, ...]
    """Every rig, whole."""
    log: tuple[Entry, ...] = ()
    """What was checked, measured and noted about those rigs, and what tests of things of the cupboard showed."""
