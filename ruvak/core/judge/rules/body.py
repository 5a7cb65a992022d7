"""A microphone whose body nothing joins to the mixer: pin 1 is open on the way, as in boxes over unscreened pairs.

The computation has the electric field on leads, not a hand on a microphone that floats; so this is said by itself.
Common practice: a balanced line whose source floats keeps its screen joined from end to end.
"""

from collections.abc import Iterator

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import finding, input_words
from ruvak.core.results.records import RunResult
from ruvak.core.rig.rig import Rig, earthing_at, name_of


def body(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Per input of a run from a balanced microphone that stands on no earth of its own."""
    floating = [source for source in result.sources if _floats(rig, source.gear, source.output)]
    if not floating or len(floating) < len(result.sources):
        return
    for receiver in result.inputs:
        line = receiver.balance
        if receiver.signal == "microphone" and not line.body_arrives and line.verdict not in ("open", "shorted"):
            params: dict[str, float | str] = {
                "source": name_of(rig, floating[0].gear),
                "place": input_words(rig, receiver),
            }
            yield finding(FindingCode.BODY_FLOATS, Grade.WATCH, result, receiver.gear, receiver.input, params)


def _floats(rig: Rig, gear: str, output: str) -> bool:
    earthing = earthing_at(rig, gear)
    balanced = any(each.id == output and each.type == "balanced" for each in rig.part_of(gear).outputs)
    return balanced and earthing is not None and earthing.type == "floating"
