"""Lines rewritten before they are planned: two that are the sides of one stereo socket as one, and a list whose names
have boxes of their own as a line for each name.
"""

import re
from collections.abc import Sequence

from ruvak.core.entry.grammar import Piece, parse
from ruvak.core.entry.line_ends import main_output
from ruvak.core.entry.lists import split_list
from ruvak.core.entry.names import Directory
from ruvak.core.entry.words import expand_ranges, plain

_SIDE = re.compile(r"(?P<stem>.+?)[\s-]+(?P<side>l|r|left|right)", re.IGNORECASE)
_PLACE = re.compile(r"(?P<stem>.+?)\s*(?P<place>\d+)")
_MOST_BOX_WORDS = 3


def join_sides(directory: Directory, line: str, following: str) -> str | None:
    """ "laptop L > desk 15" and "laptop R > desk 16" as "laptop > desk 15/16", where both sides leave by one socket.

    None where they are no such two.
    """
    if not all(re.search(r"\b(?:l|r|left|right)\b", each, re.IGNORECASE) for each in (line, following)):
        return None
    first, second = parse(line), parse(following)
    if first.arrows != second.arrows or first.arrows == 0 or first.pieces[0].start > first.pieces[-1].start:
        return None
    sides = [_SIDE.fullmatch(sentence.pieces[0].text) for sentence in (first, second)]
    places = [_PLACE.fullmatch(sentence.pieces[-1].text) for sentence in (first, second)]
    near, far = _alike(sides, "side"), _alike(places, "place")
    if near is None or far is None or _rest(first.pieces, first.extras) != _rest(second.pieces, second.extras):
        return None
    left, right = far if near[0].lower().startswith("l") else far[::-1]
    name, goal = (match["stem"] for match in (sides[0], places[0]) if match is not None)
    if (meant := directory.first_meant(name)) is None or not meant[1].outputs:
        return None
    output = main_output(meant[1])
    if len(output.channels) != 2 or len(output.connectors) != 1:
        return None
    start, end = first.pieces[0], first.pieces[-1]
    middle = line[start.start + len(start.text) : end.start]
    return f"{line[: start.start]}{name}{middle}{goal} {left}/{right}{line[end.start + len(end.text) :]}"


def with_sides_joined(directory: Directory, lines: Sequence[str]) -> list[str]:
    """Lines one after another, every two that are the sides of one socket as one."""
    result: list[str] = []
    for line in lines:
        joined = join_sides(directory, result[-1], line) if result else None
        if joined is not None:
            result[-1] = joined
        else:
            result.append(line)
    return result


def one_line_each(directory: Directory, line: str) -> list[str] | None:
    """ "kick in, snare DI > desk 1-2" as "kick in > desk 1" and "snare > DI > desk 2"; None where no name of a list has
    a box of its own, or where there are not as many places."""
    sentence = parse(line)
    if sentence.arrows == 0 or sentence.pieces[0].start > sentence.pieces[-1].start:
        return None
    start, end = sentence.pieces[0], sentence.pieces[-1]
    names = split_list(start.text, "source")
    if len(names) < 2:
        return None
    boxed = [_with_box(directory, name) for name in names]
    places = _places(_with_extras(line, end))
    if not any(boxed) or len(places) != len(names):
        return None
    ended = places[-1][1]
    # Its own arrow, which words are none beside: "bass DI and bass mic to 5 and 6".
    middle = " > " if sentence.arrows == 1 else line[start.start + len(start.text) : end.start]
    number = [f"{sentence.number + at}. " if sentence.number is not None else "" for at in range(len(names))]
    return [
        f"{number[at]}{box or name}{middle}{place}{line[ended:]}"
        for at, (name, box, (place, _)) in enumerate(zip(names, boxed, places, strict=True))
    ]


def _alike(matches: list[re.Match[str] | None], group: str) -> tuple[str, str] | None:
    """What differs between two matches of one stem."""
    first, second = matches
    if first is None or second is None or plain(first["stem"]) != plain(second["stem"]):
        return None
    return (
        (first[group], second[group])
        if first[group].lower()[0] != second[group].lower()[0] or group == "place"
        else None
    )


def _rest(pieces: list[Piece], extras: list[Piece]) -> list[str]:
    return [plain(piece.text) for piece in (*pieces[1:-1], *extras)]


def _with_box(directory: Directory, name: str) -> str | None:
    """ "snare DI" as "snare > DI", where nothing is called so and its last words name a box."""
    if plain(expand_ranges(name)) in directory.by_name:
        return None
    words = name.split()
    for first in range(max(1, len(words) - _MOST_BOX_WORDS), len(words)):
        box = " ".join(words[first:])
        if directory.kit.find_boxes(box):
            return f"{' '.join(words[:first])} > {box}"
    return None


def _with_extras(line: str, end: Piece) -> Piece:
    """The destination with the further places that stand behind commas: "desk 5, 6"."""
    more = re.match(
        r"(?:\s*(?:,|/|&|\+|and)\s*\d+(?![\d.]*\s*(?:m|ft|feet|metres?|meters?)\b))+", line[end.start + len(end.text) :]
    )
    return Piece(end.text + more[0], end.start) if more else end


def _places(end: Piece) -> list[tuple[str, int]]:
    """Each place of a destination by itself, with where the whole of it ends in the line: "desk 1-3"."""
    text = plain(expand_ranges(plain(end.text)))
    words = text.split()
    figures = [word for word in words if word.isdigit()]
    stem = " ".join(word for word in words if not word.isdigit())
    return [(f"{stem} {figure}", end.start + len(end.text)) for figure in figures]
