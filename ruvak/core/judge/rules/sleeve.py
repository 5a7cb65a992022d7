"""Outputs whose common contact is an amplifier's output too: some headphone sockets, bridged power amplifiers."""

from collections.abc import Iterator

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import finding, input_words
from ruvak.core.results.records import RunResult
from ruvak.core.rig.rig import Rig, earthing_at, name_of


def sleeve(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Where metal joins such a sleeve to the reference of a device that stands on an earth."""
    for source in result.sources:
        output = next(output for output in rig.part_of(source.gear).outputs if output.id == source.output)
        if output.type != "unbalanced" or not output.driven_sleeve:
            continue
        for receiver in result.inputs:
            earthing = earthing_at(rig, receiver.gear)
            if receiver.balance.screen_arrives and earthing is not None and earthing.type != "floating":
                params: dict[str, float | str] = {
                    "contact": "minus contact" if source.signal == "loudspeaker" else "sleeve",
                    "source": name_of(rig, source.gear),
                    "place": input_words(rig, receiver),
                }
                yield finding(FindingCode.SLEEVE_EARTHED, Grade.STOP, result, receiver.gear, receiver.input, params)
