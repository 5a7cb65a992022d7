"""The real interface in headless Chromium, served by gunicorn on a database of its own."""

import atexit
import contextlib
import os
import tempfile
import unittest
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Any, ClassVar

from playwright.sync_api import (
    Browser,
    BrowserContext,
    Error,
    Locator,
    Page,
    ViewportSize,
    expect,
    sync_playwright,
)
from sqlalchemy import text
from sqlalchemy.orm import Session, sessionmaker

from ruvak.service.edits import Edits
from ruvak.service.rigs import Rigs
from ruvak.service.states import Person
from ruvak.service.upkeep import migrate
from ruvak.store.database import engine_for, sessions_for
from script.shared.open_run import open_run, wait_until_steady
from script.shared.two_servers import TwoServers
from script.shared.web_server import ARGUMENTS, CHROMIUM, WebServer
from tests.support.database import new_database, process_at
from tests.support.rigs import demo_rig

AXE = Path("frontend/node_modules/axe-core/axe.min.js")
TWO_SERVERS = "RUVAK_TEST_TWO_SERVERS"
"""Set, the tests run against two servers behind nginx, of which one after the other is killed (script/two-servers)."""
DESK: ViewportSize = {"width": 1280, "height": 800}
SOMEBODY = Person(id="somebody", name="Somebody else")


# Waiting longer costs nothing when all is well, and a busy machine must not decide a test.
expect.set_options(timeout=120_000)


@dataclass(frozen=True)
class Served:
    """The application on a migrated database, and the browser that looks at it."""

    url: str
    server: WebServer | TwoServers
    browser: Browser
    at_end: contextlib.ExitStack
    """Whatever else is to be stopped when all tests are done."""


@cache
def start_application() -> Served:
    """Starts it when the first browser test asks, for all of them: a start takes longer than most tests."""
    ending = contextlib.ExitStack()
    atexit.register(ending.close)
    folder = ending.enter_context(tempfile.TemporaryDirectory())
    url = new_database()
    migrate(url)
    log = Path(folder) / "web.log"
    server: WebServer | TwoServers = WebServer(url, log)
    if os.environ.get(TWO_SERVERS):
        server = TwoServers(url, log)
    server.start()
    if isinstance(server, TwoServers):
        server.keep_killing()
    ending.callback(server.stop)
    playwright = ending.enter_context(sync_playwright())
    sandbox = os.geteuid() != 0
    browser = playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS, chromium_sandbox=sandbox)
    ending.callback(browser.close)
    return Served(url, server, browser, ending)


_EMPTY_STORAGE = """async () => {
    localStorage.clear();
    sessionStorage.clear();
    for (const { name } of await indexedDB.databases())
        await new Promise((done) => (indexedDB.deleteDatabase(name).onsuccess = done));
    for (const worker of await navigator.serviceWorker.getRegistrations()) await worker.unregister();
    for (const name of await caches.keys()) await caches.delete(name);
}"""


@dataclass
class _Window:
    """A browser's window for all tests: a new one would compile the whole interface once more for each of them."""

    context: BrowserContext
    page: Page

    def empty(self, address: str) -> None:
        """As a browser that was never here. Raises Error where it does not answer any longer."""
        self.page.unroute_all(behavior="ignoreErrors")
        self.page.set_viewport_size(DESK)
        # A page of the same address without the interface, which would write down what it has when it is left.
        self.page.goto(f"{address}/favicon.svg")
        self.page.evaluate(_EMPTY_STORAGE)
        self.context.clear_cookies()


class BrowserTest(unittest.TestCase):
    """`page` on a fresh copy of a demo rig at 1280x800, with every console error collected."""

    demo: ClassVar[str] = "lantern-evening"
    rigs: ClassVar[Rigs]
    edits: ClassVar[Edits]
    sessions: ClassVar[sessionmaker[Session]]
    server: ClassVar[WebServer | TwoServers]
    browser: ClassVar[Browser]
    window: ClassVar[_Window | None] = None

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        served = start_application()
        cls.server, cls.browser = served.server, served.browser
        cls.rigs, cls.edits = process_at(served.url)
        cls.sessions = sessions_for(engine_for(served.url))

    def setUp(self) -> None:
        with self.sessions.begin() as session:
            for table in ("cupboard_item", "cupboard_change", "occasion", "holder"):
                session.execute(text(f"DELETE FROM {table}"))
        self.rigs.import_rig(demo_rig(self.demo), SOMEBODY)
        self.trouble: list[str] = []
        self.page = self._emptied_window().page
        self._listen(self.page)
        self.open()

    def tearDown(self) -> None:
        self.assertEqual(self.trouble, [])

    def _emptied_window(self) -> _Window:
        """The window of all tests, or a new one in place of one that is not to be used any longer."""
        if BrowserTest.window is not None:
            try:
                BrowserTest.window.empty(self.server.address)
            except Error:
                BrowserTest.window.context.close()
                BrowserTest.window = None
        if BrowserTest.window is None:
            BrowserTest.window = _Window(*self._new_window(DESK, False))
        return BrowserTest.window

    def _new_window(self, size: ViewportSize, touch: bool) -> tuple[BrowserContext, Page]:
        context = self.browser.new_context(viewport=size, has_touch=touch, reduced_motion="reduce")
        page = context.new_page()
        page.set_default_timeout(120_000)
        return context, page

    def _listen(self, page: Page) -> None:
        """To what it says and asks for, until this test has ended."""
        listeners: dict[Any, Any] = {
            "console": lambda message: self._note(message.type, message.text),
            "pageerror": lambda error: self.trouble.append(str(error)),
            "request": lambda request: self._local(request.url),
        }
        for event, listener in listeners.items():
            page.on(event, listener)
            self.addCleanup(page.remove_listener, event, listener)

    def visitor(self, width: int = 1280, height: int = 800, touch: bool = False) -> tuple[BrowserContext, Page]:
        """Another browser profile; closed by whoever asks for it."""
        context, page = self._new_window({"width": width, "height": height}, touch)
        self._listen(page)
        return context, page

    def _note(self, kind: str, text: str) -> None:
        # A refused or unanswered request is part of some tests; the page itself must not err.
        if kind in ("error", "warning") and "Failed to load resource" not in text:
            self.trouble.append(text)

    def _local(self, url: str) -> None:
        if not url.startswith((self.server.address, "data:", "blob:")):
            self.trouble.append(f"asked for {url}")

    def open(self, path: str = "/") -> None:
        """Goes to a station and waits for what it shows, until that has its sizes."""
        self.page.goto(f"{self.server.address}/#{path}")
        shown = self.page.locator("main h2, main article").first
        shown.wait_for()
        opened = self.page.locator("main article.open")
        if opened.count():
            opened.locator(".details, .brief").first.wait_for()
            wait_until_steady(opened)

    def run_card(self) -> Locator:
        """The demo's only run."""
        return self.page.locator("article[data-run='slides']")

    def open_run(self, run: str) -> Locator:
        """Its line, opened by its address."""
        return open_run(self.page, run)

    def click_steady(self, element: Locator) -> None:
        """Brings it into sight and clicks when the list has stopped moving: a press that ends elsewhere is no click."""
        element.scroll_into_view_if_needed()
        wait_until_steady(element)
        element.click()

    def expect_runs(self, count: int) -> None:
        """As the list counts them."""
        expect(self.page.locator(".above .count")).to_have_text("1 run" if count == 1 else f"{count} runs")

    def remedy(self, words: str) -> Locator:
        """The card of a remedy, by words in it."""
        return self.page.locator("button.remedy", has_text=words).first

    def serious(self, page: Page | None = None) -> Sequence[str]:
        """What axe finds, rule and place."""
        page = page or self.page
        page.evaluate(AXE.read_text(encoding="utf-8"))
        found = page.evaluate("async () => (await axe.run()).violations")
        return [f"{one['id']}: {node['target']} {node['failureSummary']}" for one in found for node in one["nodes"]]
