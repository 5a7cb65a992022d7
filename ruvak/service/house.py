"""A whole house out: everything but secrets and the history of its rigs."""

from collections.abc import Iterator
from datetime import UTC, datetime

from sqlalchemy import select
from sqlalchemy.orm import Session, sessionmaker

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
from ruvak.core.venue.document import VenueDocument
from ruvak.service.cupboard import Cupboard
from ruvak.service.kept import KeptRigs
from ruvak.store import log
from ruvak.store.house import NoteRow
from ruvak.store.people import PersonRow
from ruvak.store.tables import HouseVenueRow, OccasionRow, RigRow, VenueRevisionRow


class House:
    """The use case over one database."""

    def __init__(self, sessions: sessionmaker[Session], kept: KeptRigs, cupboard: Cupboard) -> None:
        self._sessions, self._kept, self._cupboard = sessions, kept, cupboard

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
            doors_at=row.doors_at,
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
