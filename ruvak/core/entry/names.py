"""What a name typed in a line can mean: gear of the rig, a group of it, what is built in, a part, new gear."""

import re
from collections.abc import Iterable, Iterator
from dataclasses import replace
from functools import cached_property

from rapidfuzz import process
from rapidfuzz.distance import OSA

from ruvak.core.entry.described import Description, described, parts_described
from ruvak.core.entry.kit_names import KitNames
from ruvak.core.entry.lists import numbered
from ruvak.core.entry.meaning import Meaning
from ruvak.core.entry.new_gear import MICROPHONES, NewGear, has_many_sockets, has_sides
from ruvak.core.entry.sockets import SIDES, is_labelled
from ruvak.core.entry.words import expand_ranges, numbers, plain
from ruvak.core.parts.library import words_for
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import Gear, Rig, connectors_in_use

_OPPOSITE_PLACES = (("in", "out"), ("top", "bottom"), ("front", "back"), ("upper", "lower"), ("near", "far"))
"""What tells two microphones at one thing apart: "kick in" and "kick out"."""
_PLACED = re.compile(
    r"(?P<name>.+?)(?P<place>\s+(?:at|near|by|beside|behind|under|in|from|on|playing|running|for)\s+\D+)", re.IGNORECASE
)
"""A device and where it stands: "laptop at the lectern" is a laptop."""
_MOST_WORDS = 24
"""A name has no more words besides its figures; every beginning of a name is looked up, so a long one takes long."""
_OF_ANY_DEVICE = frozenset(("powered", "active", "passive", "small", "big", "second", "spare", "new", "old", "digital"))
"""Words that tell no device from others."""


class Directory:
    """Every name of one rig."""

    def __init__(self, rig: Rig) -> None:
        self.rig = rig
        self.new, self.kit = NewGear(rig), KitNames(rig)

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

    def counted_meanings(self, text: str) -> Iterator[Meaning]:
        """As meanings(), with "two speakers" or "keys x2" for several; "Desk X 1" is input 1 of a Desk X there is."""
        counted, typed = numbered(text), plain(text)
        own = (name for name in self.by_name if typed == name or typed.startswith(f"{name} "))
        if counted != text and not all(plain(counted).startswith(name) for name in own):
            counted = text
        return self.meanings(counted)

    def first_meant(self, text: str) -> tuple[Meaning, Part] | None:
        """The first thing that a piece of a line can mean, counted ones included, and what it is made of."""
        meaning = next(self.counted_meanings(text), None)
        return (meaning, meaning.new or self.rig.parts_by_id[meaning.gear[0].part]) if meaning is not None else None

    def next_name(self, name: str) -> str:
        """ "Choir 5" beside Choir 4, "Keys 2" beside Keys."""
        names = {plain(gear.name) for gear in self.rig.gear}
        base = re.sub(r"\s+\d+$", "", name)
        return next(entry for number in range(2, 1000) if plain(entry := f"{base} {number}") not in names)

    def kinds_called(self, text: str) -> tuple[Part, ...]:
        """Devices of the library by what people call them, "a gooseneck" or "keyboard with XLR outputs"."""
        if (description := described(text)) is not None:
            return tuple(part for part, _ in parts_described(self.rig, description))
        words = plain(expand_ranges(plain(text))).split()
        words = words[1:] if words[:1] in (["an"], ["another"]) else words
        return tuple(part for part, _ in self.new.kinds_at_the_end(words, plural=False))

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
                    gear = self.new.make(name, meaning.new).model_copy(update={"settings": meaning.gear[0].settings})
                    yield replace(meaning, gear=(gear,))
        words = plain(expand_ranges(plain(text))).split()
        if sum(not word.isdigit() for word in words) > _MOST_WORDS:
            return
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
        whole = [meaning for meaning in self.new.meanings(words) if self._is_whole_name(meaning, words)]
        for meaning in whole:
            yield replace(meaning, gear=tuple(self.new.spell(gear, typed) for gear in meaning.gear))
        yield from self._correct_typing(words)
        for meaning in self.new.meanings(words):
            yield replace(meaning, gear=tuple(self.new.spell(gear, typed) for gear in meaning.gear))

    def _described(self, description: Description) -> Iterator[Meaning]:
        """ "laptop on battery": the rig's own device of that name as it stands, else a new one that has it all."""
        name = plain(expand_ranges(plain(description.name)))
        if name in self.by_name:
            gear = self.by_name[name]
            yield Meaning((gear,), (), corrected=f"{gear.name} as it stands in this rig", exact=True)
            return
        typed = {word.lower(): word for word in description.name.split()}
        for part, settings in parts_described(self.rig, description):
            gear = self.new.spell(self.new.make(name, part), typed)
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
        if len(absent) == len(wanted) and any(True for _ in self.new.kinds_at_the_end(base.split(), plural=False)):
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
        kinds = [part for part, _ in self.new.kinds_at_the_end(words, plural=True)]
        kinds += [part for part, _ in self.new.kinds_at_the_end([*words[:-1], f"{words[-1]}s"], plural=False)]
        return bool(kinds) and gear.part not in {part.id for part in kinds}

    def _is_whole_name(self, meaning: Meaning, words: list[str]) -> bool:
        """Whether all words together are what the library calls a part: then it is no slip for another name."""
        name = " ".join(word for word in words if not word.isdigit())
        return meaning.new is not None and not meaning.rest and name in self.new.by_name

    def _is_second(self, gear: Gear, rest: tuple[str, ...]) -> bool:
        """Whether a side or a number behind a name makes it a second device beside this one, which has none.

        "Sub right" beside a Sub, "wedge 2" beside a Wedge. So does "mic": what stands before an amplifier is another.
        """
        name = plain(expand_ranges(gear.name)).split()
        part = self.rig.parts_by_id[gear.part]
        is_microphone = any(output.signal == "microphone" for output in part.outputs)
        if rest and set(rest) <= MICROPHONES and not is_microphone and not is_labelled(part, "mic"):
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
            if name in self.new.by_name:
                # "Small mixer" is no slip for the desk's "main mixer".
                continue
            for taken in self._near(name, known):
                if words[count - 1] in self.new.by_name and words[count - 1] not in taken.split():
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


def _marks(name: str) -> tuple[list[int], list[str]]:
    """What tells devices of one name apart: numbers and sides."""
    words = name.split()
    return numbers(words), [word[0] for word in words if word in SIDES]


def _other_side(name: Iterable[str], rest: Iterable[str]) -> bool:
    """Whether a side is typed and the name has the other."""
    typed, named = ({word[0] for word in words if word in SIDES} for words in (rest, name))
    return bool(typed and named and not typed & named)


def _hears_all_at_once(part: Part) -> bool:
    """Whether its inputs are only heard together, as a loudspeaker's: then nobody tells them by number."""
    heard = {name for mix in part.mixes for name in mix.left}
    return len(part.mixes) == 1 and not part.mixes[0].right and heard >= {receiver.id for receiver in part.inputs}
