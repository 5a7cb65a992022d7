"""The house at the browser: its cupboard, weeks, two rigs beside each other, and what the field at the top finds."""

from datetime import datetime, timedelta

from playwright.sync_api import expect

from ruvak.service.cupboard import Cupboard
from ruvak.service.kept import KeptRigs
from ruvak.service.occasions import Occasion, Occasions
from tests.support.browser import SOMEBODY, BrowserTest
from tests.support.database import length
from tests.support.rigs import demo_rig


class House(BrowserTest):
    """With nothing in the cupboard and no dates."""

    def setUp(self) -> None:
        super().setUp()
        kept = KeptRigs()
        self.cupboard = Cupboard(self.sessions, kept, self.edits)
        self.occasions = Occasions(self.sessions, kept, self.edits)

    def date(self, name: str, days: int, *rigs: str, hour: int = 18) -> str:
        start = datetime.now().astimezone().replace(hour=hour, minute=0, second=0, microsecond=0) + timedelta(days=days)
        return self.occasions.add(name, start, start + timedelta(hours=4), rigs).id


class InTheCupboard(House):
    def test_lines_are_said_back_added_and_found_again(self) -> None:
        self.open("/cupboard")
        self.page.locator("textarea").fill("Van:\nK1-K3: 10 m mic leads\nflux capacitor")
        expect(self.page.locator(".said")).to_contain_text("Microphone lead, 10 m, in: Van")
        self.page.get_by_role("button", name="Add 3 things, keep 1 line to mend").click()
        expect(self.page.locator("textarea")).to_have_value("flux capacitor")
        van = self.page.get_by_role("region", name="Van")
        expect(van.locator("summary")).to_have_count(3)
        self.page.get_by_label("Find in the cupboard").fill("k2")
        expect(van.locator("summary")).to_have_count(1)

    def test_what_is_marked_as_faulty_is_told_to_the_rig_that_has_it(self) -> None:
        self.open("/cupboard")
        self.page.get_by_role("button", name="Put them into the cupboard").click()
        line = self.page.locator("summary", has=self.page.get_by_text("M31", exact=True))
        line.click()
        form = self.page.get_by_role("form", name="Condition of M31")
        form.get_by_label("Condition").select_option("faulty")
        form.get_by_label("What is the matter").fill("cold is open")
        form.get_by_role("button", name="Save condition").click()
        expect(line).to_contain_text("faulty cold is open")
        self.open("/rigs/lantern-evening/runs/slides")
        expect(self.run_card()).to_contain_text("M31 is marked as faulty (cold is open)")

    def test_a_lead_that_another_rig_has_is_refused_by_name(self) -> None:
        self.cupboard.add("K1: 10 m mic lead", SOMEBODY)
        other = self.rigs.import_rig(demo_rig("sunday-talk"), SOMEBODY).rig.id
        self.date("Evening", 1, "lantern-evening", other)
        self.cupboard.draw(other, "k1", SOMEBODY)
        self.open("/rigs/lantern-evening/kit")
        self.page.get_by_role("link", name="Cupboard").first.click()
        line = self.page.locator("summary", has=self.page.get_by_text("K1", exact=True))
        expect(line).to_contain_text("Sunday Talk")
        line.click()
        self.page.get_by_role("button", name="Take into Lantern Evening").click()
        expect(self.page.get_by_role("alert")).to_contain_text("none is free for this rig's hours")


class OnTheTester(House):
    """Readings typed and tapped; the simulated tester has tests of its own."""

    def test_a_lead_is_tested_by_typing_and_its_runs_say_what_will_be_heard(self) -> None:
        self.open("/cupboard")
        self.page.get_by_role("button", name="Put them into the cupboard").click()
        line = self.page.locator("summary", has=self.page.get_by_text("M31", exact=True))
        line.click()
        self.page.get_by_role("button", name="Test M31").click()
        bench = self.page.get_by_role("region", name="Lead tester")
        bench.get_by_label("What you read").fill("1-1 ok, 2-2 dead")
        expect(bench).to_contain_text("It can still be one of")
        bench.get_by_text("pin 2 is broken").click()
        bench.get_by_role("button", name="Save: faulty").click()
        expect(bench.get_by_role("status")).to_contain_text("Every rig that has M31")
        expect(line).to_contain_text("faulty Pin 2 is broken.")
        self.page.locator("summary", has_text="History:").click()
        expect(self.page.locator("details li", has_text="Pin 2 is broken").first).to_be_visible()
        self.open("/rigs/lantern-evening/runs/slides")
        expect(self.run_card()).to_contain_text("M31 has a fault that a test showed: pin 2 is broken. It will be")
        self.assertEqual(self.serious(), [])

    def test_contacts_are_tapped_and_what_is_not_understood_says_why(self) -> None:
        self.cupboard.add("K1: 10 m mic lead", SOMEBODY)
        self.open("/cupboard")
        self.page.locator("summary", has=self.page.get_by_text("K1", exact=True)).click()
        self.page.get_by_role("button", name="Test K1").click()
        bench = self.page.get_by_role("region", name="Lead tester")
        for end in ("2 at in", "1 at in"):
            bench.get_by_role("button", name=end).click()
        expect(bench).to_contain_text("Pin 2 and pin 1 touch.")
        self.assertEqual(self.serious(), [])
        bench.get_by_label("What you read").fill("9-9")
        expect(bench.get_by_role("alert")).to_contain_text("XLR female has 2, 3, 1, shell")


class ByDate(House):
    def test_a_date_is_made_and_the_same_a_week_later_is_one_key(self) -> None:
        self.cupboard.add("K1: 10 m mic lead", SOMEBODY)
        self.open("/weeks")
        self.page.get_by_role("button", name="New date").click()
        form = self.page.get_by_role("form", name="New date")
        form.get_by_label("Occasion").fill("Sunday service")
        form.get_by_label("Day").fill((datetime.now() + timedelta(days=3)).strftime("%Y-%m-%d"))
        form.get_by_role("button", name="Create date").click()
        lines = self.page.locator("button.line")
        expect(lines).to_have_count(1)
        self.page.get_by_label("Note for Sunday service").fill("crackle on K1")
        self.page.get_by_role("button", name="Add note").click()
        self.page.get_by_role("button", name="Mark K1 as suspect").click()
        expect(self.page.locator(".notes")).to_contain_text("K1 is suspect")
        self.page.locator("body").press("l")
        expect(lines).to_have_count(2)
        expect(self.page.get_by_role("status").filter(has_text="Everything as before is free")).to_be_visible()
        expect(self.page.locator(".notes")).to_contain_text("crackle on K1")
        self.page.get_by_role("link", name="Compare with").click()
        expect(self.page.locator("main")).to_contain_text("Nothing differs: 1 run is the same.")

    def test_hours_that_clash_are_refused_and_done_with_others_when_asked(self) -> None:
        self.cupboard.add("K1: 10 m mic lead\nK2: 10 m mic lead", SOMEBODY)
        other = self.rigs.import_rig(demo_rig("sunday-talk"), SOMEBODY).rig.id
        self.cupboard.draw(other, "k1", SOMEBODY)
        self.cupboard.draw("lantern-evening", "k1", SOMEBODY)
        self.date("Talk", 2, other, hour=17)
        evening = self.date("Evening", 2)
        self.open("/weeks")
        self.page.locator("button.line", has_text="Evening").click()
        self.page.get_by_label("Rig for Evening").select_option("lantern-evening")
        self.page.get_by_role("button", name="Add", exact=True).click()
        expect(self.page.get_by_role("alert")).to_contain_text("K1 is taken by Sunday Talk (Talk)")
        self.page.get_by_role("button", name="Take others of the cupboard instead").click()
        expect(self.page.locator("main")).to_contain_text("Lantern Evening: K1 is taken: K2 in its place.")
        self.assertEqual([rig.id for rig in self.find(evening).rigs], ["lantern-evening"])

    def find(self, occasion: str) -> Occasion:
        return next(each for each in self.occasions.list_all() if each.id == occasion)

    def test_two_rigs_beside_each_other_show_what_differs(self) -> None:
        copy = self.rigs.copy("lantern-evening", "Second", "", SOMEBODY)
        self.edits.make(copy.rig.id, copy.version, length(20.0), SOMEBODY)
        self.open(f"/compare/lantern-evening/{copy.rig.id}")
        line = self.page.locator("button.line")
        expect(line).to_contain_text("M31 (20 m)")
        expect(self.page.locator(".pair .side")).to_have_count(2)
        self.assertEqual(self.serious(), [])


class Finding(House):
    def test_the_field_at_the_top_finds_and_enter_leads_there(self) -> None:
        self.rigs.import_rig(demo_rig("sunday-talk"), SOMEBODY)
        self.cupboard.add("K1: 10 m mic lead, suspect: crackles", SOMEBODY)
        self.open("/")
        field = self.page.get_by_label("Type a run", exact=True)
        field.fill("crackles")
        found = self.page.get_by_role("list", name="Found")
        expect(found.get_by_role("listitem")).to_have_count(1)
        field.press("Enter")
        expect(self.page.locator("main h2")).to_have_text("Cupboard")
        field.fill("reader")
        expect(found).to_contain_text("Sunday Talk")
        found.get_by_role("link").first.click()
        expect(self.page.locator("h1")).to_have_text("Sunday Talk")

    def test_templates_and_the_archive_are_shelves_of_their_own(self) -> None:
        self.open("/rigs")
        self.page.get_by_role("button", name="Make a template: Lantern Evening").click()
        expect(self.page.locator("main")).to_contain_text("No rigs yet")
        self.page.get_by_role("button", name="Templates 1").click()
        self.page.get_by_role("button", name="Make a plan: Lantern Evening").click()
        self.page.get_by_role("button", name="Plans 1").click()
        self.page.get_by_role("button", name="Archive: Lantern Evening").click()
        self.page.get_by_role("button", name="Archive 1").click()
        self.page.get_by_role("button", name="Bring back: Lantern Evening").click()
        expect(self.page.get_by_role("button", name="Plans 1")).to_be_visible()

    def test_nothing_is_wrong_for_a_reader_of_screens_and_nothing_scrolls_sideways(self) -> None:
        self.cupboard.add("K1: 10 m mic lead, suspect: crackles\n6 passive DIs, van", SOMEBODY)
        evening = self.date("Evening", 2, "lantern-evening")
        self.occasions.note(evening, "crackle on K1", SOMEBODY)
        for theme in ("booth", "daylight"):
            for path in ("/cupboard", "/weeks"):
                self.page.evaluate(f"localStorage.setItem('ruvak-theme', '{theme}')")
                self.open(path)
                self.page.reload()
                if path == "/cupboard":
                    self.page.locator("summary", has=self.page.get_by_text("K1", exact=True)).click()
                else:
                    expect(self.page.locator(".verdict").last).to_be_visible()
                self.assertEqual(self.serious(), [], f"{theme} {path}")
        context, page = self.visitor(390, 844, touch=True)
        for path in ("/cupboard", "/weeks"):
            page.goto(f"{self.server.address}/#{path}")
            page.locator("main h2").wait_for()
            wide = page.evaluate("document.scrollingElement.scrollWidth")
            self.assertLessEqual(wide, 390, path)
        context.close()
