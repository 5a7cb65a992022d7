"""Bodies and answers about the log."""

from pydantic import Field, RootModel

from ruvak.core.log.entry import EntryId, NewEntry
from ruvak.core.log.line import LogLine
from ruvak.core.rig.values import Id, Record
from ruvak.core.tester.reading import Place, Readings
from ruvak.formats.printed.document import SheetName
from ruvak.formats.printed.labels import LabelSize
from ruvak.formats.printed.page import Paper

MOST_AT_ONCE = 500
"""Entries in one request: a phone that was without network for an evening has fewer."""
LINES_AT_ONCE = 200


class KitPath(Record):
    """A piece of a rig."""

    rig_id: Id
    """The rig."""
    kit_id: Id
    """The piece."""


class AskTesterBody(Record):
    """Readings are to be taken from the tester."""

    moved_at: Place | None = None
    """Where the lead is moved meanwhile; left out, it lies still."""
    readings: Readings = ()
    """What was read of it before; what the tester reads now replaces the same pairs."""


class SpareQuery(Record):
    """How much longer than its way a lead has to be."""

    spare_m: float = Field(default=0.0, ge=0.0, le=20.0, allow_inf_nan=False)
    """In metres."""


class PrintQuery(SpareQuery):
    """What is printed, and on what."""

    sheets: list[SheetName] = Field(min_length=1, max_length=6)
    """Which sheets."""
    paper: Paper = "a4"
    """Of the lists; labels come on the paper that they are sold on."""
    labels: LabelSize = "65"
    """How many labels are on a sheet."""
    skip: int = Field(default=0, ge=0, le=64)
    """Labels of the first sheet that are used up already."""


class PartOfRigPath(Record):
    """Which part of which rig."""

    rig_id: Id
    part_id: Id


class SolderedPart(Record):
    """A lead or an adapter that somebody solders."""

    id: Id
    """Its id, by which its drawing is asked for."""
    name: str
    """What it is called."""


class SolderedList(RootModel[tuple[SolderedPart, ...]]):
    """What has a drawing."""


class PhotoPath(Record):
    """Which photo of which rig."""

    rig_id: Id
    photo_id: EntryId


class AfterQuery(Record):
    """From where on the log is read."""

    after: int = Field(default=0, ge=0, le=2**62)
    """The number of the latest entry that is known already."""


class WeeksQuery(Record):
    """Of what, and how far back."""

    rig: Id | None = None
    """Of this rig and those that it was copied from; left out, of the whole house."""
    days: int = Field(default=400, ge=1, le=4000)
    """How many days back."""


class EntriesBody(Record):
    """Entries of one device."""

    entries: tuple[NewEntry, ...] = Field(min_length=1, max_length=MOST_AT_ONCE)
    """In the order in which they were made."""


class Added(Record):
    """Entries are saved."""

    last: int
    """The number of the rig's latest entry."""


class LogLineList(RootModel[tuple[LogLine, ...]]):
    """Lines, the latest first."""
