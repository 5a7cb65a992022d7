"""Random lines that change a rig, seeded: any name or socket with any verb, sensible or not."""

from functools import cache
from random import Random

from ruvak.core.entry.reader import read
from ruvak.core.errors import RuvakError
from ruvak.core.rig.edits import apply
from ruvak.core.rig.rig import Rig
from tests.support.rigs import demo_rig
from tests.support.typed import typed_rig

NAMES = (
    "desk 7", "desk 8", "desk 11/12", "desk main left", "desk main L/R", "desk aux 1", "desk 99", "desk", "lectern",
    "keys", "wedge", "interface", "laptop", "stage box 2", "bass", "speaker 1", "left speaker", "recorder", "mic",
    "choir 4", "1", "2/3", "", "?", "a gooseneck", "wireless", "small mixer", "another desk", "big desk", "sub",
    "keyboard with XLR outputs", "laptop on battery", "di box", "usb box", "lighting desk", "projector", "ribbon mic",
    "passive speaker",
)  # fmt: skip
VERBS = (
    "{} is now {}", "{} moves to {}", "swap {} and {}", "rename {} to {}", "delete {}", "move {} to {}",
    "{} becomes {}", "{} is now a {}", "{} is now", "change {} to {}", "copy {}", "copy {} as {}", "copy {} to {}",
    "{} 25 m", "make {} 7.5 m", "{} 900 m", "phantom on {}", "phantom off {}", "number {} 12", "{} is on battery",
    "add {} to {}", "{} through {}", "{} via stage box 3", "call {} {}", "replace {} with {}", "{} > {}", "{} to {}",
    "channel 3 to {}", "{} is called {}", "put a 20 dB pad on {}", "{} with an isolator",
    "{} without di", "{} without {}", "remove {} from {}", "no {} on {}",
    "copy {} 3 times", "copy {} x2", "copy {} 0 times",
)  # fmt: skip


def fault_of(seed: int) -> str | None:
    """What goes wrong with a line: neither an edit that can be made nor a problem; None where all is well."""
    rng = Random(seed)
    rig = rng.choice(_rigs())
    verb = rng.choice(VERBS)
    line = verb.format(*(rng.choice(NAMES) for _ in range(verb.count("{}"))))
    reading = read(rig, line)
    if reading.edit is None:
        return None if reading.problems else f"“{line}” is neither done nor refused"
    try:
        apply(rig, reading.edit)
    except RuvakError as reason:
        return f"“{line}”: {reason}"
    return None


@cache
def _rigs() -> tuple[Rig, ...]:
    small = typed_rig(
        "lectern > desk 7, 10 m",
        "choir condenser > desk 8",
        "keys L/R > desk 11/12, 4 m",
        "desk aux 1 > wedge, 10 m",
        "desk main L/R > speakers",
        "laptop > interface > desk 3/4",
        "bass > stage box 2 > desk 2",
        "mic > splitter > desk 1 / recorder",
    )
    return small, demo_rig("midwinter-concert")
