"""The cupboard typed as people say it, one thing or one kind a line.

"M31-M36: 10 m mic leads, van", "about six 5 m jack leads", "B3: stereo isolator, suspect: crackles". A line that ends
with a colon names the store of those below it.
"""

import re
from collections.abc import Collection
from dataclasses import dataclass

from ruvak.core.cupboard.item import MOST_ALIKE, STORE, CupboardItem
from ruvak.core.entry.names import Directory
from ruvak.core.entry.words import plain
from ruvak.core.kit.lines import KitLine, LineProblem, read_count, read_kit, read_tags
from ruvak.core.parts.library import embed, library
from ruvak.core.rig.ids import free_id, id_of
from ruvak.core.rig.part import Part
from ruvak.core.rig.rig import Condition, Gear, KitItem, Rig, Venue
from ruvak.core.rig.values import Record

MOST_LINES = 400
_STORES = (
    "cupboard",
    "van",
    "rack",
    "gallery rack",
    "stage rack",
    "store",
    "store room",
    "workshop",
    "trolley",
    "case",
)
"""Places that need no "in the" before them."""
_CONDITIONS: dict[str, Condition] = {
    "good": "good",
    "ok": "good",
    "suspect": "suspect",
    "intermittent": "suspect",
    "faulty": "faulty",
    "broken": "faulty",
    "defective": "faulty",
    "dead": "faulty",
    "away": "away",
    "lent": "away",
    "on loan": "away",
    "at repair": "away",
    "being repaired": "away",
}
_AS_REMARK = frozenset(("intermittent", "broken", "dead", "lent", "on loan", "at repair", "being repaired"))
"""Words that say more than the condition they stand for, so they are kept as what is remarked."""
_CONDITION = re.compile(
    rf"\s*[,;(]\s*(?P<word>{'|'.join(sorted(_CONDITIONS, key=len, reverse=True))})\b(?P<rest>[^,;]*(?:[,;].*)?)$",
    re.IGNORECASE,
)
_IN_STORE = re.compile(
    r"\s*,?\s*\b(?:in|from|at|kept in)\s+(?:the\s+)?(?P<store>[^,;:()\d][^,;:()]{0,58})$", re.IGNORECASE
)


class CupboardLine(Record):
    """One line as understood: what it adds, or what is wrong with it and how to mend it."""

    line: str
    """The line as it was typed."""
    words: str
    """What it was understood to mean; empty where it was not."""
    items: tuple[CupboardItem, ...]
    """What it adds."""
    problem: str | None
    """Why it was not understood; null where it was."""


def read_cupboard(items: Collection[CupboardItem], text: str) -> tuple[CupboardLine, ...]:
    """Every line that is not empty. Of more than MOST_LINES the last one says which were not read."""
    reader = _Reader(list(items))
    every = [line.strip() for line in text.splitlines() if line.strip()]
    lines = [reader.line(line) for line in every[:MOST_LINES]]
    if len(every) > MOST_LINES:
        said = (
            f"{len(every) - MOST_LINES} more lines, from this one on, were not read: {MOST_LINES} at once are the "
            "most. Add these and then the rest."
        )
        lines.append(_refused(every[MOST_LINES], said))
    return tuple(lines)


def stand_in(items: Collection[CupboardItem]) -> Rig:
    """A rig that has these things and nothing else, for what reads names out of a rig."""
    parts = {item.part.id: item.part for item in items}
    things = [item.in_rig() for item in items]
    return embed(
        Rig(
            id="cupboard",
            name="Cupboard",
            venue=Venue(name="House"),
            parts=tuple(parts.values()),
            gear=tuple(thing for thing in things if isinstance(thing, Gear)),
            kit=tuple(thing for thing in things if isinstance(thing, KitItem)),
        )
    )


@dataclass
class _Reader:
    """Line after line; names, ids and the store that a heading named are remembered."""

    items: list[CupboardItem]
    store: str = STORE

    def __post_init__(self) -> None:
        self.rig = stand_in(self.items)
        self.directory = Directory(self.rig)
        self.ids = {item.id for item in self.items}
        self.names = {plain(item.name) for item in self.items if item.count == 1}
        self.stores = {plain(store) for store in (*_STORES, *(item.store for item in self.items))}

    def line(self, line: str) -> CupboardLine:
        if heading := re.fullmatch(r"(?:in\s+(?:the\s+)?)?([^:,;]{1,58}?)\s*:", line, re.IGNORECASE):
            self.store = _without_article(heading[1])
            self.stores.add(plain(self.store))
            return CupboardLine(line=line, words=f"From here on in: {self.store}", items=(), problem=None)
        rest, condition, remark = _take_condition(line)
        rest, store = self._take_store(rest)
        result = self._kit(rest, line)
        if result.problem is not None and (device := self._devices(rest, line)) is not None:
            result = device
        items = tuple(
            item.model_copy(update={"condition": condition, "remark": remark, "store": store}) for item in result.items
        )
        if taken := next((item.name for item in items if item.count == 1 and plain(item.name) in self.names), None):
            return _refused(line, f"The cupboard has {taken} already; leave that tag out or take another.")
        self.names |= {plain(item.name) for item in items if item.count == 1}
        words = ", ".join((result.words, *((condition,) if condition != "good" else ()), f"in: {store}"))
        return result.model_copy(update={"items": items, "words": words if items else ""})

    def _take_store(self, text: str) -> tuple[str, str]:
        """Where it is kept, said at the end: "in the van", or a store that is known by itself."""
        if (last := re.search(r"\s*,\s*([^,;]+)$", text)) and plain(_without_article(last[1])) in self.stores:
            return text[: last.start()], _without_article(last[1])
        if (named := _IN_STORE.search(text)) and not self._is_part(text):
            self.stores.add(plain(named["store"]))
            return text[: named.start()], named["store"].strip()
        return text, self.store

    def _is_part(self, text: str) -> bool:
        """Whether the words with "in" are a part's name, as with a plug in a certain form."""
        return any(not line.problem for line in read_kit(self.rig, text).lines)

    def _kit(self, text: str, line: str) -> CupboardLine:
        (read,) = read_kit(self.rig, text).lines or (KitLine(line=line, words="", items=(), problem="Say what it is."),)
        if read.problem is not None:
            return _refused(line, read.problem.replace("the kit", "the cupboard"))
        if not all(item.owned for item in read.items):
            return _refused(line, "The cupboard has what the house owns; what is to be got is on a rig's kit.")
        if any(item.installed for item in read.items):
            return _refused(line, "What is built in belongs to the venue; type it there.")
        parts = {**library(), **self.rig.parts_by_id}
        first = read.items[0]
        part = parts[first.part]
        if read.is_tagged or len(read.items) == 1:
            named = [(item.tag if read.is_tagged else self._numbered(_short(part)), 1) for item in read.items]
        else:
            length = f", {first.length_m:g} m" if first.length_m else ""
            named = [(f"{_short(part)}{length}"[:110], len(read.items))]
        items = tuple(
            CupboardItem(id=self._id(name), name=name, part=part, count=count, length_m=first.length_m)
            for name, count in named
        )
        return CupboardLine(line=line, words=read.words, items=items, problem=None)

    def _devices(self, text: str, line: str) -> CupboardLine | None:
        """A device by what people call it, with a name before a colon or with how many there are."""
        try:
            rest, tags = read_tags(text)
        except LineProblem as problem:
            return _refused(line, str(problem))
        count, rest = read_count(rest)
        name = rest.strip(" ,.;:")
        singular = name.removesuffix("s")
        kinds = self._kinds(name) or self._kinds(singular) or self._kinds_with_number(name)
        if not kinds:
            return None
        called = {plain(word) for word in (*kinds[0].called, kinds[0].name)}
        if len(kinds) > 1 and called.isdisjoint((plain(name), plain(singular))):
            return _refused(
                line, f"That could be: {'; '.join(part.name for part in kinds[:5])}. Write more of its name."
            )
        part = kinds[0]
        count = max(count or 1, len(tags))
        if count > MOST_ALIKE:
            return _refused(line, f"{count} at once is more than a cupboard holds; write 1 to {MOST_ALIKE}.")
        if tags and len(tags) != count:
            return _refused(line, f"There are {len(tags)} names for {count} devices; make the two agree.")
        typed = (singular if count > 1 else name)[:100]
        named = [(tag, 1) for tag in tags] or [(self._numbered(typed[:1].upper() + typed[1:]), count)]
        items = tuple(CupboardItem(id=self._id(tag), name=tag, part=part, count=number) for tag, number in named)
        words = f"{count} \N{MULTIPLICATION SIGN} {part.name}"
        return CupboardLine(line=line, words=words, items=items, problem=None)

    def _kinds(self, name: str) -> tuple[Part, ...]:
        return tuple({part.id: part for part in self.directory.kinds_called(name)}.values())

    def _kinds_with_number(self, name: str) -> tuple[Part, ...]:
        """ "Digital mixer 32", "digital mixer, 32 inputs": of the kind's parts those whose name has the number."""
        match = re.fullmatch(r"(.+?),?\s*(\d+)(?:\s+(?:inputs?|channels?|ch))?", name)
        if match is None:
            return ()
        kinds = self._kinds(match[1])
        return tuple(part for part in kinds if match[2] in plain(part.name).split()) or kinds

    def _numbered(self, name: str) -> str:
        names = (name[:110], *(f"{name[:110]} {number}" for number in range(2, 1000)))
        return next(entry for entry in names if plain(entry) not in self.names)

    def _id(self, name: str) -> str:
        id_ = free_id(id_of(name, "thing")[:50], self.ids)
        self.ids.add(id_)
        return id_


def _take_condition(text: str) -> tuple[str, Condition, str]:
    """A condition behind a comma or in brackets, with what is remarked behind it."""
    match = _CONDITION.search(text)
    if match is None:
        return text, "good", ""
    word = match["word"].lower()
    remark = match["rest"].strip(" :;,()-\N{EN DASH}")
    if word in _AS_REMARK:
        remark = f"{word} {remark}".strip()
    return text[: match.start()], _CONDITIONS[word], remark[:600]


def _short(part: Part) -> str:
    """Its name up to what tells it from others of its kind."""
    return part.name.split(",", 1)[0]


def _without_article(words: str) -> str:
    return re.sub(r"^(?:in\s+)?(?:the\s+)?", "", words.strip(), flags=re.IGNORECASE)


def _refused(line: str, problem: str) -> CupboardLine:
    return CupboardLine(line=line, words="", items=(), problem=problem)
