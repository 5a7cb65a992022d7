"""A further run like one there is: "copy Choir 4", "copy keys as organ", "copy keys to desk 9/10".

A device with many sockets (a desk) stays and gives its next free ones; a small one (a microphone, a wedge) gets another
of its kind beside it. The kinds of pieces and the length are those of the run; what is built in is passed by its next
free line.
"""

import re
from dataclasses import dataclass, field

from ruvak.core.entry.alter_named import Read
from ruvak.core.entry.alternatives import name_of_piece
from ruvak.core.entry.cannot_change import CannotChange
from ruvak.core.entry.free_places import free_in_a_row
from ruvak.core.entry.line_ends import End, are_meant_alone
from ruvak.core.entry.names import Directory
from ruvak.core.entry.new_gear import has_many_sockets
from ruvak.core.entry.reading import Reading
from ruvak.core.entry.words import plain
from ruvak.core.rig.edits import Edit, Op, PutThing, apply
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import Gear, KitItem, Rig, Run, connectors_in_use
from ruvak.core.trace.run_ends import ends_of
from ruvak.core.trace.trace import connector_at

MOST_COPIES = 16
"""So many copies one line makes."""


@dataclass
class _Copy:
    """A copy while it is put together."""

    rig: Rig
    run: Run
    directory: Directory
    name: str | None
    """What the new source is to be called, where somebody says so."""
    users: set[Endpoint]
    new_gear: list[Gear] = field(default_factory=list)


def copy_run(rig: Rig, run: Run, name: str | None, goal: str | None, read: Read) -> Reading:
    """The reading of the line that makes the copy, whose edit adds the devices too. Raises CannotChange."""
    copy = _Copy(rig, run, Directory(rig), name, set(connectors_in_use(rig)))
    sources, goals = (tuple(ends_of(rig, run, side)) for side in ("out", "in"))
    start = _end_words(copy, sources, is_source=True)
    end = goal or _end_words(copy, goals, is_source=False)
    items = [item for piece in run.pieces for item in rig.kit if item.id == piece]
    way = [words for item in items if (words := _piece_words(copy, item)) is not None]
    line = " > ".join((start, *dict.fromkeys(way), end))
    adds: tuple[Op, ...] = tuple(PutThing(kind="gear", thing=gear) for gear in copy.new_gear)
    with_gear = apply(rig, Edit(label="devices", ops=adds)) if adds else rig
    reading = read(with_gear, line)
    if reading.edit is None:
        raise CannotChange(f"{run.name} cannot be copied as it is: {reading.sentence} Type “{line}” as you need it.")
    label = f"Copy {run.name} as {reading.runs[0].name}"[:120]
    edit = Edit(label=label, ops=(*adds, *reading.edit.ops))
    return reading.model_copy(update={"line": line, "edit": edit, "taken_for": (f"Read as “{line}”.",)})


def copy_several(rig: Rig, run: Run, count: int, read: Read) -> Reading:
    """So many copies by one edit, each beside the one before. Raises CannotChange where one of them has no place."""
    after, readings, ops = rig, list[Reading](), list[Op]()
    for _ in range(count):
        reading = copy_run(after, run, None, None, read)
        if reading.edit is not None:
            after = apply(after, reading.edit)
            ops += reading.edit.ops
        readings.append(reading)
    runs = tuple(run for reading in readings for run in reading.runs)
    said = (f"Read as {count} lines, from “{readings[0].line}” to “{readings[-1].line}”.",)
    edit = Edit(label=f"Copy {run.name} {count} times"[:120], ops=tuple(ops))
    return readings[0].model_copy(
        update={"sentence": f"{count} copies of {run.name}.", "edit": edit, "taken_for": said, "runs": runs}
    )


def _end_words(copy: _Copy, ends: tuple[Endpoint, ...], is_source: bool) -> str:
    """What to type for one end of the copy."""
    owners = list(dict.fromkeys(end.owner for end in ends))
    if len(owners) != 1:
        raise CannotChange(f"{copy.run.name} has more than one device at an end: type the new run.")
    gear = next(device for device in copy.rig.gear if device.id == owners[0])
    part = copy.rig.part_of(gear.id)
    labels = [connector_at(copy.rig, end).label.split(",")[0] for end in ends]
    if has_many_sockets(part):
        numbers = free_in_a_row([End(gear, part, (ends,))], copy.users)
        if not numbers:
            raise CannotChange(f"{gear.name} has no free socket like {' and '.join(labels)}: say where it goes.")
        kind = re.sub(r"\d+", "", labels[0]).strip()
        return f"{gear.name} {kind} {'/'.join(map(str, numbers))}"
    name = copy.name if is_source and copy.name else copy.directory.next_name(gear.name)
    if plain(name) in {plain(device.name) for device in copy.rig.gear}:
        raise CannotChange(f"There is a “{name}” already; choose another name.")
    copy.new_gear.append(gear.model_copy(update={"id": copy.directory.new.make(name, part).id, "name": name}))
    alone = are_meant_alone(part, [end.connector for end in ends], is_source)
    return name if alone else f"{name} {'/'.join(labels)}"


def _piece_words(copy: _Copy, item: KitItem) -> str | None:
    """What to type for a piece of the way; None for what has no name of its own."""
    part = copy.rig.part_of(item.id)
    if not item.installed and not has_many_sockets(part):
        kind = item.model_copy(update={"owned": False})
        words = name_of_piece(copy.directory, part, kind)
        return f"{item.length_m:g} m {words}" if words and item.length_m else words
    entries = tuple(join.b for join in copy.run.joins if join.b.owner == item.id)
    device = Gear.model_construct(id=item.id, name=item.tag, part=item.part)
    numbers = free_in_a_row([End(device, part, (entries,))], copy.users)
    if not numbers:
        raise CannotChange(f"{item.tag} has no free line beside those in use: type the new run.")
    return f"{item.tag} {'/'.join(map(str, numbers))}"
