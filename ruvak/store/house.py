"""Tables of what the house shares: its cupboard, what was noted at occasions, and which rig has taken what when."""

from datetime import datetime
from typing import Any

from sqlalchemy import BigInteger, CheckConstraint, ForeignKey, Identity, Index, func
from sqlalchemy.orm import Mapped, mapped_column

from ruvak.store.tables import Base


class CupboardRow(Base):
    """A lead, adapter, box or device of the house, or several alike. `body` is the whole record."""

    __tablename__ = "cupboard_item"
    __table_args__ = (
        Index("uq_cupboard_item_tag", func.lower("name"), unique=True, postgresql_where="count = 1"),
        CheckConstraint("condition IN ('good', 'suspect', 'faulty', 'away')", name="condition"),
        CheckConstraint("count > 0", name="count"),
    )
    id: Mapped[str] = mapped_column(primary_key=True)
    position: Mapped[int] = mapped_column(BigInteger, Identity(always=True))
    name: Mapped[str]
    count: Mapped[int]
    store: Mapped[str]
    condition: Mapped[str]
    body: Mapped[dict[str, Any]]


class CupboardChangeRow(Base):
    """What somebody did to a thing of the cupboard; it stays when the thing is gone."""

    __tablename__ = "cupboard_change"
    id: Mapped[int] = mapped_column(BigInteger, Identity(always=True), primary_key=True)
    item_id: Mapped[str] = mapped_column(index=True)
    name: Mapped[str]
    words: Mapped[str]
    person_name: Mapped[str]
    made_at: Mapped[datetime] = mapped_column(server_default=func.now())


class NoteRow(Base):
    """Something to remember, noted at an occasion; what is not done yet goes along to the next."""

    __tablename__ = "occasion_note"
    id: Mapped[str] = mapped_column(primary_key=True)
    occasion_id: Mapped[str] = mapped_column(ForeignKey("occasion.id", ondelete="CASCADE"), index=True)
    item_id: Mapped[str | None] = mapped_column(ForeignKey("cupboard_item.id", ondelete="SET NULL"), index=True)
    """The thing of the cupboard that the words name."""
    words: Mapped[str]
    person_name: Mapped[str]
    made_at: Mapped[datetime] = mapped_column(server_default=func.clock_timestamp())
    done_by: Mapped[str | None]
    """Who has seen to it; null while it is open."""


class TakenRow(Base):
    """A thing of the cupboard that a rig has for the hours of its occasion. Written only while the thing's row is
    locked, so that two rigs never get the same thing at one time."""

    __tablename__ = "taken"
    __table_args__ = (Index("ix_taken_rig_id", "rig_id"),)
    item_id: Mapped[str] = mapped_column(ForeignKey("cupboard_item.id", ondelete="CASCADE"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True)
    rig_id: Mapped[str] = mapped_column(ForeignKey("holder.id", ondelete="CASCADE"), primary_key=True)
    starts_at: Mapped[datetime]
    ends_at: Mapped[datetime]
