"""Wiring sheets for what people solder: each contact, what joins it to what, and what a meter reads when it is done."""

from collections.abc import Iterator
from itertools import combinations
from math import log10

import numpy as np
from networkx import Graph, node_connected_component, resistance_distance

from ruvak.core.rig.connectors import SHAPES
from ruvak.core.rig.element import Resistor
from ruvak.core.rig.part import Connector, Part
from ruvak.core.rig.points import Contact, InnerNode
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.values import Id, Record
from ruvak.core.rig.wiring_fault import contact_words, metal_of
from ruvak.core.trace.trace import element_points, merge_groups, points_of

MOST_CONTACTS = 16
"""A multicore is not soldered from a sheet of paper."""


class Plug(Record):
    """A connector of the drawing."""

    id: Id
    """Its name within the part."""
    words: str
    """What it is, as people say it."""
    contacts: tuple[str, ...]
    """In drawing order, by their names in the format: 1, T, shell."""
    side: str
    """Where it is drawn: in on the left, out on the right."""


class Joint(Record):
    """What is soldered between two points: a core, a screen, a link, or a resistor."""

    a: str
    """One contact or inner point."""
    b: str
    """The other; empty for a conductor that is cut there."""
    kind: str
    """core, screen, wire or resistor."""
    ohm: float | None = None
    """Of a resistor."""


class MeterReading(Record):
    """What an ohmmeter shows between two contacts of the finished piece."""

    a: str
    """One contact, in words."""
    b: str
    """The other."""
    ohm: float
    """Between them, in ohms, with nothing plugged in; 0 for metal."""


class SheetLoss(Record):
    """What a piece with resistors takes away."""

    signal: str
    """From which contacts to which, in words."""
    loss_db: float
    """Against a plain lead, between a source of 150 Ω and an input of 10 kΩ."""


class WiringSheet(Record):
    """A part that somebody makes."""

    part: Id
    """The part."""
    name: str
    """What it is called."""
    words: str
    """A sentence about it."""
    count: int
    """How many of it are in the rig's runs."""
    plugs: tuple[Plug, ...]
    """Its connectors."""
    joints: tuple[Joint, ...]
    """What joins them."""
    cut: tuple[str, ...]
    """Ends of conductors that are left unconnected on purpose: a lifted screen."""
    readings: tuple[MeterReading, ...]
    """To check it with a meter; contacts that are not named together read open."""
    losses: tuple[SheetLoss, ...]
    """Where there are resistors inside."""


def wiring_sheets(rig: Rig) -> tuple[WiringSheet, ...]:
    """Of each lead and adapter of the runs that has only metal and resistors inside, in the order of the runs."""
    used = [piece for run in rig.runs for piece in run.pieces]
    counts: dict[str, int] = {}
    for piece in dict.fromkeys(used):
        part = rig.part_of(piece)
        counts[part.id] = counts.get(part.id, 0) + 1
    parts = (rig.parts_by_id[id_] for id_ in counts)
    return tuple(wiring_sheet(part, counts[part.id]) for part in parts if is_soldered(part))


def is_soldered(part: Part) -> bool:
    """Whether somebody makes it at a bench: few contacts, metal and resistors, nothing that is printed or moulded."""
    contacts = sum(len(SHAPES[connector.form].contacts) for connector in part.connectors)
    is_simple = all(isinstance(element, Resistor) for element in part.elements) and not part.outputs and not part.inputs
    is_audio = part.signal in (None, "microphone", "instrument", "consumer-line", "professional-line", "headphone")
    optical = any(cable.optical for cable in part.cables)
    is_small = part.kind in ("lead", "adapter", "box") and contacts <= MOST_CONTACTS
    return is_small and is_simple and is_audio and not optical


def wiring_sheet(part: Part, count: int = 1) -> WiringSheet:
    """The sheet of a part of metal and resistors."""
    return WiringSheet(
        part=part.id,
        name=part.name,
        words=part.words,
        count=count,
        plugs=tuple(
            Plug(
                id=connector.id,
                words=SHAPES[connector.form].words,
                contacts=SHAPES[connector.form].contacts,
                side="out" if connector.side == "out" else "in",
            )
            for connector in part.connectors
        ),
        joints=tuple(_joints(part)),
        cut=tuple(
            str(end)
            for cable in part.cables
            for conductor in cable.conductors
            for end, other in ((conductor.a, conductor.b), (conductor.b, conductor.a))
            if end is not None and other is None
        ),
        readings=tuple(_readings(part)),
        losses=tuple(_losses(part)) if part.elements else (),
    )


def _joints(part: Part) -> Iterator[Joint]:
    for a, b, kind in metal_of(part):
        yield Joint(a=str(a), b=str(b), kind=kind)
    for cable in part.cables:
        for conductor in cable.conductors:
            kept = conductor.a or conductor.b
            if kept is not None and None in (conductor.a, conductor.b):
                yield Joint(a=str(kept), b="", kind=conductor.kind)
    for element in part.elements:
        if isinstance(element, Resistor):
            yield Joint(a=str(element.a), b=str(element.b), kind="resistor", ohm=element.ohm.value)


def _readings(part: Part) -> Iterator[MeterReading]:
    """Between contacts of different plugs, and of one plug where something joins them; a piece of metal counts as 0 Ω.

    Resistance between two points of a network of resistors: Klein and Randić, Journal of Mathematical Chemistry 12
    (1993), as networkx computes it.
    """
    metal = merge_groups(points_of(part), [(a, b) for a, b, _ in metal_of(part)])
    network = Graph()
    network.add_nodes_from(metal.values())
    for element in part.elements:
        if isinstance(element, Resistor):
            a, b = metal[element.a], metal[element.b]
            siemens = network.get_edge_data(a, b, {"siemens": 0.0})["siemens"] + 1.0 / element.ohm.value
            if a != b:
                network.add_edge(a, b, siemens=siemens)
    contacts: list[Contact | InnerNode] = [point for point in points_of(part) if isinstance(point, Contact)]
    for first, second in combinations(contacts, 2):
        a, b = metal[first], metal[second]
        if a != b and b not in node_connected_component(network, a):
            continue
        ohm = 0.0 if a == b else _between(network, a, b)
        yield MeterReading(a=_words(part, first), b=_words(part, second), ohm=round(ohm, 1))


def _losses(part: Part) -> Iterator[SheetLoss]:
    """Of each signal that goes in, where it comes out strongest, with every socket in use."""
    sources = [pair for connector in part.connectors if connector.side == "in" for pair in _signals(part, connector)]
    goals = [pair for connector in part.connectors if connector.side == "out" for pair in _signals(part, connector)]
    plain = _INPUT_OHM / (_INPUT_OHM + _SOURCE_OHM)
    for driven in sources:
        volts = _volts(part, sources, driven, goals)
        if volts and (goal := max(volts, key=lambda pair: abs(volts[pair]))) and abs(volts[goal]) > 0:
            words = f"{_pair_words(part, driven)} to {_pair_words(part, goal)}"
            yield SheetLoss(signal=words, loss_db=round(-20 * log10(abs(volts[goal]) / plain), 1))


_SOURCE_OHM, _INPUT_OHM = 150.0, 10_000.0
"""Common practice for a line output and a line input, no source."""
_LEAK_S = 1e-12
"""Holds what is joined to nothing, too little to change any figure."""
_Pair = tuple[Contact, Contact]


def _signals(part: Part, connector: Connector) -> list[_Pair]:
    """The pairs of contacts that carry its signals. Tip and ring of a three-contact plug are left and right where
    resistors bring them together or lead to a sleeve, and the two legs of a line otherwise."""
    hot, second, *rest = (Contact(connector.id, contact) for contact in SHAPES[connector.form].contacts)
    reached = [
        {point for element in part.elements for point in element_points(element) if leg in element_points(element)}
        for leg in (hot, second)
    ]
    ends = {str(point).rpartition(".")[2] for element in part.elements for point in element_points(element)}
    if rest and rest[0].contact == "S" and ("S" in ends or (connector.side == "in" and reached[0] & reached[1])):
        return [(hot, rest[0]), (second, rest[0])]
    return [(hot, second)]


def _volts(part: Part, sources: list[_Pair], driven: _Pair, goals: list[_Pair]) -> dict[_Pair, float]:
    """Voltage between each pair at the far side for an emf of 1 V in one source, by its node equations."""
    metal = merge_groups(points_of(part), [(a, b) for a, b, _ in metal_of(part)])
    number = {name: index for index, name in enumerate(sorted(set(metal.values())))}
    siemens, amperes = np.eye(len(number)) * _LEAK_S, np.zeros(len(number))
    between = [(element.a, element.b, element.ohm.value) for element in part.elements if isinstance(element, Resistor)]
    between += [(*pair, _SOURCE_OHM) for pair in sources] + [(*pair, _INPUT_OHM) for pair in goals]
    for a, b, ohm in between:
        p, q = number[metal[a]], number[metal[b]]
        for row, column, sign in ((p, p, 1), (q, q, 1), (p, q, -1), (q, p, -1)):
            siemens[row, column] += sign / ohm
    hot, cold = (number[metal[point]] for point in driven)
    amperes[hot] += 1.0 / _SOURCE_OHM
    amperes[cold] -= 1.0 / _SOURCE_OHM
    volts = np.linalg.solve(siemens, amperes)
    return {(a, b): float(volts[number[metal[a]]] - volts[number[metal[b]]]) for a, b in goals}


def _pair_words(part: Part, pair: _Pair) -> str:
    return f"{_words(part, pair[0])} and {contact_words(pair[1])}"


def _between(network: Graph, a: str, b: str) -> float:
    own = network.subgraph(node_connected_component(network, a))
    return float(resistance_distance(own, a, b, weight="siemens", invert_weight=False))


def _words(part: Part, point: Contact | InnerNode) -> str:
    if isinstance(point, InnerNode) or len(part.connectors) == 1:
        return contact_words(point)
    connector = next(each for each in part.connectors if each.id == point.connector)
    return f"{connector.label} {contact_words(point)}"
