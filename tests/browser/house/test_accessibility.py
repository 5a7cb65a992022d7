"""axe finds nothing, in both themes, on every view, at desk and phone width."""

from playwright.sync_api import expect

from tests.support.browser import BrowserTest


class Accessible(BrowserTest):
    def test_every_view_in_both_themes(self) -> None:
        for theme in ("booth", "daylight"):
            for path in (
                "/",
                "/pull",
                "/hook-up",
                "/check",
                "/doors",
                "/log",
                "/kit",
                "/venue",
                "/changes",
                "/rigs",
                "/you",
                "/nowhere",
            ):
                self.page.evaluate(f"localStorage.setItem('ruvak-theme', '{theme}')")
                self.open(path)
                self.page.reload()
                self.page.locator("main h2").first.wait_for()
                self.assertEqual(self.page.locator("html").get_attribute("data-theme"), theme)
                self.assertEqual(self.serious(), [], f"{theme} {path}")

    def test_with_a_preview_open_and_at_phone_width(self) -> None:
        self.remedy("Stereo line isolator").focus()
        self.assertEqual(self.serious(), [])
        context, page = self.visitor(390, 844, touch=True)
        page.goto(self.server.address)
        page.locator("button.remedy").first.tap()
        self.assertEqual(self.serious(page), [])
        context.close()

    def test_choosing_what_is_printed_and_typing_in_a_printed_sheet(self) -> None:
        self.open("/check")
        self.page.get_by_role("button", name="Print").click()
        self.page.get_by_role("form", name="Print").get_by_label("Labels").first.check()
        self.assertEqual(self.serious(), [])
        self.page.get_by_role("button", name="From paper").click()
        self.page.get_by_role("form", name="From paper").wait_for()
        self.assertEqual(self.serious(), [])

    def test_the_keys_dialog(self) -> None:
        self.page.get_by_role("button", name="Show the keys").click()
        expect(self.page.get_by_role("dialog")).to_be_visible()
        self.assertEqual(self.serious(), [])

    def test_the_theme_is_remembered(self) -> None:
        self.page.keyboard.press("t")
        self.assertEqual(self.page.locator("html").get_attribute("data-theme"), "daylight")
        self.page.reload()
        self.page.locator("main h2").first.wait_for()
        self.assertEqual(self.page.locator("html").get_attribute("data-theme"), "daylight")

    def test_nothing_scrolls_sideways_on_a_phone(self) -> None:
        context, page = self.visitor(360, 780)
        for path in ("/", "/pull", "/hook-up", "/check", "/doors", "/log", "/kit", "/changes", "/rigs"):
            page.goto(f"{self.server.address}/#{path}")
            page.locator("main h2").first.wait_for()
            wider = page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth")
            self.assertEqual(wider, 0, path)
        context.close()
