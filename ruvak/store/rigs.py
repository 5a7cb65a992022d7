"""A rig with its venue: read whole, created, changed where an edit touched it, deleted.

A saved rig loads as exactly the record that was given.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import delete, func, select, update
from sqlalchemy.orm import Session

from ruvak.core.parts.reading import complete
from ruvak.core.rig.collections import (
    COLLECTIONS,
    REGISTRY,
    CollectionName,
    HolderKind,
    holder_record,
    is_collection,
    own_fields,
)
from ruvak.core.rig.edits import Touched
from ruvak.core.rig.rig import Rig, Venue
from ruvak.store.positions import Positions
from ruvak.store.rows import read_things, remove_things, write_things
from ruvak.store.tables import HolderRow, RigRow, VenueRow

HOLDER_TABLES: dict[HolderKind, type[RigRow | VenueRow]] = {"rig": RigRow, "venue": VenueRow}


@dataclass(frozen=True)
class Holders:
    """The holders of one rig: their ids, versions, and when each came to be, by kind."""

    ids: Mapping[HolderKind, str]
    versions: Mapping[HolderKind, int]
    born: Mapping[HolderKind, datetime]
    saved_at: datetime

    def is_later_than(self, other: "Holders") -> bool:
        """Whether the other is an earlier state of the same holders, so that edits lead from it to this one."""
        same = self.ids == other.ids and self.born == other.born
        return same and all(self.versions[kind] >= other.versions[kind] for kind in self.versions)


@dataclass(frozen=True)
class SavedRig:
    """A rig as it is saved."""

    rig: Rig
    holders: Holders
    positions: Positions


def read_holders(session: Session, rig_id: str, lock: bool = False) -> Holders | None:
    """Which versions a rig and what it uses stand at; None where there is no such rig. `lock`: until the transaction's
    end, always in the same order."""
    venue_id = session.scalar(select(RigRow.venue_id).where(RigRow.id == rig_id))
    if venue_id is None:
        return None
    ids: dict[HolderKind, str] = {"rig": rig_id, "venue": venue_id}
    try:
        return _holders(session, ids, lock)
    except LookupError:
        # Deleted while this waited for the lock.
        return None


def _holders(session: Session, ids: Mapping[HolderKind, str], lock: bool = False) -> Holders:
    query = select(HolderRow.id, HolderRow.version, HolderRow.born, HolderRow.saved_at)
    query = query.where(HolderRow.id.in_(ids.values())).order_by(HolderRow.id)
    rows = {row.id: row for row in session.execute(query.with_for_update() if lock else query)}
    return Holders(
        ids,
        {kind: rows[id_].version for kind, id_ in ids.items()},
        {kind: rows[id_].born for kind, id_ in ids.items()},
        max(row.saved_at for row in rows.values()),
    )


def read_rig(session: Session, holders: Holders) -> SavedRig:
    """The whole of it."""
    result: dict[HolderKind, dict[str, Any]] = {"rig": {}, "venue": {}}
    positions: dict[CollectionName, dict[str, float]] = {}
    for collection in REGISTRY:
        things = read_things(session, collection.name, holders.ids[collection.holder])
        result[collection.holder][collection.name] = tuple(thing for thing, _ in things)
        positions[collection.name] = {thing.id: position for thing, position in things}
    for kind, table in HOLDER_TABLES.items():
        row = session.get_one(table, holders.ids[kind])
        result[kind] |= {name: getattr(row, name) for name in own_fields(kind)}
    result["rig"]["assumptions"] = complete(result["rig"]["assumptions"])
    venue = Venue.model_validate(result["venue"])
    rig = Rig.model_validate({"id": holders.ids["rig"], **result["rig"], "venue": venue})
    return SavedRig(rig, holders, Positions(positions))


def create_rig(session: Session, rig: Rig) -> SavedRig:
    """A new rig with a venue of its own. The rig is embedded and checked; its id is free."""
    ids: dict[HolderKind, str] = {"rig": rig.id, "venue": f"venue-of-{rig.id}"}
    session.add_all([HolderRow(id=id_, kind=kind) for kind, id_ in ids.items()])
    session.flush()
    session.add(VenueRow(id=ids["venue"], **_own_columns(rig, "venue")))
    session.flush()
    session.add(RigRow(id=rig.id, venue_id=ids["venue"], **_own_columns(rig, "rig")))
    session.flush()
    positions = Positions.of(rig)
    for collection in REGISTRY:
        things = [(thing, positions.at(collection.name, thing.id)) for thing in collection.things(rig)]
        write_things(session, collection.name, ids[collection.holder], things)
    return SavedRig(rig, _holders(session, ids), positions)


def save_touched(session: Session, before: SavedRig, after: Rig, touched: Iterable[Touched]) -> SavedRig:
    """Writes what an edit touched and nothing else; the versions of the holders it touched go up by one."""
    by_kind: dict[CollectionName, set[str]] = {}
    fields: dict[HolderKind, set[str]] = {}
    for touch in touched:
        if is_collection(touch.kind):
            by_kind.setdefault(touch.kind, set()).add(touch.id or "")
        else:
            fields.setdefault(touch.kind, set()).add(touch.field or "")
    positions = before.positions
    gone: list[tuple[CollectionName, set[str]]] = []
    for collection in (collection for collection in REGISTRY if collection.name in by_kind):
        name, ids = collection.name, by_kind[collection.name]
        things = {thing.id: thing for thing in collection.things(after)}
        positions, moved = positions.follow(name, tuple(things))
        written = (ids | moved) & things.keys()
        rows = [(things[id_], positions.at(name, id_)) for id_ in things if id_ in written]
        write_things(session, name, before.holders.ids[collection.holder], rows)
        gone.append((name, ids - things.keys()))
    for name, ids in reversed(gone):
        remove_things(session, name, before.holders.ids[COLLECTIONS[name].holder], ids)
    for kind, names in fields.items():
        columns = _own_columns(after, kind, names)
        table = HOLDER_TABLES[kind]
        session.execute(update(table).where(table.id == before.holders.ids[kind]).values(**columns))
    changed = {COLLECTIONS[name].holder for name in by_kind} | fields.keys()
    return SavedRig(after, _count(session, before.holders, changed), positions)


def delete_rig(session: Session, holders: Holders) -> None:
    """The rig with everything in it, its history included, and its venue."""
    for id_ in (holders.ids["rig"], holders.ids["venue"]):
        session.execute(delete(HolderRow).where(HolderRow.id == id_))


def _count(session: Session, before: Holders, changed: Iterable[HolderKind]) -> Holders:
    versions = dict(before.versions)
    saved_at = before.saved_at
    for kind in changed:
        versions[kind] += 1
        query = update(HolderRow).where(HolderRow.id == before.ids[kind])
        values = query.values(version=versions[kind], saved_at=func.now()).returning(HolderRow.saved_at)
        saved_at = session.execute(values).scalar_one()
    return Holders(before.ids, versions, before.born, saved_at)


def _own_columns(rig: Rig, kind: HolderKind, names: Iterable[str] | None = None) -> dict[str, Any]:
    """Fields of a holder as columns of its row: records within are kept as JSON."""
    wanted = set(own_fields(kind) if names is None else names)
    document = holder_record(rig, kind).model_dump(mode="json", include=wanted)
    return {name: document[name] for name in wanted}


def renew_holders(session: Session) -> None:
    """Every holder as if it had just been made: what processes keep of earlier ones by these names is another's."""
    session.execute(update(HolderRow).values(born=func.clock_timestamp()))
