"""Entries as somebody would say them."""

from ruvak.core.judge.symptoms import HEARD_IN_WORDS
from ruvak.core.log.entry import ANSWER_IN_WORDS, Measured, NewEntry
from ruvak.core.units import say_dbu

_STEPS = {
    "radio": "radio microphone",
    "mute": "mutes",
    "destination": "destination",
    "silence": "minute of silence",
    "walk": "walk through the room",
    "edge": "edge of feedback",
}
"""Steps of the check beside its runs, by phase; every other is one of the hook-up."""
_QUANTITY = {"hum_dbu": "hum", "level_dbu": "level"}


def say(entry: NewEntry, thing_names: tuple[str, ...] = ()) -> str:
    """What was answered, read or noted, on what, and what was written."""
    parts: list[str] = []
    if entry.kind == "working":
        parts.append("is there now")
    if entry.step is not None:
        parts.append(_STEPS.get(entry.step.partition(":")[0], "hook-up"))
    if entry.heard is not None:
        parts.append(HEARD_IN_WORDS[entry.heard])
    elif entry.answer is not None:
        is_done = entry.kind == "step" and entry.answer == "good" and parts == ["hook-up"]
        parts.append("done" if is_done else ANSWER_IN_WORDS[entry.answer])
    if entry.tested is not None:
        parts.append(entry.tested.words.removesuffix("."))
    if entry.measured is not None:
        parts.append(_say_measured(entry.measured))
    if entry.only_takes_back:
        parts.append("taken back")
    parts += thing_names
    parts += [f"{len(entry.photos)} photo{'s' if len(entry.photos) > 1 else ''}"] if entry.photos else []
    said, written = ", ".join(parts), entry.words.strip()
    if said and written:
        return f"{said}: {written}"
    return said or written


def _say_measured(level: Measured) -> str:
    words = f"{_QUANTITY[level.quantity]} {say_dbu(level.value, 1)}"
    return words if level.predicted is None else f"{words}, computed {say_dbu(level.predicted, 1)}"
