"""Other ways the rig may stand: switches in their other positions, contacts that a socket's build decides.

Each is declared as a rig of its own and solved for its levels, before anything is judged.
"""

from collections.abc import Iterator
from dataclasses import dataclass

from ruvak.core.circuit.build import build
from ruvak.core.results.records import InputResult, Levels, RunResult
from ruvak.core.results.response import COARSE_HZ
from ruvak.core.results.runs import rig_results
from ruvak.core.results.solved_rig import Options
from ruvak.core.rig.connectors import Sleeve
from ruvak.core.rig.ports import Input
from ruvak.core.rig.prune import sub_rig
from ruvak.core.rig.rig import Rig
from ruvak.core.trace.trace import trace, uncertain_joins

LEVELS_ALONE = Options(COARSE_HZ, hum="none")
SLEEVES: tuple[Sleeve, ...] = ("R2", "S", "both")


@dataclass(frozen=True)
class SwitchVariant:
    """Every switch of one name in one other position, as far as the runs that reach these devices: other runs hardly
    hear what they load."""

    option: str
    rig: Rig


@dataclass(frozen=True)
class MatingVariant:
    """A plug whose sleeve meets `sleeve` in its socket; `run`, `join`: their places in the rig."""

    run: int
    join: int
    sleeve: Sleeve
    rig: Rig


@dataclass(frozen=True)
class MatingResult:
    """A run's figures if the sleeve of its join number `join` meets `sleeve`."""

    join: int
    sleeve: Sleeve
    result: RunResult


def switch_variants(rig: Rig, results: tuple[RunResult, ...]) -> Iterator[SwitchVariant]:
    """One for each position that no input of the results is in."""
    for (setting, option), owners in _other_positions(rig, results).items():
        flipped = tuple(
            gear.model_copy(update={"settings": {**gear.settings, setting: option}}) if gear.id in owners else gear
            for gear in rig.gear
        )
        touched = [result.run for result in results if any(heard.gear in owners for heard in result.inputs)]
        yield SwitchVariant(option, sub_rig(rig.with_fields(gear=flipped), *touched))


def mating_variants(rig: Rig) -> Iterator[MatingVariant]:
    """Three for each join of which nobody has said what the sleeve meets."""
    for i, j in uncertain_joins(rig):
        join = rig.runs[i].joins[j]
        for sleeve in SLEEVES:
            joins = (*rig.runs[i].joins[:j], join.model_copy(update={"sleeve": sleeve}), *rig.runs[i].joins[j + 1 :])
            runs = (*rig.runs[:i], rig.runs[i].model_copy(update={"joins": joins}), *rig.runs[i + 1 :])
            yield MatingVariant(i, j, sleeve, rig.with_fields(runs=runs))


def add_switch_levels(rig: Rig, results: tuple[RunResult, ...]) -> tuple[RunResult, ...]:
    """The results, each input with the levels it would have in its switch's other positions."""
    of_run = {result.run: result for result in results}
    for variant in switch_variants(rig, results):
        for other in _levels(variant.rig):
            of_run[other.run] = _merge(rig, of_run[other.run], other, variant.option)
    return tuple(of_run.values())


def solve_matings(rig: Rig) -> dict[int, list[MatingResult]]:
    """Every possibility of every uncertain join, by the run's place in the rig."""
    result: dict[int, list[MatingResult]] = {}
    for variant in mating_variants(rig):
        own = _levels(variant.rig)[variant.run]
        result.setdefault(variant.run, []).append(MatingResult(variant.join, variant.sleeve, own))
    return result


def _levels(rig: Rig) -> tuple[RunResult, ...]:
    traced = trace(rig)
    return rig_results(rig, traced, build(rig, traced), LEVELS_ALONE).runs


def _other_positions(rig: Rig, results: tuple[RunResult, ...]) -> dict[tuple[str, str], set[str]]:
    """Devices by setting and position; switches of one name are all in one position at once (taps along a line)."""
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


def _merge(rig: Rig, own: RunResult, others: RunResult, option: str) -> RunResult:
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
