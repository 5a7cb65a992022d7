"""Rows to records and back. A saved rig loads as exactly the record that was given."""

from collections.abc import Sequence
from typing import Any, TypeVar

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from ruvak.core.parts.reading import complete
from ruvak.core.rig.earth import Bond, EarthPoint
from ruvak.core.rig.part import Part
from ruvak.core.rig.rig import Alignment, Assumptions, Gear, Join, KitItem, Rig, Run, Venue
from ruvak.core.rig.values import Record
from ruvak.store.tables import (
    Base,
    BondRow,
    EarthRow,
    GearRow,
    JoinRow,
    KitRow,
    LegRow,
    PartRow,
    RigRow,
    RunRow,
    VenueRow,
)

Row = TypeVar("Row", PartRow, GearRow, KitRow, RunRow, EarthRow, BondRow)
Thing = Part | Gear | KitItem | Run | EarthPoint | Bond
ThingRow = PartRow | GearRow | KitRow | RunRow | EarthRow | BondRow

VENUE_COLUMNS = ("name", "mains_hz", "mains_v", "bar_at", "mains", "programme_db_spl", "noise_dba", "house")
GEAR_COLUMNS = ("id", "name", "settings", "outlet", "touch_a", "earth_open", "supply_fault_v", "at", "faders_db")
KIT_COLUMNS = ("id", "tag", "length_m", "owned", "installed", "beside", "loop_width_m")
EARTH_COLUMNS = ("id", "name", "kind", "parent", "ohm", "henry", "emf_v", "voltage", "at", "residual_a")
RUN_COLUMNS = ("id", "number", "name", "note", "route")
BOND_COLUMNS = ("id", "name", "kind", "ohm", "henry")
"""Fields that are columns of the same name; what is called otherwise in its table is added beside them."""


def load_rig(session: Session, row: RigRow) -> Rig:
    """The rig behind its row."""
    venue = session.get_one(VenueRow, row.venue_id)
    legs: dict[str, list[str]] = {}
    for leg in session.scalars(select(LegRow).where(LegRow.rig_id == row.id).order_by(LegRow.position)):
        legs.setdefault(leg.run_id, []).append(leg.item_id)
    joins: dict[str, list[Join]] = {}
    for join in session.scalars(select(JoinRow).where(JoinRow.rig_id == row.id).order_by(JoinRow.position)):
        joins.setdefault(join.run_id, []).append(
            Join.model_validate({"a": join.a_end, "b": join.b_end, "sleeve": join.sleeve})
        )
    return Rig(
        id=row.id,
        name=row.name,
        occasion=row.occasion,
        venue=Venue.model_validate(
            {
                **_document(venue, VENUE_COLUMNS),
                "earth": [_document(point, EARTH_COLUMNS) for point in _rows(session, EarthRow, row.id)],
            }
        ),
        length_unit="ft" if row.length_unit == "ft" else "m",
        alignment=Alignment.model_validate(row.alignment),
        assumptions=Assumptions.model_validate(complete(row.assumptions)),
        parts=tuple(Part.model_validate(part.body) for part in _rows(session, PartRow, row.id)),
        gear=tuple(
            Gear.model_validate({**_document(gear, GEAR_COLUMNS), "part": gear.part_id})
            for gear in _rows(session, GearRow, row.id)
        ),
        kit=tuple(
            KitItem.model_validate({**_document(item, KIT_COLUMNS), "part": item.part_id})
            for item in _rows(session, KitRow, row.id)
        ),
        runs=tuple(
            Run.model_validate(
                {**_document(run, RUN_COLUMNS), "legs": legs.get(run.id, ()), "joins": joins.get(run.id, ())}
            )
            for run in _rows(session, RunRow, row.id)
        ),
        bonds=tuple(
            Bond.model_validate({**_document(bond, BOND_COLUMNS), "a": bond.a_end, "b": bond.b_end})
            for bond in _rows(session, BondRow, row.id)
        ),
    )


def create_rig(session: Session, rig: Rig) -> RigRow:
    """A new rig with all its rows. The rig is embedded and checked; its id is free."""
    venue = VenueRow(id=f"venue-of-{rig.id}", **_columns(rig.venue, VENUE_COLUMNS))
    session.add(venue)
    session.flush()
    row = RigRow(id=rig.id, venue_id=venue.id, version=0, **_rig_columns(rig))
    session.add(row)
    session.flush()
    _save_things(session, None, rig)
    return row


def save_rig(session: Session, row: RigRow, before: Rig, after: Rig) -> None:
    """Writes what differs between the two records; rows that stay the same are not touched."""
    for column, value in _rig_columns(after).items():
        setattr(row, column, value)
    venue = session.get_one(VenueRow, row.venue_id)
    for column, value in _columns(after.venue, VENUE_COLUMNS).items():
        setattr(venue, column, value)
    _save_things(session, before, after)


def delete_rig(session: Session, row: RigRow) -> None:
    """The rig and all its rows, its history included."""
    venue_id = row.venue_id
    for table in (LegRow, JoinRow, RunRow, KitRow, GearRow, PartRow, EarthRow, BondRow):
        session.execute(delete(table).where(table.rig_id == row.id))
    session.delete(row)
    session.flush()
    session.execute(delete(VenueRow).where(VenueRow.id == venue_id))


def _rig_columns(rig: Rig) -> dict[str, object]:
    return {
        "name": rig.name,
        "occasion": rig.occasion,
        "length_unit": rig.length_unit,
        "alignment": rig.alignment.model_dump(mode="json"),
        "assumptions": rig.assumptions.model_dump(mode="json") if rig.assumptions else {},
    }


def _rows(session: Session, table: type[Row], rig_id: str) -> Sequence[Row]:
    return session.scalars(select(table).where(table.rig_id == rig_id).order_by(table.position)).all()


def _save_things(session: Session, before: Rig | None, after: Rig) -> None:
    """Parts and kit first, since others refer to them; what is gone leaves in the opposite order."""
    runs_changed = before is None or before.runs != after.runs
    if runs_changed:
        session.execute(delete(LegRow).where(LegRow.rig_id == after.id))
        session.execute(delete(JoinRow).where(JoinRow.rig_id == after.id))
    for old, new, _ in _pairs(before, after):
        if old != new:
            _write(session, after.id, old, new)
            session.flush()
    # Only now: what stays may have pointed at what goes until it was written.
    for old, new, table in reversed(_pairs(before, after)):
        gone = {thing.id for thing in old} - {thing.id for thing in new}
        if gone:
            session.execute(delete(table).where(table.rig_id == after.id, table.id.in_(gone)))
    if runs_changed:
        session.add_all(_run_rows(after))
    session.flush()


def _pairs(before: Rig | None, after: Rig) -> list[tuple[Sequence[Thing], Sequence[Thing], type[ThingRow]]]:
    return [
        (before.parts if before else (), after.parts, PartRow),
        (before.gear if before else (), after.gear, GearRow),
        (before.kit if before else (), after.kit, KitRow),
        (before.runs if before else (), after.runs, RunRow),
        (before.venue.earth if before else (), after.venue.earth, EarthRow),
        (before.bonds if before else (), after.bonds, BondRow),
    ]


def _write(session: Session, rig_id: str, old: Sequence[Thing], new: Sequence[Thing]) -> None:
    known = {thing.id: (position, thing) for position, thing in enumerate(old)}
    for position, thing in enumerate(new):
        if known.get(thing.id) != (position, thing):
            session.merge(_row(rig_id, position, thing))


def _row(rig_id: str, position: int, thing: Thing) -> Base:
    place: dict[str, Any] = {"rig_id": rig_id, "position": position}
    match thing:
        case Part():
            return PartRow(**place, id=thing.id, revision=thing.revision, body=thing.model_dump(mode="json"))
        case Gear():
            return GearRow(**place, **_columns(thing, GEAR_COLUMNS), part_id=thing.part)
        case KitItem():
            return KitRow(**place, **_columns(thing, KIT_COLUMNS), part_id=thing.part)
        case EarthPoint():
            return EarthRow(**place, **_columns(thing, EARTH_COLUMNS))
        case Bond():
            return BondRow(**place, **_columns(thing, BOND_COLUMNS), a_end=str(thing.a), b_end=str(thing.b))
        case Run():
            return RunRow(**place, **_columns(thing, RUN_COLUMNS))


def _columns(record: Record, names: tuple[str, ...]) -> dict[str, Any]:
    """These fields of a record as columns of its row: records within are kept as JSON."""
    document = record.model_dump(mode="json", include=set(names))
    return {name: document[name] for name in names}


def _document(row: Base, names: tuple[str, ...]) -> dict[str, Any]:
    return {name: getattr(row, name) for name in names}


def _run_rows(rig: Rig) -> list[Base]:
    rows: list[Base] = []
    for run in rig.runs:
        rows += [
            LegRow(rig_id=rig.id, run_id=run.id, position=position, item_id=leg)
            for position, leg in enumerate(run.legs)
        ]
        rows += [
            JoinRow(
                rig_id=rig.id,
                run_id=run.id,
                position=position,
                a_end=str(join.a),
                b_end=str(join.b),
                sleeve=join.sleeve,
            )
            for position, join in enumerate(run.joins)
        ]
    return rows
