"""How long somebody else waits while ten previews of a large rig are computed: the longest, not only a percentile.

The reference is one full analysis of the same rig in this process.
"""

import statistics
import threading
import time
import urllib.error
from typing import Any

from bench.rigs import sized_rig
from ruvak.core.analyse import analyse
from ruvak.service.states import Person
from ruvak.service.upkeep import rigs_at
from script.shared.throwaway_app import throwaway
from script.shared.visitor import Visitor
from tests.support.rigs import demo_rig

RUNS, PREVIEWS, AIM_MS = 300, 10, 500.0
LONGEST_S = 600.0
SOMEBODY = Person(id="bench", name="Bench")


def main() -> None:
    """Prints medians, the longest, and ratios."""
    rig, other = sized_rig(RUNS), demo_rig()
    began = time.perf_counter()
    analyse(rig)
    reference_ms = 1000.0 * (time.perf_counter() - began)
    print(f"busy: {PREVIEWS} previews of a rig of {RUNS} runs; reference: one full analysis, {reference_ms:.0f} ms")
    with throwaway("bench") as app:
        rigs = rigs_at(app.url)
        for each in (rig, other):
            rigs.import_rig(each, SOMEBODY)
        with app.served() as address:
            _measure(address, rig.id, rig.kit[0].id, other.id, reference_ms)


def _measure(address: str, large: str, item: str, small: str, reference_ms: float) -> None:
    answers: list[int] = []

    def preview(number: int) -> None:
        op = {"op": "set", "kind": "kit", "id": item, "field": "length_m", "value": 3.0 + number}
        try:
            Visitor(address, LONGEST_S).post(f"rigs/{large}/preview", {"edit": {"label": "x", "ops": [op]}})
            answers.append(200)
        except urllib.error.HTTPError as refused:
            answers.append(refused.code)

    here = Visitor(address, LONGEST_S)
    asking = [threading.Thread(target=preview, args=(number,)) for number in range(PREVIEWS)]
    for each in asking:
        each.start()
    time.sleep(0.5)
    taken: dict[str, list[float]] = {"health": [], "edit": []}
    number = 0
    while any(each.is_alive() for each in asking):
        number += 1
        taken["health"].append(_time_ms(lambda: here.get("health")))
        op = {"op": "set", "kind": "kit", "id": "lead-31", "field": "length_m", "value": 3.0 + number % 40}
        body = {"base_version": here.get(f"rigs/{small}/version")["version"], "edit": {"label": "x", "ops": [op]}}
        taken["edit"].append(_time_ms(lambda body=body: here.post(f"rigs/{small}/edits", body)))
        time.sleep(0.02)
    print(f"  previews answered: {answers.count(200)}, told to come again: {answers.count(503)}, else: "
          f"{len(answers) - answers.count(200) - answers.count(503)}")  # fmt: skip
    for what, times in taken.items():
        print(
            f"  {what:8} median {statistics.median(times):6.1f} ms, longest of {len(times)} {max(times):6.1f} ms, "
            f"{max(times) / reference_ms:6.3f} of the reference  (aim {AIM_MS:.0f} ms at most)"
        )


def _time_ms(work: Any) -> float:
    began = time.perf_counter()
    work()
    return 1000.0 * (time.perf_counter() - began)
