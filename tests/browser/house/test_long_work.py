"""Work that takes long, on screen: what is computed, how far it is, and a way to end it."""

import tempfile
import time
from pathlib import Path
from typing import ClassVar

from playwright.sync_api import expect
from sqlalchemy import create_engine, text

from script.shared.web_server import WebServer
from tests.support.browser import BrowserTest, start_application
from tests.support.people import signed_in

WITHIN_S = 60.0


class QueueTest(BrowserTest):
    """A server that computes everything through its queue, with a worker that no other test has."""

    url: ClassVar[str]
    queued: ClassVar[WebServer]

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        folder = tempfile.TemporaryDirectory()
        cls.addClassCleanup(folder.cleanup)
        cls.url = start_application().url
        cls.queued = WebServer(cls.url, Path(folder.name) / "web.log", RUVAK_RUNS_AT_ONCE="0")
        cls.queued.start()
        cls.addClassCleanup(cls.queued.stop)
        cls.server = cls.queued

    def setUp(self) -> None:
        self.wait_until_nothing_waits()
        with self.sessions.begin() as session:
            session.execute(text("TRUNCATE solved_part, long_work"))
        super().setUp()

    def wait_until_nothing_waits(self) -> None:
        """What an earlier test asked for is done, or ended."""
        until = time.monotonic() + WITHIN_S
        while time.monotonic() < until:
            with self.sessions() as session:
                if not session.execute(text("SELECT count(*) FROM procrastinate_jobs")).scalar_one():
                    return
            time.sleep(0.2)

    def open(self, path: str = "/") -> None:
        """Not yet: the worker is started by the first that asks, and shall be held then."""


class LongWork(QueueTest):
    def test_it_is_shown_cancelled_and_asked_for_again(self) -> None:
        with create_engine(self.url).begin() as holding:
            # A worker signs in at this table before it takes anything on.
            holding.execute(text("LOCK TABLE procrastinate_workers IN SHARE MODE"))
            self.page.goto(self.server.address)
            panel = self.page.get_by_role("region", name="Being computed")
            expect(panel).to_contain_text("Solving 1 run")
            expect(panel).to_contain_text("about to start")
            panel.get_by_role("button", name="Cancel").click()
            notice = self.page.get_by_role("alert")
            expect(notice).to_contain_text("cancelled. Nothing that was saved is lost.")
            expect(panel).to_have_count(0)
        notice.get_by_role("button", name="Try again").click()
        expect(self.run_card()).to_be_visible()
        expect(notice).to_have_count(0)


class HouseImport(QueueTest):
    def test_a_house_is_imported_with_its_progress_and_a_way_to_end_it(self) -> None:
        token = signed_in(self.sessions, "Iris the owner", "owner")
        self.page.context.add_cookies([{"name": "ruvak_sign_in", "value": token, "url": self.server.address}])
        self.page.goto(f"{self.server.address}/#/people")
        with self.page.expect_download() as exported:
            self.page.get_by_role("link", name="Export the house").click()
        archive = exported.value.path()
        panel = self.page.get_by_role("region", name="Being computed")
        with create_engine(self.url).begin() as holding:
            holding.execute(text("LOCK TABLE procrastinate_workers IN SHARE MODE"))
            self.page.get_by_label("Import a house").set_input_files(archive)
            work = panel.locator(".work", has_text="Importing a house")
            work.get_by_role("button", name="Cancel").click()
            expect(self.page.get_by_text("import the same file again to add the rest")).to_be_visible()
        self.page.get_by_label("Import a house").set_input_files(archive)
        expect(self.page.get_by_text("Added: 0 rigs, 0 dates")).to_be_visible()
