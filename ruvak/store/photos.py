"""Photos of the log: added and never changed, like its entries."""

from datetime import datetime

from sqlalchemy import LargeBinary, func, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Mapped, Session, mapped_column

from ruvak.store.tables import Base


class PhotoRow(Base):
    """A photo that somebody took at a rig."""

    __tablename__ = "photo"
    id: Mapped[str] = mapped_column(primary_key=True)
    rig_id: Mapped[str] = mapped_column(index=True)
    person_id: Mapped[str]
    received_at: Mapped[datetime] = mapped_column(server_default=func.clock_timestamp())
    jpeg: Mapped[bytes] = mapped_column(LargeBinary)


def add(session: Session, photo_id: str, rig_id: str, person_id: str, jpeg: bytes) -> None:
    """Unless it is there already: sent twice, it stays as it came first."""
    values = {"id": photo_id, "rig_id": rig_id, "person_id": person_id, "jpeg": jpeg}
    session.execute(insert(PhotoRow).values(values).on_conflict_do_nothing(index_elements=["id"]))


def find(session: Session, photo_id: str, rig_id: str) -> bytes | None:
    """A rig's photo by its id."""
    return session.scalar(select(PhotoRow.jpeg).where(PhotoRow.id == photo_id, PhotoRow.rig_id == rig_id))


def count(session: Session, rig_id: str) -> int:
    """How many a rig has."""
    return session.scalar(select(func.count()).where(PhotoRow.rig_id == rig_id)) or 0
