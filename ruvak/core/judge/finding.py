"""What the computation has to say."""

from enum import StrEnum

from ruvak.core.judge.codes import FindingCode
from ruvak.core.rig.values import Id, Record


class Grade(StrEnum):
    """Worst first: no usable signal or a hazard; an audience will notice; little margin; nothing to do."""

    STOP = "stop"
    FIX = "fix"
    WATCH = "watch"
    CLEAR = "clear"


SEVERITY = {grade: rank for rank, grade in enumerate(Grade)}


class Finding(Record):
    """A code with its parameters; the words are the catalogue's.

    `subject`: the mix, input or output concerned, owner.id.
    """

    code: FindingCode
    """Which finding it is."""
    grade: Grade
    """How serious it is."""
    run: Id
    """The run."""
    items: tuple[str, ...]
    """Devices it is about."""
    subject: str
    """The socket or device it is about."""
    params: dict[str, float | str]
    """Figures and names in its sentences."""
    sentence: str
    """What is so."""
    advice: str
    """What to do about it."""
    caution: str = ""
    """Where following the advice, or what tempts instead of it, can hurt somebody."""


class RigFinding(Record):
    """Something about the whole rig, said once. `gear`, `runs`: what it concerns; `subject`: a device or point."""

    code: FindingCode
    """Which finding it is."""
    grade: Grade
    """How serious it is."""
    gear: tuple[Id, ...]
    """Devices it is about."""
    runs: tuple[Id, ...]
    """Runs that end at these devices."""
    subject: str
    """What it is about."""
    params: dict[str, float | str]
    """Figures and names in its sentences."""
    sentence: str
    """What is so."""
    advice: str
    """What to do about it."""


class Verdict(Record):
    """How many runs have each grade as their worst, what is said of the whole rig counted in."""

    stop: int
    """How many findings of grade stop."""
    fix: int
    """How many of grade fix."""
    watch: int
    """How many of grade watch."""
    clear: int
    """How many runs are clear."""
