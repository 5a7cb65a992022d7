"""Rigs of random wirings, seeded: any contacts joined in any piece, forks, open ends, components, inner nodes."""

import random
from typing import Any

from ruvak.core.parts.reading import rig_from_document
from ruvak.core.prepare import prepare
from ruvak.core.rig.connectors import SHAPES, Form
from ruvak.core.rig.rig import Rig

PAIRS: tuple[tuple[Form, Form], ...] = (
    (Form.XLR3_MALE, Form.XLR3_FEMALE),
    (Form.TRS635_SOCKET, Form.TRS635_PLUG),
    (Form.TS635_SOCKET, Form.TS635_PLUG),
    (Form.TRS635_SOCKET, Form.TS635_PLUG),
    (Form.TRS35_SOCKET, Form.TRS35_PLUG),
    (Form.TRRS35_SOCKET, Form.TRRS35_PLUG),
    (Form.TRRS35_SOCKET, Form.TRS35_PLUG),
    (Form.RCA_SOCKET, Form.RCA_PLUG),
    (Form.XLR5_MALE, Form.XLR5_FEMALE),
    (Form.MODULAR8_SOCKET_SCREENED, Form.MODULAR8_PLUG_SCREENED),
)
"""(what sends, what receives): the two go into each other."""


def wild_rig(seed: int, runs: int = 20) -> Rig:
    """`runs` runs, each with gear and pieces of its own."""
    rng = random.Random(seed)
    document: dict[str, Any] = {
        "format": "ruvak-rig",
        "version": 2,
        "id": f"wild-{seed}",
        "name": f"Wild {seed}",
        "venue": {"name": "Nowhere"},
        "parts": [],
        "gear": [],
        "kit": [],
        "runs": [],
    }
    for number in range(1, runs + 1):
        _run(rng, document, number)
    return prepare(rig_from_document(document))


def _run(rng: random.Random, document: dict[str, Any], number: int) -> None:
    sends, takes = rng.choice(PAIRS)
    open_ends = []
    for index in range(rng.choice((1, 1, 1, 2))):
        name = f"s{number}-{index}"
        _gear(rng, document, name, sends, "out")
        open_ends.append(f"{name}.x")
    joins, pieces = [], []
    for index in range(rng.randint(0, 3)):
        name = f"l{number}-{index}"
        entries, exits = rng.choice((1, 1, 2)), rng.choice((1, 1, 2))
        _leg(rng, document, name, (sends, takes), entries, exits)
        pieces.append(name)
        for entry in range(entries):
            if open_ends and rng.random() < 0.9:
                joins.append({"a": open_ends.pop(0), "b": f"{name}.i{entry}"})
        open_ends += [f"{name}.o{exit_}" for exit_ in range(exits)]
    for index in range(rng.choice((1, 1, 2))):
        name = f"d{number}-{index}"
        _gear(rng, document, name, takes, "in")
        if open_ends and rng.random() < 0.9:
            joins.append({"a": open_ends.pop(0), "b": f"{name}.x"})
    document["runs"].append(
        {"id": f"r{number}", "number": number, "name": f"Run {number}", "pieces": pieces, "joins": joins}
    )


def _gear(rng: random.Random, document: dict[str, Any], name: str, form: Form, side: str) -> None:
    contacts = [f"x.{contact}" for contact in SHAPES[form].contacts]
    hot, common = contacts[0], contacts[-1]
    wires = [{"a": common, "b": "g"}]
    if rng.random() < 0.3:
        wires.append({"a": rng.choice(contacts), "b": rng.choice(contacts)})
    part: dict[str, Any] = {
        "id": name,
        "name": name,
        "kind": "gear",
        "connectors": [{"id": "x", "label": f"Socket {name}", "form": form, "side": side}],
        "wires": wires,
        "earthing": {"type": "floating"},
    }
    if side == "out":
        output = {"type": "unbalanced", "id": "o", "connectors": ["x"], "channels": [{"id": "1", "hot": hot}]}
        values = {"z_ohm": 100, "return_ohm": 0, "peak_dbu": 4, "nominal_dbu": -10}
        deviations = {"channel_match_db": 0, "z_mismatch": 0}
        part["outputs"] = [{**output, **values, **deviations, "common": common}]
    else:
        mode = {"z_ohm": 10_000, "nominal_dbu": -10, "boost_db": 20, "clip_dbu": 20, "noise_dbu": -90}
        part["inputs"] = [
            {"type": "unbalanced", "id": "i", "label": "In", "connectors": ["x"], "hot": hot, "common": common,
             "modes": [mode]}
        ]  # fmt: skip
    document["parts"].append(part)
    document["gear"].append({"id": name, "name": f"Gear {name}", "part": name})


def _leg(
    rng: random.Random, document: dict[str, Any], name: str, forms: tuple[Form, Form], entries: int, exits: int
) -> None:
    sends, takes = forms
    connectors = [{"id": f"i{n}", "label": f"In {n}", "form": takes, "side": "in"} for n in range(entries)]
    connectors += [{"id": f"o{n}", "label": f"Out {n}", "form": sends, "side": "out"} for n in range(exits)]
    left = [f"i{n}.{contact}" for n in range(entries) for contact in SHAPES[takes].contacts]
    right = [f"o{n}.{contact}" for n in range(exits) for contact in SHAPES[sends].contacts]
    points = [*left, *right, "inner", "case"]

    def two() -> tuple[str, str]:
        a, b = rng.sample(points, 2)
        return a, b

    cabled = rng.random() < 0.6
    conductors: list[dict[str, Any]] = [
        {"a": rng.choice(left), "b": rng.choice(right), "kind": rng.choice(("core", "core", "screen"))}
        for _ in range(rng.randint(1, 5))
    ]
    if rng.random() < 0.3:
        conductors.append({"a": rng.choice(left), "b": None, "kind": "core"})
    per_m = ("core_ohm_per_m", "screen_ohm_per_m", "core_to_core_f_per_m", "core_to_screen_f_per_m", "pair_h_per_m",
             "external_h_per_m")  # fmt: skip
    cable = {"conductors": conductors, **dict.fromkeys(per_m, 1e-9), "core_ohm_per_m": 0.1, "screen_ohm_per_m": 0.05}
    wires = [dict(zip("ab", two(), strict=True)) for _ in range(rng.randint(0 if cabled else 2, 4))]
    elements: list[dict[str, Any]] = []
    for _ in range(rng.choice((0, 0, 1, 2))):
        (a, b), (c, d) = two(), two()
        elements.append(
            rng.choice(
                (
                    {"type": "resistor", "a": a, "b": b, "ohm": 1000},
                    {"type": "capacitor", "a": a, "b": b, "farad": 1e-7},
                    {"type": "inductor", "a": a, "b": b, "henry": 0.1, "ohm": 10},
                    {"type": "transformer", "primary_a": a, "primary_b": b, "secondary_a": c, "secondary_b": d,
                     "turns_ratio": 1, "primary_ohm": 50, "secondary_ohm": 50, "magnetising_h": 10, "leakage_h": 1e-3,
                     "winding_f": 1e-10},
                    {"type": "buffer", "a": a, "b": b, "c": c, "d": d, "input_ohm": 1e6, "output_ohm": 100,
                     "gain_db": 0},
                )
            )
        )  # fmt: skip
    document["parts"].append(
        {"id": name, "name": name, "kind": "lead" if cabled else "box", "connectors": connectors, "wires": wires,
         "cables": [cable] if cabled else [], "elements": elements}
    )  # fmt: skip
    item = {"id": name, "tag": name, "part": name}
    document["kit"].append({**item, "length_m": 5} if cabled else item)
