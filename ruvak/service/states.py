"""What the use cases answer with."""

from datetime import datetime
from typing import Any

from pydantic import RootModel

from ruvak.core.analyse import Analysis
from ruvak.core.entry.reading import Reading
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
from ruvak.service.versions import Version


class Person(Record):
    """Who is at the controls: an id that stays with the browser, and a name that can be changed."""

    id: str
    name: str


class RigSummary(Record):
    """A line in the list of rigs."""

    id: str
    name: str
    occasion: str
    venue: str
    version: Version
    saved_at: datetime


class RigVersion(Record):
    """Where a rig stands: what a browser asks for every second."""

    version: Version
    saved_at: datetime


class RigState(Record):
    """A rig at one version, and what this person can take back. Its analysis has addresses of its own."""

    version: Version
    saved_at: datetime
    rig: Rig
    undo_label: str | None
    redo_label: str | None


class Changed(Record):
    """A thing as an edit left it, or the rig's or its venue's own fields; `thing` is None where it is gone."""

    kind: CollectionName | HolderKind
    id: str | None
    thing: dict[str, Any] | None
    at: int | None
    """Its place in its collection."""


class EditOutcome(Record):
    """An edit as it was saved. `base`: the version it was applied to, perhaps later than the one it was made on."""

    base: Version
    version: Version
    saved_at: datetime
    changed: tuple[Changed, ...]
    undo_label: str | None
    redo_label: str | None


class HistoryLine(Record):
    """One thing somebody did."""

    id: int
    kind: str
    label: str
    person: str
    own: bool
    made_at: datetime
    undone: bool


class Preview(Record):
    """What an edit would do, without doing it."""

    edit: Edit
    analysis: Analysis


class RunSummary(Record):
    """A run in the overview: its verdict in a sentence, and the key by which its details are found."""

    run: str
    key: str
    grade: Grade
    sentence: str


class Overview(Record):
    """A rig's analysis at a glance; each run's details, the destinations and the connections are parts of their own."""

    rig: str
    verdict: Verdict
    findings: tuple[RigFinding, ...]
    assumed: tuple[Assumed, ...]
    runs: tuple[RunSummary, ...]


class DestinationList(RootModel[tuple[DestinationResult, ...]]):
    """What each device makes of all its inputs together."""


class GroundLoopList(RootModel[tuple[GroundLoop, ...]]):
    """Connections that close loops, the one whose opening helps most first."""


class RemedyList(RootModel[tuple[Remedy, ...]]):
    """Solved remedies, best first."""


class PieceChoiceList(RootModel[tuple[PieceChoice, ...]]):
    """What could stand there, fitting and owned things first."""


class Readings(Record):
    """Typed lines understood or not; one edit for all that were, and ways to go on with a single line."""

    readings: tuple[Reading, ...]
    completions: tuple[str, ...]
    edit: Edit | None


class Rewired(Record):
    """A run with other pieces, solved; `gaps` are sentences about what does not fit."""

    gaps: tuple[str, ...]
    preview: Preview
