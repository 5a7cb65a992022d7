"""Signals of another kind: the plugs fit, and nothing else does."""

from collections.abc import Iterator

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import finding, input_words
from ruvak.core.results.records import RunResult
from ruvak.core.rig.ports import SignalClass, family_of
from ruvak.core.rig.rig import Rig, name_of

WORDS: dict[SignalClass, str] = {
    "microphone": "a microphone signal",
    "instrument": "an instrument signal",
    "consumer-line": "line level",
    "professional-line": "line level",
    "headphone": "a headphone signal",
    "loudspeaker": "an amplified loudspeaker signal",
    "digital-audio": "two-channel digital audio",
    "eight-channel-digital": "eight-channel digital audio",
    "lighting-data": "lighting data",
    "computer-data": "computer data",
    "video": "video",
}


def classes(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Each source against each input it reaches."""
    for source in result.sources:
        if source.signal is None:
            continue
        name = name_of(rig, source.gear)
        for receiver in result.inputs:
            if receiver.signal is None or family_of(source.signal) == family_of(receiver.signal):
                continue
            params: dict[str, float | str] = {
                "source": name,
                "place": input_words(rig, receiver),
                "sends": WORDS[source.signal],
                "wants": WORDS[receiver.signal],
            }
            code = FindingCode.AMPLIFIED_INTO_INPUT if source.signal == "loudspeaker" else FindingCode.CLASS_MIXED
            yield finding(code, Grade.STOP, result, receiver.gear, receiver.input, params)
