"""Connector forms: which contacts each has, in drawing order (hot first, screen and shell last), and what touches what.

XLR: pin 1 screen, 2 hot, 3 cold (IEC 60268-12, AES14). Phone plugs: tip, ring, sleeve (IEC 60603-11); four
contacts: tip, ring 1, ring 2, sleeve. Modular: eight positions of IEC 60603-7, a screen only where it is built in.
D-type with 25 pins: eight balanced channels as AES59 has them. USB: a
computer's end and a device's end differ in shape, so that two computers are not joined.
"""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal


class Form(StrEnum):
    """What a connector is, by shape and gender."""

    XLR3_FEMALE = "xlr3-female"
    XLR3_MALE = "xlr3-male"
    XLR5_FEMALE = "xlr5-female"
    XLR5_MALE = "xlr5-male"
    TS35_PLUG = "ts35-plug"
    TS35_SOCKET = "ts35-socket"
    TRS35_PLUG = "trs35-plug"
    TRS35_SOCKET = "trs35-socket"
    TRRS35_PLUG = "trrs35-plug"
    TRRS35_SOCKET = "trrs35-socket"
    TS635_PLUG = "ts635-plug"
    TS635_SOCKET = "ts635-socket"
    TRS635_PLUG = "trs635-plug"
    TRS635_SOCKET = "trs635-socket"
    COMBO_SOCKET = "combo-socket"
    RCA_PLUG = "rca-plug"
    RCA_SOCKET = "rca-socket"
    MODULAR8_PLUG = "modular8-plug"
    MODULAR8_SOCKET = "modular8-socket"
    MODULAR8_PLUG_SCREENED = "modular8-plug-screened"
    MODULAR8_SOCKET_SCREENED = "modular8-socket-screened"
    LOUDSPEAKER_PLUG = "loudspeaker-plug"
    LOUDSPEAKER_SOCKET = "loudspeaker-socket"
    USB_PLUG = "usb-plug"
    USB_SOCKET = "usb-socket"
    HDMI_PLUG = "hdmi-plug"
    HDMI_SOCKET = "hdmi-socket"
    DIN5_PLUG = "din5-plug"
    DIN5_SOCKET = "din5-socket"
    USB_DEVICE_PLUG = "usb-device-plug"
    USB_DEVICE_SOCKET = "usb-device-socket"
    OPTICAL_PLUG = "optical-plug"
    OPTICAL_SOCKET = "optical-socket"
    DSUB25_PLUG = "dsub25-plug"
    DSUB25_SOCKET = "dsub25-socket"


Family = Literal[
    "xlr3", "xlr5", "3.5 mm", "6.35 mm", "combo", "rca", "modular8", "loudspeaker", "usb", "hdmi", "din5",
    "usb-device", "optical", "dsub25",
]  # fmt: skip


@dataclass(frozen=True)
class Shape:
    """Contacts of a form in drawing order; `family` tells what fits into what; `words` as people say it."""

    family: Family
    contacts: tuple[str, ...]
    plug: bool
    words: str


Sleeve = Literal["R2", "S", "both"]
"""Which of a four-contact plug's last two contacts a three-contact socket's sleeve spring meets."""

_XLR3, _XLR5 = ("2", "3", "1", "shell"), ("2", "3", "4", "5", "1", "shell")
_TS, _TRS, _TRRS = ("T", "S"), ("T", "R", "S"), ("T", "R1", "R2", "S")
_RCA, _SPEAKER, _USB = ("pin", "sleeve"), ("plus", "minus"), ("Dp", "Dm", "V", "G", "shell")
_HDMI = ("Dp", "Dm", "shell")
"""One pair stands for the four that carry the picture, and the screen of the plug."""
_DIN5 = ("4", "5", "2")
"""The contacts that musical-instrument data uses: two of the current loop and the screen."""
_OPTICAL = ("lightA", "lightB", "body")
"""Light has no contacts; two stand for its one way, since every signal of the solver has two legs. Nothing is joined to
the body."""
DSUB25_CHANNELS = (
    ("24", "12", "25"), ("10", "23", "11"), ("21", "9", "22"), ("7", "20", "8"),
    ("18", "6", "19"), ("4", "17", "5"), ("15", "3", "16"), ("1", "14", "2"),
)  # fmt: skip
"""Hot, cold and screen of each of eight channels, as AES59 has them (from memory)."""
_DSUB25 = (*(pin for channel in DSUB25_CHANNELS for pin in channel), "13", "shell")
_PAIRS = ("1", "2", "3", "6", "4", "5", "7", "8")
_PAIRS_SCREENED = (*_PAIRS, "screen")
_COMBO = ("2", "3", "1", "shell", "T", "R", "S")

SHAPES: dict[Form, Shape] = {
    Form.XLR3_FEMALE: Shape("xlr3", _XLR3, False, "XLR female"),
    Form.XLR3_MALE: Shape("xlr3", _XLR3, True, "XLR male"),
    Form.XLR5_FEMALE: Shape("xlr5", _XLR5, False, "five-pin XLR female"),
    Form.XLR5_MALE: Shape("xlr5", _XLR5, True, "five-pin XLR male"),
    Form.TS35_PLUG: Shape("3.5 mm", _TS, True, "3.5 mm mono plug"),
    Form.TS35_SOCKET: Shape("3.5 mm", _TS, False, "3.5 mm mono socket"),
    Form.TRS35_PLUG: Shape("3.5 mm", _TRS, True, "3.5 mm stereo plug"),
    Form.TRS35_SOCKET: Shape("3.5 mm", _TRS, False, "3.5 mm stereo socket"),
    Form.TRRS35_PLUG: Shape("3.5 mm", _TRRS, True, "3.5 mm four-contact plug"),
    Form.TRRS35_SOCKET: Shape("3.5 mm", _TRRS, False, "3.5 mm four-contact socket"),
    Form.TS635_PLUG: Shape("6.35 mm", _TS, True, "6.35 mm two-contact plug"),
    Form.TS635_SOCKET: Shape("6.35 mm", _TS, False, "6.35 mm two-contact socket"),
    Form.TRS635_PLUG: Shape("6.35 mm", _TRS, True, "6.35 mm three-contact plug"),
    Form.TRS635_SOCKET: Shape("6.35 mm", _TRS, False, "6.35 mm three-contact socket"),
    Form.COMBO_SOCKET: Shape("combo", _COMBO, False, "combo socket"),
    Form.RCA_PLUG: Shape("rca", _RCA, True, "RCA plug"),
    Form.RCA_SOCKET: Shape("rca", _RCA, False, "RCA socket"),
    Form.MODULAR8_PLUG: Shape("modular8", _PAIRS, True, "network plug, no screen"),
    Form.MODULAR8_SOCKET: Shape("modular8", _PAIRS, False, "network socket, no screen"),
    Form.MODULAR8_PLUG_SCREENED: Shape("modular8", _PAIRS_SCREENED, True, "screened network plug"),
    Form.MODULAR8_SOCKET_SCREENED: Shape("modular8", _PAIRS_SCREENED, False, "screened network socket"),
    Form.LOUDSPEAKER_PLUG: Shape("loudspeaker", _SPEAKER, True, "loudspeaker plug"),
    Form.LOUDSPEAKER_SOCKET: Shape("loudspeaker", _SPEAKER, False, "loudspeaker socket"),
    Form.USB_PLUG: Shape("usb", _USB, True, "USB plug"),
    Form.USB_SOCKET: Shape("usb", _USB, False, "USB socket"),
    Form.HDMI_PLUG: Shape("hdmi", _HDMI, True, "HDMI plug"),
    Form.HDMI_SOCKET: Shape("hdmi", _HDMI, False, "HDMI socket"),
    Form.DIN5_PLUG: Shape("din5", _DIN5, True, "five-pin DIN plug"),
    Form.DIN5_SOCKET: Shape("din5", _DIN5, False, "five-pin DIN socket"),
    Form.USB_DEVICE_PLUG: Shape("usb-device", _USB, True, "USB plug, device's end"),
    Form.USB_DEVICE_SOCKET: Shape("usb-device", _USB, False, "USB socket, device's end"),
    Form.OPTICAL_PLUG: Shape("optical", _OPTICAL, True, "optical plug"),
    Form.OPTICAL_SOCKET: Shape("optical", _OPTICAL, False, "optical socket"),
    Form.DSUB25_PLUG: Shape("dsub25", _DSUB25, True, "25-pin D-type plug"),
    Form.DSUB25_SOCKET: Shape("dsub25", _DSUB25, False, "25-pin D-type socket"),
}

CONTACT_WORDS = {
    "T": "tip",
    "R": "ring",
    "S": "sleeve",
    "R1": "first ring",
    "R2": "second ring",
    "1": "pin 1",
    "2": "pin 2",
    "3": "pin 3",
    "4": "pin 4",
    "5": "pin 5",
    "pin": "centre pin",
    "sleeve": "sleeve",
    "shell": "shell",
    "plus": "plus",
    "minus": "minus",
}
"""Contacts as a technician says them; others by their name."""

_FIT_INTO_COMBO = ("xlr3", "6.35 mm")
_RINGS_MEET: dict[tuple[tuple[str, ...], tuple[str, ...]], tuple[tuple[str, str], ...]] = {
    (_TS, _TS): (("T", "T"), ("S", "S")),
    (_TRS, _TRS): (("T", "T"), ("R", "R"), ("S", "S")),
    (_TRRS, _TRRS): (("T", "T"), ("R1", "R1"), ("R2", "R2"), ("S", "S")),
    (_TS, _TRS): (("T", "T"), ("S", "R"), ("S", "S")),
    (_TS, _TRRS): (("T", "T"), ("S", "R1"), ("S", "R2"), ("S", "S")),
    (_TRS, _TRRS): (("T", "T"), ("R", "R1"), ("S", "R2"), ("S", "S")),
    (_TRS, _TS): (("T", "T"), ("S", "S")),
    (_TRRS, _TRS): (("T", "T"), ("R1", "R")),
    (_TRRS, _TS): (("T", "T"),),
}
"""(plug contacts, socket contacts) to the pairs that touch. A shorter plug's long sleeve also meets the socket's
further springs; a longer plug's ring meets nothing in a two-contact socket unless the socket says otherwise."""


def fits(form: Form, other: Form) -> bool:
    """Whether the two go into each other at all: same family (or a combo socket's two), one plug and one socket."""
    own, others = SHAPES[form], SHAPES[other]
    if own.plug == others.plug:
        return False
    if "combo" in (own.family, others.family):
        return (others if own.family == "combo" else own).family in _FIT_INTO_COMBO
    return own.family == others.family


def uncertain(form: Form, other: Form) -> bool:
    """Whether what a mating joins depends on the socket's build: a four-contact plug in a shorter socket."""
    plug, socket = (form, other) if SHAPES[form].plug else (other, form)
    return SHAPES[plug].contacts == _TRRS and SHAPES[socket].contacts in (_TRS, _TS)


def made_for(form: Form, other: Form) -> bool:
    """Whether the two fit and it is certain what they join: what may be proposed to people."""
    return fits(form, other) and not uncertain(form, other)


def touching(
    form: Form, other: Form, sleeve: Sleeve = "both", ring: Literal["open", "sleeve"] = "open"
) -> tuple[tuple[str, str], ...]:
    """Pairs (contact of `one`, contact of `other`) that touch when mated. Precondition: fits(one, other).

    `sleeve`: where uncertain(), what the socket's sleeve spring meets. `ring`: what a two-contact socket does with
    a longer plug's ring.
    """
    if not SHAPES[form].plug:
        return tuple((own, others) for others, own in touching(other, form, sleeve, ring))
    plug, socket = SHAPES[form].contacts, SHAPES[other].contacts
    if socket == _COMBO:
        socket = _XLR3 if plug == _XLR3 else _TRS
    if (plug, socket) not in _RINGS_MEET:
        return tuple((contact, contact) for contact in plug if contact in socket)
    pairs = _RINGS_MEET[plug, socket]
    if uncertain(form, other):
        pairs += tuple((contact, "S") for contact in ("R2", "S") if sleeve in (contact, "both"))
    if socket == _TS and ring == "sleeve" and len(plug) > 2:
        pairs += ((plug[1], "S"),)
    return pairs


def carries_many_channels(form: Form) -> bool:
    """Whether one connector carries more than a stereo signal: a D-type's eight channels."""
    return SHAPES[form].family == "dsub25"


def half_in_use(form: Form, mate: Form | None) -> tuple[str, ...]:
    """The contacts that count: a combo socket has two connectors in one, and only one of them is ever used."""
    contacts = SHAPES[form].contacts
    if form is Form.COMBO_SOCKET and mate is not None:
        return _XLR3 if SHAPES[mate].family == "xlr3" else _TRS
    return contacts
