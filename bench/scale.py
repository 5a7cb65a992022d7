"""Where a server's first limit is: browsers that ask for versions, edits by several people, and whole analyses by size.

The reference is one full analysis of the demo concert in this process.
"""

import statistics
import threading
import time
from collections.abc import Callable
from itertools import count

from bench.rigs import sized_rig
from ruvak.core.analyse import analyse
from ruvak.service.states import Person
from ruvak.service.upkeep import rigs_at
from script.shared.throwaway_app import throwaway
from script.shared.visitor import Visitor
from tests.support.rigs import demo_rig

SOMEBODY = Person(id="bench", name="Bench")
FOR_S = 8.0
ASKING, EDITING = (1, 8, 32), (1, 4, 8)
SIZES = (32, 64, 256)


def main() -> None:
    """Prints requests a second with medians and the longest, and analyses by size as ratios."""
    concert = demo_rig("midwinter-concert")
    reference_s = _seconds(lambda: analyse(concert))
    print(f"scale: reference: one full analysis of a concert of {len(concert.runs)} runs, {1000 * reference_s:.0f} ms")
    with throwaway("bench") as app:
        rigs = rigs_at(app.url)
        ids = [rigs.import_rig(demo_rig(), SOMEBODY).rig.id for _ in range(max(EDITING))]
        with app.served() as address:
            for browsers in ASKING:
                _ask(address, ids[0], browsers, reference_s)
            for people in EDITING:
                _edit(address, ids[:people], reference_s)
    for runs in SIZES:
        rig = sized_rig(runs)
        taken = _seconds(lambda rig=rig: analyse(rig))  # type: ignore[misc]
        print(f"  analysis of {runs:4} runs  {1000 * taken:7.0f} ms, {taken / reference_s:6.2f} of the reference")


def _ask(address: str, rig: str, browsers: int, reference_s: float) -> None:
    def ask(visitor: Visitor, _: int) -> None:
        visitor.get(f"rigs/{rig}/version")

    _report(f"version asked for by {browsers:2}", _together(address, [ask] * browsers), reference_s)


def _edit(address: str, ids: list[str], reference_s: float) -> None:
    def editor(rig: str) -> Callable[[Visitor, int], None]:
        def edit(visitor: Visitor, number: int) -> None:
            op = {"op": "set", "kind": "kit", "id": "lead-31", "field": "length_m", "value": 3.0 + number % 40}
            version = visitor.get(f"rigs/{rig}/version")["version"]
            visitor.post(f"rigs/{rig}/edits", {"base_version": version, "edit": {"label": "x", "ops": [op]}})

        return edit

    _report(f"edits by {len(ids):2} people", _together(address, [editor(rig) for rig in ids]), reference_s)


def _together(address: str, works: list[Callable[[Visitor, int], None]]) -> list[float]:
    """How long each request took, of so many clients at once that ask again as soon as they are answered."""
    taken: list[float] = []
    ending = time.perf_counter() + FOR_S

    def go_on(work: Callable[[Visitor, int], None]) -> None:
        visitor = Visitor(address, 60.0)
        for number in count():
            if time.perf_counter() > ending:
                return
            began = time.perf_counter()
            work(visitor, number)
            taken.append(time.perf_counter() - began)

    threads = [threading.Thread(target=go_on, args=(work,)) for work in works]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return taken


def _report(what: str, taken: list[float], reference_s: float) -> None:
    rate = len(taken) / FOR_S
    print(
        f"  {what:24} {rate:6.0f} a second ({rate * reference_s:6.1f} in the time of the reference), "
        f"median {1000 * statistics.median(taken):6.1f} ms, longest {1000 * max(taken):6.0f} ms"
    )


def _seconds(work: Callable[[], object]) -> float:
    began = time.perf_counter()
    work()
    return time.perf_counter() - began
