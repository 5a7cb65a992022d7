"""The pull list at the browser: what is short, what is taken, what is packed."""

from playwright.sync_api import expect

from ruvak.service.cupboard import Cupboard
from ruvak.service.kept import KeptRigs
from tests.support.browser import SOMEBODY, BrowserTest


class PullList(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.cupboard = Cupboard(self.sessions, KeptRigs(), self.edits)

    def type(self, line: str) -> None:
        self.page.locator("#line").fill(line)
        expect(self.page.locator("#understood")).to_contain_text("Enter")
        self.page.keyboard.press("Enter")
        expect(self.page.locator("#line")).to_have_value("")

    def test_a_shortage_is_named_and_cured_from_the_cupboard_and_packed(self) -> None:
        self.type("second mic > desk 2, 45 m")
        self.open("/rigs/lantern-evening/pull")
        short = self.page.get_by_role("region", name="To borrow or buy")
        expect(short).to_contain_text("Microphone lead, 50 m")
        self.assertEqual(self.serious(), [])
        self.cupboard.add("Van:\nK1-K2: 25 m mic leads", SOMEBODY)
        self.page.reload()
        row = self.page.locator("ol.rows li", has_text="K1")
        expect(row).to_contain_text("M33")
        expect(self.page.locator("main header")).to_contain_text("1 join of two")
        self.page.get_by_role("button", name="Take these leads").click()
        expect(self.page.locator("main")).to_contain_text("The runs go through these leads already.")
        van = self.page.get_by_role("region", name="Van")
        van.get_by_label("Microphone lead, 25 m").check()
        self.page.reload()
        expect(van.get_by_label("Microphone lead, 25 m")).to_be_checked()
        tags = {item.tag for item in self.rigs.export("lantern-evening").kit}
        self.assertIn("K1", tags)

    def test_on_a_phone_it_reads_without_scrolling_sideways(self) -> None:
        context, page = self.visitor(390, 844, touch=True)
        page.goto(f"{self.server.address}/#/rigs/lantern-evening/pull")
        page.locator("ol.rows li").first.wait_for()
        self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), 390)
        self.assertEqual(self.serious(page), [])
        context.close()
