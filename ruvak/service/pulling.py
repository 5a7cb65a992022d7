"""Taking the leads of a pull list: an edit for each rig of the day."""

from ruvak.core.rig.values import Record
from ruvak.service.edits import Edits
from ruvak.service.pool import Compute
from ruvak.service.pull import DayPull, RigEdit
from ruvak.service.states import Person
from ruvak.service.takings import AlreadyTaken
from ruvak.service.task import as_it_is


class Taken(Record):
    """What was done."""

    rigs: tuple[str, ...]
    """The rigs that were changed, by id."""


class Pulling:
    """The use cases over one database and the processes that compute."""

    def __init__(self, edits: Edits, compute: Compute) -> None:
        self._edits, self._compute = edits, compute

    def take(self, rig_id: str, spare_m: float, person: Person) -> Taken:
        """Every rig of the day has the leads of the list from then on. Raises NotFound, Conflict, AlreadyTaken."""
        day: DayPull = self._compute.run(rig_id, as_it_is("pull", rig_id, spare_m))
        waiting, done = list(day.edits), list[str]()
        while waiting:
            # A lead that goes from one rig to another is free once the first has let it go.
            left, refused = self._make(waiting, person)
            if len(left) == len(waiting) and refused is not None:
                raise refused
            done += [each.rig for each in waiting if each not in left]
            waiting = left
        return Taken(rigs=tuple(done))

    def _make(self, edits: list[RigEdit], person: Person) -> tuple[list[RigEdit], AlreadyTaken | None]:
        """Those that could not be made, and why the last of them could not."""
        left: list[RigEdit] = []
        refused: AlreadyTaken | None = None
        for each in edits:
            try:
                self._edits.make(each.rig, each.version, each.edit, person)
            except AlreadyTaken as problem:
                left.append(each)
                refused = problem
        return left, refused
