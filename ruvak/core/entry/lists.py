"""Several devices at one end of a line: listed by name, or counted."""

import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field

from ruvak.core.entry.grammar import parse
from ruvak.core.entry.sockets import Role
from ruvak.core.entry.words import expand_ranges, plain

_BETWEEN = re.compile(r"\s*,\s*(?:and\s+)?|\s+and\s+|\s*/\s*", re.IGNORECASE)
_BETWEEN_GOALS = re.compile(rf"{_BETWEEN.pattern}|\s+\+\s+", re.IGNORECASE)
_BETWEEN_NAMES = re.compile(r"\s*,\s*(?:and\s+)?|\s+and\s+", re.IGNORECASE)
_SOCKET = "in|out|input|output|line|mic|xlr|jack|rca|trs|ts"
_SEVERAL_THINGS = rf"(?!\d\d?\s*x?\s+(?!(?:{_SOCKET}|m|ft)s?\b)[a-z]{{2}})"
"""Not before "2 toms", which are names in a list."""
_NO_NAME = re.compile(
    rf"(?:(?:l|r|left|right)(?:\s+(?:{_SOCKET})s?)*|[\d\s\-]*|{_SEVERAL_THINGS}\d.*|in|out|mono|stereo)",
    re.IGNORECASE,
)
"""Sides, places and words for sockets: "keys left/right" is one device."""
_IN_AND_OUT = re.compile(r"(kick|bass drum|bd) in(?:\s*[/,&+]\s*|\s+and\s+)out", re.IGNORECASE)
"""Microphones inside a drum and before it, no sockets."""
_OTHER_PLACES = frozenset(
    ("top", "bottom", "under", "over", "low", "high", "front", "back", "rear", "near", "far", "hi", "lo")
)
"""Said alone they mean another place at the same thing: "snare top/bottom"."""
COUNTS = {"two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8}
_TIMES = re.compile(r"(?:(?P<before>\d\d?)\s*x\s+(?P<name>\D+)|(?P<first>\D+?)\s+x\s*(?P<behind>\d\d?))", re.IGNORECASE)
"""Counted with a times sign: "4x choir mic", "choir mics x4"."""
_COUNTED = re.compile(
    rf"(?:({'|'.join(COUNTS)})|(\d\d?)(?:\s*x)?)\s+(?P<name>\D+s|(?:\D+\s)?(?:OH|vox))", re.IGNORECASE
)
_COUNTED_MICS = re.compile(
    r"(?P<name>\D+?)\s+(?P<count>\d\d?)\s+(?P<kind>(?:[a-z][\w-]*\s+)?(?:mics|microphones))", re.IGNORECASE
)
"""Counted behind a name: "drum kit 7 mics"."""
_ONE_THING = re.compile(r"(?:.*\s)?(?:keys|drums|strings|bass|mains)", re.IGNORECASE)
"""Plural words for a single device: "7 keys" is no seven keyboards, though "4 headphones" are four."""

_OF_THE_DESK = frozenset(("", "ch", "chan", "channel", "channels", "input", "inputs", "mic", "line"))
_DATA = frozenset(("usb", "hdmi"))
"""A line with one of these asks for no socket of sound."""


@dataclass(frozen=True)
class NamedInList:
    """What the lines of a list say of a device that the first of them adds: it is chosen so that it does for all.

    `places`: by name the numbers behind it; `ends`: by name whether sound leaves it, arrives at it, or both.
    """

    places: Mapping[str, frozenset[str]] = field(default_factory=dict)
    ends: Mapping[str, frozenset[Role]] = field(default_factory=dict)


def named_in(lines: Iterable[str]) -> NamedInList:
    """All names at the ends of several lines."""
    places: dict[str, set[str]] = {}
    ends: dict[str, set[Role]] = {}
    roles: tuple[Role, ...] = ("source", "goal")
    for line in lines:
        sentence = parse(line)
        for piece, role in zip((sentence.pieces[0], sentence.pieces[-1]), roles, strict=True):
            words = plain(expand_ranges(piece.text)).split()
            first = next((place for place, word in enumerate(words) if word.isdigit()), len(words))
            name = " ".join(words[:first])
            # "Choir > 24", "choir > ch 24": the desk's.
            name = "desk" if role == "goal" and name in _OF_THE_DESK else name
            figures = {word for word in words[first:] if word.isdigit()}
            if name and figures:
                places.setdefault(name, set()).update(figures)
            if name and sentence.arrows and not _DATA & set(plain(line).split()):
                ends.setdefault(name, set()).add(role)
    return NamedInList(
        {name: frozenset(figures) for name, figures in places.items()},
        {name: frozenset(both) for name, both in ends.items()},
    )


def is_no_name(text: str) -> bool:
    """Whether words are a side, a place or a word for a socket, and no device's name."""
    return _NO_NAME.fullmatch(text.strip()) is not None


def split_list(text: str, role: Role) -> list[str]:
    """The names in "kick, snare and hat"; of two sources with a plus sign between them one run is made, not two."""
    names = [name.strip() for name in (_BETWEEN_GOALS if role == "goal" else _BETWEEN).split(text)]
    if (both := _IN_AND_OUT.fullmatch(text)) is not None and role == "source":
        return [f"{both[1]} in", f"{both[1]} out"]
    if any(map(_NO_NAME.fullmatch, names)):
        # "desk 7/8 and recorder": the stroke stands between places, the other words between names.
        names = [name.strip() for name in _BETWEEN_NAMES.split(text)]
    if any(map(_NO_NAME.fullmatch, names)):
        return [text]
    stem = names[0].rpartition(" ")[0]
    return [f"{stem} {name}" if stem and name.lower() in _OTHER_PLACES else name for name in names]


def numbered(text: str) -> str:
    """ "two speakers" as "speakers 1-2"."""
    if (times := _TIMES.fullmatch(text.strip())) is not None:
        name, count = times["name"] or times["first"], int(times["before"] or times["behind"])
        return f"{name.strip().rstrip('s')}s 1-{count}" if count > 1 else name.strip()
    if (mics := _COUNTED_MICS.fullmatch(text.strip())) is not None and int(mics["count"]) > 1:
        return f"{mics['name']} {mics['kind']} 1-{mics['count']}"
    counted = _COUNTED.fullmatch(text.strip())
    if counted is None or (counted[2] and _ONE_THING.fullmatch(counted["name"])):
        return text
    count = COUNTS[counted[1].lower()] if counted[1] else int(counted[2])
    return f"{counted['name']} 1-{count}" if count > 1 else text
