"""The cupboard as a process keeps it, and what of it is free for a rig."""

from datetime import datetime
from threading import Lock

from sqlalchemy import select
from sqlalchemy.orm import Session

from ruvak.core.cupboard.draw import with_cupboard
from ruvak.core.cupboard.item import CupboardItem
from ruvak.core.rig.rig import Rig
from ruvak.service.takings import taken_by_others
from ruvak.store.house import CupboardRow
from ruvak.store.tables import HolderRow

CUPBOARD = "cupboard-of-the-house"
"""The holder whose version counts every change of the cupboard."""


class KeptCupboard:
    """The cupboard as it was read last in this process, read anew when its version has changed."""

    def __init__(self) -> None:
        self._lock = Lock()
        self._version: tuple[datetime, int] | None = None
        self._items = tuple[CupboardItem, ...]()

    def items(self, session: Session) -> tuple[CupboardItem, ...]:
        """Everything in it, in order."""
        version = cupboard_version(session)
        with self._lock:
            if version == self._version:
                return self._items
        items = read_items(session)
        with self._lock:
            self._version, self._items = version, items
        return items

    def beside(self, session: Session, rig: Rig, devices: bool = False) -> Rig:
        """The rig with all that is free for its hours within reach."""
        items = self.items(session)
        return with_cupboard(rig, items, taken_by_others(session, rig.id), devices) if items else rig


def cupboard_version(session: Session) -> tuple[datetime, int] | None:
    """Since when there is this cupboard, and how often it was changed; None while there is none."""
    row = session.execute(select(HolderRow.born, HolderRow.version).where(HolderRow.id == CUPBOARD)).first()
    return (row.born, row.version) if row is not None else None


def read_items(session: Session) -> tuple[CupboardItem, ...]:
    """Everything in it, in order, as it stands in this transaction."""
    rows = session.scalars(select(CupboardRow).order_by(CupboardRow.position))
    return tuple(CupboardItem.model_validate(row.body) for row in rows)
