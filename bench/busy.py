"""How long somebody else waits while ten previews of a large rig are computed: the longest, not only a percentile.

The reference is one full analysis of the same rig in this process.
"""

import http.cookiejar
import json
import statistics
import threading
import time
import urllib.error
import urllib.request
from typing import Any

from bench.rigs import sized_rig
from ruvak.core.analyse import analyse
from ruvak.service.states import Person
from ruvak.service.upkeep import rigs_at
from script.shared.throwaway_app import throwaway
from tests.support.rigs import demo_rig

RUNS, PREVIEWS, AIM_MS = 300, 10, 500.0
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


class _Browser:
    """One person's cookie and token."""

    def __init__(self, address: str) -> None:
        self._address = address
        self._web = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(http.cookiejar.CookieJar()))
        self._token = self.get("session")["csrf_token"]

    def get(self, path: str) -> Any:
        with self._web.open(f"{self._address}/api/{path}", timeout=600) as got:
            return json.loads(got.read())

    def post(self, path: str, body: Any) -> int:
        headers = {"Content-Type": "application/json", "X-CSRF-Token": self._token}
        address = f"{self._address}/api/{path}"
        request = urllib.request.Request(address, json.dumps(body).encode(), headers)  # noqa: S310 loopback
        try:
            with self._web.open(request, timeout=600) as got:
                got.read()
                return int(got.status)
        except urllib.error.HTTPError as refused:
            return refused.code


def _measure(address: str, large: str, item: str, small: str, reference_ms: float) -> None:
    answers: list[int] = []

    def preview(number: int) -> None:
        op = {"op": "set", "kind": "kit", "id": item, "field": "length_m", "value": 3.0 + number}
        answers.append(_Browser(address).post(f"rigs/{large}/preview", {"edit": {"label": "x", "ops": [op]}}))

    here = _Browser(address)
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
