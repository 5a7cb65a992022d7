"""A whole house in: what it has and this one does not is added."""

from collections.abc import Iterator

from sqlalchemy import func, select, update
from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.cupboard.item import CupboardDocument
from ruvak.core.house import HouseDocument, HouseOccasion, HousePerson, HouseRig, HouseVenue
from ruvak.core.log.entry import Entry
from ruvak.core.prepare import prepare
from ruvak.core.progress import Progress, report_nothing
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.values import Record
from ruvak.service.cupboard import Cupboard
from ruvak.service.edits import Edits
from ruvak.service.kept import KeptRigs
from ruvak.service.people import People
from ruvak.service.rigs import Rigs
from ruvak.service.states import Person
from ruvak.service.takings import AlreadyTaken, take_what_is_drawn
from ruvak.service.tokens import new_id
from ruvak.store import log
from ruvak.store.house import CupboardRow, NoteRow
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


class HouseImport:
    """The use case over one database."""

    def __init__(self, sessions: sessionmaker[Session], kept: KeptRigs) -> None:
        self._sessions, self._kept = sessions, kept
        self._people, self._rigs = People(sessions), Rigs(sessions, kept)
        self._cupboard = Cupboard(sessions, kept, Edits(sessions, kept))

    def add(self, house: HouseDocument, person: Person, progress: Progress = report_nothing) -> Imported:
        """People and venues by name, things by id or tag, dates and rigs by id. Raises RigFault before anything is
        added. Each rig comes with its date and its log or not at all, so that an import that was ended half way adds
        the rest when it is repeated."""
        rigs = {rig.id: prepare(rig) for rig in house.rigs}
        things = self._cupboard.import_document(CupboardDocument(items=house.cupboard), person)
        people = sum(self._add_person(entry, person) for entry in house.index.people)
        with self._sessions.begin() as session:
            venues = [_add_venue(session, venue) for venue in house.venues]
            occasions = [_add_occasion(session, occasion) for occasion in house.index.occasions]
            known = set(session.scalars(select(RigRow.id)))
        new = [entry for entry in house.index.rigs if entry.id in rigs and entry.id not in known]
        logged: dict[str | None, list[Entry]] = {}
        for each in house.log:
            logged.setdefault(each.rig, []).append(each)
        added = 0
        said: list[str] = []
        for index, entry in enumerate(new):
            progress(index / len(new))
            with self._sessions.begin() as session:
                if _is_new(session, entry.id):
                    added += 1
                    said += self._add_rig(session, rigs[entry.id], entry, logged.get(entry.id, []), person)
        with self._sessions.begin() as session:
            of_things = logged.get(None, [])
            log.add(session, [log.row_of_thing(", ".join(e.thing_names), e, "", e.person) for e in of_things])
        return Imported(
            people=people, venues=sum(venues), things=things, occasions=sum(occasions), rigs=added, said=tuple(said)
        )

    def _add_person(self, entry: HousePerson, person: Person) -> bool:
        if any(known.name.lower() == entry.name.lower() for known in self._people.list_all()):
            return False
        self._people.add(entry.name, entry.role, person.name)
        return True

    def _add_rig(
        self, session: Session, rig: Rig, entry: HouseRig, logged: list[Entry], person: Person
    ) -> Iterator[str]:
        """The rig at its date and in its venue, with what was logged about it under the names that stand there."""
        self._rigs.import_into(session, rig, person)
        yield from _place(session, rig, entry)
        occasion = session.scalar(select(RigRow.occasion_id).where(RigRow.id == rig.id))
        log.add(session, [log.row_of_known(rig, occasion, each) for each in logged])


def _is_new(session: Session, rig_id: str) -> bool:
    """Whether nobody has added the rig by now; another import waits until this transaction ends."""
    session.execute(select(func.pg_advisory_xact_lock(func.hashtextextended("house import", 0))))
    return session.scalar(select(RigRow.id).where(RigRow.id == rig_id)) is None


def _place(session: Session, rig: Rig, entry: HouseRig) -> Iterator[str]:
    """The rig on its shelf, at its date and in its venue; without the date where others have its things then."""
    venue = entry.venue if entry.venue and session.get(HouseVenueRow, entry.venue) else None
    occasion = entry.occasion if entry.occasion and session.get(OccasionRow, entry.occasion) else None
    values = {"shelf": entry.shelf, "house_venue_id": venue, "occasion_id": occasion}
    session.execute(update(RigRow).where(RigRow.id == rig.id).values(**values))
    try:
        with session.begin_nested():
            take_what_is_drawn(session, rig)
    except AlreadyTaken as problem:
        session.execute(update(RigRow).where(RigRow.id == rig.id).values(occasion_id=None))
        yield f"{rig.name} has no date: {problem}"


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
            id=occasion.id,
            name=occasion.name,
            starts_at=occasion.starts_at,
            ends_at=occasion.ends_at,
            doors_at=occasion.doors_at,
            after_id=after,
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
