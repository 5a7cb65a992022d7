"""What a line passes on its way: lines built in, multicores and boxes, those that nobody has yet included."""

import re
from collections.abc import Collection

from ruvak.core.entry.context import LineContext
from ruvak.core.entry.grammar import Piece
from ruvak.core.entry.sockets import sockets, tokens, usable
from ruvak.core.entry.wanted import Through, problem
from ruvak.core.entry.words import expand_ranges, plain
from ruvak.core.parts.library import embed
from ruvak.core.pieces.pool import is_multicore
from ruvak.core.rig.ids import free_id, id_of
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import KitItem, connectors_in_use

PASSING = ("return", "returns", "send", "sends")
_SIZE = re.compile(r"(?P<ways>\d+)[\s-]*(?:way|channel|ch|line|send|core|pair)s?\s+(?P<name>\D.*)", re.I)
_KINDS_OF_PLACES = frozenset(("plate", "box", "pocket", "panel", "bay", "patchbay", "line", "lines"))
"""The last word of what is fixed somewhere, so that another name means another place; a multicore has many names."""
ASSUMED_MULTICORE_M = 20.0
"""How long a multicore is that nobody has yet, where the line does not say: a hall from desk to stage."""


class Passing:
    """Finds and brings what is passed. Raises Refused."""

    def __init__(self, context: LineContext) -> None:
        self.context = context

    def bring(self, pieces: list[Piece], length_m: float | None) -> None:
        """A multicore or a pair of boxes that a line passes and nobody has: with as few lines as the places allow."""
        passed: set[str] = set()
        for piece in pieces:
            item = self.built_in(piece)
            if item is not None and not self._is_another(item, piece, passed):
                passed.add(item.id)
                self._enlarge(item, piece)
                continue
            need_m = piece.length_m or length_m or ASSUMED_MULTICORE_M
            if (part := self.part_of(piece, need_m)) is not None:
                title = " ".join(_words_before_places(piece))
                brought = KitItem(
                    id=free_id(id_of(plain(title), "multicore"), self.context.rig.owners_by_id),
                    tag=title[:1].upper() + title[1:],
                    part=part.id,
                    length_m=_length_of(part, need_m),
                    owned=False,
                )
                passed.add(brought.id)
                self.context.go_on_with(embed(self.context.rig.with_fields(kit=(*self.context.rig.kit, brought))))

    def _is_another(self, item: KitItem, piece: Piece, passed: Collection[str]) -> bool:
        """Whether a piece that may be an item of the rig by its kind, though its tag says something else, is another of
        that kind: "floor box 1 > wall plate 1", or a place that is in use on the one that is there."""
        title = _words_before_places(piece)
        if not set(title) - set(plain(item.tag).split()) or not set(title) & _KINDS_OF_PLACES:
            return False
        _, words = _words_of(piece)
        part, used = self.context.rig.part_of(item.id), connectors_in_use(self.context.rig)
        named = sockets(part, tuple(word for word in words if word.isdigit()), "through")
        return item.id in passed or any(
            Endpoint(item.id, place) in used for position in named.positions for place in position
        )

    def _enlarge(self, item: KitItem, piece: Piece) -> None:
        """Of a multicore that is still to be got, a larger one where the line names a place that it lacks."""
        size, words = _words_of(piece)
        places = (*size, *(word for word in words if word.isdigit() or word in PASSING))
        if item.owned or sockets(self.context.rig.part_of(item.id), places, "through").unknown is None:
            return
        have = {connector.id for connector in self.context.rig.part_of(item.id).connectors}
        larger = self.part_of(piece)
        if larger is None or not have < {connector.id for connector in larger.connectors}:
            return
        after = item.model_copy(update={"part": larger.id, "length_m": _length_of(larger, item.length_m or 0.0)})
        kit = tuple(after if each.id == item.id else each for each in self.context.rig.kit)
        self.context.go_on_with(embed(self.context.rig.with_fields(kit=kit)))

    def part_of(self, piece: Piece, need_m: float = 0.0) -> Part | None:
        """The smallest multicore of the library that a piece of a line may mean, with the places it names; before it
        comes what is made as long as is needed."""
        size, words = _words_of(piece)
        places = [*size, *(word for word in words if word.isdigit())]
        kinds = [word for word in words if word in PASSING]
        before = _words_before_places(piece)
        whole = " ".join(before)
        called_so = [part for part in self.context.directory.kit.find_parts(whole) if whole in map(plain, part.called)]
        if not called_so and {whole, whole.removesuffix("s")} & self.context.directory.new.by_name.keys():
            # A "press box" is a device, though a "box" is passed.
            return None
        if any(not is_multicore(part) for part in called_so):
            # A "D-type loom" is a lead of one run, though a "loom" is a multicore.
            return None
        # "Stage left wall box": the last words say what it is, as many of them as there is a name for.
        ends = (" ".join(before[start:]) for start in range(len(before)))
        # "Organ tie lines 1/2" are two of one thing.
        titles = (title for end in ends for title in dict.fromkeys((end, end.removesuffix("s"))))
        kinds_called = (
            [
                part
                for part in self.context.directory.kit.find_parts(title)
                if title in map(plain, part.called) and is_multicore(part)
            ]
            for title in titles
        )
        fitting = [
            part
            for part in next(filter(None, kinds_called), [])
            if sockets(part, (*kinds, *places), "through").unknown is None
        ]
        return min(fitting, key=lambda part: (max(part.stock_lengths_m) < need_m, len(part.connectors)), default=None)

    def built_in(self, piece: Piece) -> KitItem | None:
        """What is built in, or a multicore of the rig, by the first words of a piece of a line."""
        _, words = _words_of(piece)
        for count in range(len(words), 0, -1):
            name = " ".join(words[:count])
            if name in self.context.directory.by_name:
                return None
            for wanted in (name, name.replace(" ", "")):
                known = self.context.directory.kit.built_in
                squeezed = {entry.replace(" ", ""): item for entry, item in known.items()}
                if wanted in known or wanted in squeezed:
                    return known.get(wanted) or squeezed[wanted]
        return None

    def _free_places(self, item: KitItem, kinds: list[str], many: int) -> list[str]:
        """So many numbers of its lines that no run uses, the lowest."""
        part, used = self.context.rig.part_of(item.id), connectors_in_use(self.context.rig)
        free: dict[str, None] = {}
        for connector in usable(part, "through"):
            for word in tokens(connector):
                named = sockets(part, (*kinds, word), "through") if word.isdigit() else None
                if named is not None and named.positions and Endpoint(item.id, named.positions[0][0]) not in used:
                    free[word] = None
        return sorted(free, key=int)[:many]

    def through(self, passed: list[tuple[KitItem, Piece]], index: int, wide: int, many: int) -> tuple[Through, ...]:
        """What is built in, with the entries this run takes: `wide` of them, the line naming `many` altogether."""
        result: list[Through] = []
        for item, piece in passed:
            _, words = _words_of(piece)
            part = self.context.rig.part_of(item.id)
            places = [word for word in words if word.isdigit()]
            kinds = [word for word in words if word in PASSING]
            if not places:
                # "network box" for four microphones: the first of its lines that are free.
                places = self._free_places(item, kinds, many)
            named = sockets(part, (*kinds, *places), "through")
            if named.unknown is not None or not named.positions:
                have = ", ".join(usable_way.label for usable_way in usable(part, "through")[:6])
                raise problem("unknown_socket", piece, f"{item.tag} has no “{named.unknown or '?'}”; it has {have}, …")
            if len(named.positions) != many:
                sentence = f"{item.tag} is given {len(named.positions)} places, but {many} are wanted."
                raise problem("counts_differ", piece, sentence)
            own = named.positions[index * wide : (index + 1) * wide]
            entries = tuple(Endpoint(item.id, position[0]) for position in own)
            if any(entry in through.entries for through in result for entry in entries):
                raise problem(
                    "socket_taken", piece, f"{item.tag} is passed twice at one place: name another of its lines."
                )
            result.append(Through(item, entries))
        return tuple(result)


def _words_of(piece: Piece) -> tuple[tuple[str, ...], list[str]]:
    """How many lines it has, where the first words say so ("16-way multicore"), and its other words."""
    text = plain(expand_ranges(plain(piece.text)))
    sized = _SIZE.fullmatch(text)
    return ((sized["ways"],), sized["name"].split()) if sized else ((), text.split())


def _words_before_places(piece: Piece) -> list[str]:
    _, words = _words_of(piece)
    stop = next((at for at, word in enumerate(words) if word.isdigit() or word in PASSING), len(words))
    of_places = ("ch", "chan", "channel", "channels", "line", "lines", "pair", "no")
    while stop > 1 and words[stop - 1] in of_places and words[stop - 2] != "tie":
        stop -= 1
    return words[:stop]


def _length_of(part: Part, need_m: float) -> float:
    """The shortest usual length that reaches, or the longest there is."""
    return min((each for each in part.stock_lengths_m if each >= need_m), default=part.stock_lengths_m[-1])
