"""What rules share: places where a run is heard, and the making of a finding."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade, RigFinding
from ruvak.core.judge.sentences import written
from ruvak.core.results.missing_side import is_missing_side
from ruvak.core.results.records import ChannelGain, InputResult, Levels, MixResult, RunResult, Sum
from ruvak.core.rig.rig import Rig, name_of

CENTRE_LOST_DB = -12.0
"""Below one side alone by this much, a voice in the middle is no longer followed: common practice."""
CENTRE_WEAK_DB = -2.0


@dataclass(frozen=True)
class HeardAt:
    """Somewhere the run is heard: a mix of its inputs, or an input that belongs to none."""

    gear: str
    id: str
    words: str
    channels: tuple[ChannelGain, ...]
    sum: Sum | None
    arrives: bool
    stereo: MixResult | None


Rule = Callable[[Rig, RunResult], Iterator[Finding]]
RigRule = Callable[[Rig], Iterator[RigFinding]]


def places(rig: Rig, result: RunResult) -> Iterator[HeardAt]:
    """Mixes first; then the inputs that no mix takes."""
    mixed: set[tuple[str, str]] = set()
    for mix in result.mixes:
        mixed |= {(mix.gear, name) for name in mix.inputs}
        words = name_of(rig, mix.gear)
        # A stereo destination is alive when either side is, even where the two would cancel in mono.
        arrives = alive(mix.left + mix.right if mix.stereo else mix.channels)
        yield HeardAt(mix.gear, mix.mix, words, mix.channels, mix.sum, arrives, mix if mix.stereo else None)
    for receiver in result.inputs:
        if (receiver.gear, receiver.input) not in mixed:
            yield HeardAt(
                receiver.gear,
                receiver.input,
                input_words(rig, receiver),
                receiver.channels,
                receiver.sum,
                alive(receiver.channels),
                None,
            )


def alive(channels: tuple[ChannelGain, ...]) -> bool:
    """Whether any channel is more than a residue."""
    return any(channel.in_phase is not None for channel in channels)


def input_words(rig: Rig, input_result: InputResult) -> str:
    """How people call an input: its gear's name and its own label."""
    return f"{name_of(rig, input_result.gear)}, {input_result.label}"


def usable(result: RunResult, input_result: InputResult) -> bool:
    """Whether level and response say anything here: something arrives and its centre is not cancelled.

    What is lost to the sides alone, where they are two inputs, is the pair's concern.
    """
    if is_missing_side(result.inputs, result.mixes, input_result):
        return False
    return alive(input_result.channels) and (input_result.sum is None or input_result.sum.centre_db > CENTRE_LOST_DB)


def of_instrument(result: RunResult, input_result: InputResult) -> bool:
    """Whether what arrives loudest there comes straight from a pickup."""
    return input_result.main is not None and result.sources[input_result.main].signal == "instrument"


def active(input_result: InputResult) -> Levels | None:
    """The levels in the position the switch is in."""
    return next((level for level in input_result.levels if level.active), None)


def finding(
    code: FindingCode, grade: Grade, result: RunResult, gear: str, subject: str, params: dict[str, float | str]
) -> Finding:
    """A finding with its words from the catalogue."""
    words = written(code, params)
    items = tuple(dict.fromkeys(item for item in (*(source.gear for source in result.sources), gear) if item))
    return Finding(
        code=code,
        grade=grade,
        run=result.run,
        items=items,
        subject=f"{gear}.{subject}" if gear else subject,
        params=params,
        sentence=words.sentence,
        advice=words.advice,
        caution=words.caution,
    )


def rig_finding(
    code: FindingCode, grade: Grade, rig: Rig, gear: tuple[str, ...], subject: str, params: dict[str, float | str]
) -> RigFinding:
    """A finding about the whole rig, with the runs that end at these devices."""
    words = written(code, params)
    runs = tuple(run.id for run in rig.runs if not set(gear).isdisjoint(run.owners))
    return RigFinding(
        code=code,
        grade=grade,
        gear=gear,
        runs=runs,
        subject=subject,
        params=params,
        sentence=words.sentence,
        advice=words.advice,
    )
