"""What is kept about a person, for themselves: account, browsers, changes, notes."""

from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.log.words import say
from ruvak.core.rig.values import Record
from ruvak.service.problems import NotFound
from ruvak.service.sign_ins import SignIns, SignInSummary
from ruvak.store.house import CupboardChangeRow, NoteRow
from ruvak.store.log import LogRow, entry_of
from ruvak.store.people import PersonRow
from ruvak.store.tables import EditRow


class OwnChange(Record):
    """Something the person did in a rig or in the cupboard."""

    where: str
    """The rig's id, or what the thing of the cupboard was called."""
    what: str
    """What was done, in words."""
    made_at: datetime
    """When."""


class OwnData(Record):
    """Everything that is kept about a person, but no secret."""

    name: str
    """The name to sign in with."""
    role: str
    """What they may do."""
    since: datetime
    """Since when there is the account."""
    has_codes: bool
    """Whether signing in takes a one-time code."""
    sign_ins: tuple[SignInSummary, ...]
    """Browsers at which they are signed in."""
    changes: tuple[OwnChange, ...]
    """What they did in rigs, the newest first."""
    named: tuple[OwnChange, ...]
    """What stands under their name in the cupboard, among the notes and in the log, the newest first."""


class OwnDataReader:
    """The use case over one database."""

    def __init__(self, sessions: sessionmaker[Session], sign_ins: SignIns) -> None:
        self._sessions, self._sign_ins = sessions, sign_ins

    def read(self, person_id: str) -> OwnData:
        """Of an account. Raises NotFound."""
        with self._sessions() as session:
            row = session.get(PersonRow, person_id)
            if row is None:
                raise NotFound("This account is not there any longer.")
            edits = session.scalars(select(EditRow).where(EditRow.person == person_id).order_by(EditRow.id.desc()))
            changes = tuple(OwnChange(where=edit.rig_id, what=edit.label, made_at=edit.made_at) for edit in edits)
            of_things = select(CupboardChangeRow).where(CupboardChangeRow.person_name == row.name)
            named = [OwnChange(where=c.name, what=c.words, made_at=c.made_at) for c in session.scalars(of_things)]
            notes = session.scalars(select(NoteRow).where(NoteRow.person_name == row.name))
            named += [OwnChange(where="note", what=note.words, made_at=note.made_at) for note in notes]
            logged = select(LogRow).where(LogRow.person_id == person_id)
            named += [
                OwnChange(where=entry.rig, what=say(entry), made_at=entry.at)
                for entry in map(entry_of, session.scalars(logged))
            ]
            name, role, since, codes = row.name, row.role, row.made_at, row.code_secret is not None
        return OwnData(
            name=name,
            role=role,
            since=since,
            has_codes=codes,
            sign_ins=tuple(self._sign_ins.list_of(person_id, None)),
            changes=changes,
            named=tuple(sorted(named, key=lambda entry: entry.made_at, reverse=True)),
        )
