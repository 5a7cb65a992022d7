"""Occasions by date with their rigs and notes: made anew, made like another, moved; what of it each rig then has."""

import re
from collections.abc import Iterable
from datetime import datetime

from sqlalchemy import Select, delete, func, select, update
from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.cupboard.item import CupboardItem
from ruvak.core.cupboard.replace import replace_drawn
from ruvak.core.rig.ids import free_id, id_of
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.values import Record
from ruvak.service.edits import Edits
from ruvak.service.kept import KeptRigs
from ruvak.service.kept_cupboard import KeptCupboard
from ruvak.service.links import follow_occasion
from ruvak.service.problems import BadHours, NotFound
from ruvak.service.states import Person
from ruvak.service.takings import take_what_is_drawn, taken_by_others
from ruvak.service.tokens import new_id
from ruvak.store.house import NoteRow
from ruvak.store.rigs import create_rig
from ruvak.store.tables import HolderRow, OccasionRow, RigRow, RunRow, VenueRow

MOST_RIGS = 12
"""Rigs of one occasion: rooms of a building at one time."""


class OccasionRig(Record):
    """A rig of an occasion."""

    id: str
    """The rig."""
    name: str
    """What it is called."""
    venue: str
    """Where."""
    runs: int
    """How many runs it has."""


class OccasionNote(Record):
    """Something to remember."""

    id: str
    """The note."""
    words: str
    """What was noted."""
    item: str | None
    """The thing of the cupboard that it names."""
    person: str
    """Who noted it."""
    made_at: datetime
    """When."""
    done_by: str | None
    """Who has seen to it; null while it is open."""


class Occasion(Record):
    """A date with its hours, its rigs and its notes."""

    id: str
    """The occasion."""
    name: str
    """What it is."""
    starts_at: datetime
    """From when things are needed."""
    ends_at: datetime
    """Until when."""
    doors_at: datetime | None
    """When people are let in: everything has to be checked by then."""
    after: str | None
    """The occasion that it was made like."""
    rigs: tuple[OccasionRig, ...]
    """Its rigs, by name."""
    notes: tuple[OccasionNote, ...]
    """What was noted, the earliest first."""


class MadeAgain(Record):
    """An occasion made like another, and what is different about what its rigs have."""

    occasion: Occasion
    """The new one."""
    said: tuple[str, ...]
    """Things that are taken or out of order and were replaced, or have to be got: a sentence each."""


class Occasions:
    """The use cases over one database."""

    def __init__(self, sessions: sessionmaker[Session], kept: KeptRigs, edits: Edits) -> None:
        self._sessions, self._kept, self._edits = sessions, kept, edits
        self._cupboard = KeptCupboard()

    def list_all(self) -> list[Occasion]:
        """By date, the latest first."""
        with self._sessions() as session:
            return _read(session, select(OccasionRow.id))

    def add(self, name: str, starts_at: datetime, ends_at: datetime, rigs: Iterable[str] = ()) -> Occasion:
        """A new one with these rigs. Raises BadHours, NotFound, AlreadyTaken."""
        _check(starts_at, ends_at)
        with self._sessions.begin() as session:
            row = OccasionRow(id=new_id(), name=name, starts_at=starts_at, ends_at=ends_at)
            session.add(row)
            session.flush()
            for rig_id in sorted(set(rigs)):
                self._put(session, row.id, rig_id)
            return _occasion(session, row.id)

    def change(
        self, occasion_id: str, name: str, starts_at: datetime, ends_at: datetime, replace: bool, person: Person
    ) -> MadeAgain:
        """Another name or other hours. `replace`: what is taken then is replaced by others of the house, or has to be
        got; without, AlreadyTaken is raised and nothing changes. Raises NotFound, BadHours."""
        _check(starts_at, ends_at)
        with self._sessions.begin() as session:
            rigs = list(session.scalars(_rigs_of(occasion_id)))
            for rig_id in rigs:
                self._kept.current(session, rig_id, lock=True)
            _occasion_row(session, occasion_id)
            values = {"name": name, "starts_at": starts_at, "ends_at": ends_at}
            session.execute(update(OccasionRow).where(OccasionRow.id == occasion_id).values(**values))
            said: list[str] = []
            for rig_id in rigs:
                said += self._take(session, rig_id, replace, person)
            return MadeAgain(occasion=_occasion(session, occasion_id), said=tuple(said))

    def open_doors(self, occasion_id: str, doors_at: datetime | None) -> Occasion:
        """Says when people are let in; None where nobody knows yet. Raises NotFound."""
        with self._sessions.begin() as session:
            _occasion_row(session, occasion_id).doors_at = doors_at
            return _occasion(session, occasion_id)

    def remove(self, occasion_id: str) -> None:
        """The date and its notes are gone; its rigs stay, without a date. Raises NotFound."""
        with self._sessions.begin() as session:
            rigs = list(session.scalars(_rigs_of(occasion_id)))
            saved = [self._kept.current(session, rig_id, lock=True) for rig_id in rigs]
            _occasion_row(session, occasion_id)
            session.execute(update(RigRow).where(RigRow.id.in_(rigs)).values(occasion_id=None))
            for each in saved:
                _hold_hours(session, each.rig)
            session.execute(delete(OccasionRow).where(OccasionRow.id == occasion_id))

    def put_rig(self, occasion_id: str, rig_id: str, replace: bool, person: Person) -> MadeAgain:
        """A rig is for this occasion from now on. Raises NotFound, AlreadyTaken."""
        with self._sessions.begin() as session:
            self._kept.current(session, rig_id, lock=True)
            _occasion_row(session, occasion_id)
            self._belongs(session, occasion_id, rig_id)
            said = self._take(session, rig_id, replace, person)
            return MadeAgain(occasion=_occasion(session, occasion_id), said=tuple(said))

    def take_rig_out(self, occasion_id: str, rig_id: str) -> None:
        """A rig has no date any longer. Raises NotFound."""
        with self._sessions.begin() as session:
            rig = self._kept.current(session, rig_id, lock=True).rig
            query = update(RigRow).where(RigRow.id == rig_id, RigRow.occasion_id == occasion_id)
            session.execute(query.values(occasion_id=None))
            _hold_hours(session, rig)

    def make_again(
        self, occasion_id: str, name: str, starts_at: datetime, ends_at: datetime, person: Person
    ) -> MadeAgain:
        """Another occasion like this one: its rigs copied, with the same things where they are free and in order, and
        what is not done yet of what was noted. Raises NotFound, BadHours."""
        _check(starts_at, ends_at)
        with self._sessions.begin() as session:
            before = _occasion_row(session, occasion_id)
            doors_at = None if before.doors_at is None else before.doors_at + (starts_at - before.starts_at)
            new = OccasionRow(
                id=new_id(), name=name, starts_at=starts_at, ends_at=ends_at, doors_at=doors_at, after_id=occasion_id
            )
            session.add(new)
            session.flush()
            said: list[str] = []
            for rig_id in session.scalars(_rigs_of(occasion_id)):
                said += self._copy(session, rig_id, new, person)
            open_notes = select(NoteRow).where(NoteRow.occasion_id == occasion_id, NoteRow.done_by.is_(None))
            for note in session.scalars(open_notes.order_by(NoteRow.made_at)):
                session.add(
                    NoteRow(
                        id=new_id(),
                        occasion_id=new.id,
                        item_id=note.item_id,
                        words=note.words,
                        person_name=note.person_name,
                        made_at=note.made_at,
                    )
                )
            session.flush()
            return MadeAgain(occasion=_occasion(session, new.id), said=tuple(said))

    def note(self, occasion_id: str, words: str, person: Person) -> OccasionNote:
        """Notes something; a tag of the cupboard in it is recognised. Raises NotFound."""
        with self._sessions.begin() as session:
            _occasion_row(session, occasion_id)
            row = NoteRow(
                id=new_id(),
                occasion_id=occasion_id,
                item_id=_named_item(self._cupboard.items(session), words),
                words=words,
                person_name=person.name,
            )
            session.add(row)
            session.flush()
            session.refresh(row)
            return _note(row)

    def settle(self, note_id: str, done: bool, person: Person) -> None:
        """A note is seen to, or open again. Raises NotFound."""
        query = update(NoteRow).where(NoteRow.id == note_id).values(done_by=person.name if done else None)
        with self._sessions.begin() as session:
            if not session.execute(query.returning(NoteRow.id)).all():
                raise NotFound("This note is not there any longer.")

    def _put(self, session: Session, occasion_id: str, rig_id: str) -> None:
        saved = self._kept.current(session, rig_id, lock=True)
        self._belongs(session, occasion_id, rig_id)
        _hold_hours(session, saved.rig)

    def _belongs(self, session: Session, occasion_id: str, rig_id: str) -> None:
        there = session.scalar(select(func.count()).where(RigRow.occasion_id == occasion_id, RigRow.id != rig_id))
        if (there or 0) >= MOST_RIGS:
            raise BadHours(f"An occasion has at most {MOST_RIGS} rigs.")
        session.execute(update(RigRow).where(RigRow.id == rig_id).values(occasion_id=occasion_id, shelf="plans"))
        session.flush()

    def _take(self, session: Session, rig_id: str, replace: bool, person: Person) -> list[str]:
        """What the rig has drawn is taken for its hours; what is not to be had is replaced where that is asked for."""
        rig = self._kept.current(session, rig_id).rig
        if not replace:
            _hold_hours(session, rig)
            return []
        taken = taken_by_others(session, rig_id)
        edit, said = replace_drawn(rig, self._cupboard.items(session), taken)
        if edit is not None:
            self._edits.make_within(session, rig_id, edit, person)
            rig = self._kept.current(session, rig_id).rig
        _hold_hours(session, rig)
        return [f"{rig.name}: {sentence}" for sentence in said]

    def _copy(self, session: Session, rig_id: str, occasion: OccasionRow, person: Person) -> list[str]:
        saved = self._kept.current(session, rig_id)
        before = session.get_one(RigRow, rig_id)
        taken = set(session.scalars(select(HolderRow.id)))
        copy = saved.rig.with_fields(id=free_id(id_of(saved.rig.name, "rig"), taken), occasion=occasion.name[:600])
        create_rig(session, copy)
        values = {"occasion_id": occasion.id, "house_venue_id": before.house_venue_id, "copied_from": rig_id}
        session.execute(update(RigRow).where(RigRow.id == copy.id).values(**values))
        return self._take(session, copy.id, True, person)


def _hold_hours(session: Session, rig: Rig) -> None:
    """After a rig's date or its hours have changed: what it has drawn is taken for them, and links that end with its
    date follow. Raises AlreadyTaken."""
    take_what_is_drawn(session, rig)
    follow_occasion(session, rig.id)


def _read(session: Session, ids: Select[str] | list[str]) -> list[Occasion]:
    rows = session.scalars(
        select(OccasionRow).where(OccasionRow.id.in_(ids)).order_by(OccasionRow.starts_at.desc(), OccasionRow.id)
    ).all()
    names = [row.id for row in rows]
    rigs: dict[str, list[OccasionRig]] = {}
    runs = select(func.count()).where(RunRow.holder_id == RigRow.id).correlate(RigRow).scalar_subquery()
    query = select(RigRow, VenueRow.name, runs).join(VenueRow, VenueRow.id == RigRow.venue_id)
    for rig, venue, count in session.execute(
        query.where(RigRow.occasion_id.in_(names)).order_by(RigRow.name, RigRow.id)
    ):
        rigs.setdefault(str(rig.occasion_id), []).append(OccasionRig(id=rig.id, name=rig.name, venue=venue, runs=count))
    notes: dict[str, list[OccasionNote]] = {}
    of_these = select(NoteRow).where(NoteRow.occasion_id.in_(names)).order_by(NoteRow.made_at, NoteRow.id)
    for row in session.scalars(of_these):
        notes.setdefault(row.occasion_id, []).append(_note(row))
    return [
        Occasion(
            id=row.id,
            name=row.name,
            starts_at=row.starts_at,
            ends_at=row.ends_at,
            doors_at=row.doors_at,
            after=row.after_id,
            rigs=tuple(rigs.get(row.id, ())),
            notes=tuple(notes.get(row.id, ())),
        )
        for row in rows
    ]


def _occasion(session: Session, occasion_id: str) -> Occasion:
    session.flush()
    session.expire_all()
    (result,) = _read(session, [occasion_id])
    return result


def _occasion_row(session: Session, occasion_id: str) -> OccasionRow:
    row = session.get(OccasionRow, occasion_id, with_for_update=True)
    if row is None:
        raise NotFound("This occasion is not there any longer.")
    return row


def _rigs_of(occasion_id: str) -> Select[str]:
    return select(RigRow.id).where(RigRow.occasion_id == occasion_id).order_by(RigRow.id)


def _note(row: NoteRow) -> OccasionNote:
    return OccasionNote(
        id=row.id,
        words=row.words,
        item=row.item_id,
        person=row.person_name,
        made_at=row.made_at,
        done_by=row.done_by,
    )


def _named_item(items: Iterable[CupboardItem], words: str) -> str | None:
    """The thing whose tag or name stands in the words; the longest name counts."""
    text = words.lower()
    named = [
        item for item in items if item.count == 1 and re.search(rf"(?<!\w){re.escape(item.name.lower())}(?!\w)", text)
    ]
    return max(named, key=lambda item: len(item.name)).id if named else None


def _check(starts_at: datetime, ends_at: datetime) -> None:
    if ends_at <= starts_at:
        raise BadHours("An occasion ends after it has begun; look at the two times.")
    if (ends_at - starts_at).days > 31:
        raise BadHours("An occasion lasts a month at most; make several of a longer one.")
