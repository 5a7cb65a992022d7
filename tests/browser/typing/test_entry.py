"""Runs entered as people enter them: typed with the keyboard alone, pasted as a list, wired by hand."""

import re

from playwright.sync_api import Locator, Route, expect

from tests.support.browser import BrowserTest

EIGHT = (
    "lectern > desk 1, 20 m",
    "lead vocal > box 2 > desk 2",
    "keys L/R > desk 7/8, 6 m",
    "guitar > di > desk 5",
    "choir 1 > desk 9, phantom",
    "desk main left > right speaker",
    "desk aux 4 > camera",
    "tablet > desk 13/14",
)
SUNDAY = """\
laptop > desk 17/18
kick, snare, hat > desk 1-3, 10 m
bass > desk 4, 10 m
egtr > desk 5, 10 m
violin > desk 6, 8 m
keys L/R > desk 7/8, 10 m
vocals 1-4 > desk 9-12, 10 m
choir 1-2 > desk 13-14, 15 m
wireless lapel > desk 15
lectern > desk 16, 10 m
desk main L/R > left speaker/right speaker, 20 m
desk aux 1-2 > two wedges, 15 m
desk aux 3-4 > delay speaker left, delay speaker right, 30 m
desk aux 5/6 > switcher, 10 m
desk aux 7/8 > recorder, 5 m
"""
"""Sixteen sources, four speakers, two monitors, a stream and a recorder: 24 runs."""
SUNDAY_RUNS = 24
LIST = "ch,who,mic or DI,stand,48V\n" + "\n".join(
    f"{n},{who},{device},{stand},{phantom}"
    for n, (who, device, stand, phantom) in enumerate(
        [
            ("Kick", "dynamic", "short boom", ""),
            ("Snare", "dynamic", "boom", ""),
            ("Tom", "dynamic", "clip", ""),
            ("Overhead left", "condenser", "tall boom", "yes"),
            ("Overhead right", "condenser", "tall boom", "yes"),
            ("Bass", "DI", "", ""),
            ("Acoustic guitar", "DI", "", ""),
            ("Violin", "active di", "", ""),
            ("Pastor", "wireless", "", ""),
            ("Reader", "dynamic", "straight", ""),
            ("Choir 1", "condenser", "tall boom", "x"),
            ("Choir 2", "condenser", "tall boom", "x"),
            ("Choir 3", "condenser", "tall boom", "x"),
            ("Choir 4", "condenser", "tall boom", "x"),
            ("Lead vocal", "", "straight", ""),
            ("Lectern", "", "gooseneck", ""),
        ],
        1,
    )
)


class Typing(BrowserTest):
    def add(self, line: str) -> None:
        self.page.keyboard.type(line)
        expect(self.page.locator("#understood .add")).to_be_visible()
        self.page.keyboard.press("Enter")
        expect(self.page.locator("#line")).to_have_value("")

    def test_eight_different_runs_with_the_keyboard_alone(self) -> None:
        self.page.keyboard.press("/")
        for count, line in enumerate(EIGHT, 2):
            self.add(line)
            self.expect_runs(count)
        rig = self.rigs.export("lantern-evening")
        self.assertEqual(len(rig.runs), 9)
        self.assertIn("tablet-headset", {gear.part for gear in rig.gear}, "new gear comes with the run")
        self.page.keyboard.press("Escape")
        for count in (8, 7):
            self.page.keyboard.press("u")
            self.expect_runs(count)
        # A segmented control draws its mark behind the chosen word a moment after it appears.
        self.page.wait_for_timeout(1000)
        self.assertEqual(self.serious(), [])

    def test_typed_faster_than_the_server_saves(self) -> None:
        held: list[Route] = []
        self.page.route("**/api/rigs/*/edits", lambda route: held.append(route))
        self.page.keyboard.press("/")
        self.add("lectern > desk 1")
        self.page.keyboard.type("choir 1 > desk 2")
        self.page.keyboard.press("Enter")
        expect(self.page.locator("#line")).to_have_value("choir 1 > desk 2")
        held[0].continue_()
        self.page.unroute("**/api/rigs/*/edits")
        expect(self.page.locator("#line")).to_have_value("")
        self.expect_runs(3)
        pieces = [piece for run in self.rigs.export("lantern-evening").runs for piece in run.pieces]
        self.assertEqual(len(set(pieces)), len(pieces), "no lead is in two runs")

    def test_a_line_whose_lead_somebody_else_took_comes_back_to_be_read_again(self) -> None:
        self.page.keyboard.press("/")
        self.page.keyboard.type("lectern > desk 1")
        expect(self.page.locator("#understood .add")).to_be_visible()
        context, other = self.visitor()
        other.goto(f"{self.server.address}/#/")
        other.locator("#line").fill("choir 1 > desk 2")
        expect(other.locator("#understood .add")).to_be_visible()
        other.keyboard.press("Enter")
        expect(other.locator(".above .count")).to_have_text("2 runs")
        context.close()
        self.page.keyboard.press("Enter")
        expect(self.page.locator("#line")).to_have_value("lectern > desk 1")
        expect(self.page.locator("#understood")).to_contain_text("somebody changed the rig meanwhile")
        expect(self.page.locator("#understood .add")).to_be_visible()
        self.page.keyboard.press("Enter")
        self.expect_runs(3)

    def test_what_was_understood_stands_there_before_enter(self) -> None:
        self.page.keyboard.press("/")
        self.page.keyboard.type("keys > desk 7/8, 6 m")
        panel = self.page.locator("#understood")
        expect(panel).to_contain_text("Keys, Left / mono and Right")
        expect(panel).to_contain_text("J1 Instrument lead, 6 m")
        expect(panel.locator("svg[data-run] circle[data-contact]").first).to_be_visible()
        expect(panel.locator(".grade, .finding").first).to_contain_text("Clear")
        self.assertEqual(len(self.rigs.export("lantern-evening").runs), 1)
        self.assertEqual(self.serious(), [])

    def test_completions_by_tab_and_arrows(self) -> None:
        self.page.keyboard.press("/")
        for typed, key, after in (
            ("lect", "Tab", "Lectern"),
            ("", "Tab", "Lectern > "),
            ("des", "Tab", "Lectern > Desk"),
        ):
            self.page.keyboard.type(typed)
            expect(self.page.locator("[role=option]").first).to_contain_text(after.strip())
            self.page.keyboard.press(key)
            expect(self.page.locator("#line")).to_have_value(after)
        expect(self.page.locator("[role=option]").nth(1)).to_contain_text("Desk 2")
        self.page.keyboard.press("ArrowDown")
        self.page.keyboard.press("ArrowDown")
        self.page.keyboard.press("Enter")
        expect(self.page.locator("#line")).to_have_value("Lectern > Desk 2")
        expect(self.page.locator("#understood .add")).to_be_visible()

    def test_what_cannot_be_read_says_why_and_adds_nothing(self) -> None:
        self.page.keyboard.press("/")
        self.page.keyboard.type("keys > desk 99")
        expect(self.page.locator("#understood")).to_contain_text("Desk has no “99”")
        self.page.keyboard.press("Enter")
        expect(self.page.locator("#line")).to_have_value("keys > desk 99")
        self.page.keyboard.press("Escape")
        expect(self.page.locator("#line")).to_have_value("")
        self.assertEqual(len(self.rigs.export("lantern-evening").runs), 1)

    def test_a_better_wiring_stands_beside_the_named_one(self) -> None:
        page = self.page
        page.locator("#line").click()
        page.keyboard.type("second laptop > 3.5 mm to XLR adapter > powered speaker, 10 m")
        understood = page.locator("#understood")
        expect(understood).to_contain_text("Everything common to left and right cancels")
        offered = understood.get_by_role("button", name=re.compile("Clear"))
        expect(offered).to_have_attribute("title", "Type second laptop > powered speaker, 10 m")
        offered.click()
        expect(page.locator("#line")).to_have_value("second laptop > powered speaker, 10 m")
        expect(understood).to_contain_text("Arrives whole")

    def test_on_a_phone(self) -> None:
        self.page.set_viewport_size({"width": 390, "height": 844})
        self.page.locator("#line").click()
        self.add("lectern > desk 1, 10 m")
        expect(self.page.locator("article[data-run='lectern']")).to_be_visible()
        wide = self.page.evaluate("document.documentElement.scrollWidth")
        self.assertLessEqual(wide, 390)


class FromNothing(BrowserTest):
    """A whole rig from an empty one, judged; each click and each key beside the text counts."""

    MOST = 60
    count = 0

    def click(self, target: Locator) -> None:
        target.click()
        self.count += 1

    def press(self, key: str) -> None:
        self.page.keyboard.press(key)
        self.count += 1

    def start(self) -> None:
        self.click(self.page.get_by_role("link", name="Rigs"))
        self.click(self.page.get_by_role("button", name="New rig"))
        form = self.page.get_by_role("form", name="A new rig")
        self.click(form.get_by_label("Name"))
        self.page.keyboard.type("Sunday")
        self.press("Enter")
        expect(self.page.get_by_role("heading", name="No runs yet")).to_be_visible()

    def expect_judged(self) -> None:
        expect(self.page.get_by_label("Runs by their worst finding")).to_contain_text("0 stop")
        self.expect_runs(SUNDAY_RUNS)
        self.assertLess(self.count, self.MOST)

    def test_typed_line_by_line(self) -> None:
        self.start()
        self.press("/")
        for line in SUNDAY.splitlines():
            self.page.keyboard.type(line)
            expect(self.page.locator("#understood .add")).to_be_visible()
            self.press("Enter")
            expect(self.page.locator("#line")).to_have_value("")
        self.expect_judged()
        self.assertEqual(self.count, 4 + 1 + 15, "README.md says this figure")

    def test_pasted_as_a_page(self) -> None:
        self.start()
        self.click(self.page.get_by_role("button", name="Input list"))
        self.page.get_by_label("Lines or a table").fill(SUNDAY)
        self.count += 1  # pasted with one key
        self.click(self.page.get_by_role("button", name=re.compile(f"Add {SUNDAY_RUNS} runs")))
        self.expect_judged()
        self.assertEqual(self.count, 4 + 3, "README.md says this figure")


class Pasting(BrowserTest):
    def test_an_input_list_of_sixteen(self) -> None:
        self.page.get_by_role("button", name="Input list").click()
        self.page.get_by_label("Lines or a table").fill(LIST)
        expect(self.page.get_by_role("button", name=re.compile("Add 16 runs"))).to_be_enabled()
        expect(self.page.get_by_text("read as a table")).to_be_visible()
        self.assertEqual(self.serious(), [])
        self.page.get_by_role("button", name=re.compile("Add 16 runs")).click()
        self.expect_runs(17)
        rig = self.rigs.export("lantern-evening")
        by_name = {run.name: run for run in rig.runs}
        self.assertIn("tall boom", by_name["Overhead left"].note)
        self.assertIn("phantom", by_name["Overhead left"].note)
        self.assertTrue(by_name["Lectern"].joins[-1].b.connector.startswith("mic16"))
        self.page.keyboard.press("u")
        self.expect_runs(1)

    def test_lines_with_errors_keep_what_is_wrong_to_be_mended(self) -> None:
        self.page.get_by_role("button", name="Input list").click()
        box = self.page.get_by_label("Lines or a table")
        box.fill("lectern > desk 1\nlectern > desk ninety\nkeys > desk 7/8")
        add = self.page.get_by_role("button", name="Add 2 runs, keep 1 to mend")
        expect(add).to_be_enabled()
        add.click()
        expect(box).to_have_value("lectern > desk ninety")
        self.expect_runs(3)

    def test_several_lines_pasted_into_the_field_open_the_page_for_many(self) -> None:
        self.page.locator("#line").click()
        self.page.evaluate(
            """() => {
                const data = new DataTransfer();
                data.setData('text', 'lectern > desk 1\\nkeys > desk 7/8');
                document.activeElement.dispatchEvent(new ClipboardEvent('paste', {clipboardData: data, bubbles: true,
                    cancelable: true}));
            }"""
        )
        expect(self.page.get_by_role("button", name="Add 2 runs")).to_be_enabled()


class Legs(BrowserTest):
    def piece(self, tag: str) -> None:
        pieces = self.page.get_by_role("group", name="Pieces of this run")
        self.click_steady(pieces.get_by_role("button", name=tag, exact=True))

    def test_swap_look_and_take(self) -> None:
        self.piece("A4")
        self.page.get_by_role("button", name="Swap…").click()
        choice = self.page.locator(".choices li button", has_text="A7 Mono-sum adapter")
        choice.focus()
        expect(self.page.locator(".strip.ghost")).to_be_visible()
        expect(self.run_card()).to_contain_text("Arrives whole")
        self.assertEqual(self.serious(), [])
        self.page.keyboard.press("Enter")
        expect(self.page.locator(".strip.ghost")).to_have_count(0)
        expect(self.run_card()).to_contain_text("Arrives whole")
        self.assertEqual(self.rigs.export("lantern-evening").runs[0].pieces, ("adapter-7", "lead-31"))

    def test_insert_move_and_take_out(self) -> None:
        self.click_steady(self.page.get_by_role("button", name="Insert before M31"))
        self.page.get_by_label("Find a lead").fill("pad, 20")
        self.page.locator(".choices li button").first.click()
        pieces = self.page.get_by_role("group", name="Pieces of this run")
        expect(pieces.get_by_role("button", name="pad 1", exact=True)).to_be_visible()
        self.piece("pad 1")
        self.page.get_by_role("button", name="Move on").click()
        expect(self.run_card().locator("text.piece").last).to_contain_text("pad 1")
        self.piece("A4")
        self.page.get_by_role("button", name="Take out").click()
        expect(self.run_card()).to_contain_text("no source")
        self.page.keyboard.press("u")
        expect(self.run_card()).to_contain_text("cancels at")
        kept = self.rigs.export("lantern-evening").runs[0].pieces
        self.assertEqual([piece[:7] for piece in kept], ["adapter", "lead-31", "get-pad"])

    def test_draw_a_lead_contact_to_contact(self) -> None:
        self.piece("M31")
        self.page.get_by_role("button", name="Wiring…").click()
        contact = self.page.locator("[data-point='in.3']")
        contact.focus()
        self.page.keyboard.press("Enter")
        self.page.locator("[data-point='out.3']").focus()
        self.page.keyboard.press("Enter")
        self.page.locator("[data-point='out.3']").click()
        self.page.locator("[data-point='out.1']").click()
        expect(self.page.locator(".finding", has_text="Only left arrives").last).to_be_visible()
        self.assertEqual(self.serious(), [])
        self.page.get_by_role("button", name="Keep this wiring").click()
        expect(self.run_card()).to_contain_text("Only left arrives")
        rig = self.rigs.export("lantern-evening")
        part = rig.part_of("lead-31")
        self.assertEqual(part.id, "own-lead-31")
        self.assertEqual([(str(wire.a), str(wire.b)) for wire in part.wires], [("out.3", "out.1")])
        self.assertEqual(rig.part_of("lead-32").id, "mic-lead", "the other lead of its kind is as it was")
        self.page.keyboard.press("u")
        expect(self.run_card()).to_contain_text("cancels at")
