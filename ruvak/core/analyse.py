"""The pipeline: a checked rig goes in, an analysis comes out. Nothing is kept, nothing is changed."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from ruvak.core.analysis_cache import AnalysisCache
from ruvak.core.circuit.build import build
from ruvak.core.errors import Fault, RigFault, SingularNetwork
from ruvak.core.judge.assumed import Assumed, list_assumptions
from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, RigFinding, Verdict
from ruvak.core.judge.notes import Note, notes
from ruvak.core.judge.registry import judge, judge_rig, verdict
from ruvak.core.judge.sentences import written
from ruvak.core.judge.symptoms import heard_words
from ruvak.core.parts.library import assumptions_of, disturbances_of, embed
from ruvak.core.progress import Progress, portion, report_nothing
from ruvak.core.results.ground_loops import rank_connections
from ruvak.core.results.hum_records import GroundLoop
from ruvak.core.results.norton import NortonEquivalent, norton_equivalent
from ruvak.core.results.records import DestinationResult, RunResult
from ruvak.core.results.response import COARSE_HZ
from ruvak.core.results.runs import rig_results
from ruvak.core.results.solved_rig import Options
from ruvak.core.results.variants import add_switch_levels, solve_matings
from ruvak.core.rig.controls import settings_in_use
from ruvak.core.rig.prune import prune, sub_rig
from ruvak.core.rig.rig import Rig, Run
from ruvak.core.rig.values import Id, Record
from ruvak.core.trace.drawing import RunDrawing, draw
from ruvak.core.trace.trace import Trace, trace

READ = 0.75
"""The share of an analysis that is done when every run's figures are read; drawing them is the rest."""


class Control(Record):
    """A switch or control that belongs to a run's sockets."""

    gear: Id
    """The device."""
    setting: Id
    """Its switch or control."""


class RunAnalysis(Record):
    """One run: its drawing, its figures, what there is to say about it, what can be switched on it."""

    run: Id
    """The run."""
    drawing: RunDrawing
    """Its conductors from source to destination."""
    result: RunResult
    """Its figures."""
    findings: tuple[Finding, ...]
    """What is to be said about it, worst first."""
    controls: tuple[Control, ...]
    """What can be switched on the devices at its ends."""
    notes: tuple[Note, ...] = ()
    """House rules it does not keep."""


class Analysis(Record):
    """The whole rig, runs in the rig's order."""

    rig: Id
    """The rig."""
    verdict: Verdict
    """How many findings of each grade."""
    runs: tuple[RunAnalysis, ...]
    """Every run, in the rig's order."""
    findings: tuple[RigFinding, ...] = ()
    """What is to say about the whole rig at once."""
    destinations: tuple[DestinationResult, ...] = ()
    """What each device makes of all its inputs together."""
    assumed: tuple[Assumed, ...] = ()
    """What nobody has said, as questions."""


@dataclass(frozen=True)
class RunVerdict:
    """A run's figures and what there is to say about it, without its drawing."""

    run: str
    result: RunResult
    findings: tuple[Finding, ...]


@dataclass(frozen=True)
class Assessment:
    """The whole rig solved and judged for the sake of one run: only that one is drawn and tells its hum by cause."""

    verdict: Verdict
    runs: tuple[RunVerdict, ...]
    target_run: RunAnalysis


def analyse(rig: Rig, cache: AnalysisCache | None = None, progress: Progress = report_nothing) -> Analysis:
    """Everything the core has to say about a rig. Raises RigFault for faults in the data, never for wiring.

    `cache`: what was solved before, so that an edit costs less; the answer is the same without.
    """
    progress(0.0)
    cache = cache or AnalysisCache()
    built = cache.built.of(rig)
    whole, rig, traced = built.whole, built.used, built.traced
    try:
        options = Options(block_cache=cache.blocks)
        result = rig_results(rig, traced, built.circuit, options, cache.results, portion(progress, 0.0, READ))
        judged = _with_what_is_heard(whole, _judge_runs(rig, result.runs), cache)
    except SingularNetwork as problem:
        raise RigFault((Fault(problem.code, _unsolvable_at(whole), str(problem)),)) from problem
    runs: list[RunAnalysis] = []
    for run, judgement in zip(rig.runs, judged, strict=True):
        runs.append(_assemble_run(whole, rig, traced, run, judgement, cache))
        progress(READ + (1.0 - READ) * len(runs) / len(rig.runs))
    of_rig = judge_rig(whole)
    return Analysis(
        rig=rig.id,
        verdict=verdict(tuple(judgement.findings for judgement in judged), of_rig),
        runs=tuple(runs),
        findings=of_rig,
        destinations=result.destinations,
        assumed=list_assumptions(rig),
    )


def draw_run(rig: Rig, run_id: str) -> RunDrawing:
    """One run's drawing as it is in an analysis of the rig, without solving anything. KeyError for an unknown run."""
    run = next((run for run in rig.runs if run.id == run_id), None)
    if run is None:
        raise KeyError(run_id)
    alone = sub_rig(embed(rig), run_id)
    return draw(alone, trace(alone), run)


def _unsolvable_at(rig: Rig) -> str:
    """The field to look at where a network has no solution: the first part with a conductor without resistance."""
    for index, part in enumerate(rig.parts):
        for number, cable in enumerate(part.cables):
            for field in ("core_ohm_per_m", "screen_ohm_per_m"):
                if getattr(cable, field).value == 0.0:
                    return f"parts[{index}].cables[{number}].{field}"
    return "parts"


def assess(rig: Rig, run_id: str, cache: AnalysisCache | None = None) -> Assessment:
    """As analyse(), with the same figures and findings for every run. The rig is prepared."""
    cache = cache or AnalysisCache()
    used = prune(rig)
    traced = trace(used)
    options = Options(detailed_run=run_id, block_cache=cache.blocks)
    judged = _judge_runs(used, rig_results(used, traced, build(used, traced), options, cache.results).runs)
    index = next(index for index, run in enumerate(used.runs) if run.id == run_id)
    own = _assemble_run(rig, used, traced, used.runs[index], judged[index], cache)
    return Assessment(verdict(tuple(judgement.findings for judgement in judged), judge_rig(rig)), judged, own)


def _judge_runs(rig: Rig, results: tuple[RunResult, ...]) -> tuple[RunVerdict, ...]:
    results = add_switch_levels(rig, results)
    findings = judge(rig, results, solve_matings(rig))
    return tuple(RunVerdict(result.run, result, said) for result, said in zip(results, findings, strict=True))


def _with_what_is_heard(rig: Rig, judged: tuple[RunVerdict, ...], cache: AnalysisCache) -> tuple[RunVerdict, ...]:
    """Where a lead has a fault: what is heard of it, from solving the run with the lead as it was made too."""
    return tuple(
        replace(each, findings=tuple(_told(rig, each, finding, cache) for finding in each.findings))
        if any(finding.code is FindingCode.LEAD_FAULT for finding in each.findings)
        else each
        for each in judged
    )


def _told(rig: Rig, judged: RunVerdict, finding: Finding, cache: AnalysisCache) -> Finding:
    if finding.code is not FindingCode.LEAD_FAULT or finding.params["heard"]:
        return finding
    alone = rig.with_fields(runs=tuple(run for run in rig.runs if run.id == judged.run))
    # A finding's last item is what it is about, here the lead.
    lead = finding.items[-1]
    kit = tuple(each.model_copy(update={"faults": ()}) if each.id == lead else each for each in rig.kit)
    norton = rest_of_rig(rig, judged.run, cache)
    (right,), (wrong,) = (quick_verdicts(prune(each), norton=norton) for each in (alone.with_fields(kit=kit), alone))
    params = finding.params | {"heard": f" {heard_words(right, wrong)}"}
    return finding.model_copy(update={"params": params, "sentence": written(finding.code, params).sentence})


def _assemble_run(
    whole: Rig, rig: Rig, traced: Trace, run: Run, judged: RunVerdict, cache: AnalysisCache
) -> RunAnalysis:
    return RunAnalysis(
        run=run.id,
        drawing=cache.drawings.draw(rig, traced, run),
        result=judged.result,
        findings=judged.findings,
        controls=tuple(_controls(whole, run)),
        notes=tuple(notes(rig, run, judged.result)),
    )


def _controls(rig: Rig, run: Run) -> Iterator[Control]:
    """Source devices first, as the joins name them."""
    used: dict[str, list[str]] = {}
    for end in run.ends:
        used.setdefault(end.owner, []).append(end.connector)
    for owner, connectors in used.items():
        part = rig.part_of(owner)
        if part.kind == "gear":
            for setting in settings_in_use(part, connectors):
                yield Control(gear=owner, setting=setting.id)


def quick_findings(
    rig: Rig, traced: Trace | None = None, norton: NortonEquivalent | None = None
) -> tuple[tuple[Finding, ...], ...]:
    """Findings of each run as of quick_verdicts()."""
    return tuple(run.findings for run in quick_verdicts(rig, traced, norton))


def quick_verdicts(
    rig: Rig, traced: Trace | None = None, norton: NortonEquivalent | None = None
) -> tuple[RunVerdict, ...]:
    """Each run from a few frequencies, switches as they stand: to compare wirings. The rig is prepared.

    `norton`: the rest of the rig that these runs are a part of.
    """
    traced = traced or trace(rig)
    options = Options(COARSE_HZ, hum="brief", norton=norton)
    results = rig_results(rig, traced, build(rig, traced), options).runs
    return tuple(
        RunVerdict(result.run, result, findings) for result, findings in zip(results, judge(rig, results), strict=True)
    )


def rest_of_rig(rig: Rig, run_id: str, cache: AnalysisCache | None = None) -> NortonEquivalent | None:
    """The rest of the rig as one run's devices see it; None where that run is all there is. The rig is prepared."""
    run = next(run for run in rig.runs if run.id == run_id)
    others = tuple(run for run in rig.runs if run.id != run_id)
    gear = [owner for owner in run.owners if rig.part_of(owner).kind == "gear"]
    if not others or not gear:
        return None
    rest, bare = (prune(rig.with_fields(runs=runs), gear) for runs in (others, ()))
    around, own = (build(entry, trace(entry)) for entry in (rest, bare))
    assumed_f = assumptions_of(rig).stray_f.value
    stray_f = {device.id: device.earth_f.value if device.earth_f is not None else assumed_f for device in rig.gear}
    # A wiring may bring a computer's noise, and a failing supply's ripple is a part of the run.
    mains_hz = float(rig.venue.mains_hz)
    more_hz = (*disturbances_of(rig).computer_hz, mains_hz, 2.0 * mains_hz)
    return norton_equivalent(around, own, gear, stray_f, more_hz, cache.blocks if cache is not None else None)


def ground_loops_of(rig: Rig, cache: AnalysisCache | None = None) -> tuple[GroundLoop, ...]:
    """Connections that close loops, ranked by what opening each does to every input. Raises RigFault."""
    cache = cache or AnalysisCache()
    built = cache.built.of(rig)
    return rank_connections(built.used, built.traced, built.circuit, cache.blocks)
