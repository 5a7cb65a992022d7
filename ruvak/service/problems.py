"""What can go wrong in a use case besides bad data."""

from dataclasses import dataclass
from typing import Any

from ruvak.core.errors import RuvakError
from ruvak.core.rig.edits import Touched


class NotFound(RuvakError):
    """Nothing by that name."""

    code = "not_found"


class BadHours(RuvakError):
    """Hours of an occasion that do not fit each other, or an occasion that is needed and not there."""

    code = "bad_hours"


class NotCurrent(RuvakError):
    """What was asked about a version that has been replaced by a later one."""

    code = "not_current"

    def __init__(self, current_version: str) -> None:
        self.current_version = current_version
        super().__init__("Somebody has saved this rig since; ask about its present version.")

    def __reduce__(self) -> tuple[Any, ...]:
        return type(self), (self.current_version,)


class Busy(RuvakError):
    """More is being computed than the machine can queue."""

    code = "busy"


@dataclass(frozen=True)
class Meeting:
    """A field that two people changed: what one of them wants there, what the other has put there, and who."""

    touched: Touched
    yours: Any
    theirs: Any
    by: str
    label: str


class Conflict(RuvakError):
    """Somebody else changed the same; nothing was changed."""

    code = "conflict"

    def __init__(self, message: str, current_version: str, meetings: tuple[Meeting, ...] = ()) -> None:
        self.current_version = current_version
        self.meetings = meetings
        super().__init__(message)

    def __reduce__(self) -> tuple[Any, ...]:
        return type(self), (str(self), self.current_version, self.meetings)


class NothingToUndo(RuvakError):
    """No edit of one's own is left to take back, or to do again."""

    code = "nothing_to_undo"
