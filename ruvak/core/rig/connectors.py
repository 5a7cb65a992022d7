"""Connector forms: which contacts each has, in drawing order (hot first, screen last).

XLR-3: pin 1 screen, 2 hot, 3 cold (IEC 60268-12, AES14). Phone plugs: tip, ring, sleeve (IEC 60603-11).
"""

from dataclasses import dataclass
from enum import StrEnum


class Form(StrEnum):
    """What a connector is, by shape and gender."""

    XLR3_FEMALE = "xlr3-female"
    XLR3_MALE = "xlr3-male"
    TS35_PLUG = "ts35-plug"
    TRS35_PLUG = "trs35-plug"
    TRS35_SOCKET = "trs35-socket"
    TS635_PLUG = "ts635-plug"
    TS635_SOCKET = "ts635-socket"
    TRS635_PLUG = "trs635-plug"
    TRS635_SOCKET = "trs635-socket"
    RCA_PLUG = "rca-plug"
    RCA_SOCKET = "rca-socket"


@dataclass(frozen=True)
class Shape:
    """Contacts of a form in drawing order; `family` tells what fits into what; `words` as people say it."""

    family: str
    contacts: tuple[str, ...]
    plug: bool
    words: str


_XLR, _TS, _TRS, _RCA = ("2", "3", "1"), ("T", "S"), ("T", "R", "S"), ("pin", "sleeve")

SHAPES: dict[Form, Shape] = {
    Form.XLR3_FEMALE: Shape("xlr3", _XLR, False, "XLR female"),
    Form.XLR3_MALE: Shape("xlr3", _XLR, True, "XLR male"),
    Form.TS35_PLUG: Shape("3.5 mm", _TS, True, "3.5 mm mono plug"),
    Form.TRS35_PLUG: Shape("3.5 mm", _TRS, True, "3.5 mm stereo plug"),
    Form.TRS35_SOCKET: Shape("3.5 mm", _TRS, False, "3.5 mm stereo socket"),
    Form.TS635_PLUG: Shape("6.35 mm", _TS, True, "6.35 mm two-contact plug"),
    Form.TS635_SOCKET: Shape("6.35 mm", _TS, False, "6.35 mm two-contact socket"),
    Form.TRS635_PLUG: Shape("6.35 mm", _TRS, True, "6.35 mm three-contact plug"),
    Form.TRS635_SOCKET: Shape("6.35 mm", _TRS, False, "6.35 mm three-contact socket"),
    Form.RCA_PLUG: Shape("rca", _RCA, True, "RCA plug"),
    Form.RCA_SOCKET: Shape("rca", _RCA, False, "RCA socket"),
}

_MATED_CONTACTS: dict[tuple[tuple[str, ...], tuple[str, ...]], tuple[tuple[str, str], ...]] = {
    (_XLR, _XLR): (("2", "2"), ("3", "3"), ("1", "1")),
    (_TS, _TS): (("T", "T"), ("S", "S")),
    (_TRS, _TRS): (("T", "T"), ("R", "R"), ("S", "S")),
    (_TS, _TRS): (("T", "T"), ("S", "R"), ("S", "S")),
    (_TRS, _TS): (("T", "T"), ("S", "S")),
    (_RCA, _RCA): (("pin", "pin"), ("sleeve", "sleeve")),
}
"""(plug contacts, socket contacts) to the pairs that touch. A two-contact plug's long sleeve also meets
a three-contact socket's ring; a three-contact plug's ring meets nothing in a two-contact socket."""


def fits(one: Form, other: Form) -> bool:
    """Whether the two go into each other at all: same family, one plug and one socket."""
    return SHAPES[one].family == SHAPES[other].family and SHAPES[one].plug != SHAPES[other].plug


def touching(one: Form, other: Form) -> tuple[tuple[str, str], ...]:
    """Pairs (contact of `one`, contact of `other`) that touch when mated. Precondition: fits(one, other)."""
    if SHAPES[one].plug:
        return _MATED_CONTACTS[SHAPES[one].contacts, SHAPES[other].contacts]
    return tuple((mine, theirs) for theirs, mine in touching(other, one))
