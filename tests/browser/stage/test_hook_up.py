"""The hook-up at the browser: two devices share it; done, skipped with a note, taken back."""

from playwright.sync_api import expect

from tests.support.browser import BrowserTest


class Together(BrowserTest):
    def test_what_one_does_the_other_sees_and_what_is_taken_back_is_open_again(self) -> None:
        self.open("/rigs/lantern-evening/hook-up")
        context, phone = self.visitor(390, 844, touch=True)
        phone.goto(f"{self.server.address}/#/rigs/lantern-evening/hook-up")
        first = self.page.locator("ol li").first
        first.get_by_role("button", name="Done").click()
        expect(self.page.locator("main header")).to_contain_text("1 of ")
        there = phone.locator("ol li").first
        expect(there).to_contain_text("done, Demo technician")
        second = phone.locator("ol li").nth(1)
        second.get_by_role("button", name="Skip").click()
        second.get_by_label("Why it is skipped").fill("on its own supply")
        second.get_by_role("button", name="Skip it").click()
        expect(self.page.locator("ol li").nth(1)).to_contain_text("skipped: on its own supply")
        self.assertEqual(self.serious(), [])
        self.assertEqual(self.serious(phone), [])
        self.assertLessEqual(phone.evaluate("document.documentElement.scrollWidth"), 390)
        there.get_by_role("button", name="Take back").click()
        expect(first.get_by_role("button", name="Done")).to_be_visible()
        self.page.get_by_role("button", name="Take down").click()
        expect(self.page.locator("ol li").first).to_contain_text("Mute every channel")
        context.close()
