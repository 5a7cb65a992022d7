"""A line whose sockets are in use, with the next ones of their kind that are free."""

import re
from collections.abc import Collection

from ruvak.core.entry.grammar import Piece, Sentence
from ruvak.core.entry.line_ends import End, main_sockets, takes_stereo
from ruvak.core.entry.wanted import Wanted
from ruvak.core.entry.words import plain
from ruvak.core.rig.part import Part, is_computer, usb_ends
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.ports import LINE

_NUMBERS = re.compile(r"\d+(?:\s*(?:[-/,&+\N{EN DASH}]|and|to)\s*\d+)*")

_MAIN = re.compile(r"\s+(?:main|master|mains)(?:\s+(?:mix|out|outs|outputs?|l/r))?$", re.IGNORECASE)
_SIDE_OR_NUMBER = re.compile(r"\s+(?:left|right|[lr])\b|\s*\d+", re.IGNORECASE)

_OF_ONE_CHANNEL = frozenset(("mic", "line"))
"""Sockets that lead to one channel."""


def with_free_places(
    line: str, sentence: Sentence, wanted: tuple[Wanted, ...], users: Collection[Endpoint]
) -> str | None:
    """The line with other numbers at the end where sockets are in use; None where neither end names any, or no others
    are free in a row."""
    for piece, ends in (
        (sentence.pieces[-1], [run.goal for run in wanted if run.goal is not None]),
        (sentence.pieces[0], [run.sources[0] for run in wanted]),
    ):
        if any(socket in users for end in ends for choice in end.choices for socket in choice):
            numbers = free_in_a_row(ends, users)
            return _put_in(line, piece, numbers) if numbers else None
    return None


def with_other_outputs(line: str, sentence: Sentence, run: Wanted, users: Collection[Endpoint]) -> tuple[str, ...]:
    """The line from other outputs of its source, where it names none or the main ones and these are in use: by USB into
    a computer, then the next free of each kind."""
    source = run.sources[0]
    if run.goal is None or not any(socket in users for socket in source.choices[0]):
        return ()
    count = 2 if takes_stereo(run.goal.part) else len(run.goal.choices[0])
    words = other_outputs(source.gear.id, source.part, users, count)
    if is_computer(run.goal.part) and has_free_usb(source.gear.id, source.part, users):
        words.insert(0, "USB")
    return from_outputs(line, sentence.pieces[0], source.gear.name, words)


def into_computer_otherwise(line: str, sentence: Sentence, run: Wanted, users: Collection[Endpoint]) -> tuple[str, ...]:
    """The line into a computer by USB, or through an interface, where the one socket of sound that it has is in use."""
    goal, source, typed = run.goal, run.sources[0], sentence.pieces[-1]
    if goal is None or not is_computer(goal.part) or goal.free_choices(users):
        return ()
    free = has_free_usb(source.gear.id, source.part, users)
    by_usb = (f"{source.gear.name} USB > {goal.gear.name}",) if free else ()
    at = typed.start
    through = (f"{line[:at]}interface > {line[at:]}",) if line[at : at + len(typed.text)] == typed.text else ()
    return (*by_usb, *through)


def has_free_usb(gear: str, part: Part, users: Collection[Endpoint]) -> bool:
    """Whether nothing is plugged into a USB socket of a device that leads to a computer."""
    return any(Endpoint(gear, name) not in users for name in usb_ends(part))


def from_outputs(line: str, typed: Piece, device: str, outputs: list[str]) -> tuple[str, ...]:
    """The line with each of the outputs behind the device's name; none where it names an output other than the main
    ones."""
    name = _MAIN.sub("", typed.text)
    start, end = typed.start, typed.start + len(typed.text)
    if plain(name) != plain(device) or line[start:end] != typed.text:
        return ()
    return tuple(f"{line[:start]}{name} {output}{line[end:]}" for output in outputs)


def other_outputs(gear: str, part: Part, users: Collection[Endpoint], count: int) -> list[str]:
    """The next free outputs for so many lines, of each kind that a device has besides its main ones: "Aux 3/4", "Record
    out"."""
    lines = [output.connectors for output in part.outputs if output.signal in LINE]
    outputs = {name for connectors in lines for name in connectors} - set(main_sockets(part))
    kinds: dict[str, list[int | None]] = {}
    for connector in part.connectors:
        if connector.id in outputs and connector.side == "out" and Endpoint(gear, connector.id) not in users:
            label = _SIDE_OR_NUMBER.sub("", connector.label.split(",")[0])
            kinds.setdefault(label, []).append(_number(connector.id))
    words = (_next_of(label, numbers, count) for label, numbers in kinds.items())
    return [each for each in words if each]


def _next_of(label: str, numbers: list[int | None], count: int) -> str:
    """ "Aux 3", "Aux 3/4", "Record out"; empty where there are not as many in a row. A pair begins with an odd one."""
    known = [number for number in numbers if number is not None]
    if not known:
        return label if count <= max(2, len(numbers)) else ""
    for first in known:
        row = list(range(first, first + count))
        if set(row) <= set(known) and (count != 2 or first % 2):
            return f"{label} {_in_words(row)}"
    return ""


def free_in_a_row(ends: list[End], users: Collection[Endpoint]) -> list[int]:
    """As many channels of the one device as the ends name, the next that nothing uses; a pair begins with an odd one.
    Empty where there are none."""
    if len({end.gear.id for end in ends}) > 1:
        return []
    sockets = [socket.connector for end in ends for choice in end.choices for socket in choice]
    stems = {name.rstrip("0123456789") for name in sockets}
    named = {number for name in sockets if (number := _number(name)) is not None}
    count = len(named)
    free = _free_channels(ends[0].part, ends[0].gear.id, stems, users)
    for first in sorted(free, key=lambda number: (number < min(named, default=0), number)):
        row = list(range(first, first + count))
        if count and free.issuperset(row) and (count != 2 or first % 2):
            return row
    return []


def _free_channels(part: Part, gear: str, stems: set[str], users: Collection[Endpoint]) -> set[int]:
    """Numbers of which no socket of these kinds is in use: a channel's microphone and line sockets are one channel."""
    taken: set[int] = set()
    known: set[int] = set()
    for connector in part.connectors:
        number, stem = _number(connector.id), connector.id.rstrip("0123456789")
        if number is not None and Endpoint(gear, connector.id) in users:
            taken |= {number} if stem in stems or {stem, *stems} <= _OF_ONE_CHANNEL else set()
        elif number is not None and stem in stems:
            known.add(number)
    return known - taken


def _number(connector: str) -> int | None:
    digits = connector[len(connector.rstrip("0123456789")) :]
    return int(digits) if digits else None


def _put_in(line: str, piece: Piece, numbers: list[int]) -> str | None:
    typed = list(_NUMBERS.finditer(piece.text))
    if not typed or line[piece.start : piece.start + len(piece.text)] != piece.text:
        return None
    start, end = piece.start + typed[-1].start(), piece.start + typed[-1].end()
    return f"{line[:start]}{_in_words(numbers)}{line[end:]}"


def _in_words(row: list[int]) -> str:
    """ "3", "3/4", "3-6"."""
    return f"{row[0]}-{row[-1]}" if len(row) > 2 else "/".join(map(str, row))
