"""Hum on screen: a laptop put on its charger hums, says why, and a common strip cures it; all of it undone by key."""

from tests.support.browser import BrowserTest

APOSTROPHE = "\N{RIGHT SINGLE QUOTATION MARK}"


class HumOnScreen(BrowserTest):
    def test_a_charger_brings_hum_and_a_common_strip_takes_it_away(self) -> None:
        self.open()
        page = self.page
        page.locator("button.remedy").first.click()
        page.get_by_text("Arrives whole").first.wait_for()
        page.get_by_text("earthed plug", exact=True).click()
        finding = self.run_card().locator(".finding", has_text="Hum and buzz")
        finding.wait_for()
        self.assertIn("different earths", finding.inner_text())
        table = page.locator(".hum table")
        table.get_by_text(f"earth of Slides laptop{APOSTROPHE}s outlet").wait_for()
        self.assertIn("nobody has named", page.locator(".hum .note").inner_text())
        ways = page.get_by_role("table", name="How it gets in")
        self.assertIn("in series with the programme", ways.locator("tr").first.inner_text())
        self.assertIn("clamp round M31", page.get_by_role("table", name="What meters would read").inner_text())
        self.assertEqual(self.serious(), [])
        page.get_by_label("Mains plug of Slides laptop").select_option("in another strip")
        page.get_by_label("Mains plug of Left speaker").locator("option", has_text="in Strip 1").wait_for(
            state="attached"
        )
        page.get_by_label("Mains plug of Left speaker").select_option("in Strip 1")
        table.get_by_text(f"earth of Slides laptop{APOSTROPHE}s plug").wait_for()
        page.locator(".hum .note").filter(has_not_text="nobody has named").wait_for()
        page.locator("h1").click()
        page.keyboard.press("u")
        page.locator(".hum .note", has_text="nobody has named").wait_for()
