"""A whole house out and in again: everything but secrets and the history of its rigs."""

from collections.abc import Iterator
from datetime import UTC, datetime

from sqlalchemy import func, select, update
from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.cupboard.item import CupboardDocument
from ruvak.core.house import (
    HouseDocument,
    HouseIndex,
    HouseNote,
    HouseOccasion,
    HousePerson,
    HouseRevision,
    HouseRig,
    HouseVenue,
)
from ruvak.core.log.entry import Entry
from ruvak.core.prepare import prepare
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.values import Record
from ruvak.core.venue.document import VenueDocument
from ruvak.service.cupboard import Cupboard
from ruvak.service.kept import KeptRigs
from ruvak.service.people import People
from ruvak.service.rigs import Rigs
from ruvak.service.states import Person
from ruvak.service.takings import AlreadyTaken, take_what_is_drawn
from ruvak.service.tokens import new_id
from ruvak.store import log
from ruvak.store.house import CupboardRow, NoteRow
from ruvak.store.people import PersonRow
from ruvak.store.tables import HouseVenueRow, OccasionRow, RigRow, VenueRevisionRow


class Imported(Record):
    """What an import added; what the house had already was left as it is."""

    people: int
    """Accounts, without passphrases: an owner gives each a link."""
    venues: int
    """Venues."""
    things: int
    """Things of the cupboard."""
    occasions: int
    """Dates."""
    rigs: int
    """Rigs."""
    said: tuple[str, ...]
    """What could not be as it was: a sentence each."""


class House:
    """The use cases over one database."""

    def __init__(
        self, sessions: sessionmaker[Session], kept: KeptRigs, people: People, cupboard: Cupboard, rigs: Rigs
    ) -> None:
        self._sessions, self._kept = sessions, kept
        self._people, self._cupboard, self._rigs = people, cupboard, rigs

    def export(self) -> HouseDocument:
        """Everything, as it stands now."""
        with self._sessions() as session:
            rows = session.scalars(select(RigRow).order_by(RigRow.id)).all()
            index = HouseIndex(
                exported_at=datetime.now(UTC),
                people=tuple(_people(session)),
                occasions=tuple(_occasions(session)),
                rigs=tuple(
                    HouseRig(id=row.id, shelf=row.shelf, occasion=row.occasion_id, venue=row.house_venue_id)
                    for row in rows
                ),
            )
            return HouseDocument(
                index=index,
                venues=tuple(_venues(session)),
                cupboard=self._cupboard.export().items,
                rigs=tuple(self._kept.current(session, row.id).rig for row in rows),
                log=(*log.of_rigs_in_order(session, [row.id for row in rows]), *log.of_things(session)),
            )

    def import_house(self, house: HouseDocument, person: Person) -> Imported:
        """Adds what this house does not have: people and venues by name, things by id or tag, dates and rigs by id.
        Raises RigFault before anything is added."""
        rigs = {rig.id: prepare(rig) for rig in house.rigs}
        things = self._cupboard.import_document(CupboardDocument(items=house.cupboard), person)
        added = sum(self._add_person(entry, person) for entry in house.index.people)
        with self._sessions.begin() as session:
            venues = [_add_venue(session, venue) for venue in house.venues]
            occasions = [_add_occasion(session, occasion) for occasion in house.index.occasions]
            new = [entry for entry in house.index.rigs if entry.id in rigs and session.get(RigRow, entry.id) is None]
        said: list[str] = []
        for entry in new:
            rig_id = self._rigs.import_rig(rigs[entry.id], person).rig.id
            said += self._place(rig_id, entry)
            self._add_log(rigs[entry.id], [logged for logged in house.log if logged.rig == entry.id])
        with self._sessions.begin() as session:
            of_things = [entry for entry in house.log if entry.rig is None]
            log.add(session, [log.row_of_thing(", ".join(e.thing_names), e, "", e.person) for e in of_things])
        return Imported(
            people=added, venues=sum(venues), things=things, occasions=sum(occasions), rigs=len(new), said=tuple(said)
        )

    def _add_person(self, entry: HousePerson, person: Person) -> bool:
        if any(known.name.lower() == entry.name.lower() for known in self._people.list_all()):
            return False
        self._people.add(entry.name, entry.role, person.name)
        return True

    def _add_log(self, rig: Rig, entries: list[Entry]) -> None:
        """What was logged about a rig, under the names that stand there."""
        with self._sessions.begin() as session:
            occasion = session.scalar(select(RigRow.occasion_id).where(RigRow.id == rig.id))
            log.add(session, [log.row_of_known(rig, occasion, entry) for entry in entries])

    def _place(self, rig_id: str, entry: HouseRig) -> Iterator[str]:
        """The rig on its shelf, at its date and in its venue; without the date where others have its things then."""
        with self._sessions.begin() as session:
            rig = self._kept.current(session, rig_id, lock=True).rig
            venue = entry.venue if entry.venue and session.get(HouseVenueRow, entry.venue) else None
            occasion = entry.occasion if entry.occasion and session.get(OccasionRow, entry.occasion) else None
            values = {"shelf": entry.shelf, "house_venue_id": venue, "occasion_id": occasion}
            session.execute(update(RigRow).where(RigRow.id == rig_id).values(**values))
            try:
                with session.begin_nested():
                    take_what_is_drawn(session, rig)
            except AlreadyTaken as problem:
                session.execute(update(RigRow).where(RigRow.id == rig_id).values(occasion_id=None))
                yield f"{rig.name} has no date: {problem}"


def _people(session: Session) -> Iterator[HousePerson]:
    for row in session.scalars(select(PersonRow).order_by(PersonRow.made_at, PersonRow.id)):
        yield HousePerson(name=row.name, role=row.role)


def _venues(session: Session) -> Iterator[HouseVenue]:
    for venue in session.scalars(select(HouseVenueRow).order_by(HouseVenueRow.name)):
        rows = session.scalars(
            select(VenueRevisionRow).where(VenueRevisionRow.venue_id == venue.id).order_by(VenueRevisionRow.number)
        )
        revisions = tuple(
            HouseRevision(
                number=row.number,
                words=row.words,
                made_by=row.made_by,
                made_at=row.made_at,
                document=VenueDocument.model_validate(row.document),
            )
            for row in rows
        )
        if revisions:
            yield HouseVenue(id=venue.id, name=venue.name, revisions=revisions)


def _occasions(session: Session) -> Iterator[HouseOccasion]:
    for row in session.scalars(select(OccasionRow).order_by(OccasionRow.starts_at, OccasionRow.id)):
        notes = session.scalars(select(NoteRow).where(NoteRow.occasion_id == row.id).order_by(NoteRow.made_at))
        yield HouseOccasion(
            id=row.id,
            name=row.name,
            starts_at=row.starts_at,
            ends_at=row.ends_at,
            after=row.after_id,
            notes=tuple(
                HouseNote(
                    words=note.words,
                    item=note.item_id,
                    person=note.person_name,
                    made_at=note.made_at,
                    done_by=note.done_by,
                )
                for note in notes
            ),
        )


def _add_venue(session: Session, venue: HouseVenue) -> bool:
    same = (HouseVenueRow.id == venue.id) | (func.lower(HouseVenueRow.name) == venue.name.lower())
    if session.scalar(select(HouseVenueRow.id).where(same)) is not None:
        return False
    session.add(HouseVenueRow(id=venue.id, name=venue.name))
    session.flush()
    for number, revision in enumerate(venue.revisions, start=1):
        session.add(
            VenueRevisionRow(
                venue_id=venue.id,
                number=number,
                document=revision.document.model_dump(mode="json"),
                words=revision.words,
                made_by=revision.made_by,
                made_at=revision.made_at,
            )
        )
    return True


def _add_occasion(session: Session, occasion: HouseOccasion) -> bool:
    if session.get(OccasionRow, occasion.id) is not None or occasion.ends_at <= occasion.starts_at:
        return False
    after = occasion.after if occasion.after and session.get(OccasionRow, occasion.after) else None
    session.add(
        OccasionRow(
            id=occasion.id, name=occasion.name, starts_at=occasion.starts_at, ends_at=occasion.ends_at, after_id=after
        )
    )
    session.flush()
    for note in occasion.notes:
        item = note.item if note.item and session.get(CupboardRow, note.item) else None
        session.add(
            NoteRow(
                id=new_id(),
                occasion_id=occasion.id,
                item_id=item,
                words=note.words,
                person_name=note.person,
                made_at=note.made_at,
                done_by=note.done_by,
            )
        )
    return True
