"""How long somebody waits for a remedy: candidates screened a second, the first shown, all of them.

On a rig of 64 runs with one fault put in, and on the demo concert's own faults; the reference is one whole analysis of
the same rig in the same run. As in the application, the rig's analysis is at hand before anybody asks.
"""

import statistics
import time
from collections.abc import Callable
from functools import partial

from bench.rigs import earthed_rig
from ruvak.core.analyse import analyse, quick_findings
from ruvak.core.analysis_cache import AnalysisCache
from ruvak.core.judge.finding import Grade
from ruvak.core.prepare import prepare
from ruvak.core.remedies.paths import edit_for, paths
from ruvak.core.remedies.search import first_remedy, remedies_for
from ruvak.core.rig.edits import apply
from ruvak.core.rig.prune import prune
from ruvak.core.rig.rig import Rig
from ruvak.service.demo_data import demo_rig

SCREENED_AIM, FIRST_AIM_MS = 1000, 500
TIMES = 3


def main() -> None:
    """Prints milliseconds, and ratios to a whole analysis."""
    print(f"remedies: aims on 64 runs: {SCREENED_AIM} candidates screened a second, the first in {FIRST_AIM_MS} ms")
    for rig in (earthed_rig(64), prepare(demo_rig("midwinter-concert"))):
        _measure(rig)


def _measure(rig: Rig) -> None:
    cache = AnalysisCache()
    before = analyse(rig, cache)
    began = time.perf_counter()
    analyse(rig)
    whole_ms = 1000.0 * (time.perf_counter() - began)
    worst = [one.run for one in before.runs if one.findings[0].grade in (Grade.STOP, Grade.FIX)][:8]
    screened, first, every = [], [], []
    for run_id in worst:
        screened.append(_screened_a_second(rig, run_id))
        first.append(_median_ms(partial(first_remedy, rig, run_id, before, cache)))
        every.append(_median_ms(partial(remedies_for, rig, run_id, before, cache)))
    rate, first_ms, every_ms = (statistics.median(one) for one in (screened, first, every))
    print(
        f"  {rig.name}, {len(rig.runs)} runs, {len(worst)} of them at fault: whole analysis {whole_ms:.0f} ms;"
        f" {rate:.0f} candidates screened a second, {1000.0 / rate / whole_ms:.3f} of an analysis each;"
        f" first remedy {first_ms:.0f} ms ({first_ms / whole_ms:.2f} of an analysis; at most {max(first):.0f} ms);"
        f" all of them {every_ms:.0f} ms ({every_ms / whole_ms:.2f})"
    )


def _screened_a_second(rig: Rig, run_id: str) -> float:
    run = next(one for one in rig.runs if one.id == run_id)
    small = rig.with_fields(runs=(run,))
    began, count = time.perf_counter(), 0
    for route in paths(rig, run):
        quick_findings(prune(apply(small, edit_for(rig, run, route, "candidate"))))
        count += 1
    return max(1, count) / (time.perf_counter() - began)


def _median_ms(work: Callable[[], object]) -> float:
    taken = []
    for _ in range(TIMES):
        began = time.perf_counter()
        work()
        taken.append(1000.0 * (time.perf_counter() - began))
    return statistics.median(taken)
