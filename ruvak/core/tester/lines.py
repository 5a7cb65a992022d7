"""Readings as somebody types them beside a meter or a tester: "1-1 ok, 2-2, 3 dead, female 1-2 beeps"."""

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import combinations

from ruvak.core.rig.part import Part, contacts_in
from ruvak.core.rig.points import Contact
from ruvak.core.tester.diagnosis import plug_names
from ruvak.core.tester.metal import groups_of
from ruvak.core.tester.reading import ContactReading, LeadTest, Place
from ruvak.core.tester.words import ALIASES, Token, Vocabulary

_LAMPS = {
    **dict.fromkeys(("pass", "passed", "passes", "ok", "okay", "good", "fine", "green"), "pass"),
    **dict.fromkeys(("all good", "all ok", "all fine", "everything ok", "everything good", "everything fine"), "pass"),
    **dict.fromkeys(("fail", "failed", "fails", "bad", "red", "not ok"), "fail"),
}
_MOVED = re.compile(
    r"(?:\b(?:when|if|while)\s+)?(?:\bit\s+is\s+)?\b(?:moved|moving|wiggled|wiggling|bent|bending|flexed)"
    r"(?:\s+(?:at|near|in))?(?:\s+the)?(?:\s+(.+))?$"
)
_NEXT = re.compile(r"[;\n]|,(?!\d+ ?(?:ohm|Ω|$))", re.IGNORECASE)
JOINED = Token("state", "", "joined")


def read_lines(part: Part, text: str) -> LeadTest:
    """What was read. ValueError with a sentence that names the words that were not understood."""
    reader = _Reader(part)
    lamp = None
    for words in filter(None, (" ".join(entry.split()) for entry in _NEXT.split(text))):
        if words.lower().rstrip(".!") in _LAMPS:
            lamp = _LAMPS[words.lower().rstrip(".!")]
        else:
            reader.read(words)
    return LeadTest.model_validate({"readings": reader.readings(), "lamp": lamp, "moved_at": reader.moved_at})


@dataclass(frozen=True)
class _End:
    """A contact as it is named; `plug`: where that was said."""

    plug: str | None
    contact: str

    def at_plug(self, plug: str) -> "_End":
        """The same, with the plug where none was said."""
        return self if self.plug is not None else _End(plug, self.contact)


@dataclass(frozen=True)
class _Pair:
    """Two contacts that were read against each other."""

    a: _End
    b: _End

    def at_plug(self, plug: str) -> "_Pair":
        """Both at that plug, where none was said."""
        return _Pair(self.a.at_plug(plug), self.b.at_plug(plug))


_Item = _End | _Pair


class _Reader:
    """One piece; reads a clause after the other."""

    def __init__(self, part: Part) -> None:
        self._part, self._vocabulary = part, Vocabulary(part)
        self._readings: list[ContactReading] = []
        self._bare: list[_End] = []
        """Contacts that were named without a state: that of the next clause is theirs too."""
        self.moved_at: Place | None = None

    def readings(self) -> list[ContactReading]:
        """All of them, once every clause is read."""
        self._say(self._bare, JOINED, "")
        self._bare = []
        return self._readings

    def read(self, words: str) -> None:
        """A clause."""
        if (moved := _MOVED.search(words.lower())) is not None:
            if moved[1]:
                self.moved_at = self._place(moved[1])
            words = words[: moved.start()].strip()
        tokens = self._vocabulary.tokens(words)
        items: list[_Item] = [*self._bare]
        if words and not items and not any(token.kind == "contact" for token in tokens):
            raise ValueError(self._names_none(words))
        listed = not items
        self._bare = []
        before = None
        at = 0
        while at < len(tokens):
            token = tokens[at]
            if token.kind in ("state", "touching", "swapped"):
                if items:
                    self._judge(items, token, words, listed)
                else:
                    before = token
                items, listed, at = [], True, at + 1
            elif token.kind in ("joint", "and"):
                listed, at = listed or token.kind == "and", at + 1
            elif items and (behind := self._plug_behind(tokens, at)) is not None:
                plug, at = behind
                items[-1] = items[-1].at_plug(plug)
            else:
                item, at = self._item(tokens, at, words)
                items.append(item)
        if tokens and tokens[-1].kind == "joint":
            raise ValueError(self._names_none(words))
        self._end_clause(items, before, words)

    def _end_clause(self, items: "list[_Item]", before: Token | None, words: str) -> None:
        """What no state follows: one that came first is theirs, contacts wait for the next clause."""
        if before is not None and items:
            self._judge(items, before, words, True)
        elif all(isinstance(item, _End) for item in items):
            self._bare = [item for item in items if isinstance(item, _End)]
        else:
            self._say(items, JOINED, words)

    def _item(self, tokens: list[Token], at: int, words: str) -> "tuple[_Item, int]":
        """A contact, or two that something joins."""
        end, at = self._end(tokens, at, words)
        if at + 1 < len(tokens) and tokens[at].kind == "joint" and tokens[at + 1].kind in ("contact", "word"):
            other, at = self._end(tokens, at + 1, words)
            return _Pair(end, other), at
        return end, at

    def _plug_behind(self, tokens: list[Token], at: int) -> tuple[str, int] | None:
        """A plug that is named behind its contacts: "shell to 1 at female"."""
        name: list[str] = []
        while at < len(tokens) and tokens[at].kind in ("word", "contact"):
            name.append(tokens[at].words)
            at += 1
        plug = self._plug(" ".join(name)) if name and not all(word.isdigit() for word in name) else None
        return (plug, at) if plug is not None else None

    def _judge(self, items: "list[_Item]", token: Token, words: str, listed: bool) -> None:
        """What was read of these. `listed`: it is plain that it is meant of each of them."""
        two = [(item.a, item.b) if isinstance(item, _Pair) else (item,) for item in items]
        ends = [end for item in two for end in item]
        if token.kind == "swapped":
            self._swap(ends, words)
        elif token.kind == "touching":
            pair = len(items) == 2 and all(isinstance(item, _End) for item in items)
            self._say([_Pair(*ends)] if pair else items, JOINED, words)
        elif not listed and len(items) > 1 and token.state != "joined":
            said = ", ".join(end.contact for end in ends)
            raise ValueError(f"“{said} {token.words}”: say it of each, as in {self._example()}.")
        else:
            self._say(items, token, words)

    def _swap(self, ends: list[_End], words: str) -> None:
        names = list(dict.fromkeys(end.contact for end in ends))
        if len(names) != 2 or len(self._part.connectors) != 2:
            raise ValueError(f"“{words}”: name the pairs one by one, as in {self._example()}.")
        near, far = (connector.id for connector in self._part.connectors)
        a, b = (_End(None, name) for name in names)
        for first, second, state in ((a, b, "joined"), (b, a, "joined"), (a, a, "open"), (b, b, "open")):
            contacts = self._contact(near, first, words), self._contact(far, second, words)
            self._readings.append(ContactReading.model_validate({"a": contacts[0], "b": contacts[1], "state": state}))

    def _say(self, items: Sequence[_Item], token: Token, words: str) -> None:
        for item in items:
            pairs = [self._pair(item, words)] if isinstance(item, _Pair) else self._counterparts(item, token, words)
            for a, b in pairs:
                self._readings.append(
                    ContactReading.model_validate({"a": a, "b": b, "state": token.state, "ohm": token.ohm})
                )

    def _pair(self, pair: _Pair, words: str) -> tuple[Contact, Contact]:
        connectors = self._part.connectors
        if len(connectors) > 2 and pair.a.plug is None and pair.b.plug is not None:
            have = {contact.connector for contact in contacts_in(self._part) if self._is(contact, pair.a.contact)}
            if len(have - {pair.b.plug}) == 1:
                pair = _Pair(pair.a.at_plug(next(iter(have - {pair.b.plug}))), pair.b)
        if len(connectors) > 2 and pair.a.plug is None:
            raise ValueError(f"“{words}”: of {len(connectors)} plugs, say which, as in {self._example()}.")
        near = pair.a.plug or connectors[0].id
        far = pair.b.plug or (near if pair.a.plug else connectors[-1].id)
        a, b = self._contact(near, pair.a, words), self._contact(far, pair.b, words)
        if a == b and len(connectors) == 2 and pair.b.plug is None:
            b = self._contact(next(each.id for each in connectors if each.id != near), pair.b, words)
        if a == b:
            raise ValueError(f"“{words}” names one contact twice. As in {self._example()}.")
        return a, b

    def _counterparts(self, end: _End, token: Token, words: str) -> Iterator[tuple[Contact, Contact]]:
        """A contact with those that it is joined to at other plugs; with all of them where it is joined to none."""
        at = self._contact(end.plug or self._part.connectors[0].id, end, words)
        contacts = contacts_in(self._part)
        groups = dict(zip(contacts, groups_of(self._part, contacts), strict=True))
        others = [each for each in contacts if groups[each] == groups[at] and each.connector != at.connector]
        if not others and token.state == "open":
            others = [each for each in contacts if each.connector != at.connector]
        if not others:
            raise ValueError(
                f"“{words or end.contact}”: that contact is joined to no other; name both, as in {self._example()}."
            )
        yield from ((at, other) for other in others)

    def _end(self, tokens: list[Token], at: int, words: str) -> tuple[_End, int]:
        """The plug that is named, if any, and the contact; where they end."""
        said: list[str] = []
        while at < len(tokens) and tokens[at].kind == "word":
            said.append(tokens[at].words)
            at += 1
        if at == len(tokens) or tokens[at].kind != "contact":
            raise ValueError(f"“{words}”: {self._has(self._part.connectors[0].id)}. As in {self._example()}.")
        if said and (numbered := self._numbered_plug(said, tokens, at)) is not None:
            return _End(numbered[0], tokens[numbered[1]].words), numbered[1] + 1
        plug = self._plug(" ".join(said)) if said else None
        if said and plug is None:
            names = ", ".join(plug_names(self._part).values())
            raise ValueError(f"“{words}”: there is no plug “{' '.join(said)}” here, but {names}.")
        return _End(plug, tokens[at].words), at + 1

    def _numbered_plug(self, said: list[str], tokens: list[Token], at: int) -> tuple[str, int] | None:
        """A plug with a number in its name, and the place of the contact behind it: "send 1 box 2"."""
        name, place = [*said, tokens[at].words], at + 1
        while place < len(tokens) and tokens[place].kind == "word":
            name.append(tokens[place].words)
            place += 1
        plug = self._plug(" ".join(name))
        return (plug, place) if plug and place < len(tokens) and tokens[place].kind == "contact" else None

    def _place(self, words: str) -> Place:
        if words.startswith("mid"):
            return "middle"
        plug = self._plug(words)
        if plug is None:
            raise ValueError(f"“{words}”: say at which plug it was moved, or in the middle.")
        return "near" if plug == self._part.connectors[0].id else "far"

    def _plug(self, words: str) -> str | None:
        """By what is printed there, near or far, or any words of it that no other plug has."""
        words = words.lower().strip()
        if words in ("near", "near end", "far", "far end"):
            return self._part.connectors[0 if words.startswith("near") else -1].id
        names = {id_: name.lower() for id_, name in plug_names(self._part).items()}
        same = [id_ for id_, name in names.items() if words in (name, id_)]
        wanted = set(words.split()) - {"end", "the"}
        among = same or [id_ for id_, name in names.items() if wanted <= set(name.replace(",", "").split())]
        if not among and "plug" in wanted:
            return self._plug(" ".join(words.replace("plug", " ").split()))
        return among[0] if len(among) == 1 else None

    def _contact(self, plug: str, end: _End, words: str) -> Contact:
        have = [contact for contact in contacts_in(self._part) if contact.connector == plug]
        for name in _names_of(end.contact):
            for each in have:
                if each.contact.lower() == name:
                    return each
        raise ValueError(f"“{words or end.contact}”: {self._has(plug)}. As in {self._example()}.")

    @staticmethod
    def _is(contact: Contact, name: str) -> bool:
        return contact.contact.lower() in _names_of(name)

    def _names_none(self, words: str) -> str:
        return f"“{words}” names no contact, or not both. As in {self._example()}."

    def _has(self, plug: str) -> str:
        names = [contact.contact for contact in contacts_in(self._part) if contact.connector == plug]
        return f"{plug_names(self._part)[plug]} has {', '.join(names)}"

    def _example(self) -> str:
        contacts = contacts_in(self._part)
        groups = groups_of(self._part, contacts)
        pairs = ((a, b) for a, b in combinations(range(len(contacts)), 2) if groups[a] == groups[b])
        first, last = (contacts[place] for place in next(pairs, (0, -1)))
        names = plug_names(self._part)
        return f"“{names[first.connector]} {first.contact} - {names[last.connector]} {last.contact} ok”"


def _names_of(said: str) -> tuple[str, ...]:
    """What a contact may be named here that somebody calls so, the likeliest first."""
    aliases = ("plus",) if said == "+" else ALIASES.get(said, ())
    return (said, *(name.lower() for name in aliases))
