"""The hook-up at the browser: two devices share it; done, skipped with a note, taken back."""

from playwright.sync_api import expect

from tests.support.browser import SOMEBODY, BrowserTest
from tests.support.rigs import demo_rig


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

    def test_it_goes_on_without_a_network_and_is_sent_when_that_is_back(self) -> None:
        rig = self.rigs.import_rig(demo_rig("lantern-evening"), SOMEBODY).rig.id
        context, phone = self.visitor(390, 844, touch=True)
        self.addCleanup(context.close)
        phone.goto(f"{self.server.address}/#/rigs/{rig}/check")
        phone.locator("article.card").wait_for()
        expect(phone.get_by_text("Getting ready to go on without a network")).to_have_count(0)
        phone.evaluate("navigator.serviceWorker.ready.then(() => true)")
        context.set_offline(True)
        phone.close()
        phone = context.new_page()
        phone.goto(f"{self.server.address}/#/rigs/{rig}/hook-up")
        first = phone.locator("ol li").first
        first.get_by_role("button", name="Done").tap()
        expect(first).to_contain_text("done, this device")
        expect(phone.get_by_text("1 answer is kept on this device")).to_be_visible()
        phone.get_by_role("link", name="Doors").tap()
        expect(phone.get_by_text("not good yet")).to_be_visible()
        self.assertEqual(self.serious(phone), [])
        phone.get_by_role("link", name="Hook-up").tap()
        context.set_offline(False)
        expect(phone.get_by_text("kept on this device")).to_have_count(0)
        expect(first).to_contain_text("done, Demo technician")
