"""What can go wrong in a use case besides bad data."""

from ruvak.core.errors import RuvakError


class NotFound(RuvakError):
    """Nothing by that name."""

    code = "not_found"


class Conflict(RuvakError):
    """Somebody else saved in between; nothing was changed."""

    code = "conflict"

    def __init__(self, message: str, current_version: int) -> None:
        self.current_version = current_version
        super().__init__(message)


class NothingToUndo(RuvakError):
    """No edit of one's own is left to take back, or to do again."""

    code = "nothing_to_undo"
