"""One end of a line as devices and sockets: the first meaning whose sockets exist, or why there is none."""

import re
from collections.abc import Mapping
from dataclasses import replace

from ruvak.core.entry.context import LineContext
from ruvak.core.entry.grammar import Piece
from ruvak.core.entry.line_ends import Side, main_output, speaks
from ruvak.core.entry.lists import split_list
from ruvak.core.entry.meaning import Meaning
from ruvak.core.entry.new_gear import has_many_sockets, has_sides
from ruvak.core.entry.pairs import without_sides
from ruvak.core.entry.passing import Passing
from ruvak.core.entry.reading import ProblemCode
from ruvak.core.entry.sockets import Role, Sockets, sockets, usable
from ruvak.core.entry.wanted import Refused, problem
from ruvak.core.entry.words import expand_ranges, plain
from ruvak.core.rig.part import Part
from ruvak.core.rig.ports import family_of
from ruvak.core.rig.rig import Gear

_IN_A_ROW = 6
"""So many numbered sockets are said as a range."""
_ROLES: tuple[Role, ...] = ("source", "goal")
_TWO_SIDES = re.compile(
    r"(?i:(?P<stem>.+?)[\s,]+(?:l|left)\s*(?:/|&|\+|and)\s*(?:r|right)(?:\s+(?P<kind>mics?|microphones?|speakers?|tops?|wedges?))?)"
)
_DESK_OUTPUTS = frozenset(("aux", "auxes", "matrix", "main", "mains"))
"""Of these what nothing else has."""
_DESK_SOURCES = frozenset((
    "main", "mains", "aux", "auxes", "matrix", "l", "lr", "foh", "phones", "monitor", "out", "record", "rec", "tape",
    "mix", "bus", "buss", "group", "subgroup",
))  # fmt: skip
_LINE_INPUT = frozenset(("stereo", "st", "line", "in", "ins", "input", "inputs"))
"""A "stereo line in" of nothing named is one of the desk's."""
DESK_WORDS: Mapping[Role, frozenset[str]] = {
    "source": _DESK_SOURCES,
    "goal": frozenset(("ch", "chan", "channel", "channels", "input", "inputs", "mic", "line")),
    "through": frozenset(),
}
"""Words for sockets that stand for the desk's where nothing else is named."""


class DeviceEnds:
    """Reads the ends of a line. Raises Refused."""

    def __init__(self, context: LineContext, passing: Passing) -> None:
        self.context, self.passing = context, passing

    def read_or_desk(self, piece: Piece, role: Role) -> Side:
        """ "main L/R" and "channel 5" without a name are the desk's."""
        try:
            return self.read(piece, role)
        except Refused:
            words = plain(expand_ranges(plain(piece.text))).split()
            at = next((at for at, word in enumerate(words) if word in _DESK_OUTPUTS), 0)
            if role == "source" and at > 0 and any(map(str.isdigit, words[at:])):
                # "Livestream mix aux 11/12": what it is for, and where it leaves the desk.
                piece, words = Piece(" ".join(words[at:]), piece.start), words[at:]
            numbered_goal = role == "goal" and any(map(str.isdigit, words))
            line_input = role == "goal" and len(words) > 1 and set(words) <= _LINE_INPUT
            if not words or (role == "goal" and not numbered_goal and not line_input):
                raise
            if (
                not line_input
                and words[0] not in DESK_WORDS[role]
                and not (numbered_goal and all(map(str.isdigit, words)))
            ):
                raise
            desks = [
                gear for gear in self.context.rig.gear if has_many_sockets(self.context.rig.parts_by_id[gear.part])
            ]
            name = (
                max(desks, key=lambda gear: len(self.context.rig.parts_by_id[gear.part].inputs)).name
                if desks
                else "desk"
            )
            return self.read(Piece(f"{name} {piece.text}", piece.start), role)

    def read(self, piece: Piece, role: Role) -> Side:
        """One end of the line: several devices where it lists them, else what the words mean together."""
        if (both := self._two_sides(piece, role)) is not None:
            return both
        names = split_list(piece.text, role)
        if len(names) < 2 or plain(expand_ranges(piece.text)) in self.context.directory.by_name:
            return self.read_one(piece, role)
        start, sides = piece.start, list[Side]()
        for name in names:
            # "Snare bottom" of "snare top/bottom" stands nowhere as it is.
            start = piece.start + max(piece.text.find(name, start - piece.start), start - piece.start)
            sides += [self.read_one(Piece(each, start), role) for each in self._of_a_pair(name, role)]
        devices = tuple(device for side in sides for device in side.devices)
        if (together := _places_of_one(devices)) is not None:
            return Side((together,), piece, sides[0].meaning, sides[0].new)
        if len({gear.id for gear, _, _ in devices}) < len(devices):
            raise problem("ambiguous_name", piece, f"“{piece.text}” names one device twice: give each its own name.")
        meaning = replace(sides[0].meaning, gear=tuple(gear for gear, _, _ in devices))
        return Side(devices, piece, meaning, frozenset(name for side in sides for name in side.new))

    def _of_a_pair(self, name: str, role: Role) -> tuple[str, ...]:
        """Of "kick, snare, OHs L/R" the last is two microphones, where none of that name is there yet."""
        stem = without_sides(name) if role == "source" else None
        meaning = next(self.context.directory.meanings(stem), None) if stem is not None else None
        if stem is None or meaning is None or meaning.new is None or not meaning.new.outputs:
            return (name,)
        one_channel = len(main_output(meaning.new).channels) == 1
        return (f"{stem} left", f"{stem} right") if one_channel else (name,)

    def _two_sides(self, piece: Piece, role: Role) -> Side | None:
        """Two devices that are not there yet, typed as the sides of one name: "tops L/R", "organ left+right mics". None
        of what has sockets for both sides itself."""
        match = _TWO_SIDES.fullmatch(piece.text.strip())
        if match is None or plain(expand_ranges(piece.text)) in self.context.directory.by_name:
            return None
        if role == "source" and not match["kind"]:
            return None
        whole = f"{match['stem']} {match['kind'] or ''}".strip()
        # "Tops L/R" are two tops; "mains" have no singular.
        stem = next(filter(self._is_new_of_one_side, dict.fromkeys((whole.removesuffix("s"), whole))), None)
        if stem is None:
            return None
        both = [self.read_one(Piece(f"{stem} {side}", piece.start), role) for side in ("left", "right")]
        devices = tuple(device for side in both for device in side.devices)
        meaning = replace(both[0].meaning, gear=tuple(gear for gear, _, _ in devices))
        return Side(devices, piece, meaning, frozenset(gear.id for gear, _, _ in devices))

    def _is_new_of_one_side(self, name: str) -> bool:
        """Whether a name would add a device without sockets for two sides."""
        meaning = next(self.context.directory.meanings(name), None)
        part = meaning.new if meaning is not None else None
        return part is not None and not has_sides(part) and not has_many_sockets(part)

    def read_one(self, piece: Piece, role: Role) -> Side:
        """The first meaning whose sockets exist; a loudspeaker that would be added, and only leads on what comes in, is
        a source where nothing else is meant."""
        unknown: tuple[Meaning, str] | None = None
        leads_on: Side | None = None
        for meaning in self.context.directory.counted_meanings(piece.text):
            if meaning.missing is not None:
                code: ProblemCode = "unknown_source" if role == "source" else "unknown_destination"
                raise problem(code, piece, f"There is no “{meaning.missing}” in this rig.")
            devices = []
            for gear in meaning.gear:
                part = meaning.new or self.context.rig.parts_by_id[gear.part]
                named = sockets(part, meaning.rest, role)
                if meaning.new is not None and (self._is_too_small(part, gear) or self._has_one_end(part, gear)):
                    break
                if not usable(part, role) or not speaks(part, role):
                    break
                if named.unknown is not None:
                    if meaning.new is None or named.unknown.isdigit() or has_many_sockets(part):
                        unknown = unknown or (meaning, named.unknown)
                    # "Lead vocal 2" beside a "Lead vocal" is another microphone; a desk's number is a socket.
                    if meaning.exact and named.unknown.isdigit() and has_many_sockets(part):
                        raise self._refuse(piece, role, unknown)
                    break
                devices.append((gear, part, named))
            if len(devices) == len(meaning.gear):
                if meaning.corrected:
                    self.context.corrections.append(f"“{piece.text}” was taken for {meaning.corrected}.")
                new = frozenset(gear.id for gear in meaning.gear) if meaning.new is not None else frozenset[str]()
                side = Side(tuple(devices), piece, meaning, new)
                if role == "goal" or meaning.new is None or meaning.new.outputs:
                    return side
                leads_on = leads_on or side
        if leads_on is not None and plain(piece.text).split()[0] not in DESK_WORDS["source"]:
            return leads_on
        raise self._refuse(piece, role, unknown)

    def _is_too_small(self, part: Part, gear: Gear) -> bool:
        """Whether a device that would be added lacks a socket that another line of the list names, though a larger part
        of the same name may have it."""
        name = plain(gear.name)
        larger = [other for other in self.context.directory.new.by_name.get(name, ()) if other.id != part.id]
        if not larger or not has_many_sockets(part):
            return False
        for typed, figures in self.context.in_list.places.items():
            # "Desk" and "desk aux", whichever end of another line they stand at.
            kind = tuple(typed.removeprefix(name).split())
            of_it = typed == name or (typed.startswith(f"{name} ") and any(_has_socket(part, kind, r) for r in _ROLES))
            if of_it and not all(any(_has_socket(part, (*kind, each), r) for r in _ROLES) for each in figures):
                return True
        return False

    def _has_one_end(self, part: Part, gear: Gear) -> bool:
        """Whether a device that would be added only sends sound, or only takes it, and another line of the list wants
        the other, though another part of the same name does both."""
        name = plain(gear.name)
        wanted = self.context.in_list.ends.get(name, frozenset())
        if len(wanted) < 2 or _sends_and_takes_sound(part):
            return False
        others = self.context.directory.new.kinds_at_the_end(name.split(), plural=False)
        return any(_sends_and_takes_sound(other) for other, _ in others)

    def _refuse(self, piece: Piece, role: Role, unknown: tuple[Meaning, str] | None) -> Refused:
        if unknown is not None:
            meaning, word = unknown
            gear = meaning.gear[0]
            part = meaning.new or self.context.rig.parts_by_id[gear.part]
            refused = problem(
                "unknown_socket", piece, f"{gear.name} has no “{word}” here; {_what_it_has(part, role, word)}"
            )
            refused.problem = refused.problem.model_copy(update={"suggestions": self._larger(gear, part, word, role)})
            return refused
        code: ProblemCode = "unknown_source" if role == "source" else "unknown_destination"
        if (sentence := self._wrong_way(piece, role)) is not None:
            return problem(code, piece, sentence)
        if self.passing.part_of(piece) is not None:
            sentence = (
                f"“{piece.text}” is passed on the way: name what is plugged into it and where it comes out, "
                f"as in “lectern > {piece.text} > desk 12”."
            )
            return problem("unknown_socket", piece, sentence)
        what = "sends sound" if role == "source" else "takes sound"
        sentence = f"Nothing called “{piece.text}” {what} here. Write a name from this rig or what kind of thing it is."
        return problem(code, piece, sentence)

    def _larger(self, gear: Gear, part: Part, word: str, role: Role) -> tuple[str, ...]:
        """The line that makes the rig's own desk one that has the socket, where the library has such a one."""
        if gear.id not in self.context.rig.owners_by_id:
            return ()
        have = {connector.id for connector in part.connectors}
        larger = [
            other
            for name in part.called
            for other in self.context.directory.new.by_name.get(plain(name), ())
            if have < {connector.id for connector in other.connectors} and sockets(other, (word,), role).unknown is None
        ]
        return (f"{gear.name} is now a {larger[0].called[0]}",) if larger else ()

    def _wrong_way(self, piece: Piece, role: Role) -> str | None:
        """Of an output written as a destination, or an input written as a source: that it is so."""
        other: Role = "goal" if role == "source" else "source"
        for meaning in self.context.directory.counted_meanings(piece.text):
            for gear in meaning.gear:
                part = meaning.new or self.context.rig.parts_by_id[gear.part]
                named = sockets(part, meaning.rest, other)
                if named.positions and named.unknown is None and meaning.rest:
                    label = next(way.label for way in part.connectors if way.id == named.positions[0][0])
                    have = ", ".join(way.label for way in usable(part, role)[:6])
                    kinds = ("an output", "inputs") if role == "goal" else ("an input", "outputs")
                    instead = f"its {kinds[1]} are {have}, …" if have else f"it has no {kinds[1]}."
                    return f"{label} of {gear.name} is {kinds[0]}; {instead}"
        return None


def _what_it_has(part: Part, role: Role, word: str) -> str:
    """Its sockets in words: of a number that it has not "its inputs are 1 to 16", else the first few by name."""
    labels = [way.label for way in usable(part, role)]
    figures = sorted({int(figure) for label in labels for figure in re.findall(r"\b\d+\b(?! mm)", label)})
    in_a_row = len(figures) >= _IN_A_ROW and figures == list(range(1, len(figures) + 1))
    if word.isdigit() and int(word) not in figures and in_a_row and role == "goal":
        return f"its inputs are 1 to {figures[-1]}."
    return f"it has {', '.join(list(dict.fromkeys(label.split(',')[0] for label in labels))[:6])}, …"


def _sends_and_takes_sound(part: Part) -> bool:
    return all(any(family_of(port.signal) == "sound" for port in ports) for ports in (part.outputs, part.inputs))


def _has_socket(part: Part, words: tuple[str, ...], role: Role) -> bool:
    return sockets(part, words, role).unknown is None


def _places_of_one(devices: tuple[tuple[Gear, Part, Sockets], ...]) -> tuple[Gear, Part, Sockets] | None:
    """The places of one device that a list names several times: "desk 13/14 and desk 15/16" as "desk 13-16". None of
    several devices, and where one place is named twice or a name has no place."""
    gear, part, named = devices[0]
    positions = tuple(position for _, _, places in devices for position in places.positions)
    whole = all(places.positions and not places.channels for _, _, places in devices)
    if len(devices) < 2 or {each.id for each, _, _ in devices} != {gear.id} or not whole:
        return None
    return (gear, part, replace(named, positions=positions)) if len(set(positions)) == len(positions) else None
