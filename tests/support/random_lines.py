"""Random lines, seeded: words of the corpus and marks in any order. Nearly all of them make no sense."""

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
WORDS_OF_TEN = 6
LONGEST = 12


def fault_of_line(seed: int) -> str | None:
    """What goes wrong with a line: an exception, or an edit that cannot be made; None where all is well."""
    rng = Random(seed)
    words = (
        rng.choice(_words() if rng.randrange(10) < WORDS_OF_TEN else MARKS) for _ in range(rng.randint(2, LONGEST))
    )
    line, rig = " ".join(words), rng.choice(_rigs())
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


@cache
def _words() -> tuple[str, ...]:
    return tuple(sorted({word for line, *_ in corpus() for word in line.split()}))


@cache
def _rigs() -> tuple[Rig, ...]:
    lines = ("vocal > desk 1", "keys L/R > desk 7/8", "desk aux 1 > wedge", "laptop > left speaker")
    return empty_rig(), typed_rig(*lines)
