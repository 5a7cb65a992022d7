"""How long an edit takes until it is saved, by itself and while another process edits too; then what is seen of it.

The reference is one full analysis of the same rig in the same process, with nothing kept from before: the median of
some made before, between and after what is measured, since a machine that others use changes its speed within a run.
"""

import statistics
import time
from collections.abc import Callable

from bench.rigs import earthed_rig
from ruvak.core.analyse import analyse, ground_loops_of
from ruvak.core.analysis_cache import AnalysisCache
from ruvak.core.rig.edits import Edit, SetField
from ruvak.core.rig.prune import sub_rig
from ruvak.core.rig.rig import Rig
from ruvak.service.analyses import Analyses
from ruvak.service.computer import Computer
from ruvak.service.edits import Edits
from ruvak.service.kept import KeptRigs
from ruvak.service.memory import search_seldom_for_cycles
from ruvak.service.pool import InPlace
from ruvak.service.rigs import Rigs
from ruvak.service.states import Person
from ruvak.store.database import engine_for, sessions_for
from script.shared.throwaway_app import throwaway

SIZES_AND_AIMS_MS = ((64, 25.0), (1024, 100.0))
EDITS = 100
VERDICT_AIM_MS, STRIP_AIM_MS, CONNECTIONS_AIM_MS = 300.0, 100.0, 200.0
SOMEBODY = Person(id="bench", name="Bench")


class _Process:
    """The use cases of one web worker."""

    def __init__(self, url: str) -> None:
        sessions, kept = sessions_for(engine_for(url)), KeptRigs()
        self.rigs, self.edits, self.computer = Rigs(sessions, kept), Edits(sessions, kept), Computer(sessions, kept)
        self.analyses = Analyses(sessions, kept, InPlace(self.computer))


def main() -> None:
    """Prints medians, 95th percentiles and ratios."""
    search_seldom_for_cycles()
    for runs, aim_ms in SIZES_AND_AIMS_MS:
        rig = earthed_rig(runs)
        analyse(sub_rig(rig, rig.runs[0].id))
        reference = _Reference(rig)
        reference.measure()
        print(f"editing: a rig of {runs} runs; reference: one full analysis, {reference.ms():.0f} ms")
        with throwaway("bench") as app:
            _edits(app.url, rig, aim_ms, reference)
            if runs == SIZES_AND_AIMS_MS[0][0]:
                _seen(app.url, rig, reference)


class _Reference:
    """One full analysis, measured again beside each figure."""

    def __init__(self, rig: Rig) -> None:
        self._rig, self._taken = rig, [_time_ms(lambda: analyse(rig))]

    def measure(self) -> None:
        """Once more; a large rig's takes too long for that."""
        if len(self._rig.runs) == SIZES_AND_AIMS_MS[0][0]:
            self._taken = [*self._taken[-4:], *(_time_ms(lambda: analyse(self._rig)) for _ in range(2))]

    def ms(self) -> float:
        """The median of the last few."""
        return statistics.median(self._taken)


def _edits(url: str, rig: Rig, aim_ms: float, reference: _Reference) -> None:
    one, other = _Process(url), _Process(url)
    one.rigs.import_rig(rig, SOMEBODY)
    for words, workers in (("in one process", [one]), ("in two in turn", [one, other])):
        taken = []
        for number in range(EDITS):
            edits = workers[number % len(workers)].edits
            taken.append(_time_ms(lambda edits=edits, number=number: _edit(edits, rig, number)))  # type: ignore[misc]
        _say(f"saved {words}", taken, aim_ms, reference)
    _say("opened", [_time_ms(lambda: _Process(url).rigs.open(rig.id, SOMEBODY))], None, reference)


def _edit(edits: Edits, rig: Rig, number: int) -> str:
    item = rig.kit[number % len(rig.runs)]
    length = SetField(kind="kit", id=item.id, field="length_m", value=3.0 + number % 17)
    return edits.make(rig.id, "1.0", Edit(label="length", ops=(length,)), SOMEBODY).version


def _seen(url: str, rig: Rig, reference: _Reference) -> None:
    """From the edit to the overview, as a compute process answers it; connections ranked."""
    here = _Process(url)
    taken = []
    for number in range(12):
        version = _edit(here.edits, rig, number)
        taken.append(_time_ms(lambda version=version: here.computer.overview(rig.id, version)))  # type: ignore[misc]
    _say("verdict after an edit", taken[2:], VERDICT_AIM_MS, reference)
    taken = []
    for number in range(12):
        version, run = _edit(here.edits, rig, number), rig.runs[number].id
        taken.append(_time_ms(lambda version=version, run=run: here.analyses.drawing(rig.id, version, run)))  # type: ignore[misc]
    _say("its strip", taken[2:], STRIP_AIM_MS, reference)
    now, cache = here.rigs.export(rig.id), AnalysisCache()
    ground_loops_of(now, cache)
    taken = [_time_ms(lambda: ground_loops_of(now, cache)) for _ in range(5)]
    _say("connections ranked", taken, CONNECTIONS_AIM_MS, reference)


def _time_ms(work: Callable[[], object]) -> float:
    began = time.perf_counter()
    work()
    return 1000.0 * (time.perf_counter() - began)


def _say(what: str, taken: list[float], aim_ms: float | None, reference: _Reference) -> None:
    reference.measure()
    reference_ms = reference.ms()
    median, late = statistics.median(taken), sorted(taken)[int(0.95 * (len(taken) - 1))]
    aim = f"  (aim {aim_ms:.0f} ms)" if aim_ms is not None else ""
    print(f"  {what:24} median {median:7.1f} ms, 95th {late:7.1f} ms, {late / reference_ms:6.3f} of the reference{aim}")
