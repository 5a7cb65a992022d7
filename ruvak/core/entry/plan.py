"""From a taken-apart line to the runs it wants: which devices, which sockets, through what, how far."""

import re
from dataclasses import replace

from ruvak.core.entry.context import LineContext
from ruvak.core.entry.described import is_feature
from ruvak.core.entry.device_chain import PassedDevice, split_sentence
from ruvak.core.entry.device_ends import DeviceEnds
from ruvak.core.entry.grammar import Piece, Sentence, parse
from ruvak.core.entry.hosts import is_made_up, plugged_by_usb
from ruvak.core.entry.leads_by_ends import is_plug
from ruvak.core.entry.line_ends import Side, main_output, speaks
from ruvak.core.entry.lists import NamedInList, is_no_name
from ruvak.core.entry.pairing import Pairing
from ruvak.core.entry.passing import Passing
from ruvak.core.entry.rewording import Rewording, bare_word, option_of
from ruvak.core.entry.wanted import Refused, Wanted, problem
from ruvak.core.entry.words import expand_ranges, plain
from ruvak.core.pieces.named import NamedPiece
from ruvak.core.rig.connectors import Form
from ruvak.core.rig.part import belongs_to_computer, is_computer
from ruvak.core.rig.rig import MAX_LENGTH_M, MIN_LENGTH_M, KitItem, Rig
from ruvak.core.units import METRES_PER_UNIT

_BOX_FOR = re.compile(r"(?P<box>.+?)\s+(?:for|on)\s+(?:the\s+)?(?P<name>.+)", re.IGNORECASE)
_SOCKET_OF = re.compile(
    r"(?P<socket>(?:[\w./+-]+ ){0,3}"
    r"(?:outs?|outputs?|ins?|inputs?|sends?|returns?|sockets?|jack|port|channels?)(?: [\d/+-]+)?)"
    r" (?:of|on|from) (?:the |my |a )?(?P<device>.+)",
    re.IGNORECASE,
)

_HEADPHONE_JACK = re.compile(
    r"(?P<name>.+?)\s+(?:(?:head|ear)phones?|mini ?jack|phones\s+out)(?:\s+(?:jack|out|output|socket|port))*",
    re.IGNORECASE,
)
_SEND_OR_RETURN = re.compile(r"\b(?:sends?|returns?|back (?:in ?)?to|in|out)\b")
_OF_AN_INSERT = frozenset(("insert", "ch", "chan", "channel"))


class Planner:
    """Reads lines against one rig. Raises Refused."""

    def __init__(self, rig: Rig, in_list: NamedInList) -> None:
        """`in_list`: what the lines of the same list name."""
        self.context = LineContext(rig, "", in_list)
        self.passing = Passing(self.context)
        self.ends = DeviceEnds(self.context, self.passing)
        self.pairing = Pairing(self.context, self.ends, self.passing)
        self.rewording = Rewording(self.context, self.passing)

    @property
    def corrections(self) -> list[str]:
        """What slips were taken for, in sentences."""
        return self.context.corrections

    def plan(self, line: str) -> tuple[Sentence, tuple[Wanted, ...], str | None]:
        """The runs a line asks for, and where it passes a device: the line from there on."""
        self.context.corrections = []
        self.context.line = line
        sentence = parse(line, METRES_PER_UNIT[self.context.rig.length_unit])
        if sentence.arrows == 2:
            _drop_way_back(sentence)
        self.rewording.take_in_what_is_passed(sentence)
        sentence.pieces[-1] = self._with_more_goals(sentence, self._with_features(sentence))
        onward: tuple[str, str] | None = None
        self.rewording.start_behind_the_air(sentence)
        self.rewording.end_before_the_air(sentence)
        self.rewording.name_first_power_amplifier(sentence)
        self.rewording.name_power_amplifiers(sentence)
        for at, piece in enumerate(sentence.pieces[1:-1], 1):
            if (device := self.rewording.device(piece)) is not None:
                device = self._by_usb(sentence.pieces[at - 1], device)
                sentence, rest = split_sentence(sentence, at, device, device.links or self._is_into_computer(sentence))
                onward = device.source, rest
                break
        whole = Piece(line.strip(), len(line) - len(line.lstrip()))
        if sentence.arrows == 0:
            raise problem("no_arrow", whole, "Say where it goes: write > and the destination, as in “keys > desk 7/8”.")
        sentence.pieces = [_socket_behind_device(piece) for piece in sentence.pieces]
        sentence.pieces[:1] = _with_what_it_goes_by(sentence.pieces[0])
        self._take_next_place(sentence)
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
            sources,
            passed,
            goal,
            "mono" in options or any(s.mono for _, _, s in sources[0].devices),
            joined=bool(named),
        )
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
        made = tuple(self._named_as_typed(run, (first, last)) for run in made)
        if onward is None:
            return sentence, made, None
        source, rest = onward
        names = dict.fromkeys(gear.gear.name for run in made for gear in run.goals)
        return sentence, made, f"{source or '/'.join(names)} > {rest}"

    def _by_usb(self, before: Piece, device: PassedDevice) -> PassedDevice:
        """Behind its computer a box's places are those that it goes on from: "laptop > interface 1/2 > desk 3/4"."""
        box, computer = (self.context.directory.first_meant(text) for text in (device.piece.text, before.text))
        if box is None or computer is None or not box[0].rest:
            return device
        if not (belongs_to_computer(box[1]) and is_computer(computer[1])):
            return device
        return replace(device, goal=box[0].gear[0].name, source=device.piece.text)

    def _is_into_computer(self, sentence: Sentence) -> bool:
        """Whether the line ends at a computer behind its box, to which a USB lead goes: the length is of what comes
        before."""
        meant = [self.context.directory.first_meant(piece.text) for piece in sentence.pieces[-2:]]
        box, computer = (entry[1] if entry is not None else None for entry in meant)
        return box is not None and computer is not None and belongs_to_computer(box) and is_computer(computer)

    def _named_as_typed(self, run: Wanted, pieces: tuple[Piece, Piece]) -> Wanted:
        """A computer that came along with a box is called what a line with its USB lead calls it."""
        if not plugged_by_usb(run) or run.goal is None:
            return run
        ends = []
        for end, piece in zip((run.sources[0], run.goal), pieces, strict=True):
            name = re.sub(r"[\s,]*\busb\b.*", "", piece.text, flags=re.IGNORECASE)
            named = is_made_up(end.gear) and name and plain(name) != plain(end.gear.name)
            gear = end.gear.model_copy(update={"name": f"{name[:1].upper()}{name[1:120]}"}) if named else end.gear
            ends.append(replace(end, gear=gear))
        return replace(run, sources=(ends[0],), goal=ends[1])

    def _with_features(self, sentence: Sentence) -> Piece:
        """The last piece with what is said of the device there: "switcher with 3.5 mm inputs"."""
        last = sentence.pieces[-1]
        for extra in list(sentence.extras):
            named = plain(f"{last.text} with {extra.text}") in self.context.directory.new.by_name
            if not named and (
                option_of(extra) is not None
                or self.rewording.thing(bare_word(extra)) is not None
                or not is_feature(extra.text)
            ):
                break
            sentence.extras.remove(extra)
            last = Piece(f"{last.text} with {extra.text}", last.start)
        return last

    def _with_more_goals(self, sentence: Sentence, last: Piece) -> Piece:
        """In "desk aux 1-2 > wedge left, wedge right" what stands behind the comma is one more destination."""
        for extra in list(sentence.extras):
            word = plain(extra.text)
            if option_of(extra) is not None or word.startswith("with ") or self.rewording.thing(word) is not None:
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
            elif (thing := self.rewording.thing(bare_word(extra))) is not None:
                pieces.append(thing)
            else:
                sentence_ = f"“{extra.text}” is neither a length, an option (phantom, mono) nor a lead, adapter or box."
                raise problem("unknown_option", extra, sentence_)
        return pieces, tuple(dict.fromkeys(options))

    def _way(self, piece: Piece, passed: list[tuple[KitItem, Piece]]) -> NamedPiece | None:
        """What is named between two arrows; None for what is built in, which joins `passed`."""
        item = self.passing.built_in(piece)
        if item is not None:
            passed.append((item, piece))
            return None
        thing = self.rewording.thing(plain(piece.text))
        if thing is None:
            sentence = self._no_way(piece)
            raise problem("unknown_way", piece, sentence)
        return replace(thing, length_m=piece.length_m, behind=len(passed))

    def _no_way(self, piece: Piece) -> str:
        """Why nothing passes what stands between two arrows."""
        if (meant := self.context.directory.first_meant(piece.text)) is not None:
            name, part = meant[0].gear[0].name, meant[1]
            if speaks(part, "source"):
                return f"{name} has no input to plug into: begin the line with it, as in “{piece.text} > desk 3”."
            return f"{name} sends nothing on: end the line there, and begin another where the sound goes on."
        return f"“{piece.text}” is neither built in here nor a lead, adapter, box or device that leads on."

    def _di_behind(self, piece: Piece) -> Piece:
        """ "DI guitar", which is no name of a device here, as "guitar DI"."""
        first, _, name = piece.text.partition(" ")
        directory = self.context.directory
        if (
            first.lower() != "di"
            or not name
            or plain(piece.text) in directory.by_name
            or _BOX_FOR.fullmatch(piece.text)
        ):
            return piece
        meant = directory.first_meant(name)
        is_microphone = meant is not None and all(output.signal == "microphone" for output in meant[1].outputs)
        return piece if meant is None or is_microphone else Piece(f"{name} DI", piece.start)

    def _source(self, piece: Piece, named: list[NamedPiece]) -> Side:
        """Where the sound starts; in "guitar DI" and "DI for guitar" other words name the box it goes through."""
        kit = self.context.directory.kit
        piece = self._di_behind(piece)
        turned = None if plain(piece.text) in self.context.directory.by_name else _BOX_FOR.fullmatch(piece.text)
        if turned is not None and (boxes := kit.find_boxes(turned["box"])):
            named.append(NamedPiece(tuple(box.id for box in boxes)))
            piece = Piece(turned["name"], piece.start + turned.start("name"))
        try:
            return self.ends.read_or_desk(piece, "source")
        except Refused:
            if (computer := self._by_headphone_jack(piece)) is not None:
                return computer
            words = piece.text.split()
            if len(words) > 1 and words[-1].lower() == "stereo":
                return self._source(replace(piece, text=" ".join(words[:-1])), named)
            for first in range(max(1, len(words) - 2), len(words)):
                behind = " ".join(words[first:])
                if not re.search("[a-z]", behind, re.IGNORECASE):
                    # "Aux 20" is no aux with a pad.
                    continue
                lead = (
                    self.rewording.thing(behind) or self.rewording.thing(f"{behind} lead") if is_plug(behind) else None
                )
                if lead is not None and not self._takes_sound(piece):
                    # "Bluetooth receiver RCA", which has no such socket: its lead ends so.
                    side = self.ends.read(Piece(" ".join(words[:first]), piece.start), "source")
                    named.append(lead)
                    return side
                if boxes := kit.find_boxes(behind):
                    side = self.ends.read(Piece(" ".join(words[:first]), piece.start), "source")
                    if words[first:] in (["DI"], ["di"]) and _leaves_by_xlr(side):
                        # "cab sim DI": its own balanced output.
                        return side
                    named.append(NamedPiece(tuple(box.id for box in boxes)))
                    return side
            raise

    def _takes_sound(self, piece: Piece) -> bool:
        """Whether these words mean an input."""
        try:
            return bool(self.ends.read(piece, "goal"))
        except Refused:
            return False

    def _by_headphone_jack(self, piece: Piece) -> Side | None:
        """What has a headphone socket and a name that says nothing here is somebody's laptop."""
        match = _HEADPHONE_JACK.fullmatch(piece.text.strip())
        if match is None or self.context.directory.first_meant(match["name"]) is not None:
            return None
        side = self.ends.read(Piece(f"{match['name']} laptop headphone out", piece.start), "source")
        self.context.corrections.append(f"“{piece.text}” was taken for a laptop's headphone output.")
        return side

    def _take_next_place(self, sentence: Sentence) -> None:
        """The "8" of "keys > desk 7,8" is the other side's place and no length of 8 m."""
        first, last = sentence.pieces[0], sentence.pieces[-1]
        place = re.search(r"\d+$", last.text)
        if sentence.bare_m is None or place is None or last.start < first.start:
            return
        following = int(place[0]) + 1
        meant = self.context.directory.first_meant(first.text)
        if meant is None or sentence.bare_m != following * METRES_PER_UNIT[self.context.rig.length_unit]:
            return
        meaning, part = meant
        if len(meaning.gear) == 2 or (part.outputs and len(main_output(part).channels) == 2):
            sentence.bare_m = None
            sentence.pieces[-1] = replace(last, text=f"{last.text}, {following}")


def _drop_way_back(sentence: Sentence) -> None:
    """ "desk insert 1 > compressor > desk insert 1" is the loop that "desk insert 1 > compressor" is."""
    first, *middle, last = (_SEND_OR_RETURN.sub(" ", plain(piece.text)).split() for piece in sentence.pieces)
    back = first if last == first else [word for word in first if word not in _OF_AN_INSERT and not word.isdigit()]
    if len(middle) == 1 and "insert" in first and last == back:
        del sentence.pieces[-1]
        sentence.arrows -= 1


def _leaves_by_xlr(side: Side) -> bool:
    """Whether every device there has a balanced output on XLR as its usual one, and is no microphone."""
    usual = [(part, main_output(part)) for _, part, _ in side.devices if part.outputs]
    forms = [{c.form for c in part.connectors if c.id in output.connectors} for part, output in usual]
    return bool(usual) and all(
        output.type == "balanced" and output.signal != "microphone" and sockets == {Form.XLR3_MALE}
        for (_, output), sockets in zip(usual, forms, strict=True)
    )


def _socket_behind_device(piece: Piece) -> Piece:
    """ "headphone out of the laptop" as "laptop headphone out"."""
    turned = _SOCKET_OF.fullmatch(piece.text.strip())
    return replace(piece, text=f"{turned['device']} {turned['socket']}") if turned is not None else piece


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
    halves = re.split(r"\s+[+&]\s+", piece.text)
    places = [word for word in plain(expand_ranges(plain(last.text))).split() if word.isdigit()]
    if len(halves) > 1 and len(places) == len(halves) and not any(map(is_no_name, halves)):
        return [Piece(re.sub(r"\s[+&]\s", " , ", piece.text), piece.start)]
    if len(halves) == 2 and all(len(half.split()) > 1 for half in halves):
        return [Piece(halves[0], piece.start), Piece(halves[1], piece.start + len(halves[0]) + 3)]
    return [piece]
