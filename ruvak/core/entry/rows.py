"""Rows of an input list as typed lines: a known name stays itself, an unknown one becomes new gear of its kind."""

import re

from ruvak.core.entry.names import Directory
from ruvak.core.entry.new_gear import has_many_sockets
from ruvak.core.entry.sockets import sockets
from ruvak.core.entry.words import expand_ranges, find_length, is_phantom, plain
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.values import Record

_YES = frozenset({"yes", "y", "x", "on", "1", "true"})
NEW_DESKS = ("desk", "big desk")
"""Kinds of desk as people call them, the smallest first."""
_DI_WORDS = frozenset({"di", "di box", "direct", "direct box", "active di", "passive di", "stereo di", "line", "jack"})


_TYPED_ROW = re.compile(
    r"(?i:(?:(?:ch|chan|channel|input|in)\.?\s*)?(?P<channel>\d{1,2})\s*[.:)-]?\s+(?P<rest>[^<>]*[a-z][^<>]*))"
)
_KIND_OF_DI = "(?:(?:active|passive|stereo|piezo|media) )?DI(?: box)?"
_BOX_BEHIND = re.compile(rf"(?i:(?P<who>.+?)\s+(?:(?:via|through|with|on)\s+)?(?:an?\s+)?(?P<box>{_KIND_OF_DI}))")
_BOTH_SIDES = re.compile(r"\b(?:l|left)\s*[/&+]\s*(?:r|right)\b|\bstereo\b", re.IGNORECASE)


class InputRow(Record):
    """One row as it stands in the list. `channel` is text: it may be wrong."""

    row: int
    channel: str
    who: str
    device: str = ""
    stand: str = ""
    phantom: str = ""


def destination(rig: Rig, rows: tuple[InputRow, ...]) -> str:
    """What an input list goes into when nobody says: the gear with the most inputs; where none has many, a new desk
    that has all the channels."""
    most = max(rig.gear, key=lambda gear: len(rig.parts_by_id[gear.part].inputs), default=None)
    if most is not None and has_many_sockets(rig.parts_by_id[most.part]):
        return most.name
    channels = [row.channel.strip() for row in rows if row.channel.strip().isdigit()]
    last, known = max(channels, key=int, default="1"), Directory(rig).new.by_name
    return next((word for word in NEW_DESKS if sockets(known[word][0], (last,), "goal").unknown is None), NEW_DESKS[-1])


def line_of(rig: Rig, row: InputRow, goal: str) -> str:
    """The row as a line: "Choir left condenser > Desk 3, phantom"; `goal`: the desk's name, or a kind of desk."""
    device, wants = plain(row.device), _says_yes(row.phantom)
    direct = device in _DI_WORDS or "di" in device.split()
    source = _source(rig, row.who, device, wants, direct)
    way = f"{row.device if device not in ('line', 'jack', 'direct') else 'di'} > " if direct else ""
    end = ", phantom" if wants else ""
    return f"{source} > {way}{goal} {row.channel.strip()}{end}"


def line_of_typed_row(rig: Rig, text: str) -> str | None:
    """What is typed as a row of an input list, as a line: "ch 9 acoustic guitar DI 20m" as "acoustic guitar > DI >
    desk 9, 20 m". None for what begins with no channel or has an arrow."""
    match = _TYPED_ROW.fullmatch(text.strip())
    if match is None:
        return None
    said = match["rest"]
    length = find_length(said)
    if length is not None:
        said = f"{said[: length.start]} {said[length.end :]}"
    who, *others = (word.strip() for word in said.split(",") if word.strip())
    phantom = [word for word in others if is_phantom(word)]
    device = " ".join(word for word in others if not is_phantom(word))
    if not device and (boxed := _BOX_BEHIND.fullmatch(who)) is not None:
        who, device = boxed["who"], boxed["box"]
    channel = match["channel"]
    if _BOTH_SIDES.search(who):
        channel = f"{channel}/{int(channel) + 1}"
    row = InputRow(row=1, channel=channel, who=who, device=device, phantom=" ".join(phantom))
    line = line_of(rig, row, destination(rig, (row,)))
    return f"{line}, {length.metres:g} m" if length is not None else line


def note_of(row: InputRow) -> str:
    """What else the row says, to be kept with the run."""
    said = [f"stand: {row.stand.strip()}"] if row.stand.strip() else []
    said += [row.device.strip()] if row.device.strip() else []
    return "; ".join(said)


def _says_yes(text: str) -> bool:
    return plain(text) in _YES or is_phantom(text)


def _source(rig: Rig, who: str, device: str, wants: bool, direct: bool) -> str:
    """The name, with what it is behind it where the name alone says nothing."""
    directory = Directory(rig)
    name = who.strip()
    if plain(expand_ranges(name)) in directory.by_name:
        return name
    for word in (device, *device.split()[::-1]):
        if not direct and word in directory.new.by_name:
            return f"{name} {word}"
    if any(meaning.new for meaning in directory.meanings(name)):
        return name
    if direct:
        return f"{name} keyboard"
    return f"{name} {'condenser mic' if wants else 'mic'}"
