"""Opening a run in the browser, for its tests and for the pictures."""

from playwright.sync_api import Locator, Page

_STEADY = """async (element, frames) => {
    let before = '', same = 0;
    while (same < frames) {
        await new Promise(requestAnimationFrame);
        const {x, y, width, height} = element.getBoundingClientRect();
        const place = [x, y, width, height].join(' ');
        same = place === before ? same + 1 : 0;
        before = place;
    }
}"""
FRAMES = 20


def wait_until_steady(element: Locator) -> None:
    """Until it has stood in one place for some frames: what a person waits for before pointing at it."""
    element.evaluate(_STEADY, FRAMES)


def open_run(page: Page, run: str) -> Locator:
    """The line of a run, opened by its address: a line of a long list exists only while it is in sight."""
    page.evaluate("run => (location.hash = location.hash.replace(/(runs).*/, '$1/' + run))", run)
    line = page.locator(f"article[data-run='{run}'][aria-current='true']")
    line.locator(".pick-run[aria-expanded='true']").wait_for()
    wait_until_steady(line)
    return line
