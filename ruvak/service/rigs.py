"""Rigs: list, open, edit, undo, redo, preview, remedies, import, export."""

from sqlalchemy import func, select
from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.analyse import analyse, prepare
from ruvak.core.remedies.remedy import Remedy
from ruvak.core.remedies.search import first_remedy, remedies_for
from ruvak.core.rig.edits import Edit, apply, inverse
from ruvak.core.rig.rig import Rig
from ruvak.service.problems import Conflict, NotFound, NothingToUndo
from ruvak.service.solved import Solved, Version
from ruvak.service.states import HistoryLine, Person, Preview, RigState, RigSummary
from ruvak.store import history
from ruvak.store.rigs import create_rig, delete_rig, load_rig, save_rig
from ruvak.store.tables import EditRow, RigRow, VenueRow


class Rigs:
    """The use cases over one database."""

    def __init__(self, sessions: sessionmaker[Session], solved: Solved | None = None) -> None:
        self._sessions, self._solved = sessions, solved or Solved()

    def listed(self) -> list[RigSummary]:
        """All rigs, the last saved first."""
        with self._sessions() as session:
            query = select(RigRow, VenueRow.name).join(VenueRow, VenueRow.id == RigRow.venue_id)
            return [
                RigSummary(
                    id=row.id,
                    name=row.name,
                    occasion=row.occasion,
                    venue=venue,
                    version=row.version,
                    saved_at=row.saved_at,
                )
                for row, venue in session.execute(query.order_by(RigRow.saved_at.desc(), RigRow.id))
            ]

    def opened(self, rig_id: str, person: Person) -> RigState:
        """A rig as it stands. Raises NotFound."""
        with self._sessions() as session:
            row = rig_row(session, rig_id)
            return self._state(session, row, load_rig(session, row), person)

    def exported(self, rig_id: str) -> Rig:
        """The rig's record alone. Raises NotFound."""
        with self._sessions() as session:
            return load_rig(session, rig_row(session, rig_id))

    def imported(self, rig: Rig, person: Person) -> RigState:
        """A new rig; one whose id is taken gets the next free number behind it. Raises RigFault."""
        rig = prepare(rig)
        with self._sessions.begin() as session:
            return self._created(session, rig, person)

    def copied(self, rig_id: str, name: str, occasion: str, person: Person) -> RigState:
        """Everything of a rig but its history, for another occasion. Raises NotFound."""
        with self._sessions.begin() as session:
            rig = load_rig(session, rig_row(session, rig_id))
            return self._created(session, rig.replaced(name=name, occasion=occasion), person)

    def _created(self, session: Session, rig: Rig, person: Person) -> RigState:
        taken = set(session.scalars(select(RigRow.id)))
        if rig.id in taken:
            free = next(f"{rig.id[:58]}-{n}" for n in range(2, 10_000) if f"{rig.id[:58]}-{n}" not in taken)
            rig = rig.replaced(id=free)
        row = create_rig(session, rig)
        return self._state(session, row, rig, person)

    def deleted(self, rig_id: str) -> None:
        """The rig and its history are gone. Raises NotFound."""
        with self._sessions.begin() as session:
            delete_rig(session, rig_row(session, rig_id, lock=True))

    def edited(self, rig_id: str, base_version: int, edit: Edit, person: Person) -> RigState:
        """Applies and saves. Raises NotFound, Conflict, BadEdit, RigFault; then nothing has changed."""
        with self._sessions.begin() as session:
            row = rig_row(session, rig_id, lock=True)
            if row.version != base_version:
                raise Conflict(
                    "Somebody saved this rig meanwhile, so your change was not applied. Look at theirs, then decide.",
                    row.version,
                )
            before = load_rig(session, row)
            after = apply(before, edit)
            # Replaying must not put back a part that a later edit changed, hence the inverse is stored, not derived.
            history.record(session, rig_id, row.version, (person.id, person.name), "edit", edit, inverse(before, edit))
            return self._saved(session, row, before, after, person)

    def undone(self, rig_id: str, person: Person) -> RigState:
        """Takes back this person's latest edit. Raises NothingToUndo, or Conflict when others built on it."""
        with self._sessions.begin() as session:
            row = rig_row(session, rig_id, lock=True)
            done = history.undoable(session, rig_id, person.id)
            if done is None:
                raise NothingToUndo("There is nothing of yours to undo in this rig.")
            return self._reversed(session, row, done, "undo", person)

    def redone(self, rig_id: str, person: Person) -> RigState:
        """Does again what this person undid last. Raises NothingToUndo or Conflict."""
        with self._sessions.begin() as session:
            row = rig_row(session, rig_id, lock=True)
            done = history.redoable(session, rig_id, person.id)
            if done is None:
                raise NothingToUndo("There is nothing of yours to redo in this rig.")
            return self._reversed(session, row, done, "redo", person)

    def previewed(self, rig_id: str, edit: Edit) -> Preview:
        """What an edit would do. Raises NotFound, BadEdit, RigFault."""
        return Preview(edit=edit, analysis=analyse(apply(self.exported(rig_id), edit), self._solved.memory))

    def remedies(self, rig_id: str, run_id: str, first: bool) -> tuple[Remedy, ...]:
        """Solved remedies of one run; `first`: only the one found soonest. Raises NotFound."""
        with self._sessions() as session:
            row = rig_row(session, rig_id)
            rig, version = load_rig(session, row), version_of(row)
        before = self._solved.of(version, rig)
        try:
            if not first:
                return remedies_for(rig, run_id, before, self._solved.memory)
            found = first_remedy(rig, run_id, before, self._solved.memory)
            return (found,) if found is not None else ()
        except KeyError as missing:
            raise NotFound(f"There is no run '{run_id}' in this rig.") from missing

    def history(self, rig_id: str, person: Person, most: int = 100) -> list[HistoryLine]:
        """What was done, newest first. Raises NotFound."""
        with self._sessions() as session:
            rig_row(session, rig_id)
            return [
                HistoryLine(
                    id=row.id,
                    kind=row.kind,
                    label=row.label,
                    person=row.person_name,
                    mine=row.person == person.id,
                    base_version=row.base_version,
                    made_at=row.made_at,
                    undone=row.undone,
                )
                for row in history.listed(session, rig_id, most)
            ]

    def _saved(self, session: Session, row: RigRow, before: Rig, after: Rig, person: Person) -> RigState:
        save_rig(session, row, before, after)
        row.version += 1
        row.saved_at = session.scalars(select(func.now())).one()
        session.flush()
        return self._state(session, row, after, person)

    def _reversed(self, session: Session, row: RigRow, done: EditRow, kind: str, person: Person) -> RigState:
        """Undo and redo: the stored edit one way or the other, only if nobody touched the same things since."""
        forward, backward = Edit.model_validate(done.forward), Edit.model_validate(done.inverse)
        if kind == "redo":
            forward, backward = backward, forward
        before = load_rig(session, row)
        after = apply(before, backward)
        if apply(after, forward) != before:
            raise Conflict(f"Others have since changed what “{done.label}” touched; undo theirs first.", row.version)
        done.undone = kind == "undo"
        history.record(session, row.id, row.version, (person.id, person.name), kind, backward, forward, of_edit=done.id)
        return self._saved(session, row, before, after, person)

    def _state(self, session: Session, row: RigRow, rig: Rig, person: Person) -> RigState:
        undo = history.undoable(session, row.id, person.id)
        redo = history.redoable(session, row.id, person.id)
        return RigState(
            version=row.version,
            saved_at=row.saved_at,
            rig=rig,
            analysis=self._solved.of(version_of(row), rig),
            undo_label=undo.label if undo else None,
            redo_label=redo.label if redo else None,
        )


def rig_row(session: Session, rig_id: str, lock: bool = False) -> RigRow:
    """The rig's row, locked for a change if asked. Raises NotFound."""
    row = session.get(RigRow, rig_id, with_for_update=lock)
    if row is None:
        raise NotFound(f"There is no rig '{rig_id}' here.")
    return row


def version_of(row: RigRow) -> Version:
    """Which saved version of which rig this row is."""
    return row.id, row.version, row.saved_at
