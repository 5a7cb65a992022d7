"""What a name typed in a line can mean: gear of the rig, a group of it, what is built in, a part, new gear."""

import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache

from rapidfuzz import process
from rapidfuzz.distance import OSA

from ruvak.core.entry.described import Description, described, parts_described
from ruvak.core.entry.lists import numbered
from ruvak.core.entry.sockets import SIDES, has_many_channels, is_labelled, is_printed, tokens
from ruvak.core.entry.words import expand_ranges, numbers, plain, plain_piece
from ruvak.core.parts.library import library, words_for
from ruvak.core.pieces.pool import is_multicore
from ruvak.core.rig.part import Part, belongs_to_computer
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import Gear, KitItem, Rig, connectors_in_use

MOST_NEW = 24
_OPPOSITE_PLACES = (("in", "out"), ("top", "bottom"), ("front", "back"), ("upper", "lower"), ("near", "far"))
"""What tells two microphones at one thing apart: "kick in" and "kick out"."""
MANY_SOCKETS = 4
MOST_LETTERS_OF_A_NAME = 120
"""As a device's record has it; a range in a name may be written out to more."""
_PLACED = re.compile(
    r"(?P<name>.+?)(?P<place>\s+(?:at|near|by|beside|behind|under|in|from|on|playing|running|for)\s+\D+)", re.IGNORECASE
)
"""A device and where it stands: "laptop at the lectern" is a laptop."""
_MICROPHONES = frozenset(("mic", "mics", "microphone", "microphones"))
_PAIR_OF_MICS = _MICROPHONES | {"pair", "stereo"}
_OF_ANY_DEVICE = frozenset(("powered", "active", "passive", "small", "big", "second", "spare", "new", "old", "digital"))
"""Words that tell no device from others."""
KINDS_ALONE = frozenset(
    ("condenser", "dynamic", "ribbon", "wireless", "condenser mic", "dynamic mic", "ribbon mic", "radio mic")
)
"""Words that say what kind of source it is and are no part of its name: "Choir left condenser" is Choir left."""


@dataclass(frozen=True)
class Meaning:
    """One way to take a name. `rest`: the words after it, for the sockets; `corrected`: what it was taken for."""

    gear: tuple[Gear, ...]
    rest: tuple[str, ...]
    new: Part | None = None
    corrected: str | None = None
    several: bool = False
    """Whether one name stands for more than one device, without saying which."""
    missing: str | None = None
    """A device of a numbered group that is not there."""
    exact: bool = False
    """A full name of the rig's own gear: where its sockets are wrong, nothing else was meant."""


class Directory:
    """Every name of one rig."""

    def __init__(self, rig: Rig) -> None:
        self.rig = rig

    @cached_property
    def by_name(self) -> dict[str, Gear]:
        """Plain full names."""
        return {plain(expand_ranges(gear.name)): gear for gear in self.rig.gear}

    @cached_property
    def groups(self) -> dict[str, dict[int, Gear]]:
        """Names that end in a number, by what stands before it."""
        result: dict[str, dict[int, Gear]] = {}
        for name, gear in self.by_name.items():
            numbered = re.fullmatch(r"(.*\D) (\d+)", name)
            if numbered:
                result.setdefault(numbered[1].strip(), {})[int(numbered[2])] = gear
        return {base: group for base, group in result.items() if len(group) > 1}

    @cached_property
    def by_alias(self) -> dict[str, tuple[Gear, ...]]:
        """What people call a part, where the rig has gear of it with a socket to spare."""
        result: dict[str, list[Gear]] = {}
        used = connectors_in_use(self.rig)
        for gear in self.rig.gear:
            part = self.rig.parts_by_id[gear.part]
            sockets = {Endpoint(gear.id, connector.id) for connector in part.connectors}
            # "Choir condenser" is not the one condenser that stands elsewhere already, and beside a "wireless handheld"
            # in use a "wireless lapel" is another.
            if sockets <= used:
                continue
            own = set(plain(gear.name).split()) if sockets & used and not has_many_sockets(part) else None
            for word in map(plain, words_for(part)):
                if own is None or set(word.split()) <= own:
                    result.setdefault(word, []).append(gear)
        return {word: tuple(gear) for word, gear in result.items()}

    @cached_property
    def new_gear(self) -> dict[str, tuple[Part, ...]]:
        """What people call the rig's own gear and the library's: parts of one name in that order, since more sockets
        may be wanted than the first has."""
        own = {part.id for part in self.rig.parts if part.kind == "gear"}
        result = _by_their_words(self.rig.parts)
        for word, parts in _library_gear().items():
            others = tuple(part for part in parts if part.id not in own) if own else parts
            if others:
                result[word] = (*result.get(word, ()), *others)
        return result

    @cached_property
    def built_in(self) -> dict[str, KitItem]:
        """Installed lines and multicores by their tags, each word of a tag, and what their parts are called."""
        result: dict[str, KitItem] = {}
        for item in self.rig.kit:
            part = self.rig.part_of(item.id)
            if item.installed or (part.kind != "adapter" and is_multicore(part)):
                for word in (plain(item.tag), *plain(item.tag).split(), *map(plain, part.called)):
                    result.setdefault(word, item)
        return result

    @cached_property
    def by_tag(self) -> dict[str, KitItem]:
        """Single leads, adapters and boxes by tag."""
        return {plain(item.tag): item for item in self.rig.kit}

    def first_meant(self, text: str) -> tuple[Meaning, Part] | None:
        """The first thing that a piece of a line can mean, counted ones included, and what it is made of."""
        meaning = next(self.meanings(numbered(text)), None)
        return (meaning, meaning.new or self.rig.parts_by_id[meaning.gear[0].part]) if meaning is not None else None

    def next_name(self, name: str) -> str:
        """ "Choir 5" beside Choir 4, "Keys 2" beside Keys."""
        names = {plain(gear.name) for gear in self.rig.gear}
        base = re.sub(r"\s+\d+$", "", name)
        return next(entry for number in range(2, 1000) if plain(entry := f"{base} {number}") not in names)

    def find_parts(self, text: str) -> tuple[Part, ...]:
        """Boxes, adapters and leads of that name, or whose name ends in it: "di" takes in every DI box."""
        text = plain_piece(re.sub(r"[()]", " ", text))
        result = self._parts_named(text)
        for kind in ("lead", "adapter"):
            if not result and text.endswith(f" {kind}"):
                # "XLR to jack lead" is called "XLR to jack".
                text = text.removesuffix(f" {kind}")
                result = {id_: part for id_, part in self._parts_named(text).items() if part.kind == kind}
        if not result:
            # "DI stereo" is a stereo DI.
            words = sorted(text.split())
            result = {
                part.id: part
                for part in (*library().values(), *self.rig.parts)
                if part.kind != "gear" and any(sorted(plain_piece(name).split()) == words for name in part.called)
            }
        exact = [part for part in result.values() if text in map(plain_piece, part.called)]
        if exact and all(part.kind == "lead" for part in exact):
            # An "XLR lead" is no "3.5 mm to XLR lead", while a "DI" is any of them.
            return tuple(exact)
        return tuple(result.values())

    def _parts_named(self, text: str) -> dict[str, Part]:
        result: dict[str, Part] = {}
        for part in (*library().values(), *self.rig.parts):
            names = [plain_piece(word) for word in (*part.called, part.name)] if part.kind != "gear" else []
            if any(name == text or name.endswith(f" {text}") for name in names):
                result[part.id] = part
        return result

    def kinds_called(self, text: str) -> tuple[Part, ...]:
        """Devices of the library by what people call them, "a gooseneck" or "keyboard with XLR outputs"."""
        if (description := described(text)) is not None:
            return tuple(part for part, _ in parts_described(self.rig, description))
        words = plain(expand_ranges(plain(text))).split()
        words = words[1:] if words[:1] in (["an"], ["another"]) else words
        return tuple(part for part, _ in self._kinds_at_the_end(words, plural=False))

    def near_names(self, text: str, others: Iterable[str]) -> tuple[str, ...]:
        """The rig's own names, and these, that are like a typed one."""
        known = {plain(expand_ranges(name)): name for name in (*(gear.name for gear in self.rig.gear), *others)}
        return tuple(known[name] for name in self._near(plain(expand_ranges(plain(text))), known))

    def meanings(self, text: str) -> Iterator[Meaning]:
        """Ways to take a piece of a line as gear, the most literal first."""
        if (description := described(text)) is not None and plain(expand_ranges(plain(text))) not in self.by_name:
            yield from self._described(description)
            return
        if (placed := _PLACED.fullmatch(text.strip())) is not None:
            for meaning in self.meanings(placed["name"]):
                name = f"{meaning.gear[0].name} {placed['place'].strip()}"
                if meaning.new is not None and len(meaning.gear) == 1:
                    gear = self.make(name, meaning.new).model_copy(update={"settings": meaning.gear[0].settings})
                    yield replace(meaning, gear=(gear,))
        words = plain(expand_ranges(plain(text))).split()
        typed = {word.lower(): word for word in re.split(r"[\s/&+,#]+", text)}
        yield from self._numbered_group(words)
        for count in range(len(words), 0, -1):
            name, rest = " ".join(words[:count]), tuple(words[count:])
            if name in self.by_name and not self._is_second(self.by_name[name], rest):
                yield Meaning((self.by_name[name],), rest, exact=True)
            yield from self._group(name, rest)
        for count in range(len(words), 0, -1):
            name, rest = " ".join(words[:count]), tuple(words[count:])
            yield from self._part_of_name(name, rest)
            alike = tuple(
                gear
                for gear in self.by_alias.get(name, ())
                if not self._is_another(gear, rest) and not self._is_second(gear, rest)
            )
            if len(alike) == 1:
                yield Meaning(alike, rest)
        whole = [meaning for meaning in self._new(words) if self._is_whole_name(meaning, words)]
        for meaning in whole:
            yield replace(meaning, gear=tuple(self._spell(gear, typed) for gear in meaning.gear))
        yield from self._correct_typing(words)
        for meaning in self._new(words):
            yield replace(meaning, gear=tuple(self._spell(gear, typed) for gear in meaning.gear))

    def _described(self, description: Description) -> Iterator[Meaning]:
        """ "laptop on battery": the rig's own device of that name as it stands, else a new one that has it all."""
        name = plain(expand_ranges(plain(description.name)))
        if name in self.by_name:
            gear = self.by_name[name]
            yield Meaning((gear,), (), corrected=f"{gear.name} as it stands in this rig", exact=True)
            return
        typed = {word.lower(): word for word in description.name.split()}
        for part, settings in parts_described(self.rig, description):
            gear = self._spell(self.make(name, part), typed)
            yield Meaning((gear.model_copy(update={"settings": settings}),), (), new=part)

    def _numbered_group(self, words: list[str]) -> Iterator[Meaning]:
        """ "choir 1 2 3": each is a device of its own."""
        count = len(words)
        while count and words[count - 1].isdigit():
            count -= 1
        base, wanted = " ".join(words[:count]), numbers(words[count:])
        base = base if base in self.groups else next(iter(self._near(base, self.groups)), base)
        if len(wanted) < 2 or base not in self.groups:
            return
        group = self.groups[base]
        absent = [number for number in wanted if number not in group]
        if len(absent) == len(wanted) and any(True for _ in self._kinds_at_the_end(base.split(), plural=False)):
            # "Vocals 3-4" behind "vocals 1-2" are two more.
            return
        have = tuple(group[number] for number in wanted if number in group)
        yield Meaning(have, (), missing=f"{base} {absent[0]}" if absent else None)

    def _group(self, name: str, rest: tuple[str, ...]) -> Iterator[Meaning]:
        for base in (name, name.removesuffix("s")):
            if base in self.groups and not rest:
                yield Meaning(tuple(self.groups[base].values()), rest, several=base == name)

    def _part_of_name(self, name: str, rest: tuple[str, ...]) -> Iterator[Meaning]:
        """Words that stand in the names of some gear: "laptop" for "Slides laptop", "speakers" for all of them."""
        for singular in dict.fromkeys((name, name.removesuffix("s"))):
            wanted = set(singular.split())
            if wanted <= _OF_ANY_DEVICE:
                # "Powered top" is not the Powered sub.
                continue
            result = tuple(
                gear
                for full, gear in self.by_name.items()
                if wanted <= set(full.split())
                and not self._is_another(gear, rest)
                and not self._is_second(gear, rest)
                and not self._is_of_another_kind(gear, singular)
            )
            if len(result) == 1:
                yield Meaning(result, rest)
            elif result:
                yield Meaning(result, rest, several=singular == name)

    def _is_of_another_kind(self, gear: Gear, name: str) -> bool:
        """Whether a name that stands within this device's is what the library calls something else: beside a "drummer
        headphone amp" the "drummer headphones" are no part of its name."""
        words, own = name.split(), [word for word in plain(gear.name).split() if not word.isdigit()]
        if own[-1] in words:
            return False
        kinds = [part for part, _ in self._kinds_at_the_end(words, plural=True)]
        kinds += [part for part, _ in self._kinds_at_the_end([*words[:-1], f"{words[-1]}s"], plural=False)]
        return bool(kinds) and gear.part not in {part.id for part in kinds}

    def _is_whole_name(self, meaning: Meaning, words: list[str]) -> bool:
        """Whether all words together are what the library calls a part: then it is no slip for another name."""
        name = " ".join(word for word in words if not word.isdigit())
        return meaning.new is not None and not meaning.rest and name in self.new_gear

    def _is_second(self, gear: Gear, rest: tuple[str, ...]) -> bool:
        """Whether a side or a number behind a name makes it a second device beside this one, which has none.

        "Sub right" beside a Sub, "wedge 2" beside a Wedge. So does "mic": what stands before an amplifier is another.
        """
        name = plain(expand_ranges(gear.name)).split()
        part = self.rig.parts_by_id[gear.part]
        is_microphone = any(output.signal == "microphone" for output in part.outputs)
        if rest and set(rest) <= _MICROPHONES and not is_microphone and not is_labelled(part, "mic"):
            return True
        if len(rest) != 1 or has_many_sockets(part) or name[-1].isdigit():
            return False
        side = rest[0] in SIDES and not SIDES & set(name) and not has_sides(part)
        return side or (rest[0].isdigit() and _hears_all_at_once(part))

    def _is_another(self, gear: Gear, rest: tuple[str, ...]) -> bool:
        """Whether the words behind a name tell it from this device: "wedge 2" is not Wedge 1, though it has an input 2;
        "speaker right" is not the left one."""
        name = plain(expand_ranges(gear.name)).split()
        if _other_side(name, rest) or (rest and any({name[-1], rest[0]} == set(pair) for pair in _OPPOSITE_PLACES)):
            return True
        part = self.rig.parts_by_id[gear.part]
        figures, typed = numbers(name), numbers(list(rest))
        numbered = bool(figures and typed) and name[-1].isdigit() and figures[-1] != typed[0]
        return numbered and not has_many_sockets(part)

    def _correct_typing(self, words: list[str]) -> Iterator[Meaning]:
        known = {**{alias: gear for alias, gear in self.by_alias.items() if len(gear) == 1}}
        known |= {name: (gear,) for name, gear in self.by_name.items()}
        for count in range(len(words), 0, -1):
            name, rest = " ".join(words[:count]), tuple(words[count:])
            if name in self.new_gear:
                # "Small mixer" is no slip for the desk's "main mixer".
                continue
            for taken in self._near(name, known):
                if words[count - 1] in self.new_gear and words[count - 1] not in taken.split():
                    # "Powered top" is no slip for the Powered sub.
                    continue
                if any(self._is_another(gear, rest) or self._is_second(gear, rest) for gear in known[taken]):
                    continue
                yield Meaning(known[taken], rest, corrected=known[taken][0].name)

    def _near(self, name: str, known: Iterable[str]) -> list[str]:
        """The closest known names, by letters left out, added, changed or exchanged.

        Numbers and sides must be the same: "radio 1" is never taken for "radio 2", nor "overhead L" for "overhead R".
        """
        if len(name) < 4:
            return []
        same = [entry for entry in known if _marks(entry) == _marks(name)]
        slips = 1 if len(name) < 6 else 2 if len(name) < 10 else 3
        return [entry[0] for entry in process.extract(name, same, scorer=OSA.distance, score_cutoff=slips, limit=4)]

    def _new(self, words: list[str]) -> Iterator[Meaning]:
        """Gear that would be added, by what the library calls a part: "choir mics 1-4" are four, "keys right" and
        "small desk 5" are one and its socket."""
        yield from self._new_with_socket(words)
        yield from self._new_by_number(words, plural=bool(words) and words[-1].isdigit())
        for stop in range(len(words) - 1, 0, -1):
            rest = tuple(words[stop:])
            for part, title in self._kinds_at_the_end(words[:stop], plural=set(rest) <= SIDES | {"and", "pair"}):
                if _MICROPHONES & set(rest) and set(rest) <= _PAIR_OF_MICS and not is_labelled(part, "mic"):
                    # "Piano mics" are no sockets of a keyboard.
                    continue
                if len(rest) == 1 and rest[0] in SIDES and not has_sides(part):
                    # "overhead L": two such microphones are told apart by their sides.
                    yield Meaning((self.make(f"{title} {rest[0]}", part),), (), new=part)
                yield Meaning((self.make(title, part),), rest, new=part)
        # Last, or "laptop phones" were a phone.
        yield from self._new_by_number(words, plural=True)

    def _new_with_socket(self, words: list[str]) -> Iterator[Meaning]:
        """A whole name and a word that is printed by one of its sockets: "powered mixer speaker 1", "camera 2 HDMI"."""
        for stop in range(len(words) - 1, 0, -1):
            figure = [words[stop]] if words[stop].isdigit() and stop + 1 < len(words) else []
            rest = tuple(words[stop + len(figure) :])
            printed = [word for word in rest if not word.isdigit() and word not in SIDES]
            for part in self.new_gear.get(" ".join(words[:stop]), ()):
                if figure and has_many_sockets(part):
                    continue
                if printed and all(is_printed(part, word) for word in printed):
                    yield Meaning((self.make(" ".join([*words[:stop], *figure]), part),), rest, new=part)

    def _new_by_number(self, words: list[str], plural: bool) -> Iterator[Meaning]:
        """Its last words are what the library calls a part, those before them its name; numbers tell several apart."""
        count = len(words)
        while count and words[count - 1].isdigit():
            count -= 1
        named, figures = words[:count], words[count:]
        for part, title in self._kinds_at_the_end(named, plural):
            # An interface's number is its input's, like a desk's.
            counts_sockets = has_many_sockets(part) or (belongs_to_computer(part) and len(part.connectors) > 1)
            if len(figures) <= MOST_NEW and not (figures and counts_sockets):
                labels = [title] if not figures else [f"{title} {number}" for number in figures]
                yield Meaning(tuple(self.make(label, part) for label in labels), (), new=part)

    def _kinds_at_the_end(self, named: list[str], plural: bool) -> list[tuple[Part, str]]:
        """The parts that the most of the last words stand for, and what such a device would be called."""
        for first in range(len(named)):
            kinds = (" ".join(named[first:]), " ".join(named[first:]).removesuffix("s"))
            for kind in dict.fromkeys(kinds if plural else kinds[:1]):
                if (parts := self.new_gear.get(kind)) is not None:
                    alone = first > 0 and kind in KINDS_ALONE
                    title = " ".join(named[:first] if alone else (*named[:first], kind))
                    return [(part, title) for part in parts]
        return []

    @staticmethod
    def _spell(gear: Gear, typed: dict[str, str]) -> Gear:
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

    def make(self, name: str, part: Part) -> Gear:
        """A device that the rig does not have yet, under a free id."""
        taken = set(self.rig.owners_by_id)
        stem = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:56] or "gear"
        ids = (stem, *(f"{stem}-{number}" for number in range(2, 1000)))
        return Gear(id=next(id_ for id_ in ids if id_ not in taken), name=name[:MOST_LETTERS_OF_A_NAME], part=part.id)


def _marks(name: str) -> tuple[list[int], list[str]]:
    """What tells devices of one name apart: numbers and sides."""
    words = name.split()
    return numbers(words), [word[0] for word in words if word in SIDES]


def _other_side(name: Iterable[str], rest: Iterable[str]) -> bool:
    """Whether a side is typed and the name has the other."""
    typed, named = ({word[0] for word in words if word in SIDES} for words in (rest, name))
    return bool(typed and named and not typed & named)


def _by_their_words(parts: Iterable[Part]) -> dict[str, tuple[Part, ...]]:
    """Devices among these by what people call them."""
    result: dict[str, list[Part]] = {}
    for part in parts:
        for word in dict.fromkeys(map(plain, (*words_for(part), part.name))) if part.kind == "gear" else ():
            result.setdefault(word, []).append(part)
    return {word: tuple(some) for word, some in result.items()}


@lru_cache(maxsize=1)
def _library_gear() -> dict[str, tuple[Part, ...]]:
    """The library's devices by what people call them."""
    return _by_their_words(library().values())


@lru_cache(maxsize=1)
def _capitals() -> dict[str, str]:
    """Words that the library writes in capitals throughout: FOH, PA, USB."""
    words = [word for part in library().values() for entry in part.called for word in entry.split()]
    return {word.lower(): word for word in words if len(word) > 1 and word.isalpha() and word.isupper()}


def has_sides(part: Part) -> bool:
    """Whether it has sockets for a left and a right."""
    return any(SIDES & tokens(connector) for connector in part.connectors)


def _hears_all_at_once(part: Part) -> bool:
    """Whether its inputs are only heard together, as a loudspeaker's: then nobody tells them by number."""
    heard = {name for mix in part.mixes for name in mix.left}
    return len(part.mixes) == 1 and not part.mixes[0].right and heard >= {receiver.id for receiver in part.inputs}


def has_many_sockets(part: Part) -> bool:
    """Whether a number behind its name is a socket's and no device's: a desk, a stage box, what has a D-type socket."""
    if any(has_many_channels(part, connector.id) for connector in part.connectors):
        return True
    sockets = [connector for connector in part.connectors if not connector.form.startswith("usb")]
    return max(sum(connector.side != side for connector in sockets) for side in ("in", "out")) > MANY_SOCKETS
