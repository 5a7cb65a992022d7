"""The Rigs station: a rig begun from nothing, copied for another occasion, renamed, deleted."""

from threading import Event

from playwright.sync_api import Locator, Route, expect

from tests.support.browser import BrowserTest


class Rigs(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.page.get_by_role("link", name="Rigs").click()
        self.page.get_by_role("button", name="New rig").wait_for()

    def row(self, name: str) -> Locator:
        return self.page.locator("li").filter(has=self.page.get_by_role("button", name=name, exact=True))

    def test_a_rig_typed_from_nothing(self) -> None:
        page = self.page
        page.get_by_role("button", name="New rig").click()
        form = page.get_by_role("form", name="A new rig")
        expect(form.get_by_label("Venue")).to_have_value("Ferrywell Hall")
        form.get_by_label("Name").fill("Harvest Supper")
        form.get_by_label("Lengths in").select_option("feet")
        form.get_by_role("button", name="Create").click()
        expect(page.get_by_role("heading", name="No runs yet")).to_be_visible()
        self.assertEqual(self.serious(), [])
        page.get_by_role("button", name="lead vocal > small desk 1, 30 ft").click()
        expect(page.locator("#understood")).to_contain_text("Arrives whole")
        page.keyboard.press("Enter")
        expect(page.locator("article[data-run=lead-vocal]")).to_contain_text("XLR lead 1")
        page.get_by_label("Type a run").fill("small desk main L/R > speakers 1-2, 60 ft")
        page.get_by_label("Type a run").press("Enter")
        expect(page.get_by_label("Runs by their worst finding")).to_contain_text("3 clear")
        saved = self.rigs.export("harvest-supper")
        self.assertEqual(
            (saved.length_unit, [one.name for one in saved.gear][:2]), ("ft", ["Lead vocal", "Small desk"])
        )

    def test_a_rig_shows_its_runs_without_being_opened(self) -> None:
        page = self.page
        page.get_by_role("button", name="Show runs of Lantern Evening").click()
        runs = page.get_by_role("list", name="Runs of Lantern Evening")
        expect(runs).to_contain_text("cancels at Left speaker")
        expect(self.row("Lantern Evening")).to_contain_text("1 stop")
        self.assertEqual(self.serious(), [])
        page.get_by_role("button", name="Hide runs of Lantern Evening").click()
        expect(runs).to_have_count(0)

    def test_a_copy_for_another_occasion_leaves_the_first_alone(self) -> None:
        page = self.page
        self.row("Lantern Evening").get_by_role("button", name="Copy Lantern Evening").click()
        form = page.get_by_role("form", name="Copy Lantern Evening")
        expect(form.get_by_label("The copy is called")).to_have_value("Lantern Evening 2")
        form.get_by_label("Occasion").fill("Second night")
        form.get_by_role("button", name="Copy and open").click()
        expect(page.get_by_role("heading", name="Lantern Evening 2")).to_be_visible()
        page.locator("article[data-run=slides]").wait_for()
        page.get_by_role("link", name="Rigs").click()
        expect(self.row("Lantern Evening 2")).to_contain_text("Second night")
        page.get_by_label("Name").fill("Lantern Night")
        page.get_by_label("Name").blur()
        expect(self.row("Lantern Night")).to_be_visible()
        page.get_by_role("region", name="The open rig").get_by_label("Mains").select_option("60 Hz")
        page.get_by_label("Digital gear is aligned so that").select_option("ebu-r-68")
        expect(page.locator(".saved[role=status]")).to_contain_text("Saved")
        page.get_by_label("Name").fill("  ")
        page.get_by_label("Name").blur()
        expect(page.get_by_label("Name")).to_have_value("Lantern Night")
        copy, first = self.rigs.export("lantern-evening-2"), self.rigs.export("lantern-evening")
        self.assertEqual((copy.name, copy.venue.mains_hz, copy.alignment.headroom_db), ("Lantern Night", 60, 18.0))
        self.assertEqual((first.name, first.venue.mains_hz, first.alignment.headroom_db), ("Lantern Evening", 50, 20.0))
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_label("Digital gear is aligned so that")).to_have_value("smpte-rp-155")

    def test_a_choice_undone_before_its_figures_came_is_not_left_on_screen(self) -> None:
        page = self.page
        page.get_by_role("region", name="The open rig").get_by_label("Mains").select_option("60 Hz")
        expect(page.get_by_role("button", name="Undo")).to_be_enabled()
        held: list[Route] = []
        undone = Event()

        def answer_late(route: Route) -> None:
            if undone.is_set():
                route.continue_()
            else:
                held.append(route)

        page.route("**/api/rigs/*/versions/*/overview", answer_late)
        alignment = page.get_by_label("Digital gear is aligned so that")
        alignment.select_option("ebu-r-68")
        with page.expect_response("**/undo"):
            page.get_by_role("button", name="Undo").click()
        undone.set()
        for route in held:
            route.continue_()
        expect(alignment).to_have_value("smpte-rp-155")

    def test_deleting_asks_first_and_an_empty_house_says_what_to_do(self) -> None:
        page = self.page
        self.row("Lantern Evening").get_by_role("button", name="Delete Lantern Evening").click()
        page.get_by_role("button", name="Keep it").click()
        expect(self.row("Lantern Evening")).to_be_visible()
        self.row("Lantern Evening").get_by_role("button", name="Delete Lantern Evening").click()
        self.assertEqual(self.serious(), [])
        page.get_by_role("button", name="Delete for good").click()
        expect(page.locator("main")).to_contain_text("No rigs yet")
        self.assertEqual(self.rigs.list_all(), [])
        page.get_by_title("Runs (R)").click()
        expect(page.locator("main")).to_contain_text("There is no rig here")

    def test_on_a_phone_nothing_hangs_over(self) -> None:
        page = self.page
        page.set_viewport_size({"width": 390, "height": 844})
        page.get_by_role("button", name="New rig").click()
        wide = page.evaluate("document.querySelector('main').scrollWidth - document.querySelector('main').clientWidth")
        self.assertLessEqual(wide, 0)
