"""Other wirings of a typed line: what was solved and not chosen, or what would do better than the pieces it names.

They stand beside the plan, never in its place.
"""

from collections.abc import Callable
from itertools import islice

from ruvak.core.entry.built import OtherWiring
from ruvak.core.entry.grammar import parse
from ruvak.core.entry.hosts import has_usb_between
from ruvak.core.entry.names import Directory
from ruvak.core.entry.reading import Alternative, Reading
from ruvak.core.entry.rewording import option_of
from ruvak.core.entry.run_reading import describe_piece
from ruvak.core.entry.words import plain
from ruvak.core.judge.finding import SEVERITY, Grade
from ruvak.core.parts.library import library
from ruvak.core.rig.edits import apply
from ruvak.core.rig.part import Part, is_computer, usb_ends
from ruvak.core.rig.rig import KitItem, Rig
from ruvak.core.units import METRES_PER_UNIT

MOST = 3
"""How many others are offered."""


def list_others(rig: Rig, reading: Reading, others: tuple[OtherWiring, ...]) -> tuple[Alternative, ...]:
    """What was solved for a line that names no pieces, and not chosen; each with the line that asks for it. What has
    the same to be said of it as the plan is no choice."""
    directory = Directory(rig)
    chosen = reading.runs[0].finding
    different = (other for other in others if (other.finding.code, other.finding.grade) != (chosen.code, chosen.grade))
    result = (_offer(directory, reading.line, other) for other in different)
    return tuple(islice((entry for entry in result if entry is not None), MOST))


def find_better(rig: Rig, reading: Reading, read: Callable[[str], Reading]) -> tuple[Alternative, ...]:
    """The same ends without the named pieces, where their worst grade is milder.

    None where nothing was named, something built in is passed through, or it is no better.
    """
    if not reading.runs or any(run.through for run in reading.runs):
        return ()
    grade = _worst(reading)
    line = _with_pieces(reading.line, METRES_PER_UNIT[rig.length_unit], ())
    if line is None or grade is Grade.CLEAR:
        return ()
    other = read(line)
    # Without a device that the line passes, or its USB box, it is another plan, not a better wiring of this one.
    if _devices(other) != _devices(reading) or SEVERITY[_worst(other)] <= SEVERITY[grade]:
        return ()
    pieces = tuple(piece.words for run in other.runs for piece in run.pieces)
    finding = min((run.finding for run in other.runs), key=lambda each: SEVERITY[each.grade])
    if _worst(other) is not Grade.CLEAR:
        return _by_its_pieces(rig, reading, other)
    return (Alternative(line=line, pieces=pieces, finding=finding, is_usual=False),)


def _by_its_pieces(rig: Rig, reading: Reading, other: Reading) -> tuple[Alternative, ...]:
    """Another reading as the line that names its pieces: read by itself, with more wirings solved, the line without any
    may be planned otherwise still."""
    if len(other.runs) != 1 or other.edit is None:
        return ()
    after = apply(rig, other.edit)
    kit = {item.id: item for item in after.kit}
    items = tuple(kit[piece.item] for piece in other.runs[0].pieces)
    offered = _offer(Directory(rig), reading.line, OtherWiring(items, other.runs[0].finding, False, False))
    return (offered,) if offered is not None else ()


def find_by_usb(rig: Rig, reading: Reading, read: Callable[[str], Reading]) -> tuple[Alternative, ...]:
    """The USB lead between a computer and a desk that has a USB socket, where the line is read as another lead between
    the two that does not do well."""
    if len(reading.runs) != 1 or reading.edit is None or _worst(reading) is Grade.CLEAR:
        return ()
    run = reading.runs[0]
    if not run.sources or not run.goals:
        return ()
    after = apply(rig, reading.edit)
    ends = [gear for end in (run.sources[0], run.goals[0]) for gear in after.gear if gear.id == end.owner]
    parts = [after.part_of(gear.id) for gear in ends]
    sockets = (run.sources[0].connector, run.goals[0].connector)
    if len(ends) != 2 or not has_usb_between(*parts) or any(map(_is_by_usb, sockets, parts)):
        return ()
    desk, computer = reversed(ends) if is_computer(parts[0]) else ends
    line = f"{desk.name} USB > {computer.name}" if desk is ends[0] else f"{computer.name} > {desk.name} USB"
    line += f", {run.length_m:g} m" if run.length_m is not None else ""
    other = read(line)
    if _devices(other) != _devices(reading) or _worst(other) is not Grade.CLEAR:
        return ()
    pieces = tuple(piece.words for piece in other.runs[0].pieces)
    return (Alternative(line=line, pieces=pieces, finding=other.runs[0].finding, is_usual=True),)


def _is_by_usb(socket: str, part: Part) -> bool:
    return socket in usb_ends(part)


def _offer(directory: Directory, line: str, other: OtherWiring) -> Alternative | None:
    """None where a piece has no name that means it alone, and where it is the socket that differs."""
    known = {**library(), **directory.rig.parts_by_id}
    names = [name_of_piece(directory, known[item.part], item) for item in other.items]
    typed = tuple(dict.fromkeys(name for name in names if name is not None))
    asked = _with_pieces(line, METRES_PER_UNIT[directory.rig.length_unit], typed)
    unsaid = other.has_other_sockets and not any(known[item.part].elements for item in other.items)
    if asked is None or None in names or unsaid:
        return None
    pieces = tuple(describe_piece(known[item.part], item) for item in other.items)
    return Alternative(line=asked, pieces=pieces, finding=other.finding, is_usual=other.is_usual)


def name_of_piece(directory: Directory, part: Part, item: KitItem) -> str | None:
    """What to type for a piece, so that no other can be meant: the tag of one that is owned."""
    if item.owned:
        return item.tag if directory.kit.by_tag.get(plain(item.tag)) == item else None
    return next((name for name in (*part.called, part.name) if _means_alone(directory, name, part)), None)


def _means_alone(directory: Directory, name: str, part: Part) -> bool:
    return "," not in name and [entry.id for entry in directory.kit.find_parts(name)] == [part.id]


def _devices(reading: Reading) -> list[set[str]]:
    """The devices at the ends of each run."""
    return [{end.owner for end in (*run.sources, *run.goals)} for run in reading.runs]


def _worst(reading: Reading) -> Grade:
    return min((run.grade for run in reading.runs), key=lambda grade: SEVERITY[grade])


def _with_pieces(line: str, metres_per_unit: float, pieces: tuple[str, ...]) -> str | None:
    """Source, pieces, destination, length and options of a line; None where that is the line as it stands."""
    sentence = parse(line, metres_per_unit)
    kept = [extra.text for extra in sentence.extras if option_of(extra) is not None]
    if not pieces and len(sentence.pieces) <= 2 and len(kept) == len(sentence.extras):
        return None
    first, last = (" ".join(piece.text.split()) for piece in (sentence.pieces[0], sentence.pieces[-1]))
    result = " > ".join((first, *pieces, last))
    if sentence.length is not None:
        result += f", {line[sentence.length.start : sentence.length.end].strip()}"
    elif sentence.bare_m is not None:
        result += f", {sentence.bare_m:g} m"
    return ", ".join([result, *kept])
