"""The line check with a desk window and two phones: offline, closed and opened again, the server killed in between."""

import re
from collections import Counter

from playwright.sync_api import Page, expect
from sqlalchemy import select

from ruvak.core.rig.edits import Edit, SetField
from ruvak.core.rig.rig import Rig
from ruvak.store.log import LogRow
from script.shared.web_server import WebServer
from tests.support.browser import SOMEBODY, BrowserTest
from tests.support.rigs import demo_rig


def another_length(rig: Rig) -> Edit:
    """Of the first run's first lead."""
    lead = rig.runs[0].pieces[0]
    return Edit(label="length", ops=(SetField(kind="kit", id=lead, field="length_m", value=17.5),))


class LineCheck(BrowserTest):
    """A concert of 31 runs."""

    demo = "midwinter-concert"

    def setUp(self) -> None:
        super().setUp()
        with self.sessions() as session:
            self.before = set(session.scalars(select(LogRow.id)))

    def answered(self) -> Counter[str]:
        """Answers by run or step that came in during this test."""
        with self.sessions() as session:
            rows = session.scalars(select(LogRow)).all()
        return Counter(row.body["run"] or row.body["step"] for row in rows if row.id not in self.before)

    def open_check(self, page: Page) -> None:
        page.goto(f"{self.server.address}/#/rigs/{self.demo}/check")
        page.locator("article.card").wait_for()

    def choose(self, page: Page, number: int) -> None:
        page.get_by_role("list", name="All runs").get_by_role("listitem").nth(number - 1).get_by_role("button").click()
        expect(page.locator("article.card")).to_have_attribute("aria-label", re.compile(rf"^Run {number},"))

    def tap_good(self, page: Page) -> None:
        """Good, until the card of another run is there."""
        card = page.locator("article.card")
        label = card.get_attribute("aria-label") or ""
        page.get_by_role("button", name="Good", exact=True).click()
        expect(card).not_to_have_attribute("aria-label", label)

    def test_the_concert_from_plan_to_a_finished_check(self) -> None:
        desk = self.page
        self.open_check(desk)
        stage_context, stage = self.visitor(390, 844, touch=True)
        self.addCleanup(stage_context.close)
        away_context, away = self.visitor(390, 844, touch=True)
        self.addCleanup(away_context.close)
        for phone in (stage, away):
            self.open_check(phone)
        # Everything is on the phone before it leaves the network.
        expect(away.get_by_text("Getting ready to go on without a network")).to_have_count(0)
        away.evaluate("navigator.serviceWorker.ready.then(() => true)")

        away_context.set_offline(True)
        self.choose(away, 16)
        for _ in range(5):
            self.tap_good(away)
        expect(away.get_by_text("5 answers are kept on this device")).to_be_visible()
        away.close()
        away = away_context.new_page()
        away.set_default_timeout(120_000)
        away.goto(f"{self.server.address}/#/rigs/{self.demo}/check")
        expect(away.get_by_text("5 answers are kept on this device")).to_be_visible()
        self.choose(away, 21)
        self.tap_good(away)
        self.assertEqual(sum(self.answered().values()), 0)

        for _ in range(10):
            self.tap_good(stage)
        # Two servers are killed in turn all the time anyway.
        if isinstance(self.server, WebServer):
            self.server.kill()
        self.tap_good(stage)
        if isinstance(self.server, WebServer):
            self.server.start()

        away_context.set_offline(False)
        expect(away.get_by_text("kept on this device")).to_have_count(0)
        expect(stage.get_by_text("kept on this device")).to_have_count(0)
        counts = desk.locator("header .counts")
        expect(counts).to_contain_text("17 good, 0 wrong, 0 skipped, 33 open")

        desk.get_by_role("button", name="Wrong", exact=True).click()
        desk.get_by_role("button", name="Crackle", exact=True).click()
        desk.get_by_role("group", name="Which piece it was").get_by_role("button").first.click()
        desk.get_by_role("button", name="Mended, it is good now").click()
        for _ in range(31):
            self.tap_good(desk)
        desk.get_by_role("button", name="Good", exact=True).click()
        expect(desk.get_by_text("Everything has an answer; nothing is left.")).to_be_visible()
        for window in (desk, stage, away):
            expect(window.locator("header .counts")).to_contain_text("50 good, 0 wrong, 0 skipped, 0 open")
        answered = self.answered()
        # Two radio steps, 31 runs, and 17 steps after them.
        self.assertEqual(len(answered), 50)
        self.assertEqual(sorted(answered.values()), [1] * 49 + [2])

    def test_what_is_wrong_is_kept_by_a_phone_that_is_closed_without_a_network(self) -> None:
        context, page = self.visitor(390, 844, touch=True)
        self.addCleanup(context.close)
        self.open_check(page)
        expect(page.get_by_text("Getting ready to go on without a network")).to_have_count(0)
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        context.set_offline(True)
        self.choose(page, 2)
        page.get_by_role("button", name="Wrong", exact=True).click()
        page.get_by_role("button", name="Crackle", exact=True).click()
        page.get_by_role("group", name="Which piece it was").get_by_role("button").first.click()
        page.get_by_label("Note").fill("when moved")
        page.get_by_role("button", name="Still wrong, next run").click()
        expect(page.get_by_text("1 answer is kept on this device")).to_be_visible()
        expect(page.get_by_text("This browser keeps nothing")).to_have_count(0)
        page.close()
        page = context.new_page()
        page.goto(f"{self.server.address}/#/rigs/{self.demo}/check")
        expect(page.get_by_text("1 answer is kept on this device")).to_be_visible(timeout=120_000)
        # Asking for the server again and again, and its answer at last, leave what is being written where it is.
        self.choose(page, 3)
        page.get_by_role("button", name="Wrong", exact=True).click()
        page.get_by_role("button", name="Crackle", exact=True).click()
        page.get_by_label("Note").fill("half a word")
        for _ in range(2):
            with page.expect_event("requestfailed", lambda request: request.url.endswith("/api/session")):
                pass
        context.set_offline(False)
        expect(page.get_by_text("The server answers again.")).to_be_visible()
        expect(page.get_by_text("kept on this device")).to_have_count(0)
        expect(page.get_by_label("Note")).to_have_value("half a word")
        page.get_by_role("button", name="Open everything").click()
        expect(page.get_by_role("link", name="Runs")).to_be_visible()
        with self.sessions() as session:
            (row,) = [row for row in session.scalars(select(LogRow)) if row.id not in self.before]
        self.assertEqual((row.body["run"], row.body["answer"], row.body["heard"]), ("vocal-2", "wrong", "crackle"))
        self.assertEqual((row.body["words"], len(row.body["things"])), ("when moved", 1))

    def test_the_taps_from_opening_to_the_first_checked_run(self) -> None:
        """The README's figures: two, and one for each card of the radio microphones, which come first."""
        small = self.rigs.import_rig(demo_rig("lantern-evening"), SOMEBODY).rig
        concert = demo_rig(self.demo)
        for rig, radio_cards in ((concert, 2), (small, 0)):
            run = rig.runs[0].id
            context, page = self.visitor(390, 844, touch=True)
            self.addCleanup(context.close)
            page.goto(f"{self.server.address}/#/rigs/{rig.id}/runs")
            page.get_by_role("link", name="Check").tap()
            taps = 1
            while run not in self.answered():
                page.locator("article.card").wait_for()
                before = self.answered().total()
                page.get_by_role("button", name="Good", exact=True).tap()
                taps += 1
                while self.answered().total() == before:
                    page.wait_for_timeout(50)
                self.assertLess(taps, 9)
            self.assertEqual(taps, 2 + radio_cards)

    def test_wrong_leads_to_the_run_with_its_figures_and_remedies(self) -> None:
        self.open_check(self.page)
        self.choose(self.page, 23)
        self.page.get_by_role("button", name="Wrong", exact=True).click()
        self.page.get_by_role("button", name="Hum or buzz", exact=True).click()
        expect(self.page.get_by_text("the two ends stand on different earths").first).to_be_visible()
        self.page.get_by_role("button", name="Still wrong, next run").click()
        self.page.get_by_role("link", name="Open the run").click()
        expect(self.page.locator("article.open[data-run='stream']")).to_be_visible()

    def test_after_the_long_form_the_next_run_is_seen_by_its_name(self) -> None:
        context, phone = self.visitor(390, 700, touch=True)
        self.addCleanup(context.close)
        self.open_check(phone)
        self.choose(phone, 1)
        phone.get_by_role("button", name="Wrong", exact=True).tap()
        phone.get_by_role("button", name="Silent", exact=True).tap()
        phone.get_by_role("button", name="Still wrong, next run").tap()
        expect(phone.locator("article.card")).to_have_attribute("aria-label", re.compile("^Run 2,"))
        expect(phone.locator("article.card header")).to_be_in_viewport()

    def test_a_finger_that_taps_twice_answers_one_run(self) -> None:
        self.open_check(self.page)
        self.choose(self.page, 4)
        good = self.page.get_by_role("button", name="Good", exact=True)
        good.evaluate("button => { button.click(); button.click(); }")
        expect(self.page.locator("header .counts")).to_contain_text("1 good")
        expect(self.page.locator("article.card")).to_have_attribute("aria-label", re.compile("^Run 5,"))
        expect(good).to_be_enabled()
        self.assertEqual(self.answered(), Counter({"lectern": 1}))

    def test_a_request_that_hangs_is_no_network_and_holds_nothing_up(self) -> None:
        """As at the edge of a wireless network: nothing is refused, nothing comes."""
        self.open_check(self.page)
        self.page.route("**/log", lambda route: None)
        self.tap_good(self.page)
        expect(self.page.get_by_text("1 answer is kept on this device")).to_be_visible()
        self.tap_good(self.page)
        self.page.unroute("**/log")
        expect(self.page.get_by_text("kept on this device")).to_have_count(0)
        self.assertEqual(sorted(self.answered().values()), [1, 1])

    def test_an_answer_is_taken_back_and_a_changed_run_is_open_again(self) -> None:
        self.open_check(self.page)
        self.choose(self.page, 1)
        counts = self.page.locator("header .counts")
        self.tap_good(self.page)
        expect(counts).to_contain_text("1 good")
        self.page.get_by_role("button", name="Take it back").click()
        expect(counts).to_contain_text("0 good")
        self.tap_good(self.page)
        # The speakers get this run's signal too, and what was heard there holds.
        self.choose(self.page, 22)
        self.tap_good(self.page)
        expect(counts).to_contain_text("2 good, 0 wrong, 0 skipped, 48 open")
        self.edits.make(
            self.demo, self.rigs.version(self.demo).version, another_length(self.rigs.export(self.demo)), SOMEBODY
        )
        expect(counts).to_contain_text("1 good")
        expect(self.page.get_by_text("changed since, check again").first).to_be_visible()
        # What was taken back stays in the log, can be told apart and is read as well as the rest.
        for theme in ("daylight", "booth"):
            self.page.evaluate(f"localStorage.setItem('ruvak-theme', '{theme}')")
            self.open(f"/rigs/{self.demo}/log")
            self.page.reload()
            self.page.get_by_text("(corrected)").first.wait_for()
            self.assertEqual(self.serious(), [], theme)


class Log(BrowserTest):
    def test_a_note_is_added_found_and_exported(self) -> None:
        self.open("/rigs/lantern-evening/log")
        form = self.page.get_by_role("form", name="Add to the log")
        form.get_by_label("Words").fill("hum only with the projector on")
        form.get_by_role("button", name="Add").click()
        line = self.page.get_by_role("listitem").filter(has_text="hum only with the projector on").first
        expect(line).to_contain_text("Demo technician")
        self.page.get_by_label("With the words").fill("projector nobody")
        expect(self.page.get_by_text("Nothing of that kind has these words.")).to_be_visible()
        self.page.get_by_label("With the words").fill("projector")
        expect(line).to_be_visible()
        with self.page.expect_download() as download:
            self.page.get_by_role("link", name="CSV").click()
        self.assertIn("hum only with the projector on", download.value.path().read_text(encoding="utf-8"))
