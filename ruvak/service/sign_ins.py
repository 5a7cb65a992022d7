"""Who is signed in at which browser: by passphrase, by picking a name at a trusted computer, or by a link."""

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Literal

from sqlalchemy import delete, func, select, update
from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.errors import RuvakError
from ruvak.core.rig.values import Record
from ruvak.service import one_time_codes, passphrases, throttle
from ruvak.service.access import Access, Role
from ruvak.service.people import WrongPassphrase, role_of
from ruvak.service.problems import NotFound
from ruvak.service.states import Person
from ruvak.service.tokens import hash_of, new_id, new_token
from ruvak.store.people import ComputerRow, LinkRow, PersonRow, SignInRow

UNUSED_FOR, AT_MOST_FOR = timedelta(days=30), timedelta(days=180)
"""A browser is signed out when it was not used for so long, or after so long in any case: a technician's phone must
not ask for a passphrase in the middle of a service."""
AT_TRUSTED_COMPUTER_FOR = timedelta(hours=12)
SEEN_EVERY = timedelta(minutes=1)
"""How exactly it is kept when a browser was last here; writing it with each request would cost more than it says."""
ON_DUTY: tuple[Role, ...] = ("technician", "helper", "viewer")
"""Who may pick their name at a trusted computer; an owner types the passphrase there too."""
ROLE_OF_LINK: dict[str, Role] = {"read": "viewer", "record": "helper"}


class CodeNeeded(RuvakError):
    """The passphrase is right; a one-time code is asked for as well."""

    code = "code_needed"


@dataclass(frozen=True)
class Browser:
    """Where a request comes from, for the list of sign-ins and for limits on guessing."""

    address: str
    words: str
    """What the browser says of itself."""


@dataclass(frozen=True)
class OpenedLink:
    """What a link opened. `sign_in`: what the browser carries from now on, where it was signed in by it."""

    sign_in: str | None
    gives: str
    name: str
    rig: str | None


class OnDuty(Record):
    """Somebody who can pick their name at this computer."""

    id: str
    """The account."""
    name: str
    """What they are called."""
    role: Role
    """What they may do."""


class TrustedComputer(Record):
    """A computer at which whoever is on duty picks their name."""

    id: str
    """The computer."""
    name: str
    """What it is called."""
    trusted_by: str
    """Which owner did."""
    made_at: datetime
    """Since when."""


class SignInSummary(Record):
    """A browser at which a person is signed in."""

    id: str
    """The sign-in."""
    browser: str
    """What the browser says of itself."""
    address: str
    """From where it was last signed in."""
    how: Literal["passphrase", "trusted computer"]
    """How the person signed in there."""
    made_at: datetime
    """Since when."""
    seen_at: datetime
    """When it was last used."""
    here: bool
    """Whether it is the browser that asks."""


class SignIns:
    """The use cases over one database."""

    def __init__(self, sessions: sessionmaker[Session]) -> None:
        self._sessions = sessions

    def with_passphrase(self, name: str, passphrase: str, code: str | None, browser: Browser) -> str:
        """Signs a person in; the answer is what the browser carries from now on.

        Raises WrongPassphrase, CodeNeeded, TooManyAttempts.
        """
        attempt = throttle.begin_attempt(self._sessions, throttle.subjects(browser.address, name))
        with self._sessions() as session:
            row = session.scalars(select(PersonRow).where(func.lower(PersonRow.name) == func.lower(name))).first()
        if not passphrases.is_right(row.passphrase if row else None, passphrase) or row is None:
            raise WrongPassphrase("Name and passphrase do not fit. An owner can give you a link to choose a new one.")
        with self._sessions.begin() as session:
            if row.code_secret is not None:
                self._take_code(session, row.id, code)
            throttle.forget(session, attempt)
            return _signed_in(session, browser, _from_now(UNUSED_FOR), person_id=row.id)

    def _take_code(self, session: Session, person_id: str, code: str | None) -> None:
        row = session.get_one(PersonRow, person_id, with_for_update=True)
        if row.code_secret is None:
            return
        if code is None:
            raise CodeNeeded("Type the present code from your authenticator as well.")
        step = one_time_codes.step_of(row.code_secret, code, row.code_step)
        if step is None:
            raise WrongPassphrase("This one-time code does not fit, or was used already; wait for the next one.")
        row.code_step = step

    def at_trusted_computer(self, computer_token: str, person_id: str, browser: Browser) -> str:
        """Signs in whoever picks their name at a trusted computer. Raises NotFound."""
        with self._sessions.begin() as session:
            computer = _computer(session, computer_token)
            row = session.get(PersonRow, person_id)
            if computer is None or row is None or role_of(row) not in ON_DUTY:
                raise NotFound("This name cannot be picked here; sign in with the passphrase.")
            ends_at = _from_now(AT_TRUSTED_COMPUTER_FOR)
            return _signed_in(session, browser, ends_at, person_id=row.id, computer_id=computer.id)

    def of_person(self, person_id: str, browser: Browser) -> str:
        """Signs in somebody who has just shown who they are by a link of their own."""
        with self._sessions.begin() as session:
            return _signed_in(session, browser, _from_now(UNUSED_FOR), person_id=person_id)

    def with_link(self, token: str, browser: Browser, has_account: bool) -> OpenedLink:
        """Signs a browser in by a link to a rig. A link to choose a passphrase signs nobody in, and neither does one
        that somebody with an account opens: they see the rig already. Raises NotFound, TooManyAttempts.
        """
        attempt = throttle.begin_attempt(self._sessions, throttle.subjects(browser.address))
        with self._sessions.begin() as session:
            query = select(LinkRow).where(LinkRow.token_hash == hash_of(token), LinkRow.ends_at > datetime.now(UTC))
            link = session.scalars(query).first()
            if link is None:
                raise NotFound("This link has ended or was revoked; ask whoever gave it to you for a new one.")
            throttle.forget(session, attempt)
            sign_in = None
            if link.rig_id is not None and not has_account:
                sign_in = _signed_in(session, browser, link.ends_at, link_id=link.id)
            return OpenedLink(sign_in, link.gives, link.name, link.rig_id)

    def access(self, token: str) -> Access | None:
        """Who carries this; None where nobody does any longer."""
        now = datetime.now(UTC)
        query = (
            select(SignInRow, PersonRow, LinkRow)
            .outerjoin(PersonRow, PersonRow.id == SignInRow.person_id)
            .outerjoin(LinkRow, LinkRow.id == SignInRow.link_id)
            .where(SignInRow.token_hash == hash_of(token), SignInRow.ends_at > now)
        )
        with self._sessions() as session:
            row = session.execute(query).first()
        if row is None:
            return None
        sign_in, person, link = row
        if now - sign_in.seen_at > SEEN_EVERY:
            self._see(sign_in, now)
        if person is not None:
            who = Person(id=person.id, name=person.name)
            return Access(person=who, role=role_of(person), sign_in=sign_in.id)
        who = Person(id=f"link-{link.id}", name=link.name)
        return Access(person=who, role=ROLE_OF_LINK[link.gives], rig=link.rig_id, sign_in=sign_in.id, account=False)

    def _see(self, sign_in: SignInRow, now: datetime) -> None:
        """Keeps that the browser was here; one of a person's own is good for as long again."""
        values: dict[str, datetime] = {"seen_at": now}
        if sign_in.person_id is not None and sign_in.computer_id is None:
            values["ends_at"] = min(now + UNUSED_FOR, sign_in.made_at + AT_MOST_FOR)
        with self._sessions.begin() as session:
            session.execute(update(SignInRow).where(SignInRow.id == sign_in.id).values(**values))
            session.execute(delete(SignInRow).where(SignInRow.ends_at < now))
            session.execute(delete(LinkRow).where(LinkRow.ends_at < now))

    def list_of(self, person_id: str, here: str | None) -> list[SignInSummary]:
        """A person's browsers, the last used first; `here`: the sign-in that asks."""
        query = select(SignInRow).where(SignInRow.person_id == person_id, SignInRow.ends_at > datetime.now(UTC))
        with self._sessions() as session:
            return [
                SignInSummary(
                    id=row.id,
                    browser=row.browser,
                    address=row.address,
                    how="trusted computer" if row.computer_id is not None else "passphrase",
                    made_at=row.made_at,
                    seen_at=row.seen_at,
                    here=row.id == here,
                )
                for row in session.scalars(query.order_by(SignInRow.seen_at.desc()))
            ]

    def end(self, sign_in: str, person_id: str | None = None) -> None:
        """Signs a browser out; with `person_id` only one of that person's. Raises NotFound."""
        query = delete(SignInRow).where(SignInRow.id == sign_in)
        if person_id is not None:
            query = query.where(SignInRow.person_id == person_id)
        with self._sessions.begin() as session:
            if not session.execute(query.returning(SignInRow.id)).all():
                raise NotFound("That browser is signed out already.")

    def on_duty(self, computer_token: str) -> tuple[str, tuple[OnDuty, ...]] | None:
        """What a trusted computer is called, and whose names can be picked there; None where it is not trusted."""
        with self._sessions() as session:
            computer = _computer(session, computer_token)
            if computer is None:
                return None
            rows = session.scalars(select(PersonRow).where(PersonRow.role.in_(ON_DUTY)).order_by(PersonRow.name))
            return computer.name, tuple(OnDuty(id=row.id, name=row.name, role=role_of(row)) for row in rows)

    def trust_computer(self, name: str, by: str) -> str:
        """The answer is what the computer carries from now on."""
        token = new_token()
        with self._sessions.begin() as session:
            session.add(ComputerRow(id=new_id(), name=name, token_hash=hash_of(token), trusted_by=by))
        return token

    def list_computers(self) -> list[TrustedComputer]:
        """By name."""
        with self._sessions() as session:
            return [
                TrustedComputer(id=row.id, name=row.name, trusted_by=row.trusted_by, made_at=row.made_at)
                for row in session.scalars(select(ComputerRow).order_by(ComputerRow.name))
            ]

    def stop_trusting(self, computer_id: str) -> None:
        """Whoever picked their name there is signed out. Raises NotFound."""
        with self._sessions.begin() as session:
            gone = session.execute(delete(ComputerRow).where(ComputerRow.id == computer_id).returning(ComputerRow.id))
            if not gone.all():
                raise NotFound("That computer is not trusted any longer.")


def _from_now(span: timedelta) -> datetime:
    return datetime.now(UTC) + span


def _computer(session: Session, token: str) -> ComputerRow | None:
    return session.scalars(select(ComputerRow).where(ComputerRow.token_hash == hash_of(token))).first()


def _signed_in(
    session: Session,
    browser: Browser,
    ends_at: datetime,
    person_id: str | None = None,
    link_id: str | None = None,
    computer_id: str | None = None,
) -> str:
    token = new_token()
    session.add(
        SignInRow(
            id=new_id(),
            token_hash=hash_of(token),
            person_id=person_id,
            link_id=link_id,
            computer_id=computer_id,
            browser=browser.words[:200],
            address=browser.address,
            ends_at=ends_at,
        )
    )
    return token
