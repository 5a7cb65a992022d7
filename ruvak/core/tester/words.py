"""What people write beside a meter or a lead tester, as words with a meaning."""

import re
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from ruvak.core.rig.part import Part, contacts_in
from ruvak.core.tester.diagnosis import plug_names
from ruvak.core.tester.reading import MOST_OHM, State

_STATES: dict[str, State] = {
    **dict.fromkeys(("ok", "okay", "good", "fine", "beep", "beeps", "beeping", "lit", "lights", "on", "yes"), "joined"),
    **dict.fromkeys(("works", "continuity", "lights up", "\N{CHECK MARK}"), "joined"),
    **dict.fromkeys(("open", "no", "nope", "none", "nothing", "dead", "dark", "off", "broken", "silent"), "open"),
    **dict.fromkeys(
        ("not ok", "not good", "not connected", "not joined", "not lit", "disconnected", "missing"), "open"
    ),
    **dict.fromkeys(("no connection", "no contact", "no continuity", "no beep", "no reading", "no light"), "open"),
    **dict.fromkeys(("doesn't beep", "does not beep", "doesn't light", "does not light"), "open"),
    **dict.fromkeys(("ol", "o.l.", "inf", "infinite", "infinity", "overload", "\N{INFINITY}"), "open"),
    **dict.fromkeys(("flicker", "flickers", "flickering", "crackles", "cuts", "cuts out", "intermittent"), "flickers"),
    **dict.fromkeys(("comes and goes", "on and off", "unstable", "loose"), "flickers"),
}
_TOUCHING = ("short", "shorted", "shorts", "touch", "touches", "touching", "bridged", "joined", "connected")
"""Between two contacts that are named: these two; of one: to its own at the other plug."""
_SWAPPED = ("swapped", "exchanged", "crossed", "reversed", "swap")
_UNCLEAR = ("high resistance", "resistive", "high", "resistance", "bad", "weak")
_FILLING = re.compile(
    r"a|all|are|at|both|but|contacts?|each|end|is|it|lamps?|of|on|only|pins?|plug|reads?|says|side|the|there|they|"
    r"together|was|were"
)
ALIASES: dict[str, tuple[str, ...]] = {
    "tip": ("T",),
    "ring": ("R", "R1"),
    "ring 1": ("R1", "R"),
    "first ring": ("R1", "R"),
    "ring 2": ("R2",),
    "second ring": ("R2",),
    "sleeve": ("S", "sleeve"),
    **dict.fromkeys(("screen", "shield", "ground", "gnd", "earth", "drain"), ("1", "S", "sleeve", "screen", "shell")),
    **dict.fromkeys(("centre", "center", "core"), ("pin",)),
    **dict.fromkeys(("case", "body"), ("shell", "body")),
    "hot": ("2", "T", "plus"),
    "cold": ("3", "R", "minus"),
    "plus": ("plus",),
    "minus": ("minus",),
}
"""What people call contacts, by what they are named here; the first that the plug has."""
_OHM = r"(?P<figure>\d+(?:[.,]\d+)?)(?:\s*(?P<times>[km])?\s*(?:ohms?\b|\u03a9|\u03c9|\u2126)|(?P<short>[km]|r)\b)"
_DECIMAL = r"(?P<decimal>\d+[.,]\d+)(?![\w.])"
_TIMES = {"k": 1e3, "m": 1e6}

Kind = Literal["contact", "word", "joint", "and", "state", "touching", "swapped"]


@dataclass(frozen=True)
class Token:
    """A word or sign. `state`, `ohm`: of what was read."""

    kind: Kind
    words: str
    state: State | None = None
    ohm: float | None = None


class Vocabulary:
    """The words for one piece: its contacts and plugs, and what can be read."""

    def __init__(self, part: Part) -> None:
        self.plug_words = {word for name in plug_names(part).values() for word in name.lower().replace(",", "").split()}
        self.plug_words |= {connector.id for connector in part.connectors} | {"near", "far"}
        names = {contact.contact.lower() for contact in contacts_in(part)}
        self._has_minus = "minus" in names
        signs = ["\\+"] if "plus" in names else []
        plain = [re.escape(name) for name in sorted(names | set(ALIASES), key=len, reverse=True)]
        self._patterns: tuple[tuple[str, re.Pattern[str]], ...] = tuple(
            (kind, re.compile(pattern, re.IGNORECASE))
            for kind, pattern in (
                ("ohm", _OHM),
                ("decimal", _DECIMAL),
                ("state", _any_of(_STATES)),
                ("touching", _any_of(_TOUCHING)),
                ("swapped", _any_of(_SWAPPED)),
                ("unclear", _any_of(_UNCLEAR)),
                (
                    "contact",
                    rf"(?:(?:pin|contact)\s+|\#)?(?:(?:{'|'.join(plain)}|\d+)(?![\w'])|{'|'.join(signs) or '(?!)'})",
                ),
                ("and", r"(?:and\b|or\b|&|\+)"),
                ("joint", r"(?:[-\u2013\u2014>\u2192/=:]|to\b|with\b)+"),
                ("word", r"[^\s\-\u2013\u2014>\u2192/=:&]+"),
            )
        )

    def tokens(self, words: str) -> list[Token]:
        """The words of one clause. ValueError where something was read that says too little."""
        result: list[Token] = []
        at = 0
        while at < len(words):
            if words[at].isspace():
                at += 1
                continue
            kind, match = next((k, m) for k, pattern in self._patterns if (m := pattern.match(words, at)))
            at = match.end()
            token = self._token(kind, match)
            if self._has_minus and match[0] == "-" and (not result or result[-1].kind == "joint"):
                token = Token("contact", "minus")
            if token is not None:
                result.append(token)
        # "Nothing on 3": not what was read.
        return [each for each, after in pairwise([*result, None]) if each is not None and not _is_filling(each, after)]

    def _token(self, kind: str, match: re.Match[str]) -> Token | None:
        said = match[0].lower()
        if kind in ("ohm", "decimal"):
            return _figure(match)
        if kind == "state":
            return Token("state", said, _STATES[said])
        if kind == "unclear":
            raise ValueError(f"“{match[0]}”: say what it reads, as in “3-3 45 ohm”.")
        if kind == "contact":
            return Token("contact", re.sub(r"^(?:(?:pin|contact)\s+|#)", "", said))
        if kind == "word" and said not in self.plug_words and _FILLING.fullmatch(said):
            return None
        return Token(kind, said)  # type: ignore[arg-type]


def _figure(match: re.Match[str]) -> Token:
    found = match.groupdict()
    figure = found.get("figure") or found["decimal"]
    ohm = float(figure.replace(",", ".")) * _TIMES.get((found.get("times") or found.get("short") or "").lower(), 1.0)
    return Token("state", match[0], "joined" if ohm <= MOST_OHM else "open", ohm)


def _is_filling(token: Token, after: Token | None) -> bool:
    return token.words == "on" and after is not None and after.kind in ("contact", "word")


def _any_of(words: "dict[str, State] | tuple[str, ...]") -> str:
    escaped = "|".join(re.escape(word).replace("\\ ", r"\s+") for word in sorted(words, key=len, reverse=True))
    return rf"(?:{escaped})(?![\w'])"
