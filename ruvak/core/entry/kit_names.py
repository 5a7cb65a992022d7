"""Names of leads, adapters and boxes: by what people call a kind, by the tag of one, and what is built in."""

import re
from functools import cached_property

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

    def find_boxes(self, text: str) -> tuple[Part, ...]:
        """The boxes among the parts of that name."""
        return tuple(part for part in self.find_parts(text) if part.kind == "box")

    def _parts_named(self, text: str) -> dict[str, Part]:
        result: dict[str, Part] = {}
        for part in (*library().values(), *self.rig.parts):
            names = [plain_piece(word) for word in (*part.called, part.name)] if part.kind != "gear" else []
            if any(name == text or name.endswith(f" {text}") for name in names):
                result[part.id] = part
        return result
