"""Bodies and answers that belong to HTTP alone."""

from typing import Annotated, Any, Literal

from pydantic import Field, RootModel, StringConstraints

from ruvak.core.analyse import RunAnalysis
from ruvak.core.house import Shelf
from ruvak.core.results.formulas import Formula
from ruvak.core.rig.connectors import Form
from ruvak.core.rig.earth import Preset
from ruvak.core.rig.edits import Edit
from ruvak.core.rig.rig import KitItem
from ruvak.core.rig.values import Id, Label, Number, Record, Words
from ruvak.service.states import HistoryLine, RigSummary
from ruvak.service.venues import VenueSummary
from ruvak.service.versions import Version

EditId = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9-]{8,64}$")]


class FaultBody(Record):
    """One field that is wrong."""

    code: str
    """What kind of fault it is."""
    where: str
    """The field, as a path."""
    sentence: str
    """What is wrong with it and how to mend it."""


class MeetingBody(Record):
    """A field that two people changed: both values, who else, and what they called their change."""

    kind: str
    """The kind of thing."""
    id: str | None
    """The thing."""
    field: str | None
    """The field that both changed."""
    key: str | None
    """The entry of the field, where it has several."""
    yours: Any
    """The value that was sent."""
    theirs: Any
    """The value that somebody else saved."""
    by: str
    """Who saved it."""
    label: str
    """What their edit is called."""


class Problem(Record):
    """The one error shape: a stable code, a sentence, and where it concerns fields, each of them."""

    code: str
    """What kind of problem it is, for programs."""
    message: str
    """What is wrong and how to mend it, in a sentence."""
    faults: tuple[FaultBody, ...] = ()
    """Each fault of what was sent, where there are several."""
    meetings: tuple[MeetingBody, ...] = ()
    """Of a conflict."""
    current_version: Version | None = None
    """Where the rig stands now, where somebody else has changed it."""
    request_id: str | None = None
    """By which the server log can be searched."""


class AgainBody(Record):
    """To undo or redo: the client's own name for that, so that sent twice it is done once."""

    id: EditId | None = None
    """The client's own name for this: sent twice, it is done once."""


class EditBody(AgainBody):
    """An edit, and the version of the rig it was made on."""

    base_version: Version
    """The version it was made on."""
    edit: Edit
    """What to change."""


class CopyBody(Record):
    """What a copy of a rig is called, and for which occasion it is."""

    name: Label
    """What the copy is called."""
    occasion: Words = ""
    """What the copy is for."""


class PreviewBody(Record):
    """An edit to look at without making it."""

    edit: Edit
    """What to try."""


class LinesBody(Record):
    """Typed lines, one a line; a single one also gets ways to go on."""

    text: Annotated[str, StringConstraints(max_length=20_000)]
    """One line, or several."""


class InputListBody(Record):
    """An input list as CSV text, and the gear it goes into (the one with the most inputs when left out)."""

    csv: Annotated[str, StringConstraints(max_length=200_000)]
    """The list, as CSV."""
    goal: Id | None = None
    """The device it goes to; left out, the one with the most inputs."""


class KitListBody(Record):
    """A kit list as CSV text."""

    csv: Annotated[str, StringConstraints(max_length=200_000)]
    """The list, as CSV."""


class PartSummary(Record):
    """A part of the library: enough to choose it by."""

    id: Id
    """The part."""
    name: Label
    """What it is called."""
    words: str
    """What it is, in words."""
    kind: Literal["gear", "lead", "adapter", "box"]
    """Gear, lead, adapter or box."""


class PartSummaryList(RootModel[tuple[PartSummary, ...]]):
    """The whole library."""


class PartPath(Record):
    """Which part."""

    part_id: Id


class PiecesBody(Record):
    """A run's pieces in their new order; those not in the kit yet are added to it."""

    pieces: tuple[KitItem, ...] = Field(max_length=64)
    """In order from the source."""


class ScreenCurrentBody(Record):
    """A clamp meter round a lead: total rms, and the shape of the mains there."""

    item: Id
    """The lead."""
    reading_a: Number
    """The clamp meter's reading in amperes, true rms."""
    spectrum: Preset = "switched-mode"
    """Shape of the spectrum."""


class PlaceQuery(Record):
    """A place among a run's pieces, counted from 0; `replace`: instead of what stands there, else in front of it."""

    at: Annotated[int, Field(ge=0, le=64)]
    replace: bool = False


class FirstQuery(Record):
    """Whether the first that helps is enough."""

    first: bool = False


class FormulaList(RootModel[tuple[Formula, ...]]):
    """Every displayed figure that follows from others."""


class ContactList(RootModel[dict[Form, tuple[str, ...]]]):
    """The contacts of each connector form, in drawing order."""


class RigPath(Record):
    """Which rig."""

    rig_id: Id


class ComparePath(Record):
    """Two rigs, the earlier first."""

    rig_id: Id
    """The rig that the other is compared with."""
    other_id: Id
    """The other."""


class ShelfBody(Record):
    """Where a rig stands among the rigs."""

    shelf: Shelf
    """Plans, templates or archive."""


class VenuePath(Record):
    """Which venue of the house."""

    venue_id: Id


class BelongBody(Record):
    """The house's venue that a rig is to belong to."""

    venue_id: Id
    """The venue."""


class RevisionBody(Record):
    """A new revision of a venue."""

    words: Label
    """What was changed, in words."""


class VenueList(RootModel[tuple[VenueSummary, ...]]):
    """Venues of the house."""


class HistoryPath(RigPath):
    """Which change of which rig."""

    edit_id: Annotated[int, Field(ge=1, lt=2**63)]


class VersionPath(RigPath):
    """Which version of which rig."""

    version: Version


class RunVersionPath(VersionPath):
    """Which run of it."""

    run_id: Id


class KeysQuery(Record):
    """Keys of runs' details, with commas between."""

    keys: Annotated[str, StringConstraints(pattern=r"^[0-9a-f]{32}(,[0-9a-f]{32}){0,127}$")]


class RunDetails(RootModel[dict[str, RunAnalysis]]):
    """Runs in detail, by key."""


class RunPath(Record):
    """Which run of which rig."""

    rig_id: Id
    run_id: Id


class HouseWorkPath(Record):
    """Which work on the whole house."""

    work_id: Annotated[str, Field(min_length=1, max_length=64)]


class WorkPath(Record):
    """Which work on which rig."""

    rig_id: Id
    work_id: Annotated[str, Field(min_length=1, max_length=64)]


class RigList(RootModel[tuple[RigSummary, ...]]):
    """All rigs."""


class HistoryList(RootModel[tuple[HistoryLine, ...]]):
    """Edits, newest first."""


class Health(Record):
    """Whether the application and its database answer."""

    status: str
    """ok while the server answers."""
    version: str
    """Version of the program."""
