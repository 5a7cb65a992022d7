"""Rigs as documents: list, open, import, copy, delete, export, and who did what."""

from typing import Any, Literal

from sqlalchemy import ColumnElement, ScalarSelect, func, select, update
from sqlalchemy.orm import Session, aliased, sessionmaker

from ruvak.core.house import Shelf
from ruvak.core.prepare import prepare
from ruvak.core.rig.ids import free_id
from ruvak.core.rig.rig import Rig
from ruvak.service.kept import KeptRigs
from ruvak.service.problems import NotFound
from ruvak.service.states import HistoryLine, Person, RigState, RigSummary, RigVersion
from ruvak.service.takings import take_what_is_drawn
from ruvak.service.versions import version_of
from ruvak.store import history
from ruvak.store.house import CupboardRow
from ruvak.store.rigs import SavedRig, create_rig, delete_rig, read_holders
from ruvak.store.tables import EditRow, GearRow, HolderRow, KitRow, RigRow, RunRow, ThingRow, VenueRow


class Rigs:
    """The use cases over one database and the rigs kept in this process."""

    def __init__(self, sessions: sessionmaker[Session], kept: KeptRigs) -> None:
        self._sessions, self._kept = sessions, kept

    def list_all(self, only: str | None = None) -> list[RigSummary]:
        """All rigs, or only the one with that id; the last saved first."""
        own, of_venue = aliased(HolderRow), aliased(HolderRow)
        last = history.last_of_each()
        query = (
            select(
                RigRow,
                VenueRow.name,
                own,
                of_venue.version,
                _count(RunRow),
                _count(GearRow),
                _count(KitRow, KitRow.owned.is_(False)),
                last,
            )
            .join(VenueRow, VenueRow.id == RigRow.venue_id)
            .join(own, own.id == RigRow.id)
            .join(of_venue, of_venue.id == RigRow.venue_id)
            .outerjoin(last, last.rig_id == RigRow.id)
            .order_by(own.saved_at.desc(), RigRow.id)
        )
        if only is not None:
            query = query.where(RigRow.id == only)
        with self._sessions() as session:
            return [
                RigSummary(
                    id=row.id,
                    name=row.name,
                    occasion=row.occasion,
                    venue=venue,
                    version=f"{holder.version}.{venue_version}",
                    saved_at=holder.saved_at,
                    runs=runs,
                    devices=devices,
                    to_get=to_get,
                    shelf=row.shelf,
                    date=row.occasion_id,
                    last_change=done.label if done is not None else None,
                    changed_by=done.person_name if done is not None else None,
                )
                for row, venue, holder, venue_version, runs, devices, to_get, done in session.execute(query)
            ]

    def open(self, rig_id: str, person: Person) -> RigState:
        """A rig as it stands. Raises NotFound."""
        with self._sessions() as session:
            return self._state(session, self._kept.current(session, rig_id), person)

    def version(self, rig_id: str) -> RigVersion:
        """Where a rig stands. Raises NotFound."""
        with self._sessions() as session:
            holders = read_holders(session, rig_id)
        if holders is None:
            raise NotFound(f"There is no rig '{rig_id}' here.")
        return RigVersion(version=version_of(holders), saved_at=holders.saved_at)

    def export(self, rig_id: str) -> Rig:
        """The rig's record alone. Raises NotFound."""
        with self._sessions() as session:
            return self._kept.current(session, rig_id).rig

    def import_rig(self, rig: Rig, person: Person) -> RigState:
        """A new rig; one whose id is taken gets the next free number behind it. Raises RigFault."""
        with self._sessions.begin() as session:
            return self.import_into(session, prepare(rig), person)

    def import_into(self, session: Session, rig: Rig, person: Person) -> RigState:
        """The same for a prepared rig, in the caller's transaction."""
        return self._create(session, _of_this_house(session, rig), person)

    def copy(self, rig_id: str, name: str, occasion: str, person: Person) -> RigState:
        """Everything of a rig but its history, for another occasion. Raises NotFound."""
        with self._sessions.begin() as session:
            rig = self._kept.current(session, rig_id).rig
            state = self._create(session, rig.with_fields(name=name, occasion=occasion), person)
            venue = select(RigRow.house_venue_id).where(RigRow.id == rig_id).scalar_subquery()
            session.execute(
                update(RigRow).where(RigRow.id == state.rig.id).values(house_venue_id=venue, copied_from=rig_id)
            )
            return state

    def shelve(self, rig_id: str, shelf: Shelf) -> None:
        """Among the plans, the templates or in the archive; only plans take things of the cupboard. Raises NotFound,
        AlreadyTaken."""
        with self._sessions.begin() as session:
            rig = self._kept.current(session, rig_id, lock=True).rig
            session.execute(update(RigRow).where(RigRow.id == rig_id).values(shelf=shelf))
            take_what_is_drawn(session, rig)

    def delete(self, rig_id: str) -> None:
        """The rig and its history are gone. Raises NotFound."""
        with self._sessions.begin() as session:
            delete_rig(session, self._kept.current(session, rig_id, lock=True).holders)

    def list_history(self, rig_id: str, person: Person, most: int = 100) -> list[HistoryLine]:
        """What was done, newest first. Raises NotFound."""
        self.version(rig_id)
        with self._sessions() as session:
            return [
                HistoryLine(
                    id=row.id,
                    kind=row.kind,
                    label=row.label,
                    person=row.person_name,
                    own=row.person == person.id,
                    made_at=row.made_at,
                    undone=row.undone,
                    runs=history.runs_touched(row),
                    as_built=as_built_of(row),
                )
                for row in history.latest(session, rig_id, most)
            ]

    def _create(self, session: Session, rig: Rig, person: Person) -> RigState:
        taken = set(session.scalars(select(HolderRow.id)))
        rig = rig.with_fields(id=free_id(rig.id, taken))
        return self._state(session, create_rig(session, rig), person)

    def _state(self, session: Session, saved: SavedRig, person: Person) -> RigState:
        undo = history.undoable(session, saved.rig.id, person.id)
        redo = history.redoable(session, saved.rig.id, person.id)
        return RigState(
            version=version_of(saved.holders),
            saved_at=saved.holders.saved_at,
            rig=saved.rig,
            undo_label=undo.label if undo else None,
            redo_label=redo.label if redo else None,
        )


def _of_this_house(session: Session, rig: Rig) -> Rig:
    """The rig having drawn nothing that this house's cupboard does not have."""
    drawn = {thing.drawn.item for thing in rig.owners_by_id.values() if thing.drawn is not None}
    if not drawn:
        return rig
    there = set(session.scalars(select(CupboardRow.id).where(CupboardRow.id.in_(drawn))))
    if drawn <= there:
        return rig
    own: dict[str, Any] = {"drawn": None}
    gear = tuple(
        each.model_copy(update=own) if each.drawn and each.drawn.item not in there else each for each in rig.gear
    )
    kit = tuple(
        each.model_copy(update=own) if each.drawn and each.drawn.item not in there else each for each in rig.kit
    )
    return rig.with_fields(gear=gear, kit=kit)


def as_built_of(row: EditRow) -> Literal["open", "kept", "restored"] | None:
    """As a value of its type; an edit that its maker undid is no longer open."""
    match row.as_built:
        case "open":
            return None if row.undone else "open"
        case "kept" | "restored" as state:
            return state
        case _:
            return None


def _count(table: type[ThingRow], *where: ColumnElement[bool]) -> ScalarSelect[int]:
    """How many things of a kind the rig of a row has."""
    return (
        select(func.count())
        .select_from(table)
        .where(table.holder_id == RigRow.id, *where)
        .correlate(RigRow)
        .scalar_subquery()
    )
