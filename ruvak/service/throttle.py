"""Limits on guessing, counted in the database so that they hold for all workers and machines."""

from collections.abc import Mapping
from datetime import UTC, datetime, timedelta
from math import ceil

from sqlalchemy import delete, func, select, text
from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.errors import RuvakError
from ruvak.store.people import AttemptRow

WITHIN = timedelta(minutes=15)
MOST_AN_ACCOUNT, MOST_AN_ADDRESS = 10, 60
"""Attempts that did not succeed within that time. A house's phones often share an address."""


class TooManyAttempts(RuvakError):
    """Too many attempts that did not succeed; `retry_after_s` says when the next is looked at."""

    code = "too_many_attempts"

    def __init__(self, retry_after_s: int) -> None:
        self.retry_after_s = retry_after_s
        minutes = ceil(retry_after_s / 60)
        wait = "a minute" if minutes == 1 else f"{minutes} minutes"
        super().__init__(f"Too many attempts that did not succeed. Wait {wait}, or ask an owner for a new link.")


def subjects(address: str, account: str | None = None) -> dict[str, int]:
    """What an attempt is counted for, each with its limit."""
    result = {f"address {address}": MOST_AN_ADDRESS}
    if account is not None:
        result[f"account {account.casefold()}"] = MOST_AN_ACCOUNT
    return result


def begin_attempt(sessions: sessionmaker[Session], limits: Mapping[str, int]) -> tuple[int, ...]:
    """Counts an attempt before it is looked at, so that many at once are counted too. Raises TooManyAttempts.

    The answer names it for forget().
    """
    since = datetime.now(UTC) - WITHIN
    with sessions.begin() as session:
        for subject in sorted(limits):
            session.execute(text("SELECT pg_advisory_xact_lock(hashtextextended(:subject, 0))"), {"subject": subject})
        session.execute(delete(AttemptRow).where(AttemptRow.at < since))
        for subject, most in limits.items():
            recent = select(AttemptRow.at).where(AttemptRow.subject == subject).order_by(AttemptRow.at.desc())
            oldest = session.scalar(recent.offset(most - 1).limit(1))
            if oldest is not None:
                now = session.scalars(select(func.clock_timestamp())).one()
                raise TooManyAttempts(max(1, ceil((oldest + WITHIN - now).total_seconds())))
        rows = [AttemptRow(subject=subject) for subject in limits]
        session.add_all(rows)
        session.flush()
        return tuple(row.id for row in rows)


def forget(session: Session, attempt: tuple[int, ...]) -> None:
    """An attempt that succeeded counts against nobody."""
    session.execute(delete(AttemptRow).where(AttemptRow.id.in_(attempt)))
