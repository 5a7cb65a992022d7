"""What the parts of a line are read against."""

from dataclasses import dataclass, field

from ruvak.core.entry.lists import NamedInList
from ruvak.core.entry.names import Directory
from ruvak.core.rig.rig import Rig


@dataclass
class LineContext:
    """One line against one rig. `in_list`: what the lines of the same list name.

    The rig changes while the line is read, where the line brings a multicore; so do its names.
    """

    rig: Rig
    line: str
    in_list: NamedInList
    corrections: list[str] = field(default_factory=list)
    """What slips were taken for, in sentences."""

    def __post_init__(self) -> None:
        self.directory = Directory(self.rig)

    def go_on_with(self, rig: Rig) -> None:
        """Reads the rest of the line against another state of the rig."""
        self.rig, self.directory = rig, Directory(rig)
