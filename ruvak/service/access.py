"""Roles, what each may do, and who is asking."""

from enum import StrEnum

from ruvak.core.errors import RuvakError
from ruvak.core.house import Role
from ruvak.core.rig.values import Record
from ruvak.service.states import Person

DEMO_TECHNICIAN = Person(id="demo-technician", name="Demo technician")


class Right(StrEnum):
    """What a use case asks of whoever wants it."""

    READ = "read"
    """See rigs, their analyses, and what could be done."""
    RECORD = "record"
    """Record what was really done in a rig: a lead swapped, a socket moved, a switch set."""
    PLAN = "plan"
    """Change, add and delete rigs, keep or take back what was recorded, and give links to them."""
    PEOPLE = "people"
    """Manage people, their roles, and trusted computers."""


RIGHTS: dict[Role, frozenset[Right]] = {
    "viewer": frozenset({Right.READ}),
    "helper": frozenset({Right.READ, Right.RECORD}),
    "technician": frozenset({Right.READ, Right.RECORD, Right.PLAN}),
    "owner": frozenset(Right),
}
_WORDS = {
    Right.READ: "see this",
    Right.RECORD: "record what was done",
    Right.PLAN: "change the plan",
    Right.PEOPLE: "manage people",
}
_WHO = {Right.READ: "a link to it", Right.RECORD: "a helper", Right.PLAN: "a technician", Right.PEOPLE: "an owner"}


class NotAllowed(RuvakError):
    """Somebody asks for what their role or link does not give."""

    code = "not_allowed"


class SignedOut(RuvakError):
    """Nobody is signed in at this browser, or no longer."""

    code = "signed_out"


class Access(Record):
    """Who asks, and what they may do."""

    person: Person
    """Under whose name and id edits are made."""
    role: Role
    """What they may do."""
    rig: str | None = None
    """The only rig that a link opens; null for people, who see all."""
    sign_in: str | None = None
    """By which this browser can be signed out; null for the demonstration's technician, who needs no sign-in."""
    account: bool = True
    """Whether this is an account, with a passphrase to be changed, and not a link."""

    @property
    def is_signed_in_account(self) -> bool:
        """Whether somebody signed in with an account of their own: neither by a link, nor by the demonstration."""
        return self.account and self.sign_in is not None

    def require(self, right: Right, rig: str | None = None) -> None:
        """Raises NotAllowed where this person may not do it, with the rig named where it concerns one."""
        if right not in RIGHTS[self.role]:
            kind = f"a {self.role}" if self.account else "this link"
            raise NotAllowed(f"{kind[0].upper()}{kind[1:]} cannot {_WORDS[right]}; ask {_WHO[right]}.")
        if self.rig is not None and rig is not None and rig != self.rig:
            raise NotAllowed("This link opens another rig only; ask for a link to this one.")
