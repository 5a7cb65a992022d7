"""What the cupboard's use cases answer with."""

from datetime import datetime
from typing import Literal

from ruvak.core.errors import RuvakError
from ruvak.core.rig.rig import Condition
from ruvak.core.rig.values import Record
from ruvak.service.takings import Holding

Changeable = Literal["name", "store", "count", "condition", "remark", "length_m"]


class CupboardConflict(RuvakError):
    """Somebody else changed the same meanwhile, or it is in use; nothing was changed."""

    code = "cupboard_conflict"


class CupboardEntry(Record):
    """A line of the cupboard."""

    id: str
    """Its id."""
    name: str
    """Its tag, or what it is called."""
    part: str
    """What it is, in words."""
    kind: Literal["gear", "lead", "adapter", "box"]
    """What kind of thing."""
    count: int
    """How many there are."""
    store: str
    """Where it is kept."""
    condition: Condition
    """Whether it can be relied on."""
    remark: str
    """What somebody noted about it."""
    length_m: float | None
    """Metres; leads only."""
    holdings: tuple[Holding, ...]
    """Who has it now or has taken it for later, the earliest first."""


class CupboardList(Record):
    """The cupboard as it stands."""

    entries: tuple[CupboardEntry, ...]
    """Everything in it, in the order in which it was added."""
    version: int
    """Counts its changes."""


class CupboardLines(Record):
    """Typed lines as they were understood."""

    lines: tuple["ReadCupboardLine", ...]
    """Each line."""
    things: int
    """How many things they add."""


class ReadCupboardLine(Record):
    """A typed line: what it adds, or why it was not understood."""

    line: str
    """As it was typed."""
    words: str
    """What it was understood to mean; empty where it was not."""
    problem: str | None
    """Why it was not understood, and how to mend it."""


class CupboardChange(Record):
    """What somebody did to a thing of the cupboard."""

    item: str
    """The thing."""
    name: str
    """What it was called then."""
    words: str
    """What was done."""
    person: str
    """Who did it."""
    made_at: datetime
    """When."""
