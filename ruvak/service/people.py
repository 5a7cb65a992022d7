"""People: who there is, what each may do, and the passphrases they choose. Nothing here needs mail."""

from datetime import UTC, datetime, timedelta

from sqlalchemy import delete, func, select, text
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.errors import RuvakError
from ruvak.core.rig.values import Record
from ruvak.service import one_time_codes, passphrases
from ruvak.service.access import DEMO_TECHNICIAN, Access, NotAllowed, Role
from ruvak.service.problems import NotFound
from ruvak.service.states import Person
from ruvak.service.tokens import hash_of, new_id, new_token
from ruvak.store.people import LinkRow, PersonRow, SignInRow

PASSPHRASE_LINK_FOR = timedelta(days=3)
_ROLES: tuple[Role, ...] = ("owner", "technician", "helper", "viewer")


class NameTaken(RuvakError):
    """Somebody else has that name."""

    code = "name_taken"


class LastOwner(RuvakError):
    """The house would be left without an owner."""

    code = "last_owner"


class WrongPassphrase(RuvakError):
    """Not the person's present passphrase, or not a present one-time code."""

    code = "wrong_passphrase"


class PersonSummary(Record):
    """Somebody with an account, as owners see them."""

    id: str
    """The account."""
    name: str
    """The name to sign in with; it stands beside their changes."""
    role: Role
    """What they may do."""
    has_passphrase: bool
    """Whether they have chosen a passphrase yet."""
    has_codes: bool
    """Whether signing in takes a one-time code as well."""
    sign_ins: int
    """At how many browsers they are signed in."""
    seen_at: datetime | None
    """When they were last here."""


class PassphraseLink(Record):
    """A link by which a person chooses a new passphrase, once."""

    name: str
    """Whose it is."""
    token: str
    """To be carried in the link's address; it is not kept and cannot be shown again."""
    ends_at: datetime
    """Until when."""


class NewCodes(Record):
    """A secret for an authenticator; it counts once a code of it has been sent."""

    secret: str
    """To be typed where no QR code can be read."""
    address: str
    """What the QR code says."""


class People:
    """The use cases over one database."""

    def __init__(self, sessions: sessionmaker[Session]) -> None:
        self._sessions = sessions

    def list_all(self) -> list[PersonSummary]:
        """Everybody, by role and name."""
        seen = func.max(SignInRow.seen_at)
        query = select(PersonRow, func.count(SignInRow.id), seen).outerjoin(
            SignInRow, SignInRow.person_id == PersonRow.id
        )
        with self._sessions() as session:
            rows = session.execute(query.group_by(PersonRow.id)).all()
        result = [
            PersonSummary(
                id=row.id,
                name=row.name,
                role=role_of(row),
                has_passphrase=row.passphrase is not None,
                has_codes=row.code_secret is not None,
                sign_ins=sign_ins,
                seen_at=seen_at,
            )
            for row, sign_ins, seen_at in rows
        ]
        return sorted(result, key=lambda person: (_ROLES.index(person.role), person.name.casefold()))

    def add(self, name: str, role: Role, by: str) -> PassphraseLink:
        """A new account, and the link by which the person chooses a passphrase. Raises NameTaken."""
        row = PersonRow(id=new_id(), name=name, role=role)
        with self._sessions.begin() as session:
            session.add(row)
            _flush_name(session, name)
            return _passphrase_link(session, row, by)

    def change(self, person_id: str, name: str | None, role: Role | None) -> None:
        """Another name or role; None leaves it. Raises NotFound, NameTaken, LastOwner."""
        with self._sessions.begin() as session:
            row = _person(session, person_id)
            if role is not None and role != row.role:
                _refuse_without_owner(session, row)
                row.role = role
            if name is not None:
                row.name = name
                _flush_name(session, name)

    def remove(self, person_id: str) -> None:
        """The account is gone and signed out everywhere; what the person did keeps their name. Raises NotFound,
        LastOwner."""
        with self._sessions.begin() as session:
            row = _person(session, person_id)
            _refuse_without_owner(session, row)
            session.execute(delete(PersonRow).where(PersonRow.id == person_id))

    def renew_passphrase(self, person_id: str, by: str) -> PassphraseLink:
        """A link for somebody who has forgotten their passphrase; an earlier one ends. The old passphrase counts until
        a new one is chosen. Raises NotFound."""
        with self._sessions.begin() as session:
            return _passphrase_link(session, _person(session, person_id), by)

    def named(self, name: str) -> str:
        """The id of whoever has this name. Raises NotFound."""
        with self._sessions() as session:
            person_id = session.scalar(select(PersonRow.id).where(func.lower(PersonRow.name) == func.lower(name)))
        if person_id is None:
            raise NotFound(f"Nobody here is called “{name}”.")
        return person_id

    def choose_passphrase(self, token: str, passphrase: str) -> str:
        """A new passphrase by a link, which ends with it; the person is signed out everywhere and one-time codes are
        switched off, since the phone may be what was lost. The answer is the person's id. Raises NotFound,
        WeakPassphrase."""
        with self._sessions.begin() as session:
            link = session.scalars(
                select(LinkRow).where(LinkRow.token_hash == hash_of(token), LinkRow.gives == "passphrase")
            ).first()
            if link is None or link.ends_at < datetime.now(UTC) or link.person_id is None:
                raise NotFound("This link is used up or has ended; ask an owner for a new one.")
            row = _person(session, link.person_id)
            row.passphrase = passphrases.hash_of(passphrase, row.name)
            row.code_secret, row.code_step = None, None
            session.execute(delete(SignInRow).where(SignInRow.person_id == row.id))
            session.execute(delete(LinkRow).where(LinkRow.person_id == row.id))
            return row.id

    def change_passphrase(self, access: Access, present: str, new: str) -> None:
        """One's own passphrase; other browsers are signed out. Raises WrongPassphrase, WeakPassphrase."""
        with self._sessions.begin() as session:
            row = self._confirmed(session, access, present)
            row.passphrase = passphrases.hash_of(new, row.name)
            others = SignInRow.id != (access.sign_in or "")
            session.execute(delete(SignInRow).where(SignInRow.person_id == row.id, others))

    def offer_codes(self, access: Access) -> NewCodes:
        """A secret for an authenticator; nothing is changed yet."""
        secret = one_time_codes.new_secret()
        return NewCodes(secret=secret, address=one_time_codes.address_of(secret, access.person.name))

    def use_codes(self, access: Access, present: str, secret: str, code: str) -> None:
        """From now on signing in takes a code as well. Raises WrongPassphrase."""
        with self._sessions.begin() as session:
            row = self._confirmed(session, access, present)
            step = one_time_codes.step_of(secret, code)
            if step is None:
                raise WrongPassphrase("This code does not fit: check the phone's clock, and type the present code.")
            row.code_secret, row.code_step = secret, step

    def stop_codes(self, access: Access, present: str) -> None:
        """Signing in takes the passphrase alone again. Raises WrongPassphrase."""
        with self._sessions.begin() as session:
            row = self._confirmed(session, access, present)
            row.code_secret, row.code_step = None, None

    def _confirmed(self, session: Session, access: Access, present: str) -> PersonRow:
        """The person themselves, who has just typed their passphrase."""
        row = session.get(PersonRow, access.person.id, with_for_update=True) if access.account else None
        if row is None or row.passphrase is None:
            raise NotAllowed("Only an account with a passphrase can do this.")
        if not passphrases.is_right(row.passphrase, present):
            raise WrongPassphrase("This is not your present passphrase.")
        return row

    def demo_technician(self) -> Access:
        """The demonstration's technician, added where missing."""
        with self._sessions.begin() as session:
            name = session.scalar(select(PersonRow.name).where(PersonRow.id == DEMO_TECHNICIAN.id))
            if name is None:
                # Two first requests at once both come here.
                new = insert(PersonRow).values(id=DEMO_TECHNICIAN.id, name=DEMO_TECHNICIAN.name, role="technician")
                session.execute(new.on_conflict_do_nothing())
        return Access(person=Person(id=DEMO_TECHNICIAN.id, name=name or DEMO_TECHNICIAN.name), role="technician")


def role_of(row: PersonRow) -> Role:
    """As a value of its type; the table takes no others."""
    return next(role for role in _ROLES if role == row.role)


def _person(session: Session, person_id: str) -> PersonRow:
    row = session.get(PersonRow, person_id, with_for_update=True)
    if row is None:
        raise NotFound("There is no such person here any longer.")
    return row


def _flush_name(session: Session, name: str) -> None:
    try:
        session.flush()
    except IntegrityError as problem:
        raise NameTaken(f"Somebody here is called “{name}” already; add a surname or an initial.") from problem


def _refuse_without_owner(session: Session, row: PersonRow) -> None:
    """Raises LastOwner where this is the only one. Two owners who remove each other at once are taken in turn."""
    if row.role != "owner":
        return
    session.execute(text("SELECT pg_advisory_xact_lock(hashtextextended('owners', 0))"))
    others = select(func.count()).select_from(PersonRow).where(PersonRow.role == "owner", PersonRow.id != row.id)
    if not session.scalar(others):
        raise LastOwner(f"{row.name} is the only owner; make somebody else an owner first.")


def _passphrase_link(session: Session, row: PersonRow, by: str) -> PassphraseLink:
    session.execute(delete(LinkRow).where(LinkRow.person_id == row.id))
    token, ends_at = new_token(), datetime.now(UTC) + PASSPHRASE_LINK_FOR
    session.add(
        LinkRow(
            id=new_id(),
            token_hash=hash_of(token),
            gives="passphrase",
            name=row.name,
            person_id=row.id,
            made_by=by,
            ends_at=ends_at,
        )
    )
    session.flush()
    return PassphraseLink(name=row.name, token=token, ends_at=ends_at)
