"""Work of more than a second or two, its progress and its answer; the queue library's jobs do it."""

from datetime import timedelta
from typing import Literal

from sqlalchemy import delete, func, select, text, update
from sqlalchemy.orm import Session

from ruvak.store.tables import LongWorkRow

QUEUE, JOB = "compute", "compute"
"""The queue's name, and the name of its only kind of job."""
KEPT = timedelta(minutes=10)
"""How long after it was asked for an answer is kept for a browser that has lost its way back to it."""
FRESH = timedelta(seconds=10)
"""How long after it was made an answer is given to whoever asks the same: to those who have waited for it."""

JobState = Literal["waiting", "running", "gone"]
_STATES: dict[str, JobState] = {"todo": "waiting", "doing": "running"}


def find(session: Session, work_id: str) -> LongWorkRow | None:
    """By its own id."""
    return session.get(LongWorkRow, work_id)


def latest(session: Session, key: str) -> LongWorkRow | None:
    """What was asked for last under a key, unless it was cancelled or its answer has become old. Whoever asks for the
    same at this moment waits until this transaction ends."""
    session.execute(select(func.pg_advisory_xact_lock(func.hashtextextended(key, 0))))
    row = LongWorkRow
    is_fresh = row.finished_at.is_(None) | (row.finished_at > func.now() - FRESH)
    query = select(row).where(row.key == key, ~row.cancelled, is_fresh).order_by(row.created_at.desc()).limit(1)
    return session.scalars(query).first()


def queue(session: Session, work: LongWorkRow) -> None:
    """Adds work and defers its job in this transaction: neither is there without the other."""
    session.execute(delete(LongWorkRow).where(LongWorkRow.created_at < func.now() - KEPT))
    session.add(work)
    session.flush()
    work.job_id = session.execute(_DEFER, {"queue": QUEUE, "job": JOB, "work": work.id}).scalar_one()


def job_state(session: Session, work: LongWorkRow) -> tuple[JobState, int]:
    """Where the job stands, and how many wait before it; gone: the queue has it no longer."""
    status = session.execute(_STATUS, {"job": work.job_id}).scalar()
    state = _STATES.get(status or "", "gone")
    before = session.execute(_BEFORE, {"job": work.job_id}).scalar_one() if state == "waiting" else 0
    return state, int(before)


def cancel(session: Session, work: LongWorkRow) -> None:
    """A waiting job goes; a running one is ended as soon as it tells how far it is."""
    work.cancelled = True
    session.execute(_CANCEL, {"job": work.job_id})


def forget(session: Session, work_id: str) -> None:
    """Whoever asks the same again has it done again."""
    session.execute(delete(LongWorkRow).where(LongWorkRow.id == work_id))


def tell(session: Session, work_id: str, share: float) -> bool:
    """Writes how far work has got; says whether anybody still wants it."""
    row = LongWorkRow
    changed = update(row).where(row.id == work_id, ~row.cancelled).values(share=share).returning(row.id)
    return session.execute(changed).first() is not None


_DEFER = text(
    "SELECT (procrastinate_defer_jobs_v1(ARRAY[ROW(:queue, :job, 0, NULL, NULL, "
    "jsonb_build_object('work_id', CAST(:work AS text)), NULL)::procrastinate_job_to_defer_v1]))[1]"
)
_CANCEL = text("SELECT procrastinate_cancel_job_v1(:job, true, true)")
_STATUS = text("SELECT status FROM procrastinate_jobs WHERE id = :job")
_BEFORE = text("SELECT count(*) FROM procrastinate_jobs WHERE id < :job AND status IN ('todo', 'doing')")
