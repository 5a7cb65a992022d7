"""Collects elements by point name and turns them into the solver's numbered network."""

from __future__ import annotations

from collections.abc import Hashable, Iterable, Sequence
from dataclasses import dataclass, field

from networkx.utils import UnionFind

from ruvak.core.solve.network import EARTH, Bundle, IdealAmplifier, IdealTransformer, Network, Transresistance

EARTH_POINT = "earth"


@dataclass
class Collector:
    """Elements between points; points are merged where nothing but metal without resistance lies between."""

    merged: UnionFind[Hashable] = field(default_factory=UnionFind)
    conductances: list[tuple[str, str, float]] = field(default_factory=list)
    capacitances: list[tuple[str, str, float]] = field(default_factory=list)
    bundles: list[tuple[list[str], list[str], list[float], list[list[float]]]] = field(default_factory=list)
    transformers: list[tuple[str, str, str, str, float]] = field(default_factory=list)
    amplifiers: list[tuple[str, str, str, str, float]] = field(default_factory=list)
    cores: list[tuple[str, str, str, float, float]] = field(default_factory=list)
    """(owner, point, point, dBu, hertz): where a core saturates."""
    transresistances: list[Transresistance] = field(default_factory=list)
    branch_count: int = 0

    def merge(self, points: Iterable[str]) -> None:
        """One node from now on."""
        self.merged.union(*points)

    def resistor(self, a: str, b: str, ohm: float) -> int | None:
        """Index of the new conductance; None where zero ohm merged the points instead."""
        if ohm == 0.0:
            self.merge((a, b))
            return None
        self.conductances.append((a, b, 1.0 / ohm))
        return len(self.conductances) - 1

    def capacitor(self, a: str, b: str, farad: float) -> int | None:
        """Index of the new capacitance; None for zero farad, which is nothing."""
        if farad <= 0.0:
            return None
        self.capacitances.append((a, b, farad))
        return len(self.capacitances) - 1

    def branch(self, a: str, b: str, ohm: float) -> int:
        """A branch whose current is an unknown; the number by which emfs address it."""
        return self.bundle([a], [b], [ohm], [[0.0]])

    def bundle(self, a: list[str], b: list[str], ohm: list[float], henry: list[list[float]]) -> int:
        """Coupled branches; the number of the first."""
        self.bundles.append((a, b, ohm, henry))
        first = self.branch_count
        self.branch_count += len(a)
        return first

    def transformer(self, p: str, q: str, s: str, t: str, ratio: float) -> None:
        """An ideal one; its losses are elements of their own."""
        self.transformers.append((p, q, s, t, ratio))

    def amplifier(self, p: str, q: str, s: str, t: str, gain: float) -> None:
        """An ideal one; its impedances are elements of their own."""
        self.amplifiers.append((p, q, s, t, gain))

    def transresistance(self, driven: int, sensed: int, ohm: float) -> None:
        """Current in one branch as an emf in another; no ohm is nothing."""
        if ohm:
            self.transresistances.append(Transresistance(driven, sensed, ohm))

    def numbered(self) -> tuple[Network, dict[str, int]]:
        """The network, and each point's node number (points on the earth reference give EARTH)."""
        names: list[str] = []
        number: dict[Hashable, int] = {self.merged[EARTH_POINT]: EARTH}

        def node(point: str) -> int:
            root = self.merged[point]
            if root not in number:
                number[root] = len(names)
                names.append(point)
            return number[root]

        def nodes(points: Sequence[str]) -> tuple[int, ...]:
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
            tuple(names),
            conductances,
            capacitances,
            bundles,
            transformers,
            amplifiers,
            tuple(self.transresistances),
        )
        points = [str(point) for point in self.merged]
        return network, {point: number[self.merged[point]] for point in points if self.merged[point] in number}
