"""What there is: leads of the cupboard and of the rigs, by kind, length, condition and store."""

import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from math import floor

from ruvak.core.cupboard.item import CupboardItem
from ruvak.core.pull.wiring import Wiring, is_plain_lead, wiring_of
from ruvak.core.rig.rig import KitItem, Rig

STEP_M = 0.5
_HELD_BACK = re.compile(r"\b(?:spare|hold back|held back|keep back)\b", re.IGNORECASE)
"""In a remark: it stays where it is, for what goes wrong."""


@dataclass(frozen=True)
class Lead:
    """One lead. `item` and `number`: which of the cupboard; `rig` and `piece`: a rig's own."""

    tag: str
    part: str
    """What it is, by its name."""
    wiring: Wiring
    length_m: float
    suspect: bool
    store: str
    item: str | None = None
    number: int = 1
    rig: str | None = None
    piece: str | None = None

    @property
    def group(self) -> "Group":
        """Those that are the same to whoever chooses: length rounded down to half a metre."""
        return Group(self.wiring, floor(self.length_m / STEP_M + 1e-9) * STEP_M, self.suspect, self.rig)


@dataclass(frozen=True, order=True)
class Group:
    """Leads that are the same to whoever chooses. `rig`: only this one may use them."""

    wiring: Wiring
    length_m: float
    suspect: bool
    rig: str | None


def leads_in(items: Iterable[CupboardItem], rigs: Iterable[Rig]) -> list[Lead]:
    """All that may be taken: good or suspect, not held back; of the rigs what is their own and not the cupboard's."""
    return [*_of_cupboard(items), *_of_rigs(rigs)]


def _of_cupboard(items: Iterable[CupboardItem]) -> Iterator[Lead]:
    for item in items:
        if item.is_device or not item.is_usable or item.length_m is None or not is_plain_lead(item.part):
            continue
        if _HELD_BACK.search(item.remark) or item.faults:
            continue
        for number in range(1, item.count + 1):
            tag = f"{item.name} {number}" if item.count > 1 else item.name
            suspect = item.condition == "suspect"
            yield Lead(tag, item.part.name, wiring_of(item.part), item.length_m, suspect, item.store, item.id, number)


def _of_rigs(rigs: Iterable[Rig]) -> Iterator[Lead]:
    for rig in rigs:
        for item in rig.kit:
            part = rig.parts_by_id[item.part]
            if _is_own(item) and item.length_m is not None and is_plain_lead(part):
                yield Lead(
                    item.tag, part.name, wiring_of(part), item.length_m, item.is_suspect, f"kit of {rig.name}",
                    rig=rig.id, piece=item.id,
                )  # fmt: skip


def _is_own(item: KitItem) -> bool:
    is_there = item.owned and not item.installed and item.drawn is None
    return is_there and item.is_usable and not item.faults and not _HELD_BACK.search(item.remark)
