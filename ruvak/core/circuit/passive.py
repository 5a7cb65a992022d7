"""What parts are made of as elements: cables by the metre, resistors, coils, capacitors, transformers, stages."""

from ruvak.core.circuit.elements import Collector
from ruvak.core.rig.part import Buffer, Cable, Part, Transformer
from ruvak.core.rig.rig import KitItem
from ruvak.core.units import ratio_from_db


def add_leg(elements: Collector, item: KitItem, part: Part) -> None:
    """Everything inside one lead, adapter or box that is not plain wire."""
    for index, cable in enumerate(part.cables):
        _cable(elements, item, index, cable)
    add_components(elements, item.id, part)


def add_components(elements: Collector, owner: str, part: Part) -> None:
    """The components of a box, or those that a device puts between its emf and its contacts."""
    for number, element in enumerate(part.elements):
        match element.type:
            case "transformer":
                _transformer(elements, owner, number, element)
            case "buffer":
                _buffer(elements, owner, number, element)
            case "resistor":
                elements.resistor(f"{owner}.{element.a}", f"{owner}.{element.b}", element.ohm.value)
            case "capacitor":
                elements.capacitor(f"{owner}.{element.a}", f"{owner}.{element.b}", element.farad.value)
            case "inductor":
                ends = [f"{owner}.{element.a}"], [f"{owner}.{element.b}"]
                elements.bundle(*ends, [element.ohm.value], [[element.henry.value]])


def _cable(elements: Collector, item: KitItem, index: int, cable: Cable) -> None:
    """One pi section: series resistance and inductance, half of each capacitance at either end.

    Each core has half the pair's loop inductance to itself; all conductors share the external inductance, so
    M_ij = external, L_core = external + pair/2, L_screen = external.
    """
    length_m = item.length_m or 0.0
    ends_a, ends_b, ohms = [], [], []
    for number, conductor in enumerate(cable.conductors):
        cut = f"{item.id}.cut{index}-{number}"
        ends_a.append(f"{item.id}.{conductor.a}" if conductor.a else f"{cut}a")
        ends_b.append(f"{item.id}.{conductor.b}" if conductor.b else f"{cut}b")
        per_m = cable.core_ohm_per_m if conductor.kind == "core" else cable.screen_ohm_per_m
        ohms.append(per_m.value * length_m)
    shared_h = cable.external_h_per_m.value * length_m
    own_h = 0.5 * cable.pair_h_per_m.value * length_m
    henry = [
        [shared_h + (own_h if row == column and conductor.kind == "core" else 0.0) for column in range(len(ohms))]
        for row, conductor in enumerate(cable.conductors)
    ]
    elements.bundle(ends_a, ends_b, ohms, henry)
    kinds = [conductor.kind for conductor in cable.conductors]
    for i in range(len(kinds)):
        for j in range(i):
            both_cores = kinds[i] == kinds[j] == "core"
            per_m = cable.core_to_core_f_per_m if both_cores else cable.core_to_screen_f_per_m
            for ends in (ends_a, ends_b):
                elements.capacitor(ends[i], ends[j], 0.5 * per_m.value * length_m)


def _transformer(elements: Collector, owner: str, number: int, coil: Transformer) -> None:
    """Winding resistances and leakage in series, magnetising inductance across the primary, then an ideal ratio."""
    p, q = f"{owner}.{coil.primary_a}", f"{owner}.{coil.primary_b}"
    s, t = f"{owner}.{coil.secondary_a}", f"{owner}.{coil.secondary_b}"
    inner_p, inner_s = f"{owner}.winding{number}p", f"{owner}.winding{number}s"
    elements.bundle([p], [inner_p], [coil.primary_ohm.value], [[coil.leakage_h.value]])
    elements.bundle([inner_p], [q], [0.0], [[coil.magnetising_h.value]])
    elements.transformer(inner_p, q, inner_s, t, coil.turns_ratio.value)
    elements.resistor(inner_s, s, coil.secondary_ohm.value)
    elements.capacitor(p, s, 0.5 * coil.winding_f.value)
    elements.capacitor(q, t, 0.5 * coil.winding_f.value)


def _buffer(elements: Collector, owner: str, number: int, stage: Buffer) -> None:
    """Input impedance across a and b, an ideal stage, output impedance in series with c."""
    a, b, c, d = (f"{owner}.{point}" for point in (stage.a, stage.b, stage.c, stage.d))
    inner = f"{owner}.stage{number}"
    elements.resistor(a, b, stage.input_ohm.value)
    elements.amplifier(a, b, inner, d, ratio_from_db(stage.gain_db.value))
    elements.branch(inner, c, stage.output_ohm.value)
