"""House rules set beside what was computed: where the trade disagrees, a note, never a finding."""

from collections.abc import Iterator
from typing import Literal

from ruvak.core.judge.rule import input_words
from ruvak.core.judge.sentences import number
from ruvak.core.pieces.screens import opens_screen
from ruvak.core.results.records import InputResult, RunResult
from ruvak.core.rig.rig import Rig, Run, earthing_at, longest_way_m
from ruvak.core.rig.values import Record
from ruvak.core.units import METRES_PER_UNIT

NoteCode = Literal["unbalanced_long", "screens", "passive_y"]
SCREENS_RULE = {
    "both-ends": "joins screens at both ends",
    "lifted-at-receiver": "lifts screens at the receiving end",
    "through-capacitor": "takes screens through a capacitor at the receiving end",
}


class Note(Record):
    """What this house does otherwise, and what the figures say to it."""

    code: NoteCode
    """Which house rule it is."""
    sentence: str
    """What is so, and what the house does."""


def notes(rig: Rig, run: Run, result: RunResult) -> Iterator[Note]:
    """Those of one run. What carries data is no concern of theirs."""
    if result.data is not None:
        return
    yield from _unbalanced(rig, run, result)
    yield from _screens(rig, run, result)
    yield from _note_shared_input(rig, run, result)


def _unbalanced(rig: Rig, run: Run, result: RunResult) -> Iterator[Note]:
    run_m = longest_way_m(rig, run)
    limit_m = rig.venue.house.unbalanced_limit_m.value
    # A loudspeaker lead has no screen to hum: nobody calls it unbalanced.
    there = [
        receiver
        for receiver in result.inputs
        if receiver.balance.verdict == "unbalanced" and receiver.loudspeaker is None
    ]
    if not there or run_m <= limit_m:
        return
    sentence = (
        f"Unbalanced over {_length(rig, run_m)}; this house goes to {_length(rig, limit_m)}. {_write_computed(there)}"
    )
    yield Note(code="unbalanced_long", sentence=sentence)


def _screens(rig: Rig, run: Run, result: RunResult) -> Iterator[Note]:
    """Only of balanced lines between two earthed devices, for between others nobody argues."""
    owners = {source.gear for source in result.sources} | {receiver.gear for receiver in result.inputs}
    balanced = [receiver for receiver in result.inputs if receiver.balance.verdict == "balanced"]
    if not balanced or len(owners) < 2 or not all(_is_earthed(rig, owner) for owner in owners):
        return
    rule = rig.venue.house.screens
    lifted = any(opens_screen(rig.part_of(piece)) for piece in run.pieces)
    if lifted == (rule != "both-ends"):
        return
    now = "is open on the way" if lifted else "is joined at both ends"
    yield Note(
        code="screens", sentence=f"The screen {now}; this house {SCREENS_RULE[rule]}. {_write_computed(balanced)}"
    )


def _note_shared_input(rig: Rig, run: Run, result: RunResult) -> Iterator[Note]:
    """Two outputs that reach one input."""
    if len(result.sources) < 2:
        return
    for receiver in result.inputs:
        outputs = {channel.source for channel in receiver.channels if channel.in_phase is not None}
        if len(outputs) < 2:
            continue
        never = rig.venue.house.passive_y == "never"
        resistors = any(element.type == "resistor" for piece in run.pieces for element in rig.part_of(piece).elements)
        if resistors and not never:
            continue
        rule = "never joins two outputs" if never else "joins two outputs only through resistors"
        loads = min(source.load_ohm for source in result.sources)
        sentence = (
            f"Two outputs share {input_words(rig, receiver)}; this house {rule}. "
            f"Computed here: the harder driven one sees {number(loads)} \N{GREEK CAPITAL LETTER OMEGA}."
        )
        yield Note(code="passive_y", sentence=sentence)
        return


def _write_computed(inputs: list[InputResult]) -> str:
    below = [receiver.hum.below_programme_db for receiver in inputs if receiver.hum is not None]
    known = [entry for entry in below if entry is not None]
    return f"Computed here: hum {number(min(known))} dB under the programme." if known else "No hum is computed here."


def _is_earthed(rig: Rig, owner: str) -> bool:
    earthing = earthing_at(rig, owner)
    return earthing is not None and earthing.type == "class-1"


def _length(rig: Rig, length_m: float) -> str:
    return f"{number(length_m / METRES_PER_UNIT[rig.length_unit])} {rig.length_unit}"
