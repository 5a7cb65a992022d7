"""Collects elements by point name and turns them into the solver's numbered network."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from typing import NamedTuple

from networkx.utils import UnionFind

from ruvak.core.rig.points import ContactRef, NodeRef
from ruvak.core.solve.network import EARTH, Bundle, IdealAmplifier, IdealTransformer, Network, Transresistance


class EarthNode(NamedTuple):
    """A point of the protective earth's tree, by its id; the main bar has none."""

    point: str

    def __str__(self) -> str:
        return f"earth:{self.point}" if self.point else "earth"


class Internal(NamedTuple):
    """A node that the model of something adds: between a winding's resistance and its ideal ratio, at a cut core."""

    owner: str
    name: str
    number: int

    def __str__(self) -> str:
        return f"{self.owner}.{self.name}{self.number}"


CircuitPoint = ContactRef | NodeRef | EarthNode | Internal
EARTH_POINT = EarthNode("")


@dataclass
class Collector:
    """Elements between points; points are merged where nothing but metal without resistance lies between."""

    merged: UnionFind[CircuitPoint] = field(default_factory=UnionFind)
    conductances: list[tuple[CircuitPoint, CircuitPoint, float]] = field(default_factory=list)
    capacitances: list[tuple[CircuitPoint, CircuitPoint, float]] = field(default_factory=list)
    bundles: list[tuple[list[CircuitPoint], list[CircuitPoint], list[float], list[list[float]]]] = field(
        default_factory=list
    )
    transformers: list[tuple[CircuitPoint, CircuitPoint, CircuitPoint, CircuitPoint, float]] = field(
        default_factory=list
    )
    amplifiers: list[tuple[CircuitPoint, CircuitPoint, CircuitPoint, CircuitPoint, float]] = field(default_factory=list)
    cores: list[tuple[str, CircuitPoint, CircuitPoint, float, float]] = field(default_factory=list)
    """(owner, point, point, dBu, hertz): where a core saturates."""
    transresistances: list[Transresistance] = field(default_factory=list)
    branch_count: int = 0

    def merge(self, points: Iterable[CircuitPoint]) -> None:
        """One node from now on."""
        self.merged.union(*points)

    def resistor(self, a: CircuitPoint, b: CircuitPoint, ohm: float) -> int | None:
        """Index of the new conductance; None where zero ohm merged the points instead."""
        if ohm == 0.0:
            self.merge((a, b))
            return None
        self.conductances.append((a, b, 1.0 / ohm))
        return len(self.conductances) - 1

    def capacitor(self, a: CircuitPoint, b: CircuitPoint, farad: float) -> int | None:
        """Index of the new capacitance; None for zero farad, which is nothing."""
        if farad <= 0.0:
            return None
        self.capacitances.append((a, b, farad))
        return len(self.capacitances) - 1

    def branch(self, a: CircuitPoint, b: CircuitPoint, ohm: float) -> int:
        """A branch whose current is an unknown; the number by which emfs address it."""
        return self.bundle([a], [b], [ohm], [[0.0]])

    def bundle(self, a: list[CircuitPoint], b: list[CircuitPoint], ohm: list[float], henry: list[list[float]]) -> int:
        """Coupled branches; the number of the first."""
        self.bundles.append((a, b, ohm, henry))
        first = self.branch_count
        self.branch_count += len(a)
        return first

    def transformer(self, p: CircuitPoint, q: CircuitPoint, s: CircuitPoint, t: CircuitPoint, ratio: float) -> None:
        """An ideal one; its losses are elements of their own."""
        self.transformers.append((p, q, s, t, ratio))

    def amplifier(self, p: CircuitPoint, q: CircuitPoint, s: CircuitPoint, t: CircuitPoint, gain: float) -> None:
        """An ideal one; its impedances are elements of their own."""
        self.amplifiers.append((p, q, s, t, gain))

    def transresistance(self, driven: int, sensed: int, ohm: float) -> None:
        """Current in one branch as an emf in another; no ohm is nothing."""
        if ohm:
            self.transresistances.append(Transresistance(driven, sensed, ohm))

    def number_nodes(self) -> tuple[Network, dict[CircuitPoint, int], tuple[CircuitPoint, ...]]:
        """The network; each point's node number (points on the earth reference give EARTH); a point for each node."""
        names: list[CircuitPoint] = []
        # Looked up once a point; what was never merged stands for itself.
        root_of = {point: self.merged[point] for point in list(self.merged)}
        number: dict[CircuitPoint, int] = {root_of.setdefault(EARTH_POINT, EARTH_POINT): EARTH}

        def node(point: CircuitPoint) -> int:
            root = root_of.setdefault(point, point)
            if root not in number:
                number[root] = len(names)
                names.append(point)
            return number[root]

        def nodes(points: Sequence[CircuitPoint]) -> tuple[int, ...]:
            return tuple(node(point) for point in points)

        conductances = tuple((node(a), node(b), siemens) for a, b, siemens in self.conductances)
        capacitances = tuple((node(a), node(b), farad) for a, b, farad in self.capacitances)
        bundles = tuple(
            Bundle(nodes(a), nodes(b), tuple(ohm), tuple(tuple(row) for row in henry))
            for a, b, ohm, henry in self.bundles
        )
        transformers = tuple(
            IdealTransformer(node(p), node(q), node(s), node(t), ratio) for p, q, s, t, ratio in self.transformers
        )
        amplifiers = tuple(
            IdealAmplifier(node(p), node(q), node(s), node(t), gain) for p, q, s, t, gain in self.amplifiers
        )
        network = Network(
            tuple(str(name) for name in names),
            conductances,
            capacitances,
            bundles,
            transformers,
            amplifiers,
            tuple(self.transresistances),
        )
        node_of = {point: number[root] for point, root in root_of.items() if root in number}
        return network, node_of, tuple(names)
