"""Lines that pass devices: "desk main > sub > top" is a line into the subwoofer and a line on from it."""

from dataclasses import dataclass, replace

from ruvak.core.entry.grammar import Piece, Sentence
from ruvak.core.entry.line_ends import speaks
from ruvak.core.entry.lists import split_list
from ruvak.core.entry.names import Directory
from ruvak.core.entry.sockets import Role, sockets


@dataclass(frozen=True)
class PassedDevice:
    """A device between two arrows: how it is written as a destination, and what of its name stays as a source.

    `source` is empty where the device is simply led on from. `links`: it only leads on what comes in, like a
    loudspeaker or a lantern; else it has outputs of its own, like a pedal or an equaliser.
    """

    piece: Piece
    goal: str
    source: str
    links: bool


def passed_device(directory: Directory, piece: Piece) -> PassedDevice | None:
    """The device that a piece of a line names, where it takes something and sends something on; None for all else."""
    names = split_list(piece.text, "goal")
    if len(names) > 1:
        every = [passed_device(directory, Piece(name, piece.start)) for name in names]
        passing = [device for device in every if device is not None]
        links = any(device.links for device in passing)
        return PassedDevice(piece, piece.text, "", links) if len(passing) == len(names) else None
    for meaning in directory.counted_meanings(piece.text):
        part = meaning.new or directory.rig.parts_by_id[meaning.gear[0].part]
        if not (speaks(part, "goal") and speaks(part, "source")):
            continue
        reads: dict[Role, bool] = {
            role: sockets(part, meaning.rest, role).unknown is None for role in ("goal", "source")
        }
        if reads["goal"]:
            return PassedDevice(piece, piece.text, "", not part.outputs)
        if reads["source"]:
            # "amp di out": the socket that it leaves by.
            name = " ".join(gear.name for gear in meaning.gear)
            return PassedDevice(piece, name, piece.text, links=False)
    return None


def split_sentence(sentence: Sentence, at: int, device: PassedDevice, length_is_first: bool) -> tuple[Sentence, str]:
    """The line up to the device, with the number and all options, and the text of what comes behind it.

    The length is that of the last stretch, since a pedal stands by the player and an equaliser by the desk; where
    `length_is_first`, as of a device that only leads on, of the first: from the desk to the stage.
    """
    first = replace(sentence, pieces=[*sentence.pieces[:at], Piece(device.goal, device.piece.start)], arrows=at)
    rest = " > ".join(_with_length(piece) for piece in sentence.pieces[at + 1 :])
    metres = sentence.length.metres if sentence.length is not None else sentence.bare_m
    if metres is not None and not length_is_first:
        return replace(first, length=None, bare_m=None), f"{rest}, {metres:g} m"
    return first, rest


def _with_length(piece: Piece) -> str:
    return f"{piece.length_m:g} m {piece.text}" if piece.length_m is not None else piece.text
