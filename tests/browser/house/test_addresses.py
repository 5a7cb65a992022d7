"""Every rig, station and run has an address that can be sent to somebody and survives reload and Back."""

from playwright.sync_api import expect

from tests.support.browser import SOMEBODY, BrowserTest
from tests.support.rigs import demo_rig


class Addresses(BrowserTest):
    demo = "midwinter-concert"

    def at(self, path: str) -> None:
        expect(self.page).to_have_url(f"{self.server.address}/#{path}")

    def expect_selected(self, run: str) -> None:
        expect(self.page.locator("article[aria-current='true']")).to_have_attribute("data-run", run)

    def test_the_plain_address_leads_to_the_rig(self) -> None:
        self.at("/rigs/midwinter-concert/runs")
        self.expect_selected("choir-4")

    def test_a_run_has_an_address_that_survives_reload_and_back(self) -> None:
        page = self.page
        self.expect_selected("choir-4")
        page.get_by_role("button", name="Worst first").click()
        for run in ("slides", "stream"):
            page.keyboard.press("Escape")
            page.locator(f"article[data-run='{run}'] button.pick-run").click()
            self.at(f"/rigs/midwinter-concert/runs/{run}")
            self.expect_selected(run)
        page.reload()
        self.expect_selected("stream")
        page.go_back()
        self.expect_selected("slides")
        page.go_back()
        self.at("/rigs/midwinter-concert/runs")
        self.expect_selected("choir-4")
        page.go_forward()
        self.expect_selected("slides")

    def test_stations_have_addresses_and_the_selection_waits(self) -> None:
        page = self.page
        self.open_run("keys")
        self.expect_selected("keys")
        page.get_by_role("link", name="Kit").click()
        self.at("/rigs/midwinter-concert/kit")
        page.reload()
        page.locator("main h2").first.wait_for()
        expect(page.get_by_role("link", name="Kit")).to_have_attribute("aria-current", "page")
        page.go_back()
        self.expect_selected("keys")
        page.keyboard.press("c")
        self.at("/rigs/midwinter-concert/changes")
        page.keyboard.press("g")
        self.at("/rigs")

    def test_an_address_opens_in_a_browser_that_had_another_rig_open(self) -> None:
        self.rigs.import_rig(demo_rig("lantern-evening"), SOMEBODY)
        self.page.goto(f"{self.server.address}/#/rigs/lantern-evening/runs/slides")
        expect(self.page.get_by_role("heading", name="Lantern Evening")).to_be_visible()
        self.expect_selected("slides")
        self.page.goto(f"{self.server.address}/#/kit")
        self.at("/rigs/lantern-evening/kit")
        self.page.go_back()
        self.at("/rigs/lantern-evening/runs/slides")
        self.page.go_back()
        expect(self.page.get_by_role("heading", name="Midwinter Concert")).to_be_visible()

    def test_arrow_keys_walk_on_from_the_selected_run(self) -> None:
        self.expect_selected("choir-4")
        self.page.keyboard.press("ArrowUp")
        self.expect_selected("choir-3")
        self.at("/rigs/midwinter-concert/runs/choir-3")

    def test_going_back_is_not_caught_by_a_short_address(self) -> None:
        self.page.goto(f"{self.server.address}/#/rigs")
        self.page.goto(f"{self.server.address}/#/rigs/midwinter-concert")
        self.at("/rigs/midwinter-concert/runs")
        self.page.go_back()
        self.at("/rigs")

    def test_a_rig_that_is_not_here_says_so_and_leads_on(self) -> None:
        page = self.page
        self.open("/rigs/last-year/runs")
        expect(page.locator("main")).to_contain_text("There is no rig “last-year” here")
        page.get_by_role("link", name="See the rigs there are").click()
        expect(page.get_by_role("heading", name="Rigs")).to_be_visible()
        page.goto(self.server.address)
        expect(page.get_by_role("heading", name="Midwinter Concert")).to_be_visible()

    def test_a_broken_address_and_a_run_that_is_gone(self) -> None:
        self.open("/rigs/%E0%A4/runs")
        expect(self.page.locator("main")).to_contain_text("nothing at this address")
        self.page.goto(f"{self.server.address}/#/rigs/midwinter-concert/runs/long-gone")
        self.expect_selected("choir-4")

    def test_skipping_to_the_runs_moves_the_focus_and_stays(self) -> None:
        self.open("/rigs/midwinter-concert/kit")
        self.page.locator("main h2").first.wait_for()
        self.page.locator(".skip").focus()
        self.page.keyboard.press("Enter")
        expect(self.page.locator("main")).to_be_focused()
        self.at("/rigs/midwinter-concert/kit")
