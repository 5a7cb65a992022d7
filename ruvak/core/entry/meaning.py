"""What a name typed in a line is taken for."""

from dataclasses import dataclass

from ruvak.core.rig.part import Part
from ruvak.core.rig.rig import Gear


@dataclass(frozen=True)
class Meaning:
    """One way to take a name. `rest`: the words after it, for the sockets; `corrected`: what it was taken for."""

    gear: tuple[Gear, ...]
    rest: tuple[str, ...]
    new: Part | None = None
    corrected: str | None = None
    several: bool = False
    """Whether one name stands for more than one device, without saying which."""
    missing: str | None = None
    """A device of a numbered group that is not there."""
    exact: bool = False
    """A full name of the rig's own gear: where its sockets are wrong, nothing else was meant."""
