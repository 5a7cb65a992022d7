"""What parts are made of as elements: cables by the metre, resistors, coils, capacitors, transformers, stages."""

import math
from collections.abc import Iterator

from ruvak.core.circuit.circuit import Tolerance, cable_owner
from ruvak.core.circuit.elements import CircuitPoint, Collector, Internal
from ruvak.core.circuit.exposure import CableBranches, pair_signs
from ruvak.core.circuit.outputs import stated_part
from ruvak.core.rig.element import Buffer, Transformer
from ruvak.core.rig.part import Cable, Part
from ruvak.core.rig.rig import KitItem
from ruvak.core.rig.values import Spread
from ruvak.core.units import ratio_from_db


def add_piece(elements: Collector, item: KitItem, part: Part, tolerances: list[Tolerance]) -> list[CableBranches]:
    """Everything inside one lead, adapter or box that is not plain wire; its cables, section by section."""
    cables = [
        section
        for index, cable in enumerate(part.cables)
        for section in _cable(elements, item, index, cable, tolerances)
    ]
    add_components(elements, item.id, part)
    return cables


def add_components(elements: Collector, owner: str, part: Part) -> None:
    """The components of a box, or those that a device puts between its emf and its contacts."""
    for number, element in enumerate(part.elements):
        match element.type:
            case "transformer":
                _transformer(elements, owner, number, element)
            case "buffer":
                _buffer(elements, owner, number, element)
            case "resistor":
                elements.resistor(element.a.of(owner), element.b.of(owner), element.ohm.value)
            case "capacitor":
                elements.capacitor(element.a.of(owner), element.b.of(owner), element.farad.value)
            case "inductor":
                elements.bundle(
                    [element.a.of(owner)], [element.b.of(owner)], [element.ohm.value], [[element.henry.value]]
                )


SECTION_M = 100.0
"""A longer lead is cut into equal pi sections, none longer than this: 1000 m then follow the exact line to 0.02 dB at
20 kHz for sources up to 10 kohm (tests/outside/test_lines.py), a single section only 200 m to 0.05 dB."""


def _cable(
    elements: Collector, item: KitItem, index: int, cable: Cable, tolerances: list[Tolerance]
) -> list[CableBranches]:
    """Pi sections in a row: series resistance and inductance, half of each capacitance at either end.

    Each core has half the pair's loop inductance to itself; all conductors share the external inductance, so
    M_ij = external, L_core = external + pair/2, L_screen = external. The first core of a pair takes half the screen's
    stated coupling more than that, the second half less; likewise the capacitances to the screen.
    """
    whole_m = item.length_m or 0.0
    count = max(1, math.ceil(whole_m / SECTION_M))
    ends: list[tuple[CircuitPoint, CircuitPoint]] = [
        (
            conductor.a.of(item.id) if conductor.a else Internal(item.id, f"cut{index}a", number),
            conductor.b.of(item.id) if conductor.b else Internal(item.id, f"cut{index}b", number),
        )
        for number, conductor in enumerate(cable.conductors)
    ]
    joints: list[list[CircuitPoint]] = [
        [a for a, _ in ends],
        *(_joint(item.id, f"joint{index}-{at}", len(ends)) for at in range(1, count)),
        [b for _, b in ends],
    ]
    signs = pair_signs(cable)
    sections, coupled, farads = [], [], []
    for number in range(count):
        length_m = whole_m / count
        between = list(zip(joints[number], joints[number + 1], strict=True))
        first = _series(elements, cable, length_m, between, signs)
        farads += _capacitances(elements, cable, length_m, between, signs)
        branches = tuple(first + k for k in range(len(ends)))
        sections.append(CableBranches(item, index, cable, branches, tuple(between), number, count))
        coupled += _screen_coupling(cable, branches, signs, length_m)
    tolerances += _tolerances(cable, cable_owner(item.id, index), coupled, farads)
    return sections


def _joint(owner: str, name: str, count: int) -> list[CircuitPoint]:
    """A node for each conductor where two sections of a long lead meet."""
    return [Internal(owner, name, number) for number in range(count)]


def _series(
    elements: Collector,
    cable: Cable,
    length_m: float,
    ends: list[tuple[CircuitPoint, CircuitPoint]],
    signs: list[float],
) -> int:
    """One section's conductors as coupled branches; the first one's number."""
    kinds = [conductor.kind for conductor in cable.conductors]
    shared_h = cable.external_h_per_m.value * length_m
    own_h = 0.5 * cable.pair_h_per_m.value * length_m
    more_h = 0.5 * stated_part(cable.screen_coupling_h_per_m) * length_m

    def henry(i: int, j: int) -> float:
        own = own_h if i == j and kinds[i] == "core" else 0.0
        return shared_h + own + (more_h * (signs[i] + signs[j]) if kinds[i] != kinds[j] else 0.0)

    per_m = {"core": cable.core_ohm_per_m.value, "screen": cable.screen_ohm_per_m.value}
    count = range(len(kinds))
    return elements.bundle(
        [a for a, _ in ends],
        [b for _, b in ends],
        [per_m[kind] * length_m for kind in kinds],
        [[henry(i, j) for j in count] for i in count],
    )


def _capacitances(
    elements: Collector,
    cable: Cable,
    length_m: float,
    ends: list[tuple[CircuitPoint, CircuitPoint]],
    signs: list[float],
) -> list[tuple[int, float]]:
    """Half of each at either end; returns those from a pair's core to a screen: (index, farad per unit mismatch)."""
    result = []
    stated = stated_part(cable.core_screen_mismatch)
    kinds = [conductor.kind for conductor in cable.conductors]
    for i in range(len(kinds)):
        for j in range(i):
            both_cores = kinds[i] == kinds[j] == "core"
            per_m = cable.core_to_core_f_per_m if both_cores else cable.core_to_screen_f_per_m
            sign = 0.0 if kinds[i] == kinds[j] else signs[i] + signs[j]
            farad = 0.5 * per_m.value * length_m
            for end, other in zip(ends[i], ends[j], strict=True):
                index = elements.capacitor(end, other, farad * (1.0 + 0.5 * sign * stated))
                if index is not None and sign:
                    result.append((index, 0.5 * sign * farad))
    return result


def _screen_coupling(
    cable: Cable, branches: tuple[int, ...], signs: list[float], length_m: float
) -> list[tuple[int, int, float]]:
    """Mutual inductances of one section that a unit of the screen's coupling adds: (branch, branch, henry)."""
    screens = [i for i, conductor in enumerate(cable.conductors) if conductor.kind == "screen"]
    return [
        (branches[i], branches[screen], 0.5 * length_m * sign)
        for screen in screens
        for i, sign in enumerate(signs)
        if sign
    ]


def _tolerances(
    cable: Cable, owner: str, coupled: list[tuple[int, int, float]], farads: list[tuple[int, float]]
) -> Iterator[Tolerance]:
    """What is of unknown sign about a lead: its screen's coupling, its cores' capacitances."""
    coupling, mismatch = cable.screen_coupling_h_per_m, cable.core_screen_mismatch
    if isinstance(coupling, Spread) and coupled:
        yield Tolerance(
            "screen_coupling", owner, coupling.likely, coupling.worst, coupling.source, branch_henries=tuple(coupled)
        )
    if isinstance(mismatch, Spread) and farads:
        yield Tolerance(
            "core_screen_mismatch", owner, mismatch.likely, mismatch.worst, mismatch.source, capacitances=tuple(farads)
        )


def _transformer(elements: Collector, owner: str, number: int, coil: Transformer) -> None:
    """Winding resistances and leakage in series, magnetising inductance across the primary, then an ideal ratio."""
    p, q = coil.primary_a.of(owner), coil.primary_b.of(owner)
    s, t = coil.secondary_a.of(owner), coil.secondary_b.of(owner)
    inner_p, inner_s = Internal(owner, "winding-primary", number), Internal(owner, "winding-secondary", number)
    elements.bundle([p], [inner_p], [coil.primary_ohm.value], [[coil.leakage_h.value]])
    elements.bundle([inner_p], [q], [0.0], [[coil.magnetising_h.value]])
    elements.transformer(inner_p, q, inner_s, t, coil.turns_ratio.value)
    elements.resistor(inner_s, s, coil.secondary_ohm.value)
    elements.capacitor(p, s, 0.5 * coil.winding_f.value)
    elements.capacitor(q, t, 0.5 * coil.winding_f.value)
    if coil.saturates_dbu is not None:
        elements.cores.append((owner, inner_p, q, coil.saturates_dbu.value, coil.saturates_hz.value))


def _buffer(elements: Collector, owner: str, number: int, stage: Buffer) -> None:
    """Input impedance across a and b, an ideal stage, output impedance in series with c."""
    a, b, c, d = (point.of(owner) for point in (stage.a, stage.b, stage.c, stage.d))
    inner = Internal(owner, "stage", number)
    elements.resistor(a, b, stage.input_ohm.value)
    elements.amplifier(a, b, inner, d, ratio_from_db(stage.gain_db.value))
    elements.branch(inner, c, stage.output_ohm.value)
