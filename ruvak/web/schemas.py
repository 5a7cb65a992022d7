"""Bodies and answers that belong to HTTP alone."""

from typing import Annotated, Any, Literal

from pydantic import Field, RootModel, StringConstraints

from ruvak.core.analyse import RunAnalysis
from ruvak.core.results.formulas import Formula
from ruvak.core.rig.connectors import Form
from ruvak.core.rig.earth import Preset
from ruvak.core.rig.edits import Edit
from ruvak.core.rig.rig import KitItem
from ruvak.core.rig.values import Id, Label, Number, Record, Words
from ruvak.service.states import HistoryLine, RigSummary
from ruvak.service.versions import Version

EditId = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9-]{8,64}$")]


class FaultBody(Record):
    """One field that is wrong."""

    code: str
    where: str
    sentence: str


class MeetingBody(Record):
    """A field that two people changed: both values, who else, and what they called their change."""

    kind: str
    id: str | None
    field: str | None
    key: str | None
    yours: Any
    theirs: Any
    by: str
    label: str


class Problem(Record):
    """The one error shape: a stable code, a sentence, and where it concerns fields, each of them."""

    code: str
    message: str
    faults: tuple[FaultBody, ...] = ()
    meetings: tuple[MeetingBody, ...] = ()
    """Of a conflict."""
    current_version: Version | None = None
    request_id: str | None = None


class SessionBody(Record):
    """This browser's person and the token every change must carry in X-CSRF-Token."""

    person_name: str
    csrf_token: str
    app_version: str


class PersonBody(Record):
    """A new name for the person at this browser."""

    name: Label


class AgainBody(Record):
    """To undo or redo: the client's own name for that, so that sent twice it is done once."""

    id: EditId | None = None


class EditBody(AgainBody):
    """An edit, and the version of the rig it was made on."""

    base_version: Version
    edit: Edit


class CopyBody(Record):
    """What a copy of a rig is called, and for which occasion it is."""

    name: Label
    occasion: Words = ""


class PreviewBody(Record):
    """An edit to look at without making it."""

    edit: Edit


class LinesBody(Record):
    """Typed lines, one a line; a single one also gets ways to go on."""

    text: Annotated[str, StringConstraints(max_length=20_000)]


class InputListBody(Record):
    """An input list as CSV text, and the gear it goes into (the one with the most inputs when left out)."""

    csv: Annotated[str, StringConstraints(max_length=200_000)]
    goal: Id | None = None


class KitListBody(Record):
    """A kit list as CSV text."""

    csv: Annotated[str, StringConstraints(max_length=200_000)]


class PartSummary(Record):
    """A part of the library: enough to choose it by."""

    id: Id
    name: Label
    words: str
    kind: Literal["gear", "lead", "adapter", "box"]


class PartSummaryList(RootModel[tuple[PartSummary, ...]]):
    """The whole library."""


class PartPath(Record):
    """Which part."""

    part_id: Id


class PiecesBody(Record):
    """A run's pieces in their new order; those not in the kit yet are added to it."""

    pieces: tuple[KitItem, ...] = Field(max_length=64)


class ScreenCurrentBody(Record):
    """A clamp meter round a lead: total rms, and the shape of the mains there."""

    item: Id
    reading_a: Number
    spectrum: Preset = "switched-mode"


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


class RigList(RootModel[tuple[RigSummary, ...]]):
    """All rigs."""


class HistoryList(RootModel[tuple[HistoryLine, ...]]):
    """Edits, newest first."""


class Health(Record):
    """Whether the application and its database answer."""

    status: str
    version: str
