"""What a typed line was understood to mean."""

from typing import Literal

from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.rig.edits import Edit
from ruvak.core.rig.points import End
from ruvak.core.rig.values import Record
from ruvak.core.trace.drawing import RunDrawing

ProblemCode = Literal[
    "no_arrow",
    "no_source",
    "no_destination",
    "unknown_source",
    "unknown_destination",
    "unknown_way",
    "unknown_socket",
    "ambiguous_name",
    "counts_differ",
    "bad_length",
    "unknown_option",
    "socket_taken",
    "no_route",
]


class ReadProblem(Record):
    """Why a line cannot be a run yet: a sentence that says how to mend it. `start` and `end` are places in the line."""

    code: ProblemCode
    start: int
    end: int
    sentence: str
    suggestions: tuple[str, ...] = ()
    """Whole lines that would be understood."""


class ReadPiece(Record):
    """One piece that was chosen."""

    item: str
    words: str
    in_kit: bool


class ReadRun(Record):
    """One run the line makes, as it would be built."""

    run: str
    number: int
    name: str
    sources: tuple[End, ...]
    through: tuple[End, ...]
    goals: tuple[End, ...]
    from_words: str
    to_words: str
    pieces: tuple[ReadPiece, ...]
    new_gear: tuple[str, ...]
    """Parts of gear that is added."""
    length_m: float | None
    reach_assumed: bool
    options: tuple[str, ...]
    phantom_on: bool
    """Switched on with it, because somebody said so or the microphone cannot do without."""
    grade: Grade
    finding: Finding
    drawing: RunDrawing


class Reading(Record):
    """One typed line. Without problems it has runs and the edit that makes them."""

    line: str
    sentence: str
    taken_for: tuple[str, ...]
    """Corrections, each a sentence."""
    runs: tuple[ReadRun, ...]
    problems: tuple[ReadProblem, ...]
    edit: Edit | None
