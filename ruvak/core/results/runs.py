"""Every run's results, and what each device makes of them together."""

from dataclasses import dataclass

from ruvak.core.circuit.circuit import Circuit
from ruvak.core.progress import Progress, report_nothing
from ruvak.core.results.destinations import Destinations
from ruvak.core.results.kept_results import KeptResults
from ruvak.core.results.records import DestinationResult, RunResult
from ruvak.core.results.run_ports import ports_of_run
from ruvak.core.results.run_reader import RunReader, RunsReader
from ruvak.core.results.solved_rig import Options, SolvedRig
from ruvak.core.rig.rig import Rig
from ruvak.core.trace.trace import Trace

TOGETHER, AT_LEAST, FIGURES = 32, 4, 50_000
"""Runs whose share of the solution is read at once: more save little and take memory, so fewer where there are more
figures to each of a solution's rows."""


@dataclass(frozen=True)
class RigResults:
    """Every run, in the rig's order; every device that a run reaches."""

    runs: tuple[RunResult, ...]
    destinations: tuple[DestinationResult, ...]


def rig_results(
    rig: Rig,
    traced: Trace,
    circuit: Circuit,
    options: Options | None = None,
    kept: KeptResults | None = None,
    progress: Progress = report_nothing,
) -> RigResults:
    """Every run of the rig, in its order, from one solved network; with full hum also what each device makes of all its
    inputs together. `kept`: results that were made before."""
    options = options or Options()
    if not rig.runs:
        return RigResults((), ())
    solved = SolvedRig(rig, traced, circuit, options)
    destinations = Destinations(rig, solved.disturbed) if solved.full and solved.disturbed else None
    ports_by_run = [ports_of_run(rig, traced, circuit, run) for run in rig.runs]
    result: list[RunResult] = []
    together = max(AT_LEAST, min(TOGETHER, FIGURES // max(1, solved.figures)))
    for first in range(0, len(rig.runs), together):
        own = slice(first, first + together)
        some = RunsReader(solved, ports_by_run[own], [run.id for run in rig.runs[own]])
        for index, run in enumerate(rig.runs[own]):
            reader = RunReader(some, run, index)
            result.append(reader.result() if kept is None else reader.kept_result(kept))
            if destinations is not None:
                reader.add_to(destinations, result[-1])
        progress(len(result) / len(rig.runs))
    return RigResults(tuple(result), destinations.results() if destinations is not None else ())
