"""The building typed as lines, kept by the house, and taken into another rig."""

from playwright.sync_api import expect

from ruvak.service.edits import Edits
from ruvak.service.kept import KeptRigs
from ruvak.service.venues import Venues
from ruvak.store.database import engine_for, sessions_for
from tests.core.venue.test_lines import read_venue
from tests.support.browser import SOMEBODY, BrowserTest, start_application


class VenueStation(BrowserTest):
    demo = "midwinter-concert"

    def setUp(self) -> None:
        super().setUp()
        sessions, kept = sessions_for(engine_for(start_application().url)), KeptRigs()
        self.venues = Venues(sessions, kept, Edits(sessions, kept))
        self.other = self.rigs.copy(self.demo, "Spring Concert", "", SOMEBODY).rig.id
        self.page.goto(f"{self.server.address}/#/rigs/{self.demo}/venue")
        expect(self.page.get_by_role("heading", name="Ferrywell Hall", exact=True)).to_be_visible()

    def test_lines_are_said_back_added_and_stand_in_the_tree(self) -> None:
        box = self.page.get_by_label("Boards, circuits, strips")
        box.fill("circuit 4, 20 A, foyer: outlets 21-22; strip foyer bar\nlamp 3")
        expect(self.page.get_by_text("Foyer bar strip on Circuit 4, foyer")).to_be_visible()
        expect(self.page.get_by_text("is no board, circuit, strip or outlet")).to_be_visible()
        self.page.get_by_role("button", name="Add to the venue").click()
        expect(box).to_have_value("lamp 3")
        tree = self.page.get_by_role("region", name="Earth, from the main bar down")
        expect(tree.get_by_text("Foyer bar strip")).to_be_visible()
        expect(tree.get_by_text("20 A")).to_be_visible()
        self.assertEqual(self.serious(), [])

    def test_saved_for_the_house_another_rig_is_told_and_takes_it_in_one_step(self) -> None:
        name = f"Hall of {self.id()[-20:]}"
        self.page.get_by_role("link", name="Rigs").click()
        self.page.get_by_label("Venue", exact=True).fill(name)
        self.page.keyboard.press("Tab")
        self.page.get_by_role("link", name="Venue").click()
        self.page.get_by_label("What it is").fill("as found")
        self.page.get_by_role("button", name="Save for the house").click()
        expect(self.page.get_by_text("Judged on revision 1")).to_be_visible()
        venue = next(one for one in self.venues.list_all() if one.name == name)
        self.venues.belong(self.other, venue.id)
        edit = read_venue(self.rigs.export(self.other), "stage left strip: 0.9 V").edit
        assert edit is not None
        self.edits.make(self.other, self.rigs.version(self.other).version, edit, SOMEBODY)
        self.page.goto(f"{self.server.address}/#/rigs/{self.other}/venue")
        expect(self.page.get_by_text("This rig has it otherwise")).to_be_visible()
        self.page.get_by_label("What was changed").fill("stage left measured")
        self.page.get_by_role("button", name="Save as revision 2").click()
        expect(self.page.get_by_text("Judged on revision 2")).to_be_visible()
        self.page.goto(f"{self.server.address}/#/rigs/{self.demo}/venue")
        changes = self.page.get_by_role("list", name="Runs that change")
        expect(changes.get_by_role("link", name="Wedge 1")).to_be_visible()
        self.assertEqual(self.serious(), [])
        self.page.get_by_role("button", name="Take revision 2 into this rig").click()
        expect(self.page.get_by_text("Judged on revision 2")).to_be_visible()
        expect(self.page.get_by_text("measured 0.9 V")).to_be_visible()
        self.page.keyboard.press("u")
        expect(changes).to_be_visible()
