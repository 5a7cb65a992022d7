"""When things go wrong: others save first, the server is gone, a file is bad, a view cannot be drawn."""

import json
from pathlib import Path
from typing import Any

from playwright.sync_api import Page, Route, expect

from ruvak.core.rig.edits import Edit, SetField
from ruvak.core.rig.files import rig_to_json
from tests.support.browser import SOMEBODY, BrowserTest
from tests.support.rigs import demo_rig, document


class TwoAtOnce(BrowserTest):
    def somebody_saves(self, metres: float = 40.0) -> None:
        """Another lead length."""
        edit = Edit(label="theirs", ops=(SetField(kind="kit", id="lead-31", field="length_m", value=metres),))
        self.edits.make("lantern-evening", self.rigs.version("lantern-evening").version, edit, SOMEBODY)

    def somebody_rewires(self) -> None:
        """The same field that a remedy of the run sets."""
        edit = Edit(label="theirs", ops=(SetField(kind="runs", id="slides", field="joins", value=[]),))
        self.edits.make("lantern-evening", self.rigs.version("lantern-evening").version, edit, SOMEBODY)

    def unaware(self, page: Page) -> None:
        """The page does not learn of what others save."""
        page.route("**/api/rigs/*/version", lambda route: route.abort())

    def test_what_somebody_else_saves_comes_on_screen_by_itself(self) -> None:
        self.somebody_saves()
        expect(self.run_card().locator("svg[data-run]")).to_contain_text("M31, 40 m")

    def test_different_things_both_stand(self) -> None:
        self.unaware(self.page)
        self.remedy("Mono-sum adapter").wait_for()
        self.somebody_saves()
        self.remedy("Mono-sum adapter").click()
        expect(self.run_card()).to_contain_text("Arrives whole")
        expect(self.run_card().locator("svg[data-run]")).to_contain_text("M31, 40 m")
        expect(self.page.get_by_role("alert")).to_have_count(0)
        self.assertEqual(self.rigs.list_all()[0].version, "2.0")

    def test_the_same_thing_is_shown_with_both_values_and_mine_waits_for_a_decision(self) -> None:
        self.unaware(self.page)
        self.remedy("Mono-sum adapter").wait_for()
        self.somebody_rewires()
        self.remedy("Mono-sum adapter").click()
        notice = self.page.get_by_role("alert")
        expect(notice).to_contain_text("changed the same meanwhile")
        expect(notice).to_contain_text("slides, joins: yours")
        expect(notice).to_contain_text("(Somebody else)")
        expect(notice).to_contain_text("A7 Mono-sum adapter")
        expect(self.run_card()).not_to_contain_text("Arrives whole")
        notice.get_by_role("button", name="Make mine on top of theirs").click()
        expect(self.run_card()).to_contain_text("Arrives whole")
        self.assertEqual(self.rigs.list_all()[0].version, "2.0")

    def test_on_a_phone_it_is_in_sight_wherever_the_page_stands(self) -> None:
        context, page = self.visitor(390, 844)
        self.unaware(page)
        page.goto(self.server.address)
        card = page.locator("button.remedy", has_text="Mono-sum adapter")
        card.wait_for()
        self.somebody_rewires()
        card.scroll_into_view_if_needed()
        card.click()
        expect(page.get_by_role("alert")).to_be_in_viewport()
        context.close()

    def test_theirs_can_be_kept(self) -> None:
        self.unaware(self.page)
        self.remedy("Mono-sum adapter").wait_for()
        self.somebody_rewires()
        self.remedy("Mono-sum adapter").click()
        self.page.get_by_role("button", name="Keep theirs").click()
        expect(self.page.get_by_role("alert")).to_have_count(0)
        self.assertEqual(self.rigs.list_all()[0].version, "1.0")


class ServerGone(BrowserTest):
    def test_nothing_is_lost_and_it_can_be_tried_again(self) -> None:
        self.remedy("Mono-sum adapter").wait_for()
        # What comes later would put a card under the pointer again, and that shows its preview.
        self.page.get_by_text("Looking for others").wait_for(state="detached")
        self.server.stop()
        self.remedy("Mono-sum adapter").click()
        expect(self.page.locator(".saved")).to_have_text("Not saved")
        notice = self.page.get_by_role("alert")
        expect(notice).to_contain_text("No answer from the server")
        expect(self.run_card()).to_contain_text("cancels at Left speaker")
        self.server.start()
        self.page.reload()
        expect(notice).to_contain_text("A change was not saved before this page was left.")
        expect(notice).to_contain_text("A7 Mono-sum adapter")
        notice.get_by_role("button", name="Try again").click()
        expect(self.run_card()).to_contain_text("Arrives whole")
        expect(self.page.locator(".saved")).to_contain_text("Saved")


class Files(BrowserTest):
    def bring(self, name: str, text: str) -> None:
        file = {"name": name, "mimeType": "application/json", "buffer": text.encode()}
        self.page.locator("input[type=file]").set_input_files(file)  # type: ignore[arg-type]

    def test_a_good_file_opens(self) -> None:
        self.open("/rigs")
        self.bring("rig.json", rig_to_json(demo_rig().with_fields(id="second", name="Second Evening")))
        expect(self.page.get_by_role("heading", name="Second Evening")).to_be_visible()
        expect(self.run_card()).to_be_visible()

    def test_a_bad_file_is_told_field_by_field_and_changes_nothing(self) -> None:
        self.open("/rigs")
        kit = [{"id": "l", "tag": "L", "part": "mic-lead", "length_m": -1}]
        self.bring("rig.json", json.dumps(document(kit=kit)))
        alert = self.page.get_by_role("alert")
        expect(alert).to_contain_text("kit[0].length_m must be at least 0.001.")
        self.bring("rig.json", "{ not json")
        expect(alert).to_contain_text("not JSON")
        self.assertEqual(len(self.rigs.list_all()), 1)

    def test_a_rig_can_be_taken_away_and_brought_back(self) -> None:
        self.open("/rigs")
        with self.page.expect_download() as download:
            self.page.get_by_role("link", name="Export", exact=True).click()
        text = Path(download.value.path()).read_text(encoding="utf-8")
        self.assertEqual(json.loads(text), json.loads(rig_to_json(demo_rig())))


class Broken(BrowserTest):
    def test_a_view_that_cannot_be_drawn_leaves_the_rest_working(self) -> None:
        def spoil(route: Route) -> None:
            answer = route.fetch()
            body: dict[str, Any] = answer.json()
            for run in body.values():
                run["drawing"]["conductors"] = None
            route.fulfill(response=answer, json=body)

        self.page.route("**/api/rigs/*/versions/*/runs?*", spoil)
        self.page.reload()
        expect(self.page.get_by_role("alert")).to_contain_text("This view could not be drawn")
        expect(self.page.get_by_role("alert")).to_contain_text("nothing is lost")
        self.page.get_by_role("link", name="Rigs").click()
        expect(self.page.get_by_role("heading", name="Rigs")).to_be_visible()
        self.trouble.clear()

    def test_an_unknown_address(self) -> None:
        self.open("/nowhere")
        expect(self.page.locator("main")).to_contain_text("nothing at this address")
