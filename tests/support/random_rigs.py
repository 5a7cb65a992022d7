"""Random rigs: earth trees, bonds, every kind of earthing, leads with faults, boxes with coils and stages.

hypothesis draws the seed; everything else follows from it, so that neighbouring examples have nothing in common.
"""

import math
from random import Random
from typing import Any

from hypothesis import strategies as st

from ruvak.core.parts.library import default_disturbances
from ruvak.core.rig.earth import MainsRun, Position
from ruvak.core.rig.rig import Rig
from tests.support.earths import Doc, cable, earthed, ts_input, ts_source, xlr_input, xlr_source

SEEDS = st.integers(0, 2**48)


def rigs() -> st.SearchStrategy[Rig]:
    """Prepared rigs for hypothesis."""
    return SEEDS.map(random_rig)


def logged(pick: Random, low: float, high: float) -> float:
    """Three digits, even in decades."""
    return float(f"{10 ** pick.uniform(math.log10(low), math.log10(high)):.3g}")


def random_rig(seed: int, most_runs: int = 20) -> Rig:
    """A whole rig, prepared; two thirds of its runs share one desk, now and then a battery pair stands apart."""
    pick = Random(seed)
    earth = _earth(pick)
    outlets = [point["id"] for point in earth if point["kind"] == "outlet"]
    count = pick.randint(6, most_runs)
    made = [_run(pick, number) for number in range(count)]
    desks = [
        _desk("desk-a", _earthing(pick), [kind for number, (kind, *_) in enumerate(made) if number % 3], pick),
        _desk("desk-b", _earthing(pick), [kind for number, (kind, *_) in enumerate(made) if number % 3 == 0], pick),
    ]
    parts: list[Doc] = [desk for desk in desks if desk["connectors"]]
    leads: dict[str, Doc] = {}
    runs = []
    used = {"desk-a": 0, "desk-b": 0}
    for number, (_, source, lead, boxes, fields) in enumerate(made):
        desk = "desk-a" if number % 3 else "desk-b"
        used[desk] += 1
        lead_part, lead_id = {**lead, "id": f"lead-{number}"}, f"l{number}"
        leads[lead_id] = {"part": lead_part["id"], **fields}
        parts += [source, lead_part]
        joins = [(f"{source['id']}.{source['connectors'][0]['id']}", f"{lead_id}.in")]
        end = f"{lead_id}.out"
        for place, box in enumerate(boxes):
            box_id = f"b{number}-{place}"
            parts.append({**box, "id": f"box-{number}-{place}"})
            leads[box_id] = {"part": f"box-{number}-{place}"}
            joins.append((end, f"{box_id}.in"))
            end = f"{box_id}.out"
        runs.append([*joins, (end, f"{desk}.in{used[desk]}")])
    if pick.random() < 0.6:
        _battery_pair(pick, parts, leads, runs)
    gear = [part["id"] for part in parts if part["kind"] == "gear"]
    at = {id_: pick.choice(outlets) for id_ in gear if pick.randint(0, 4)}
    faults = {id_: {"supply_fault_v": 0.02} for id_ in gear if pick.randint(0, 30) == 0}
    faults |= {id_: {"earth_open": True} for id_ in gear if pick.randint(0, 40) == 0}
    rig = earthed(
        parts,
        runs,
        leads,
        at,
        earth,
        _disturbances(pick),
        contact_ohm=logged(pick, 0.005, 0.3),
        gear=faults,
        bonds=_bonds(pick, gear, outlets),
        venue={"mains_hz": pick.choice([50, 60])},
    )
    return _planned(pick, rig) if pick.random() < 0.4 else rig


def _planned(pick: Random, rig: Rig) -> Rig:
    """Most of it put on a plan, now and then beside mains cables drawn there."""

    def place() -> Position:
        return Position(x_m=round(pick.uniform(0, 30), 2), y_m=round(pick.uniform(0, 20), 2))

    mains = [
        {"id": f"feed-{n}", "name": f"feed {n}", "points": [place() for _ in range(pick.randint(2, 4))]}
        | {"current_a": logged(pick, 0.1, 30), "residual_a": pick.choice([None, 0.01])}
        for n in range(pick.randint(0, 2))
    ]
    drawn = {"bar_at": place() if pick.random() < 0.5 else None, "mains": tuple(map(MainsRun.model_validate, mains))}
    earth = [one.model_copy(update={"at": place() if pick.random() < 0.6 else None}) for one in rig.venue.earth]
    return rig.with_fields(
        venue=rig.venue.model_copy(update={**drawn, "earth": tuple(earth)}),
        gear=tuple(one.model_copy(update={"at": place() if pick.random() < 0.8 else None}) for one in rig.gear),
        runs=tuple(
            run.model_copy(update={"route": tuple(place() for _ in range(pick.choice([0, 0, 1, 3])))})
            for run in rig.runs
        ),
    )


def _battery_pair(pick: Random, parts: list[Doc], leads: dict[str, Doc], runs: list[list[tuple[str, str]]]) -> None:
    """Two devices that nothing but their lead joins to anything."""
    floating = {"earthing": {"type": "floating"}}
    lead = cable("ts635-plug", "ts635-plug", [("in.T", "out.T")], ("in.S", "out.S"), **_metres(pick))
    parts += [ts_source("player", logged(pick, 20, 2000), floating), {**lead, "id": "lead-apart"}]
    parts.append(ts_input("recorder", logged(pick, 5000, 1e6), floating))
    leads["apart"] = {"part": "lead-apart", "length_m": logged(pick, 1, 20)}
    runs.append([("player.out1", "apart.in"), ("apart.out", "recorder.in1")])


def _earth(pick: Random) -> list[Doc]:
    points: list[Doc] = []
    above: dict[str, list[str | None]] = {"building": [None], "board": [None], "circuit": [None], "strip": [None]}
    above["outlet"] = [None]
    order = ("building", "board", "circuit", "strip", "outlet")
    for kind, most in zip(order, (1, 2, 3, 3, 6), strict=True):
        for number in range(pick.randint(2 if kind == "outlet" else 0, most)):
            upper = [point["id"] for point in points if order.index(point["kind"]) < order.index(kind)]
            parent = pick.choice([*upper, None]) if upper else None
            point: Doc = {"id": f"{kind}-{number}", "name": f"{kind} {number}", "kind": kind}
            if parent:
                point["parent"] = parent
            if pick.random() < 0.5:
                point |= {"ohm": logged(pick, 0.005, 2), "henry": pick.choice([0, 1e-6, 2e-5])}
            match pick.randint(0, 3):
                case 0:
                    lines = pick.sample(range(1, 41), pick.randint(1, 3))
                    volts = [{"h": h, "v": logged(pick, 1e-4, 1), "phase_deg": 30.0 * h} for h in lines]
                    point["voltage"] = {"lines": volts}
                    measured = [one["id"] for one in points if "voltage" in one]
                    if measured and pick.random() < 0.5:
                        point["voltage"]["against"] = pick.choice(measured)
                case 1:
                    point["emf_v"] = {"likely": logged(pick, 1e-4, 0.1), "worst": 1.0}
            points.append(point)
    return points


def _earthing(pick: Random) -> Doc:
    kind = pick.choice(["class-1", "class-1", "class-1", "class-2", "floating"])
    document: Doc = {"type": kind}
    if kind == "class-1":
        document |= {"cord_ohm": logged(pick, 0.02, 0.5)}
    if pick.random() < 0.5:
        document |= {"reference_to_chassis_ohm": pick.choice([0, 10, 100]), "reference_to_chassis_f": 1e-8}
    if pick.randint(0, 3) == 0:
        document |= {"computer_v": {"likely": 0.002, "worst": 0.02}, "reference_to_chassis_ohm": 0.1}
    return {"earthing": document}


def _metres(pick: Random) -> Doc:
    return {
        "core_ohm_per_m": logged(pick, 0.02, 0.3),
        "screen_ohm_per_m": logged(pick, 0.005, 0.1),
        "core_to_core_f_per_m": pick.choice([0, 6e-11, 1e-10]),
        "core_to_screen_f_per_m": logged(pick, 5e-11, 2e-10),
        "pair_h_per_m": logged(pick, 4e-7, 1e-6),
        "external_h_per_m": logged(pick, 5e-7, 2e-6),
        "screen_coupling_h_per_m": pick.choice([0, 1e-9, {"likely": 1e-10, "worst": 1e-9}]),
        "core_screen_mismatch": pick.choice([0, 0.05, {"likely": 0.02, "worst": 0.08}]),
        "field_mismatch": pick.choice([0, 0.01, {"likely": 0.003, "worst": 0.01}]),
        "screen_coverage": pick.choice([1, 0.999, 0.9]),
    }


def _pin1_ohm(pick: Random) -> Any:
    return pick.choice([0, 0, 0.03, {"likely": 0.01, "worst": 0.3}])


def _run(pick: Random, number: int) -> tuple[str, Doc, Doc, list[Doc], Doc]:
    """Kind of the desk's socket, the source, its lead, boxes behind the lead, and what the lead's item states."""
    name, earthing = f"source-{number}", _earthing(pick)
    ends = pick.choice(["ts", "xlr", "ts-xlr"])
    boxes: list[Doc] = []
    if ends == "xlr":
        topology = pick.choice(["active", "impedance", "floating", "cross-coupled"])
        mismatch = pick.choice([0, 0.05, {"likely": 0.01, "worst": 0.05}])
        more = {"topology": topology, "leg_mismatch": mismatch, "screen": "out.1", "pin1_ohm": _pin1_ohm(pick)}
        if topology == "cross-coupled":
            more["common_ohm"] = 5000
        if topology == "floating":
            more["winding_f"] = 1e-10
        source = xlr_source(name, logged(pick, 20, 300), earthing, **more)
        screen = pick.choice([("in.1", "out.1"), ("in.1", "out.1"), ("in.1", ""), ("", "out.1")])
        lead = cable("xlr3-female", "xlr3-male", [("in.2", "out.2"), ("in.3", "out.3")], screen, **_metres(pick))
        if pick.randint(0, 3) == 0:
            boxes = [_box(pick, ("xlr3-female", "xlr3-male"), ("2", "3", "1"))]
    else:
        source = ts_source(name, logged(pick, 20, 20_000), earthing)
        source["outputs"][0]["pin1_ohm"] = _pin1_ohm(pick)
        if ends == "ts":
            lead = cable("ts635-plug", "ts635-plug", [("in.T", "out.T")], ("in.S", "out.S"), **_metres(pick))
            if pick.randint(0, 3) == 0:
                boxes = [_box(pick, ("ts635-socket", "ts635-plug"), ("T", "S", "S"))]
        else:
            cores = [("in.T", "out.2"), ("in.S", "out.3")]
            lead = cable("ts635-plug", "xlr3-male", cores, ("in.S", "out.1"), **_metres(pick))
    fields: Doc = {"length_m": logged(pick, 1, 60)}
    if pick.randint(0, 4) == 0:
        fields["beside"] = {"length_m": fields["length_m"], "distance_m": logged(pick, 0.01, 1), "current_a": 6}
    return ("ts" if ends == "ts" else "xlr"), source, lead, boxes, fields


def _box(pick: Random, forms: tuple[str, str], contacts: tuple[str, str, str]) -> Doc:
    """An isolator, a pad or an amplifier stage; `contacts`: hot, cold, screen."""
    hot, cold, screen = contacts
    kind = pick.choice(["isolator", "pad", "stage"])
    wires = [] if hot == "T" and kind == "isolator" else [{"a": f"in.{screen}", "b": f"out.{screen}"}]
    if kind == "isolator":
        elements: list[Doc] = [
            {
                "type": "transformer",
                "primary_a": f"in.{hot}",
                "primary_b": f"in.{cold}",
                "secondary_a": f"out.{hot}",
                "secondary_b": f"out.{cold}",
                "turns_ratio": pick.choice([1, 0.5, 12]),
                "primary_ohm": logged(pick, 10, 300),
                "secondary_ohm": logged(pick, 10, 300),
                "magnetising_h": logged(pick, 2, 100),
                "leakage_h": logged(pick, 1e-4, 1e-2),
                "winding_f": logged(pick, 2e-12, 5e-10),
            }
        ]
    elif kind == "pad":
        elements = [{"type": "resistor", "a": f"in.{hot}", "b": f"out.{hot}", "ohm": logged(pick, 100, 5000)}]
        elements += [{"type": "resistor", "a": f"out.{hot}", "b": f"out.{cold}", "ohm": logged(pick, 100, 5000)}]
        if cold != screen:
            elements += [{"type": "resistor", "a": f"in.{cold}", "b": f"out.{cold}", "ohm": logged(pick, 100, 5000)}]
    else:
        elements = [
            {
                "type": "buffer",
                "a": f"in.{hot}",
                "b": f"in.{cold}",
                "c": f"out.{hot}",
                "d": f"out.{cold}",
                "input_ohm": 1e5,
                "output_ohm": 100,
                "gain_db": -6,
            }
        ]
        if cold != screen:
            elements += [{"type": "resistor", "a": f"out.{cold}", "b": f"out.{screen}", "ohm": 100}]
    return {
        "name": kind,
        "kind": "box",
        "connectors": [
            {"id": "in", "label": "in", "form": forms[0], "side": "in"},
            {"id": "out", "label": "out", "form": forms[1], "side": "out"},
        ],
        "wires": wires,
        "elements": elements,
    }


def _desk(name: str, earthing: Doc, kinds: list[str], pick: Random) -> Doc:
    """One device with an input of each kind, in1, in2, …"""
    found: Doc = {"id": name, "name": name, "kind": "gear", "connectors": [], "wires": [], "inputs": [], **earthing}
    for number, kind in enumerate(kinds, 1):
        if kind == "ts":
            one = ts_input("x", logged(pick, 5000, 1e6), {})
        else:
            mode = {
                "z_differential_ohm": logged(pick, 2000, 1e6),
                "z_common_mismatch": pick.choice([0, 0.03, {"likely": 0.01, "worst": 0.04}]),
                "rejection_db": pick.choice([50, 80, {"likely": 70, "worst": 45}]),
            }
            one = xlr_input("x", logged(pick, 2000, 1e6), {}, _pin1_ohm(pick), **mode)
        text = {"in": f"in{number}", "in1": f"in{number}"}
        found["connectors"] += [{**connector, "id": f"in{number}"} for connector in one["connectors"]]
        for wire in one["wires"]:
            a, _, contact = wire["a"].partition(".")
            found["wires"].append({"a": f"{text[a]}.{contact}", "b": wire["b"]})
        for receiver in one["inputs"]:
            moved = {
                field: f"in{number}.{str(receiver[field]).partition('.')[2]}"
                for field in ("hot", "cold", "screen", "common")
                if field in receiver
            }
            found["inputs"].append({**receiver, **moved, "id": f"in{number}", "connectors": [f"in{number}"]})
    return found


def _bonds(pick: Random, gear: list[str], outlets: list[str]) -> list[Doc]:
    found = []
    for number in range(pick.randint(0, 4)):
        a = pick.choice(gear)
        b = pick.choice([one for one in [*gear, *outlets] if one != a])
        kind = pick.choice(["video", "usb", "network", "rack"])
        found.append({"id": f"bond-{number}", "name": f"bond {number}", "kind": kind, "a": a, "b": b})
    return found


def _disturbances(pick: Random) -> Doc:
    document: Doc = default_disturbances().model_dump(mode="json")
    document["earth_spectrum"] = pick.choice(["linear", "switched-mode"])
    document["loop_width_m"] = logged(pick, 0.01, 1)
    document["unknown_outlet"] = pick.choice(["strip", "circuit", "board", "building"])
    return document
