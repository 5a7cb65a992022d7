"""Where each thing stands among its like: numbers with room between them, so that putting one in moves no other."""

from collections.abc import Mapping
from dataclasses import dataclass
from itertools import pairwise

from ruvak.core.rig.collections import REGISTRY, CollectionName
from ruvak.core.rig.rig import Rig

SMALLEST_GAP = 1e-9


@dataclass(frozen=True)
class Positions:
    """By collection and id. The same edits in the same order give the same positions in every process."""

    numbers: Mapping[CollectionName, Mapping[str, float]]

    @classmethod
    def of(cls, rig: Rig) -> "Positions":
        """Whole numbers in the rig's order."""
        return cls(
            {
                collection.name: {thing.id: float(n) for n, thing in enumerate(collection.things(rig))}
                for collection in REGISTRY
            }
        )

    def at(self, name: CollectionName, id_: str) -> float:
        """Of one thing."""
        return self.numbers[name][id_]

    def follow(self, name: CollectionName, order: tuple[str, ...]) -> tuple["Positions", set[str]]:
        """After things came, went or changed places: every known one keeps its number where the order allows it.

        Returns the ids whose numbers are new or different.
        """
        known = self.numbers.get(name, {})
        if tuple(known) == order:
            return self, set()
        result = {id_: known[id_] for id_ in order if id_ in known}
        numbers = list(result.values())
        if all(a < b for a, b in pairwise(numbers)):
            result = _with_new(order, result)
        if len(result) < len(order) or not result:
            result = {id_: float(place) for place, id_ in enumerate(order)}
        moved = {id_ for id_, number in result.items() if known.get(id_) != number}
        return Positions({**self.numbers, name: result}), moved


def _with_new(order: tuple[str, ...], known: dict[str, float]) -> dict[str, float]:
    """New things between their neighbours; shorter than the order where there is no room left."""
    result: dict[str, float] = {}
    waiting: list[str] = []
    last = -1.0 if not known else min(0.0, next(iter(known.values()))) - 1.0
    for id_ in order:
        if id_ not in known:
            waiting.append(id_)
            continue
        step = (known[id_] - last) / (len(waiting) + 1)
        if waiting and step < SMALLEST_GAP:
            return {}
        for place, new in enumerate(waiting, 1):
            result[new] = last + place * step
        waiting = []
        result[id_] = last = known[id_]
    for place, new in enumerate(waiting, 1):
        result[new] = last + place
    return result
