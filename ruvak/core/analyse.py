"""The pipeline: a checked rig goes in, an analysis comes out. Nothing is kept, nothing is changed."""

from collections.abc import Iterator
from dataclasses import dataclass

from ruvak.core.analysis_cache import AnalysisCache
from ruvak.core.circuit.build import build
from ruvak.core.errors import Fault, RigFault, SingularNetwork
from ruvak.core.judge.assumed import Assumed, assumed
from ruvak.core.judge.finding import Finding, RigFinding, Verdict
from ruvak.core.judge.notes import Note, notes
from ruvak.core.judge.registry import judge, judge_rig, verdict, with_added
from ruvak.core.judge.rules.uncertain import Possibility, uncertain
from ruvak.core.parts.library import assumptions_of, disturbances_of, embed
from ruvak.core.results.ground_loops import bonds
from ruvak.core.results.hum_records import GroundLoop
from ruvak.core.results.norton import NortonEquivalent, norton_equivalent
from ruvak.core.results.records import DestinationResult, InputResult, Levels, RunResult
from ruvak.core.results.response import COARSE_HZ
from ruvak.core.results.runs import rig_results
from ruvak.core.results.solved_rig import Options
from ruvak.core.rig.check import check
from ruvak.core.rig.connectors import Sleeve
from ruvak.core.rig.controls import settings_in_use
from ruvak.core.rig.ports import Input
from ruvak.core.rig.prune import prune
from ruvak.core.rig.rig import Join, Rig, Run, called
from ruvak.core.rig.values import Id, Record
from ruvak.core.trace.drawing import RunDrawing
from ruvak.core.trace.trace import Trace, connector_at, trace, uncertain_joins

LEVELS_ALONE = Options(COARSE_HZ, hum="none")
SLEEVES: tuple[Sleeve, ...] = ("R2", "S", "both")


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


def prepare(rig: Rig) -> Rig:
    """The rig with its own parts and assumptions, checked. Raises RigFault."""
    return check(embed(rig))


def analyse(rig: Rig, cache: AnalysisCache | None = None) -> Analysis:
    """Everything the core has to say about a rig. Raises RigFault for faults in the data, never for wiring.

    `cache`: what was solved before, so that an edit costs less; the answer is the same without.
    """
    cache = cache or AnalysisCache()
    whole = prepare(rig)
    rig = prune(whole)
    traced = trace(rig)
    try:
        result = rig_results(rig, traced, build(rig, traced), Options(block_cache=cache.blocks), cache.results)
        judged = _judged(rig, result.runs)
    except SingularNetwork as problem:
        raise RigFault((Fault(problem.code, _unsolvable_at(whole), str(problem)),)) from problem
    runs = tuple(
        _analysed(whole, rig, traced, run, judgement, cache) for run, judgement in zip(rig.runs, judged, strict=True)
    )
    of_rig = judge_rig(whole)
    return Analysis(
        rig=rig.id,
        verdict=verdict(tuple(judgement.findings for judgement in judged), of_rig),
        runs=runs,
        findings=of_rig,
        destinations=result.destinations,
        assumed=assumed(rig),
    )


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
    judged = _judged(used, rig_results(used, traced, build(used, traced), options, cache.results).runs)
    index = next(index for index, run in enumerate(used.runs) if run.id == run_id)
    own = _analysed(rig, used, traced, used.runs[index], judged[index], cache)
    return Assessment(verdict(tuple(judgement.findings for judgement in judged), judge_rig(rig)), judged, own)


def _judged(rig: Rig, results: tuple[RunResult, ...]) -> tuple[RunVerdict, ...]:
    results = _with_other_modes(rig, results)
    findings = with_added(judge(rig, results), _uncertainties(rig, results))
    return tuple(RunVerdict(result.run, result, said) for result, said in zip(results, findings, strict=True))


def _analysed(whole: Rig, rig: Rig, traced: Trace, run: Run, judged: RunVerdict, cache: AnalysisCache) -> RunAnalysis:
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
    """Findings of each run from a few frequencies, switches as they stand: to compare wirings. The rig is prepared.

    `norton`: the rest of the rig that these runs are a part of.
    """
    traced = traced or trace(rig)
    options = Options(COARSE_HZ, hum="brief", norton=norton)
    return judge(rig, rig_results(rig, traced, build(rig, traced), options).runs)


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


def ground_loops_of(rig: Rig) -> tuple[GroundLoop, ...]:
    """Connections that close loops, ranked by what opening each does to every input. Raises RigFault."""
    rig = prune(prepare(rig))
    traced = trace(rig)
    return bonds(rig, traced, build(rig, traced))


def sub_rig(rig: Rig, *run_ids: str) -> Rig:
    """The rig with these runs and what belongs to them, nothing else: to compare wirings of them quickly."""
    return prune(rig.with_fields(runs=tuple(run for run in rig.runs if run.id in run_ids)))


def _uncertainties(rig: Rig, results: tuple[RunResult, ...]) -> dict[int, list[Finding]]:
    """For each join whose contacts depend on a socket's build: what each possibility would do, by run."""
    result: dict[int, list[Finding]] = {}
    for i, j in uncertain_joins(rig):
        join = rig.runs[i].joins[j]
        possibilities = []
        for sleeve in SLEEVES:
            joins = (*rig.runs[i].joins[:j], join.model_copy(update={"sleeve": sleeve}), *rig.runs[i].joins[j + 1 :])
            runs = (*rig.runs[:i], rig.runs[i].model_copy(update={"joins": joins}), *rig.runs[i + 1 :])
            variant = rig.with_fields(runs=runs)
            traced = trace(variant)
            tried = rig_results(variant, traced, build(variant, traced), LEVELS_ALONE).runs
            possibilities.append(Possibility(sleeve, tried[i]))
        said = uncertain(results[i], _joined(rig, join), tuple(possibilities))
        if said is not None:
            result.setdefault(i, []).append(said)
    return result


def _joined(rig: Rig, join: Join) -> str:
    return " in ".join(f"{called(rig, end.owner)} {connector_at(rig, end).label}" for end in join.ends)


def _with_other_modes(rig: Rig, results: tuple[RunResult, ...]) -> tuple[RunResult, ...]:
    """Adds the levels each input would have in the other positions of its switch, solved with that loading.

    Only what reaches these devices is solved again, other runs hardly hear what they load; switches of one name are
    all in the same position at once (the taps along a line).
    """
    of_run = {result.run: result for result in results}
    for (setting, option), owners in _other_positions(rig, results).items():
        flipped = tuple(
            gear.model_copy(update={"settings": {**gear.settings, setting: option}}) if gear.id in owners else gear
            for gear in rig.gear
        )
        touched = [result.run for result in results if any(heard.gear in owners for heard in result.inputs)]
        variant = sub_rig(rig.with_fields(gear=flipped), *touched)
        traced = trace(variant)
        for entry in rig_results(variant, traced, build(variant, traced), LEVELS_ALONE).runs:
            of_run[entry.run] = _merged(rig, of_run[entry.run], entry, option)
    return tuple(of_run.values())


def _other_positions(rig: Rig, results: tuple[RunResult, ...]) -> dict[tuple[str, str], set[str]]:
    """Devices by setting and position."""
    answer: dict[tuple[str, str], set[str]] = {}
    for result in results:
        for entry in result.inputs:
            receiver = _input_part(rig, entry)
            active = {level.when for level in entry.levels}
            if receiver.mode_setting is not None and active:
                for mode in receiver.modes:
                    if mode.when is not None and mode.when not in active:
                        answer.setdefault((receiver.mode_setting, mode.when), set()).add(entry.gear)
    return answer


def _input_part(rig: Rig, input_result: InputResult) -> Input:
    return next(receiver for receiver in rig.part_of(input_result.gear).inputs if receiver.id == input_result.input)


def _merged(rig: Rig, own: RunResult, others: RunResult, option: str) -> RunResult:
    inputs = []
    for receiver, other in zip(own.inputs, others.inputs, strict=True):
        added: tuple[Levels, ...] = tuple(
            level.model_copy(update={"active": False})
            for level in other.levels
            if level.when == option and level.when not in {known.when for known in receiver.levels}
        )
        order = [mode.when for mode in _input_part(rig, receiver).modes]
        levels = tuple(sorted(receiver.levels + added, key=lambda level: order.index(level.when)))
        inputs.append(receiver.model_copy(update={"levels": levels}))
    return own.model_copy(update={"inputs": tuple(inputs)})
