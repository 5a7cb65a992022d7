"""Kit typed as people say it: "about six 10 m microphone leads", "D3: passive DI", "M40-M45 XLR lead 5 m to borrow"."""

import re
from collections.abc import Iterator
from dataclasses import dataclass

from rapidfuzz import process
from rapidfuzz.distance import OSA

from ruvak.core.entry.names import Directory
from ruvak.core.entry.words import find_length, plain
from ruvak.core.parts.library import library
from ruvak.core.pieces.route import put_ops
from ruvak.core.rig.edits import Edit
from ruvak.core.rig.part import Part
from ruvak.core.rig.rig import MAX_LENGTH_M, MIN_LENGTH_M, KitItem, Rig
from ruvak.core.rig.values import Record

COUNTS = dict(
    zip(("one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"), range(1, 11), strict=True)
) | {"a": 1, "an": 1, "dozen": 12, "twelve": 12, "twenty": 20}
MOST_EACH, MOST_LINES = 200, 400
PREFIXES = {"lead": "L", "adapter": "A", "box": "B"}

_TAG = re.compile(r"^\s*([^:=]{1,60}?)\s*[:=]\s*")
_RANGE = re.compile(r"([A-Za-z]{1,6})(\d{1,4})\s*(?:-|\N{EN DASH}|to)\s*(?:[A-Za-z]{1,6})?(\d{1,4})")
_NUMBER = rf"(\d{{1,4}}|{'|'.join(COUNTS)})"
_COUNT = re.compile(
    rf"^\s*(?:about|some|ca\.?|circa|around|roughly|~)?\s*{_NUMBER}\s*(?:x|\N{{MULTIPLICATION SIGN}}|pcs\.?|of)?\s+",
    re.IGNORECASE,
)
_TO_GET = re.compile(r",?\s*\b(?:to (?:borrow|buy|get|hire|rent)|borrowed|hired|rented)\b", re.IGNORECASE)
_BUILT_IN = re.compile(r",?\s*\b(?:installed|built[ -]in|fixed)\b", re.IGNORECASE)


class KitLine(Record):
    """One line as understood: `items` to add, or what is wrong with it and how to mend it."""

    line: str
    """The line as it was typed."""
    words: str
    """What it was understood to mean; null where it was not."""
    items: tuple[KitItem, ...]
    """What it adds."""
    problem: str | None
    """Why it was not understood; null where it was."""
    is_tagged: bool = False
    """Whether the tags were typed; otherwise they were numbered on."""


class LineProblem(Exception):
    """What is wrong with a line, as a sentence."""


class KitReading(Record):
    """All lines, and one edit for everything that was understood."""

    lines: tuple[KitLine, ...]
    """Each line as it was understood."""
    edit: Edit | None
    """The change that adds them; null where no line was understood."""


def read_tags(line: str) -> tuple[str, list[str]]:
    """What stands behind a colon, and the tags before it, a range of them written out. Raises LineProblem."""
    match = _TAG.match(line)
    if not match:
        return line, []
    tags = [match[1]]
    if several := _RANGE.fullmatch(match[1]):
        first, last = int(several[2]), int(several[3])
        if not 0 <= last - first < MOST_EACH:
            raise LineProblem(f"The tags run from {first} to {last}; write the smaller number first.")
        width = len(several[2]) if several[2].startswith("0") else 0
        tags = [f"{several[1]}{number:0{width}}" for number in range(first, last + 1)]
    return line[match.end() :], tags


def read_count(text: str) -> tuple[int | None, str]:
    """How many, where the text begins with a number, and what stands behind it."""
    match = _COUNT.match(text)
    if not match:
        return None, text
    return COUNTS.get(match[1].lower()) or int(match[1]), text[match.end() :]


def read_kit(rig: Rig, text: str) -> KitReading:
    """Every line that is not empty; the rig is prepared. Of more than MOST_LINES the last one says which were not
    read."""
    reader = _Reader(rig)
    every = [line for line in text.splitlines() if line.strip()]
    lines = tuple(reader.line(line) for line in every[:MOST_LINES])
    if len(every) > MOST_LINES:
        more = f"{len(every) - MOST_LINES} more lines, from this one on, were not read"
        said = f"{more}: {MOST_LINES} at once are the most. Add these and then the rest."
        lines = (*lines, KitLine(line=every[MOST_LINES].strip(), words="", items=(), problem=said))
    items = [item for line in lines for item in line.items]
    if not items:
        return KitReading(lines=lines, edit=None)
    understood = [line.words for line in lines if line.items]
    label = f"Kit: {understood[0]}" if len(understood) == 1 else f"Kit: {len(items)} items"
    return KitReading(lines=lines, edit=Edit(label=label[:120], ops=tuple(put_ops(rig, tuple(items)))))


@dataclass
class _Reader:
    """Reads line after line; tags and ids given out are remembered."""

    rig: Rig

    def __post_init__(self) -> None:
        self.directory = Directory(self.rig)
        self.tags = {plain(item.tag) for item in self.rig.kit}
        self.ids = set(self.rig.owners_by_id)

    def line(self, line: str) -> KitLine:
        try:
            words, items, is_tagged = self._understood(line)
        except LineProblem as problem:
            return KitLine(line=line.strip(), words="", items=(), problem=str(problem))
        return KitLine(line=line.strip(), words=words, items=items, problem=None, is_tagged=is_tagged)

    def _understood(self, line: str) -> tuple[str, tuple[KitItem, ...], bool]:
        rest, tags = read_tags(line)
        is_tagged = bool(tags)
        if there := [tag for tag in tags if plain(tag) in self.tags]:
            raise LineProblem(f"{there[0]} is in the kit already; leave that tag out or take another.")
        owned, installed = _TO_GET.search(rest) is None, _BUILT_IN.search(rest) is not None
        rest = _BUILT_IN.sub("", _TO_GET.sub("", rest))
        length = find_length(rest)
        if length is not None:
            rest = rest[: length.start] + " " + rest[length.end :]
        counted, rest = read_count(rest)
        count = counted if counted is not None else len(tags) or 1
        part = self._part(rest)
        length_m = self._length(part, length.metres if length else None)
        if not 0 < count <= MOST_EACH:
            raise LineProblem(f"{count} at once is more than a cupboard holds; write 1 to {MOST_EACH}.")
        if tags and len(tags) != count:
            raise LineProblem(f"There are {len(tags)} tags for {count} pieces; make the two agree.")
        tags = tags or list(self._free_tags(part, count))
        items = tuple(
            KitItem(id=self._id(tag), tag=tag, part=part.id, length_m=length_m, owned=owned, installed=installed)
            for tag in tags
        )
        self.tags |= {plain(tag) for tag in tags}
        metres = f", {length_m:g} m" if length_m else ""
        return f"{count} \N{MULTIPLICATION SIGN} {part.name}{metres}{'' if owned else ', to get'}", items, is_tagged

    def _part(self, text: str) -> Part:
        name = plain(re.sub(r"[.,;:\s]+$", "", text.strip(" ,.;:")))
        if not name:
            raise LineProblem("Say what it is: microphone lead, passive DI, line isolator, …")
        parts = self._find_parts(name) or self._nearly(name)
        if not parts:
            raise LineProblem(
                f"Nothing here is called \N{LEFT DOUBLE QUOTATION MARK}{name}\N{RIGHT DOUBLE QUOTATION MARK}."
            )
        if len(parts) > 1:
            names = "; ".join(part.name for part in parts[:5])
            raise LineProblem(f"That could be: {names}. Write more of its name.")
        return parts[0]

    def _find_parts(self, name: str) -> tuple[Part, ...]:
        """By a full name first, then by the end of one."""
        for entry in dict.fromkeys((name, name.removesuffix("s"), name.removesuffix("es"))):
            parts = self.directory.kit.find_parts(entry)
            full = tuple(part for part in parts if entry in {plain(word) for word in (*part.called, part.name)})
            if full or parts:
                return full or parts
        return ()

    def _nearly(self, name: str) -> tuple[Part, ...]:
        """With a slip or two."""
        parts = (part for part in {**library(), **self.rig.parts_by_id}.values() if part.kind != "gear")
        known = {plain(word): part for part in parts for word in (*part.called, part.name)}
        slips = 1 if len(name) < 6 else 2 if len(name) < 10 else 3
        near = process.extract(name.removesuffix("s"), list(known), scorer=OSA.distance, score_cutoff=slips, limit=1)
        return tuple(known[entry[0]] for entry in near)

    def _length(self, part: Part, length_m: float | None) -> float | None:
        if part.cables and length_m is None:
            lengths = ", ".join(f"{length_m:g}" for length_m in part.stock_lengths_m[:6])
            usual = f" (usual: {lengths} m)" if lengths else ""
            raise LineProblem(f"How long? Write a length with its unit{usual}.")
        if not part.cables and length_m is not None:
            raise LineProblem(f"{part.name} has no cable of its own; leave the length out.")
        if length_m is not None and not MIN_LENGTH_M <= length_m <= MAX_LENGTH_M:
            raise LineProblem(f"A length is {MIN_LENGTH_M:g} to {MAX_LENGTH_M:g} m.")
        return round(length_m, 3) if length_m is not None else None

    def _free_tags(self, part: Part, count: int) -> Iterator[str]:
        """Numbered on from the tags that pieces of this kind have."""
        known = [re.fullmatch(r"([A-Za-z]+)(\d+)", item.tag) for item in self.rig.kit if item.part == part.id]
        prefix = next((entry[1] for entry in known if entry), PREFIXES.get(part.kind, "K"))
        number = 0
        for _ in range(count):
            number += 1
            while plain(f"{prefix}{number}") in self.tags:
                number += 1
            yield f"{prefix}{number}"

    def _id(self, tag: str) -> str:
        stem = re.sub(r"[^a-z0-9]+", "-", tag.lower()).strip("-")[:50] or "kit"
        name, number = stem, 1
        while name in self.ids:
            number += 1
            name = f"{stem}-{number}"
        self.ids.add(name)
        return name
