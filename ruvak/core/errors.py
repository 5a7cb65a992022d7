"""Exceptions for faults in data and code. A fault in the user's wiring is a Finding, never an exception."""

from dataclasses import dataclass
from typing import Any


@dataclass(frozen=True)
class Fault:
    """One thing wrong in a rig's data: `where` is a path such as runs[0].joins[1].b."""

    code: str
    where: str
    sentence: str


class RuvakError(Exception):
    """Base of all: `code` is stable for programs, the message is a sentence for people, `faults` say what is wrong
    where, of errors about something that was given."""

    code = "error"
    faults: tuple[Fault, ...] = ()


class FaultyDocument(RuvakError):
    """Something given that cannot be read: every fault found, not only the first."""

    code = "bad_document"

    def __init__(self, faults: tuple[Fault, ...]) -> None:
        self.faults = faults
        super().__init__(" ".join(f"{fault.where}: {fault.sentence}" for fault in faults))

    def __reduce__(self) -> tuple[Any, ...]:
        # Exceptions travel between processes by their message alone; this one is made from its faults.
        return type(self), (self.faults,)


class RigFault(FaultyDocument):
    """A rig that cannot be read."""

    code = "bad_rig"


class BadEdit(RuvakError):
    """An edit that names something the rig does not have, or a value it cannot take."""

    code = "bad_edit"

    def __init__(self, where: str, sentence: str) -> None:
        self.where = where
        self.faults = (Fault(self.code, where, sentence),)
        super().__init__(sentence)

    def __reduce__(self) -> tuple[Any, ...]:
        return type(self), (self.where, str(self))


class SingularNetwork(RuvakError):
    """A network without a unique solution: the nodes that nothing ties to the reference.

    Without nodes: a circle of zero resistances, or a source without impedance that is shorted.
    """

    code = "floating_network"

    def __init__(self, nodes: tuple[str, ...]) -> None:
        self.nodes = nodes
        names = ", ".join(nodes[:6]) + (" and more" if len(nodes) > 6 else "")
        super().__init__(
            f"Nothing ties these points to the earth reference, so they have no voltage: {names}."
            if nodes
            else "A source or wire without any resistance is shorted; give its impedance a value above 0."
        )

    def __reduce__(self) -> tuple[Any, ...]:
        return type(self), (self.nodes,)
