"""Rigs with a stated earth: devices on outlets, leads with stated metres, one disturbance at a time."""

from copy import deepcopy
from typing import Any

from ruvak.core.analyse import Analysis, analyse
from ruvak.core.parts.library import default_disturbances
from ruvak.core.parts.reading import rig_from_document
from ruvak.core.prepare import prepare
from ruvak.core.results.hum_records import Hum
from ruvak.core.rig.rig import Rig
from ruvak.core.units import volts_from_dbu

FAMILIES = ("xlr3", "xlr5", "3.5 mm", "6.35 mm", "rca", "usb", "modular8", "loudspeaker")
Doc = dict[str, Any]


def quiet(**changes: Any) -> Doc:
    """Every disturbance off, spectra of the fundamental alone, no inductance in the building; then what is changed."""
    document: Doc = default_disturbances().model_dump(mode="json")
    nothing = {
        "between_v": dict.fromkeys(document["between_v"], 0),
        "henry_per_m": 0,
        "touch_a": 0,
        "field_t": 0,
        "electric_f_per_m": 0,
        "computer_v": 0,
        "presets": {name: {"lines": {"1": 1}, "source": "stated"} for name in document["presets"]},
    }
    return {**document, **nothing, **changes}


def class_1(cord_ohm: float, **more: Any) -> Doc:
    return {"earthing": {"type": "class-1", "cord_ohm": cord_ohm, "cord_h": 0, **more}}


def ts_source(name: str, z_ohm: float, earthing: Doc, sockets: int = 1) -> Doc:
    """Unbalanced outputs on two-contact sockets out1, out2, …"""
    names = [f"out{n}" for n in range(1, sockets + 1)]
    return {
        "id": name,
        "name": name,
        "kind": "gear",
        "connectors": [{"id": one, "label": one, "form": "ts635-socket", "side": "out"} for one in names],
        "outputs": [
            {
                "type": "unbalanced",
                "id": one,
                "connectors": [one],
                "channels": [{"id": "1", "hot": f"{one}.T"}],
                "common": f"{one}.S",
                "z_ohm": z_ohm,
                "return_ohm": 0,
                "peak_dbu": 20,
                "nominal_dbu": 4,
                "channel_match_db": 0,
                "z_mismatch": 0,
            }
            for one in names
        ],
        **earthing,
    }


def ts_input(name: str, z_ohm: float, earthing: Doc, sockets: int = 1) -> Doc:
    """Unbalanced inputs on two-contact sockets in1, in2, …"""
    names = [f"in{n}" for n in range(1, sockets + 1)]
    mode = {"z_ohm": z_ohm, "nominal_dbu": 4, "boost_db": 60, "clip_dbu": 30, "noise_dbu": -90}
    return {
        "id": name,
        "name": name,
        "kind": "gear",
        "connectors": [{"id": one, "label": one, "form": "ts635-socket", "side": "in"} for one in names],
        "wires": [{"a": f"{one}.S", "b": "g"} for one in names],
        "inputs": [
            {
                "type": "unbalanced",
                "id": one,
                "label": one,
                "connectors": [one],
                "hot": f"{one}.T",
                "common": f"{one}.S",
                "modes": [mode],
            }
            for one in names
        ],
        **earthing,
    }


def xlr_source(name: str, leg_ohm: float, earthing: Doc, **more: Any) -> Doc:
    """An active balanced output; pin 1 on the chassis."""
    return {
        "id": name,
        "name": name,
        "kind": "gear",
        "connectors": [{"id": "out", "label": "out", "form": "xlr3-male", "side": "out"}],
        "wires": [{"a": "out.1", "b": "chassis"}],
        "outputs": [
            {
                "type": "balanced",
                "id": "out",
                "connectors": ["out"],
                "channels": [{"id": "1", "hot": "out.2", "cold": "out.3"}],
                "topology": "active",
                "leg_ohm": leg_ohm,
                "leg_mismatch": 0,
                "peak_dbu": 20,
                "nominal_dbu": 4,
                **more,
            }
        ],
        **earthing,
    }


def xlr_input(name: str, z_common_ohm: float, earthing: Doc, pin1_ohm: Any = 0, **mode: Any) -> Doc:
    """A balanced input; pin 1 on the chassis; rejection stated, sign included."""
    return {
        "id": name,
        "name": name,
        "kind": "gear",
        "connectors": [{"id": "in", "label": "in", "form": "xlr3-female", "side": "in"}],
        "wires": [{"a": "in.1", "b": "chassis"}],
        "inputs": [
            {
                "type": "balanced",
                "id": "in",
                "label": "in",
                "connectors": ["in"],
                "hot": "in.2",
                "cold": "in.3",
                "screen": "in.1",
                "pin1_ohm": pin1_ohm,
                "modes": [
                    {
                        "z_differential_ohm": 1e9,
                        "z_common_ohm": z_common_ohm,
                        "z_common_mismatch": 0,
                        "rejection_db": 300,
                        "rejection_corner_hz": 1e9,
                        "nominal_dbu": 4,
                        "boost_db": 60,
                        "clip_dbu": 30,
                        "noise_dbu": -90,
                        **mode,
                    }
                ],
            }
        ],
        **earthing,
    }


def cable(first: str, second: str, cores: list[tuple[str, str]], screen: tuple[str, str], **per_m: Any) -> Doc:
    """A lead from plug `first` (in) to `second` (out); a metre costs 0.1 ohm a core, 0.05 the screen, no more."""
    conductors = [{"a": a, "b": b, "kind": "core"} for a, b in cores] + [
        {"a": screen[0] or None, "b": screen[1] or None, "kind": "screen"}
    ]
    costs = {
        "core_ohm_per_m": 0.1,
        "screen_ohm_per_m": 0.05,
        "core_to_core_f_per_m": 0,
        "core_to_screen_f_per_m": 0,
        "pair_h_per_m": 0,
        "external_h_per_m": 0,
    }
    return {
        "id": "lead",
        "name": "lead",
        "kind": "lead",
        "connectors": [
            {"id": "in", "label": "in", "form": first, "side": "in"},
            {"id": "out", "label": "out", "form": second, "side": "out"},
        ],
        "cables": [{"conductors": [_ends(one) for one in conductors], **costs, **per_m}],
    }


def ts_cable(**per_m: Any) -> Doc:
    return cable("ts635-plug", "ts635-plug", [("in.T", "out.T")], ("in.S", "out.S"), **per_m)


def xlr_cable(screen: tuple[str, str] = ("in.1", "out.1"), **per_m: Any) -> Doc:
    return cable("xlr3-female", "xlr3-male", [("in.2", "out.2"), ("in.3", "out.3")], screen, **per_m)


def _ends(conductor: Doc) -> Doc:
    return {name: value for name, value in conductor.items() if value is not None}


def outlets(**volts: Any) -> list[Doc]:
    """Outlets straight on the main bar through 0.1 ohm each; a number is what stands at it, fundamental."""
    return [
        {
            "id": name,
            "name": name,
            "kind": "outlet",
            "ohm": 0.1,
            "henry": 0,
            "voltage": {"lines": [{"h": 1, "v": volt}]} if isinstance(volt, int | float) else volt,
        }
        for name, volt in volts.items()
    ]


def earthed(
    parts: list[Doc],
    runs: list[list[tuple[str, str]]],
    leads: dict[str, Doc] | None = None,
    at: dict[str, str] | None = None,
    earth: list[Doc] | None = None,
    disturbances: Doc | None = None,
    contact_ohm: float = 1e-9,
    **more: Any,
) -> Rig:
    """Devices once each under their own id, kit as `leads` says ({id: {part, length_m}}), runs as joined."""
    gear = [part["id"] for part in parts if part["kind"] == "gear"]
    kit = [{"id": id_, "tag": id_, **deepcopy(fields)} for id_, fields in (leads or {}).items()]
    own = {one["id"] for one in kit}
    pieces = [list(dict.fromkeys(end.split(".")[0] for join in run for end in join)) for run in runs]
    extra = more.pop("gear", {})
    document = {
        "format": "ruvak-rig",
        "version": 2,
        "id": "earthed",
        "name": "Earthed",
        "venue": {"name": "Nowhere", "earth": earth or [], **more.pop("venue", {})},
        "assumptions": {
            "contact_ohm": dict.fromkeys(FAMILIES, contact_ohm),
            "stray_f": 50e-12,
            "temperature_c": 20,
            "disturbances": disturbances or quiet(),
        },
        "parts": parts,
        "gear": [
            {
                "id": id_,
                "name": id_,
                "part": id_,
                **({"outlet": at[id_]} if at and id_ in at else {}),
                **extra.get(id_, {}),
            }
            for id_ in gear
        ],
        "kit": kit,
        "runs": [
            {
                "id": f"run{n}",
                "number": n,
                "name": f"Run {n}",
                "pieces": [one for one in mine if one in own],
                "joins": [{"a": a, "b": b} for a, b in joins],
            }
            for n, (joins, mine) in enumerate(zip(runs, pieces, strict=True), 1)
        ],
        **more,
    }
    return prepare(rig_from_document(document))


def hum_of(analysis: Analysis | Rig, run: int = 0, number: int = 0) -> Hum:
    """The hum at one input."""
    if isinstance(analysis, Rig):
        analysis = analyse(analysis)
    found = analysis.runs[run].result.inputs[number].hum
    assert found is not None
    return found


def hum_v(rig: Rig, run: int = 0, hz: float = 50.0) -> float:
    """Volts of one tone, likely."""
    tones = hum_of(rig, run).tones
    return volts_from_dbu(tones.likely_dbu[tones.frequencies_hz.index(hz)])
