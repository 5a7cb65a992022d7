"""Takes the pictures in docs/screenshots from the demo rig, on a database made for that alone."""

from collections.abc import Callable

from playwright.sync_api import Page, sync_playwright

from ruvak.service.demo_data import add_demo
from ruvak.service.upkeep import rigs_at
from script.shared.open_run import open_run
from script.shared.throwaway_app import CHECKOUT, throwaway
from script.shared.web_server import ARGUMENTS, CHROMIUM

PICTURES = CHECKOUT / "docs" / "screenshots"
DESK, PHONE = (1280, 800), (390, 844)


def nothing(_page: Page) -> None:
    """The view as it opens."""


def look_at_isolator(page: Page) -> None:
    """Previews a remedy."""
    page.locator("button.remedy", has_text="Stereo line isolator").first.focus()


def apply_sum(page: Page) -> None:
    """Applies the first remedy and takes it back: the list of changes, one of them before and after."""
    page.locator("button.remedy").first.click()
    page.get_by_text("Arrives whole").first.wait_for()
    page.keyboard.press("u")
    page.get_by_text("cancels at").first.wait_for()
    page.keyboard.press("c")
    page.locator("main ol li button.show").last.click()
    page.locator(".strip svg").last.wait_for()


def show_runs(page: Page) -> None:
    """The runs of a rig that is not open."""
    page.get_by_role("button", name="Show runs of Midwinter Concert").click()
    page.get_by_role("list", name="Runs of Midwinter Concert").wait_for()


def two_earths(page: Page) -> None:
    """The laptop summed to mono and on its charger: what hums then, by cause."""
    page.locator("button.remedy").first.click()
    page.get_by_text("Arrives whole").first.wait_for()
    page.get_by_text("earthed plug", exact=True).click()
    page.locator(".finding", has_text="Hum and buzz").first.wait_for()
    page.locator(".hum .tones").scroll_into_view_if_needed()


def type_a_line(page: Page) -> None:
    """A stereo line as it is understood, before Enter."""
    page.locator("#line").click()
    page.keyboard.type("keys L/R > desk 7/8, 6 m")
    page.locator("#understood svg[data-run]").wait_for()


def many_lines(page: Page) -> None:
    """An input list with one row to mend."""
    page.get_by_role("button", name="Input list").click()
    page.get_by_label("Lines or a table").fill(INPUT_LIST)
    page.get_by_role("button", name="keep 1 to mend").wait_for()


def open_piece(page: Page) -> None:
    """Another adapter looked at in place of the one there is."""
    page.get_by_role("group", name="Pieces of this run").get_by_role("button", name="A4", exact=True).click()
    page.get_by_role("button", name="Swap…").click()
    page.locator(".choices li button", has_text="left only").focus()
    page.locator(".strip.ghost").wait_for()


def draw_wiring(page: Page) -> None:
    """Cold moved to the screen by hand."""
    page.get_by_role("group", name="Pieces of this run").get_by_role("button", name="A4", exact=True).click()
    page.get_by_role("button", name="Wiring…").click()
    for point in ("in.R", "out.3", "in.S", "out.3"):
        page.locator(f"[data-point='{point}']").click()
    page.locator(".finding", has_text="Only left arrives").last.wait_for()


def fill_the_cupboard(page: Page) -> None:
    """Two kinds understood, one line to mend."""
    page.get_by_label("Put into the cupboard").fill("about six 10 m microphone leads\nD9: passive DI\nmic leads")
    page.locator(".said .problem").wait_for()


INPUT_LIST = (
    "ch,who,mic or DI,stand,48V\n1,Kick,dynamic,short boom,\n2,Overhead left,condenser,tall boom,yes\n"
    "3,Bass,DI,,\n4,Pastor,wireless,,\n77,Reader,dynamic,straight,\n"
)


def worst_first(page: Page) -> None:
    """Everything wrong in one list, and the questions the figures rest on."""
    page.get_by_role("button", name="Worst first").click()
    page.locator(".assumed summary").click()


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


def foyer(page: Page) -> None:
    """A loudspeaker line that asks too much, and its taps turned down together."""
    open_run(page, "foyer").locator(".opened").wait_for()
    page.locator("button.remedy", has_text="Tap 20 W").hover()
    page.get_by_text("not applied yet").wait_for()


def lights(page: Page) -> None:
    """A microphone lead under lighting data: what comes back of every edge."""
    open_run(page, "lights").locator(".opened").wait_for()
    page.locator("button.remedy", has_text="Lighting data lead").wait_for()


VIEWS: tuple[tuple[str, str, tuple[int, int], str, Callable[[Page], None]], ...] = (
    ("concert", "/", DESK, "booth", nothing),
    ("concert-list", "/", DESK, "booth", close_the_run),
    ("concert-worst", "/", (1280, 1000), "daylight", worst_first),
    ("concert-hum", "/", (1280, 1000), "booth", how_it_came),
    ("concert-foyer", "/", DESK, "daylight", foyer),
    ("concert-data", "/", DESK, "booth", lights),
    ("concert-phone", "/", PHONE, "daylight", nothing),
    ("runs", "/", DESK, "booth", nothing),
    ("runs-preview", "/", DESK, "booth", look_at_isolator),
    ("runs-phone", "/", PHONE, "booth", nothing),
    ("line", "/", DESK, "booth", type_a_line),
    ("line-phone", "/", PHONE, "daylight", type_a_line),
    ("many", "/", DESK, "daylight", many_lines),
    ("pieces", "/", (1280, 900), "booth", open_piece),
    ("wiring", "/", DESK, "booth", draw_wiring),
    ("concert-kit", "/kit", DESK, "booth", fill_the_cupboard),
    ("rigs", "/rigs", DESK, "booth", show_runs),
    ("changes", "/", DESK, "booth", apply_sum),
    # Last: what it changes stays.
    ("hum", "/", (1280, 1000), "booth", two_earths),
)


def main() -> None:
    """Writes every picture anew."""
    with throwaway("screenshot") as app:
        add_demo(rigs_at(app.url))
        with app.served() as address:
            take_all(address)


def take_all(address: str) -> None:
    """One browser, one fresh profile a picture."""
    PICTURES.mkdir(parents=True, exist_ok=True)
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)
        for name, path, (width, height), theme, act in VIEWS:
            context = browser.new_context(viewport={"width": width, "height": height}, reduced_motion="reduce")
            page = context.new_page()
            rig = "midwinter-concert" if name.startswith("concert") else "lantern-evening"
            page.add_init_script(f"localStorage.setItem('ruvak-theme', '{theme}')")
            page.add_init_script(f"localStorage.setItem('ruvak-rig', '{rig}')")
            page.goto(f"{address}/#{path}")
            page.locator("main h2").first.wait_for()
            if path == "/":
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
