"""Computation in processes of its own: the same answers and errors, a bounded queue, a killed process replaced."""

import os
import pickle
import signal
import threading
import time
import unittest
from functools import partial
from pathlib import Path
from queue import Queue
from tempfile import TemporaryDirectory

from ruvak.core.errors import BadEdit, Fault, RigFault, SingularNetwork
from ruvak.core.rig.edits import Edit, SetField, Touched
from ruvak.service import memory
from ruvak.service.computer import Computer
from ruvak.service.kept import KeptRigs
from ruvak.service.pool import QUEUE_EACH, ComputePool, InPlace
from ruvak.service.problems import Busy, Conflict, Meeting, NotCurrent, NotFound
from ruvak.service.states import Person
from ruvak.service.task import as_it_is, as_json
from ruvak.store.database import engine_for, sessions_for
from ruvak.web.app import create_app
from ruvak.web.settings import Settings
from tests.support.database import DatabaseTest, length
from tests.support.rigs import demo_rig


def process_id(computer: Computer) -> int:
    return os.getpid()


def wait_for(released: Path, computer: Computer) -> int:
    """Keep the process busy until the file is there, however slow the machine is."""
    while not released.exists():
        time.sleep(0.01)
    return os.getpid()


def limit(resident_bytes: int, computer: Computer) -> None:
    memory.MOST_RESIDENT_BYTES = resident_bytes


def kept_analyses(computer: Computer) -> int:
    return len(computer._analyses)


class Pool(DatabaseTest):
    pool: ComputePool
    rig_id: str

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.pool = ComputePool(cls.url, 1)
        cls.addClassCleanup(cls.pool.close)
        cls.rig_id = cls.rigs.import_rig(demo_rig(), Person(id="a", name="A")).rig.id

    def test_it_answers_what_the_same_task_answers_in_place(self) -> None:
        sessions = sessions_for(engine_for(self.url))
        here = InPlace(Computer(sessions, KeptRigs()))
        for task in (
            as_json("preview", self.rig_id, length(22.0)),
            as_json("read_lines", self.rig_id, "lectern > desk 4, 10 m"),
            as_it_is("overview", self.rig_id, "0.0"),
        ):
            self.assertEqual(self.pool.run(self.rig_id, task), here.run(self.rig_id, task))
        self.assertNotEqual(self.pool.run(self.rig_id, process_id), os.getpid())

    def test_a_process_that_holds_too_much_forgets_what_it_keeps_and_answers_the_same(self) -> None:
        preview = as_json("remedies", self.rig_id, "slides", True)
        before = self.pool.run(self.rig_id, preview)
        self.assertGreater(self.pool.run(self.rig_id, kept_analyses), 0)
        self.pool.run(self.rig_id, partial(limit, 0))
        self.addCleanup(self.pool.run, self.rig_id, partial(limit, memory.MOST_RESIDENT_BYTES))
        self.assertEqual(self.pool.run(self.rig_id, kept_analyses), 0)
        self.assertEqual(self.pool.run(self.rig_id, preview), before)

    def test_errors_come_back_as_they_were_raised(self) -> None:
        with self.assertRaises(NotFound):
            self.pool.run("ghost", as_json("preview", "ghost", length(22.0)))
        with self.assertRaises(NotCurrent) as gone:
            self.pool.run(self.rig_id, as_it_is("overview", self.rig_id, "7.7"))
        self.assertEqual(gone.exception.current_version, "0.0")
        wrong = Edit(label="x", ops=(SetField(kind="kit", id="lead-31", field="length_m", value=-1),))
        with self.assertRaises(BadEdit) as bad:
            self.pool.run(self.rig_id, as_json("preview", self.rig_id, wrong))
        self.assertEqual(bad.exception.where, "value")

    def test_a_killed_process_is_replaced(self) -> None:
        victim = self.pool.run(self.rig_id, process_id)
        os.kill(victim, signal.SIGKILL)
        self.assertNotEqual(self.pool.run(self.rig_id, process_id), victim)

    def test_more_than_the_queue_holds_is_refused_and_others_are_answered(self) -> None:
        answered: Queue[int] = Queue()
        refused: Queue[Busy] = Queue()
        folder = TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        released = Path(folder.name, "released")

        def ask() -> None:
            try:
                answered.put(self.pool.run(self.rig_id, partial(wait_for, released)))
            except Busy as busy:
                refused.put(busy)

        threads = [threading.Thread(target=ask) for _ in range(QUEUE_EACH + 4)]
        for thread in threads:
            thread.start()
        try:
            for _ in range(3):
                refused.get(timeout=60)
            self.assertEqual(answered.qsize(), 0)
        finally:
            # Also where that failed, or the threads would keep the test from ending.
            released.touch()
            for thread in threads:
                thread.join()
        self.assertEqual((answered.qsize(), refused.qsize()), (QUEUE_EACH + 1, 0))
        self.pool.run(self.rig_id, process_id)

    def test_over_http_busy_says_when_to_come_again(self) -> None:
        app = create_app(Settings(self.url, "test-secret", demo=True))
        cases = app.extensions["ruvak"]

        class Full:
            def run(self, rig_id: str, task: object) -> object:
                raise Busy("Full.")

        object.__setattr__(cases, "compute", Full())
        answer = app.test_client().get(f"/api/rigs/{self.rig_id}/runs/slides/remedies")
        self.assertEqual((answer.status_code, answer.get_json()["code"]), (503, "busy"))
        self.assertGreater(int(answer.headers["Retry-After"]), 0)


class Travelling(unittest.TestCase):
    def test_every_error_survives_the_way_between_processes(self) -> None:
        meeting = Meeting(Touched("kit", "a", "length_m"), 1.0, 2.0, "B", "2 m")
        for error in (
            RigFault((Fault("code", "gear[0]", "sentence"),)),
            BadEdit("value", "sentence"),
            SingularNetwork(("a", "b")),
            SingularNetwork(()),
            Conflict("sentence", "1.0", (meeting,)),
            NotCurrent("1.0"),
            NotFound("sentence"),
            Busy("sentence"),
        ):
            again = pickle.loads(pickle.dumps(error))
            self.assertEqual((type(again), str(again), vars(again)), (type(error), str(error), vars(error)))
