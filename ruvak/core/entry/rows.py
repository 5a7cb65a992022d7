"""Rows of an input list as typed lines: a known name stays itself, an unknown one becomes new gear of its kind."""

from ruvak.core.entry.names import Directory
from ruvak.core.entry.new_gear import has_many_sockets
from ruvak.core.entry.rewording import PHANTOM
from ruvak.core.entry.sockets import sockets
from ruvak.core.entry.words import expand_ranges, plain
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.values import Record

_YES = frozenset({"yes", "y", "x", "on", "1", "true", *PHANTOM})
NEW_DESKS = ("desk", "big desk")
"""Kinds of desk as people call them, the smallest first."""
_DI_WORDS = frozenset({"di", "di box", "direct", "direct box", "active di", "passive di", "stereo di", "line", "jack"})


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
    device, wants = plain(row.device), plain(row.phantom) in _YES
    direct = device in _DI_WORDS or "di" in device.split()
    source = _source(rig, row.who, device, wants, direct)
    way = f"{row.device if device not in ('line', 'jack', 'direct') else 'di'} > " if direct else ""
    end = ", phantom" if wants else ""
    return f"{source} > {way}{goal} {row.channel.strip()}{end}"


def note_of(row: InputRow) -> str:
    """What else the row says, to be kept with the run."""
    said = [f"stand: {row.stand.strip()}"] if row.stand.strip() else []
    said += [row.device.strip()] if row.device.strip() else []
    return "; ".join(said)


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
