"""What takes longer than somebody should wait without a word: it goes through a queue, tells how far it is and can be
cancelled."""

import gzip
import hashlib
import json
import secrets
from typing import Any, Literal, Protocol

from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.errors import Fault, RuvakError
from ruvak.core.rig.values import Record
from ruvak.service.kept import KeptRigs
from ruvak.service.pool import Compute
from ruvak.service.problems import NotFound
from ruvak.service.states import Person
from ruvak.service.task import Task
from ruvak.service.versions import version_of
from ruvak.store import long_work as store
from ruvak.store.tables import LongWorkRow

DOUBLE = 2
"""How many times the runs of an analysis a use case may have to solve that solves several."""
TIMES: dict[str, int] = {
    "overview": 1,
    "destinations": 1,
    "connections": 1,
    "runs": 1,
    "card": 1,
    "pull": 1,
    "sheets": 1,
    "round": 1,
    "preview": 1,
    "rewire": 1,
    "earth_from_current": 1,
    "show_edit": DOUBLE,
    "newer_venue": DOUBLE,
    "compare": 1,
    "remedies": DOUBLE,
}
"""Use cases that solve a rig, and how often. The others answer at once at any size."""
WORDS: dict[str, str] = {
    "remedies": "Solving remedies in a rig of {runs}",
    "compare": "Comparing two rigs, {runs} together",
    "newer_venue": "Solving {runs} in the venue as it is now",
    "show_edit": "Solving {runs} before and after the change",
}
PLAIN_WORDS = "Solving {runs}"
HOUSE_IMPORT = "import_house"
HOUSE_IMPORT_WORDS = "Importing a house"
NOTHING_LOST = "Nothing that was saved is lost."
REST_LATER = "What it added by then stays; import the same file again to add the rest."


class StillWorking(RuvakError):
    """The answer is being computed; `work_id` says where to ask how far it is."""

    code = "still_working"

    def __init__(self, rig_id: str | None, work_id: str) -> None:
        self.rig_id, self.work_id = rig_id, work_id
        super().__init__("This takes a few seconds and is being computed.")


class WorkFailed(RuvakError):
    """What the computation raised, as it would have been raised at once."""

    def __init__(self, code: str, message: str, faults: tuple[Fault, ...]) -> None:
        self.code, self.faults = code, faults
        super().__init__(message)


class WorkState(Record):
    """How far work is."""

    id: str
    """The work."""
    rig_id: str | None
    """The rig it is about; None for the whole house."""
    words: str
    """What is done."""
    when_cancelled: str
    """What is to be said where it was cancelled."""
    state: Literal["waiting", "running", "done", "cancelled"]
    """Waiting for a process, being computed, done, or ended by somebody."""
    share: float
    """Done of it, 0 to 1."""
    before: int
    """How much other work waits before it."""


class Workers(Protocol):
    """Processes that do what is queued."""

    def ensure_running(self) -> None:
        """Starts one where none runs."""
        ...


class LongWork:
    """Work by rig, over one database; whichever machine has a worker does it."""

    def __init__(self, sessions: sessionmaker[Session], workers: Workers) -> None:
        self._sessions, self._workers = sessions, workers

    def run(self, rig_id: str, version: str, runs: int, task: Task) -> Any:
        """The answer, where it is there; `version`: of everything it depends on. Raises StillWorking where it is not,
        and what the work raised."""
        arguments = task.dump()
        work = LongWorkRow(
            key=_key(rig_id, version, task.use_case, arguments),
            rig_id=rig_id,
            use_case=task.use_case,
            arguments=arguments,
            is_json=task.is_json,
            runs=runs,
        )
        return _answer_of(self._asked(work))

    def import_house(self, archive: bytes, person: Person) -> Any:
        """The same for an exported house: what was added, as JSON. It is answered once: the same file sent again later
        is imported again."""
        work = LongWorkRow(
            key=_key(HOUSE_IMPORT, person.id, hashlib.sha256(archive).hexdigest()),
            rig_id=None,
            use_case=HOUSE_IMPORT,
            arguments=[person.id, person.name],
            is_json=True,
            runs=0,
            upload=archive,
        )
        asked = self._asked(work)
        if asked.finished_at is not None:
            with self._sessions.begin() as session:
                store.forget(session, asked.id)
        return _answer_of(asked)

    def _asked(self, new: LongWorkRow) -> LongWorkRow:
        """The work somebody has asked for already, or this."""
        with self._sessions.begin() as session:
            work = store.latest(session, new.key)
            if work is None:
                work = new
                work.id = secrets.token_urlsafe(16)
                store.queue(session, work)
        self._workers.ensure_running()
        return work

    def state(self, rig_id: str | None, work_id: str) -> WorkState:
        """How far it is. Raises NotFound."""
        with self._sessions() as session:
            work = _known(session, rig_id, work_id)
            state: Literal["waiting", "running", "done", "cancelled"] = "done"
            before = 0
            if work.cancelled:
                state = "cancelled"
            elif work.finished_at is None:
                job, before = store.job_state(session, work)
                if job == "gone":
                    # Done at this very moment; or lost by the queue, then it is asked for again and queued anew.
                    session.refresh(work)
                    state = "cancelled" if work.finished_at is None else "done"
                else:
                    state = job
        if state in ("waiting", "running"):
            self._workers.ensure_running()
        is_import = work.use_case == HOUSE_IMPORT
        runs = "1 run" if work.runs == 1 else f"{work.runs} runs"
        return WorkState(
            id=work.id,
            rig_id=rig_id,
            words=HOUSE_IMPORT_WORDS if is_import else WORDS.get(work.use_case, PLAIN_WORDS).format(runs=runs),
            when_cancelled=REST_LATER if is_import else NOTHING_LOST,
            state=state,
            share=work.share,
            before=before,
        )

    def cancel(self, rig_id: str | None, work_id: str) -> None:
        """Ends it; of a computation nothing is kept, of an import what it added by then. Raises NotFound."""
        with self._sessions.begin() as session:
            work = _known(session, rig_id, work_id)
            if work.finished_at is None:
                store.cancel(session, work)


class QueuedCompute:
    """Computes at once what takes up to about two seconds, and through the queue what takes longer."""

    def __init__(
        self, sessions: sessionmaker[Session], kept: KeptRigs, compute: Compute, queue: LongWork, most_runs: int
    ) -> None:
        self._sessions, self._kept = sessions, kept
        self._compute, self._queue, self._most = compute, queue, most_runs

    def run(self, rig_id: str, task: Task) -> Any:
        """What the task returns. Raises what it raises, Busy, and StillWorking."""
        times = TIMES.get(task.use_case)
        if times is None:
            return self._compute.run(rig_id, task)
        with self._sessions() as session:
            rigs = [self._kept.current(session, each) for each in (rig_id, *_others(task))]
        runs = sum(len(saved.rig.runs) for saved in rigs)
        if runs * times <= self._most:
            return self._compute.run(rig_id, task)
        versions = " ".join(version_of(saved.holders) for saved in rigs)
        return self._queue.run(rig_id, versions, runs, task)

    def close(self) -> None:
        """Ends the processes."""
        self._compute.close()


def _others(task: Task) -> tuple[str, ...]:
    """Rigs that are solved beside the one it is about."""
    if task.use_case != "compare":
        return ()
    _, other = task.arguments
    return (str(other),)


def problem_of(error: RuvakError) -> dict[str, Any]:
    """An error as it is kept with the work that raised it."""
    return {"code": error.code, "message": str(error), "faults": [vars(fault) for fault in error.faults]}


def _failed(problem: dict[str, Any]) -> WorkFailed:
    return WorkFailed(problem["code"], problem["message"], tuple(Fault(**fault) for fault in problem["faults"]))


def _answer_of(work: LongWorkRow) -> Any:
    if work.problem is not None:
        raise _failed(work.problem)
    if work.answer is None:
        raise StillWorking(work.rig_id, work.id)
    return gzip.decompress(work.answer)


def _known(session: Session, rig_id: str | None, work_id: str) -> LongWorkRow:
    work = store.find(session, work_id)
    if work is None or work.rig_id != rig_id:
        raise NotFound("There is no such work; it may have been done some time ago.")
    return work


def _key(*of: Any) -> str:
    text = json.dumps(of, sort_keys=True)
    return hashlib.sha256(text.encode()).hexdigest()
