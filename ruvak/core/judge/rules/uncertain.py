"""Mated contacts that depend on how a socket is built: said, with what each possibility would do."""

from collections.abc import Iterator, Sequence
from itertools import groupby

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import active, alive, finding
from ruvak.core.judge.sentences import number
from ruvak.core.results.records import RunResult
from ruvak.core.results.variants import MatingResult
from ruvak.core.rig.connectors import Sleeve
from ruvak.core.rig.rig import Rig, name_of
from ruvak.core.trace.trace import connector_at

WORDS: dict[Sleeve, str] = {"R2": "the second ring", "S": "the sleeve", "both": "both"}


def uncertain(rig: Rig, result: RunResult, matings: Sequence[MatingResult]) -> Iterator[Finding]:
    """Watch, with the outcome of each possibility, for each join; nothing where all come to one."""
    run = next(run for run in rig.runs if run.id == result.run)
    for join, of_join in groupby(matings, key=lambda mating: mating.join):
        possibilities = list(of_join)
        if len({_outcome(mating.result) for mating in possibilities}) == 1:
            continue
        joined = " in ".join(
            f"{name_of(rig, end.owner)} {connector_at(rig, end).label}" for end in run.joins[join].ends
        )
        outcomes = "; ".join(f"{WORDS[mating.sleeve]}: {_outcome(mating.result)}" for mating in possibilities)
        params: dict[str, float | str] = {"joined": joined, "outcomes": outcomes}
        yield finding(FindingCode.CONTACT_UNCERTAIN, Grade.WATCH, result, "", joined, params)


def _outcome(result: RunResult) -> str:
    heard = [
        (receiver, level)
        for receiver in result.inputs
        if (level := active(receiver)) is not None and alive(receiver.channels)
    ]
    if not heard:
        return "nothing usable arrives"
    return f"arrives at {number(max(level.arriving_dbu for _, level in heard))} dBu"
