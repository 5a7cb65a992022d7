"""Opening, reading, previewing, applying, undoing; and that all of it is really saved."""

from playwright.sync_api import expect

from tests.support.browser import BrowserTest


class FirstVisit(BrowserTest):
    def test_the_first_screen_says_what_is_wrong_in_one_sentence_with_figures(self) -> None:
        card = self.run_card()
        expect(card).to_contain_text("Everything common to left and right cancels at Left speaker")
        expect(card).to_contain_text("32.6\N{NO-BREAK SPACE}dB below one side alone (23.2\N{NO-BREAK SPACE}dB")
        expect(self.page.locator(".verdict")).to_contain_text("1 stop")
        expect(self.page).to_have_title("Lantern Evening · Runs")

    def test_left_and_right_are_seen_to_arrive_at_hot_and_cold(self) -> None:
        expect(self.run_card().locator("svg[data-run] .outcome")).to_have_text("L \N{MINUS SIGN} R")
        self.assertEqual(self.run_card().locator("svg[data-run] .letter").all_text_contents(), ["L", "R", "L", "R"])

    def test_the_figures_beside_it_say_what_limits_the_cancellation(self) -> None:
        budget = self.page.locator("table", has_text="What is left of the centre")
        for words in ("left and right not quite equally loud", "what the receiver lets through", "together"):
            expect(budget).to_contain_text(words)
        levels = self.page.locator("table", has_text="Level at Input 1")
        expect(levels).to_contain_text("line, now")
        expect(levels).to_contain_text("mic")
        expect(levels).to_contain_text("clips by 16.1 dB")


class Remedies(BrowserTest):
    def test_focus_previews_and_leaving_restores(self) -> None:
        card = self.run_card()
        self.remedy("Mono-sum adapter").focus()
        expect(card).to_contain_text("not applied yet")
        expect(card.locator(".strip.ghost")).to_be_visible()
        expect(card.locator("svg.ladder .ghost")).to_contain_text("18.1 would be")
        expect(card.locator(".outcome")).to_have_text("L + R")
        self.page.locator("h1").click()
        self.remedy("Mono-sum adapter").evaluate("button => button.blur()")
        expect(card.locator(".strip.ghost")).to_have_count(0)
        expect(card.locator(".outcome")).to_have_text("L \N{MINUS SIGN} R")

    def test_hover_previews_too(self) -> None:
        self.remedy("Stereo line isolator").hover()
        expect(self.run_card().locator(".outcome")).to_have_text(["L", "R"])

    def test_the_mono_switch_is_shown_not_to_help(self) -> None:
        card = self.page.locator("button.remedy.no-help")
        expect(card).to_contain_text("Silences it")
        card.focus()
        expect(self.run_card().locator(".outcome")).to_have_text("—")

    def test_apply_undo_redo_reload_restart(self) -> None:
        self.remedy("Mono-sum adapter").click()
        card = self.run_card()
        expect(card).to_contain_text("Arrives whole")
        expect(self.page.locator(".verdict")).to_contain_text("0 stop")
        expect(self.page.locator(".saved")).to_contain_text("Saved")
        self.page.get_by_role("button", name="Undo").click()
        expect(card).to_contain_text("cancels at Left speaker")
        self.page.get_by_role("button", name="Redo").click()
        expect(card).to_contain_text("Arrives whole")
        self.page.reload()
        expect(self.run_card()).to_contain_text("Arrives whole")
        self.server.stop()
        self.server.start()
        self.page.reload()
        expect(self.run_card()).to_contain_text("Arrives whole")
        self.assertEqual(self.rigs.list_all()[0].version, "3.0")
        self.page.get_by_role("button", name="Undo").click()
        expect(self.run_card()).to_contain_text("cancels at Left speaker")

    def test_everything_by_keyboard(self) -> None:
        self.remedy("Mono-sum adapter").wait_for()
        self.page.get_by_text("Looking for others").wait_for(state="detached")
        self.page.keyboard.press("ArrowRight")
        expect(self.page.locator("button.remedy").first).to_be_focused()
        self.page.keyboard.press("ArrowDown")
        expect(self.page.locator("button.remedy").nth(1)).to_be_focused()
        expect(self.run_card()).to_contain_text("Stereo line isolator")
        self.page.keyboard.press("Enter")
        expect(self.run_card()).to_contain_text("Arrives whole")
        self.page.keyboard.press("u")
        expect(self.run_card()).to_contain_text("cancels at Left speaker")
        self.page.keyboard.press("Shift+U")
        expect(self.run_card()).to_contain_text("Arrives whole")
        self.page.keyboard.press("?")
        expect(self.page.get_by_role("dialog")).to_contain_text("walk the runs")
        self.page.keyboard.press("Escape")
        expect(self.page.get_by_role("dialog")).to_have_count(0)
        self.page.keyboard.press("c")
        expect(self.page.get_by_role("heading", name="Changes")).to_be_visible()
        expect(self.page.locator("main ol li")).to_have_count(3)
        self.page.get_by_role("button", name="before and after").last.click()
        shown = self.page.get_by_role("region", name="Slides", exact=True)
        expect(shown).to_contain_text("cancels at Left speaker")
        expect(shown).to_contain_text("Arrives whole")
        expect(shown.locator(".strip svg")).to_have_count(2)
        self.assertEqual(self.serious(), [])
        self.page.keyboard.press("r")
        expect(self.run_card()).to_be_visible()

    def test_a_finger_looks_first_and_applies_with_the_second_tap(self) -> None:
        context, page = self.visitor(390, 844, touch=True)
        page.goto(self.server.address)
        card = page.locator("button.remedy").first
        card.tap()
        expect(card).to_contain_text("Tap again applies")
        self.assertEqual(self.rigs.list_all()[0].version, "0.0")
        card.tap()
        expect(page.locator("article[data-run='slides']")).to_contain_text("Arrives whole")
        context.close()


class InPlace(BrowserTest):
    def test_length(self) -> None:
        field = self.page.get_by_label("Length of M31")
        field.fill("-3")
        expect(self.page.locator("main")).to_contain_text("A number above 0 and up to 1000 m.")
        field.press("Escape")
        expect(field).to_have_value("15")
        field.fill("22,5")
        field.press("Enter")
        expect(self.run_card().locator("svg[data-run]")).to_contain_text("M31, 22.5 m")
        self.assertEqual(next(i.length_m for i in self.rigs.export("lantern-evening").kit if i.id == "lead-31"), 22.5)

    def test_switch(self) -> None:
        self.remedy("Mono-sum adapter").click()
        expect(self.run_card()).to_contain_text("Arrives whole")
        self.run_card().locator(".in-place").get_by_text("mic", exact=True).click()
        expect(self.run_card()).to_contain_text("more than Left speaker, Input 1 can bear")
        expect(self.page.locator(".verdict")).to_contain_text("1 fix")

    def test_volume_by_keyboard(self) -> None:
        thumb = self.run_card().get_by_role("slider")
        thumb.focus()
        for _ in range(3):
            thumb.press("ArrowLeft")
        expect(self.run_card().locator("svg.ladder")).to_contain_text("53.4 arrives")
        self.assertEqual(self.rigs.export("lantern-evening").gear[0].settings["volume"], -3.0)

    def test_mono(self) -> None:
        self.run_card().get_by_text("Mono sound off").click()
        expect(self.run_card()).to_contain_text("Nothing usable arrives")
        self.page.keyboard.press("u")
        expect(self.run_card()).to_contain_text("cancels at Left speaker")
