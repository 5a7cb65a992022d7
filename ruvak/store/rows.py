"""Listed things as rows, one way for all of them: a record's fields are its table's columns."""

from collections.abc import Iterable
from typing import Any

from sqlalchemy import delete, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from ruvak.core.rig.collections import COLLECTIONS, CollectionName
from ruvak.core.rig.values import Identified
from ruvak.store.tables import ThingRow

TABLES: dict[CollectionName, type[ThingRow]] = {table.collection: table for table in ThingRow.__subclasses__()}
_APART = frozenset({"holder_id", "position"})


def read_things(session: Session, name: CollectionName, holder_id: str) -> tuple[tuple[Identified, float], ...]:
    """A holder's things of one kind with their positions, in order."""
    table, record = TABLES[name].__table__, COLLECTIONS[name].record
    rows = session.execute(select(table).where(table.c.holder_id == holder_id).order_by(table.c.position, table.c.id))
    return tuple((_record(record, row), row["position"]) for row in rows.mappings())


def write_things(
    session: Session, name: CollectionName, holder_id: str, things: Iterable[tuple[Identified, float]]
) -> None:
    """Adds things, or replaces those of the same ids."""
    rows = [{"holder_id": holder_id, "position": position, **_columns(name, thing)} for thing, position in things]
    if not rows:
        return
    statement = insert(TABLES[name])
    changed = {column: statement.excluded[column] for column in rows[0] if column not in ("holder_id", "id")}
    session.execute(statement.on_conflict_do_update(index_elements=["holder_id", "id"], set_=changed), rows)


def remove_things(session: Session, name: CollectionName, holder_id: str, ids: Iterable[str]) -> None:
    """Takes things out."""
    table = TABLES[name]
    if gone := list(ids):
        session.execute(delete(table).where(table.holder_id == holder_id, table.id.in_(gone)))


def _columns(name: CollectionName, thing: Identified) -> dict[str, Any]:
    document = thing.model_dump(mode="json")
    names = {column.name for column in TABLES[name].__table__.columns} - _APART
    own = {column: document[column] for column in names if column != "body"}
    return {**own, "body": document} if "body" in names else own


def _record(record: type[Identified], row: Any) -> Identified:
    if "body" in row:
        return record.model_validate(row["body"])
    return record.model_validate({column: value for column, value in row.items() if column not in _APART})
