"""What the runs of a rig need: a lead, or several in a row, of a wiring and a length."""

from collections.abc import Iterator
from dataclasses import dataclass

from ruvak.core.pull.wiring import Wiring, extends_itself, is_plain_lead, wiring_of
from ruvak.core.rig.rig import KitItem, Rig, Run


@dataclass(frozen=True)
class Need:
    """A stretch of a run. `planned`: the leads that lie there now; `hours`: when, as numbers that can be compared."""

    rig: str
    run: str
    wiring: Wiring
    length_m: float
    planned: tuple[KitItem, ...]
    hours: tuple[float, float]
    may_join: bool

    @property
    def key(self) -> tuple[str, str, str]:
        """Which it is: the first lead names the stretch."""
        return self.rig, self.run, self.planned[0].id


def needs_of(rig: Rig, hours: tuple[float, float], spare_m: float = 0.0) -> list[Need]:
    """Of every run, from source to destination. A lead that two runs share is needed once. The rig is prepared.

    How long a stretch is: as somebody said of the run where one lead, or leads in a row, make all of it; as long as
    what is planned otherwise. `spare_m` is added to either.
    """
    result: dict[tuple[str, ...], Need] = {}
    for run in rig.runs:
        stretches = list(_stretches(rig, run))
        for items in stretches:
            planned_m = sum(item.length_m or 0.0 for item in items)
            said_m = run.way_m if len(stretches) == 1 else None
            length_m = (said_m if said_m is not None else planned_m) + spare_m
            part = rig.parts_by_id[items[0].part]
            need = Need(rig.id, run.id, wiring_of(part), length_m, tuple(items), hours, extends_itself(part))
            result.setdefault(tuple(item.id for item in items), need)
    return list(result.values())


def _stretches(rig: Rig, run: Run) -> Iterator[list[KitItem]]:
    """Plain leads of one wiring that are plugged into each other, nearest the source first."""
    items = {item.id: item for item in rig.kit}
    plain = {
        piece
        for piece in run.pieces
        if not items[piece].installed and is_plain_lead(rig.parts_by_id[items[piece].part])
    }
    behind = {
        join.a.owner: join.b.owner
        for join in run.joins
        if join.a.owner in plain and join.b.owner in plain and _is_alike(rig, items[join.a.owner], items[join.b.owner])
    }
    starts = [piece for piece in run.pieces if piece in plain and piece not in behind.values()]
    for start in starts:
        stretch = [start]
        while (after := behind.get(stretch[-1])) is not None and after not in stretch:
            stretch.append(after)
        yield [items[piece] for piece in stretch]


def _is_alike(rig: Rig, one: KitItem, other: KitItem) -> bool:
    return wiring_of(rig.parts_by_id[one.part]) == wiring_of(rig.parts_by_id[other.part])
