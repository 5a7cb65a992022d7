"""Random lines, seeded: words of the corpus and marks in any order, of which nearly all make no sense, and things that
people connect in orders that they might type."""

from functools import cache
from random import Random

from ruvak.core.entry.reader import read
from ruvak.core.errors import RuvakError
from ruvak.core.rig.edits import apply
from ruvak.core.rig.rig import Rig
from tests.support.typed import corpus, empty_rig, typed_rig

MARKS = (
    ">", "<", "->", ",", ";", ":", "(", ")", "/", "-", "+", "to", "from", "via", "with", "and", "copy", "swap",
    "rename", "delete", "is now", "1-4", "L/R", "12 m", "x2", "48v", "amp", "mic",
)  # fmt: skip
ODD_LETTERS = (
    "\N{SUPERSCRIPT TWO}\N{VULGAR FRACTION ONE HALF}\N{CIRCLED DIGIT ONE}\N{ARABIC-INDIC DIGIT THREE}"
    "\x00\t\N{ZERO WIDTH SPACE}\N{RIGHT-TO-LEFT OVERRIDE}\ud800\\[{#*~"
)
"""Digits of other scripts, control characters, half of a pair of code units, marks without a meaning in a line."""
SOURCES = (
    "vocal", "choir {n}", "keys", "keys L/R", "bass", "guitar", "laptop", "phone", "cd player", "desk aux {n}",
    "desk main L/R", "condenser", "mic 1-2", "wireless lapel", "turntable", "click, keys", "kick + snare",
)  # fmt: skip
ON_THE_WAY = (
    "wall plate {n}", "floor box {n}", "stage box {n}", "patch bay {n}", "multicore {n}", "network box {n}", "di",
    "stereo di", "pad", "isolator", "mic lead", "10 m lead", "y lead", "trs to xlr", "xlr to rca", "compressor",
    "preamp", "headset splitter", "screen lift", "mic splitter", "pedal", "2 DI", "receiver", "equaliser",
)  # fmt: skip
GOALS = (
    "desk {n}", "desk {n}/{m}", "desk {n}-{m}", "small mixer {n}", "speaker", "two speakers", "camera", "recorder",
    "switcher", "headphones", "desk insert {n}", "guitar amp", "desk {n} and recorder", "laptop", "tv", "stage box {n}",
)  # fmt: skip
ENDS = ("", "", ", 12 m", ", 30 m", ", phantom", " via isolator", ", mono")
WORDS_OF_TEN = 6
LONGEST = 12


def fault_of_line(seed: int) -> str | None:
    """What goes wrong with a line: an exception, or an edit that cannot be made; None where all is well."""
    rng = Random(seed)
    line, rig = _likely_line(rng) if rng.randrange(2) else _any_line(rng), rng.choice(_rigs())
    if rng.randrange(4) == 0:
        at = rng.randrange(len(line))
        line = line[:at] + rng.choice(ODD_LETTERS) + line[at:]
    try:
        reading = read(rig, line)
        if reading.edit is not None:
            apply(rig, reading.edit)
    except (RuvakError, ValueError, LookupError, TypeError, AttributeError) as reason:
        return f"“{line}”: {type(reason).__name__}: {reason}"
    return None if reading.edit or reading.problems else f"“{line}” is neither read nor refused"


def _any_line(rng: Random) -> str:
    words = (
        rng.choice(_words() if rng.randrange(10) < WORDS_OF_TEN else MARKS) for _ in range(rng.randint(2, LONGEST))
    )
    return " ".join(words)


def _likely_line(rng: Random) -> str:
    """A source, up to three things on the way, a destination: most of these somebody might type."""
    pieces = [rng.choice(SOURCES), *rng.choices(ON_THE_WAY, k=rng.randrange(4)), rng.choice(GOALS)]
    numbered = (piece.format(n=(number := rng.randint(1, 16)), m=number + 1) for piece in pieces)
    line = " > ".join(numbered) + rng.choice(ENDS)
    return f"{line}; {_likely_line(rng)}" if rng.randrange(8) == 0 else line


@cache
def _words() -> tuple[str, ...]:
    return tuple(sorted({word for line, *_ in corpus() for word in line.split()}))


@cache
def _rigs() -> tuple[Rig, ...]:
    lines = ("vocal > desk 1", "keys L/R > desk 7/8", "desk aux 1 > wedge", "laptop > left speaker")
    return empty_rig(), typed_rig(*lines)
