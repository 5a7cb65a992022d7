"""Ways to go on with a line that is being typed: names, then sockets that are free, then a length."""

import re

from ruvak.core.entry.names import Directory
from ruvak.core.entry.reading import MOST_LETTERS
from ruvak.core.entry.sockets import Role, tokens, usable
from ruvak.core.entry.words import expand_ranges, find_length, legible, plain
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import Gear, Rig, connectors_in_use

MOST = 8
_ARROW = re.compile(r"\s*(?:=>|->|>|\N{RIGHTWARDS ARROW})\s*")
_MOVES = re.compile(r"\s+(?:is now|moves? to)\s+", re.I)


def completions(rig: Rig, line: str) -> tuple[str, ...]:
    """Whole lines that begin as this one does, likeliest first; none for one that is too long to be a line."""
    if len(line) > MOST_LETTERS:
        return ()
    line = legible(line)
    moves = not _ARROW.search(line) and _MOVES.search(line) is not None
    *done, current = (_MOVES if moves else _ARROW).split(line)
    head = line[: len(line) - len(current)]
    role: Role = "goal" if done else "source"
    if find_length(current) or "," in current:
        return ()
    taken = connectors_in_use(rig)
    result = [*_names(rig, current, role, taken), *_sockets(rig, current, role, taken)]
    if role == "source" and _find_gear(rig, current):
        result.insert(0, f"{current.rstrip()} > ")
    elif role == "goal" and not moves and _find_gear(rig, current):
        unit = "ft" if rig.length_unit == "ft" else "m"
        result += [f"{current.rstrip()}, {length} {unit}" for length in ((30, 60) if unit == "ft" else (10, 20))]
    whole = (head + entry for entry in result)
    return tuple(dict.fromkeys(part for part in whole if part.strip() != line.strip()))[:MOST]


def _find_gear(rig: Rig, text: str) -> Gear | None:
    """The gear whose full name the text begins with."""
    words = plain(expand_ranges(plain(text)))
    names = Directory(rig).by_name
    matching = [name for name in names if words == name or words.startswith(f"{name} ")]
    return names[max(matching, key=len)] if matching else None


def _names(rig: Rig, typed: str, role: Role, taken: set[Endpoint]) -> list[str]:
    """Gear with a free socket whose name, or any word of it, begins with what is typed; what is built in, too."""
    wanted = plain(typed)
    result = []
    for gear in rig.gear:
        part = rig.parts_by_id[gear.part]
        if not (part.outputs if role == "source" else part.inputs):
            continue
        free = any(Endpoint(gear.id, usable_way.id) not in taken for usable_way in usable(part, role))
        name = plain(gear.name)
        if free and name != wanted and any(start.startswith(wanted) for start in (name, *name.split())):
            result.append((not name.startswith(wanted), gear.name))
    if role == "goal":
        tags = [item.tag for item in rig.kit if item.installed]
        result += [(True, tag) for tag in tags if wanted and plain(tag).startswith(wanted)]
    return [name for _, name in sorted(result, key=lambda ranked: ranked[0])]


def _sockets(rig: Rig, typed: str, role: Role, taken: set[Endpoint]) -> list[str]:
    """After a full name: its free sockets; channels by their number alone."""
    gear = _find_gear(rig, typed)
    if gear is None:
        return []
    part = rig.parts_by_id[gear.part]
    if len(usable(part, role)) == 1:
        return []
    rest = plain(expand_ranges(plain(typed))).removeprefix(plain(expand_ranges(gear.name))).strip()
    words = []
    # A channel's microphone and line sockets are one channel: where either is in use, its number is not offered.
    used = {
        _short(part, usable_way.label, tokens(usable_way))
        for usable_way in usable(part, role)
        if Endpoint(gear.id, usable_way.id) in taken
    }
    for connector in usable(part, role):
        if _short(part, connector.label, tokens(connector)) in used:
            continue
        label = _short(part, connector.label, tokens(connector))
        if label.startswith(rest) and label != rest:
            words.append(label)
    return [f"{gear.name} {word}" for word in dict.fromkeys(words)]


def _short(part: Part, label: str, words: frozenset[str]) -> str:
    """A channel's number where the device has many, else the label without what its plug is."""
    digits = [word for word in words if word.isdigit()]
    if digits and len(part.connectors) > 6 and {"mic", "line"} & words:
        return digits[0]
    return label.split(",")[0].split(" / ")[0].lower()
