"""How long it takes until what one person saved stands on another's screen, verdict and all.

The reference is one full analysis of the same rig in this process.
"""

import statistics
import time

from playwright.sync_api import sync_playwright

from ruvak.core.analyse import analyse
from ruvak.service.states import Person
from ruvak.service.upkeep import rigs_at
from script.shared.throwaway_app import throwaway
from script.shared.visitor import Visitor
from script.shared.web_server import ARGUMENTS, CHROMIUM
from tests.support.rigs import demo_rig

RIG, LEAD, EDITS, AIM_MS = "midwinter-concert", "M10", 10, 2000.0
SOMEBODY = Person(id="bench", name="Bench")


def main() -> None:
    """Prints the median and the longest, with ratios."""
    rig = demo_rig(RIG)
    lead = next(item.id for item in rig.kit if item.tag == LEAD)
    began = time.perf_counter()
    analyse(rig)
    reference_ms = 1000.0 * (time.perf_counter() - began)
    with throwaway("bench") as app:
        rigs_at(app.url).import_rig(rig, SOMEBODY)
        with app.served() as address, sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            page.set_default_timeout(60_000)
            page.goto(f"{address}/#/rigs/{RIG}/runs")
            page.locator("main article").first.wait_for()
            page.wait_for_timeout(2000)
            taken_ms = []
            other = Visitor(address, 30.0)
            for number in range(EDITS):
                length_m = 12.0 + number
                op = {"op": "set", "kind": "kit", "id": lead, "field": "length_m", "value": length_m}
                version = other.get(f"rigs/{RIG}/version")["version"]
                body = {"base_version": version, "edit": {"label": "length", "ops": [op]}}
                # Spread over the second in which the page asks.
                page.wait_for_timeout(1000 + 137 * number)
                began = time.perf_counter()
                other.post(f"rigs/{RIG}/edits", body)
                page.get_by_text(f"{LEAD} {length_m:g} m").first.wait_for()
                taken_ms.append(1000.0 * (time.perf_counter() - began))
            browser.close()
    longest = max(taken_ms)
    print(f"seen: {EDITS} edits by somebody else; reference: one full analysis, {reference_ms:.0f} ms")
    print(
        f"  on another's screen  median {statistics.median(taken_ms):6.0f} ms, longest {longest:6.0f} ms, "
        f"{longest / reference_ms:5.2f} of the reference  (aim {AIM_MS:.0f} ms)"
    )
