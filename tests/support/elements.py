"""Looks into a built circuit: what lies between two points, as a textbook would list it."""

import cmath
import unittest
from dataclasses import dataclass

from ruvak.core.circuit.build import build
from ruvak.core.circuit.circuit import Cause, Circuit, Tolerance
from ruvak.core.circuit.elements import EARTH_POINT, CircuitPoint, EarthNode, Internal
from ruvak.core.rig.points import NodeRef, parse_point_ref
from ruvak.core.rig.rig import Rig
from ruvak.core.trace.trace import trace

AT_EARTH = EARTH_POINT


def point(text: str) -> CircuitPoint:
    """ "desk.in.2", "desk.g", or "earth:outlet"."""
    return EarthNode(text.removeprefix("earth:")) if text.startswith("earth:") else parse_point_ref(text)


@dataclass(frozen=True)
class Branch:
    """A branch whose current is an unknown."""

    number: int
    a: int
    b: int
    ohm: float
    henry: float


class Elements:
    """The elements of a rig's circuit."""

    def __init__(self, rig: Rig) -> None:
        self.circuit: Circuit = build(rig, trace(rig))
        self.network = self.circuit.network
        self.branches: list[Branch] = []
        self._henry: dict[tuple[int, int], float] = {}
        first = 0
        for bundle in self.network.bundles:
            for k, (a, b, ohm) in enumerate(zip(bundle.a, bundle.b, bundle.ohm, strict=True)):
                self.branches.append(Branch(first + k, a, b, ohm, bundle.henry[k][k]))
                for m in range(len(bundle.a)):
                    self._henry[first + k, first + m] = bundle.henry[k][m]
            first += len(bundle.a)

    def node(self, at: str | CircuitPoint) -> int:
        return self.circuit.node_of[point(at) if isinstance(at, str) else at]

    def farad(self, a: str | CircuitPoint, b: str | CircuitPoint) -> float:
        """All capacitance between two points."""
        return self._sum(self.network.capacitances, a, b)

    def siemens(self, a: str | CircuitPoint, b: str | CircuitPoint) -> float:
        """All conductance between two points."""
        return self._sum(self.network.conductances, a, b)

    def _sum(self, elements: tuple[tuple[int, int, float], ...], a: str | CircuitPoint, b: str | CircuitPoint) -> float:
        ends = {self.node(a), self.node(b)}
        return sum(value for one, other, value in elements if {one, other} == ends)

    def between(self, a: str | CircuitPoint, b: str | CircuitPoint) -> Branch:
        """The branch between two points; there is to be exactly one."""
        ends = {self.node(a), self.node(b)}
        (found,) = (one for one in self.branches if {one.a, one.b} == ends)
        return found

    def henry(self, one: Branch, other: Branch) -> float:
        """Mutual inductance of two branches."""
        return self._henry.get((one.number, other.number), 0.0)

    def cause(self, code: str, owner: str | None = None) -> Cause:
        (found,) = (one for one in self.circuit.causes if one.code == code and owner in (None, one.owner))
        return found

    def emf(self, cause: Cause, branch: Branch | int, hz: float = 50.0) -> complex:
        """Volts of a cause in a branch at one frequency."""
        number = branch if isinstance(branch, int) else branch.number
        line = next(line for line in cause.lines if line.frequency_hz == hz)
        return sum((volts for at, volts in line.emfs if at == number), 0j)

    def tolerance(self, code: str) -> Tolerance:
        every = (*self.circuit.tolerances, *self.circuit.hum_tolerances)
        (found,) = (one for one in every if one.code == code)
        return found


def inner(owner: str, name: str, number: int = 0) -> Internal:
    return Internal(owner, name, number)


def chassis(owner: str) -> NodeRef:
    return NodeRef(owner, "chassis")


def reference(owner: str) -> NodeRef:
    return NodeRef(owner, "g")


class ElementTest(unittest.TestCase):
    """Farads and henries are too small for a number of decimal places to say anything: what counts is the share."""

    def close(self, value: complex, expected: complex) -> None:
        """Equal to nine digits; nought to a millionth of a picofarad."""
        self.assertTrue(cmath.isclose(value, expected, rel_tol=1e-9, abs_tol=1e-18), f"{value} instead of {expected}")
