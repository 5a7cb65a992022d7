"""Devices that a typed name would add: what people call the library's parts, and what such a device is called then."""

from collections.abc import Iterable, Iterator
from functools import cached_property, lru_cache

from ruvak.core.entry.meaning import Meaning
from ruvak.core.entry.sockets import SIDES, is_labelled, is_printed, tokens
from ruvak.core.entry.words import plain
from ruvak.core.parts.library import library, words_for
from ruvak.core.rig.connectors import carries_many_channels
from ruvak.core.rig.ids import free_id, id_of
from ruvak.core.rig.part import Part, belongs_to_computer
from ruvak.core.rig.rig import Gear, Rig

MOST_NEW = 24
MANY_SOCKETS = 4
MOST_LETTERS_OF_A_NAME = 120
"""As a device's record has it; a range in a name may be written out to more."""
MICROPHONES = frozenset(("mic", "mics", "microphone", "microphones"))
_PAIR_OF_MICS = MICROPHONES | {"pair", "stereo"}
_PLACES = frozenset(("centre", "center", "middle", "hi", "lo", "high", "low", "front", "back", "rear", "close", "far"))
KINDS_ALONE = frozenset(
    ("condenser", "dynamic", "ribbon", "wireless", "condenser mic", "dynamic mic", "ribbon mic", "radio mic")
)
"""Words that say what kind of source it is and are no part of its name: "Choir left condenser" is Choir left."""


USES = frozenset((
    "playback", "slides", "presentation", "click", "click track", "backing track", "tracks", "music", "walk in music",
    "interval music", "video call",
))  # fmt: skip
"""Words for what somebody plays, which are names of a device only where no other word says which."""


class NewGear:
    """What one rig's lines may add."""

    def __init__(self, rig: Rig) -> None:
        self.rig = rig

    @cached_property
    def by_name(self) -> dict[str, tuple[Part, ...]]:
        """What people call the rig's own gear and the library's: parts of one name in that order, since more sockets
        may be wanted than the first has."""
        own = _by_their_words(self.rig.parts)
        others = _library_gear(frozenset(part.id for part in self.rig.parts if part.kind == "gear"))
        both = {word: (*parts, *others.get(word, ())) for word, parts in own.items()}
        # The rig's own words first: of names that are alike near they are offered before the library's.
        return {**both, **others, **both}

    def meanings(self, words: list[str]) -> Iterator[Meaning]:
        """Gear that would be added, by what the library calls a part: "choir mics 1-4" are four, "keys right" and
        "small desk 5" are one and its socket."""
        yield from self._new_with_socket(words)
        yield from self._new_by_number(words, plural=bool(words) and words[-1].isdigit())
        for stop in range(len(words) - 1, 0, -1):
            rest = tuple(words[stop:])
            for part, title in self.kinds_at_the_end(
                words[:stop], plural=set(rest) <= SIDES | _PLACES | {"and", "pair"}
            ):
                if MICROPHONES & set(rest) and set(rest) <= _PAIR_OF_MICS and not is_labelled(part, "mic"):
                    # "Piano mics" are no sockets of a keyboard.
                    continue
                told_apart = rest[0] in SIDES or (rest[0] in _PLACES and not is_labelled(part, rest[0]))
                if len(rest) == 1 and told_apart and not has_sides(part):
                    # "overhead L", "choir centre": such microphones are told apart by where they stand.
                    yield Meaning((self.make(f"{title} {rest[0]}", part),), (), new=part)
                yield Meaning((self.make(title, part),), rest, new=part)
        # Last, or "laptop phones" were a phone.
        yield from self._new_by_number(words, plural=True)

    def _new_with_socket(self, words: list[str]) -> Iterator[Meaning]:
        """A whole name and a word that is printed by one of its sockets, "powered mixer speaker 1", "camera 2 HDMI"; or
        its sides, "keys 1 L/R"."""
        for stop in range(len(words) - 1, 0, -1):
            figure = [words[stop]] if words[stop].isdigit() and stop + 1 < len(words) else []
            rest = tuple(words[stop + len(figure) :])
            printed = [word for word in rest if not word.isdigit() and word not in SIDES]
            for part in self.by_name.get(" ".join(words[:stop]), ()):
                if figure and has_many_sockets(part):
                    continue
                of_a_side = bool(figure) and not printed and set(rest) <= SIDES and has_sides(part)
                if of_a_side or (printed and all(is_printed(part, word) for word in printed)):
                    yield Meaning((self.make(" ".join([*words[:stop], *figure]), part),), rest, new=part)

    def _new_by_number(self, words: list[str], plural: bool) -> Iterator[Meaning]:
        """Its last words are what the library calls a part, those before them its name; numbers tell several apart."""
        count = len(words)
        while count and words[count - 1].isdigit():
            count -= 1
        named, figures = words[:count], words[count:]
        for part, title in self.kinds_at_the_end(named, plural):
            # An interface's number is its input's, like a desk's.
            counts_sockets = has_many_sockets(part) or (belongs_to_computer(part) and len(part.connectors) > 1)
            counts_sockets |= part.records and _are_its_pair_of_inputs(part, figures)
            if len(figures) > 2 and any(_has_places(other, figures) for other in self.by_name.get(title, ())):
                # "Recorder 1-8" are eight places of the recorder that has them.
                continue
            if len(figures) <= MOST_NEW and not (figures and counts_sockets):
                labels = [title] if not figures else [f"{title} {number}" for number in figures]
                yield Meaning(tuple(self.make(label, part) for label in labels), (), new=part)

    def kinds_at_the_end(self, named: list[str], plural: bool) -> list[tuple[Part, str]]:
        """The parts that the most of the last words stand for, and what such a device would be called."""
        for first in range(len(named)):
            whole = " ".join(named[first:])
            # "Saxes" are more than one sax.
            kinds = (whole, whole.removesuffix("s"), *([whole[:-2]] if whole.endswith(("xes", "ches", "shes")) else []))
            result: list[tuple[Part, str]] = []
            # "Phones" are headphones, and where those cannot be meant several phones.
            for kind in dict.fromkeys(kinds if plural else kinds[:1]):
                alone = first > 0 and kind in KINDS_ALONE
                title = " ".join(named[:first] if alone else (*named[:first], kind))
                result += [(part, title) for part in self._by_what_it_is(named[:first], kind) or ()]
            if result:
                return result
        return []

    def _by_what_it_is(self, before: list[str], kind: str) -> tuple[Part, ...] | None:
        """The parts of a name; where it only says what is played, those that the words before it name: "tablet
        playback" is a tablet."""
        parts = self.by_name.get(kind)
        if parts is None or kind not in USES:
            return parts
        ends = (" ".join(before[start:]) for start in range(len(before)))
        return next((self.by_name[name] for name in ends if name in self.by_name and name not in USES), parts)

    def make(self, name: str, part: Part) -> Gear:
        """A device that the rig does not have yet, under a free id."""
        id_ = free_id(id_of(name, "gear"), self.rig.owners_by_id)
        return Gear(id=id_, name=name[:MOST_LETTERS_OF_A_NAME], part=part.id)

    @staticmethod
    def spell(gear: Gear, typed: dict[str, str]) -> Gear:
        """With capitals where the line or the library has them, and one at the beginning."""
        words = [_capitals().get(word) or typed.get(word, word) for word in gear.name.split()]
        for at in range(len(words) - 1, 0, -1):
            if (whole := typed.get(f"{words[at - 1]}{words[at]}".lower())) is not None:
                # "MP3" is one word, though its figure is told from its letters in comparing.
                words[at - 1 : at + 1] = [whole]
            elif (hyphened := typed.get(f"{words[at - 1]}-{words[at]}".lower())) is not None:
                # So is a hyphen: "Hi-hat".
                words[at - 1 : at + 1] = [hyphened]
        name = " ".join(words)
        return gear.model_copy(update={"name": name[:1].upper() + name[1:]})


def _by_their_words(parts: Iterable[Part]) -> dict[str, tuple[Part, ...]]:
    """Devices among these by what people call them."""
    result: dict[str, list[Part]] = {}
    for part in parts:
        for word in dict.fromkeys(map(plain, (*words_for(part), part.name))) if part.kind == "gear" else ():
            result.setdefault(word, []).append(part)
    return {word: tuple(some) for word, some in result.items()}


@lru_cache(maxsize=64)
def _library_gear(without: frozenset[str]) -> dict[str, tuple[Part, ...]]:
    """The library's devices by what people call them, but for these parts."""
    return _by_their_words(part for part in library().values() if part.id not in without)


@lru_cache(maxsize=1)
def _capitals() -> dict[str, str]:
    """Words that the library writes in capitals throughout: FOH, PA, USB."""
    words = [word for part in library().values() for entry in part.called for word in entry.split()]
    return {word.lower(): word for word in words if len(word) > 1 and word.isalpha() and word.isupper()}


def _has_places(part: Part, figures: list[str]) -> bool:
    """Whether it has so many inputs as these numbers count, from 1."""
    have = {word for connector in part.connectors if connector.side != "out" for word in tokens(connector)}
    return has_many_sockets(part) and figures[0] == "1" and have >= set(figures)


def _are_its_pair_of_inputs(part: Part, figures: list[str]) -> bool:
    """Whether two numbers that follow each other, the first of them odd, are inputs of a device: "recorder 1/2"."""
    have = {word for connector in part.connectors if connector.side != "out" for word in tokens(connector)}
    is_pair = len(figures) == 2 and int(figures[0]) % 2 == 1 and int(figures[1]) == int(figures[0]) + 1
    return is_pair and have >= set(figures)


def has_sides(part: Part) -> bool:
    """Whether it has sockets for a left and a right."""
    return any(SIDES & tokens(connector) for connector in part.connectors)


def has_many_sockets(part: Part) -> bool:
    """Whether a number behind its name is a socket's and no device's: a desk, a stage box, what has a D-type socket."""
    if any(carries_many_channels(connector.form) for connector in part.connectors):
        return True
    sides = [connector.side for connector in part.connectors if not connector.form.startswith("usb")]
    return len(sides) - min(sides.count("in"), sides.count("out")) > MANY_SOCKETS
