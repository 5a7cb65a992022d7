"""Rows of an input list as typed lines: a known name stays itself, an unknown one becomes new gear of its kind."""

from ruvak.core.entry.names import Directory
from ruvak.core.entry.plan import PHANTOM
from ruvak.core.entry.words import expanded, plain
from ruvak.core.rig.rig import Gear, Rig
from ruvak.core.rig.values import Record

_YES = frozenset({"yes", "y", "x", "on", "1", "true", *PHANTOM})
_DI_WORDS = frozenset({"di", "di box", "direct", "direct box", "active di", "passive di", "stereo di", "line", "jack"})


class InputRow(Record):
    """One row as it stands in the list. `channel` is text: it may be wrong."""

    row: int
    channel: str
    who: str
    device: str = ""
    stand: str = ""
    phantom: str = ""


def destination(rig: Rig) -> Gear | None:
    """Where an input list goes when nobody says: the gear with the most inputs."""
    return max(rig.gear, key=lambda gear: len(rig.parts_by_id[gear.part].inputs), default=None)


def line_of(rig: Rig, row: InputRow, goal: Gear) -> str:
    """The row as a line: "Choir left condenser > Desk 3, phantom"."""
    device, wants = plain(row.device), plain(row.phantom) in _YES
    direct = device in _DI_WORDS or "di" in device.split()
    source = _source(rig, row.who, device, wants, direct)
    way = f"{row.device if device not in ('line', 'jack', 'direct') else 'di'} > " if direct else ""
    end = ", phantom" if wants else ""
    return f"{source} > {way}{goal.name} {row.channel.strip()}{end}"


def note_of(row: InputRow) -> str:
    """What else the row says, to be kept with the run."""
    said = [f"stand: {row.stand.strip()}"] if row.stand.strip() else []
    said += [row.device.strip()] if row.device.strip() else []
    return "; ".join(said)


def _source(rig: Rig, who: str, device: str, wants: bool, direct: bool) -> str:
    """The name, with what it is behind it where the name alone says nothing."""
    directory = Directory(rig)
    name = who.strip()
    if plain(expanded(name)) in directory.by_name:
        return name
    for word in (device, *device.split()[::-1]):
        if not direct and word in directory.new_gear:
            return f"{name} {word}"
    if any(meaning.new for meaning in directory.meanings(name)):
        return name
    if direct:
        return f"{name} keyboard"
    return f"{name} {'condenser mic' if wants else 'mic'}"
