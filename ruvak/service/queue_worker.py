"""The process that does queued work: the queue library's worker with one Computer.

One a web worker is started when there is work for it, and looked after whenever somebody asks how far that is.
"""

import asyncio
import gzip
import logging
import os
import signal
import time
from collections.abc import Callable
from datetime import UTC, datetime
from multiprocessing import get_context, parent_process
from multiprocessing.context import SpawnProcess
from threading import Lock
from typing import Any

from procrastinate import App, JobContext, PsycopgConnector
from procrastinate.exceptions import JobAborted
from sqlalchemy import update
from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.errors import RuvakError
from ruvak.core.house import HouseDocument
from ruvak.core.progress import Progress, portion
from ruvak.service.computer import Computer
from ruvak.service.house_import import HouseImport
from ruvak.service.kept import KeptRigs
from ruvak.service.long_work import problem_of
from ruvak.service.memory import forget_where_full
from ruvak.service.processes import end_with_parent
from ruvak.service.states import Person
from ruvak.service.task import load_task
from ruvak.store import long_work as store
from ruvak.store.database import engine_for, sessions_for
from ruvak.store.tables import LongWorkRow

TOLD_EVERY_S = 0.2
"""Between two words about how far the work is."""
HEARTBEAT_S, LOST_AFTER_S = 2.0, 8.0
"""A worker of which nothing was heard for the second is taken for killed, and its job is done by another."""
READ_SHARE = 0.2
"""Of an import, about what reading the archive takes."""
NICENESS = 5
"""Short requests go first."""
ReadHouse = Callable[[bytes], HouseDocument]
"""Reads an exported house. Raises RuvakError."""
log = logging.getLogger("ruvak.queue")


class QueueWorkers:
    """The worker of this web worker."""

    def __init__(self, database_url: str, read_house: ReadHouse) -> None:
        self._arguments = (database_url, read_house)
        self._process: SpawnProcess | None = None
        self._lock = Lock()

    def ensure_running(self) -> None:
        """Starts it the first time, and again where it was killed."""
        with self._lock:
            if self._process is None or not self._process.is_alive():
                self._process = get_context("spawn").Process(target=work, args=self._arguments, daemon=True)
                self._process.start()

    def close(self) -> None:
        """Ends it at once; its job is taken up by another worker or asked for again."""
        with self._lock:
            if self._process is not None:
                self._process.kill()
                self._process.join()


class _Running:
    """The work that is being done."""

    def __init__(self, sessions: sessionmaker[Session]) -> None:
        self._sessions = sessions
        self._work_id, self._told_at = "", 0.0

    def begin(self, work_id: str) -> None:
        """From here on progress is this work's."""
        self._work_id, self._told_at = work_id, 0.0

    def tell(self, share: float) -> None:
        """Writes how far it is. Raises JobAborted where nobody wants it any longer."""
        if time.monotonic() < self._told_at + TOLD_EVERY_S:
            return
        with self._sessions.begin() as session:
            if not store.tell(session, self._work_id, share):
                raise JobAborted
        self._told_at = time.monotonic()


def work(database_url: str, read_house: ReadHouse) -> None:
    """What the process does until it is ended."""
    if (parent := parent_process()) is not None and parent.pid is not None:
        end_with_parent(signal.SIGKILL, parent.pid)
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    os.nice(NICENESS)
    asyncio.run(_work(queue_app(database_url, read_house)))


def queue_app(database_url: str, read_house: ReadHouse) -> App:
    """The queue library's application, with the one kind of job there is."""
    sessions, kept = sessions_for(engine_for(database_url)), KeptRigs()
    running = _Running(sessions)
    computer = Computer(sessions, kept, running.tell)
    app = App(connector=PsycopgConnector(conninfo=database_url.replace("+psycopg", ""), min_size=1, max_size=4))

    @app.task(name=store.JOB, queue=store.QUEUE, pass_context=True)
    def compute(_: JobContext, work_id: str) -> None:
        with sessions() as session:
            row = store.find(session, work_id)
        if row is None or row.cancelled or row.finished_at is not None:
            return
        running.begin(work_id)
        if row.upload is not None:
            _do(sessions, row, lambda: _import_house(sessions, kept, row, read_house, running.tell))
        else:
            _do(sessions, row, lambda: load_task(row.use_case, row.arguments, row.is_json)(computer))
        forget_where_full(computer)

    return app


def _import_house(
    sessions: sessionmaker[Session], kept: KeptRigs, row: LongWorkRow, read: ReadHouse, progress: Progress
) -> bytes:
    person_id, name = row.arguments
    progress(0.0)
    house = read(row.upload or b"")
    made = HouseImport(sessions, kept).add(house, Person(id=person_id, name=name), portion(progress, READ_SHARE, 1.0))
    return made.model_dump_json().encode()


def _do(sessions: sessionmaker[Session], row: LongWorkRow, what: Callable[[], Any]) -> None:
    """Does the work and keeps its answer, or why there is none."""
    answer, problem = None, None
    try:
        made = what()
        if isinstance(made, bytes):
            answer = gzip.compress(made, compresslevel=1)
    except RuvakError as refused:
        problem = problem_of(refused)
    except JobAborted:
        raise
    except Exception:
        log.exception("work failed: %s", row.use_case)
        problem = {"code": "internal", "message": UNEXPECTED, "faults": []}
    with sessions.begin() as session:
        values = {"share": 1.0, "answer": answer, "problem": problem, "upload": None, "finished_at": datetime.now(UTC)}
        session.execute(update(LongWorkRow).where(LongWorkRow.id == row.id).values(**values))


UNEXPECTED = "Something went wrong in the program, and it was logged. What was saved is safe."


async def _work(app: App) -> None:
    async with app.open_async():
        worker = app.run_worker_async(
            queues=[store.QUEUE],
            concurrency=1,
            delete_jobs="always",
            update_heartbeat_interval=HEARTBEAT_S,
            stalled_worker_timeout=LOST_AFTER_S,
            install_signal_handlers=False,
        )
        await asyncio.gather(worker, _take_up_lost(app))


async def _take_up_lost(app: App) -> None:
    """Jobs whose worker was killed wait again."""
    while True:
        for job in await app.job_manager.get_stalled_jobs(seconds_since_heartbeat=LOST_AFTER_S):
            await app.job_manager.retry_job(job)
        await asyncio.sleep(HEARTBEAT_S)
