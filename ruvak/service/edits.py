"""Changing a rig: edit, undo, redo. The transaction holds no computation; only the same field is a conflict."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.cupboard.draw import drawn_by
from ruvak.core.errors import RigFault
from ruvak.core.rig.as_built import is_as_built
from ruvak.core.rig.collections import COLLECTIONS, HolderKind, holder_record, is_collection, own_fields
from ruvak.core.rig.edits import Applied, Edit, Touched, apply_edit, touched_by, value_at
from ruvak.core.rig.rig import Rig
from ruvak.service.access import NotAllowed
from ruvak.service.kept import KeptRigs
from ruvak.service.problems import Conflict, Meeting, NotFound, NothingToUndo
from ruvak.service.states import Changed, EditOutcome, Person
from ruvak.service.takings import take_what_is_drawn
from ruvak.service.versions import Version, version_of, versions_from
from ruvak.store import history
from ruvak.store.history import Author
from ruvak.store.rigs import SavedRig, save_touched
from ruvak.store.tables import EditRow

_ONLY_WORK = (
    "A helper records what was really done: leads swapped, sockets moved, switches set. "
    "Ask a technician for other changes."
)


@dataclass(frozen=True)
class _Made:
    """An edit within its transaction."""

    before: SavedRig
    after: SavedRig
    touched: tuple[Touched, ...]


class Edits:
    """The use cases over one database and the rigs kept in this process."""

    def __init__(self, sessions: sessionmaker[Session], kept: KeptRigs) -> None:
        self._sessions, self._kept = sessions, kept

    def make(
        self, rig_id: str, base: Version, edit: Edit, person: Person, uid: str | None = None, as_built: bool = False
    ) -> EditOutcome:
        """Applies and saves an edit that was made on version `base`.

        What others changed since stays, unless it is the same field of the same thing. `uid`: the client's name for
        the edit; sent again, it is answered as the first time. `as_built`: by somebody who does not plan but records
        what was really done. Raises NotFound, Conflict, BadEdit, RigFault, and NotAllowed for a record of work that
        changes the plan; then nothing has changed.
        """
        versions = versions_from(base)
        with self._sessions.begin() as session:
            before = self._kept.current(session, rig_id, lock=True)
            if (known := _sent_before(session, before, uid)) is not None:
                return self._outcome(session, known, person)
            if as_built and not is_as_built(before.rig, edit):
                raise NotAllowed(_ONLY_WORK)
            if versions != before.holders.versions:
                self._refuse_meetings(session, before, versions, edit, person)
            try:
                applied = apply_edit(before.rig, edit)
            except RigFault as fault:
                if versions == before.holders.versions:
                    raise
                sentence = f"Others have changed this rig since, and your change no longer fits: {fault}"
                raise Conflict(sentence, version_of(before.holders)) from fault
            made = self._save(session, before, applied)
            author = Author(person.id, person.name)
            row = history.record(
                session, made.after.holders, author, "edit", edit, applied.inverse, applied.touched, uid=uid
            )
            row.as_built = "open" if as_built else None
            outcome = self._outcome(session, made, person)
        self._kept.keep(made.after)
        return outcome

    def make_within(self, session: Session, rig_id: str, edit: Edit, person: Person) -> EditOutcome:
        """An edit as a part of a greater transaction, on the rig as it stands. Raises NotFound, BadEdit, RigFault,
        AlreadyTaken."""
        before = self._kept.current(session, rig_id, lock=True)
        applied = apply_edit(before.rig, edit)
        made = self._save(session, before, applied)
        author = Author(person.id, person.name)
        history.record(session, made.after.holders, author, "edit", edit, applied.inverse, applied.touched)
        return self._outcome(session, made, person)

    def undo(self, rig_id: str, person: Person, uid: str | None = None) -> EditOutcome:
        """Takes back this person's latest edit. Raises NotFound, NothingToUndo; Conflict where others built on it."""
        return self._again(rig_id, "undo", person, uid)

    def redo(self, rig_id: str, person: Person, uid: str | None = None) -> EditOutcome:
        """Does again what this person undid last. Raises NotFound, NothingToUndo or Conflict."""
        return self._again(rig_id, "redo", person, uid)

    def _again(self, rig_id: str, kind: str, person: Person, uid: str | None) -> EditOutcome:
        """The stored edit one way or the other, only if nobody touched the same since."""
        with self._sessions.begin() as session:
            before = self._kept.current(session, rig_id, lock=True)
            if (known := _sent_before(session, before, uid)) is not None:
                return self._outcome(session, known, person)
            done = (history.undoable if kind == "undo" else history.redoable)(session, rig_id, person.id)
            if done is None:
                raise NothingToUndo(f"There is nothing of yours to {kind} in this rig.")
            made = self._turn(session, before, done, kind, person, uid)
            outcome = self._outcome(session, made, person)
        self._kept.keep(made.after)
        return outcome

    def _turn(
        self, session: Session, before: SavedRig, done: EditRow, kind: str, person: Person, uid: str | None
    ) -> _Made:
        """A stored edit undone or redone, and that in the history."""
        made, forward, backward = self._repeat(session, before, done, kind)
        done.undone = kind == "undo"
        author = Author(person.id, person.name)
        history.record(
            session, made.after.holders, author, kind, forward, backward, made.touched, of_edit=done.id, uid=uid
        )
        return made

    def keep_as_built(self, rig_id: str, edit_id: int) -> None:
        """What was recorded as built is the plan from now on. Raises NotFound where it is not open any longer."""
        with self._sessions.begin() as session:
            _open_as_built(session, rig_id, edit_id).as_built = "kept"

    def restore_plan(self, rig_id: str, edit_id: int, person: Person) -> EditOutcome:
        """Takes back what somebody recorded as built. Raises NotFound; Conflict where others built on it."""
        with self._sessions.begin() as session:
            before = self._kept.current(session, rig_id, lock=True)
            done = _open_as_built(session, rig_id, edit_id)
            made = self._turn(session, before, done, "undo", person, None)
            done.as_built = "restored"
            outcome = self._outcome(session, made, person)
        self._kept.keep(made.after)
        return outcome

    def _repeat(self, session: Session, before: SavedRig, done: EditRow, kind: str) -> tuple[_Made, Edit, Edit]:
        forward, backward = Edit.model_validate(done.inverse), Edit.model_validate(done.forward)
        if kind == "redo":
            forward, backward = backward, forward
        touched = tuple(dict.fromkeys(touched_by(op) for op in forward.ops))
        since = history.standing_on(session, before.holders, done, touched)
        words = f"Others have since changed what “{done.label}” touched"
        if since is not None:
            sentence = f"{words} (“{since.label}”, {since.person_name}); undo that first."
            raise Conflict(sentence, version_of(before.holders))
        try:
            applied = apply_edit(before.rig, forward)
        except RigFault as fault:
            raise Conflict(f"{words}: {fault}", version_of(before.holders)) from fault
        return self._save(session, before, applied), forward, backward

    def _save(self, session: Session, before: SavedRig, applied: Applied) -> _Made:
        after = save_touched(session, before, applied.rig, applied.touched)
        owned = any(touch.kind in ("kit", "gear") for touch in applied.touched)
        if owned and drawn_by(before.rig).keys() != drawn_by(after.rig).keys():
            take_what_is_drawn(session, after.rig)
        return _Made(before, after, applied.touched)

    def _refuse_meetings(
        self, session: Session, before: SavedRig, versions: Mapping[HolderKind, int], edit: Edit, person: Person
    ) -> None:
        """Raises Conflict where somebody has changed the same to something else since."""
        meetings: list[Meeting] = []
        wanted: Rig | None = None
        for touched in dict.fromkeys(touched_by(op) for op in edit.ops):
            row = history.meeting_since(session, before.holders, versions, touched, person.id)
            if row is None:
                continue
            wanted = wanted or apply_edit(before.rig, edit).rig
            yours, other = value_at(wanted, touched), value_at(before.rig, touched)
            if yours != other:
                meetings.append(Meeting(touched, yours, other, row.person_name, row.label))
        if meetings:
            who = " and ".join(dict.fromkeys(entry.by for entry in meetings))
            what = " and ".join(dict.fromkeys(f"“{entry.label}”" for entry in meetings))
            sentence = f"{who} changed the same meanwhile ({what}), so yours was not saved. Choose which is to stand."
            raise Conflict(sentence, version_of(before.holders), tuple(meetings))

    def _outcome(self, session: Session, made: _Made, person: Person) -> EditOutcome:
        rig_id = made.after.holders.ids["rig"]
        undo = history.undoable(session, rig_id, person.id)
        redo = history.redoable(session, rig_id, person.id)
        return EditOutcome(
            base=version_of(made.before.holders),
            version=version_of(made.after.holders),
            saved_at=made.after.holders.saved_at,
            changed=tuple(_changed_things(made.after.rig, made.touched)),
            undo_label=undo.label if undo else None,
            redo_label=redo.label if redo else None,
        )


def _open_as_built(session: Session, rig_id: str, edit_id: int) -> EditRow:
    """What was recorded as built and neither kept nor taken back. Raises NotFound."""
    row = session.get(EditRow, edit_id, with_for_update=True)
    if row is None or row.rig_id != rig_id or row.as_built != "open" or row.undone:
        raise NotFound("This was kept or taken back already.")
    return row


def _sent_before(session: Session, before: SavedRig, uid: str | None) -> _Made | None:
    """An edit by the client's name for it: made already, it changes nothing now. None where it is new."""
    known = history.by_uid(session, uid) if uid is not None else None
    if known is None:
        return None
    return _Made(before, before, tuple(touched_by(op) for op in Edit.model_validate(known.forward).ops))


def _changed_things(rig: Rig, touched: tuple[Touched, ...]) -> Iterator[Changed]:
    """Each touched thing once, whole."""
    places: dict[str, dict[str, int]] = {}
    for kind, id_ in dict.fromkeys((touch.kind, touch.id) for touch in touched):
        if is_collection(kind):
            things = COLLECTIONS[kind].things(rig)
            if kind not in places:
                places[kind] = {thing.id: place for place, thing in enumerate(things)}
            at = places[kind].get(id_ or "")
            thing = things[at].model_dump(mode="json") if at is not None else None
            yield Changed(kind=kind, id=id_, thing=thing, at=at)
        else:
            own = holder_record(rig, kind).model_dump(mode="json", include=set(own_fields(kind)))
            yield Changed(kind=kind, id=None, thing=own, at=None)
