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
    grade: Grade
    run: Id
    items: tuple[str, ...]
    subject: str
    params: dict[str, float | str]
    sentence: str
    advice: str
    caution: str = ""
    """Where following the advice, or what tempts instead of it, can hurt somebody."""


class RigFinding(Record):
    """Something about the whole rig, said once. `gear`, `runs`: what it concerns; `subject`: a device or point."""

    code: FindingCode
    grade: Grade
    gear: tuple[Id, ...]
    runs: tuple[Id, ...]
    subject: str
    params: dict[str, float | str]
    sentence: str
    advice: str


class Verdict(Record):
    """How many runs have each grade as their worst, what is said of the whole rig counted in."""

    stop: int
    fix: int
    watch: int
    clear: int
