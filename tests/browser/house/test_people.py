"""People at several browsers: signing in, rights on screen, links, and what a helper records."""

import contextlib
import tempfile
from functools import cache
from pathlib import Path

from playwright.sync_api import BrowserContext, Page, expect

from ruvak.service.access import Role
from ruvak.service.people import People
from ruvak.service.sign_ins import SignIns
from script.shared.web_server import WebServer
from tests.support.browser import BrowserTest, start_application
from tests.support.people import BROWSER, PASSPHRASE, with_passphrase


@cache
def start_house() -> WebServer:
    """The same house as it is served to others: nobody is signed in there without a passphrase."""
    served = start_application()
    folder = tempfile.TemporaryDirectory()
    server = WebServer(served.url, Path(folder.name) / "web.log", demo=False)
    server.start()
    served.at_end.callback(folder.cleanup)
    served.at_end.callback(server.stop)
    return server


class HouseTest(BrowserTest):
    """`somebody()` is a new browser at the house, signed in or not."""

    demo = "lantern-evening"

    def setUp(self) -> None:
        super().setUp()
        self.people, self.sign_ins = People(self.sessions), SignIns(self.sessions)
        self.others = contextlib.ExitStack()
        self.addCleanup(self.others.close)
        self.house = start_house()
        for person in self.people.list_all():
            if person.role != "owner":
                self.people.remove(person.id)

    def _local(self, url: str) -> None:
        if not url.startswith(start_house().address):
            super()._local(url)

    def person(self, name: str, role: Role) -> str:
        """With a passphrase; signed in already where an earlier test was there."""
        return with_passphrase(self.sessions, name, role)

    def somebody(self, name: str | None = None, path: str = "/", width: int = 1280) -> tuple[BrowserContext, Page]:
        context, page = self.visitor(width)
        self.others.callback(context.close)
        if name is not None:
            token = self.sign_ins.of_person(self.people.named(name), BROWSER)
            context.add_cookies([{"name": "ruvak_sign_in", "value": token, "url": self.house.address}])
        page.goto(f"{self.house.address}/#{path}")
        return context, page

    def sign_in(self, page: Page, name: str, passphrase: str = PASSPHRASE) -> None:
        page.get_by_label("Name", exact=True).fill(name)
        page.get_by_label("Passphrase").fill(passphrase)
        page.get_by_role("button", name="Sign in").click()


class SigningIn(HouseTest):
    def test_nobody_sees_anything_before_signing_in_and_nothing_after_signing_out(self) -> None:
        self.person("Hanne Brook", "technician")
        _, page = self.somebody()
        expect(page.get_by_role("heading", name="Sign in")).to_be_visible()
        self.sign_in(page, "Hanne Brook", "not it at all")
        expect(page.get_by_role("alert")).to_contain_text("do not fit")
        self.sign_in(page, "hanne brook")
        expect(page.get_by_role("heading", name="Lantern Evening")).to_be_visible()
        page.goto(f"{self.house.address}/#/you")
        page.get_by_role("button", name="Sign out").click()
        expect(page.get_by_role("heading", name="Sign in")).to_be_visible()
        expect(page.get_by_text("Lantern Evening")).to_have_count(0)
        self.assertEqual(self.serious(page), [])

    def test_somebody_new_comes_in_by_the_owners_link(self) -> None:
        if not any(person.role == "owner" for person in self.people.list_all()):
            self.person("Imre Falk", "owner")
        owner = next(person.name for person in self.people.list_all() if person.role == "owner")
        _, page = self.somebody(owner, "/people")
        page.get_by_role("button", name="Add somebody").click()
        page.get_by_label("Name", exact=True).fill("Wren Calder")
        page.get_by_role("form", name="Add somebody").get_by_role("combobox").select_option("helper")
        page.get_by_role("button", name="Add and make the link").click()
        address = page.get_by_label("Address of the link").input_value()
        expect(page.get_by_alt_text("QR code of the link for Wren Calder")).to_be_visible()
        self.assertEqual(self.serious(page), [])
        _, new = self.somebody()
        new.goto("about:blank")
        new.goto(address)
        expect(new.get_by_role("heading", name="Welcome, Wren Calder")).to_be_visible()
        self.assertNotIn("link", new.evaluate("location.hash"))
        new.get_by_label("New passphrase").fill("password1234")
        new.get_by_role("button", name="Choose and sign in").click()
        expect(new.get_by_role("alert")).to_contain_text("most common")
        new.get_by_label("New passphrase").fill(PASSPHRASE)
        new.get_by_role("button", name="Choose and sign in").click()
        expect(new.get_by_role("heading", name="Lantern Evening")).to_be_visible()
        page.reload()
        expect(page.get_by_label("Role of Wren Calder")).to_have_value("helper")
        expect(page.get_by_text("signed in at 1 browser").first).to_be_visible()

    def test_at_a_trusted_computer_a_name_is_picked(self) -> None:
        self.person("Odalys Reed", "helper")
        context, page = self.somebody()
        token = self.sign_ins.trust_computer("Booth", "the tests")
        context.add_cookies([{"name": "ruvak_computer", "value": token, "url": self.house.address}])
        page.reload()
        expect(page.get_by_role("heading", name="Who is at Booth?")).to_be_visible()
        page.get_by_role("button", name="Odalys Reed").click()
        expect(page.get_by_role("heading", name="Lantern Evening")).to_be_visible()
        for computer in self.sign_ins.list_computers():
            self.sign_ins.stop_trusting(computer.id)
        expect(page.get_by_role("heading", name="Sign in")).to_be_visible()

    def test_an_edit_that_met_the_end_of_a_sign_in_is_saved_after_the_next(self) -> None:
        hanne = self.person("Hanne Brook", "technician")
        _, page = self.somebody("Hanne Brook", "/rigs/lantern-evening/runs/slides")
        length = page.get_by_label("Length of M31")
        expect(length).to_be_visible()
        page.route("**/version", lambda route: route.abort())
        length.fill("17")
        (signed_in,) = self.sign_ins.list_of(hanne, None)
        self.sign_ins.end(signed_in.id)
        length.press("Enter")
        expect(page.get_by_role("heading", name="Sign in")).to_be_visible()
        page.unroute("**/version")
        self.sign_in(page, "Hanne Brook")
        page.get_by_role("button", name="Try again").click()
        expect(page.get_by_role("status").filter(has_text="Saved")).to_be_visible()
        expect(page.get_by_label("Length of M31")).to_have_value("17")


class TogetherInARig(HouseTest):
    def test_two_technicians_and_a_viewer(self) -> None:
        for name, role in (("Hanne Brook", "technician"), ("Tarn Oakes", "technician"), ("Teo Marsh", "viewer")):
            self.person(name, role)  # type: ignore[arg-type]
        address = "/rigs/lantern-evening/runs/slides"
        pages = [self.somebody(name, address)[1] for name in ("Hanne Brook", "Tarn Oakes", "Teo Marsh")]
        hanne, tarn, teo = pages
        lengths = [page.get_by_label("Length of M31") for page in pages]
        for length in lengths:
            expect(length).to_have_value("15")
        expect(lengths[2]).to_be_disabled()
        expect(teo.locator("#line")).to_have_count(0)
        lengths[0].fill("17")
        lengths[0].press("Enter")
        self.seen_by(pages[1:], "17")
        tarn.get_by_role("slider").first.focus()
        tarn.keyboard.press("ArrowLeft")
        lengths[1].fill("19")
        lengths[1].press("Enter")
        self.seen_by([hanne, teo], "19")
        teo.goto(f"{self.house.address}/#/rigs/lantern-evening/changes")
        expect(teo.get_by_text("Hanne Brook").first).to_be_visible()
        expect(teo.get_by_text("Tarn Oakes").first).to_be_visible()
        saved = self.rigs.export("lantern-evening")
        self.assertEqual(next(item.length_m for item in saved.kit if item.id == "lead-31"), 19)

    def seen_by(self, pages: list[Page], value: str) -> None:
        """The first moment at which all see it; how long that took is not what is tested here but in the bench."""
        for page in pages:
            expect(page.get_by_label("Length of M31")).to_have_value(value)


class ByLink(HouseTest):
    def made(self, page: Page, gives: str) -> str:
        page.get_by_label("For", exact=True).fill("Stage tablet")
        page.get_by_label("They may").select_option(gives)
        page.get_by_role("button", name="Create link").click()
        return page.get_by_label("Address of the link").input_value()

    def test_a_link_opens_its_rig_leaves_no_trace_and_dies_when_revoked(self) -> None:
        self.person("Hanne Brook", "technician")
        _, desk = self.somebody("Hanne Brook", "/rigs")
        address = self.made(desk, "read")
        context, tablet = self.visitor(390, 844, touch=True)
        self.others.callback(context.close)
        tablet.goto(address)
        expect(tablet.get_by_role("heading", name="Lantern Evening")).to_be_visible()
        self.assertNotIn("/link/", tablet.evaluate("location.href"))
        tablet.go_back()
        self.assertNotIn("/link/", tablet.evaluate("location.href"))
        tablet.go_forward()
        expect(tablet.get_by_role("heading", name="Lantern Evening")).to_be_visible()
        expect(tablet.locator("#line")).to_have_count(0)
        self.assertEqual(self.serious(tablet), [])
        desk.reload()
        expect(desk.get_by_text("opened at 1 browser")).to_be_visible()
        desk.get_by_role("button", name="Revoke the link for Stage tablet").click()
        expect(tablet.get_by_role("heading", name="Sign in")).to_be_visible()
        tablet.goto("about:blank")
        tablet.goto(address)
        expect(tablet.get_by_role("alert")).to_contain_text("ended or was revoked")

    def test_what_is_recorded_by_a_link_is_kept_or_taken_back_by_a_technician(self) -> None:
        self.person("Hanne Brook", "technician")
        _, desk = self.somebody("Hanne Brook", "/rigs")
        address = self.made(desk, "record")
        _, stage = self.somebody()
        stage.goto(address)
        expect(stage.get_by_role("heading", name="Lantern Evening")).to_be_visible()
        stage.goto(f"{self.house.address}/#/rigs/lantern-evening/runs/slides")
        expect(stage.get_by_label("Length of M31")).to_be_disabled()
        for words in ("Keep", "Restore the plan"):
            stage.get_by_role("slider").first.focus()
            stage.keyboard.press("ArrowLeft")
            expect(stage.get_by_role("button", name="Undo")).to_be_enabled()
            desk.goto(f"{self.house.address}/#/rigs/lantern-evening/changes")
            open_ = desk.get_by_role("region", name="Done on stage, not in the plan")
            expect(open_).to_contain_text("Stage tablet")
            open_.get_by_role("button", name=words).click()
            expect(open_).to_have_count(0)
        self.assertEqual(self.serious(desk), [])
        expect(desk.get_by_text("as built, kept")).to_be_visible()
        expect(desk.get_by_text("as built, plan restored")).to_be_visible()


class Demonstration(BrowserTest):
    def test_it_says_who_is_signed_in_and_why(self) -> None:
        note = self.page.get_by_text("This is the demonstration")
        expect(note).to_contain_text("Demo technician")
        self.page.get_by_role("button", name="Put this away").click()
        expect(note).to_have_count(0)
        self.page.reload()
        self.run_card().wait_for()
        expect(note).to_have_count(0)
