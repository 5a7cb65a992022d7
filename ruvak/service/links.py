"""Links to one rig: to read it, or to record what was done on the stage. They end at their time, or when revoked."""

from datetime import UTC, datetime, timedelta
from typing import Literal

from sqlalchemy import delete, func, select, update
from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.rig.values import Record
from ruvak.service.problems import BadHours, NotFound
from ruvak.service.takings import hours_of
from ruvak.service.tokens import hash_of, new_id, new_token
from ruvak.store.people import LinkRow, SignInRow
from ruvak.store.tables import RigRow

Gives = Literal["read", "record"]


class Link(Record):
    """A link to a rig, without what opens it."""

    id: str
    """The link."""
    name: str
    """Whom it is for."""
    gives: Gives
    """To read the rig, or also to record what was done in it."""
    made_by: str
    """Who gave it."""
    made_at: datetime
    """Since when."""
    ends_at: datetime
    """Until when."""
    with_occasion: bool
    """Whether it ends with the rig's occasion, whenever that is."""
    browsers: int
    """At how many browsers it was opened."""


class NewLink(Record):
    """A link just made; what opens it is not kept and cannot be shown again."""

    link: Link
    """The link."""
    token: str
    """To be carried in its address."""


class Links:
    """The use cases over one database."""

    def __init__(self, sessions: sessionmaker[Session]) -> None:
        self._sessions = sessions

    def list_of(self, rig_id: str) -> list[Link]:
        """Those to a rig that have not ended, the newest first."""
        query = select(LinkRow, func.count(SignInRow.id)).outerjoin(SignInRow, SignInRow.link_id == LinkRow.id)
        query = query.where(LinkRow.rig_id == rig_id, LinkRow.ends_at > datetime.now(UTC))
        with self._sessions() as session:
            rows = session.execute(query.group_by(LinkRow.id).order_by(LinkRow.made_at.desc())).all()
        return [_link(row, browsers) for row, browsers in rows]

    def add(self, rig_id: str, name: str, gives: Gives, hours: int | None, by: str) -> NewLink:
        """A link that ends after some hours; without, with the rig's occasion. Raises NotFound, and BadHours where the
        rig has no occasion that is still to come."""
        token = new_token()
        with self._sessions.begin() as session:
            if session.get(RigRow, rig_id) is None:
                raise NotFound(f"There is no rig '{rig_id}' here.")
            row = LinkRow(
                id=new_id(),
                with_occasion=hours is None,
                token_hash=hash_of(token),
                gives=gives,
                name=name,
                rig_id=rig_id,
                made_by=by,
                ends_at=_end_of_occasion(session, rig_id)
                if hours is None
                else datetime.now(UTC) + timedelta(hours=hours),
            )
            session.add(row)
            session.flush()
            session.refresh(row)
        return NewLink(link=_link(row, 0), token=token)

    def revoke(self, rig_id: str, link_id: str) -> None:
        """Whoever opened it is signed out at once. Raises NotFound."""
        query = delete(LinkRow).where(LinkRow.rig_id == rig_id, LinkRow.id == link_id)
        with self._sessions.begin() as session:
            if not session.execute(query.returning(LinkRow.id)).all():
                raise NotFound("This link has ended already.")


def follow_occasion(session: Session, rig_id: str) -> None:
    """Links that end with the rig's occasion, after its hours have changed; without one they end now."""
    hours = hours_of(session, rig_id)
    ends_at = hours[1] if hours is not None else datetime.now(UTC)
    links = update(LinkRow).where(LinkRow.rig_id == rig_id, LinkRow.with_occasion)
    session.execute(links.values(ends_at=ends_at))
    of_links = select(LinkRow.id).where(LinkRow.rig_id == rig_id, LinkRow.with_occasion)
    session.execute(update(SignInRow).where(SignInRow.link_id.in_(of_links)).values(ends_at=ends_at))


def _end_of_occasion(session: Session, rig_id: str) -> datetime:
    hours = hours_of(session, rig_id)
    if hours is None or hours[1] <= datetime.now(UTC):
        raise BadHours(
            "This rig has no date that is still to come; give it one, or say after how many hours the link ends."
        )
    return hours[1]


def _link(row: LinkRow, browsers: int) -> Link:
    return Link(
        id=row.id,
        name=row.name,
        gives="record" if row.gives == "record" else "read",
        made_by=row.made_by,
        made_at=row.made_at,
        ends_at=row.ends_at,
        with_occasion=row.with_occasion,
        browsers=browsers,
    )
