"""A typed line taken apart: pieces between arrows, the length, the options. Nothing is looked up here."""

import re
from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from itertools import zip_longest

from ruvak.core.entry.arrows import ARROW, BACK, TO, WORDS_FOR_ARROW, find_arrow, say_otherwise
from ruvak.core.entry.words import PHANTOM, PLUG, Length, bare_length, find_length

_LABEL_IN_FRONT = re.compile(r"^\s*([^\W\d][^:<>,]*):\s+(?=.*(?:[<>]|\s(?:to|into|from|on)\s|\d\s*$))")
_NUMBER_IN_FRONT = re.compile(r"^\s*(\d{1,4})\s*[:.)]\s+")
_ENDS_A_RUN = re.compile(r"\d\s*(?:m|ft|[lr])?\s*$", re.IGNORECASE)
"""A place or a length."""
_PLACES = re.compile(r"\d+(?:\s*(?:[/&+\N{EN DASH}-]|and)\s*\d+)?")
"""One more place behind a comma, or two: "desk 13/14, 15/16", "aux 1, 2 and 3"."""
_SEVERAL = re.compile(
    r"\d\s*[,/&+\N{EN DASH}-]\s*\d|[lL]\s*[/&+]\s*[rR]|,|\band\b|\w\s+[+&]\s+\w",
)
"""Several places, sides or names."""
_PLUG_BEHIND = re.compile(rf"(?P<name>.+?)(?:\s+with)?\s+(?P<plug>(?:jack\s+)?{PLUG}(?:\s+jack)?)", re.IGNORECASE)
_PLUGS_OF_A_LEAD = re.compile(
    rf"(?:(?:2|two|twin|dual)\s*x?\s*)?(?:mono\s+)?{PLUG}s?(?:\s+(?:lead|cable|cord|adapter))?", re.IGNORECASE
)
_NOT = r"(?:(?:no|without)\s+)?"
_PHANTOM_BEHIND = re.compile(rf"(?P<name>.*?\S)\s+(?:with\s+)?(?P<phantom>{_NOT}{PHANTOM})(?: on)?\s*", re.IGNORECASE)


@dataclass(frozen=True)
class Piece:
    """What stands between two arrows, and where in the line it starts; `length_m` where one stands with it."""

    text: str
    start: int
    length_m: float | None = None


@dataclass
class Sentence:
    """One line in parts. `pieces`: from source to destination; `extras`: options and things named with "via"."""

    pieces: list[Piece]
    number: int | None = None
    length: Length | None = None
    bare_m: float | None = None
    extras: list[Piece] = field(default_factory=list)
    arrows: int = 0
    label: str = ""
    """What stands before a colon in front: the name of the run."""


def split_statements(line: str) -> list[str]:
    """Several runs on one line, parted by semicolons, or by commas where a place or a length ends one and another name
    with an arrow behind it begins the next: "click > desk 15, keys > desk 16"."""
    result: list[str] = []
    for part in _split_at_strokes(re.split(r";(?=[^;]*(?:[<>]|->))", line)):
        start, arrows, end = 0, 0, ""
        marks = list(re.finditer(r"[,>]", part))
        for mark, following in zip_longest(marks, marks[1:]):
            if mark[0] == ">":
                arrows += 1
            elif arrows and following is not None and following[0] == ">" and _ENDS_A_RUN.search(end):
                other = part[mark.end() : following.start()]
                if re.search("[a-z]", other, re.IGNORECASE) and not _is_list(end, other):
                    result.append(part[start : mark.start()])
                    start, arrows = mark.end(), 0
            end = part[mark.end() : following.start()] if following is not None else ""
        result += _split_at_words(part) if not start and not arrows and not BACK.search(part) else [part[start:]]
    return [statement for statement in result if statement.strip()]


def _split_at_words(part: str) -> list[str]:
    """The same where words stand for the arrows: "tracks to desk 15/16, click to 17"."""
    result, start = list[str](), 0
    commas = [mark.start() for mark in re.finditer(",", part)]
    for comma, following in zip_longest(commas, commas[1:]):
        before, behind = part[start:comma], part[comma + 1 : following]
        begins_another = re.match(r"\s*[a-z]", behind, re.IGNORECASE) and TO.search(behind)
        if begins_another and _ENDS_A_RUN.search(before) and TO.search(before):
            result.append(before)
            start = comma + 1
    return [*result, part[start:]]


def _split_at_strokes(parts: list[str]) -> Iterator[str]:
    """ "mic 1 > desk 1 / mic 2 > desk 2" are two runs: a stroke between spaces, with an arrow on both sides of it."""
    for part in parts:
        kept, *others = re.split(r"\s+/\s+", part)
        for other in others:
            if ">" in kept and ">" in other:
                yield kept
                kept = other
            else:
                kept = f"{kept} / {other}"
        yield kept


def _is_list(name: str, other: str) -> bool:
    """Whether two names beside a comma differ in their numbers alone ("amp 1, amp 2"), or the second is a length."""
    if (length := find_length(other)) is not None and not _blank(other, length.start, length.end).strip():
        return True
    return re.sub(r"\d+", "", name).strip().lower() == re.sub(r"\d+", "", other).strip().lower()


def parse(line: str, metres_per_unit: float = 1.0) -> Sentence:
    """The line in parts; a line without any arrow has one piece and no arrows."""
    number = _NUMBER_IN_FRONT.match(line)
    text = _blank(line, 0, number.end()) if number else line
    text = say_otherwise(text)
    label = _LABEL_IN_FRONT.match(text)
    text = _blank(text, 0, label.end()) if label else text
    text, length, between = _take_lengths(text)
    # "choir mics (4)" are so many.
    text = re.sub(r"\((\d{1,2})\)", r"x\1 ", text)
    # "desk 3 (48V)" as "desk 3, 48V".
    text = re.sub(rf"\((\s*{PHANTOM}\s*)\)", r",\1 ", text, flags=re.IGNORECASE)
    text = re.sub(r"[()]", " ", text)
    text = re.sub(r"[.;\s]+$", "", text)
    text, arrow, backwards = find_arrow(text)
    pieces = _split(text, arrow, between)
    if arrow is WORDS_FOR_ARROW:
        pieces = _with_leads_by_plugs(pieces)
    sentence = Sentence(pieces, int(number[1]) if number else None, length, arrows=len(pieces) - 1)
    if label:
        sentence.label = label[1].strip()
    for at, piece in enumerate(pieces[1:-1], 1):
        if not piece.text and piece.length_m is not None:
            # "> 10 m lead >", of which the length has taken the word with it.
            pieces[at] = replace(piece, text="lead")
    if backwards:
        sentence.pieces.reverse()
    if pieces:
        _take_tail(sentence, metres_per_unit)
    return sentence


def _blank(text: str, start: int, end: int) -> str:
    """Spaces instead, so that every place in the text stays where it was."""
    return text[:start] + " " * (end - start) + text[end:]


def _take_lengths(text: str) -> tuple[str, Length | None, list[Length]]:
    """The text without its lengths, the one that is said of the whole line, and those between two arrows.

    A single length is said of the whole line, wherever it stands.
    """
    lengths: list[Length] = []
    while (length := find_length(text)) is not None:
        lengths.append(length)
        text = _blank(text, length.start, length.end)
    arrows = [_symbol(entry) for entry in ARROW.finditer(text)] or [_symbol(entry) for entry in BACK.finditer(text)]
    between = [length for length in lengths if arrows and arrows[0] < length.start < arrows[-1]]
    if len(lengths) == 1:
        return text, lengths[0], between
    return text, next((length for length in lengths if length not in between), None), between


def _split(text: str, arrow: re.Pattern[str], lengths: list[Length]) -> list[Piece]:
    pieces: list[Piece] = []
    at = behind = 0
    for entry in arrow.finditer(text):
        # The spaces beside an arrow, where a length may have stood, belong to the piece.
        symbol = _symbol(entry)
        pieces.append(_trim(text[at : entry.start()], at, _within(lengths, behind, symbol)))
        at, behind = entry.end(), symbol
    pieces.append(_trim(text[at:], at, _within(lengths, behind, len(text))))
    return pieces


def _with_leads_by_plugs(pieces: list[Piece]) -> list[Piece]:
    """Of "phone 3.5 to 2 RCA to desk 5/6" the first "to" is no arrow: it stands between a lead's two plugs."""
    result = [pieces[0]]
    for at, piece in enumerate(pieces[1:], 1):
        near = _PLUG_BEHIND.fullmatch(result[-1].text)
        if near is None or at == len(pieces) - 1 or not _PLUGS_OF_A_LEAD.fullmatch(piece.text):
            result.append(piece)
            continue
        device = result.pop()
        result.append(replace(device, text=near["name"]))
        result.append(replace(piece, text=f"{near['plug']} to {piece.text}", start=device.start + near.start("plug")))
    return result


def _symbol(arrow: re.Match[str]) -> int:
    return arrow.end() - len(arrow[0].lstrip())


def _within(lengths: list[Length], start: int, end: int) -> float | None:
    metres = [length.metres for length in lengths if start <= length.start < end]
    return sum(metres) if metres else None


def _trim(text: str, start: int, length_m: float | None = None) -> Piece:
    bare = text.strip(" \t,")
    return Piece(bare, start + (text.index(bare) if bare else 0), length_m)


def _take_tail(sentence: Sentence, metres_per_unit: float) -> None:
    """Moves what follows commas, and "via …", from the last typed piece to the extras; numbers there stay sockets
    when a socket number stands before the comma and the next is one more place, and are a length when alone."""
    last = max(sentence.pieces, key=lambda piece: piece.start)
    place = sentence.pieces.index(last)
    head, *rest = re.split(r"(,|\s+(?:(?:via|with|through|using)\s+|w/\s*))", last.text, flags=re.IGNORECASE)
    kept, at = head, last.start + len(head)
    for mark, part in zip(rest[::2], rest[1::2], strict=True):
        start = at + len(mark)
        at = start + len(part)
        bare = bare_length(part, metres_per_unit)
        if not part.strip():
            continue
        more_places = mark == "," and _is_place(kept, part) and not sentence.extras
        if more_places and bare is not None and sentence.length is None and not _several_sources(sentence, place):
            more_places = False
        if more_places:
            kept += f", {part.strip()}"
        elif bare is not None and sentence.length is None and sentence.bare_m is None:
            sentence.bare_m = bare
        else:
            sentence.extras.append(_trim(part, start))
    sentence.pieces[place] = Piece(kept.strip(" \t,"), last.start)
    for at, piece in enumerate(sentence.pieces):
        if (behind := _PHANTOM_BEHIND.fullmatch(piece.text)) is not None:
            # "desk 3 phantom" and "gooseneck with 48 V > desk 3" as "desk 3, phantom".
            sentence.extras.append(Piece(behind["phantom"], piece.start + behind.start("phantom")))
            sentence.pieces[at] = replace(piece, text=behind["name"].strip(" \t,"))


def _is_place(kept: str, part: str) -> bool:
    return re.search(r"\d\s*$", kept) is not None and _PLACES.fullmatch(part.strip()) is not None


def _several_sources(sentence: Sentence, place: int) -> bool:
    """Whether the other end names several places as well, so that "5, 6" means two sockets."""
    others = [piece.text for index, piece in enumerate(sentence.pieces) if index != place]
    return any(_SEVERAL.search(text) for text in others)
