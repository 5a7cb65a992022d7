"""One cure for runs side by side: of two parallel leads one alone isolated sends its current through the other."""

from collections import Counter
from collections.abc import Iterator

from ruvak.core.pieces.route import Route
from ruvak.core.remedies.paths import paths
from ruvak.core.rig.rig import Rig, Run

MOST_BESIDE = 3
"""More leads between the same two devices belong in a multicore."""


def beside(rig: Rig, run: Run) -> Iterator[Run]:
    """Other runs between the same devices."""
    own = _devices(rig, run)
    result = (other for other in rig.runs if other.id != run.id and len(own) > 1 and _devices(rig, other) == own)
    yield from list(result)[:MOST_BESIDE]


def same_way(rig: Rig, run: Run, boxes: Counter[str]) -> Route | None:
    """The simplest rewiring of a run that puts in these boxes and no others; None where nothing reaches."""
    for route in paths(rig, run):
        new = [item.part for item in route.items if item.id not in run.pieces and item.length_m is None]
        if Counter(new) == boxes:
            return route
    return None


def _devices(rig: Rig, run: Run) -> frozenset[str]:
    kit = {item.id for item in rig.kit}
    return frozenset(set(run.owners) - kit)
