"""Opening a run in the browser, for its tests and for the pictures."""

from playwright.sync_api import Locator, Page


def open_run(page: Page, run: str) -> Locator:
    """The line of a run, opened by its address: a line of a long list exists only while it is in sight."""
    page.evaluate("run => (location.hash = location.hash.replace(/(runs).*/, '$1/' + run))", run)
    line = page.locator(f"article[data-run='{run}'][aria-current='true']")
    line.locator(".pick-run[aria-expanded='true']").wait_for()
    return line
