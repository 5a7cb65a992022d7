"""Readings as somebody types them beside a meter or a tester: "1-1 ok, 2-2, 3 dead, female 1-2 beeps"."""

import re
from collections.abc import Iterator
from itertools import combinations

from ruvak.core.rig.part import Part, contacts_in
from ruvak.core.rig.points import Contact
from ruvak.core.tester.diagnosis import plug_names
from ruvak.core.tester.metal import groups_of
from ruvak.core.tester.reading import ContactReading, LeadTest, Place, State

MOST_OHM = 10.0
"""A meter that reads more finds no connection: a hundred metres of thin lead have less."""
_STATES: dict[str, State] = {
    **dict.fromkeys(("", "ok", "good", "joined", "connected", "beeps", "beep", "lit", "on", "yes"), "joined"),
    **dict.fromkeys(("short", "shorted", "touch", "touches"), "joined"),
    **dict.fromkeys(("open", "no", "none", "nothing", "dead", "dark", "off", "broken", "silent"), "open"),
    **dict.fromkeys(("flickers", "flicker", "crackles", "cuts", "intermittent", "comes and goes"), "flickers"),
}
_LAMPS = {
    **dict.fromkeys(("pass", "passed", "ok", "good", "all good", "all ok", "green"), "pass"),
    **dict.fromkeys(("fail", "failed", "bad", "red"), "fail"),
}
_NAMES = {
    "tip": ("T",),
    "ring": ("R", "R1"),
    "sleeve": ("S", "sleeve"),
    "screen": ("1", "S", "sleeve", "shell"),
    "shield": ("1", "S", "sleeve", "shell"),
    "centre": ("pin",),
    "center": ("pin",),
    "+": ("plus",),
    "hot": ("2", "T"),
    "cold": ("3", "R"),
}
"""What people call contacts, by what they are named here; the first that the plug has."""
_MOVED = re.compile(r"(?:moved|wiggled|bent)(?: at)?(?: the)? (.+)")
_OHM = re.compile(r"([0-9]+(?:[.,][0-9]+)?) ?(?:ohms?|Ω)", re.IGNORECASE)
_NEXT = re.compile(r"[;\n]|,(?!\d+ ?(?:ohm|Ω))", re.IGNORECASE)
_JOINT = re.compile(r"\s*(?:-|\u2013|>|→|/|\bto\b|\band\b)\s*")


def read_lines(part: Part, text: str) -> LeadTest:
    """What was read. ValueError with a sentence that names the words that were not understood."""
    readings: list[ContactReading] = []
    lamp, moved = None, None
    for words in filter(None, (" ".join(entry.split()) for entry in _NEXT.split(text))):
        if words.lower() in _LAMPS:
            lamp = _LAMPS[words.lower()]
        elif (at := _MOVED.fullmatch(words.lower())) is not None:
            moved = _place(part, at[1])
        else:
            readings += _readings(part, words)
    return LeadTest.model_validate({"readings": readings, "lamp": lamp, "moved_at": moved})


def _place(part: Part, words: str) -> Place:
    if words.startswith("mid"):
        return "middle"
    plug = _plug(part, words)
    if plug is None:
        raise ValueError(f"“{words}”: say at which plug it was moved, or in the middle.")
    return "near" if plug == part.connectors[0].id else "far"


def _readings(part: Part, words: str) -> Iterator[ContactReading]:
    pair, state, ohm = _state(words)
    ends = _JOINT.split(pair, maxsplit=1)
    first_plug, first = _end(part, ends[0])
    if len(ends) == 2:
        second_plug, second = _end(part, ends[1])
        near = first_plug or part.connectors[0].id
        far = second_plug or (near if first_plug else part.connectors[-1].id)
        if len(part.connectors) > 2 and first_plug is None:
            raise ValueError(f"“{words}”: of {len(part.connectors)} plugs, say which, as in {_example(part)}.")
        a, b = _contact(part, near, first, words), _contact(part, far, second, words)
        yield ContactReading(a=a, b=b, state=state, ohm=ohm)
        return
    at = _contact(part, first_plug or part.connectors[0].id, first, words)
    contacts = contacts_in(part)
    groups = dict(zip(contacts, groups_of(part, contacts), strict=True))
    others = [each for each in contacts if groups[each] == groups[at] and each.connector != at.connector]
    if not others:
        raise ValueError(f"“{words}”: that contact is joined to no other; name both, as in {_example(part)}.")
    for other in others:
        yield ContactReading(a=at, b=other, state=state, ohm=ohm)


def _state(words: str) -> tuple[str, State, float | None]:
    """The words without what was read, and that."""
    if (figure := _OHM.search(words)) is not None:
        ohm = float(figure[1].replace(",", "."))
        return words[: figure.start()].strip(" :="), "joined" if ohm <= MOST_OHM else "open", ohm
    for state in sorted(_STATES, key=len, reverse=True):
        if state and re.search(rf"(?:^|[\s:=]){state}$", words, re.IGNORECASE):
            return words[: len(words) - len(state)].strip(" :="), _STATES[state], None
    return words, "joined", None


def _end(part: Part, words: str) -> tuple[str | None, str]:
    """The plug that is named, if any, and the contact."""
    before, _, last = words.strip().rpartition(" ")
    if last.isdigit() and before.lower().endswith("pin"):
        before = before[:-3]
    elif before.lower() in ("first", "second"):
        before, last = "", {"first": "R1", "second": "R2"}[before.lower()]
    before = before.strip().removesuffix("pin").strip()
    plug = _plug(part, before) if before else None
    if before and plug is None:
        raise ValueError(f"“{words}”: there is no plug “{before}” here, but {', '.join(plug_names(part).values())}.")
    return plug, last


def _plug(part: Part, words: str) -> str | None:
    """By what is printed there, near or far, or any words of it that no other plug has."""
    words = words.lower().strip()
    if words in ("near", "near end", "far", "far end"):
        return part.connectors[0 if words.startswith("near") else -1].id
    names = {id_: name.lower() for id_, name in plug_names(part).items()}
    same = [id_ for id_, name in names.items() if words in (name, id_)]
    wanted = set(words.split()) - {"end", "plug", "the"}
    among = same or [id_ for id_, name in names.items() if wanted <= set(name.replace(",", "").split())]
    return among[0] if len(among) == 1 else None


def _contact(part: Part, plug: str, name: str, words: str) -> Contact:
    have = [contact.contact for contact in contacts_in(part) if contact.connector == plug]
    wanted = _NAMES.get(name.lower(), (name,))
    for each in have:
        if each in wanted or each.lower() == name.lower():
            return Contact(plug, each)
    raise ValueError(f"“{words}”: {plug_names(part)[plug]} has {', '.join(have)}. As in {_example(part)}.")


def _example(part: Part) -> str:
    contacts = contacts_in(part)
    groups = groups_of(part, contacts)
    pairs = ((a, b) for a, b in combinations(range(len(contacts)), 2) if groups[a] == groups[b])
    first, last = (contacts[place] for place in next(pairs, (0, -1)))
    names = plug_names(part)
    return f"“{names[first.connector]} {first.contact} - {names[last.connector]} {last.contact} ok”"
