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
    "unknown_change",
    "too_long",
    "too_many",
]

MOST_LETTERS = 600
"""A longer line is no line that somebody types, and would take long to take apart."""


class ReadProblem(Record):
    """Why a line cannot be a run yet: a sentence that says how to mend it. `start` and `end` are places in the line."""

    code: ProblemCode
    """Which problem it is."""
    start: int
    """First letter it is about, counted from 0."""
    end: int
    """Letter behind the last."""
    sentence: str
    """What was not understood, and what to type instead."""
    suggestions: tuple[str, ...] = ()
    """Whole lines that would be understood."""


class ReadPiece(Record):
    """One piece that was chosen."""

    item: str
    """The kit item."""
    words: str
    """What it is, in words."""
    in_kit: bool
    """Whether it is owned."""


class ReadRun(Record):
    """One run the line makes, as it would be built."""

    run: str
    """Its id."""
    number: int
    """Its line in the input list."""
    name: str
    """What it would be called."""
    sources: tuple[End, ...]
    """Sockets it starts from."""
    through: tuple[End, ...]
    """Pieces that were named."""
    goals: tuple[End, ...]
    """Sockets it ends at."""
    from_words: str
    """Where it starts, in words."""
    to_words: str
    """Where it ends, in words."""
    pieces: tuple[ReadPiece, ...]
    """Pieces that were chosen."""
    new_gear: tuple[str, ...]
    """Parts of gear that is added."""
    length_m: float | None
    """Length that was named, in metres; null where none was."""
    reach_assumed: bool
    """Whether the length is assumed."""
    options: tuple[str, ...]
    """Options that were named."""
    phantom_on: bool
    """Switched on with it, because somebody said so or the microphone cannot do without."""
    switched: tuple[str, ...]
    """Level switches that are set with it, in words."""
    grade: Grade
    """Its worst grade."""
    finding: Finding
    """Its worst finding."""
    drawing: RunDrawing
    """Its conductors from source to destination."""


class Alternative(Record):
    """Another wiring of the same line: one that was solved and not chosen, or one without the pieces that are named."""

    line: str
    """What to type for it."""
    pieces: tuple[str, ...]
    """What would be used instead, in words."""
    finding: Finding
    """Its worst finding."""
    is_usual: bool
    """Whether practice would take it, were nothing computed."""


class Reading(Record):
    """One typed line. Without problems it has runs and the edit that makes them."""

    line: str
    """The line as it was typed."""
    sentence: str
    """What it was understood to mean, or why not."""
    taken_for: tuple[str, ...]
    """Corrections, each a sentence."""
    runs: tuple[ReadRun, ...]
    """The runs it would make."""
    problems: tuple[ReadProblem, ...]
    """What was not understood."""
    edit: Edit | None
    """The change that makes them; null where it was not understood."""
    changes: bool = False
    """Whether the line changes what is there instead of adding runs; `runs` are those that it touches, as they will
    be."""
    alternatives: tuple[Alternative, ...] = ()
    """Of a single line: other wirings that were solved, best first; where it names pieces, what would do better."""
