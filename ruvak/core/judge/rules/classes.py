"""Signals of another kind: the plugs fit, and nothing else does."""

from collections.abc import Iterator

from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import finding, input_words
from ruvak.core.results.records import RunResult
from ruvak.core.rig.part import SignalClass
from ruvak.core.rig.rig import Rig, called

FAMILY: dict[SignalClass, str] = {
    "microphone": "sound",
    "instrument": "sound",
    "consumer-line": "sound",
    "professional-line": "sound",
    "headphone": "sound",
}
"""Kinds among which level and impedance decide, which other rules see to; every other kind is a family of its own."""

WORDS: dict[SignalClass, str] = {
    "microphone": "a microphone signal",
    "instrument": "an instrument signal",
    "consumer-line": "line level",
    "professional-line": "line level",
    "headphone": "a headphone signal",
    "loudspeaker": "an amplified loudspeaker signal",
    "digital-audio": "digital audio",
    "lighting-data": "lighting data",
    "computer-data": "computer data",
    "video": "video",
}
WAVE_OHM: dict[SignalClass, float] = {"lighting-data": 120.0, "digital-audio": 110.0}
"""What a balanced data line is made for: ANSI E1.11; AES3, IEC 60958-4."""


def classes(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Each source against each input it reaches, then against the leads on the way."""
    for source in result.sources:
        if source.signal is None:
            continue
        name = called(rig, source.gear)
        for one in result.inputs:
            if one.signal is None or _family(source.signal) == _family(one.signal):
                continue
            params: dict[str, float | str] = {
                "source": name,
                "place": input_words(rig, one),
                "sends": WORDS[source.signal],
                "wants": WORDS[one.signal],
            }
            code = "amplified_into_input" if source.signal == "loudspeaker" else "class_mixed"
            yield finding(code, Grade.STOP, result, one.gear, one.input, params)
        if source.signal in WAVE_OHM:
            yield from _leads(rig, result, source.signal, WAVE_OHM[source.signal])


def _leads(rig: Rig, result: RunResult, signal: SignalClass, wave_ohm: float) -> Iterator[Finding]:
    run = next(one for one in rig.runs if one.id == result.run)
    for leg in run.legs:
        part = rig.part_of(leg)
        stated = [cable.characteristic_ohm for cable in part.cables if cable.characteristic_ohm is not None]
        if part.kind != "lead" or part.signal == signal or not stated:
            continue
        reflected = abs((stated[0].value - wave_ohm) / (stated[0].value + wave_ohm))
        params: dict[str, float | str] = {
            "lead": called(rig, leg),
            "carries": WORDS[signal],
            "lead_ohm": stated[0].value,
            "wave_ohm": wave_ohm,
            "reflected_percent": 100.0 * reflected,
        }
        yield finding("lead_class", Grade.WATCH, result, "", leg, params)


def _family(signal: SignalClass) -> str:
    return FAMILY.get(signal, signal)
