"""What this process solved last: analyses of saved versions, and blocks of networks for whatever comes next.

Nothing here is ever out of date: a saved version never changes, and a block is known by what it is made of. Any number
of processes may each have their own.
"""

from collections import OrderedDict
from datetime import datetime
from threading import Lock

from ruvak.core.analyse import Analysis, analyse
from ruvak.core.rig.rig import Rig
from ruvak.core.solve.memory import Memory

Version = tuple[str, int, datetime]
"""A rig's id, version, and when it was saved."""
KEPT_ANALYSES = 4


class Solved:
    """Keeps the analyses last asked for."""

    def __init__(self) -> None:
        self.memory = Memory()
        self._kept: OrderedDict[Version, Analysis] = OrderedDict()
        self._lock = Lock()

    def of(self, version: Version, rig: Rig) -> Analysis:
        """The analysis of a saved rig. Raises RigFault."""
        with self._lock:
            if version in self._kept:
                self._kept.move_to_end(version)
                return self._kept[version]
        found = analyse(rig, self.memory)
        with self._lock:
            self._kept[version] = found
            while len(self._kept) > KEPT_ANALYSES:
                self._kept.popitem(last=False)
        return found
