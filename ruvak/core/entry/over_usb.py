"""Lines that go through a computer's USB box: "laptop > audio interface > desk 3/4" is the box's run to the desk, and
the laptop is what the box belongs to."""

import re
from dataclasses import replace

from ruvak.core.entry.grammar import Piece, Sentence
from ruvak.core.entry.hosts import is_computer
from ruvak.core.entry.names import Directory
from ruvak.core.entry.words import plain
from ruvak.core.rig.part import usb_plugs
from ruvak.core.rig.rig import Gear

_USB = re.compile(r"(?:via |over |by )?usb(?: ?-? ?[abc])?(?: (?:lead|cable|out|output|port|socket))?", re.IGNORECASE)
_SHORTEST = 3
"""A computer, its box, and where the sound goes on to or comes from."""


def without_usb(directory: Directory, sentence: Sentence) -> tuple[Sentence, Gear | None, str]:
    """The line without the computer before or behind its USB box and without the USB lead between them, the computer,
    and how both were typed; the line as it is where it has no such thing."""
    pieces = [piece for piece in sentence.pieces[1:-1] if not _USB.fullmatch(piece.text)]
    pieces = [sentence.pieces[0], *pieces, sentence.pieces[-1]]
    if len(pieces) < _SHORTEST:
        return sentence, None, ""
    for computer, box, rest in ((pieces[0], pieces[1], pieces[1:]), (pieces[-1], pieces[-2], pieces[:-1])):
        host = _computer(directory, computer)
        if host is not None and _is_usb_box(directory, box):
            words = " > ".join(piece.text for piece in sorted((computer, box), key=lambda piece: piece.start))
            return replace(sentence, pieces=rest, arrows=len(rest) - 1), host, words
    return sentence, None, ""


def _computer(directory: Directory, piece: Piece) -> Gear | None:
    """The computer a piece names, where it names no socket but its USB."""
    text = re.sub(r"\s+(?:over |via |by )?usb(?:[ -]?[abc])?$", "", plain(piece.text))
    if (meant := directory.first_meant(text)) is None:
        return None
    meaning, part = meant
    return meaning.gear[0] if is_computer(part) and len(meaning.gear) == 1 and not meaning.rest else None


def _is_usb_box(directory: Directory, piece: Piece) -> bool:
    meant = directory.first_meant(piece.text)
    return meant is not None and bool(usb_plugs(meant[1]))
