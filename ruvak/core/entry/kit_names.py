"""Names of leads, adapters and boxes: by what people call a kind, by the tag of one, and what is built in."""

import re
from collections.abc import Iterable
from functools import cached_property, lru_cache

from ruvak.core.entry.leads_by_ends import find_by_ends
from ruvak.core.entry.words import plain, plain_piece
from ruvak.core.parts.library import library
from ruvak.core.pieces.pool import is_multicore
from ruvak.core.rig.part import Part
from ruvak.core.rig.rig import KitItem, Rig


class KitNames:
    """Every name of a rig's kit, and of the library's parts for it."""

    def __init__(self, rig: Rig) -> None:
        self.rig = rig

    @cached_property
    def built_in(self) -> dict[str, KitItem]:
        """Installed lines and multicores by their tags, each word of a tag, and what their parts are called."""
        passed = [(item, self.rig.part_of(item.id)) for item in self.rig.kit]
        passed = [
            (item, part) for item, part in passed if item.installed or (part.kind != "adapter" and is_multicore(part))
        ]
        result: dict[str, KitItem] = {}
        for item, _ in passed:
            for word in (plain(item.tag), *plain(item.tag).split()):
                result.setdefault(word, item)
        # What it is called comes behind the tags of all: a floor box and a wall plate may be of one kind.
        for item, part in passed:
            for word in map(plain, part.called):
                result.setdefault(word, item)
        return result

    @cached_property
    def by_tag(self) -> dict[str, KitItem]:
        """Single leads, adapters and boxes by tag."""
        return {plain(item.tag): item for item in self.rig.kit}

    def find_parts(self, text: str) -> tuple[Part, ...]:
        """Boxes, adapters and leads of that name, or whose name ends in it: "di" takes in every DI box."""
        text = plain_piece(re.sub(r"[()]", " ", text))
        if text not in self._found:
            self._found[text] = tuple(self._find(text).values())
        return self._found[text]

    @cached_property
    def _found(self) -> dict[str, tuple[Part, ...]]:
        """What was looked for before: a line's reading asks for the same words often."""
        return {}

    def _find(self, text: str) -> dict[str, Part]:
        exact = self._called(text)
        kind = next((word for word in ("lead", "adapter") if text.endswith(f" {word}")), None)
        bare = text.removesuffix(f" {kind}")
        if not exact and kind is not None:
            # "XLR to jack lead" is called "XLR to jack".
            exact = {id_: part for id_, part in self._called(bare).items() if part.kind == kind}
        if exact and all(part.kind == "lead" for part in exact.values()):
            # An "XLR lead" is no "3.5 mm to XLR lead", while a "DI" is any of them.
            return exact
        by_ends = {part.id: part for part in find_by_ends(text)} if not exact else {}
        result = by_ends or self._ending_in(text)
        if not result and kind is not None:
            result = {id_: part for id_, part in self._ending_in(bare).items() if part.kind == kind}
        return result or self._of_the_same_words(text)

    def find_boxes(self, text: str) -> tuple[Part, ...]:
        """The boxes among the parts of that name."""
        return tuple(part for part in self.find_parts(text) if part.kind == "box")

    @cached_property
    def _own_names(self) -> "_Names":
        return _Names(part for part in self.rig.parts if part.kind != "gear")

    def _called(self, text: str) -> dict[str, Part]:
        """Of just that name."""
        return {**_library_names().exact.get(text, {}), **self._own_names.exact.get(text, {})}

    def _ending_in(self, text: str) -> dict[str, Part]:
        """Of a name that is so or ends so."""
        return {**_library_names().endings.get(text, {}), **self._own_names.endings.get(text, {})}

    def _of_the_same_words(self, text: str) -> dict[str, Part]:
        """ "DI stereo" is a stereo DI."""
        words = tuple(sorted(text.split()))
        return {**_library_names().words.get(words, {}), **self._own_names.words.get(words, {})}


class _Names:
    """Leads, adapters and boxes by what people call them: by whole names, by endings, by words in any order."""

    def __init__(self, parts: Iterable[Part]) -> None:
        self.exact: dict[str, dict[str, Part]] = {}
        self.endings: dict[str, dict[str, Part]] = {}
        self.words: dict[tuple[str, ...], dict[str, Part]] = {}
        for part in parts:
            for called in part.called:
                name = plain_piece(called)
                self.exact.setdefault(name, {})[part.id] = part
                self.words.setdefault(tuple(sorted(name.split())), {})[part.id] = part
            for name in map(plain_piece, (*part.called, part.name)):
                words = name.split()
                for start in range(len(words)):
                    self.endings.setdefault(" ".join(words[start:]), {})[part.id] = part


@lru_cache(maxsize=1)
def _library_names() -> _Names:
    return _Names(part for part in library().values() if part.kind != "gear")
