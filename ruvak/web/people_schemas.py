"""Bodies and answers about people, sign-ins and links."""

from datetime import datetime
from typing import Annotated

from pydantic import Field, RootModel, StringConstraints

from ruvak.core.rig.values import Id, Label, Record
from ruvak.service.access import Right, Role
from ruvak.service.links import Gives, Link
from ruvak.service.passphrases import LONGEST
from ruvak.service.people import PersonSummary
from ruvak.service.sign_ins import OnDuty, SignInSummary, TrustedComputer
from ruvak.web.schemas import RigPath

Passphrase = Annotated[str, StringConstraints(min_length=1, max_length=LONGEST)]
Code = Annotated[str, StringConstraints(pattern=r"^ *[0-9 ]{6,12}$")]
Token = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9_-]{1,128}$")]
Secret = Annotated[str, StringConstraints(pattern=r"^[A-Z2-7]{32}$")]
Hours = Annotated[int, Field(ge=1, le=24 * 31)]


class Here(Record):
    """The trusted computer this browser is at."""

    name: str
    """What it is called."""
    on_duty: tuple[OnDuty, ...]
    """Whose name can be picked."""


class SessionBody(Record):
    """Who is at this browser, what they may do, and the token that every change must carry in X-CSRF-Token."""

    person_id: str | None
    """The account or link; null where nobody is signed in."""
    person_name: str | None
    """The person's name; null where nobody is signed in."""
    role: Role | None
    """What they may do; null where nobody is signed in."""
    rights: tuple[Right, ...]
    """The same, one by one."""
    rig: str | None
    """The only rig that a link opens."""
    account: bool
    """Whether there is an account, whose passphrase can be changed."""
    demo: bool
    """Whether this is the demonstration, whose technician is signed in without a passphrase."""
    nobody_yet: bool
    """Whether there is no account at all."""
    here: Here | None
    """The trusted computer this browser is at; null elsewhere."""
    csrf_token: str
    """To be sent back with every change."""
    app_version: str
    """Version of the program."""


class SignInBody(Record):
    """Name, passphrase, and a one-time code where the person uses them."""

    name: Label
    """The account's name, in any capitals."""
    passphrase: Passphrase
    """The passphrase."""
    code: Code | None = None
    """The present one-time code."""


class PickBody(Record):
    """A name picked at a trusted computer."""

    person_id: Id
    """The account."""


class NameBody(Record):
    """A new name."""

    name: Label
    """What to be called."""


class NewPersonBody(Record):
    """Somebody new."""

    name: Label
    """What they are called."""
    role: Role
    """What they may do."""


class ChangedPersonBody(Record):
    """What changes of somebody; what is left out stays."""

    name: Label | None = None
    """Another name."""
    role: Role | None = None
    """Another role."""


class NewPassphraseBody(Record):
    """A new passphrase, with the present one."""

    present: Passphrase
    """The present one."""
    new: Passphrase
    """The new one."""


class PresentBody(Record):
    """The present passphrase, to confirm who it is."""

    present: Passphrase
    """The present passphrase."""


class UseCodesBody(PresentBody):
    """The offered secret, a code of it, and the passphrase."""

    secret: Secret
    """As it was offered."""
    code: Code
    """The present code."""


class TokenBody(Record):
    """What a link carries."""

    token: Token
    """As in the link's address."""


class ChosenPassphraseBody(TokenBody):
    """A passphrase chosen by a link."""

    passphrase: Passphrase
    """The new one."""


class OpenedLink(Record):
    """What a link opened."""

    gives: Annotated[str, StringConstraints(pattern="^(read|record|passphrase)$")]
    """To read a rig, to record work in it, or to choose a passphrase."""
    name: str
    """Whom it is for."""
    rig: str | None
    """The rig."""


class NewLinkBody(Record):
    """A link to be given to somebody."""

    name: Label
    """Whom it is for."""
    gives: Gives
    """To read the rig, or also to record what was done in it."""
    hours: Hours | None = None
    """For how long it is good; left out, it ends with the rig's occasion."""


class MadeLink(Record):
    """A link just made. Its address is shown once and not kept."""

    name: str
    """Whom it is for."""
    address: str
    """To be sent or scanned."""
    qr: str
    """The address as a QR code: an SVG picture as a data address."""
    ends_at: datetime
    """Until when it is good."""


class OfferedCodes(Record):
    """A secret for an authenticator; it counts once a code of it has been sent."""

    secret: str
    """To be typed where no QR code can be read."""
    qr: str
    """The same as a QR code: an SVG picture as a data address."""


class PersonList(RootModel[tuple[PersonSummary, ...]]):
    """Everybody with an account."""


class SignInList(RootModel[tuple[SignInSummary, ...]]):
    """Browsers at which a person is signed in."""


class ComputerList(RootModel[tuple[TrustedComputer, ...]]):
    """Trusted computers."""


class LinkList(RootModel[tuple[Link, ...]]):
    """Links to a rig."""


class PersonPath(Record):
    """Which person."""

    person_id: Id


class SignInPath(Record):
    """Which sign-in."""

    sign_in_id: Id


class SignInOfPath(PersonPath, SignInPath):
    """Which sign-in of which person."""


class ComputerPath(Record):
    """Which trusted computer."""

    computer_id: Id


class LinkPath(RigPath):
    """Which link to which rig."""

    link_id: Id
