"""What concerns the whole rig: hazards said once above the runs, house rules, loudspeaker lines."""

from playwright.sync_api import expect

from tests.support.browser import BrowserTest


class WholeRig(BrowserTest):
    demo = "midwinter-concert"

    def setUp(self) -> None:
        super().setUp()
        self.page.locator("article[data-run]").first.wait_for()

    def test_a_lost_earth_is_said_once_above_all_runs_and_taken_back(self) -> None:
        page = self.page
        of_rig = page.get_by_role("region", name="About the whole rig")
        expect(of_rig).to_have_count(0)
        self.open_run("lead-vocal")
        page.get_by_label("Mains plug of Desk").select_option("its earth is broken or missing")
        expect(of_rig).to_contain_text("The mains earth of Desk is open")
        expect(of_rig).to_contain_text("licensed person")
        expect(of_rig).to_contain_text("28 runs")
        expect(of_rig.get_by_role("article")).to_have_count(1)
        expect(page.get_by_label("Runs by their worst finding")).to_contain_text("4 stop")
        bench = page.get_by_role("complementary")
        expect(bench).to_contain_text("Until then nothing is offered here")
        of_rig.get_by_role("button", name="Vocal 2").click()
        expect(page.locator("article[data-run=vocal-2]")).to_have_attribute("aria-current", "true")
        page.get_by_role("button", name="Undo").click()
        expect(of_rig).to_have_count(0)

    def test_house_rules_are_set_and_told_as_a_note(self) -> None:
        page = self.page
        page.get_by_role("link", name="Venue").click()
        page.get_by_label("Unbalanced leads, at most (m)").fill("5")
        page.get_by_label("Unbalanced leads, at most (m)").blur()
        page.get_by_label("Screens of balanced leads").select_option("lifted at the receiving end")
        page.get_by_label("The empty room (dBA)").fill("31")
        page.get_by_label("The empty room (dBA)").blur()
        expect(page.locator(".saved[role=status]")).to_contain_text("Saved")
        page.get_by_title("Runs (R)").click()
        self.open_run("stream")
        expect(page.get_by_role("region", name="House rules")).to_contain_text("this house goes to 5.0")
        venue = self.rigs.export("midwinter-concert").venue
        self.assertEqual((venue.house.screens, venue.noise_dba), ("lifted-at-receiver", 31.0))
        page.get_by_role("link", name="Venue").click()
        page.get_by_label("The empty room (dBA)").fill("500")
        page.get_by_label("The empty room (dBA)").blur()
        expect(page.get_by_role("alert")).to_be_visible()
        self.assertEqual(self.rigs.export("midwinter-concert").venue.noise_dba, 31.0)
        self.trouble.clear()

    def test_the_foyer_is_turned_down_together_with_its_caution_beside(self) -> None:
        page = self.page
        self.open_run("foyer")
        expect(page.locator("article[data-run=foyer] .finding")).to_contain_text("ask for 157")
        bench = page.get_by_role("complementary")
        expect(bench).to_contain_text("licensed people")
        expect(page.locator("caption", has_text="Power at")).to_be_visible()
        page.get_by_role("button", name="Foyer 1, Foyer 2, Foyer 3 and Foyer 4: Tap 20 W").click()
        expect(page.locator("article[data-run=foyer] .finding")).to_contain_text("Arrives whole")
