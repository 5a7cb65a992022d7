"""How long a typed line takes on a rig of 64 runs: in the reader, over HTTP, and on screen until it is understood.

The reference is one full analysis of the same rig in the same process: what a save costs anyway.
"""

import statistics
import time
from collections.abc import Callable

from playwright.sync_api import sync_playwright

from bench.rigs import sized_rig
from ruvak.core.analyse import analyse
from ruvak.core.entry.reader import read, read_all
from ruvak.core.rig.rig import Rig
from ruvak.service.computer import Computer
from ruvak.service.kept import KeptRigs
from ruvak.service.memory import search_seldom_for_cycles
from ruvak.service.states import Person
from ruvak.service.upkeep import rigs_at
from ruvak.store.database import engine_for, sessions_for
from script.shared.throwaway_app import throwaway
from script.shared.web_server import ARGUMENTS, CHROMIUM
from tests.support.typed import corpus, empty_rig

LINES = (
    "Singer 65 > Desk A 30, 8 m",
    "Singer 65-68 > Desk A 28-31",
    "Keys 17 > Desk A 30/31",
    "Laptop > Desk B 30/31",
    "Singer 65 > Desk A",
    "Sing",
)
TWENTY = "\n".join(f"Guest {number} condenser > Desk C {number}, 10 m" for number in range(9, 29))
TIMES = 15
TWENTY_AIM_MS = 1500.0
SERVER_AIM_MS, SCREEN_AIM_MS = 80.0, 150.0


def main() -> None:
    """Prints median milliseconds and ratios."""
    search_seldom_for_cycles()
    rig = sized_rig(64)
    reference = _median(lambda: analyse(rig), 5)
    print(f"reading: a rig of 64 runs; reference: one full analysis, {reference:.0f} ms")
    for line in LINES:
        took = _median(lambda line=line: read(rig, line), TIMES)  # type: ignore[misc]
        _say("reader", line, took, reference, SERVER_AIM_MS)
    took = _median(lambda: read_all(rig, TWENTY), 3)
    _say("reader", "twenty lines", took, reference, TWENTY_AIM_MS)
    _measure_corpus(reference)
    _measure_served(rig, reference)


def _measure_corpus(reference: float) -> None:
    """Every line of the tests' corpus on an empty rig, as a compute process reads it: those that ask for one run."""
    taken = []
    for line, *_ in corpus():
        began = time.perf_counter()
        reading = read(empty_rig(), line)
        if len(reading.runs) <= 1:
            taken.append(1000.0 * (time.perf_counter() - began))
    taken.sort()
    median, most = statistics.median(taken), taken[int(0.95 * len(taken))]
    within = 100.0 * sum(each <= SERVER_AIM_MS for each in taken) / len(taken)
    _say("reader", f"the median of {len(taken)} lines on an empty rig", median, reference, SERVER_AIM_MS)
    _say("reader", "their 95th percentile", most, reference, SERVER_AIM_MS)
    print(f"  {within:.0f} % of them within {SERVER_AIM_MS:.0f} ms")


def _median(work: Callable[[], object], times: int) -> float:
    work()
    taken = []
    for _ in range(times):
        began = time.perf_counter()
        work()
        taken.append(1000.0 * (time.perf_counter() - began))
    return statistics.median(taken)


def _say(where: str, line: str, took_ms: float, reference_ms: float, aim_ms: float) -> None:
    print(
        f"  {where:7} {took_ms:6.1f} ms  {took_ms / reference_ms:6.3f} of the reference  (aim {aim_ms:.0f} ms)  {line}"
    )


def _measure_served(rig: Rig, reference: float) -> None:
    with throwaway("bench") as app:
        rigs_at(app.url).import_rig(rig, Person(id="bench", name="Bench"))
        computer = Computer(sessions_for(engine_for(app.url)), KeptRigs())
        for line in LINES:
            took = _median(lambda line=line: computer.read_lines(rig.id, line), TIMES)  # type: ignore[misc]
            _say("server", line, took, reference, SERVER_AIM_MS)
        with app.served() as address:
            _on_screen(address, reference)


def _on_screen(address: str, reference: float) -> None:
    """From the last key to the sentence in the panel."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)
        page = browser.new_page()
        page.set_default_timeout(60_000)
        page.goto(address)
        page.locator("article[data-run]").first.wait_for()
        for line in LINES[:4]:
            taken = []
            for _ in range(5):
                page.locator("#line").click()
                page.locator("#line").fill("x")
                page.locator("#understood").wait_for()
                page.wait_for_timeout(500)
                taken.append(page.evaluate(_TIMED, [line]))
            _say("screen", line, statistics.median(taken), reference, SCREEN_AIM_MS)
        browser.close()


_TIMED = """([line]) => new Promise((done) => {
    const field = document.querySelector('#line');
    const text = () => document.querySelector('#understood')?.textContent ?? '';
    const before = text();
    const began = performance.now();
    const watch = new MutationObserver(() => {
        if (text() === before || text() === '') return;
        watch.disconnect();
        requestAnimationFrame(() => setTimeout(() => done(performance.now() - began)));
    });
    watch.observe(document.body, { childList: true, subtree: true, characterData: true });
    field.value = line;
    field.dispatchEvent(new Event('input', { bubbles: true }));
})"""
