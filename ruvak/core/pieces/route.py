"""A complete wiring: its pieces and joins, how simple it is, and the edits that add what a rig lacks of it."""

from collections.abc import Collection, Iterable
from dataclasses import dataclass

from ruvak.core.errors import BadEdit
from ruvak.core.parts.library import library
from ruvak.core.rig.edits import Op, PutThing
from ruvak.core.rig.rig import Join, KitItem, Rig


@dataclass(frozen=True)
class Route:
    """A complete wiring: the pieces in order of use, and the joins. `misfits`: see chains.misfit."""

    items: tuple[KitItem, ...]
    joins: tuple[Join, ...]
    misfits: int = 0

    @property
    def to_get(self) -> int:
        """How many pieces are not owned."""
        return sum(not item.owned for item in self.items)

    def has_one_of_each(self, options: Iterable[Collection[str]]) -> bool:
        """Whether one of its parts is among each of these."""
        parts = [item.part for item in self.items]
        return all(any(part in some for part in parts) for some in options)


def simplicity(route: Route) -> tuple[int, float, float]:
    """Smaller is simpler: little to get; few pieces, a box counting as two and a misfit as half; little lead."""
    boxes = sum(item.length_m is None for item in route.items)
    pieces = len(route.items) + 0.5 * boxes + 0.5 * route.misfits
    return route.to_get, pieces, sum(item.length_m or 0.0 for item in route.items)


def put_ops(rig: Rig, items: tuple[KitItem, ...]) -> list[Op]:
    """What adds the items a rig does not have yet, and their parts. Raises BadEdit for a part nobody knows."""
    ops: list[Op] = []
    known, have = set(rig.parts_by_id), set(rig.owners_by_id)
    for item in items:
        if item.part not in known:
            if item.part not in library():
                raise BadEdit("part", f"There is no part '{item.part}' here or in the library.")
            ops.append(PutThing(kind="parts", thing=library()[item.part]))
            known.add(item.part)
        if item.id not in have:
            ops.append(PutThing(kind="kit", thing=item))
            have.add(item.id)
    return ops
