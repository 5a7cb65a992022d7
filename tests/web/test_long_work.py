"""Long work through the queue: asked for, followed, answered, cancelled, taken up after a kill."""

import os
import signal
import time
import unittest
from pathlib import Path
from typing import Any

from flask_openapi3 import OpenAPI
from sqlalchemy import select, text, update
from werkzeug.test import TestResponse

from ruvak.service.states import Person
from ruvak.store.tables import LongWorkRow
from ruvak.web.answers import EXTENSION, UseCases
from ruvak.web.app import create_app
from ruvak.web.settings import Settings
from tests.support.database import length
from tests.support.web import WebTest

WITHIN_S = 180.0


class LongWorkTest(WebTest):
    """Every analysis goes through the queue; all tests of a class have one worker, which takes seconds to start."""

    served: OpenAPI
    workers: Any

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.served = create_app(Settings(cls.url, "test-secret", demo=True, compute_processes=1, runs_at_once=0))
        use_cases: UseCases = cls.served.extensions[EXTENSION]
        assert use_cases.long_work is not None
        cls.workers = use_cases.long_work._workers
        cls.addClassCleanup(cls.workers.close)
        cls.addClassCleanup(use_cases.compute.close)

    def another_app(self) -> OpenAPI:
        return self.served

    def preview(self, length_m: float) -> TestResponse:
        op = {"op": "set", "kind": "kit", "id": "lead-31", "field": "length_m", "value": length_m}
        return self.post(f"/api/rigs/{self.rig_id}/preview", {"edit": {"label": "length", "ops": [op]}})

    def work(self, response: TestResponse) -> Any:
        return self.client.get(response.headers["Location"]).get_json()

    def finish(self, response: TestResponse) -> Any:
        """The state of the work once it is neither waiting nor running."""
        until = time.monotonic() + WITHIN_S
        while (state := self.work(response))["state"] in ("waiting", "running"):
            self.assertLess(time.monotonic(), until, state)
            time.sleep(0.05)
        return state

    def hold(self, response: TestResponse) -> int:
        """The worker stopped in the middle of this work; its process."""
        process: int = self.workers._process.pid
        until = time.monotonic() + WITHIN_S
        while self.work(response)["state"] == "waiting":
            self.assertLess(time.monotonic(), until)
            time.sleep(0.01)
        os.kill(process, signal.SIGSTOP)
        while self.someone_is_in_a_transaction():
            # Stopped there it would keep its locks, and what this test asks would wait for them for ever.
            self.assertLess(time.monotonic(), until)
            os.kill(process, signal.SIGCONT)
            time.sleep(0.005)
            os.kill(process, signal.SIGSTOP)
        # The next test has a worker that works.
        self.addCleanup(self.workers.close)
        return process

    def someone_is_in_a_transaction(self) -> bool:
        """Whether another connection to this database has one open."""
        question = (
            "SELECT count(*) FROM pg_stat_activity"
            " WHERE datname = current_database() AND xact_start IS NOT NULL AND pid <> pg_backend_pid()"
        )
        with self.sessions() as session:
            return bool(session.execute(text(question)).scalar_one())


class Answers(LongWorkTest):
    def test_the_request_sent_again_brings_what_would_have_been_answered_at_once(self) -> None:
        here = create_app(Settings(self.url, "test-secret", demo=True)).test_client()
        address = f"/api/rigs/{self.rig_id}/versions/{self.version()}/overview"
        at_once = here.get(address).get_json()
        with self.sessions.begin() as session:
            session.execute(text("TRUNCATE solved_part"))
        first = self.client.get(address)
        self.assertEqual((first.status_code, first.data), (202, b""))
        state = self.finish(first)
        self.assertEqual((state["state"], state["share"]), ("done", 1.0))
        self.assertRegex(state["words"], r"^Solving (1 run|\d+ runs)$")
        self.assertEqual(self.client.get(address).get_json(), at_once)

    def test_a_preview_and_remedies_come_back_too(self) -> None:
        first = self.preview(22.0)
        self.assertEqual(first.status_code, 202)
        self.finish(first)
        second = self.preview(22.0)
        self.assertEqual(second.status_code, 200)
        self.assertEqual(second.get_json()["edit"]["label"], "length")
        address = f"/api/rigs/{self.rig_id}/runs/slides/remedies"
        self.finish(self.client.get(address))
        self.assertTrue(self.client.get(address).get_json())

    def test_a_comparison_is_of_both_rigs_as_they_are_now(self) -> None:
        other = self.rigs.copy(self.rig_id, "Another", "", Person(id="a", name="A")).rig.id
        address = f"/api/rigs/{self.rig_id}/compare/{other}"
        self.assertEqual(self.finish(self.client.get(address))["words"], "Comparing two rigs, 2 runs together")
        before = self.client.get(address).get_json()
        self.edits.make(other, self.rigs.version(other).version, length(31.0), Person(id="a", name="A"))
        self.finish(self.client.get(address))
        self.assertNotEqual(self.client.get(address).get_json(), before)

    def test_those_who_ask_the_same_wait_for_the_same_work(self) -> None:
        locations = {self.preview(23.0).headers["Location"] for _ in range(3)}
        self.assertEqual(len(locations), 1)

    def test_what_the_work_raises_is_answered_as_it_would_have_been_at_once(self) -> None:
        self.finish(self.preview(-1.0))
        refused = self.preview(-1.0)
        self.assertEqual((refused.status_code, refused.get_json()["code"]), (422, "bad_edit"))
        self.assertTrue(refused.get_json()["message"])
        here = create_app(Settings(self.url, "test-secret", demo=True)).test_client()
        self.client, self.token = here, here.get("/api/session").get_json()["csrf_token"]
        self.assertEqual(refused.get_json()["faults"], self.preview(-1.0).get_json()["faults"])

    def test_typed_lines_are_read_at_once_at_any_size(self) -> None:
        read = self.post(f"/api/rigs/{self.rig_id}/lines", {"text": "lectern > desk 4, 10 m"})
        self.assertEqual(read.status_code, 200)

    def test_work_of_another_rig_or_of_none_is_not_there(self) -> None:
        work = self.preview(24.0).headers["Location"].rpartition("/")[2]
        for address in (f"/api/rigs/another/work/{work}", f"/api/rigs/{self.rig_id}/work/none"):
            self.assertEqual(self.client.get(address).status_code, 404)


class Cancelling(LongWorkTest):
    def test_cancelled_work_ends_and_asking_again_begins_anew(self) -> None:
        first = self.preview(25.0)
        process = self.hold(first)
        waiting = self.preview(26.0)
        self.assertEqual((self.work(waiting)["state"], self.work(waiting)["before"]), ("waiting", 1))
        for response in (first, waiting):
            self.assertEqual(self.client.delete(response.headers["Location"], headers=self.headers()).status_code, 204)
            self.assertEqual(self.work(response)["state"], "cancelled")
        again = self.preview(25.0)
        self.assertNotEqual(again.headers["Location"], first.headers["Location"])
        os.kill(process, signal.SIGCONT)
        self.assertEqual(self.finish(again)["state"], "done")
        self.assertEqual(self.preview(25.0).status_code, 200)
        with self.sessions() as session:
            self.assertEqual(session.execute(text("SELECT count(*) FROM procrastinate_jobs")).scalar_one(), 0)

    def headers(self) -> dict[str, str]:
        return {"X-CSRF-Token": self.token}


class HouseImports(LongWorkTest):
    def setUp(self) -> None:
        super().setUp()
        self.become(f"Owner {time.monotonic_ns()}", "owner")
        self.archive = self.client.get("/api/house").data

    def bring(self, archive: bytes) -> TestResponse:
        headers = {"X-CSRF-Token": self.token}
        return self.client.post("/api/house", data=archive, headers=headers, content_type="application/zip")

    def without_the_rig(self) -> None:
        self.assertEqual(
            self.client.delete(f"/api/rigs/{self.rig_id}", headers={"X-CSRF-Token": self.token}).status_code, 204
        )

    def test_it_tells_how_far_it_is_and_the_archive_sent_again_brings_what_was_added(self) -> None:
        self.without_the_rig()
        first = self.bring(self.archive)
        self.assertEqual(first.status_code, 202)
        self.assertRegex(first.headers["Location"], r"^/api/house/work/[^/]+$")
        state = self.finish(first)
        self.assertEqual((state["words"], state["state"], state["rig_id"]), ("Importing a house", "done", None))
        with self.sessions() as session:
            self.assertEqual(
                session.scalars(select(LongWorkRow.upload).where(LongWorkRow.rig_id.is_(None))).all(), [None]
            )
        self.assertEqual(self.bring(self.archive).get_json()["rigs"], 1)
        self.finish(self.bring(self.archive))
        self.assertEqual(self.bring(self.archive).get_json()["rigs"], 0)

    def test_a_file_that_is_no_house_is_refused_as_it_would_have_been_at_once(self) -> None:
        self.finish(self.bring(b"nonsense"))
        refused = self.bring(b"nonsense")
        self.assertEqual((refused.status_code, refused.get_json()["code"]), (422, "bad_house"))

    def test_one_that_is_cancelled_or_whose_worker_is_killed_is_gone_on_with(self) -> None:
        self.without_the_rig()
        first = self.bring(self.archive)
        process = self.hold(first)
        self.client.delete(first.headers["Location"], headers={"X-CSRF-Token": self.token})
        cancelled = self.work(first)
        self.assertEqual(cancelled["state"], "cancelled")
        self.assertIn("import the same file again", cancelled["when_cancelled"])
        second = self.bring(self.archive)
        self.assertNotEqual(second.headers["Location"], first.headers["Location"])
        os.kill(process, signal.SIGKILL)
        self.workers._process.join()
        self.assertEqual(self.finish(second)["state"], "done")
        self.assertEqual(self.client.get(f"/api/rigs/{self.rig_id}").status_code, 200)

    def test_nobody_but_an_owner_sees_it(self) -> None:
        first = self.bring(self.archive)
        self.become(f"Technician {time.monotonic_ns()}")
        self.assertEqual(self.client.get(first.headers["Location"]).status_code, 403)


class Kills(LongWorkTest):
    def test_work_of_a_killed_worker_is_done_by_the_next(self) -> None:
        first = self.preview(27.0)
        os.kill(self.hold(first), signal.SIGKILL)
        self.workers._process.join()
        self.assertEqual(self.finish(first)["state"], "done")
        self.assertEqual(self.preview(27.0).status_code, 200)

    def test_a_job_that_the_queue_has_lost_is_asked_for_again(self) -> None:
        with self.sessions.begin() as session:
            session.execute(text("TRUNCATE solved_part"))
        first = self.preview(28.0)
        self.hold(first)
        with self.sessions.begin() as session:
            session.execute(update(LongWorkRow).values(job_id=0))
        self.assertEqual(self.work(first)["state"], "cancelled")


class QueueSchema(unittest.TestCase):
    def test_the_migration_makes_the_tables_of_the_version_that_is_installed(self) -> None:
        import procrastinate

        from ruvak.store import migrations

        own = Path(next(iter(migrations.__path__))) / f"procrastinate-{procrastinate.__version__}.sql"
        shipped = Path(procrastinate.__file__).with_name("sql") / "schema.sql"
        self.assertEqual(own.read_text(), shipped.read_text())
