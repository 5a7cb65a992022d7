"""The log: entries that are added and never changed, which the database itself refuses."""

from collections.abc import Iterable, Sequence
from datetime import datetime
from typing import Any

from sqlalchemy import BigInteger, Identity, Index, Select, func, literal, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Mapped, Session, mapped_column

from ruvak.core.log.entry import Entry, NewEntry
from ruvak.core.rig.rig import Rig, written_on
from ruvak.store.tables import Base, RigRow, Texts

MOST_COPIES_BACK = 26
"""How many weeks back what a run had is looked for: half a year of Sundays."""


class LogRow(Base):
    """An entry. It stays when the rig, its runs and its leads are gone, with the names that they had."""

    __tablename__ = "log_entry"
    __table_args__ = (
        Index("ix_log_entry_rig_id_number", "rig_id", "number"),
        Index("ix_log_entry_items", "items", postgresql_using="gin"),
    )
    id: Mapped[str] = mapped_column(primary_key=True)
    number: Mapped[int] = mapped_column(BigInteger, Identity(always=True), unique=True)
    rig_id: Mapped[str | None]
    """None for what was done to a thing of the cupboard by itself."""
    occasion_id: Mapped[str | None] = mapped_column(index=True)
    """The date that the rig was for when it came in."""
    rig_name: Mapped[str]
    venue_name: Mapped[str]
    run_name: Mapped[str]
    thing_names: Mapped[Texts]
    items: Mapped[Texts]
    """Things of the cupboard that it is about."""
    person_id: Mapped[str]
    person_name: Mapped[str]
    at: Mapped[datetime] = mapped_column(index=True)
    received_at: Mapped[datetime] = mapped_column(server_default=func.clock_timestamp())
    body: Mapped[dict[str, Any]]
    """As the device sent it."""


def add(session: Session, rows: Iterable[LogRow]) -> None:
    """Those whose id is not there yet; sent twice, an entry stays as it came first."""
    names = [column.key for column in LogRow.__mapper__.column_attrs if column.key not in ("number", "received_at")]
    values = [{name: getattr(row, name) for name in names} for row in rows]
    if values:
        session.execute(insert(LogRow).values(values).on_conflict_do_nothing(index_elements=["id"]))


def last_number(session: Session, rig_id: str) -> int:
    """Of a rig's entries; 0 without any."""
    return session.scalar(_of_this([rig_id], func.coalesce(func.max(LogRow.number), 0))) or 0


def count(session: Session, rig_id: str) -> int:
    """How many entries a rig has."""
    return session.scalar(_of_this([rig_id], func.count())) or 0


def of_rig_after(session: Session, rig_id: str, after: int) -> tuple[Entry, ...]:
    """Its entries with higher numbers than that, in the order in which they came in."""
    return tuple(map(entry_of, session.scalars(_of([rig_id]).where(LogRow.number > after))))


def of_rig(session: Session, rig_id: str) -> tuple[Entry, ...]:
    """All of a rig's entries, in the order in which they came in."""
    return of_rigs_in_order(session, [rig_id])


def of_rigs(session: Session, rig_ids: Sequence[str]) -> dict[str, tuple[Entry, ...]]:
    """As of_rig(), by rig."""
    result: dict[str, list[Entry]] = {}
    for row in session.scalars(_of(rig_ids)):
        if row.rig_id is not None:
            result.setdefault(row.rig_id, []).append(entry_of(row))
    return {rig_id: tuple(entries) for rig_id, entries in result.items()}


def of_rigs_in_order(session: Session, rig_ids: Sequence[str]) -> tuple[Entry, ...]:
    """Of all these rigs, in the order in which they came in."""
    return tuple(map(entry_of, session.scalars(_of(rig_ids))))


def find(session: Session, entry_id: str) -> Entry | None:
    """An entry by its own id."""
    row = session.get(LogRow, entry_id)
    return entry_of(row) if row is not None else None


def of_things(session: Session) -> tuple[Entry, ...]:
    """About things of the cupboard by themselves, in the order in which they came in."""
    return tuple(map(entry_of, session.scalars(select(LogRow).where(LogRow.rig_id.is_(None)).order_by(LogRow.number))))


def row_of_thing(name: str, entry: NewEntry, person_id: str, person: str) -> LogRow:
    """An entry about a thing of the cupboard by itself, which its `things` name by its id there."""
    return LogRow(
        id=entry.id,
        rig_id=None,
        occasion_id=None,
        rig_name="",
        venue_name="",
        run_name="",
        thing_names=[name],
        items=list(entry.things),
        person_id=person_id,
        person_name=person,
        at=entry.at,
        body=_body(entry),
    )


def _body(entry: NewEntry) -> dict[str, Any]:
    """As a device sends it, without what the log adds."""
    return entry.model_dump(mode="json", include=set(NewEntry.model_fields))


def row_of(rig: Rig, occasion: str | None, entry: NewEntry, person_id: str, person: str) -> LogRow:
    """An entry about a rig, with the names that its things have now."""
    owners = rig.owners_by_id
    run = next((run for run in rig.runs if run.id == entry.run), None)
    things = [owners[thing] for thing in entry.things if thing in owners]
    return LogRow(
        id=entry.id,
        rig_id=rig.id,
        occasion_id=occasion,
        rig_name=rig.name,
        venue_name=rig.venue.name,
        run_name=run.name if run is not None else "",
        thing_names=[written_on(thing) for thing in things],
        items=[thing.drawn.item for thing in things if thing.drawn is not None],
        person_id=person_id,
        person_name=person,
        at=entry.at,
        body=_body(entry),
    )


def row_of_known(rig: Rig, occasion: str | None, entry: Entry) -> LogRow:
    """An entry of an exported log: under the names that stand there, and nobody's account."""
    row = row_of(rig, occasion, entry, "", entry.person)
    row.rig_name, row.run_name, row.thing_names = entry.rig_name, entry.run_name, list(entry.thing_names)
    return row


def copied_from(session: Session, rig_id: str) -> list[str]:
    """The rigs that a rig was copied from, the latest first; the first that is gone ends the line."""
    first = select(RigRow.copied_from.label("id"), literal(1).label("back")).where(RigRow.id == rig_id)
    line = first.cte("line", recursive=True)
    further = select(RigRow.copied_from, line.c.back + 1).where(RigRow.id == line.c.id, line.c.back < MOST_COPIES_BACK)
    whole = line.union_all(further)
    query = select(whole.c.id).join(RigRow, RigRow.id == whole.c.id).order_by(whole.c.back)
    return list(dict.fromkeys(session.scalars(query)))


def entry_of(row: LogRow) -> Entry:
    """A row as a record."""
    return Entry.model_validate(
        row.body
        | {
            "number": row.number,
            "rig": row.rig_id,
            "rig_name": row.rig_name,
            "run_name": row.run_name,
            "thing_names": row.thing_names,
            "person": row.person_name,
            "received_at": row.received_at,
        }
    )


def _of(rig_ids: Sequence[str]) -> Select[LogRow]:
    return _of_this(rig_ids, LogRow).order_by(LogRow.number)


def _of_this(rig_ids: Sequence[str], what: Any) -> Select[Any]:
    """Without what was logged about an earlier rig of the same id, which has been deleted."""
    same = (RigRow.id == LogRow.rig_id) & (LogRow.received_at >= RigRow.created_at)
    return select(what).select_from(LogRow).join(RigRow, same).where(LogRow.rig_id.in_(rig_ids))
