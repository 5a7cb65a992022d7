"""Two servers behind nginx on one database: one of them is killed in the middle of somebody's work."""

import tempfile
from pathlib import Path

from playwright.sync_api import expect

from script.shared.two_servers import TwoServers
from tests.support.browser import BrowserTest, start_application


class TwoOfThem(BrowserTest):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.both = TwoServers(start_application().url, Path(folder.name) / "web.log")
        self.addCleanup(self.both.stop)
        self.both.start()
        super().setUp()

    def _local(self, url: str) -> None:
        if not url.startswith(self.both.address):
            super()._local(url)

    def test_nothing_that_was_typed_is_lost_and_nothing_is_there_twice(self) -> None:
        page = self.page
        page.goto(f"{self.both.address}/#/rigs/lantern-evening/runs")
        page.locator("main article").first.wait_for()
        typed = 0
        for killed in (0, 1):
            self.both.kill(killed)
            for _ in range(2):
                typed += 1
                line = page.get_by_label("Type a run", exact=True)
                line.fill(f"tenor {typed} > desk {typed}, 10 m")
                expect(page.locator("#understood")).to_contain_text("Add this run")
                line.press("Enter")
                expect(page.locator(f"article[data-run=tenor-{typed}]")).to_be_visible()
                expect(page.get_by_role("status").first).to_contain_text("Saved")
            self.both.revive(killed)
        names = [run.name for run in self.rigs.export("lantern-evening").runs]
        self.assertEqual(
            sorted(name for name in names if name.startswith("Tenor")), [f"Tenor {n}" for n in (1, 2, 3, 4)]
        )
