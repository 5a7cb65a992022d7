"""A device typed with what is seen on it: "keyboard with 3.5 mm out", "laptop on two-pin supply"."""

import re
from collections.abc import Iterator
from dataclasses import dataclass

from ruvak.core.entry.sockets import is_on
from ruvak.core.entry.words import plain
from ruvak.core.parts.library import library, words_for
from ruvak.core.rig.connectors import SHAPES
from ruvak.core.rig.part import ChoiceSetting, Part
from ruvak.core.rig.rig import Rig

_JOINED = re.compile(r"\s+(?:with|on|having)\s+", re.IGNORECASE)
_BETWEEN = re.compile(r"\s*,\s*|\s+and\s+|\s+with\s+", re.IGNORECASE)
_SUPPLIES: tuple[tuple[str, str, str], ...] = (
    (r"batter(?:y|ies)(?: power(?:ed)?)?", "battery", "floating"),
    (
        r"(?:two|2)[ -]pin(?: (?:supply|plug|charger|power|mains))?|double[ -]insulated(?: supply)?",
        "two-pin plug",
        "class-2",
    ),
    (r"(?:three|3)[ -]pin(?: (?:supply|plug|charger|power|mains))?", "earthed plug", "class-1"),
    (r"(?:earthed|grounded)(?: (?:supply|plug|charger|power|mains))?", "earthed plug", "class-1"),
    (r"mains(?: power)?|plugged in|a power supply", "earthed plug", "class-1"),
    (r"(?:a )?charger|charging", "charger", "class-2"),
)
"""What is seen of a supply, the setting's position, and the earthing of what has no such setting."""
_FORMS: dict[str, str] = {
    "3.5": "3.5 mm", "3.5mm": "3.5 mm", "minijack": "3.5 mm", "mini-jack": "3.5 mm",
    "6.35": "6.35 mm", "6.35mm": "6.35 mm", "jack": "6.35 mm", "jacks": "6.35 mm", "1/4": "6.35 mm", "trs": "6.35 mm",
    "xlr": "xlr3", "xlrs": "xlr3", "rca": "rca", "phono": "rca", "rcas": "rca", "hdmi": "hdmi", "usb": "usb",
    "combo": "combo", "midi": "din5", "network": "modular8",
}  # fmt: skip
_OUT, _IN = {"out", "outs", "output", "outputs"}, {"in", "ins", "input", "inputs"}
_SAY_NOTHING = {"mm", "a", "an", "only", "socket", "sockets", "plug", "stereo", "supply", "its", "inch", "own"}
_FOR_ALL = re.compile(
    r"(?:global phantom|(?:one )?phantom (?:for all|on all|everywhere|switch for all).*)", re.IGNORECASE
)


@dataclass(frozen=True)
class Description:
    """A name, and each thing said of it in plain words."""

    name: str
    features: tuple[str, ...]


def described(text: str) -> Description | None:
    """The name and what is said of it; None where the words behind "with" or "on" say nothing about a device."""
    name, *rest = _JOINED.split(text.strip(), maxsplit=1)
    if not rest:
        # "laptop (battery)", whose brackets are gone by now; "hung mains" are loudspeakers.
        words = text.split()
        said = {at: plain(" ".join(words[at:])) for at in (-2, -1) if len(words) > -at}
        at = next((at for at, what in said.items() if what != "mains" and supply_of(what)), None)
        name, rest = (" ".join(words[:at]), [" ".join(words[at:])]) if at is not None else ("", [])
    if not rest or not name:
        return None
    features = tuple(plain(feature) for feature in _BETWEEN.split(rest[0]) if feature.strip())
    return Description(name, features) if features and all(map(is_feature, features)) else None


def is_feature(text: str) -> bool:
    """Whether words can be said of a device: a supply, sockets, phantom for all."""
    words = plain(text).split()
    if supply_of(plain(text)) is not None or _FOR_ALL.fullmatch(text.strip()):
        return True
    return any(word in _FORMS for word in words) or bool({*_OUT, *_IN} & set(words))


def supply_of(feature: str) -> tuple[str, str] | None:
    """The setting's position and the earthing that go with what is seen of a supply."""
    for pattern, position, earthing in _SUPPLIES:
        if re.fullmatch(pattern, feature):
            return position, earthing
    return None


def parts_described(rig: Rig, description: Description) -> Iterator[tuple[Part, dict[str, str]]]:
    """Parts of that name that have it all, with the settings that go with it; the most usual first."""
    base = plain(description.name)
    own = {part.id for part in rig.parts}
    ranked: dict[str, tuple[int, Part]] = {}
    for part in (*rig.parts, *(part for part in library().values() if part.id not in own)):
        if part.kind == "gear" and (rank := _nearness(part, base)) is not None:
            ranked[part.id] = (rank, part)
    for _, part in sorted(ranked.values(), key=lambda entry: entry[0]):
        settings: dict[str, str] = {}
        if all(_has(part, feature, settings) for feature in description.features):
            yield part, settings


def _nearness(part: Part, base: str) -> int | None:
    """How near a part's names are to a typed one; None where they have nothing in common."""
    names = [plain(word) for word in (*words_for(part), part.name)]
    if base in names:
        return 0
    if any(name.startswith(f"{base} with ") for name in names):
        return 1
    if any(name.endswith(f" {base}") or name.startswith((f"{base},", f"{base} ")) for name in names):
        return 2
    return 3 if any(base.endswith(f" {name}") for name in names) else None


def _has(part: Part, feature: str, settings: dict[str, str]) -> bool:
    if (supply := supply_of(feature)) is not None:
        return _supplied(part, *supply, settings)
    if _FOR_ALL.fullmatch(feature):
        return any(setting.id == "phantom" for setting in part.settings)
    words = [word for word in feature.split() if word not in _SAY_NOTHING]
    families = {_FORMS[word] for word in words if word in _FORMS}
    sides = {"out"} if _OUT & set(words) else {"in"} if _IN & set(words) else {"in", "out"}
    rest = {word for word in words if word not in _FORMS and word not in _OUT | _IN and not word.isdigit()}
    return any(
        (not families or SHAPES[connector.form].family in families)
        and (connector.side == "both" or connector.side in sides)
        and all(is_on(connector, word) for word in rest)
        for connector in part.connectors
    )


def _supplied(part: Part, position: str, earthing: str, settings: dict[str, str]) -> bool:
    for setting in part.settings:
        if setting.id == part.earthing_setting and isinstance(setting, ChoiceSetting):
            if position in setting.options and position != setting.default:
                settings[setting.id] = position
            return position in setting.options
    return part.earthing is not None and part.earthing.type == earthing
