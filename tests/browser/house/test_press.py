"""A mouse press stays with what it began on, though the list moves under it while a figure arrives."""

from playwright.sync_api import Locator, expect

from tests.support.browser import BrowserTest

PUSH_DOWN = """() => {
    const room = document.createElement('div');
    room.style.height = '120px';
    document.querySelector('.list').prepend(room);
}"""


class Pressing(BrowserTest):
    def press(self, thing: Locator) -> tuple[float, float]:
        """The mouse goes down in its middle and stays down."""
        box = thing.bounding_box()
        assert box is not None
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        return x, y

    def test_a_press_counts_though_the_list_has_moved_before_the_release(self) -> None:
        page = self.page
        self.press(page.get_by_text("earthed plug", exact=True))
        page.evaluate(PUSH_DOWN)
        page.mouse.up()
        expect(page.get_by_label("Mains plug of Slides laptop")).to_be_visible()

    def test_whoever_slides_off_before_the_release_has_called_the_press_off(self) -> None:
        page = self.page
        x, y = self.press(page.locator("button", has_text="Delete run"))
        page.mouse.move(x, y - 200, steps=4)
        page.mouse.up()
        expect(page.locator(".saved[role=status]")).to_contain_text("Saved")
        self.expect_runs(1)
        expect(page.locator("#line")).to_have_value("")

    def test_text_in_a_labelled_field_is_selected_with_the_mouse(self) -> None:
        page = self.page
        name = page.get_by_label("Name", exact=True)
        self.click_steady(name)
        box = name.bounding_box()
        assert box is not None
        page.mouse.move(box["x"] + 2, box["y"] + box["height"] / 2)
        page.mouse.down()
        page.mouse.move(box["x"] + box["width"] - 4, box["y"] + box["height"] / 2, steps=8)
        page.mouse.up()
        selected = name.evaluate("field => field.value.slice(field.selectionStart, field.selectionEnd)")
        self.assertTrue(selected and "Slides".endswith(selected), selected)
