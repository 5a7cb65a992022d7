"""Somebody with an account, signed in at a browser."""

from sqlalchemy.orm import Session, sessionmaker

from ruvak.service.access import Role
from ruvak.service.people import People
from ruvak.service.sign_ins import Browser, SignIns

BROWSER = Browser(address="127.0.0.1", words="a browser of the tests")
PASSPHRASE = "velvet tractor under seven lanterns"


def signed_in(sessions: sessionmaker[Session], name: str, role: Role) -> str:
    """What the browser of a new person carries."""
    people = People(sessions)
    people.add(name, role, "the tests")
    return SignIns(sessions).of_person(people.named(name), BROWSER)


def with_passphrase(sessions: sessionmaker[Session], name: str, role: Role, passphrase: str = PASSPHRASE) -> str:
    """The id of a new person who has chosen a passphrase."""
    people = People(sessions)
    return people.choose_passphrase(people.add(name, role, "the tests").token, passphrase)
