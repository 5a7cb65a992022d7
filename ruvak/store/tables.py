"""The tables. Everything of a rig carries rig_id; `position` keeps the order in which people put things."""

from datetime import datetime
from typing import Any

from sqlalchemy import BigInteger, CheckConstraint, DateTime, ForeignKey, ForeignKeyConstraint, MetaData, func
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

Document = dict[str, Any]
"""A validated record, or a figure with its provenance, as JSON."""
Documents = list[dict[str, Any]]
"""Several in order."""


class Base(DeclarativeBase):
    """Named constraints, so that migrations can find them."""

    metadata = MetaData(
        naming_convention={
            "ix": "ix_%(column_0_label)s",
            "uq": "uq_%(table_name)s_%(column_0_name)s",
            "ck": "ck_%(table_name)s_%(constraint_name)s",
            "fk": "fk_%(table_name)s_%(column_0_name)s_%(referred_table_name)s",
            "pk": "pk_%(table_name)s",
        }
    )
    type_annotation_map = {  # noqa: RUF012
        dict[str, Any]: JSONB(none_as_null=True),
        list[dict[str, Any]]: JSONB(),
        datetime: DateTime(timezone=True),
    }


class VenueRow(Base):
    """Where a rig happens. One a rig until venues are shared."""

    __tablename__ = "venue"
    id: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    mains_hz: Mapped[int] = mapped_column(CheckConstraint("mains_hz IN (50, 60)", name="mains_hz"))
    mains_v: Mapped[Document | None]
    bar_at: Mapped[Document | None]
    mains: Mapped[Documents] = mapped_column(default=list)
    programme_db_spl: Mapped[float | None]
    noise_dba: Mapped[float | None]
    house: Mapped[dict[str, Any]] = mapped_column(default=dict)


class RigRow(Base):
    """`version` counts saved edits; it is what optimistic locking compares."""

    __tablename__ = "rig"
    id: Mapped[str] = mapped_column(primary_key=True)
    venue_id: Mapped[str] = mapped_column(ForeignKey("venue.id"))
    name: Mapped[str]
    occasion: Mapped[str]
    length_unit: Mapped[str]
    alignment: Mapped[dict[str, Any]]
    assumptions: Mapped[dict[str, Any]]
    version: Mapped[int] = mapped_column(default=0)
    saved_at: Mapped[datetime] = mapped_column(server_default=func.now())


class _OfRig:
    rig_id: Mapped[str] = mapped_column(ForeignKey("rig.id", ondelete="CASCADE"), primary_key=True)
    position: Mapped[int]


class PartRow(_OfRig, Base):
    """A part as the rig uses it; `body` is a validated Part."""

    __tablename__ = "part"
    id: Mapped[str] = mapped_column(primary_key=True)
    revision: Mapped[int]
    body: Mapped[dict[str, Any]]


class GearRow(_OfRig, Base):
    """A device in the rig."""

    __tablename__ = "gear"
    __table_args__ = (ForeignKeyConstraint(["rig_id", "part_id"], ["part.rig_id", "part.id"], name="fk_gear_part"),)
    id: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    part_id: Mapped[str]
    settings: Mapped[dict[str, Any]]
    outlet: Mapped[str | None]
    touch_a: Mapped[Document | None]
    earth_open: Mapped[bool] = mapped_column(default=False)
    supply_fault_v: Mapped[Document | None]
    at: Mapped[Document | None]
    faders_db: Mapped[dict[str, Any]]


class KitRow(_OfRig, Base):
    """A lead, adapter or box."""

    __tablename__ = "kit_item"
    __table_args__ = (ForeignKeyConstraint(["rig_id", "part_id"], ["part.rig_id", "part.id"], name="fk_kit_part"),)
    id: Mapped[str] = mapped_column(primary_key=True)
    tag: Mapped[str]
    part_id: Mapped[str]
    length_m: Mapped[float | None] = mapped_column(CheckConstraint("length_m > 0", name="length_m"))
    owned: Mapped[bool]
    installed: Mapped[bool] = mapped_column(default=False)
    beside: Mapped[Document | None]
    loop_width_m: Mapped[Document | None]


class EarthRow(_OfRig, Base):
    """A point of the protective earth's tree. `parent` is checked by the core, with every other name."""

    __tablename__ = "earth_point"
    id: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    kind: Mapped[str]
    parent: Mapped[str | None]
    ohm: Mapped[Document | None]
    henry: Mapped[Document | None]
    emf_v: Mapped[Document | None]
    voltage: Mapped[Document | None]
    at: Mapped[Document | None]
    residual_a: Mapped[Document | None]


class BondRow(_OfRig, Base):
    """Metal beside the runs."""

    __tablename__ = "bond"
    id: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    kind: Mapped[str]
    a_end: Mapped[str]
    b_end: Mapped[str]
    ohm: Mapped[Document | None]
    henry: Mapped[Document | None]


class RunRow(_OfRig, Base):
    """One path."""

    __tablename__ = "run"
    id: Mapped[str] = mapped_column(primary_key=True)
    number: Mapped[int]
    name: Mapped[str]
    note: Mapped[str] = mapped_column(default="")
    route: Mapped[Documents] = mapped_column(default=list)


class _OfRun:
    rig_id: Mapped[str] = mapped_column(primary_key=True)
    run_id: Mapped[str] = mapped_column(primary_key=True)
    position: Mapped[int] = mapped_column(primary_key=True)


_RUN_KEY = (["rig_id", "run_id"], ["run.rig_id", "run.id"])


class LegRow(_OfRun, Base):
    """A kit item in a run. One lead cannot be in two places; a multicore with several ways can (core/rig/check)."""

    __tablename__ = "leg"
    __table_args__ = (
        ForeignKeyConstraint(*_RUN_KEY, name="fk_leg_run", ondelete="CASCADE"),
        ForeignKeyConstraint(["rig_id", "item_id"], ["kit_item.rig_id", "kit_item.id"], name="fk_leg_kit_item"),
    )
    item_id: Mapped[str]


class JoinRow(_OfRun, Base):
    """Two connectors pushed into each other, as owner.connector."""

    __tablename__ = "join_of_run"
    __table_args__ = (ForeignKeyConstraint(*_RUN_KEY, name="fk_join_run", ondelete="CASCADE"),)
    a_end: Mapped[str]
    b_end: Mapped[str]
    sleeve: Mapped[str | None]


class EditRow(Base):
    """One thing somebody did. `kind` is edit, undo or redo; the latter two name in `of_edit` what they concern."""

    __tablename__ = "edit"
    __table_args__ = (CheckConstraint("kind IN ('edit', 'undo', 'redo')", name="kind"),)
    id: Mapped[int] = mapped_column(BigInteger, primary_key=True)
    rig_id: Mapped[str] = mapped_column(ForeignKey("rig.id", ondelete="CASCADE"), index=True)
    base_version: Mapped[int]
    person: Mapped[str]
    person_name: Mapped[str]
    made_at: Mapped[datetime] = mapped_column(server_default=func.now())
    kind: Mapped[str]
    label: Mapped[str]
    of_edit: Mapped[int | None] = mapped_column(ForeignKey("edit.id", ondelete="CASCADE"))
    undone: Mapped[bool] = mapped_column(default=False)
    forward: Mapped[dict[str, Any]]
    inverse: Mapped[dict[str, Any]]
