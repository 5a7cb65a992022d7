"""The kit station: typed in, looked through, parts of one's own."""

from playwright.sync_api import expect

from tests.support.browser import BrowserTest

TIMES = "\N{MULTIPLICATION SIGN}"


class Kit(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.page.get_by_role("link", name="Kit").click()
        self.page.get_by_role("heading", name="Kit", exact=True).wait_for()

    def shelf(self, name: str, length: str) -> str:
        return self.page.locator("summary", has_text=name).filter(has_text=length).first.inner_text()

    def test_six_leads_are_said_back_added_and_taken_back(self) -> None:
        before = self.page.locator("summary", has_text="Microphone lead").filter(has_text="12.5").count()
        self.assertEqual(before, 0)
        self.page.get_by_label("Add to this rig's kit").fill("about six 12.5 m microphone leads\nmic leads")
        expect(self.page.locator(".said")).to_contain_text(f"6 {TIMES} Microphone lead, 12.5 m")
        expect(self.page.locator(".said")).to_contain_text("How long?")
        self.page.get_by_role("button", name="Add 6 pieces, keep 1 to mend").click()
        expect(self.page.get_by_label("Add to this rig's kit")).to_have_value("mic leads")
        self.assertIn("6 of 6 free", self.shelf("Microphone lead", "12.5"))
        self.page.get_by_role("button", name="Undo").click()
        expect(self.page.locator("summary").filter(has_text="12.5")).to_have_count(0)

    def test_a_part_of_ones_own_can_be_typed_into_the_kit(self) -> None:
        self.page.get_by_label("Begin with").select_option("mic-lead")
        editor = self.page.locator(".editor")
        editor.get_by_label("Name").fill("Long grey lead")
        editor.get_by_label("Also called").fill("grey lead")
        editor.get_by_label("cable 1 core resistance").fill("0.2")
        editor.get_by_label("cable 1 core resistance").blur()
        editor.get_by_role("button", name="Keep this part").click()
        expect(self.page.get_by_role("region", name="Parts of your own")).to_contain_text("Long grey lead")
        self.page.get_by_label("Add to this rig's kit").fill("grey lead 30 m")
        expect(self.page.locator(".said")).to_contain_text(f"1 {TIMES} Long grey lead, 30 m")

    def test_on_a_phone_nothing_hangs_over(self) -> None:
        self.page.set_viewport_size({"width": 390, "height": 844})
        wide = self.page.evaluate(
            "document.querySelector('main').scrollWidth - document.querySelector('main').clientWidth"
        )
        self.assertLessEqual(wide, 0)
