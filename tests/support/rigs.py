"""Rigs for tests: the demo, and small ones where every value is stated."""

from typing import Any

from ruvak.core.parts.reading import rig_from_document
from ruvak.core.prepare import prepare
from ruvak.core.rig.rig import Rig
from ruvak.service.demo_data import demo_rig

__all__ = ["demo_rig", "document", "stated_rig", "wired"]


def document(**changes: Any) -> dict[str, Any]:
    """The demo rig as parsed JSON, with some top-level fields exchanged."""
    return {**demo_rig().model_dump(mode="json", exclude_none=True), **changes}


def source_part(**output: Any) -> dict[str, Any]:
    """A two-channel source on a 3.5 mm socket with every deviation stated as zero."""
    return {
        "id": "source",
        "name": "Source",
        "kind": "gear",
        "connectors": [{"id": "out", "label": "Out", "form": "trs35-socket", "side": "out"}],
        "outputs": [
            {
                "type": "unbalanced",
                "id": "out",
                "connectors": ["out"],
                "channels": [{"id": "L", "hot": "out.T"}, {"id": "R", "hot": "out.R"}],
                "common": "out.S",
                "z_ohm": 100,
                "return_ohm": 0,
                "peak_dbu": 4,
                "nominal_dbu": -10,
                "channel_match_db": 0,
                "z_mismatch": 0,
                **output,
            }
        ],
        "earthing": {"type": "floating"},
    }


def receiver_part(inputs: int = 1, mix: str | None = None, **mode: Any) -> dict[str, Any]:
    """A device with balanced XLR inputs; perfect unless told otherwise. `mix`: None, "mono" or "stereo"."""
    names = [f"in{number + 1}" for number in range(inputs)]
    modes = {
        "z_differential_ohm": 1e12,
        "z_common_ohm": 10_000,
        "z_common_mismatch": 0,
        "rejection_db": 200,
        "rejection_corner_hz": 3000,
        "nominal_dbu": 4,
        "boost_db": 40,
        "clip_dbu": 24,
        "noise_dbu": -90,
        **mode,
    }
    mixes = {"mono": {"left": names}, "stereo": {"left": names[:1], "right": names[1:]}}
    return {
        "id": "receiver",
        "name": "Receiver",
        "kind": "gear",
        "connectors": [{"id": name, "label": name, "form": "xlr3-female", "side": "in"} for name in names],
        "wires": [{"a": f"{name}.1", "b": "chassis"} for name in names],
        "inputs": [
            {
                "type": "balanced",
                "id": name,
                "label": name,
                "connectors": [name],
                "hot": f"{name}.2",
                "cold": f"{name}.3",
                "screen": f"{name}.1",
                "modes": [modes],
            }
            for name in names
        ],
        "mixes": [{"id": "heard", "label": "heard", **mixes[mix]}] if mix else [],
        "earthing": {"type": "class-1", "cord_ohm": 0.1},
    }


def adapter_part(
    wires: list[tuple[str, str]], elements: list[dict[str, Any]] | None = None, outs: int = 1
) -> dict[str, Any]:
    """From a 3.5 mm plug ("in") to XLR males ("out1", "out2"), wired as told."""
    return {
        "id": "adapter",
        "name": "Adapter",
        "kind": "adapter",
        "connectors": [{"id": "in", "label": "In", "form": "trs35-plug", "side": "in"}]
        + [{"id": f"out{n + 1}", "label": "Out", "form": "xlr3-male", "side": "out"} for n in range(outs)],
        "wires": [{"a": a, "b": b} for a, b in wires],
        "elements": elements or [],
    }


STRAIGHT = [("in.T", "out1.2"), ("in.R", "out1.3"), ("in.S", "out1.1")]


def stated_rig(
    wires: list[tuple[str, str]] = STRAIGHT,
    source: dict[str, Any] | None = None,
    receiver: dict[str, Any] | None = None,
    elements: list[dict[str, Any]] | None = None,
    outs: int = 1,
    contact_ohm: float = 1e-6,
    settings: dict[str, Any] | None = None,
) -> Rig:
    """Source, adapter, receiver; every value stated, contacts next to nothing unless told."""
    contacts = dict.fromkeys(("xlr3", "3.5 mm", "6.35 mm", "rca"), contact_ohm)
    return prepare(
        rig_from_document(
            {
                "format": "ruvak-rig",
                "version": 2,
                "id": "stated",
                "name": "Stated",
                "venue": {"name": "Nowhere"},
                "assumptions": {"contact_ohm": contacts, "stray_f": 50e-12, "temperature_c": 20},
                "parts": [source or source_part(), receiver or receiver_part(), adapter_part(wires, elements, outs)],
                "gear": [
                    {"id": "source", "name": "Source", "part": "source", "settings": settings or {}},
                    {"id": "receiver", "name": "Receiver", "part": "receiver"},
                ],
                "kit": [{"id": "adapter", "tag": "A1", "part": "adapter"}],
                "runs": [
                    {
                        "id": "run",
                        "number": 1,
                        "name": "Run",
                        "pieces": ["adapter"],
                        "joins": [{"a": "source.out", "b": "adapter.in"}]
                        + [{"a": f"adapter.out{n + 1}", "b": f"receiver.in{n + 1}"} for n in range(outs)],
                    }
                ],
            }
        )
    )


def wired(rig: Rig, **changes: Any) -> Rig:
    """A checked copy with some fields exchanged."""
    return prepare(Rig.model_validate({**rig.model_dump(), **changes}))
