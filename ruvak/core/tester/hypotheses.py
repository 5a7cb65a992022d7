"""Faults that a piece may have, and what a tester would read of each."""

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import combinations

from ruvak.core.rig.part import Part, contacts_in
from ruvak.core.rig.points import Contact, InnerNode
from ruvak.core.rig.wiring_fault import WiringFault, metal_of
from ruvak.core.tester.metal import Groups

WEIGHTS = {"open": 6.0, "short": 3.0, "exchanged": 2.0}
"""How often each turns out to be it, against each other: common practice, no source."""
MISPLACED = 0.2
"""What belongs at one contact is at another that has nothing, against two exchanged with each other."""
SECOND_TIMES = 0.05
"""Two faults at once, against one: common practice, no source."""
_ORDER = {"open": 0, "exchanged": 1, "short": 2}
"""In which faults are applied: what is broken is named by where it belongs."""


@dataclass(frozen=True)
class Hypothesis:
    """What may be wrong, and what would be read of it. No faults: as it should be."""

    faults: tuple[WiringFault, ...]
    groups: Groups
    weight: float


class Bench:
    """A piece's metal by numbers, so that thousands of faults are tried in a moment."""

    def __init__(self, part: Part) -> None:
        self.part, self.contacts = part, contacts_in(part)
        points: dict[Contact | InnerNode, int] = {contact: place for place, contact in enumerate(self.contacts)}
        self._edges = [
            (points.setdefault(a, len(points)), points.setdefault(b, len(points))) for a, b, _ in metal_of(part)
        ]
        self._places, self._points = points, list(points)
        self.sound = self.groups(())
        self._wired = {place for edge in self._edges for place in edge}

    def groups(self, faults: tuple[WiringFault, ...]) -> Groups:
        """Which contacts would be read as joined."""
        edges = self._edges
        for fault in faults:
            a, b = self._places[fault.a], self._places[fault.b]
            if fault.kind == "open":
                edges = [edge for edge in edges if edge not in ((a, b), (b, a))]
            elif fault.kind == "exchanged":
                turned = {a: b, b: a}
                edges = [(turned.get(p, p), turned.get(q, q)) for p, q in edges]
            else:
                edges = [*edges, (a, b)]
        root = list(range(len(self._points)))

        def top(place: int) -> int:
            while root[place] != place:
                root[place] = root[root[place]]
                place = root[place]
            return place

        for p, q in edges:
            p, q = top(p), top(q)
            root[max(p, q)] = min(p, q)
        first: dict[int, int] = {}
        return tuple(first.setdefault(top(place), place) for place in range(len(self.contacts)))

    def singles(self) -> Iterator[Hypothesis]:
        """Each conductor and link broken, each two contacts of a plug touching, each two exchanged."""
        for fault in self._faults():
            groups = self.groups((fault,))
            if groups != self.sound:
                yield Hypothesis((fault,), groups, self._weight(fault))

    def _weight(self, fault: WiringFault) -> float:
        is_misplaced = fault.kind == "exchanged" and not {self._places[fault.a], self._places[fault.b]} <= self._wired
        return WEIGHTS[fault.kind] * (MISPLACED if is_misplaced else 1.0)

    def doubles(self, singles: list[Hypothesis]) -> Iterator[Hypothesis]:
        """Two of them at once."""
        for first, second in combinations(singles, 2):
            faults = tuple(sorted((*first.faults, *second.faults), key=lambda fault: _ORDER[fault.kind]))
            yield Hypothesis(faults, self.groups(faults), first.weight * second.weight * SECOND_TIMES)

    def _faults(self) -> Iterator[WiringFault]:
        for p, q in dict.fromkeys(tuple(sorted(edge)) for edge in self._edges):
            yield WiringFault(kind="open", a=self._points[p], b=self._points[q])
        by_plug: dict[str, list[int]] = {}
        for place, contact in enumerate(self.contacts):
            by_plug.setdefault(contact.connector, []).append(place)
        for places in by_plug.values():
            for p, q in combinations(places, 2):
                a, b = self._points[p], self._points[q]
                if self.sound[p] != self.sound[q]:
                    yield WiringFault(kind="short", a=a, b=b)
                    if {p, q} & self._wired:
                        yield WiringFault(kind="exchanged", a=a, b=b)
