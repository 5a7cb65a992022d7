"""What opening and scrolling through 256 runs costs the browser: scripting a frame, tasks that hold it up, lines in
the document.

The reference is the same wheel over a plain list of as many lines in the same browser.
"""

from typing import Any

from playwright.sync_api import CDPSession, Page, sync_playwright

from bench.rigs import earthed_rig
from ruvak.service.states import Person
from ruvak.service.upkeep import rigs_at
from script.shared.throwaway_app import throwaway
from script.shared.web_server import ARGUMENTS, CHROMIUM

RUNS = 256
STEPS, STEP_PX = 90, 120
SCRIPT_AIM_MS, TASK_AIM_MS, LINES_AIM = 8.0, 50.0, 60

_WATCH = """() => {
    window.__tasks = []; window.__frames = 0; window.__most = 0;
    new PerformanceObserver((list) => window.__tasks.push(...list.getEntries().map((task) => task.duration)))
        .observe({ type: 'longtask' });
    const frame = () => {
        window.__frames += 1;
        window.__most = Math.max(window.__most, document.querySelectorAll('article[data-run], li[data-line]').length);
        requestAnimationFrame(frame);
    };
    requestAnimationFrame(frame);
}"""
_PLAIN = """(count) => {
    document.body.innerHTML = '<ol>' + Array.from({ length: count }, (_, at) =>
        `<li data-line style="height:40px">Line ${at}</li>`).join('') + '</ol>';
}"""


def main() -> None:
    """Prints figures of the list and of the reference."""
    with throwaway("bench") as app:
        rig = rigs_at(app.url).import_rig(earthed_rig(RUNS), Person(id="bench", name="Bench"))
        with app.served() as address, sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            page.set_default_timeout(120_000)
            opening_ms = _open(page, address, rig.rig.id)
            script_ms, longest_ms, lines = _scroll(page)
            plain = browser.new_page(viewport={"width": 1280, "height": 800})
            plain.evaluate(_PLAIN, RUNS)
            reference_ms, _, _ = _scroll(plain)
            browser.close()
    print(f"scrolling: {RUNS} runs, {STEPS} turns of the wheel; reference: a plain list, {reference_ms:.2f} ms a frame")
    ratio = script_ms / max(reference_ms, 0.01)
    print(f"  scripting   {script_ms:6.2f} ms a frame  {ratio:6.1f} of the reference  (aim {SCRIPT_AIM_MS:.0f} ms)")
    print(f"  opening: longest task {opening_ms:5.0f} ms, the page itself being there (aim {TASK_AIM_MS:.0f} ms)")
    print(f"  longest task {longest_ms:5.0f} ms (aim {TASK_AIM_MS:.0f} ms; shorter ones than 50 ms are not counted)")
    print(f"  lines in the document {lines} at most (aim {LINES_AIM})")


def _open(page: Page, address: str, rig_id: str) -> float:
    """The longest task of 50 ms and more from the list of rigs until the rig's worst run is open; 0 for none."""
    page.goto(f"{address}/#/rigs")
    page.get_by_role("heading", name="Rigs").first.wait_for()
    page.wait_for_timeout(2000)
    page.evaluate(_WATCH)
    page.evaluate("(rig) => { location.hash = `/rigs/${rig}/runs`; }", rig_id)
    page.locator("article[data-run] .opened").first.wait_for()
    page.wait_for_timeout(4000)
    return float(max(page.evaluate("window.__tasks"), default=0.0))


def _scroll(page: Page) -> tuple[float, float, int]:
    """Scripting in milliseconds a frame, the longest task of 50 ms and more (0 for none), the most lines at once."""
    page.evaluate(_WATCH)
    session = page.context.new_cdp_session(page)
    session.send("Performance.enable")
    page.mouse.move(500, 500)
    before, frames = _script_s(session), page.evaluate("window.__frames")
    for step in range(STEPS):
        page.mouse.wheel(0, STEP_PX if step < STEPS // 2 else -STEP_PX)
        page.wait_for_timeout(30)
    frames = page.evaluate("window.__frames") - frames
    took_ms = 1000.0 * (_script_s(session) - before)
    return took_ms / max(frames, 1), max(page.evaluate("window.__tasks"), default=0.0), page.evaluate("window.__most")


def _script_s(session: CDPSession) -> float:
    metrics: list[dict[str, Any]] = session.send("Performance.getMetrics")["metrics"]
    return next(float(metric["value"]) for metric in metrics if metric["name"] == "ScriptDuration")
