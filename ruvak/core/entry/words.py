"""Words, numbers and lengths in what people type."""

import re
import unicodedata
from dataclasses import dataclass
from functools import lru_cache

from ruvak.core.units import METRES_PER_FOOT


def legible(text: str) -> str:
    """What was typed or pasted with every digit as 0 to 9 (superscripts, full-width and other scripts' digits) and a
    space for each control character; as long as before, so that places in it stay."""
    return text if text.isascii() and text.isprintable() else "".join(map(_legible, text))


def _legible(letter: str) -> str:
    if letter.isdigit():
        return str(unicodedata.digit(letter))
    return " " if unicodedata.category(letter) in ("Cc", "Cf", "Cs", "Zl", "Zp") else letter


_METRES = {"m": 1.0, "metre": 1.0, "metres": 1.0, "meter": 1.0, "meters": 1.0, "cm": 0.01, "km": 1000.0}
_FEET = dict.fromkeys(("ft", "feet", "foot", "'", "\N{RIGHT SINGLE QUOTATION MARK}"), METRES_PER_FOOT)
UNITS = {**_METRES, **_FEET}

_ABOUT = r"(?:about|approx\.?|approximately|around|roughly|ca\.?|circa|~|\N{ALMOST EQUAL TO})?\s*"
_UNIT = "|".join(sorted((re.escape(unit) for unit in UNITS), key=len, reverse=True))
_LENGTH = re.compile(
    rf"(?<![\w.]){_ABOUT}(?P<number>-?\d+(?:[.,]\d+)?)\s*(?P<unit>{_UNIT})(?![\w])"
    r"(?:\s*(?:leads?|cables?|long|away|each|apiece)\b)?",
    re.IGNORECASE,
)


@dataclass(frozen=True)
class Length:
    """A length as typed: metres, and where it stands in the text."""

    metres: float
    start: int
    end: int


def find_length(text: str) -> Length | None:
    """The first length with a unit in the text. In "desk 4,15 m" and "desk 7/8,9 m" the comma parts a socket from a
    length."""
    match = _LENGTH.search(text)
    if match is None:
        return None
    whole, comma, _ = match["number"].partition(",")
    if comma and re.search(r"[a-z/+&-]\s*$", text[: match.start("number")], re.IGNORECASE):
        at = match.start("number") + len(whole) + 1
        shorter = _LENGTH.search(text, at)
        match = shorter or match
    metres = float(match["number"].replace(",", ".")) * UNITS[match["unit"].lower()]
    return Length(metres, *match.span())


def bare_length(text: str, metres_per_unit: float) -> float | None:
    """A number without a unit, in the rig's own."""
    match = re.fullmatch(rf"{_ABOUT}(-?\d+(?:[.,]\d+)?)", text.strip(), re.IGNORECASE)
    return float(match[1].replace(",", ".")) * metres_per_unit if match else None


_SAID_OTHERWISE = (
    (re.compile(r"\bfold back\b"), "foldback"),
    (re.compile(r"\b(?:monitor|mon|foldback) (?:sends?|mix(?:es)?)\b"), "aux"),
    (re.compile(r"\b(?:fx|effects?) sends?\b"), "aux"),
    (re.compile(r"\b(?:fx|effects?) returns?\b"), "return"),
    (re.compile(r"\b(?:2|two)[ -]track out(?:put)?s?\b"), "record out"),
    (re.compile(r"\b2[ -]track\b"), "two track"),
    (re.compile(r"\bstagebox"), "stage box"),
    (re.compile(r"\brx\b"), "receiver"),
    (re.compile(r"\btx\b"), "transmitter"),
)
"""Words of two for what has a name of its own, and short ones."""
PHANTOM = r"(?:phantom(?: power)?|\+ ?48 ?v?|48 ?v|p48)"
"""What people write for phantom power, as an expression."""
_IS_PHANTOM = re.compile(PHANTOM, re.IGNORECASE)


def is_phantom(text: str) -> bool:
    """Whether words say phantom power and nothing else."""
    return _IS_PHANTOM.fullmatch(text.strip()) is not None


@lru_cache(maxsize=8192)
def plain(text: str) -> str:
    """For comparing names: small letters, single spaces, also for hyphens between words, no quotation marks, no
    articles."""
    text = re.sub(r"[\"\N{LEFT DOUBLE QUOTATION MARK}\N{RIGHT DOUBLE QUOTATION MARK}]", "", text.lower())
    text = re.sub(r"(?<=[a-z]{2})-(?=[a-z]{2})", " ", text)
    for pattern, word in _SAID_OTHERWISE:
        text = pattern.sub(word, text)
    return " ".join(word for word in re.split(r"\s+", text) if word and word not in ("the", "a", "my", "our"))


PLUG = r"(?:xlr|rca|phono|trs|ts|mini ?jack|jack|[36]\.[35]5?(?: ?mm)?)"
"""A plug's name, as an expression."""
_BETWEEN_PLUGS = re.compile(rf"\b({PLUG})\s*[-/]\s*((?:2 ?x? ?)?{PLUG})\b", re.IGNORECASE)
"""A lead by its plugs with a stroke between: "RCA-RCA", "jack/XLR"."""
_PIECE_WORDS = (
    (re.compile(r"(\d)mm\b"), r"\1 mm"),
    (re.compile(r"\b2(?= (?:mono |stereo )?(?:xlr|rca|phono|trs|ts|jack))"), "two"),
    (re.compile(r"\bmono (?=jack)"), ""),
    (re.compile(r"\b(?:2 ?x|twin|dual|double|pair of)(?= )"), "two"),
    (re.compile(r"\b(?:1/4(?:\"| inch)?|quarter[ -]inch)(?= |$)"), "jack"),
    (re.compile(r"\bminijack"), "mini jack"),
    (re.compile(r"\b1/8(?:\"| inch)?(?= |$)"), "3.5 mm"),
    (re.compile(r"\b3\.5(?= to |$)"), "3.5 mm"),
    (re.compile(r"\b3\.5(?: mm)? (?:stereo )?(?:mini )?jack\b"), "3.5 mm"),
    (re.compile(r"\bjack 3\.5(?: mm)?\b"), "3.5 mm"),
    (re.compile(r"\b(?:cables?|cords?|leads)\b"), "lead"),
    (re.compile(r"\b(jack|adapter|box|pad|splitter)s\b"), r"\1"),
    (re.compile(r"\badaptors?\b"), "adapter"),
)


@lru_cache(maxsize=8192)
def plain_piece(text: str) -> str:
    """A lead's, adapter's or box's name for comparing: "3.5mm to 2x jack cable" as "3.5 mm to two jack lead"."""
    text = plain(_BETWEEN_PLUGS.sub(r"\1 to \2", text))
    for pattern, word in _PIECE_WORDS:
        text = pattern.sub(word, text)
    return text


_RANGE = re.compile(r"(\d+)\s*(?:-|\N{EN DASH}|\.\.+|\bto\b|\bthrough\b|\bthru\b)\s*(\d+)")
_AND = re.compile(r"(?<=\d)\s+and\s+(?=\d)")
_MOST = 64


@lru_cache(maxsize=8192)
def expand_ranges(text: str) -> str:
    """Ranges written out: "1-4" as "1 2 3 4"; slashes, ampersands, plus signs and commas between places as spaces."""

    def run(result: re.Match[str]) -> str:
        first, last = int(result[1]), int(result[2])
        if not 0 < last - first < _MOST:
            return f"{first} {last}"
        return " ".join(str(number) for number in range(first, last + 1))

    spaced = re.sub(r"(?<=[a-z])(?=\d)", " ", text.lower())
    spaced = _AND.sub(" ", _RANGE.sub(run, spaced))
    return " ".join(re.split(r"[\s/&+,#]+", spaced)).strip()


def numbers(words: list[str]) -> list[int]:
    """The numbers among some words."""
    return [int(word) for word in words if word.isdigit()]
