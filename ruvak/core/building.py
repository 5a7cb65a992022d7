"""Lines about a building: its earth, and what is built in ("W2: 20 m tie line from stage left to the booth rack")."""

import re

from ruvak.core.kit.lines import KitLine, read_kit
from ruvak.core.pieces.route import put_ops
from ruvak.core.rig.edits import Edit
from ruvak.core.rig.rig import KitItem, Rig
from ruvak.core.venue.lines import VenueLine, VenueReading, read_venue

_ENDS = re.compile(r",?\s*\b(?:from|between)\s+(?P<a>.+?)\s+(?:to|and)\s+(?P<b>[^,;]+)", re.IGNORECASE)
_BUILT = re.compile(
    r"\b(?:tie ?lines?|wall ?plates?|floor ?box(?:es)?|patch ?bays?|snakes?|multicores?|house lines?|installed|"
    r"built[ -]in|loudspeaker lines?|speaker lines?)\b",
    re.IGNORECASE,
)


def read_building(rig: Rig, text: str) -> VenueReading:
    """Every line that is not empty, as read_venue(); a line about no part of the earth is read as something built in,
    with what is at its two ends as its remark."""
    reading = read_venue(rig, text)
    tried = [at for at, line in enumerate(reading.lines) if line.problem is not None]
    if not tried:
        return reading
    ends = {at: _ENDS.search(reading.lines[at].line) for at in tried}
    asked = {at: f"{_without(reading.lines[at].line, ends[at])}, installed" for at in tried}
    found = dict(zip(tried, read_kit(rig, "\n".join(asked.values())).lines, strict=False))
    lines, items = list(reading.lines), list[KitItem]()
    for at, kit in found.items():
        typed = reading.lines[at]
        if kit.problem is None:
            match = ends[at]
            remark = f"from {match['a']} to {match['b'].strip()}" if match is not None else ""
            items += [item.model_copy(update={"remark": remark}) for item in kit.items]
            lines[at] = VenueLine(line=typed.line, words=_said(kit, remark), problem=None)
        elif _BUILT.search(typed.line):
            lines[at] = VenueLine(line=typed.line, words="", problem=kit.problem)
    if not items:
        return VenueReading(lines=tuple(lines), edit=reading.edit)
    ops = (*(reading.edit.ops if reading.edit else ()), *put_ops(rig, tuple(items)))
    label = reading.edit.label if reading.edit else f"Built in: {', '.join(item.tag for item in items)}"
    return VenueReading(lines=tuple(lines), edit=Edit(label=label[:120], ops=ops))


def _without(line: str, ends: re.Match[str] | None) -> str:
    return line if ends is None else line[: ends.start()] + line[ends.end() :]


def _said(kit: KitLine, remark: str) -> str:
    tags = ", ".join(item.tag for item in kit.items[:6])
    return f"Built in: {tags} ({kit.words}{f', {remark}' if remark else ''})"
