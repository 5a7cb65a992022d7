"""Where computation runs: one process a core behind a bounded queue, so that small requests always answer."""

import signal
from collections.abc import Callable
from concurrent.futures import Future, ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool
from dataclasses import dataclass, field
from multiprocessing import get_context, parent_process
from threading import Lock, active_count
from typing import Any, Literal, Protocol, TypeVar

from ruvak.service.computer import Computer
from ruvak.service.kept import KeptRigs
from ruvak.service.memory import forget_where_full, search_seldom_for_cycles
from ruvak.service.problems import Busy
from ruvak.service.processes import end_with_parent, forget_signals
from ruvak.service.task import Task
from ruvak.store.database import engine_for, sessions_for

Answer = TypeVar("Answer")
QUEUE_EACH = 6
"""Tasks that may wait for one process; more are refused, so that nobody waits for minutes without knowing."""
MOST_TOGETHER = 40
"""Tasks that may wait or run on all of a machine's processes: each holds a thread of the web worker, which has more."""
LONGEST_S = 600.0


class Compute(Protocol):
    """Runs one use case of a Computer; `rig_id` chooses where, since a process remembers what it solved."""

    def run(self, rig_id: str, task: Task) -> Any:
        """What the task returns. Raises what it raises, and Busy."""
        ...

    def close(self) -> None:
        """Ends the processes."""
        ...


class InPlace:
    """In the calling thread: for tests and the command line."""

    def __init__(self, computer: Computer) -> None:
        self._computer = computer

    def run(self, rig_id: str, task: Callable[[Computer], Answer]) -> Answer:
        """At once."""
        return task(self._computer)

    def close(self) -> None:
        """Nothing to end."""


@dataclass
class _Lane:
    """One process and what waits for it."""

    executor: ProcessPoolExecutor
    waiting: int = 0
    lock: Lock = field(default_factory=Lock)


class ComputePool:
    """Processes of their own, each with a queue. A rig's tasks go to the same one as long as that is not behind."""

    def __init__(self, database_url: str, processes: int) -> None:
        self._url = database_url
        # A server that starts has imported everything and runs one thread: its copies are there at once, where new
        # processes would import for seconds just when others wait for the server to be back.
        how: Literal["fork", "spawn"] = "fork" if active_count() == 1 else "spawn"
        self._lanes = [_Lane(self._executor(how)) for _ in range(processes)]
        for lane in self._lanes:
            # So that the first visitor does not wait for it to start.
            lane.executor.submit(_ready)

    def run(self, rig_id: str, task: Callable[[Computer], Answer]) -> Answer:
        """What the task returns, once a process had time for it. Raises Busy where too many wait already."""
        lane = self._enter(rig_id)
        executor = lane.executor
        try:
            return self._submit(executor, task).result(timeout=LONGEST_S)
        except BrokenProcessPool:
            # Killed from outside, out of memory: a new one, and the task once more. All that waited come here; only
            # the first of them makes the new process, or the others would shut that down again.
            with lane.lock:
                if lane.executor is executor:
                    executor.shutdown(wait=False)
                    lane.executor = self._executor("spawn")
            return self._submit(lane.executor, task).result(timeout=LONGEST_S)
        finally:
            with lane.lock:
                lane.waiting -= 1

    def close(self) -> None:
        """Ends the processes at once: whoever stops the server does not wait for an analysis that nobody will see."""
        for lane in self._lanes:
            # As ProcessPoolExecutor.kill_workers() does from Python 3.14 on.
            processes = dict(lane.executor._processes or {})
            lane.executor.shutdown(wait=False, cancel_futures=True)
            for process in processes.values():
                process.kill()

    def _submit(self, executor: ProcessPoolExecutor, task: Callable[[Computer], Answer]) -> "Future[Answer]":
        return executor.submit(_run, task)

    def _enter(self, rig_id: str) -> _Lane:
        own = self._lanes[hash(rig_id) % len(self._lanes)]
        shortest = min(self._lanes, key=lambda lane: lane.waiting)
        lane = own if own.waiting <= shortest.waiting + 1 else shortest
        with lane.lock:
            if lane.waiting > QUEUE_EACH or sum(each.waiting for each in self._lanes) >= MOST_TOGETHER:
                raise Busy("More is being computed than this machine can queue just now; try again in a few seconds.")
            lane.waiting += 1
        return lane

    def _executor(self, how: Literal["fork", "spawn"]) -> ProcessPoolExecutor:
        return ProcessPoolExecutor(
            max_workers=1, mp_context=get_context(how), initializer=_start, initargs=(self._url,)
        )


class _Process:
    """What one compute process has: set once when it starts, used by every task."""

    computer: Computer | None = None


def _start(database_url: str) -> None:
    forget_signals()
    # A web worker that is killed must not leave its processes behind.
    if (parent := parent_process()) is not None and parent.pid is not None:
        end_with_parent(signal.SIGTERM, parent.pid)
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    _Process.computer = Computer(sessions_for(engine_for(database_url)), KeptRigs())
    search_seldom_for_cycles()


def _ready() -> None:
    """Imports are done when this has run."""


def _run(task: Callable[[Computer], Answer]) -> Answer:
    if _Process.computer is None:
        raise RuntimeError("A compute process was not started by its pool.")
    answer = task(_Process.computer)
    forget_where_full(_Process.computer)
    return answer
