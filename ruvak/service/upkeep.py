"""Use cases about the database as a whole: open it, migrate it, back it up, bring it back."""

from pathlib import Path

from sqlalchemy import delete

from ruvak.service.cupboard import Cupboard
from ruvak.service.edits import Edits
from ruvak.service.house import House
from ruvak.service.house_import import HouseImport
from ruvak.service.kept import KeptRigs
from ruvak.service.people import People
from ruvak.service.rigs import Rigs
from ruvak.service.venues import Venues
from ruvak.store import backup, database
from ruvak.store.people import LinkRow, SignInRow
from ruvak.store.rigs import renew_holders


def rigs_at(url: str) -> Rigs:
    """The rigs of the database at `url`."""
    return Rigs(database.sessions_for(database.engine_for(url)), KeptRigs())


def venues_at(url: str) -> Venues:
    """The venues of the database at `url`."""
    sessions, kept = database.sessions_for(database.engine_for(url)), KeptRigs()
    return Venues(sessions, kept, Edits(sessions, kept))


def house_at(url: str) -> House:
    """The whole house of the database at `url`."""
    sessions, kept = database.sessions_for(database.engine_for(url)), KeptRigs()
    cupboard = Cupboard(sessions, kept, Edits(sessions, kept))
    return House(sessions, kept, cupboard)


def house_import_at(url: str) -> HouseImport:
    """Brings a house into the database at `url`."""
    return HouseImport(database.sessions_for(database.engine_for(url)), KeptRigs())


def people_at(url: str) -> People:
    """The people of the database at `url`."""
    return People(database.sessions_for(database.engine_for(url)))


def migrate(url: str) -> None:
    """Brings the schema up to date, keeping the data."""
    database.upgrade(url)


def back_up(url: str, file: Path) -> None:
    """Every rig with its history into one file. Raises BackupProblem."""
    backup.backup(url, file)


def bring_back(url: str, file: Path) -> None:
    """Replaces everything by a backup, its schema brought up to date. Raises BackupProblem."""
    backup.restore(url, file, _bring_up_to_date)


def _bring_up_to_date(url: str) -> None:
    """A database that takes another one's place: what processes keep of the other's rigs is not taken for its own, and
    what was signed out or revoked since does not open again: everybody signs in anew, and links are given anew."""
    database.upgrade(url)
    with database.sessions_for(database.engine_for(url)).begin() as session:
        renew_holders(session)
        session.execute(delete(SignInRow))
        session.execute(delete(LinkRow))
