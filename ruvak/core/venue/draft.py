"""The earth's tree while lines are read: points found by what people call them, added, changed and taken out."""

import re
from collections.abc import Callable, Iterator
from functools import lru_cache
from typing import Any

from ruvak.core.entry.words import plain
from ruvak.core.rig.check_earth import HIGHER
from ruvak.core.rig.earth import EarthPoint, PointKind
from ruvak.core.rig.edits import Op, PutThing, RemoveThing, changes
from ruvak.core.rig.ids import free_id, id_of
from ruvak.core.rig.rig import Rig

KIND_WORDS: dict[str, PointKind] = {
    "building": "building",
    "board": "board",
    "panel": "board",
    "distro": "board",
    "db": "board",
    "consumer unit": "board",
    "sub board": "board",
    "distribution board": "board",
    "fuse box": "board",
    "circuit": "circuit",
    "ring": "circuit",
    "radial": "circuit",
    "spur": "circuit",
    "strip": "strip",
    "extension": "strip",
    "extension lead": "strip",
    "extension cable": "strip",
    "ups": "strip",
    "power strip": "strip",
    "outlet": "outlet",
    "socket": "outlet",
    "wall outlet": "outlet",
    "wall socket": "outlet",
    "floor box": "outlet",
    "floor socket": "outlet",
}
"""What people call each kind, longest first where they are looked for."""
KINDS = "|".join(sorted(KIND_WORDS, key=len, reverse=True))
NAMED = re.compile(rf"^(?P<before>.*?)\b(?P<kind>{KINDS})(?:(?<=box)es|s)?\b(?P<after>.*)$", re.IGNORECASE)
_NUMBERED = re.compile(rf"^\s*({KINDS})\s+(\d+[a-z]?|[a-z]\d*)\b")


class Problem(Exception):
    """What is wrong with a line, as a sentence."""


class Draft:
    """Points by id, in order; what is read changes them, and `ops` says how that differs from the rig."""

    def __init__(self, rig: Rig) -> None:
        self._rig = rig
        self._before = {point.id: point for point in rig.venue.earth}
        self.points = dict(self._before)

    def find(self, words: str) -> EarthPoint | None:
        """The point of that name: in full, by its kind and number ("circuit 2"), or by its words in any order.

        Raises Problem where several are meant.
        """
        wanted, number, key = plain(words), _number(words), _key(words)
        ways: list[Callable[[EarthPoint], bool]] = [lambda point: _plain(point.name) == wanted or point.id == wanted]
        if number is not None:
            # Another number is another point, whatever else stands in its name.
            ways.append(lambda point: _number(point.name) == number)
        elif key:
            ways.append(lambda point: _key(point.name) == key)
            ways.append(lambda point: key <= _key(point.name))
        kind = _kind_of(words)
        for way in ways:
            matches = [
                point
                for point in self.points.values()
                if way(point) and (kind in (None, point.kind) or point.name.lower() == words.lower())
            ]
            if len(matches) > 1:
                names = " or ".join(point.name for point in matches[:4])
                raise Problem(f"“{words.strip()}” may be {names}; write the whole name.")
            if matches:
                return matches[0]
        return None

    def require(self, words: str) -> EarthPoint:
        """As find(). Raises Problem where there is none."""
        point = self.find(words)
        if point is None:
            have = ", ".join(point.name for point in list(self.points.values())[:8]) or "none yet"
            raise Problem(f"There is no “{words.strip()}” here. There is {have}.")
        return point

    def add(self, name: str, kind: PointKind, parent: str | None) -> EarthPoint:
        """A new point."""
        taken = self.points.keys() | self._rig.owners_by_id.keys()
        point = EarthPoint(id=free_id(id_of(name, kind), taken), name=name, kind=kind, parent=parent)
        self.points[point.id] = point
        return point

    def change(self, point: EarthPoint, **fields: Any) -> EarthPoint:
        """The point with other fields."""
        result = EarthPoint.model_validate({**point.model_dump(), **fields})
        self.points[point.id] = result
        return result

    def remove(self, point: EarthPoint) -> None:
        """Raises Problem while something hangs on it or is plugged into it."""
        for other in self.points.values():
            if other.parent == point.id:
                raise Problem(f"{other.name} hangs on {point.name}; remove that first, or say what it is on.")
        for device in self._rig.gear:
            if device.outlet == point.id:
                raise Problem(f"{device.name} is plugged into {point.name}; say first where its plug is.")
        for other in self.points.values():
            if other.voltage is not None and other.voltage.against == point.id:
                raise Problem(f"The voltage of {other.name} was measured against {point.name}; measure it again first.")
        del self.points[point.id]

    def above(self, point: EarthPoint, kind: PointKind) -> EarthPoint:
        """What a point of this kind hangs on where it is plugged in at `point`: of a strip in an outlet, the outlet's
        circuit. Raises Problem where nothing above can carry it."""
        here: EarthPoint | None = point
        while here is not None and HIGHER.index(here.kind) < HIGHER.index(kind):
            here = self.points.get(here.parent or "")
        if here is None:
            raise Problem(f"A {kind} cannot hang on {point.name}, a {point.kind}; say which circuit or board it is on.")
        return here

    def only_board(self) -> str | None:
        """What a circuit is on that says nothing: the board, where there is one alone."""
        boards = [point.id for point in self.points.values() if point.kind == "board"]
        return boards[0] if len(boards) == 1 else None

    def ops(self) -> Iterator[Op]:
        """What was added in order, changed and taken out."""
        for point in self.points.values():
            if point.id not in self._before:
                yield PutThing(kind="earth", thing=point)
            else:
                yield from changes("earth", self._before[point.id], point)
        yield from (RemoveThing(kind="earth", id=gone) for gone in reversed(self._before) if gone not in self.points)


@lru_cache(maxsize=8192)
def _plain(name: str) -> str:
    return plain(name)


@lru_cache(maxsize=8192)
def _number(words: str) -> tuple[PointKind, str] | None:
    """Kind and number of "Circuit 2, stage" or "outlet 5b"; None where it has none."""
    match = _NUMBERED.match(words.lower())
    return (KIND_WORDS[match[1]], match[2]) if match else None


@lru_cache(maxsize=8192)
def _key(words: str) -> frozenset[str]:
    """The words of a name, whatever their order, kinds by one word each: "strip stage left" is "Stage left strip"."""
    each = (KIND_WORDS.get(word, word) for word in re.findall(r"\w+", words.lower()))
    return frozenset(each) - {"the", "my", "our"}


def _kind_of(words: str) -> PointKind | None:
    """The kind that words say; None where they say none."""
    match = NAMED.match(plain(words))
    return KIND_WORDS[match["kind"].lower()] if match is not None else None
