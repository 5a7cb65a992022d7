"""The first visit: a concert with eleven faults, the worst in sight, every figure able to tell where it is from."""

from playwright.sync_api import expect

from ruvak.core.judge.sentences import MINUS
from tests.support.browser import BrowserTest


class FirstVisit(BrowserTest):
    demo = "midwinter-concert"

    def setUp(self) -> None:
        super().setUp()
        self.page.locator("article[data-run='choir-4']").wait_for()

    def selected(self) -> str:
        return self.page.locator("article[aria-current='true']").get_attribute("data-run") or ""

    def test_it_opens_on_the_worst_run_and_its_cure_is_one_key_away(self) -> None:
        page = self.page
        self.assertEqual(self.selected(), "choir-4")
        self.assertTrue(page.locator("article[data-run='choir-4']").is_visible())
        self.remedy("Phantom, mic 8 on").click()
        page.locator("article[data-run='choir-4'] .finding", has_text="Arrives whole").wait_for()
        self.assertEqual(self.serious(), [])

    def test_worst_first_brings_the_stops_to_the_top(self) -> None:
        page = self.page
        page.get_by_role("button", name="Worst first").click()
        page.keyboard.press("Escape")
        page.locator("h2", has_text="Fix").wait_for()
        runs = page.locator("article[data-run]").evaluate_all("all => all.map((one) => one.dataset.run)")
        self.assertEqual(set(runs[:3]), {"choir-4", "radio-mic", "slides"})
        self.expect_runs(31)

    def test_what_nobody_has_said_leads_to_where_it_can_be_said(self) -> None:
        page = self.page
        page.locator(".assumed summary").click()
        page.locator(".assumed").get_by_role("button", name="Keys").click()
        page.locator("article[data-run='keys'][aria-current='true']").wait_for()
        page.locator("article[data-run='keys']").get_by_text("two-pin plug", exact=True).wait_for()

    def test_a_figure_tells_its_formula_and_its_inputs(self) -> None:
        page = self.page
        self.open_run("stream")
        figure = page.get_by_role("button", name="Hum under the programme")
        self.click_steady(figure)
        box = page.locator(".how-box:visible")
        box.get_by_text(f"arrives {MINUS} hum").wait_for()
        self.assertIn("IEC 61672-1", box.inner_text())
        self.assertEqual(self.serious(), [])

    def test_every_loudspeaker_of_a_row_has_its_figures(self) -> None:
        page = self.page
        self.open_run("foyer")
        strip = page.locator("article[data-run='foyer'] .strip")
        expect(strip.locator("text.arrives")).to_have_text(["38.5 W", "38.0 W", "37.6 W", "37.5 W"])
        told = page.get_by_role("group", name="Input told in figures")
        self.click_steady(told.get_by_role("button", name="Foyer 3"))
        page.locator(".details caption", has_text="Power at Foyer 3").wait_for()
        self.assertEqual(page.locator("article[data-run='foyer'] .of-input").inner_text(), "Foyer 3")
        controls = page.locator("article[data-run='foyer'] .in-place")
        controls.get_by_text("Foyer 4: Tap").wait_for()
        self.assertEqual(self.serious(), [])

    def test_data_is_told_by_its_line_and_not_by_levels(self) -> None:
        page = self.page
        self.open_run("lights")
        page.locator("caption", has_text="what comes back of every edge").wait_for()
        self.assertEqual(page.locator("article[data-run='lights'] .ladder").count(), 0)
        self.click_steady(page.get_by_role("button", name="Sent back by the line"))
        page.locator(".how-box:visible").get_by_text("reflection of a voltage wave").wait_for()
        self.click_steady(page.locator("article[data-run='lights'] .in-place").get_by_text("off", exact=True))
        page.locator("article[data-run='lights'] .finding", has_text="Nothing ends the line").wait_for()
        self.assertEqual(self.serious(), [])

    def test_only_switches_of_the_sockets_in_use_are_shown(self) -> None:
        shown = self.open_run("choir-4").locator(".in-place")
        shown.get_by_text("Phantom, mic 8").wait_for()
        self.assertEqual(shown.get_by_text("Phantom, mic 9").count(), 0)
        self.assertEqual(shown.get_by_text("Aux 3 fader").count(), 0)

    def test_an_isolator_for_the_stream_says_what_it_does_to_others(self) -> None:
        page = self.page
        self.open_run("stream")
        card = self.remedy("Stereo line isolator, RCA")
        card.wait_for()
        card.focus()
        self.assertIn("hum under programme", card.inner_text())
        card.click()
        page.locator("article[data-run='stream'] .finding", has_text="Arrives whole").wait_for()
