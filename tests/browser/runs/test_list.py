"""The list of runs: many at once, walked by keys, opened in place, changed together."""

from playwright.sync_api import expect

from tests.support.browser import SOMEBODY, BrowserTest
from tests.support.wild import wild_rig

LINES_AT_MOST = 60
"""Of a long list, how many stand in the document at once."""
MANY = 120


class List(BrowserTest):
    demo = "midwinter-concert"

    def setUp(self) -> None:
        super().setUp()
        self.page.locator("article[data-run='choir-4'] .opened").wait_for()

    def test_fifteen_runs_and_more_are_seen_at_once(self) -> None:
        page = self.page
        page.keyboard.press("Escape")
        page.get_by_role("button", name="As numbered").click()
        page.locator(".list").evaluate("list => (list.scrollTop = 0)")
        page.locator("article[data-run='lead-vocal'] .wires").wait_for()
        whole = page.locator("article[data-run]").evaluate_all(
            "all => all.filter((one) => one.getBoundingClientRect().top >= 120"
            " && one.getBoundingClientRect().bottom <= innerHeight).length"
        )
        self.assertGreaterEqual(whole, 15)
        self.assertEqual(self.serious(), [])

    def test_the_worst_run_is_open_in_brief_among_the_others(self) -> None:
        page = self.page
        opened = page.locator(".opened")
        expect(opened).to_contain_text("wants phantom power and gets none")
        expect(opened.locator(".strip svg")).to_be_visible()
        expect(opened.get_by_role("button", name="Desk: Phantom, mic 8 on")).to_be_visible()
        self.assertEqual(opened.locator(".details").count(), 0)
        in_sight = page.locator("article[data-run]").evaluate_all(
            "all => all.filter((one) => one.getBoundingClientRect().top >= 120"
            " && one.getBoundingClientRect().bottom <= innerHeight).length"
        )
        self.assertGreaterEqual(in_sight, 8)
        self.assertEqual(self.serious(), [])
        page.locator("article[data-run='choir-4'] .pick-run").click()
        expect(opened.locator(".details table").first).to_be_visible()
        page.locator("article[data-run='choir-4'] .pick-run").click()
        expect(opened).to_have_count(0)

    def test_keys_walk_open_and_close_the_lines(self) -> None:
        page = self.page
        page.keyboard.press("Escape")
        expect(page.locator(".opened")).to_have_count(0)
        page.keyboard.press("ArrowDown")
        expect(page.locator("article[data-run='kick'] .pick-run")).to_be_focused()
        expect(page.locator(".opened")).to_have_count(0)
        page.keyboard.press("Enter")
        expect(page.locator("article[data-run='kick'] .opened")).to_be_visible()
        page.keyboard.press("Enter")
        expect(page.locator(".opened")).to_have_count(0)
        for _ in range(25):
            page.keyboard.press("ArrowDown")
        expect(page.locator("article[aria-current='true'] .pick-run")).to_be_in_viewport()

    def test_marked_runs_are_changed_together(self) -> None:
        page = self.page
        page.keyboard.press("Escape")
        page.get_by_label("Mark Choir 4").click()
        page.get_by_label("Mark Choir 2").click()
        page.locator("article[data-run='choir-2'] .pick-run").focus()
        together = page.get_by_role("group", name="Change the marked runs")
        expect(together).to_contain_text("2 runs marked")
        together.get_by_role("button", name="on", exact=True).click()
        expect(page.get_by_label("Runs by their worst finding")).to_contain_text("2 stop")
        length = together.get_by_label("Length of the longest lead of each (m)")
        length.fill("7,5")
        length.press("Enter")
        expect(page.locator("article[data-run='choir-2'] .wires")).to_contain_text("M14 7.5 m")
        expect(page.locator("article[data-run='choir-4'] .wires")).to_contain_text("M16 7.5 m")
        self.assertEqual(self.serious(), [])
        together.get_by_role("button", name="Delete").click()
        self.expect_runs(29)
        page.get_by_role("button", name="Undo").click()
        self.expect_runs(31)
        lengths = {item.tag: item.length_m for item in self.rigs.export(self.demo).kit}
        self.assertEqual((lengths["M14"], lengths["M16"]), (7.5, 7.5))

    def test_a_run_is_renamed_numbered_noted_and_deleted(self) -> None:
        page = self.page
        self.open_run("choir-4")
        opened = page.locator(".opened")
        opened.get_by_label("Name").fill("Choir high")
        opened.get_by_label("Name").press("Enter")
        expect(page.locator("article[data-run='choir-4'] .pick-run")).to_have_text("Choir high")
        opened.get_by_label("Number").fill("40")
        opened.get_by_label("Number").press("Enter")
        expect(page.locator("article[data-run='choir-4'] .number").first).to_have_text("40")
        opened.get_by_label("Note").fill("crackles")
        opened.get_by_label("Note").press("Enter")
        expect(page.locator(".saved[role=status]")).to_contain_text("Saved")
        opened.get_by_label("Name").fill(" ")
        opened.get_by_label("Name").press("Enter")
        expect(opened.get_by_label("Name")).to_have_value("Choir high")
        run = next(run for run in self.rigs.export(self.demo).runs if run.id == "choir-4")
        self.assertEqual((run.name, run.number, run.note), ("Choir high", 40, "crackles"))
        opened.get_by_role("button", name="Delete run").click()
        self.expect_runs(30)

    def test_a_run_moves_and_its_device_changes_from_where_it_is_opened(self) -> None:
        page = self.page
        self.open_run("choir-4")
        opened = page.locator(".opened")
        field = page.get_by_role("combobox", name="Type a run")
        opened.get_by_role("button", name="Move…").click()
        expect(field).to_be_focused()
        expect(field).to_have_value("Choir 4 moves to ")
        page.keyboard.type("desk 7")
        expect(page.locator("#understood")).to_contain_text("is in use by")
        field.fill("Choir 4 moves to desk 31")
        expect(page.locator("#understood")).to_contain_text("Choir 4 moves to Desk 31")
        page.keyboard.press("Enter")
        expect(page.locator("article[data-run='choir-4']")).to_contain_text("Mic 31")
        opened.get_by_role("button", name="Change device…").click()
        expect(field).to_have_value("Choir 4 is now a ")
        page.keyboard.type("vocal mic")
        expect(page.locator("#understood")).to_contain_text("its runs stay")
        page.keyboard.press("Enter")
        expect(field).to_have_value("")
        page.locator("article.clear[data-run='choir-4']").wait_for()

    def test_an_edit_far_down_in_an_opened_run_leaves_the_list_where_it_is(self) -> None:
        page = self.page
        opened = self.open_run("choir-4")
        opened.locator(".details table").first.wait_for()
        page.mouse.move(600, 500)
        before = page.locator(".list").evaluate("list => list.scrollTop")
        page.mouse.wheel(0, 250)
        # The wheel is answered a frame later or more.
        page.wait_for_function("(before) => document.querySelector('.list').scrollTop > before + 200", arg=before)
        scrolled = page.locator(".list").evaluate("list => list.scrollTop")
        opened.get_by_label("Note").fill("crackles")
        opened.get_by_label("Note").press("Tab")
        expect(page.get_by_role("button", name="Undo")).to_be_enabled()
        # As long as sizes may take to settle after a selection.
        page.wait_for_timeout(1500)
        after = page.locator(".list").evaluate("list => list.scrollTop")
        self.assertLess(abs(after - scrolled), 60)
        self.assertGreater(scrolled, 100)

    def test_of_a_long_list_only_what_is_in_sight_is_there(self) -> None:
        page = self.page
        rig = wild_rig(3, MANY)
        self.rigs.import_rig(rig, SOMEBODY)
        page.goto(f"{self.server.address}/#/rigs/{rig.id}/runs")
        self.expect_runs(MANY)
        page.keyboard.press("Escape")
        lines = page.locator("article[data-run]")
        for place in (0.0, 0.3, 0.6, 1.0):
            page.locator(".list").evaluate("(list, place) => (list.scrollTop = place * list.scrollHeight)", place)
            expect(lines.nth(5)).to_be_visible()
            self.assertLessEqual(lines.count(), LINES_AT_MOST)
        page.keyboard.press("ArrowDown")
        expect(page.locator("article[aria-current='true'] .pick-run")).to_be_in_viewport()
