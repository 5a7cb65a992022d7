"""Venues of the house: saved from a rig with revisions, taken into other rigs in one step."""

from datetime import datetime

from sqlalchemy import func, select, update
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.errors import RuvakError
from ruvak.core.rig.edits import Edit, SetField
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.values import Record
from ruvak.core.venue.document import VenueDocument, difference, document_of
from ruvak.service.edits import Edits
from ruvak.service.kept import KeptRigs
from ruvak.service.problems import NotFound
from ruvak.service.states import Person
from ruvak.service.tokens import new_id
from ruvak.service.versions import version_of
from ruvak.store.tables import HouseVenueRow, RigRow, VenueRevisionRow


class NotNewest(RuvakError):
    """The house's venue has a revision that this rig has not taken, or its name is another one's."""

    code = "not_newest"


class VenueSummary(Record):
    """A venue of the house."""

    id: str
    """The venue."""
    name: str
    """What it is called."""
    revision: int
    """Its newest revision."""
    made_by: str
    """Who saved that."""
    made_at: datetime
    """When."""
    rigs: int
    """How many rigs belong to it."""


class RevisionLine(Record):
    """One revision of a venue."""

    number: int
    """Its number."""
    words: str
    """What was changed."""
    made_by: str
    """Who saved it."""
    made_at: datetime
    """When."""


class VenueStanding(Record):
    """How a rig's venue stands to the house's."""

    venue: VenueSummary | None
    """The house's venue it belongs to; null where it is the rig's own."""
    at_revision: int
    """The revision the rig was judged on."""
    newer: tuple[RevisionLine, ...]
    """Revisions saved since, the newest first."""
    own: tuple[str, ...]
    """What differs in this rig from that revision."""
    others: tuple[VenueSummary, ...]
    """Venues of the house that a rig without one can belong to."""


class Venues:
    """The use cases over one database and the rigs kept in this process."""

    def __init__(self, sessions: sessionmaker[Session], kept: KeptRigs, edits: Edits) -> None:
        self._sessions, self._kept, self._edits = sessions, kept, edits

    def list_all(self) -> list[VenueSummary]:
        """By name."""
        with self._sessions() as session:
            return _summaries(session)

    def read(self, venue_id: str) -> VenueDocument:
        """The newest revision. Raises NotFound."""
        with self._sessions() as session:
            return newest_document(session, venue_id)[1]

    def import_document(self, document: VenueDocument, person: Person) -> VenueSummary:
        """A venue's file as a new venue of the house. Raises NotNewest where the house has one of that name."""
        with self._sessions.begin() as session:
            venue_id = _new_venue(session, document.venue.name)
            first = document.model_copy(update={"venue": document.venue.model_copy(update={"revision": 1})})
            row = VenueRevisionRow(
                venue_id=venue_id,
                number=1,
                document=first.model_dump(mode="json"),
                words="imported",
                made_by=person.name,
            )
            session.add(row)
            session.flush()
            return next(summary for summary in _summaries(session) if summary.id == venue_id)

    def standing(self, rig_id: str, others: bool = True) -> VenueStanding:
        """How a rig's venue stands to the house's; `others`: with the venues it could belong to. Raises NotFound."""
        with self._sessions() as session:
            rig = self._kept.current(session, rig_id).rig
            venue_id = house_venue_of(session, rig_id)
            every = _summaries(session)
            venue = next((summary for summary in every if summary.id == venue_id), None)
            at = rig.venue.revision
            if venue is None:
                return VenueStanding(
                    venue=None, at_revision=at, newer=(), own=(), others=tuple(every if others else ())
                )
            rows = session.scalars(
                select(VenueRevisionRow)
                .where(VenueRevisionRow.venue_id == venue_id, VenueRevisionRow.number >= at)
                .order_by(VenueRevisionRow.number.desc())
            ).all()
        known = next((row for row in rows if row.number == at), None)
        own: tuple[str, ...] = ()
        if known is not None:
            own = difference(_as_document(rig, known), document_of(rig), "own").said
        newer = tuple(
            RevisionLine(number=row.number, words=row.words, made_by=row.made_by, made_at=row.made_at)
            for row in rows
            if row.number > at
        )
        return VenueStanding(venue=venue, at_revision=at, newer=newer, own=own, others=())

    def belong(self, rig_id: str, venue_id: str) -> None:
        """The rig belongs to a venue of the house from now on, of which it has taken nothing yet. Raises NotFound."""
        with self._sessions.begin() as session:
            self._kept.current(session, rig_id, lock=True)
            newest_document(session, venue_id)
            session.execute(update(RigRow).where(RigRow.id == rig_id).values(house_venue_id=venue_id))

    def save(self, rig_id: str, words: str, person: Person) -> None:
        """The rig's venue as the house's next revision, or as a new venue of the house. Raises NotFound, NotNewest."""
        with self._sessions.begin() as session:
            saved = self._kept.current(session, rig_id, lock=True)
            rig, venue_id = saved.rig, house_venue_of(session, rig_id)
            if venue_id is None:
                venue_id, number = _new_venue(session, rig.venue.name), 1
                session.execute(update(RigRow).where(RigRow.id == rig_id).values(house_venue_id=venue_id))
            else:
                newest, _ = newest_document(session, venue_id, lock=True)
                if newest > rig.venue.revision:
                    raise NotNewest(
                        f"Revision {newest} was saved meanwhile; take it into this rig first, then save yours."
                    )
                number = newest + 1
                _rename(session, venue_id, rig.venue.name)
            row = VenueRevisionRow(
                venue_id=venue_id,
                number=number,
                document=document_of(rig).model_dump(mode="json"),
                words=words,
                made_by=person.name,
            )
            session.add(row)
        if number != rig.venue.revision:
            noted = SetField(kind="venue", field="revision", value=number)
            edit = Edit(label=f"Venue saved as revision {number}", ops=(noted,))
            self._edits.make(rig_id, version_of(saved.holders), edit, person)


def house_venue_of(session: Session, rig_id: str) -> str | None:
    """The house's venue that a rig belongs to."""
    return session.scalar(select(RigRow.house_venue_id).where(RigRow.id == rig_id))


def newest_document(session: Session, venue_id: str, lock: bool = False) -> tuple[int, VenueDocument]:
    """Number and contents of a venue's newest revision. Raises NotFound. `lock`: until the transaction's end."""
    if lock:
        session.execute(select(HouseVenueRow.id).where(HouseVenueRow.id == venue_id).with_for_update())
    query = select(VenueRevisionRow).where(VenueRevisionRow.venue_id == venue_id)
    row = session.scalars(query.order_by(VenueRevisionRow.number.desc()).limit(1)).first()
    if row is None:
        raise NotFound(f"There is no venue '{venue_id}' here.")
    return row.number, VenueDocument.model_validate(row.document)


def _as_document(rig: Rig, row: VenueRevisionRow) -> Rig:
    """The rig in the venue as the house had it at a revision: nothing of the rig's own stands in it."""
    document = VenueDocument.model_validate(row.document)
    return rig.with_fields(
        venue=document.venue, kit=document.installed, parts=document.parts, gear=(), runs=(), bonds=()
    )


def _summaries(session: Session) -> list[VenueSummary]:
    newest = select(VenueRevisionRow).distinct(VenueRevisionRow.venue_id)
    newest_rows = newest.order_by(VenueRevisionRow.venue_id, VenueRevisionRow.number.desc())
    revisions = {row.venue_id: row for row in session.scalars(newest_rows)}
    counted = select(RigRow.house_venue_id, func.count()).group_by(RigRow.house_venue_id)
    rigs = dict(session.execute(counted).tuples().all())
    return [
        VenueSummary(
            id=venue.id,
            name=venue.name,
            revision=row.number,
            made_by=row.made_by,
            made_at=row.made_at,
            rigs=rigs.get(venue.id, 0),
        )
        for venue in session.scalars(select(HouseVenueRow).order_by(HouseVenueRow.name))
        if (row := revisions.get(venue.id)) is not None
    ]


def _new_venue(session: Session, name: str) -> str:
    venue_id = new_id()
    made = insert(HouseVenueRow).values(id=venue_id, name=name).on_conflict_do_nothing().returning(HouseVenueRow.id)
    if session.scalar(made) is None:
        raise NotNewest(f"The house has a venue called “{name}” already: let this rig belong to it, or rename it here.")
    return venue_id


def _rename(session: Session, venue_id: str, name: str) -> None:
    taken = select(HouseVenueRow.id).where(
        func.lower(HouseVenueRow.name) == func.lower(name), HouseVenueRow.id != venue_id
    )
    if session.scalar(taken) is not None:
        raise NotNewest(f"The house has another venue called “{name}”; give this one another name first.")
    session.execute(update(HouseVenueRow).where(HouseVenueRow.id == venue_id).values(name=name))
