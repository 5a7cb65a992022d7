"""Two people at one check: the parts of stage and desk, a printed sheet typed in, a photo, and the last ten minutes."""

import io
import re
from datetime import UTC, datetime, timedelta

from PIL import Image
from playwright.sync_api import FilePayload, Locator, Page, expect
from sqlalchemy import select

from ruvak.service.edits import Edits
from ruvak.service.kept import KeptRigs
from ruvak.service.occasions import Occasions
from ruvak.store.photos import PhotoRow
from tests.support.browser import BrowserTest


def picture() -> bytes:
    """Larger than it is kept."""
    out = io.BytesIO()
    Image.new("RGB", (2400, 1200), "teal").save(out, "PNG")
    return out.getvalue()


class Together(BrowserTest):
    demo = "midwinter-concert"

    def open_check(self, page: Page, run: str = "") -> None:
        page.goto(f"{self.server.address}/#/rigs/{self.demo}/check{run}")
        page.locator("article.card").wait_for()

    def phone(self) -> Page:
        context, page = self.visitor(390, 844, touch=True)
        self.addCleanup(context.close)
        return page

    def card(self, page: Page) -> Locator:
        return page.locator("article.card")

    def test_the_desk_follows_what_is_played_on_stage_and_stage_goes_on_when_it_is_heard(self) -> None:
        desk, stage = self.page, self.phone()
        self.open_check(desk)
        desk.get_by_role("button", name="At the desk").click()
        self.open_check(stage, "/bass")
        stage.get_by_role("button", name="On stage").click()
        expect(self.card(stage)).to_have_attribute("aria-label", "Run 11, Bass")
        # Nobody sees the meter from the stage.
        expect(self.card(stage).get_by_text("Make a sound at")).to_be_visible()
        expect(self.card(stage).get_by_text("Meter", exact=True)).to_have_count(0)
        stage.get_by_role("button", name="Playing now").click()

        expect(self.card(desk)).to_have_attribute("aria-label", "Run 11, Bass")
        expect(self.card(desk)).to_contain_text("is at it now")
        desk.get_by_role("button", name="I hear it").click()
        expect(self.card(stage)).to_have_attribute("aria-label", "Run 12, Keys")
        expect(desk.locator("header .counts")).to_contain_text("1 good")

    def test_a_label_s_code_opens_its_run(self) -> None:
        self.open_check(self.page, "/kick")
        expect(self.card(self.page)).to_have_attribute("aria-label", "Run 9, Kick")

    def test_a_printed_sheet_is_typed_in(self) -> None:
        self.open_check(self.page)
        self.page.get_by_role("button", name="From paper").click()
        form = self.page.get_by_role("form", name="From paper")
        form.get_by_role("radiogroup", name="Kick").get_by_label("Good").check()
        form.get_by_role("radiogroup", name="Snare").get_by_label("Wrong").check()
        form.get_by_label("What was heard, Snare").fill("rattles")
        form.get_by_role("radiogroup", name="A minute of silence").get_by_label("Skip").check()
        form.get_by_label("Checked at").fill("00:00")
        form.get_by_role("button", name="Save 3 answers").click()
        expect(self.page.locator("header .counts")).to_contain_text("1 good, 1 wrong, 1 skipped")
        snare = self.page.get_by_role("list", name="All runs").get_by_role("listitem").filter(has_text="Snare")
        expect(snare).to_contain_text("wrong, rattles")

    def test_a_photo_taken_without_a_network_comes_after(self) -> None:
        phone = self.phone()
        self.open_check(phone, "/fiddle")
        expect(phone.get_by_text("Getting ready to go on without a network")).to_have_count(0)
        phone.context.set_offline(True)
        phone.get_by_role("button", name="Wrong", exact=True).click()
        phone.get_by_role("button", name="Crackle", exact=True).click()
        file: FilePayload = {"name": "plug.png", "mimeType": "image/png", "buffer": picture()}
        phone.get_by_label("Photo").set_input_files(file)
        expect(phone.get_by_text("1 photo")).to_be_visible()
        phone.get_by_role("button", name="Still wrong, next run").click()
        phone.get_by_role("list", name="All runs").get_by_role("listitem").filter(has_text="Fiddle").click()
        expect(self.card(phone).get_by_alt_text("Photo 1 of 1")).to_be_visible()
        phone.context.set_offline(False)
        expect(phone.get_by_text("kept on this device")).to_have_count(0)

        self.page.goto(f"{self.server.address}/#/rigs/{self.demo}/log")
        shown = self.page.get_by_alt_text("Photo 1 of 1").first
        expect(shown).to_be_visible()
        expect(shown).to_have_js_property("naturalWidth", 1600)
        with self.sessions() as session:
            kept = session.scalars(select(PhotoRow.jpeg)).all()
        self.assertTrue(kept)
        for jpeg in kept:
            with Image.open(io.BytesIO(jpeg)) as kept_picture:
                self.assertEqual((kept_picture.format, dict(kept_picture.getexif())), ("JPEG", {}))


class BeforeTheDoors(BrowserTest):
    demo = "sunday-talk"

    def row(self, page: Page, name: str) -> Locator:
        return page.get_by_role("listitem").filter(has=page.get_by_text(name, exact=True))

    def test_what_is_open_who_is_at_it_and_what_it_costs(self) -> None:
        _, other = self.visitor(390, 844, touch=True)
        self.addCleanup(other.context.close)
        for page in (self.page, other):
            page.goto(f"{self.server.address}/#/rigs/{self.demo}/doors")
        lectern = self.row(self.page, "Lectern")
        expect(lectern).to_contain_text("Hearing loop get nothing from Lectern")
        self.row(other, "Lectern").get_by_role("button", name="I take it").click()
        expect(lectern).to_contain_text("is at it")
        self.row(other, "Lectern").get_by_role("button", name="Leave it").click()
        expect(lectern).not_to_contain_text("is at it")

        lectern.get_by_role("link").click()
        self.page.get_by_role("button", name="Good", exact=True).click()
        expect(self.row(other, "Lectern")).to_have_count(0)
        expect(other.locator("section.view header")).to_contain_text(re.compile(r"\d+ of \d+ not good yet"))

    def test_the_doors_have_a_time(self) -> None:
        kept = KeptRigs()
        begins = datetime.now(UTC) + timedelta(hours=2)
        occasions = Occasions(self.sessions, kept, Edits(self.sessions, kept))
        occasions.add("Talk", begins, begins + timedelta(hours=3), [self.demo])
        self.page.goto(f"{self.server.address}/#/rigs/{self.demo}/doors")
        field = self.page.get_by_label("Doors at")
        field.fill("23:59")
        field.blur()
        heading = self.page.get_by_role("heading", level=2)
        expect(heading).to_contain_text(re.compile(r"Doors (in|open for|now)"))
        field.fill("")
        field.blur()
        expect(heading).to_contain_text("Before the doors")


if __name__ == "__main__":
    import unittest

    unittest.main()
