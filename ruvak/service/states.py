"""What the use cases answer with."""

from datetime import datetime
from typing import Any, Literal

from pydantic import RootModel

from ruvak.core.analyse import Analysis
from ruvak.core.entry.reading import Reading
from ruvak.core.house import Shelf
from ruvak.core.judge.assumed import Assumed
from ruvak.core.judge.finding import Grade, RigFinding, Verdict
from ruvak.core.pieces.choices import PieceChoice
from ruvak.core.remedies.remedy import Remedy
from ruvak.core.results.hum_records import GroundLoop
from ruvak.core.results.records import DestinationResult
from ruvak.core.rig.collections import CollectionName, HolderKind
from ruvak.core.rig.edits import Edit
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.values import Record
from ruvak.core.run_changes import RunChange, VerdictChange
from ruvak.service.versions import Version


class Person(Record):
    """Under whom changes are made."""

    id: str
    """The account, or the link."""
    name: str
    """What others see."""


class RigSummary(Record):
    """A line in the list of rigs."""

    id: str
    """Its name in addresses."""
    name: str
    """What it is called."""
    occasion: str
    """What it is for."""
    venue: str
    """Name of its venue."""
    version: Version
    """Where it stands."""
    saved_at: datetime
    """When it was last saved."""
    runs: int
    """How many runs it has."""
    devices: int
    """How many devices it has."""
    to_get: int
    """How many leads, adapters and boxes have to be borrowed or bought."""
    shelf: Shelf
    """Where it stands among the rigs."""
    date: str | None
    """The occasion that it is for, by id; null without a date."""
    last_change: str | None
    """What was done in it last; null where nothing was."""
    changed_by: str | None
    """Who did that."""


class RigVersion(Record):
    """Where a rig stands: what a browser asks for every second."""

    version: Version
    """Where it stands."""
    saved_at: datetime
    """When it was last saved."""


class RigState(Record):
    """A rig at one version, and what this person can take back. Its analysis has addresses of its own."""

    version: Version
    """Where it stands."""
    saved_at: datetime
    """When it was last saved."""
    rig: Rig
    """The rig, as in a rig file."""
    undo_label: str | None
    """What this person would undo next; null where there is nothing."""
    redo_label: str | None
    """What this person would redo next; null where there is nothing."""


class Changed(Record):
    """A thing as an edit left it, or the rig's or its venue's own fields; `thing` is None where it is gone."""

    kind: CollectionName | HolderKind
    """The collection, or the rig or venue itself."""
    id: str | None
    """The thing; null for the rig or venue itself."""
    thing: dict[str, Any] | None
    """The thing as it is now; null where it is gone."""
    at: int | None
    """Its place in its collection."""


class EditOutcome(Record):
    """An edit as it was saved. `base`: the version it was applied to, perhaps later than the one it was made on."""

    base: Version
    """The version it was applied to."""
    version: Version
    """The version it made."""
    saved_at: datetime
    """When it was saved."""
    changed: tuple[Changed, ...]
    """What it changed."""
    undo_label: str | None
    """What this person would undo next; null where there is nothing."""
    redo_label: str | None
    """What this person would redo next; null where there is nothing."""


class HistoryLine(Record):
    """One thing somebody did."""

    id: int
    """Its number."""
    kind: str
    """An edit, or one undone or redone."""
    label: str
    """What was done."""
    person: str
    """Who did it."""
    own: bool
    """Whether it was this person."""
    made_at: datetime
    """When."""
    undone: bool
    """Whether it was undone since."""
    runs: tuple[str, ...]
    """The runs that it added, changed or deleted, by their ids."""
    as_built: Literal["open", "kept", "restored"] | None
    """Of what a helper recorded: open until a technician keeps it or restores the plan; null for other changes."""


class Preview(Record):
    """What an edit would do, without doing it."""

    edit: Edit
    """What was tried."""
    analysis: Analysis
    """What would follow."""


class RunSummary(Record):
    """A run in the overview: its verdict in a sentence, and the key by which its details are found."""

    run: str
    """The run."""
    key: str
    """By which its details are read; the same key means the same details."""
    checked: str
    """What an answer of the line check names: another one means that the run is to be checked again."""
    grade: Grade
    """Its worst grade."""
    sentence: str
    """Its worst finding."""
    into: str | None
    """The device of the first input it reaches; null where it reaches none."""


class Overview(Record):
    """A rig's analysis at a glance; each run's details, the destinations and the connections are parts of their own."""

    rig: str
    """The rig."""
    verdict: Verdict
    """How many findings of each grade."""
    findings: tuple[RigFinding, ...]
    """What concerns the whole rig."""
    assumed: tuple[Assumed, ...]
    """What nobody has said, as questions."""
    runs: tuple[RunSummary, ...]
    """Every run in a line, in the rig's order."""


class DestinationList(RootModel[tuple[DestinationResult, ...]]):
    """What each device makes of all its inputs together."""


class GroundLoopList(RootModel[tuple[GroundLoop, ...]]):
    """Connections that close loops, the one whose opening helps most first."""


class RemedyList(RootModel[tuple[Remedy, ...]]):
    """Solved remedies, best first."""


class RunChangeList(RootModel[tuple[RunChange, ...]]):
    """Runs that an edit changed, as they were and as they became."""


class PieceChoiceList(RootModel[tuple[PieceChoice, ...]]):
    """What could stand there, fitting and owned things first."""


class VenueComparison(Record):
    """What the house's newest revision of a rig's venue would change in the rig."""

    revision: int
    """The newest revision."""
    edit: Edit | None
    """The edit that takes it; null where the rig has it already."""
    said: tuple[str, ...]
    """What is different, in sentences."""
    kept: tuple[str, ...]
    """What would stay because the rig uses it."""
    runs: tuple[VerdictChange, ...]
    """Runs whose worst finding would be another."""


class Readings(Record):
    """Typed lines understood or not; one edit for all that were, and ways to go on with a single line."""

    readings: tuple[Reading, ...]
    """Each line as it was understood."""
    completions: tuple[str, ...]
    """Ways to go on with a single line."""
    edit: Edit | None
    """One edit for all lines that were understood; null where none was."""
    version: Version
    """The version of the rig that the lines were read against: what the edit is made on."""


class Rewired(Record):
    """A run with other pieces, solved; `gaps` are sentences about what does not fit."""

    gaps: tuple[str, ...]
    """What does not fit, in sentences."""
    preview: Preview
    """The run with these pieces, solved."""
