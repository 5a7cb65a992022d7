"""A line whose sockets are in use, with the next ones of their kind that are free."""

import re
from collections.abc import Collection

from ruvak.core.entry.grammar import Piece, Sentence
from ruvak.core.entry.line_ends import End
from ruvak.core.entry.wanted import Wanted
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Endpoint

_NUMBERS = re.compile(r"\d+(?:\s*(?:[-/,&+\N{EN DASH}]|and|to)\s*\d+)*")

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
    new = f"{numbers[0]}-{numbers[-1]}" if len(numbers) > 2 else "/".join(map(str, numbers))
    return f"{line[:start]}{new}{line[end:]}"
