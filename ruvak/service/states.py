"""What the use cases answer with."""

from datetime import datetime

from ruvak.core.analyse import Analysis
from ruvak.core.entry.reading import Reading
from ruvak.core.rig.edits import Edit
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.values import Record


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
    version: int
    saved_at: datetime


class RigState(Record):
    """A rig with its analysis at one version, and what this person can take back."""

    version: int
    saved_at: datetime
    rig: Rig
    analysis: Analysis
    undo_label: str | None
    redo_label: str | None


class HistoryLine(Record):
    """One thing somebody did."""

    id: int
    kind: str
    label: str
    person: str
    mine: bool
    base_version: int
    made_at: datetime
    undone: bool


class Preview(Record):
    """What an edit would do, without doing it."""

    edit: Edit
    analysis: Analysis


class Readings(Record):
    """Typed lines understood or not; one edit for all that were, and ways to go on with a single line."""

    readings: tuple[Reading, ...]
    completions: tuple[str, ...]
    edit: Edit | None


class Rewired(Record):
    """A run with other legs, solved; `gaps` are sentences about what does not fit."""

    gaps: tuple[str, ...]
    preview: Preview
