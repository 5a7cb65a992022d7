"""The tables. Everything listed belongs to a holder (a rig, a venue); `position` keeps the order people put it in.

A listed thing's table has the columns of its record's fields, by the same names; core's registry says which record.
"""

from datetime import datetime
from typing import Any, ClassVar

from sqlalchemy import (
    BigInteger,
    CheckConstraint,
    DateTime,
    ForeignKey,
    ForeignKeyConstraint,
    Index,
    LargeBinary,
    MetaData,
    String,
    func,
    text,
)
from sqlalchemy.dialects.postgresql import ARRAY, JSONB
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

from ruvak.core.rig.collections import CollectionName

Document = dict[str, Any]
"""A validated record, or a figure with its provenance, as JSON."""
Documents = list[dict[str, Any]]
"""Several in order."""
Texts = list[str]


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
        list[str]: ARRAY(String()),
        datetime: DateTime(timezone=True),
    }


class HolderRow(Base):
    """What holds listed things. `version` counts the edits that touched it; `born` tells it from an earlier one of the
    same id."""

    __tablename__ = "holder"
    __table_args__ = (CheckConstraint("kind IN ('rig', 'venue', 'cupboard', 'house')", name="kind"),)
    id: Mapped[str] = mapped_column(primary_key=True)
    kind: Mapped[str]
    version: Mapped[int] = mapped_column(default=0)
    born: Mapped[datetime] = mapped_column(server_default=func.clock_timestamp())
    saved_at: Mapped[datetime] = mapped_column(server_default=func.now())


class VenueRow(Base):
    """Where a rig happens, as the rig has it: taken from a venue of the house, or the rig's own."""

    __tablename__ = "venue"
    id: Mapped[str] = mapped_column(ForeignKey("holder.id", ondelete="CASCADE"), primary_key=True)
    name: Mapped[str]
    mains_hz: Mapped[int] = mapped_column(CheckConstraint("mains_hz IN (50, 60)", name="mains_hz"))
    mains_v: Mapped[Document | None]
    bar_at: Mapped[Document | None]
    programme_db_spl: Mapped[float | None]
    noise_dba: Mapped[float | None]
    house: Mapped[dict[str, Any]] = mapped_column(default=dict)
    weather: Mapped[str] = mapped_column(
        CheckConstraint("weather IN ('under-roof', 'open-air')", name="weather"), default="under-roof"
    )
    taken_mhz: Mapped[list[dict[str, Any]]] = mapped_column(JSONB(), default=list)
    revision: Mapped[int] = mapped_column(default=1)
    induced_phase_deg: Mapped[Document | None]


class RigRow(Base):
    """The plan for one occasion."""

    __tablename__ = "rig"
    id: Mapped[str] = mapped_column(ForeignKey("holder.id", ondelete="CASCADE"), primary_key=True)
    venue_id: Mapped[str] = mapped_column(ForeignKey("venue.id"))
    name: Mapped[str]
    occasion: Mapped[str]
    length_unit: Mapped[str]
    alignment: Mapped[dict[str, Any]]
    assumptions: Mapped[dict[str, Any]]
    house_venue_id: Mapped[str | None] = mapped_column(ForeignKey("house_venue.id", ondelete="SET NULL"), index=True)
    """The house's venue that the rig's own was taken from; the rig's notes the revision."""
    occasion_id: Mapped[str | None] = mapped_column(ForeignKey("occasion.id", ondelete="SET NULL"), index=True)
    shelf: Mapped[str] = mapped_column(
        CheckConstraint("shelf IN ('plans', 'templates', 'archive')", name="shelf"), server_default="plans"
    )
    """Where it stands among the rigs."""
    copied_from: Mapped[str | None]
    """The rig that it was copied from, whose log tells what its runs had the last time; that may be gone."""
    created_at: Mapped[datetime] = mapped_column(server_default=func.clock_timestamp())
    """What was logged before is about an earlier rig of the same id."""


class HouseVenueRow(Base):
    """A venue of the house. Names are told apart without regard to capitals."""

    __tablename__ = "house_venue"
    __table_args__ = (Index("uq_house_venue_name", func.lower("name"), unique=True),)
    id: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]


class VenueRevisionRow(Base):
    """A venue of the house at one revision. A revision is never changed."""

    __tablename__ = "venue_revision"
    venue_id: Mapped[str] = mapped_column(ForeignKey("house_venue.id", ondelete="CASCADE"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True)
    document: Mapped[dict[str, Any]]
    words: Mapped[str]
    made_by: Mapped[str]
    made_at: Mapped[datetime] = mapped_column(server_default=func.now())


class OccasionRow(Base):
    """A date with its hours; it has one or more rigs."""

    __tablename__ = "occasion"
    __table_args__ = (CheckConstraint("ends_at > starts_at", name="hours"),)
    id: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    starts_at: Mapped[datetime] = mapped_column(index=True)
    ends_at: Mapped[datetime]
    doors_at: Mapped[datetime | None]
    """When people are let in: everything has to be checked by then."""
    after_id: Mapped[str | None] = mapped_column(ForeignKey("occasion.id", ondelete="SET NULL"))
    """The occasion that it was made like."""


class ThingRow(Base):
    """What all tables of listed things have; `collection` is their name in core's registry."""

    __abstract__ = True
    collection: ClassVar[CollectionName]
    holder_id: Mapped[str] = mapped_column(ForeignKey("holder.id", ondelete="CASCADE"), primary_key=True)
    id: Mapped[str] = mapped_column(primary_key=True)
    position: Mapped[float]


class PartRow(ThingRow):
    """A part as the rig uses it; `body` is the whole record, since nobody asks for one of its fields."""

    __tablename__ = "part"
    collection = "parts"
    revision: Mapped[int]
    body: Mapped[dict[str, Any]]


class GearRow(ThingRow):
    """A device in the rig."""

    __tablename__ = "gear"
    __table_args__ = (
        ForeignKeyConstraint(["holder_id", "part"], ["part.holder_id", "part.id"], name="fk_gear_part"),
        Index("ix_gear_drawn", text("(drawn ->> 'item')")),
    )
    collection = "gear"
    name: Mapped[str]
    part: Mapped[str]
    settings: Mapped[dict[str, Any]]
    outlet: Mapped[str | None]
    touch_a: Mapped[Document | None]
    earth_open: Mapped[bool]
    supply_fault_v: Mapped[Document | None]
    at: Mapped[Document | None]
    faders_db: Mapped[dict[str, Any]]
    host: Mapped[str | None]
    contacts: Mapped[Documents]
    mains_f: Mapped[Document | None]
    earth_f: Mapped[Document | None]
    sends: Mapped[Documents]
    radio_mhz: Mapped[list[float]] = mapped_column(JSONB())
    condition: Mapped[str]
    remark: Mapped[str]
    drawn: Mapped[Document | None]


class KitRow(ThingRow):
    """A lead, adapter or box."""

    __tablename__ = "kit_item"
    __table_args__ = (
        ForeignKeyConstraint(["holder_id", "part"], ["part.holder_id", "part.id"], name="fk_kit_part"),
        Index("ix_kit_item_drawn", text("(drawn ->> 'item')")),
    )
    collection = "kit"
    tag: Mapped[str]
    part: Mapped[str]
    length_m: Mapped[float | None] = mapped_column(CheckConstraint("length_m > 0", name="length_m"))
    owned: Mapped[bool]
    installed: Mapped[bool]
    beside: Mapped[Document | None]
    loop_width_m: Mapped[Document | None]
    contacts: Mapped[Documents]
    faults: Mapped[Documents]
    condition: Mapped[str]
    remark: Mapped[str]
    drawn: Mapped[Document | None]


class RunRow(ThingRow):
    """One path: its pieces' ids and its joins. Names are checked by the core, which knows what may be shared."""

    __tablename__ = "run"
    __table_args__ = (Index("ix_run_pieces", "pieces", postgresql_using="gin"),)
    collection = "runs"
    number: Mapped[int]
    name: Mapped[str]
    pieces: Mapped[Texts]
    joins: Mapped[Documents]
    note: Mapped[str]
    way_m: Mapped[float | None]
    route: Mapped[Documents]


class BondRow(ThingRow):
    """Metal beside the runs."""

    __tablename__ = "bond"
    collection = "bonds"
    name: Mapped[str]
    kind: Mapped[str]
    a: Mapped[str]
    b: Mapped[str]
    ohm: Mapped[Document | None]
    henry: Mapped[Document | None]


class EarthRow(ThingRow):
    """A point of the protective earth's tree. `parent` is checked by the core, with every other name."""

    __tablename__ = "earth_point"
    collection = "earth"
    name: Mapped[str]
    kind: Mapped[str]
    parent: Mapped[str | None]
    ohm: Mapped[Document | None]
    henry: Mapped[Document | None]
    emf_v: Mapped[Document | None]
    voltage: Mapped[Document | None]
    at: Mapped[Document | None]
    residual_a: Mapped[Document | None]
    breaker_a: Mapped[Document | None]


class MainsRow(ThingRow):
    """A mains cable on the plan."""

    __tablename__ = "mains_cable"
    collection = "mains"
    name: Mapped[str]
    points: Mapped[Documents]
    current_a: Mapped[dict[str, Any]]
    spacing_m: Mapped[Document | None]
    residual_a: Mapped[Document | None]
    twist_db: Mapped[Document | None]
    spectrum: Mapped[str | None]


class EditRow(Base):
    """One thing somebody did, in the rig it was done in. `kind` is edit, undo or redo; the latter two name in `of_edit`
    what they concern. `uid`: given by the client, so that what is sent twice is done once."""

    __tablename__ = "edit"
    __table_args__ = (
        CheckConstraint("kind IN ('edit', 'undo', 'redo')", name="kind"),
        CheckConstraint("as_built IN ('open', 'kept', 'restored')", name="as_built"),
    )
    id: Mapped[int] = mapped_column(BigInteger, primary_key=True)
    uid: Mapped[str | None] = mapped_column(unique=True)
    rig_id: Mapped[str] = mapped_column(ForeignKey("holder.id", ondelete="CASCADE"), index=True)
    person: Mapped[str]
    person_name: Mapped[str]
    made_at: Mapped[datetime] = mapped_column(server_default=func.now())
    kind: Mapped[str]
    label: Mapped[str]
    of_edit: Mapped[int | None] = mapped_column(ForeignKey("edit.id", ondelete="CASCADE"))
    undone: Mapped[bool] = mapped_column(default=False)
    as_built: Mapped[str | None]
    """Of an edit that records what was really done: open until a technician keeps it or restores the plan."""
    forward: Mapped[dict[str, Any]]
    inverse: Mapped[dict[str, Any]]


class EditOfHolderRow(Base):
    """A holder that an edit touched: the version it made of it, and what it touched there (store/touches.py)."""

    __tablename__ = "edit_of_holder"
    __table_args__ = (Index("ix_edit_of_holder_version", "holder_id", "version", unique=True),)
    edit_id: Mapped[int] = mapped_column(ForeignKey("edit.id", ondelete="CASCADE"), primary_key=True)
    holder_id: Mapped[str] = mapped_column(ForeignKey("holder.id", ondelete="CASCADE"), primary_key=True)
    version: Mapped[int]
    touches: Mapped[Texts]


class SolvedPartRow(Base):
    """A part of an analysis as compressed JSON, by what it was computed from. Emptied, nothing is lost."""

    __tablename__ = "solved_part"
    __table_args__ = ({"prefixes": ["UNLOGGED"]},)
    key: Mapped[str] = mapped_column(primary_key=True)
    """Content hash of the rig, version of the program, name of the part."""
    etag: Mapped[str]
    body: Mapped[bytes] = mapped_column(LargeBinary)
    size: Mapped[int]
    used_at: Mapped[datetime] = mapped_column(server_default=func.now(), index=True)


class LongWorkRow(Base):
    """Work that somebody waits for and may cancel. The queue library's job with `job_id` does it."""

    __tablename__ = "long_work"
    id: Mapped[str] = mapped_column(primary_key=True)
    key: Mapped[str] = mapped_column(index=True)
    """What is computed from what: those who ask for the same wait for the same."""
    rig_id: Mapped[str | None]
    """None for what is about the whole house."""
    use_case: Mapped[str]
    arguments: Mapped[list[Any]] = mapped_column(JSONB())
    is_json: Mapped[bool]
    upload: Mapped[bytes | None] = mapped_column(LargeBinary)
    """A file that is worked on; gone once that is done."""
    runs: Mapped[int]
    """Of the rig, for the words on screen; none for what is about the whole house."""
    job_id: Mapped[int | None] = mapped_column(BigInteger)
    share: Mapped[float] = mapped_column(default=0.0)
    cancelled: Mapped[bool] = mapped_column(default=False)
    answer: Mapped[bytes | None] = mapped_column(LargeBinary)
    """Compressed JSON; None for what is kept elsewhere."""
    problem: Mapped[Document | None]
    """Why there is no answer: code, message and faults."""
    created_at: Mapped[datetime] = mapped_column(server_default=func.now(), index=True)
    finished_at: Mapped[datetime | None]
