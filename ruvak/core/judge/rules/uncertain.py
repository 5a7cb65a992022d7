"""Mated contacts that depend on how a socket is built: said, with what each possibility would do."""

from dataclasses import dataclass

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import active, alive, finding
from ruvak.core.judge.sentences import number
from ruvak.core.results.records import RunResult
from ruvak.core.rig.connectors import Sleeve

WORDS: dict[Sleeve, str] = {"R2": "the second ring", "S": "the sleeve", "both": "both"}


@dataclass(frozen=True)
class Possibility:
    """What the socket's sleeve spring may meet, and what the run comes to then."""

    sleeve: Sleeve
    result: RunResult


def uncertain(result: RunResult, joined: str, possibilities: tuple[Possibility, ...]) -> Finding | None:
    """`joined`: the two ends in words. Watch, with the outcome of each possibility; None where all come to one."""
    if len({_outcome(possibility.result) for possibility in possibilities}) == 1:
        return None
    outcomes = "; ".join(
        f"{WORDS[possibility.sleeve]}: {_outcome(possibility.result)}" for possibility in possibilities
    )
    params: dict[str, float | str] = {"joined": joined, "outcomes": outcomes}
    return finding(FindingCode.CONTACT_UNCERTAIN, Grade.WATCH, result, "", joined, params)


def _outcome(result: RunResult) -> str:
    heard = [
        (receiver, level)
        for receiver in result.inputs
        if (level := active(receiver)) is not None and alive(receiver.channels)
    ]
    if not heard:
        return "nothing usable arrives"
    return f"arrives at {number(max(level.arriving_dbu for _, level in heard))} dBu"
