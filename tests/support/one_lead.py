"""One lead between a source and a desk, as the checks by hand have it: joins, outlets, a real cable."""

from typing import Any

FLOATING = {"earthing": {"type": "floating"}}
TS = [[("source.out1", "lead.in"), ("lead.out", "desk.in1")]]
XLR = [[("source.out", "lead.in"), ("lead.out", "desk.in")]]
AT = {"source": "here", "desk": "there"}
REAL: dict[str, Any] = {  # a real pair cable, per metre
    "core_ohm_per_m": 0.08,
    "screen_ohm_per_m": 0.03,
    "core_to_core_f_per_m": 60e-12,
    "core_to_screen_f_per_m": 100e-12,
    "pair_h_per_m": 0.6e-6,
    "external_h_per_m": 1e-6,
}


def leads(length_m: float, **more: Any) -> dict[str, Any]:
    return {"lead": {"part": "lead", "length_m": length_m, **more}}
