"""A taken-apart line put into the order of its plugs: what is passed, what starts behind the air, which amplifier."""

import re
from dataclasses import replace

from ruvak.core.entry.context import LineContext
from ruvak.core.entry.device_chain import PassedDevice, passed_device
from ruvak.core.entry.grammar import Piece, Sentence
from ruvak.core.entry.line_ends import speaks
from ruvak.core.entry.lists import split_list
from ruvak.core.entry.passing import Passing
from ruvak.core.entry.words import expand_ranges, is_phantom, plain
from ruvak.core.pieces.named import NamedPiece
from ruvak.core.rig.part import Part

MONO, NO_PHANTOM = {"mono"}, "no phantom"
_AMPLIFIER = re.compile(r"(?:.+ )?amps?(?: \d+)?")
_PLAYED = re.compile(r"\b(?:guitar|gtr|bass|instrument|fiddle|violin)\b", re.IGNORECASE)
_PLACES = r"(?: (?:ch|channel|out|output|left|right|l|r|\d+))*"
_AMPLIFIER_AND_PLACE = re.compile(rf"(?P<name>(?:.+ )?amps?)(?P<place>{_PLACES})")
_SEVERAL_LEADS = re.compile(r"(?:\d|two|three|four).*(?:leads|cables|cords)", re.IGNORECASE)
_INTO_AN_INSTRUMENT_AMPLIFIER = {"instrument", "microphone"}


class Rewording:
    """Changes sentences of one rig in place; says so among the line's corrections."""

    def __init__(self, context: LineContext, passing: Passing) -> None:
        self.context, self.passing = context, passing

    def take_in_what_is_passed(self, sentence: Sentence) -> None:
        """ "desk 1 via stage box", "speaker via processor": a multicore or device named so is on the way; a multicore
        behind a comma as well."""
        for extra in list(sentence.extras):
            piece = Piece(bare_word(extra), extra.start)
            passed = self.passing.built_in(piece) is not None or self.passing.part_of(piece) is not None
            said_via = re.search(r"(?:via|through|using)\s*$", self.context.line[: extra.start], re.IGNORECASE)
            if not passed and said_via and option_of(extra) is None and self.thing(piece.text) is None:
                passed = self.device(piece) is not None
            if passed:
                sentence.extras.remove(extra)
                sentence.pieces.insert(len(sentence.pieces) - 1, piece)
                sentence.arrows += 1

    def start_behind_the_air(self, sentence: Sentence) -> None:
        """A microphone or a radio receiver has no plug for what stands before it: "amp > mic > desk 6" starts at the
        microphone, which is called after both."""
        while len(sentence.pieces) > 2:
            first, second = sentence.pieces[:2]
            if self._is_transmitter(second, worn=True):
                self.context.corrections.append(f"“{second.text}” is heard by its receiver, where the run starts.")
                has_receiver = len(sentence.pieces) > 3 and self._only_sends(sentence.pieces[2])
                sentence.pieces[1:2] = [] if has_receiver else [Piece("receiver", second.start)]
                sentence.arrows -= has_receiver
                continue
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
        if not piece.text or self.thing(plain(piece.text)) is not None or self.passing.part_of(piece) is not None:
            return False
        if (meant := self.context.directory.first_meant(piece.text)) is None:
            return False
        meaning, part = meant
        return not meaning.rest and speaks(part, "source") and not speaks(part, "goal")

    def name_power_amplifiers(self, sentence: Sentence) -> None:
        """An "amp" behind anything but an instrument or a microphone drives loudspeakers."""
        for at, piece in enumerate(sentence.pieces[1:], 1):
            names = {plain(name) for name in split_list(piece.text, "goal")}
            if all(map(self._is_any_amplifier, names)):
                devices = (each for each in reversed(sentence.pieces[:at]) if self.thing(plain(each.text)) is None)
                driver = next(devices, None)
                before = self.context.directory.first_meant(driver.text) if driver is not None else None
                signals = {output.signal for output in before[1].outputs} if before is not None else set()
                if driver is not None and _PLAYED.search(driver.text):
                    # A guitar's radio receiver.
                    continue
                if before is not None and not signals & _INTO_AN_INSTRUMENT_AMPLIFIER:
                    text = re.sub(r"\bamps?\b", "power amplifier", piece.text, flags=re.IGNORECASE)
                    sentence.pieces[at] = replace(piece, text=text)

    def name_first_power_amplifier(self, sentence: Sentence) -> None:
        """An "amp" that goes to a loudspeaker is none for an instrument: "monitor amp ch 1 > wedge"."""
        first, last = sentence.pieces[0], sentence.pieces[-1]
        match = _AMPLIFIER_AND_PLACE.fullmatch(plain(expand_ranges(plain(first.text))))
        goal = self.context.directory.first_meant(last.text) if match is not None and last.text else None
        if match is None or goal is None or not self._is_any_amplifier(match["name"]):
            return
        name = re.sub(rf"{_PLACES}$", "", plain(expand_ranges(plain(last.text)))).removesuffix("s")
        kinds = (goal[1], *self.context.directory.kinds_called(name))
        if any(entry.signal == "loudspeaker" for part in kinds for entry in part.inputs):
            name = re.sub(r"\bamps?$", "power amplifier", match["name"])
            sentence.pieces[0] = replace(first, text=f"{name} {match['place']}".strip())

    def end_before_the_air(self, sentence: Sentence) -> None:
        """What stands behind a transmitter hears it by radio: "desk aux 7/8 > transmitter > ears pack"."""
        while len(sentence.pieces) > 2:
            transmitter, last = sentence.pieces[-2:]
            if not self._is_transmitter(transmitter, worn=False):
                return
            sentence.pieces.pop()
            sentence.arrows -= 1
            said = f"“{last.text}” hears it by radio: the run ends at “{transmitter.text}”."
            self.context.corrections.append(said)

    def _is_transmitter(self, piece: Piece, worn: bool) -> bool:
        """Whether it takes sound and sends it on by radio alone: `worn` with its microphone, or fed from a desk."""
        meant = self.context.directory.first_meant(piece.text) if piece.text else None
        if meant is None or speaks(meant[1], "source") or "transmitter" not in meant[1].name.lower():
            return False
        return worn == any(entry.signal == "microphone" for entry in meant[1].inputs)

    def _is_any_amplifier(self, name: str) -> bool:
        """Whether a name says no more than that: "amp 2", "lobby amp", and not "headphone amp" or the rig's own."""
        kind = re.sub(r" \d+$", "", name)
        words = kind.split()
        known = any(" ".join(words[first:]) in self.context.directory.new.by_name for first in range(len(words) - 1))
        return bool(_AMPLIFIER.fullmatch(name)) and not known and name not in self.context.directory.by_name

    def device(self, piece: Piece) -> PassedDevice | None:
        """A device that a piece of the line names and that leads on what it takes."""
        if not piece.text or self.passing.built_in(piece) is not None or self.passing.part_of(piece) is not None:
            return None
        return passed_device(self.context.directory, piece) if self.thing(plain(piece.text)) is None else None

    def thing(self, text: str) -> NamedPiece | None:
        """A lead, adapter or box named on the way: a tagged one, or any of a kind."""
        tagged = self.context.directory.kit.by_tag.get(plain(text))
        if tagged is not None and not tagged.installed:
            return NamedPiece((tagged.part,), tagged.id)
        kit, single = self.context.directory.kit, _without_count(text)
        # "Two XLR leads" are two, and none with two XLRs.
        result = (_SEVERAL_LEADS.fullmatch(text) and kit.find_parts(single)) or kit.find_parts(text)
        result = result or kit.find_parts(single)
        return NamedPiece(_ids(result)) if result else None


def option_of(extra: Piece) -> str | None:
    """What stands behind a comma, where it is an option."""
    word = bare_word(extra)
    if is_phantom(re.sub(r"^(?:no|without|not)\s+", "", word)):
        return "phantom" if is_phantom(word) else NO_PHANTOM
    return "mono" if word in MONO else None


def bare_word(extra: Piece) -> str:
    """What stands behind a comma without \"with\" or \"via\"."""
    return plain(extra.text).removeprefix("with ").removeprefix("via ").removeprefix("and ")


def _without_count(text: str) -> str:
    """ "two DIs" and "DI x2" as "DI": each line of a run gets its own in any case."""
    text = re.sub(r"^(?:\d\d?\s*x?|two|three|four|pair of)\s+|\s*x\s*\d\d?$", "", text, flags=re.IGNORECASE)
    return text.removesuffix("s")


def _ids(parts: tuple[Part, ...]) -> tuple[str, ...]:
    return tuple(part.id for part in parts)
