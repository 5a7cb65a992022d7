"""From a taken-apart line to the runs it wants: which devices, which sockets, through what, how far."""

import re
from collections.abc import Mapping
from dataclasses import replace

from ruvak.core.entry.context import LineContext
from ruvak.core.entry.described import is_feature
from ruvak.core.entry.device_chain import PassedDevice, passed_device, split_sentence
from ruvak.core.entry.device_ends import DeviceEnds
from ruvak.core.entry.grammar import Piece, Sentence, parse
from ruvak.core.entry.line_ends import (
    Side,
    speaks,
)
from ruvak.core.entry.lists import numbered, split_list
from ruvak.core.entry.over_usb import without_usb
from ruvak.core.entry.pairing import Pairing
from ruvak.core.entry.passing import Passing
from ruvak.core.entry.wanted import Refused, Wanted, problem
from ruvak.core.entry.words import expand_ranges, plain
from ruvak.core.pieces.named import NamedPiece
from ruvak.core.rig.part import Part
from ruvak.core.rig.rig import MAX_LENGTH_M, MIN_LENGTH_M, KitItem, Rig
from ruvak.core.units import METRES_PER_UNIT

PHANTOM = {"phantom", "48v", "+48v", "48 v", "+48 v", "p48", "+48"}
MONO = {"mono"}
_AMPLIFIER = re.compile(r"amps?(?: \d+)?")
_INTO_AN_INSTRUMENT_AMPLIFIER = {"instrument", "microphone"}


class Planner:
    """Reads lines against one rig. Raises Refused."""

    def __init__(self, rig: Rig, places: Mapping[str, frozenset[str]] | None = None) -> None:
        """`places`: the numbers that other lines of the same list name behind a name."""
        self.context = LineContext(rig, "", places or {})
        self.passing = Passing(self.context)
        self.ends = DeviceEnds(self.context, self.passing)
        self.pairing = Pairing(self.context, self.ends, self.passing)

    @property
    def corrections(self) -> list[str]:
        """What slips were taken for, in sentences."""
        return self.context.corrections

    def plan(self, line: str) -> tuple[Sentence, tuple[Wanted, ...], str | None]:
        """The runs a line asks for, and where it passes a device: the line from there on."""
        self.context.corrections = []
        self.context.line = line
        sentence = parse(line, METRES_PER_UNIT[self.context.rig.length_unit])
        self._take_in_what_is_passed(sentence)
        sentence.pieces[-1] = self._with_more_goals(sentence, self._with_features(sentence))
        sentence, host, typed = without_usb(self.context.directory, sentence)
        if host is not None:
            self.context.corrections.append(f"“{typed}” is the USB lead between the two.")
        onward: tuple[str, str] | None = None
        self._start_behind_the_air(sentence)
        self._name_power_amplifiers(sentence)
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
        boxes_before = len(self.context.rig.kit)
        added, options = self._extras(sentence)
        passed: list[tuple[KitItem, Piece]] = []
        boxes: list[NamedPiece] = []
        sources = [self._source(piece, boxes) for piece in _split_sum(first, last)]
        said = [piece.length_m for piece in middle if piece.length_m is not None]
        said_of_one = bool(said)
        whole_line = sentence.length is not None and said != [length_m]
        self.passing.bring(middle, length_m if whole_line or not said_of_one else None)
        if len(self.context.rig.kit) > boxes_before and not said_of_one:
            # The length stated is that of the multicore.
            length_m = None
        named = [*boxes, *(thing for piece in middle if (thing := self._way(piece, passed)) is not None)]
        if passed and said_of_one:
            length_m = sum(thing.length_m or 0.0 for thing in named if thing.behind == 0) or None
        built_in = self.passing.built_in(last)
        goal = None if built_in else self.ends.read_or_desk(last, "goal")
        if built_in:
            passed.append((built_in, last))
        runs = self.pairing.runs(
            sources, passed, goal, "mono" in options or any(s.mono for _, _, s in sources[0].devices)
        )
        made = tuple(
            replace(
                run,
                parts=(*run.parts, *(thing.parts for thing in (*named, *added) if thing.item is None)),
                items=tuple(thing.item for thing in (*named, *added) if thing.item is not None),
                length_m=length_m,
                options=options,
                named=tuple(named),
                host=host,
            )
            for run in runs
        )
        if onward is None:
            return sentence, made, None
        source, rest = onward
        names = dict.fromkeys(gear.gear.name for run in made for gear in run.goals)
        return sentence, made, f"{source or '/'.join(names)} > {rest}"

    def _device(self, piece: Piece) -> PassedDevice | None:
        if not piece.text or self.passing.built_in(piece) is not None or self.passing.part_of(piece) is not None:
            return None
        return passed_device(self.context.directory, piece) if self._thing(plain(piece.text)) is None else None

    def _take_in_what_is_passed(self, sentence: Sentence) -> None:
        """ "desk 1 via stage box", "speaker via processor": a multicore or device named so is on the way; a multicore
        behind a comma as well."""
        for extra in list(sentence.extras):
            piece = Piece(_bare_word(extra), extra.start)
            passed = self.passing.built_in(piece) is not None or self.passing.part_of(piece) is not None
            said_via = re.search(r"(?:via|through|using)\s*$", self.context.line[: extra.start], re.IGNORECASE)
            if not passed and said_via and option_of(extra) is None and self._thing(piece.text) is None:
                passed = self._device(piece) is not None
            if passed:
                sentence.extras.remove(extra)
                sentence.pieces.insert(len(sentence.pieces) - 1, piece)
                sentence.arrows += 1

    def _start_behind_the_air(self, sentence: Sentence) -> None:
        """A microphone or a radio receiver has no plug for what stands before it: "amp > mic > desk 6" starts at the
        microphone, which is called after both."""
        while len(sentence.pieces) > 2:
            first, second = sentence.pieces[:2]
            if not self._only_sends(second):
                return
            both = Piece(f"{first.text} {second.text}", first.start)
            is_there = plain(second.text) in self.context.directory.by_name
            start = second if is_there or not self._only_sends(both) else both
            sentence.pieces[:2] = [start]
            sentence.arrows -= 1
            said = f"No lead goes from “{first.text}” into “{second.text}”: the run starts at “{start.text}”."
            self.context.corrections.append(said)

    def _only_sends(self, piece: Piece) -> bool:
        """Whether the first thing it can mean is a device with outputs and no inputs."""
        if not piece.text or self._thing(plain(piece.text)) is not None or self.passing.part_of(piece) is not None:
            return False
        for meaning in self.context.directory.meanings(numbered(piece.text)):
            part = meaning.new or self.context.rig.parts_by_id[meaning.gear[0].part]
            return not meaning.rest and speaks(part, "source") and not speaks(part, "goal")
        return False

    def _name_power_amplifiers(self, sentence: Sentence) -> None:
        """An "amp" behind anything but an instrument or a microphone drives loudspeakers."""
        for at, piece in enumerate(sentence.pieces[1:], 1):
            names = {plain(name) for name in split_list(piece.text, "goal")}
            if all(_AMPLIFIER.fullmatch(name) for name in names) and not names & set(self.context.directory.by_name):
                before = next(self.context.directory.meanings(numbered(sentence.pieces[at - 1].text)), None)
                part = before and (before.new or self.context.rig.parts_by_id[before.gear[0].part])
                signals = {output.signal for output in part.outputs} if part else set()
                if signals and not signals & _INTO_AN_INSTRUMENT_AMPLIFIER:
                    text = re.sub(r"\bamps?\b", "power amplifier", piece.text, flags=re.IGNORECASE)
                    sentence.pieces[at] = replace(piece, text=text)

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
                self.ends.read_one(extra, "goal")
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
        tagged = self.context.directory.by_tag.get(plain(text))
        if tagged is not None and not tagged.installed:
            return NamedPiece((tagged.part,), tagged.id)
        result = self.context.directory.find_parts(text) or self.context.directory.find_parts(_without_count(text))
        return NamedPiece(_ids(result)) if result else None

    def _way(self, piece: Piece, passed: list[tuple[KitItem, Piece]]) -> NamedPiece | None:
        """What is named between two arrows; None for what is built in, which joins `passed`."""
        item = self.passing.built_in(piece)
        if item is not None:
            passed.append((item, piece))
            return None
        thing = self._thing(plain(piece.text))
        if thing is None:
            sentence = self._no_way(piece)
            raise problem("unknown_way", piece, sentence)
        return replace(thing, length_m=piece.length_m, behind=len(passed))

    def _no_way(self, piece: Piece) -> str:
        """Why nothing passes what stands between two arrows."""
        for meaning in self.context.directory.meanings(numbered(piece.text)):
            name, part = meaning.gear[0].name, meaning.new or self.context.rig.parts_by_id[meaning.gear[0].part]
            if speaks(part, "source"):
                return f"{name} has no input to plug into: begin the line with it, as in “{piece.text} > desk 3”."
            return f"{name} sends nothing on: end the line there, and begin another where the sound goes on."
        return f"“{piece.text}” is neither built in here nor a lead, adapter, box or device that leads on."

    def _source(self, piece: Piece, named: list[NamedPiece]) -> Side:
        """Where the sound starts; in "guitar DI" the last words name the box it goes through."""
        try:
            return self.ends.read_or_desk(piece, "source")
        except Refused:
            words = piece.text.split()
            for first in range(max(1, len(words) - 2), len(words)):
                boxes = [
                    entry for entry in self.context.directory.find_parts(" ".join(words[first:])) if entry.kind == "box"
                ]
                if boxes:
                    side = self.ends.read(Piece(" ".join(words[:first]), piece.start), "source")
                    named.append(NamedPiece(tuple(box.id for box in boxes)))
                    return side
            raise


def option_of(extra: Piece) -> str | None:
    """What stands behind a comma, where it is an option."""
    word = _bare_word(extra)
    return "phantom" if word in PHANTOM else "mono" if word in MONO else None


def _bare_word(extra: Piece) -> str:
    return plain(extra.text).removeprefix("with ").removeprefix("via ").removeprefix("and ")


def _without_count(text: str) -> str:
    """ "two DIs" and "DI x2" as "DI": each line of a run gets its own in any case."""
    text = re.sub(r"^(?:\d\d?\s*x?|two|three|four|pair of)\s+|\s*x\s*\d\d?$", "", text, flags=re.IGNORECASE)
    return text.removesuffix("s")


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
