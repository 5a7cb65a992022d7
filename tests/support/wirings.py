"""Rigs for known situations: stated gear at both ends, any pieces between, contacts next to nothing."""

from typing import Any

from ruvak.core.analyse import RunAnalysis, analyse
from ruvak.core.parts.reading import rig_from_document
from ruvak.core.prepare import prepare
from ruvak.core.rig.rig import Rig
from tests.support.earths import quiet

CONTACT_OHM = 1e-6
CONTACTS: dict[str, dict[str, Any]] = {
    "XLR": {"form": ("xlr3-male", "xlr3-female"), "hot": "2", "cold": "3", "screen": "1"},
    "TRS": {"form": ("trs635-socket", "trs635-socket"), "hot": "T", "cold": "R", "screen": "S"},
    "TS": {"form": ("ts635-socket", "ts635-socket"), "hot": "T", "cold": None, "screen": "S"},
}


def balanced_source(topology: str, leg_ohm: float, on: str = "XLR", **more: Any) -> dict[str, Any]:
    """A device whose one balanced output has stated, perfectly matched legs; its chassis is its g."""
    names = CONTACTS[on]
    return {
        "id": f"source-{topology}",
        "name": "Source",
        "kind": "gear",
        "connectors": [{"id": "out", "label": "Out", "form": names["form"][0], "side": "out"}],
        "wires": [{"a": f"out.{names['screen']}", "b": "g"}],
        "outputs": [
            {
                "type": "balanced",
                "id": "out",
                "connectors": ["out"],
                "channels": [{"id": "1", "hot": f"out.{names['hot']}", "cold": f"out.{names['cold']}"}],
                "topology": topology,
                "leg_ohm": leg_ohm,
                "leg_mismatch": 0,
                "peak_dbu": 20,
                "nominal_dbu": 4,
                **more,
            }
        ],
        "earthing": {"type": "floating"},
    }


def unbalanced_source(z_ohm: float, part: str = "source", **more: Any) -> dict[str, Any]:
    """One channel on a two-contact 6.35 mm socket."""
    return {
        "id": part,
        "name": "Source",
        "kind": "gear",
        "connectors": [{"id": "out", "label": "Out", "form": "ts635-socket", "side": "out"}],
        "outputs": [
            {
                "type": "unbalanced",
                "id": "out",
                "connectors": ["out"],
                "channels": [{"id": "1", "hot": "out.T"}],
                "common": "out.S",
                "z_ohm": z_ohm,
                "return_ohm": 0,
                "peak_dbu": 10,
                "nominal_dbu": -8,
                "channel_match_db": 0,
                "z_mismatch": 0,
                **more,
            }
        ],
        "earthing": {"type": "floating"},
    }


def balanced_input(z_common_ohm: float, on: str = "XLR", z_differential_ohm: float = 1e12) -> dict[str, Any]:
    """A perfect differential receiver."""
    names = CONTACTS[on]
    return {
        "id": f"input-{on.lower()}",
        "name": "Input",
        "kind": "gear",
        "connectors": [{"id": "in", "label": "In", "form": names["form"][1], "side": "in"}],
        "wires": [{"a": f"in.{names['screen']}", "b": "chassis"}],
        "inputs": [
            {
                "type": "balanced",
                "id": "in",
                "label": "In",
                "connectors": ["in"],
                "hot": f"in.{names['hot']}",
                "cold": f"in.{names['cold']}",
                "screen": f"in.{names['screen']}",
                "modes": [
                    {
                        "z_differential_ohm": z_differential_ohm,
                        "z_common_ohm": z_common_ohm,
                        "z_common_mismatch": 0,
                        "rejection_db": 200,
                        "rejection_corner_hz": 3000,
                        "nominal_dbu": 4,
                        "boost_db": 60,
                        "clip_dbu": 30,
                        "noise_dbu": -90,
                    }
                ],
            }
        ],
        "earthing": {"type": "class-1", "cord_ohm": 0.1},
    }


def unbalanced_input(form: str, hots: dict[str, str], common: str, z_ohm: float) -> dict[str, Any]:
    """One input a named contact, all against the common one; two make a stereo destination."""
    mode = {"z_ohm": z_ohm, "nominal_dbu": -8, "boost_db": 60, "clip_dbu": 30, "noise_dbu": -90}
    names = list(hots)
    return {
        "id": "receiver",
        "name": "Receiver",
        "kind": "gear",
        "connectors": [{"id": "in", "label": "In", "form": form, "side": "in"}],
        "wires": [{"a": f"in.{common}", "b": "g"}],
        "inputs": [
            {
                "type": "unbalanced",
                "id": name,
                "label": name,
                "connectors": ["in"],
                "hot": f"in.{contact}",
                "common": f"in.{common}",
                "modes": [mode],
            }
            for name, contact in hots.items()
        ],
        "mixes": [{"id": "tracks", "label": "tracks", "left": names[:1], "right": names[1:]}] if names[1:] else [],
        "earthing": {"type": "floating"},
    }


def lead(first: str, second: str, cores: list[tuple[str, str]], wires: list[tuple[str, str]] = []) -> dict[str, Any]:  # noqa: B006
    """A lead without capacitance and with a milliohm in each conductor."""
    nothing = dict.fromkeys(("core_to_core_f_per_m", "core_to_screen_f_per_m", "pair_h_per_m", "external_h_per_m"), 0.0)
    return {
        "id": "lead",
        "name": "Lead",
        "kind": "lead",
        "connectors": [
            {"id": "in", "label": "In", "form": first, "side": "in"},
            {"id": "out", "label": "Out", "form": second, "side": "out"},
        ],
        "wires": [{"a": a, "b": b} for a, b in wires],
        "cables": [
            {
                "conductors": [{"a": a or None, "b": b or None, "kind": "core"} for a, b in cores],
                "core_ohm_per_m": 1e-3,
                "screen_ohm_per_m": 1e-3,
                **nothing,
            }
        ],
    }


def situation(
    parts: list[dict[str, Any] | str],
    joins: list[tuple[str, str]],
    lengths: dict[str, float] | None = None,
    settings: dict[str, dict[str, Any]] | None = None,
) -> Rig:
    """Each part once, under its own id (a library part by its id alone), joined as told; one run."""
    lengths = lengths or {}
    own = [part for part in parts if isinstance(part, dict)]
    from ruvak.core.parts.library import library

    kinds = {part["id"]: part["kind"] for part in own} | {
        part: library()[part].kind for part in parts if isinstance(part, str)
    }
    families = ("xlr3", "xlr5", "3.5 mm", "6.35 mm", "rca", "usb", "modular8", "loudspeaker")
    contacts = dict.fromkeys(families, CONTACT_OHM)
    ids = [part if isinstance(part, str) else part["id"] for part in parts]
    pieces = [name for name in ids if kinds[name] != "gear"]
    cabled = {p["id"] for p in own if p.get("cables")} | {
        p for p in parts if isinstance(p, str) and library()[p].cables
    }
    document = {
        "format": "ruvak-rig",
        "version": 2,
        "id": "situation",
        "name": "Situation",
        "venue": {"name": "Nowhere"},
        "assumptions": {
            "contact_ohm": contacts,
            "stray_f": 50e-12,
            "temperature_c": 20,
            "disturbances": quiet(),
        },
        "parts": own,
        "gear": [
            {"id": name, "name": name.capitalize(), "part": name, "settings": (settings or {}).get(name, {})}
            for name in ids
            if kinds[name] == "gear"
        ],
        "kit": [
            {"id": name, "tag": name, "part": name, **({"length_m": lengths.get(name, 1.0)} if name in cabled else {})}
            for name in pieces
        ],
        "runs": [
            {"id": "run", "number": 1, "name": "Run", "pieces": pieces, "joins": [{"a": a, "b": b} for a, b in joins]}
        ],
    }
    return prepare(rig_from_document(document))


def solved(*arguments: Any, **more: Any) -> RunAnalysis:
    """The one run of a situation, analysed."""
    return analyse(situation(*arguments, **more)).runs[0]
