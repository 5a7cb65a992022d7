"""Takes the pictures in docs/screenshots from the demo rig, on a database made for that alone."""

from collections.abc import Callable, Mapping
from datetime import datetime, timedelta

from playwright.sync_api import Page, sync_playwright

from ruvak.core.venue.lines import read_venue
from ruvak.service.access import DEMO_TECHNICIAN, Role
from ruvak.service.demo_data import SETUP, add_demo
from ruvak.service.edits import Edits
from ruvak.service.kept import KeptRigs
from ruvak.service.sign_ins import Browser, SignIns
from ruvak.service.states import Person
from ruvak.service.upkeep import people_at, rigs_at, venues_at
from ruvak.store.database import engine_for, sessions_for
from ruvak.web.who import COMPUTER, SIGN_IN
from script.shared.open_run import open_run
from script.shared.throwaway_app import CHECKOUT, throwaway
from script.shared.web_server import ARGUMENTS, CHROMIUM

PICTURES = CHECKOUT / "docs" / "screenshots"
DESK, PHONE = (1280, 800), (390, 844)


def nothing(_page: Page) -> None:
    """The view as it opens."""


def show_runs(page: Page) -> None:
    """The runs of a rig that is not open."""
    page.get_by_role("button", name="Show runs of Midwinter Concert").click()
    page.get_by_role("list", name="Runs of Midwinter Concert").wait_for()


def type_a_line(page: Page) -> None:
    """A stereo line as it is understood, before Enter."""
    page.locator("#line").click()
    page.keyboard.type("keys L/R > desk 7/8, 6 m")
    page.locator("#understood svg[data-run]").wait_for()


def with_spare(page: Page) -> None:
    """Five metres more in each way, so that some leads are joined and some have to be got."""
    page.get_by_label("Spare in each way").select_option("5")
    page.get_by_role("region", name="To borrow or buy").wait_for()


def test_a_lead(page: Page) -> None:
    """A lead whose pins are exchanged, as it was typed."""
    page.locator("summary", has_text="V2").first.click()
    page.get_by_role("button", name="Test V2").click()
    page.get_by_label("What you read").fill("1-1, 2-3, 3-2, 2-2 open, 3-3 open")
    page.get_by_text("on purpose").or_(page.get_by_text("Open the plugs and look")).first.wait_for()
    page.get_by_role("region", name="Lead tester").scroll_into_view_if_needed()


def two_steps(page: Page) -> None:
    """Two steps done, the third is next."""
    for _ in range(2):
        page.locator("li.next").get_by_role("button", name="Done").click()
        page.wait_for_timeout(500)


def fill_the_cupboard(page: Page) -> None:
    """Two kinds understood, one line to mend."""
    page.get_by_label("Add to this rig's kit").fill("about six 10 m microphone leads\nD9: passive DI\nmic leads")
    page.locator(".said .problem").wait_for()


def how_it_came(page: Page) -> None:
    """The stream's hum, its remedy, and how one figure came about."""
    open_run(page, "stream").locator(".opened").wait_for()
    page.locator("button.remedy").first.wait_for()
    page.locator(".hum button.how").first.scroll_into_view_if_needed()
    page.locator(".hum button.how").first.click()
    page.locator(".how-box:visible").wait_for()


def close_the_run(page: Page) -> None:
    """The list alone, from its top."""
    page.keyboard.press("Escape")
    page.locator(".list").evaluate("list => (list.scrollTop = 0)")
    page.locator("article[data-run='lead-vocal'] .wires").wait_for()


def check_two(page: Page) -> None:
    """The third run is silent: what is likely."""
    page.get_by_role("list", name="All runs").get_by_role("button").first.click()
    page.get_by_label("Run 1, Lead vocal").wait_for()
    page.get_by_role("button", name="Good", exact=True).click()
    page.get_by_label("Run 2, Vocal 2").wait_for()
    page.get_by_role("button", name="Wrong", exact=True).click()
    page.get_by_role("button", name="Crackle", exact=True).click()
    page.get_by_role("group", name="Which piece it was").get_by_role("button").first.click()
    page.get_by_label("Note").fill("when moved")
    page.get_by_role("button", name="Mended, it is good now").click()
    page.get_by_label("Run 3, Vocal 3").wait_for()
    page.get_by_role("button", name="Wrong", exact=True).click()
    page.get_by_role("button", name="Silent", exact=True).click()
    page.get_by_text("broken: swap").first.wait_for()


def before_the_doors(page: Page) -> None:
    """Two runs are wrong, somebody is at one of them, and there are minutes left."""
    page.wait_for_url("**/rigs/*/doors")
    rig = page.url.removesuffix("/doors")
    for run, heard in (("stream", "Hum or buzz"), ("wedge-2", "Silent")):
        page.goto(f"{rig}/check/{run}")
        page.get_by_role("button", name="Wrong", exact=True).click()
        page.get_by_role("button", name=heard, exact=True).click()
        page.get_by_role("button", name="Still wrong, next run").click()
        page.get_by_role("button", name="Take it back").wait_for()
        page.goto(f"{rig}/doors")
    page.get_by_role("button", name="I take it").first.click()
    page.get_by_label("Doors at").fill(f"{datetime.now() + timedelta(minutes=9):%H:%M}")
    page.get_by_text("You are at it").wait_for()


def newer_venue(page: Page) -> None:
    """What the house has measured since, and what that does to the runs; a line being typed."""
    page.get_by_role("list", name="Runs that change").wait_for()
    page.get_by_label("Boards, circuits, strips").fill("circuit 4, 20 A, foyer: outlets 21-24; strip foyer bar")
    page.get_by_text("Foyer bar strip on Circuit 4").wait_for()


def next_week(page: Page) -> None:
    """The concert made once more, with its rig's verdict."""
    page.get_by_role("button", name="The same a week later").click()
    page.get_by_text("Everything as before is free").wait_for()
    page.locator(".inside .verdict li, .inside .verdict > span").first.wait_for()


def look_at_the_suspect(page: Page) -> None:
    """A lead that crackles, opened."""
    page.locator("summary", has=page.get_by_text("V4", exact=True)).click()
    page.get_by_role("form", name="Condition of V4").wait_for()


def add_somebody(page: Page) -> None:
    """The link by which somebody new chooses a passphrase."""
    page.get_by_role("button", name="Add somebody").click()
    page.get_by_label("Name", exact=True).fill("Wren Calder")
    page.get_by_role("button", name="Add and make the link").click()
    page.get_by_label("Address of the link").wait_for()


Views = tuple[tuple[str, str, tuple[int, int], str, Callable[[Page], None]], ...]
VIEWS: Views = (
    ("concert", "/", DESK, "booth", nothing),
    ("concert-list", "/", DESK, "booth", close_the_run),
    ("concert-hum", "/", (1280, 1000), "booth", how_it_came),
    ("concert-check", "/check", PHONE, "booth", check_two),
    ("concert-log", "/log", DESK, "daylight", nothing),
    ("concert-hook-up", "/hook-up", PHONE, "booth", two_steps),
    ("concert-doors", "/doors", DESK, "booth", before_the_doors),
    ("concert-pull", "/pull", DESK, "booth", with_spare),
    ("concert-tester", "/cupboard", DESK, "daylight", test_a_lead),
    ("runs-phone", "/", PHONE, "booth", nothing),
    ("line", "/", DESK, "booth", type_a_line),
    ("concert-venue", "/venue", DESK, "daylight", newer_venue),
    ("concert-kit", "/kit", DESK, "booth", fill_the_cupboard),
    ("rigs", "/rigs", DESK, "booth", show_runs),
    ("concert-weeks", "/weeks", DESK, "booth", next_week),
    ("concert-cupboard", "/cupboard", DESK, "daylight", look_at_the_suspect),
    ("compare", "/compare/sunday-talk/sunday-talk-2", DESK, "daylight", nothing),
)


HOUSE: Views = (
    ("sign-in", "/", DESK, "booth", nothing),
    ("people", "/people", DESK, "daylight", add_somebody),
)
"""Where nobody is signed in without a passphrase: at a trusted computer, and as an owner."""


def main() -> None:
    """Writes every picture anew."""
    with throwaway("screenshot") as app:
        add_demo(app.url)
        measure_a_strip(app.url)
        with app.served() as address:
            take_all(address, VIEWS, {})
        with app.served(demo=False) as address:
            take_all(address, HOUSE, fill_the_house(app.url))


def measure_a_strip(url: str) -> None:
    """In another rig of the concert's venue, saved for the house: the concert is told."""
    rigs, venues = rigs_at(url), venues_at(url)
    rig = rigs.copy("midwinter-concert", "Spring Concert", "", SETUP).rig
    venues.belong(rig.id, venues.list_all()[0].id)
    edit = read_venue(rig, "stage left strip: 0.9 V\ncircuit 2, 16 A").edit
    if edit is None:
        raise ValueError("The lines say what the venue has already.")
    sessions, kept = sessions_for(engine_for(url)), KeptRigs()
    Edits(sessions, kept).make(rig.id, rigs.version(rig.id).version, edit, SETUP)
    venues.save(rig.id, "stage left strip measured", Person(id="hanne", name="Hanne Brook"))


def fill_the_house(url: str) -> dict[str, dict[str, str]]:
    """Somebody of each role; what the browser of each picture carries."""
    people, sign_ins = people_at(url), SignIns(sessions_for(engine_for(url)))
    browser = Browser(address="127.0.0.1", words="")
    for name, role in PEOPLE.items():
        people.choose_passphrase(people.add(name, role, "Set-up").token, "velvet tractor under seven lanterns")
    people.add("Teo Marsh", "viewer", "Imre Falk")
    people.remove(DEMO_TECHNICIAN.id)
    owner = sign_ins.of_person(people.named("Imre Falk"), browser)
    return {
        "sign-in": {COMPUTER: sign_ins.trust_computer("the booth", "Imre Falk")},
        "people": {SIGN_IN: owner},
    }


PEOPLE: dict[str, Role] = {"Imre Falk": "owner", "Hanne Brook": "technician", "Odalys Reed": "helper"}


def take_all(address: str, views: Views, cookies: Mapping[str, Mapping[str, str]]) -> None:
    """One browser, one fresh profile a picture, with the cookies of that."""
    PICTURES.mkdir(parents=True, exist_ok=True)
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)
        for name, path, (width, height), theme, act in views:
            context = browser.new_context(viewport={"width": width, "height": height}, reduced_motion="reduce")
            for cookie, value in cookies.get(name, {}).items():
                context.add_cookies([{"name": cookie, "value": value, "url": address}])
            page = context.new_page()
            rig = "midwinter-concert" if name.startswith("concert") else "lantern-evening"
            page.add_init_script(f"localStorage.setItem('ruvak-theme', '{theme}')")
            page.add_init_script(f"localStorage.setItem('ruvak-rig', '{rig}')")
            page.goto(f"{address}/#{path}")
            page.locator("main h1:visible, main h2:visible").first.wait_for()
            if path == "/" and not cookies:
                page.locator("button.remedy").first.wait_for()
                page.get_by_text("Looking for others").wait_for(state="detached")
            act(page)
            page.get_by_text("Looking for others").wait_for(state="detached")
            page.wait_for_timeout(400)
            page.screenshot(path=PICTURES / f"{name}.png")
            context.close()
        browser.close()


if __name__ == "__main__":
    main()
