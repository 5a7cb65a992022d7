"""From a taken-apart line to the runs it wants: which devices, which sockets, through what, how far."""

import re
from collections.abc import Mapping
from dataclasses import dataclass, replace

from ruvak.core.entry.described import is_feature
from ruvak.core.entry.device_chain import PassedDevice, passed_device, split_sentence
from ruvak.core.entry.grammar import Piece, Sentence, parse
from ruvak.core.entry.line_ends import (
    End,
    Side,
    end_of,
    families_of,
    has_one_place,
    is_stereo,
    links_of,
    main_output,
    main_sockets,
    meet_by_kind,
    needs_both,
    one_each,
    speaks,
    split_up,
    takes_stereo,
    two_outputs,
)
from ruvak.core.entry.lists import numbered, split_list
from ruvak.core.entry.names import Directory, Meaning, has_many_sockets
from ruvak.core.entry.reading import ProblemCode, ReadProblem
from ruvak.core.entry.sockets import Role, is_labelled, sockets, tokens, usable
from ruvak.core.entry.words import expand_ranges, plain
from ruvak.core.parts.library import embed, words_for
from ruvak.core.pieces.named import NamedPiece
from ruvak.core.pieces.pool import MOST_CONNECTORS
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.ports import family_of
from ruvak.core.rig.rig import MAX_LENGTH_M, MIN_LENGTH_M, Gear, KitItem, Rig, connectors_in_use
from ruvak.core.units import METRES_PER_UNIT

PHANTOM = {"phantom", "48v", "+48v", "48 v", "+48 v", "p48", "+48"}
MONO = {"mono"}
DESK_WORDS: Mapping[Role, frozenset[str]] = {
    "source": frozenset(("main", "mains", "aux", "auxes", "matrix", "l", "lr", "foh", "phones", "monitor", "out")),
    "goal": frozenset(("ch", "chan", "channel", "channels", "input", "inputs", "mic", "line")),
    "through": frozenset(),
}
"""Words for sockets that stand for the desk's where nothing else is named."""
PAIRS = frozenset(("pa", "p.a.", "stack", "rig"))
"""Words for a left and a right loudspeaker together."""
PASSING = ("return", "returns", "send", "sends")
ASSUMED_MULTICORE_M = 20.0
"""How long a multicore is that nobody has yet, where the line does not say: a hall from desk to stage."""
FEW = 4
"""So many sockets are named one by one."""


class Refused(Exception):
    """A line that cannot be a run; carries what to tell."""

    def __init__(self, problem: ReadProblem) -> None:
        self.problem = problem
        super().__init__(problem.sentence)


@dataclass(frozen=True)
class Through:
    """What is built in and passed: one entry a line."""

    item: KitItem
    entries: tuple[Endpoint, ...]


@dataclass(frozen=True)
class Wanted:
    """One run the line asks for. `extra`: a second source device on the same run."""

    sources: tuple[End, ...]
    through: tuple[Through, ...]
    goal: End | None
    parts: tuple[tuple[str, ...], ...]
    """For each thing named on the way, the parts it may be."""
    items: tuple[str, ...]
    """Kit named by tag."""
    length_m: float | None
    options: tuple[str, ...]
    named: tuple[NamedPiece, ...] = ()
    """What stands between the arrows, in its order; `parts` and `items` have it too, and what was added behind a
    comma."""
    goal_beside: End | None = None
    """A second destination device of the same run: one stereo socket to two speakers."""

    @property
    def goals(self) -> tuple[End, ...]:
        """Every destination; none where it is built in."""
        return tuple(end for end in (self.goal, self.goal_beside) if end is not None)


def by_other_outputs(wanted: Wanted) -> Wanted | None:
    """The same from the other sound outputs of its source, where the usual one was only taken for lack of another."""
    (start, *more) = wanted.sources
    usual = {end.connector for choice in start.choices for end in choice}
    if more or not start.part.outputs or usual != set(main_output(start.part).connectors):
        return None
    others = tuple(
        tuple(Endpoint(start.gear.id, name) for name in output.connectors)
        for output in start.part.outputs
        if family_of(output.signal) == "sound" and not usual & set(output.connectors)
    )
    return replace(wanted, sources=(replace(start, choices=others),)) if others else None


def problem(code: ProblemCode, piece: Piece, sentence: str) -> Refused:
    """A refusal about one piece of the line."""
    end = piece.start + max(1, len(piece.text))
    return Refused(ReadProblem(code=code, start=piece.start, end=end, sentence=sentence))


class Planner:
    """Reads lines against one rig. Raises Refused."""

    def __init__(self, rig: Rig, places: Mapping[str, frozenset[str]] | None = None) -> None:
        """`places`: the numbers that other lines of the same list name behind a name."""
        self.rig, self._places = rig, places or {}
        self.directory = Directory(rig)
        self.corrections: list[str] = []
        self._line = ""

    def plan(self, line: str) -> tuple[Sentence, tuple[Wanted, ...], str | None]:
        """The runs a line asks for, and where it passes a device: the line from there on."""
        self.corrections = []
        self._line = line
        sentence = parse(line, METRES_PER_UNIT[self.rig.length_unit])
        sentence.pieces[-1] = self._with_more_goals(sentence, self._with_features(sentence))
        onward: tuple[str, str] | None = None
        for at, piece in enumerate(sentence.pieces[1:-1], 1):
            if (device := self._device(piece)) is not None:
                sentence, rest = split_sentence(sentence, at, device)
                onward = device.source, rest
                break
        whole = Piece(line.strip(), len(line) - len(line.lstrip()))
        if sentence.arrows == 0:
            raise problem("no_arrow", whole, "Say where it goes: write > and the destination, as in “keys > desk 7/8”.")
        sentence.pieces[:1] = _with_what_it_goes_by(sentence.pieces[0])
        first, *middle, last = sentence.pieces
        if not first.text:
            raise problem("no_source", whole, "Nothing stands before the arrow: write where the sound comes from.")
        if plain(first.text) == plain(last.text):
            raise problem("no_destination", last, "Source and destination are the same; write where it goes.")
        if not last.text:
            raise problem("no_destination", whole, "Nothing stands after the arrow: write where the sound goes.")
        length_m = self._length(sentence, whole)
        boxes_before = len(self.rig.kit)
        added, options = self._extras(sentence)
        passed: list[tuple[KitItem, Piece]] = []
        boxes: list[NamedPiece] = []
        sources = [self._source(piece, boxes) for piece in _split_sum(first, last)]
        said_of_one = any(piece.length_m is not None for piece in middle)
        self._bring_multicores(middle, None if said_of_one else length_m)
        if len(self.rig.kit) > boxes_before:
            # The length stated is that of the multicore.
            length_m = None
        named = [*boxes, *(thing for piece in middle if (thing := self._way(piece, passed)) is not None)]
        built_in = self._built_in_name(last)
        goal = None if built_in else self._side_or_desk(last, "goal")
        if built_in:
            passed.append((built_in, last))
        runs = self._runs(sources, passed, goal, "mono" in options or any(s.mono for _, _, s in sources[0].devices))
        made = tuple(
            replace(
                run,
                parts=(*run.parts, *(thing.parts for thing in (*named, *added) if thing.item is None)),
                items=tuple(thing.item for thing in (*named, *added) if thing.item is not None),
                length_m=length_m,
                options=options,
                named=tuple(named),
            )
            for run in runs
        )
        if onward is None:
            return sentence, made, None
        source, rest = onward
        names = dict.fromkeys(gear.gear.name for run in made for gear in run.goals)
        return sentence, made, f"{source or '/'.join(names)} > {rest}"

    def _device(self, piece: Piece) -> PassedDevice | None:
        if not piece.text or self._built_in_name(piece) is not None or self._multicore(piece) is not None:
            return None
        return passed_device(self.directory, piece) if self._thing(plain(piece.text)) is None else None

    def _bring_multicores(self, pieces: list[Piece], length_m: float | None) -> None:
        """A multicore or a pair of boxes that a line passes and nobody has: with as few lines as the places allow."""
        for piece in pieces:
            item = self._built_in_name(piece)
            if item is not None:
                self._enlarge(item, piece)
            elif (part := self._multicore(piece)) is not None:
                title = " ".join(_words_before_places(piece))
                brought = KitItem(
                    id=_free_id(self.rig, title),
                    tag=title[:1].upper() + title[1:],
                    part=part.id,
                    length_m=_length_of(part, piece.length_m or length_m or ASSUMED_MULTICORE_M),
                    owned=False,
                )
                self.rig = embed(self.rig.with_fields(kit=(*self.rig.kit, brought)))
                self.directory = Directory(self.rig)

    def _enlarge(self, item: KitItem, piece: Piece) -> None:
        """Of a multicore that is still to be got, a larger one where the line names a place that it lacks."""
        words = plain(expand_ranges(plain(piece.text))).split()
        places = tuple(word for word in words if word.isdigit() or word in PASSING)
        if item.owned or sockets(self.rig.part_of(item.id), places, "through").unknown is None:
            return
        have = {connector.id for connector in self.rig.part_of(item.id).connectors}
        larger = self._multicore(piece)
        if larger is None or not have < {connector.id for connector in larger.connectors}:
            return
        after = item.model_copy(update={"part": larger.id, "length_m": _length_of(larger, item.length_m or 0.0)})
        kit = tuple(after if each.id == item.id else each for each in self.rig.kit)
        self.rig = embed(self.rig.with_fields(kit=kit))
        self.directory = Directory(self.rig)

    def _multicore(self, piece: Piece) -> Part | None:
        places = [word for word in plain(expand_ranges(plain(piece.text))).split() if word.isdigit()]
        kinds = [word for word in plain(piece.text).split() if word in PASSING]
        title = " ".join(_words_before_places(piece))
        fitting = [
            part
            for part in self.directory.find_parts(title)
            if title in {plain(word) for word in part.called}
            and len(part.connectors) > MOST_CONNECTORS
            and sockets(part, (*kinds, *places), "through").unknown is None
        ]
        return min(fitting, key=lambda part: len(part.connectors), default=None)

    def _with_features(self, sentence: Sentence) -> Piece:
        """The last piece with what is said of the device there: "switcher with 3.5 mm inputs"."""
        last = sentence.pieces[-1]
        for extra in list(sentence.extras):
            if option_of(extra) is not None or self._thing(_bare_word(extra)) is not None or not is_feature(extra.text):
                break
            sentence.extras.remove(extra)
            last = Piece(f"{last.text} with {extra.text}", last.start)
        return last

    def _with_more_goals(self, sentence: Sentence, last: Piece) -> Piece:
        """In "desk aux 1-2 > wedge left, wedge right" what stands behind the comma is one more destination."""
        for extra in list(sentence.extras):
            word = plain(extra.text)
            if word in PHANTOM | MONO or word.startswith("with ") or self._thing(word) is not None:
                break
            try:
                self._meant(extra, "goal")
            except Refused:
                break
            sentence.extras.remove(extra)
            last = Piece(f"{last.text}, {extra.text}", last.start)
        return last

    def _length(self, sentence: Sentence, whole: Piece) -> float | None:
        between = [piece.length_m for piece in sentence.pieces if piece.length_m is not None]
        if sentence.length is None and sentence.bare_m is None and not between:
            return None
        metres = sentence.length.metres if sentence.length else sentence.bare_m
        if metres is None:
            metres = sum(between)
        if not MIN_LENGTH_M <= metres <= MAX_LENGTH_M:
            sentence_ = f"A length is {MIN_LENGTH_M:g} to {MAX_LENGTH_M:g} m; {metres:g} m is not."
            raise problem("bad_length", whole, sentence_)
        return round(metres, 6)

    def _extras(self, sentence: Sentence) -> tuple[list[NamedPiece], tuple[str, ...]]:
        """What stands behind commas: pieces wherever they fit, and options."""
        pieces: list[NamedPiece] = []
        options: list[str] = []
        for extra in sentence.extras:
            option = option_of(extra)
            if option is not None:
                options.append(option)
            elif (thing := self._thing(_bare_word(extra))) is not None:
                pieces.append(thing)
            else:
                sentence_ = f"“{extra.text}” is neither a length, an option (phantom, mono) nor a lead, adapter or box."
                raise problem("unknown_option", extra, sentence_)
        return pieces, tuple(dict.fromkeys(options))

    def _thing(self, text: str) -> NamedPiece | None:
        """A lead, adapter or box named on the way: a tagged one, or any of a kind."""
        tagged = self.directory.by_tag.get(plain(text))
        if tagged is not None and not tagged.installed:
            return NamedPiece((tagged.part,), tagged.id)
        result = self.directory.find_parts(text)
        return NamedPiece(_ids(result)) if result else None

    def _built_in_name(self, piece: Piece) -> KitItem | None:
        words = plain(expand_ranges(plain(piece.text))).split()
        for count in range(len(words), 0, -1):
            name = " ".join(words[:count])
            if name in self.directory.by_name:
                return None
            for wanted in (name, name.replace(" ", "")):
                known = self.directory.built_in
                squeezed = {entry.replace(" ", ""): item for entry, item in known.items()}
                if wanted in known or wanted in squeezed:
                    return known.get(wanted) or squeezed[wanted]
        return None

    def _way(self, piece: Piece, passed: list[tuple[KitItem, Piece]]) -> NamedPiece | None:
        """What is named between two arrows; None for what is built in, which joins `passed`."""
        item = self._built_in_name(piece)
        if item is not None:
            passed.append((item, piece))
            return None
        thing = self._thing(plain(piece.text))
        if thing is None:
            sentence = self._no_way(piece)
            raise problem("unknown_way", piece, sentence)
        return replace(thing, length_m=piece.length_m)

    def _no_way(self, piece: Piece) -> str:
        """Why nothing passes what stands between two arrows."""
        for meaning in self.directory.meanings(numbered(piece.text)):
            name, part = meaning.gear[0].name, meaning.new or self.rig.parts_by_id[meaning.gear[0].part]
            if speaks(part, "source"):
                return f"{name} has no input to plug into: begin the line with it, as in “{piece.text} > desk 3”."
            return f"{name} sends nothing on: end the line there, and begin another where the sound goes on."
        return f"“{piece.text}” is neither built in here nor a lead, adapter, box or device that leads on."

    def _source(self, piece: Piece, named: list[NamedPiece]) -> Side:
        """Where the sound starts; in "guitar DI" the last words name the box it goes through."""
        try:
            return self._side_or_desk(piece, "source")
        except Refused:
            words = piece.text.split()
            for first in range(max(1, len(words) - 2), len(words)):
                boxes = [entry for entry in self.directory.find_parts(" ".join(words[first:])) if entry.kind == "box"]
                if boxes:
                    side = self._side(Piece(" ".join(words[:first]), piece.start), "source")
                    named.append(NamedPiece(tuple(box.id for box in boxes)))
                    return side
            raise

    def _side_or_desk(self, piece: Piece, role: Role) -> Side:
        """ "main L/R" and "channel 5" without a name are the desk's."""
        try:
            return self._side(piece, role)
        except Refused:
            words = plain(expand_ranges(plain(piece.text))).split()
            numbered_goal = role == "goal" and any(map(str.isdigit, words))
            if not words or (role == "goal" and not numbered_goal):
                raise
            if words[0] not in DESK_WORDS[role] and not (numbered_goal and all(map(str.isdigit, words))):
                raise
            desks = [gear for gear in self.rig.gear if has_many_sockets(self.rig.parts_by_id[gear.part])]
            name = max(desks, key=lambda gear: len(self.rig.parts_by_id[gear.part].inputs)).name if desks else "desk"
            return self._side(Piece(f"{name} {piece.text}", piece.start), role)

    def _side(self, piece: Piece, role: Role) -> Side:
        """One end of the line: several devices where it lists them, else what the words mean together."""
        names = split_list(piece.text, role)
        if len(names) < 2 or plain(expand_ranges(piece.text)) in self.directory.by_name:
            return self._meant(piece, role)
        start, sides = piece.start, list[Side]()
        for name in names:
            start = piece.start + piece.text.index(name, start - piece.start)
            sides.append(self._meant(Piece(name, start), role))
        devices = tuple(device for side in sides for device in side.devices)
        if len({gear.id for gear, _, _ in devices}) < len(devices):
            raise problem("ambiguous_name", piece, f"“{piece.text}” names one device twice: give each its own name.")
        meaning = replace(sides[0].meaning, gear=tuple(gear for gear, _, _ in devices))
        return Side(devices, piece, meaning, frozenset(name for side in sides for name in side.new))

    def _meant(self, piece: Piece, role: Role) -> Side:
        """The first meaning whose sockets exist."""
        unknown: tuple[Meaning, str] | None = None
        for meaning in self.directory.meanings(numbered(piece.text)):
            if meaning.missing is not None:
                code: ProblemCode = "unknown_source" if role == "source" else "unknown_destination"
                raise problem(code, piece, f"There is no “{meaning.missing}” in this rig.")
            devices = []
            for gear in meaning.gear:
                part = meaning.new or self.rig.parts_by_id[gear.part]
                named = sockets(part, meaning.rest, role)
                if meaning.new is not None and self._is_too_small(part, gear, role):
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
                if meaning.new is not None and _is_usb_only(piece, meaning.new):
                    raise self._usb_comes_along(piece)
                if meaning.corrected:
                    self.corrections.append(f"“{piece.text}” was taken for {meaning.corrected}.")
                new = frozenset(gear.id for gear in meaning.gear) if meaning.new is not None else frozenset[str]()
                return Side(tuple(devices), piece, meaning, new)
        raise self._refuse(piece, role, unknown)

    def _is_too_small(self, part: Part, gear: Gear, role: Role) -> bool:
        """Whether a device that would be added lacks a socket that another line of the list names, though a larger part
        of the same name may have it."""
        figures = self._places.get(plain(gear.name), frozenset())
        larger = [other for other in self.directory.new_gear.get(plain(gear.name), ()) if other.id != part.id]
        return bool(larger) and has_many_sockets(part) and any(sockets(part, (f,), role).unknown for f in figures)

    def _refuse(self, piece: Piece, role: Role, unknown: tuple[Meaning, str] | None) -> Refused:
        if "usb" in plain(piece.text).replace("-", " ").split():
            return self._usb_comes_along(piece)
        if unknown is not None:
            meaning, word = unknown
            gear = meaning.gear[0]
            part = meaning.new or self.rig.parts_by_id[gear.part]
            have = ", ".join(usable_way.label for usable_way in usable(part, role)[:6])
            refused = problem("unknown_socket", piece, f"{gear.name} has no “{word}” here; it has {have}, …")
            refused.problem = refused.problem.model_copy(update={"suggestions": self._larger(gear, part, word, role)})
            return refused
        code: ProblemCode = "unknown_source" if role == "source" else "unknown_destination"
        if (sentence := self._wrong_way(piece, role)) is not None:
            return problem(code, piece, sentence)
        if self._multicore(piece) is not None:
            sentence = (
                f"“{piece.text}” is passed on the way: name what is plugged into it and where it comes out, "
                f"as in “lectern > {piece.text} > desk 12”."
            )
            return problem("unknown_socket", piece, sentence)
        what = "sends sound" if role == "source" else "takes sound"
        sentence = f"Nothing called “{piece.text}” {what} here. Write a name from this rig or what kind of thing it is."
        return problem(code, piece, sentence)

    @staticmethod
    def _usb_comes_along(piece: Piece) -> Refused:
        sentence = (
            "The USB lead between a computer and its interface comes along by itself: type the sound into or out of "
            "the interface, as in “desk aux 5/6 > audio interface”."
        )
        return problem("unknown_socket", piece, sentence)

    def _larger(self, gear: Gear, part: Part, word: str, role: Role) -> tuple[str, ...]:
        """The line that makes the rig's own desk one that has the socket, where the library has such a one."""
        if gear.id not in self.rig.owners_by_id:
            return ()
        have = {connector.id for connector in part.connectors}
        larger = [
            other
            for name in part.called
            for other in self.directory.new_gear.get(plain(name), ())
            if have < {connector.id for connector in other.connectors} and sockets(other, (word,), role).unknown is None
        ]
        return (f"{gear.name} is now a {larger[0].called[0]}",) if larger else ()

    def _wrong_way(self, piece: Piece, role: Role) -> str | None:
        """Of an output written as a destination, or an input written as a source: that it is so."""
        other: Role = "goal" if role == "source" else "source"
        for meaning in self.directory.meanings(numbered(piece.text)):
            for gear in meaning.gear:
                part = meaning.new or self.rig.parts_by_id[gear.part]
                named = sockets(part, meaning.rest, other)
                if named.positions and named.unknown is None and meaning.rest:
                    label = next(way.label for way in part.connectors if way.id == named.positions[0][0])
                    have = ", ".join(way.label for way in usable(part, role)[:6])
                    kinds = ("an output", "inputs") if role == "goal" else ("an input", "outputs")
                    instead = f"its {kinds[1]} are {have}, …" if have else f"it has no {kinds[1]}."
                    return f"{label} of {gear.name} is {kinds[0]}; {instead}"
        return None

    def _runs(
        self, sources: list[Side], passed: list[tuple[KitItem, Piece]], goal: Side | None, mono: bool
    ) -> list[Wanted]:
        first = sources[0]
        if goal is not None and {g.id for g, _, _ in first.devices} & {g.id for g, _, _ in goal.devices}:
            raise problem("no_destination", goal.piece, "Source and destination are the same; write where it goes.")
        if goal is not None:
            goal = self._of_kind(first, goal)
        if len(sources) > 1:
            ends = tuple(end_of(*side.devices[0], 1, "source", bool(side.new)) for side in sources)
            if goal is None:
                raise problem("no_destination", first.piece, "Two sources need one destination to meet at.")
            return [self._one(ends, passed, goal, 0, 1)]
        starts = one_each(first, "source", mono)
        if goal is None:
            return [self._one((end,), passed, None, i, len(starts)) for i, end in enumerate(starts)]
        return self._pair(first, goal, passed, mono)

    def _pair(self, first: Side, goal: Side, passed: list[tuple[KitItem, Piece]], mono: bool) -> list[Wanted]:
        """As many runs as there are pairs of devices; one where both ends are one device."""
        first, goal = self._one_for_each_place(first, goal), self._one_for_each_side(first, goal, mono)
        many_from, many_to = len(first.devices), len(goal.devices)
        if many_from == 1 and many_to == 1:
            return self._between_two(first, goal, passed, mono)
        places_from = many_from if many_from > 1 else max(1, len(first.devices[0][2].positions))
        if many_from == 1 and not first.devices[0][2].positions:
            # "desk main > speakers": the sides of the first output, one to each.
            places_from = min(many_to, len(main_sockets(first.devices[0][1])))
        places_to = many_to if many_to > 1 else len(goal.devices[0][2].positions)
        if many_to == 1 and places_to == 0 and many_from > 1:
            raise problem("unknown_socket", goal.piece, f"Say which inputs of {goal.devices[0][0].name} these go to.")
        if many_from == places_from == 1 and places_to == many_to >= 2 and self._lead_on(first, goal, mono):
            return self._one_after_another(first, goal, passed)
        if many_from == places_from == 1 and places_to == many_to == 2 and not goal.meaning.several:
            return [self._to_both(first, goal, passed)]
        if places_from != places_to:
            for side in (first, goal):
                if side.meaning.several:
                    names = ", ".join(gear.name for gear, _, _ in side.devices)
                    raise problem("ambiguous_name", side.piece, f"“{side.piece.text}” may be {names}: write which.")
            sentence = f"{places_from} on the left and {places_to} on the right: write as many places on both sides."
            raise problem("counts_differ", goal.piece, sentence)
        return self._one_each(first, goal, passed, places_from)

    @staticmethod
    def _lead_on(first: Side, goal: Side, mono: bool) -> bool:
        """Whether one signal goes to devices of which each can lead it on to the next."""
        _, part, named = first.devices[0]
        if goal.meaning.several or is_stereo(part, named, mono):
            return False
        return all(links_of(other) for _, other, _ in goal.devices)

    def _one_after_another(self, first: Side, goal: Side, passed: list[tuple[KitItem, Piece]]) -> list[Wanted]:
        """One socket to several devices that lead on: to the first, and from each to the next."""
        ends = split_up(goal, "goal", len(goal.devices))
        starts = [end_of(*first.devices[0], 1, "source", first.devices[0][0].id in first.new)]
        for end in ends[:-1]:
            link = Endpoint(end.gear.id, links_of(end.part)[0])
            starts.append(replace(end, choices=((link,),)))
        return [
            Wanted((start,), self._passing(passed, 0, 1, 1) if at == 0 else (), end, (), (), None, ())
            for at, (start, end) in enumerate(zip(starts, ends, strict=True))
        ]

    def _to_both(self, first: Side, goal: Side, passed: list[tuple[KitItem, Piece]]) -> Wanted:
        """One socket to two devices, in one run."""
        gear, part, named = first.devices[0]
        start = end_of(gear, part, named, 1, "source", gear.id in first.new)
        ends = split_up(goal, "goal", 2)
        return Wanted((start,), self._passing(passed, 0, 1, 1), ends[0], (), (), None, (), goal_beside=ends[1])

    def _of_kind(self, first: Side, goal: Side) -> Side:
        """A new destination that takes what the source sends: behind a power amplifier "speaker" is one without."""
        part, named = first.devices[0][1:]
        kinds = families_of(part, named)
        if any(gear.id not in goal.new or kinds & families_of(other) for gear, other, _ in goal.devices):
            return goal
        for meaning in self.directory.meanings(numbered(goal.piece.text)):
            other = meaning.new
            if other is not None and kinds & families_of(other):
                places = sockets(other, meaning.rest, "goal")
                if places.unknown is None:
                    devices = tuple((gear, other, places) for gear in meaning.gear)
                    return Side(devices, goal.piece, meaning, frozenset(gear.id for gear in meaning.gear))
        return goal

    def _one_for_each_place(self, first: Side, goal: Side) -> Side:
        """Microphones that are not there yet, into several places of one device: one for each. "Room mics" are two
        where two places are named, and so is "audience mic L/R"."""
        (gear, part, named), places = first.devices[0], goal.devices[0][2].positions
        one = len(first.devices) == len(goal.devices) == 1 and gear.id in first.new and not named.positions
        if not one or len(places) < 2 or not part.outputs or len(main_output(part).channels) > 1:
            return first
        words = first.piece.text.split()
        if words[-1].lower().endswith("s") and plain(words[-1]) not in {plain(word) for word in words_for(part)}:
            return self._meant(Piece(f"{first.piece.text} 1-{len(places)}", first.piece.start), "source")
        if len(places) == 2 and (stem := _without_sides(first.piece.text)) is not None:
            sides = [self._meant(Piece(f"{stem} {side}", first.piece.start), "source") for side in ("left", "right")]
            devices = tuple(device for side in sides for device in side.devices)
            return Side(devices, first.piece, first.meaning, frozenset(gear.id for gear, _, _ in devices))
        return first

    def _one_for_each_side(self, first: Side, goal: Side, mono: bool) -> Side:
        """A stereo source into "speakers" that are not there yet: one for each side."""
        (_, part, named), (gear, target, places) = first.devices[0], goal.devices[0]
        one_each_way = len(first.devices) == len(goal.devices) == 1 and gear.id in goal.new and not places.positions
        # One signal may go on from the first of several to the next.
        for_two = (is_stereo(part, named, mono) and not takes_stereo(target)) or (
            bool(links_of(target)) and not is_stereo(part, named, mono)
        )
        if not (one_each_way and has_one_place(target) and for_two):
            return goal
        words = goal.piece.text.split()
        if plain(words[-1]) in PAIRS:
            return self._meant(Piece(f"{goal.piece.text} 1-2", goal.piece.start), "goal")
        if not words[-1].lower().endswith("s") or plain(words[-1]) in map(plain, words_for(target)):
            return goal
        return self._meant(Piece(f"{goal.piece.text} 1-2", goal.piece.start), "goal")

    def _one_each(self, first: Side, goal: Side, passed: list[tuple[KitItem, Piece]], count: int) -> list[Wanted]:
        """A run for each of so many places, first to first."""
        starts, ends = split_up(first, "source", count), split_up(goal, "goal", count)
        return [
            Wanted((start,), self._passing(passed, i, 1, count), end, (), (), None, ())
            for i, (start, end) in enumerate(zip(starts, ends, strict=True))
        ]

    def _between_two(self, first: Side, goal: Side, passed: list[tuple[KitItem, Piece]], mono: bool) -> list[Wanted]:
        (gear, part, named), (other, target, places) = first.devices[0], goal.devices[0]
        named, places = meet_by_kind(part, named, target, places)
        if len(places.positions) == 2 and not places.implied and not named.positions and not mono:
            outputs = two_outputs(part) if gear.id in first.new else ()
            if outputs:
                # A receiver for two transmitters: one output into each place.
                named = replace(named, positions=outputs)
                return self._one_each(replace(first, devices=((gear, part, named),)), goal, passed, 2)
        if places.implied and not is_stereo(part, named, mono):
            places = replace(places, positions=places.positions[:1])
        first = replace(first, devices=((gear, part, named),))
        goal = replace(goal, devices=((other, target, places),))
        count_from, count_to = len(named.positions), len(places.positions)
        new = gear.id in first.new
        if count_to == 0 and not has_one_place(target):
            labels = [usable_way.label for usable_way in usable(target, "goal")]
            how = " or ".join(labels) if len(labels) <= FEW else f"write its number, as in “{goal.piece.text} 3”"
            refused = problem("unknown_socket", goal.piece, f"Say which input of {goal.devices[0][0].name}: {how}.")
            offered = self._with_free_places(goal, 2 if is_stereo(part, named, mono) else 1)
            refused.problem = refused.problem.model_copy(update={"suggestions": offered})
            raise refused
        if count_from > 2 or count_to > 2:
            if count_from != count_to:
                sentence = f"{count_from or 1} on the left and {count_to} on the right: write as many on both sides."
                raise problem("counts_differ", goal.piece, sentence)
            return self._one_each(first, goal, passed, count_from)
        lines = count_to or (2 if is_stereo(part, named, mono) and takes_stereo(target) else 1)
        from_lines = 2 if needs_both(part, named) and not passed else lines
        start = end_of(gear, part, named, 1 if mono else from_lines, "source", new)
        insert = self._returning(start, goal)
        end = end_of(*goal.devices[0], 1 if insert else lines, "goal", bool(goal.new))
        wide = max(len(start.choices[0]), len(end.choices[0]))
        through = self._passing(passed, 0, wide, wide)
        if insert:
            return [
                Wanted((start, insert), through, end, (_ids(self.directory.find_parts("insert lead")),), (), None, ())
            ]
        return [Wanted((start,), through, end, (), (), None, ())]

    def _with_free_places(self, goal: Side, count: int) -> tuple[str, ...]:
        """The line with the first channels that nothing uses, written behind the destination; none where all are."""
        gear, part, _ = goal.devices[0]
        used = {end.connector for end in connectors_in_use(self.rig) if end.owner == gear.id}
        taken = {word for c in part.connectors if c.id in used for word in tokens(c) if word.isdigit()}
        have = {word for c in usable(part, "goal") for word in tokens(c) if word.isdigit()}
        free = sorted(int(word) for word in have - taken)
        first = next((n for n in free if all(n + more in free for more in range(count)) and (count < 2 or n % 2)), None)
        if first is None:
            return ()
        at = goal.piece.start + len(goal.piece.text)
        places = "/".join(str(first + more) for more in range(count))
        return (f"{self._line[:at]} {places}{self._line[at:]}",)

    def _returning(self, start: End, goal: Side) -> End | None:
        """From an insert signal comes back: the processor's output is a source of the same run."""
        gear, part, _ = goal.devices[0]
        connectors = {connector.id: connector for connector in start.part.connectors}
        socket = connectors[start.choices[0][0].connector]
        if socket.side != "both" or not socket.id.startswith("insert") or not part.outputs:
            return None
        return End(gear, part, ((Endpoint(gear.id, part.outputs[0].connectors[0]),),))

    def _one(
        self, ends: tuple[End, ...], passed: list[tuple[KitItem, Piece]], goal: Side | None, index: int, many: int
    ) -> Wanted:
        end = end_of(*goal.devices[0], 1, "goal", bool(goal.new)) if goal else None
        wide = len(ends[0].choices[0])
        return Wanted(ends, self._passing(passed, index, wide, many * wide), end, (), (), None, ())

    def _free_places(self, item: KitItem, kinds: list[str], many: int) -> list[str]:
        """So many numbers of its lines that no run uses, the lowest."""
        part, used = self.rig.part_of(item.id), connectors_in_use(self.rig)
        free: dict[str, None] = {}
        for connector in usable(part, "through"):
            for word in tokens(connector):
                named = sockets(part, (*kinds, word), "through") if word.isdigit() else None
                if named is not None and named.positions and Endpoint(item.id, named.positions[0][0]) not in used:
                    free[word] = None
        return sorted(free, key=int)[:many]

    def _passing(self, passed: list[tuple[KitItem, Piece]], index: int, wide: int, many: int) -> tuple[Through, ...]:
        """What is built in, with the entries this run takes: `wide` of them, the line naming `many` altogether."""
        result = []
        for item, piece in passed:
            words = plain(expand_ranges(plain(piece.text))).split()
            part = self.rig.part_of(item.id)
            places = [word for word in words if word.isdigit()]
            kinds = [word for word in words if word in PASSING]
            if not places:
                # "network box" for four microphones: the first of its lines that are free.
                places = self._free_places(item, kinds, many)
            named = sockets(part, (*kinds, *places), "through")
            if named.unknown is not None or not named.positions:
                have = ", ".join(usable_way.label for usable_way in usable(part, "through")[:6])
                raise problem("unknown_socket", piece, f"{item.tag} has no “{named.unknown or '?'}”; it has {have}, …")
            if len(named.positions) != many:
                sentence = f"{item.tag} is given {len(named.positions)} places, but {many} are wanted."
                raise problem("counts_differ", piece, sentence)
            own = named.positions[index * wide : (index + 1) * wide]
            result.append(Through(item, tuple(Endpoint(item.id, position[0]) for position in own)))
        return tuple(result)


def _without_sides(text: str) -> str | None:
    """The singular name of two microphones typed as a pair: "audience mics L/R", "overhead pair", "grand piano"."""
    if pair := re.fullmatch(
        r"(.+?)s?\s+pair|(stereo pair|main pair|(?:grand|upright|baby grand) piano)", text.strip(), re.I
    ):
        return pair[1] or pair[2]
    both = re.fullmatch(r"(.+?)s?[\s,]+(?:l|left)\s*(?:/|&|\+|and|\s)\s*(?:r|right)", text.strip(), re.IGNORECASE)
    return both[1] if both else None


def _words_before_places(piece: Piece) -> list[str]:
    words = plain(expand_ranges(plain(piece.text))).split()
    stop = next((at for at, word in enumerate(words) if word.isdigit() or word in PASSING), len(words))
    while stop > 1 and words[stop - 1] in ("ch", "chan", "channel", "channels", "line", "lines", "pair", "no"):
        stop -= 1
    return words[:stop]


def _length_of(part: Part, need_m: float) -> float:
    """The shortest usual length that reaches, or the longest there is."""
    return min((each for each in part.stock_lengths_m if each >= need_m), default=part.stock_lengths_m[-1])


def _free_id(rig: Rig, title: str) -> str:
    stem = re.sub(r"[^a-z0-9]+", "-", plain(title)).strip("-")[:56] or "multicore"
    names = (stem, *(f"{stem}-{number}" for number in range(2, 1000)))
    return next(name for name in names if name not in rig.owners_by_id)


def _is_usb_only(piece: Piece, part: Part) -> bool:
    """Whether a name says USB of what has no such socket: a "USB mic" is no microphone with a lead."""
    return "usb" in plain(piece.text).replace("-", " ").split() and not is_labelled(part, "usb")


def option_of(extra: Piece) -> str | None:
    """What stands behind a comma, where it is an option."""
    word = _bare_word(extra)
    return "phantom" if word in PHANTOM else "mono" if word in MONO else None


def _bare_word(extra: Piece) -> str:
    return plain(extra.text).removeprefix("with ").removeprefix("via ").removeprefix("and ")


def _ids(parts: tuple[Part, ...]) -> tuple[str, ...]:
    return tuple(part.id for part in parts)


def _with_what_it_goes_by(first: Piece) -> list[Piece]:
    """ "bass via DI" as a source and what it goes through; "bass straight" as the bass."""
    text = re.sub(r"\s+(?:straight|direct(?:ly)?)$", "", first.text, flags=re.IGNORECASE)
    through = re.fullmatch(r"(.+?)\s+(?:via|through|using)\s+(.+)", text, re.IGNORECASE)
    if through is None:
        return [Piece(text, first.start)]
    return [Piece(through[1], first.start), Piece(through[2], first.start + through.start(2))]


def _split_sum(piece: Piece, last: Piece) -> list[Piece]:
    """ "A + B" with a name on both sides: two sources. "L + R" and "7 + 8" are sockets of one.

    Where the destination names as many places, each goes to one of its own: a list as with commas.
    """
    halves = piece.text.split(" + ")
    places = [word for word in plain(expand_ranges(plain(last.text))).split() if word.isdigit()]
    if len(halves) > 1 and len(places) == len(halves) and not any(half.strip().isdigit() for half in halves):
        return [Piece(piece.text.replace(" + ", " , "), piece.start)]
    if len(halves) == 2 and all(len(half.split()) > 1 for half in halves):
        return [Piece(halves[0], piece.start), Piece(halves[1], piece.start + len(halves[0]) + 3)]
    return [piece]
