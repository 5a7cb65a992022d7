"""The words after a name: which sockets of a part they mean."""

import re
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from rapidfuzz import fuzz, process
from rapidfuzz.distance import OSA

from ruvak.core.entry.words import expand_ranges
from ruvak.core.rig.connectors import carries_many_channels
from ruvak.core.rig.part import Connector, Part
from ruvak.core.rig.ports import family_of

Role = Literal["source", "goal", "through"]

_LEFT, _RIGHT = {"l", "left"}, {"r", "right"}
SIDES = frozenset(_LEFT | _RIGHT)
_NOISE = frozenset((
    "in", "ins", "input", "inputs", "out", "outs", "output", "outputs",
    "ch", "chan", "channel", "channels", "socket", "sockets", "and", "number",
    "no", "nr", "stereo", "mono", "mic", "mics", "microphone", "line",
    "lines", "pair", "send", "sends", "own", "signal", "audio", "sound", "or", "only", "jack",
    "pre", "post", "prefade", "postfade", "fader", "fade",
))  # fmt: skip
"""Words that say nothing where no label has them."""
_SYNONYMS = {
    "headphone": "headphones", "phones": "headphones", "cans": "headphones", "auxes": "aux", "mains": "main",
    "inserts": "insert", "rec": "record", "recording": "record", "tape": "record", "recorder": "record",
    "loop": "through", "thru": "through", "spk": "speaker", "spkr": "speaker", "bus": "aux", "mix": "aux",
    "group": "aux", "foldback": "aux", "sends": "send", "returns": "return", "jack": "6.35", "mics": "mic",
    "microphone": "mic", "lines": "line", "spdif": "coaxial", "coax": "coaxial", "dig": "digital", "minijack": "3.5",
    "st": "stereo", "lightpipe": "optical", "input": "in", "inputs": "in", "master": "main", "masters": "main",
    "buss": "aux", "subgroup": "aux",
}  # fmt: skip
_KINDS_OF_BUS = frozenset(("group", "mix", "bus"))
"""Where one of these stands by a socket it is no auxiliary output, though it means one where none has it."""
_SOUND = frozenset(("audio", "sound"))
"""Words that ask for a socket of sound."""
_NEAR = 74.0
_MAIN, _MIX = frozenset(("main", "mains")), frozenset(("mix", "bus"))


@dataclass(frozen=True)
class Sockets:
    """`positions`: for each place the line names, the connector ids it may mean, best first. Empty: none named."""

    positions: tuple[tuple[str, ...], ...]
    unknown: str | None = None
    mono: bool = False
    channels: tuple[int, ...] = ()
    """Of one socket with several channels those that the line names; empty for all other sockets."""
    implied: bool = False
    """Two sides of one kind of socket, of which the line names neither: "main", "return"."""


def tokens(connector: Connector) -> frozenset[str]:
    """The words of a socket's label and id, for comparing."""
    return _tokens(connector.label, connector.id)


@lru_cache(maxsize=4096)
def _tokens(label: str, id_: str) -> frozenset[str]:
    words = re.findall(r"\d+\.\d+|\d+|[a-z]+", f"{expand_ranges(label)} {id_.replace('-', ' ')}".lower())
    return frozenset(word if word in _KINDS_OF_BUS else _SYNONYMS.get(word, word) for word in words)


def usable(part: Part, role: Role) -> tuple[Connector, ...]:
    """Connectors of a part that can play a role, in its own order; of USB ones those that the part says data of."""
    wrong = "in" if role == "source" else "out"
    ports = {name for port in (*part.outputs, *part.inputs) for name in port.connectors}
    return tuple(
        connector
        for connector in part.connectors
        if connector.side != wrong and (connector.id in ports or not connector.form.startswith("usb"))
    )


def sockets(part: Part, words: tuple[str, ...], role: Role) -> Sockets:
    """Reads the words after a name; `unknown` holds the first that no socket answers to."""
    options = usable(part, role)
    words = tuple(" ".join(words).replace("mini jack", "minijack").replace("-", " ").split())
    if _MAIN & set(words):
        # "main mix" is no auxiliary one.
        words = tuple(word for word in words if word not in _MIX)
    known = set().union(*(tokens(option) for option in options))
    kinds, places, sides, unknown = _sort_words(words, known)
    mono = "mono" in words and not sides
    fitting = [option for option in options if kinds <= tokens(option)]
    if "insert" not in kinds:
        # An insert is for a processor: "mixer 3" is the channel's input.
        fitting = [option for option in fitting if "insert" not in tokens(option)] or fitting
    if not fitting:
        # "headphone out" where another socket is labelled "HDMI out".
        fitting = [option for option in options if kinds - _NOISE <= tokens(option)]
    elif kinds <= _NOISE and not any(_is_of_sound(part, option) for option in fitting):
        # "line out" beside a socket labelled "MIDI out".
        fitting = [option for option in options if _is_of_sound(part, option)] or fitting
    if (asked := set(words) & _SOUND) and fitting:
        # A camera's "audio out" is none that carries the picture.
        fitting = [option for option in fitting if _is_of_sound(part, option)]
        kinds = kinds | asked
    if unknown is not None or not fitting:
        return Sockets((), unknown or " ".join(sorted(kinds)), mono)
    if sides and not kinds and not places and role == "source":
        fitting = _of_the_main_output(part, fitting)
    if sides and not any({"left", "right"} & tokens(way) for way in fitting):
        sides = []
    result = _places(fitting, places, sides)
    if isinstance(result, str) and kinds & _NOISE:
        # "in 3" beside a socket labelled "Two-track in".
        result = _places([option for option in options if kinds - _NOISE <= tokens(option)], places, sides)
    if isinstance(result, str):
        return Sockets((), result, mono)
    if not result and kinds:
        result = _only_kinds(fitting)
        return Sockets(result, None, mono, implied=len(result) == 2)
    if len(result) == 1 and not sides and len(pair := _only_kinds([w for w in fitting if w.id in result[0]])) == 2:
        # "return 1", which has a left and a right.
        return Sockets(pair, None, mono, implied=True)
    return Sockets(result, None, mono, _channels(part, result, places))


def _of_the_main_output(part: Part, fitting: list[Connector]) -> list[Connector]:
    """Of sockets with sides, where the line names sides alone, those of the usual output: a mixer's "L/R" are no record
    outputs."""
    usual = next((output for output in part.outputs if output.id == "main"), None)
    own = [socket for socket in fitting if usual is not None and socket.id in usual.connectors]
    return own if any(SIDES & tokens(socket) for socket in own) else fitting


def _channels(part: Part, positions: tuple[tuple[str, ...], ...], places: list[str]) -> tuple[int, ...]:
    """The numbers that name channels of one socket."""
    if len(positions) != 1 or len(positions[0]) != 1 or not has_many_channels(part, positions[0][0]):
        return ()
    return tuple(int(place) for place in places)


def has_many_channels(part: Part, socket: str) -> bool:
    """Whether one socket carries more than a stereo signal: a D-type's eight."""
    return carries_many_channels(next(connector.form for connector in part.connectors if connector.id == socket))


def _is_of_sound(part: Part, connector: Connector) -> bool:
    """Whether a socket's port carries sound; one that leads on what comes in counts as such."""
    ports = [port for port in (*part.outputs, *part.inputs) if connector.id in port.connectors]
    return not ports or any(family_of(port.signal) == "sound" for port in ports)


def is_on(connector: Connector, word: str) -> bool:
    """Whether a socket has this word on it, or another for the same."""
    return word in tokens(connector) or _SYNONYMS.get(word, word) in tokens(connector)


def is_labelled(part: Part, word: str) -> bool:
    """Whether one of its sockets has this word on it."""
    return any(is_on(connector, word) for connector in part.connectors)


def is_printed(part: Part, word: str) -> bool:
    """Whether a word that says which socket is meant stands by one: "speaker" by a powered mixer's, not "mic"."""
    meant = _SYNONYMS.get(word, word)
    if word in _NOISE or meant in _NOISE:
        return meant in ("in", "out", "input", "output")
    return is_labelled(part, word)


def _sort_words(words: tuple[str, ...], known: set[str]) -> tuple[set[str], list[str], list[str], str | None]:
    """Words as kinds of socket, numbers, sides, and the first that is none of these."""
    kinds: set[str] = set()
    places: list[str] = []
    sides: list[str] = []
    for word in words:
        meant = word if word in known and word in _KINDS_OF_BUS else _SYNONYMS.get(word, word)
        if word.isdigit():
            places.append(word)
        elif word in SIDES:
            sides.append("left" if word in _LEFT else "right")
        elif len(word) == 2 and word in ("lr", "l/r"):
            sides += ["left", "right"]
        elif meant == "headphones" and meant not in known and "headset" in known:
            kinds.add("headset")
        elif meant in known:
            if word != "mono":
                kinds.add(meant)
        elif word in _NOISE or meant in _NOISE or meant == "main":
            # A sampler's "main outs" are all it has.
            continue
        else:
            near = process.extractOne(meant, known, scorer=fuzz.ratio, score_cutoff=_NEAR)
            if near is None or (len(meant) < 5 and OSA.distance(meant, near[0]) > 1):
                return kinds, places, sides, word
            kinds.add(near[0])
    return kinds, places, sides, None


def _places(fitting: list[Connector], places: list[str], sides: list[str]) -> tuple[tuple[str, ...], ...] | str:
    """One position a number or side; the word itself where no socket has it."""
    both = [
        tuple(way.id for way in fitting if {place, side} <= tokens(way))
        for place in places
        for side in dict.fromkeys(sides)
    ]
    if both and all(both):
        # "return 1 L/R".
        return tuple(both)
    result: list[tuple[str, ...]] = []
    for word in [*places, *sides]:
        having = tuple(way.id for way in fitting if word in tokens(way))
        if not having:
            return word
        if having in result:
            # One place named twice is no second place.
            continue
        result.append(having)
    return tuple(result)


def _only_kinds(fitting: list[Connector]) -> tuple[tuple[str, ...], ...]:
    """ "main" or "aux" without a number: a left and a right are two places, anything else is the first that fits."""
    left = tuple(way.id for way in fitting if "left" in tokens(way))
    right = tuple(way.id for way in fitting if "right" in tokens(way))
    if left and right:
        return (left, right)
    return (tuple(way.id for way in fitting),)
