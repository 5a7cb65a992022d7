"""Tables of people and of how they get in: accounts, sign-ins, links, trusted computers, attempts that failed.

Of every secret only a hash is kept: who reads the database, or a backup of it, cannot sign in with what is there.
"""

from datetime import datetime

from sqlalchemy import BigInteger, CheckConstraint, ForeignKey, Index, LargeBinary, func
from sqlalchemy.orm import Mapped, mapped_column

from ruvak.store.tables import Base


class PersonRow(Base):
    """Somebody with an account. Names are told apart without regard to capitals."""

    __tablename__ = "person"
    __table_args__ = (
        CheckConstraint("role IN ('owner', 'technician', 'helper', 'viewer')", name="role"),
        Index("uq_person_name", func.lower("name"), unique=True),
    )
    id: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    role: Mapped[str]
    passphrase: Mapped[str | None]
    """Argon2id, with its parameters and salt; null until the person has chosen a passphrase."""
    code_secret: Mapped[str | None]
    """Of one-time codes; null where the person does not use them."""
    code_step: Mapped[int | None] = mapped_column(BigInteger)
    """The time step of the last one-time code that was accepted: a code is taken once."""
    made_at: Mapped[datetime] = mapped_column(server_default=func.now())


class ComputerRow(Base):
    """A computer at which whoever is on duty picks their name, trusted by an owner."""

    __tablename__ = "trusted_computer"
    id: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    token_hash: Mapped[bytes] = mapped_column(LargeBinary, unique=True)
    trusted_by: Mapped[str]
    made_at: Mapped[datetime] = mapped_column(server_default=func.now())


class LinkRow(Base):
    """A link that gives one right to one thing: to read a rig, to record what was built there, or to choose one's own
    passphrase."""

    __tablename__ = "link"
    __table_args__ = (
        CheckConstraint("gives IN ('read', 'record', 'passphrase')", name="gives"),
        CheckConstraint("(gives = 'passphrase') = (person_id IS NOT NULL)", name="person"),
        CheckConstraint("(gives <> 'passphrase') = (rig_id IS NOT NULL)", name="rig"),
    )
    id: Mapped[str] = mapped_column(primary_key=True)
    token_hash: Mapped[bytes] = mapped_column(LargeBinary, unique=True)
    gives: Mapped[str]
    name: Mapped[str]
    """Whom it is for; what they do stands in the rig's history under it."""
    rig_id: Mapped[str | None] = mapped_column(ForeignKey("holder.id", ondelete="CASCADE"), index=True)
    person_id: Mapped[str | None] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), index=True)
    made_by: Mapped[str]
    made_at: Mapped[datetime] = mapped_column(server_default=func.now())
    ends_at: Mapped[datetime]
    with_occasion: Mapped[bool] = mapped_column(default=False)
    """Whether it ends with the rig's occasion; `ends_at` follows then."""


class SignInRow(Base):
    """A browser that is signed in, as a person or by a link. Deleted, it is signed out."""

    __tablename__ = "sign_in"
    __table_args__ = (CheckConstraint("num_nonnulls(person_id, link_id) = 1", name="who"),)
    id: Mapped[str] = mapped_column(primary_key=True)
    token_hash: Mapped[bytes] = mapped_column(LargeBinary, unique=True)
    person_id: Mapped[str | None] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), index=True)
    link_id: Mapped[str | None] = mapped_column(ForeignKey("link.id", ondelete="CASCADE"), index=True)
    computer_id: Mapped[str | None] = mapped_column(ForeignKey("trusted_computer.id", ondelete="CASCADE"), index=True)
    """Where the person picked their name at a trusted computer."""
    browser: Mapped[str]
    address: Mapped[str]
    made_at: Mapped[datetime] = mapped_column(server_default=func.now())
    seen_at: Mapped[datetime] = mapped_column(server_default=func.now())
    ends_at: Mapped[datetime]


class AttemptRow(Base):
    """An attempt to sign in that did not succeed, or has not yet: counted for the account and for the address."""

    __tablename__ = "sign_in_attempt"
    __table_args__ = (Index("ix_sign_in_attempt_subject", "subject", "at"),)
    id: Mapped[int] = mapped_column(BigInteger, primary_key=True)
    subject: Mapped[str]
    at: Mapped[datetime] = mapped_column(server_default=func.clock_timestamp())
