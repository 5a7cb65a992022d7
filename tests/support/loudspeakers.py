"""Amplifiers with loudspeakers in a row, from library parts."""

from ruvak.core.parts.reading import rig_from_document
from ruvak.core.prepare import prepare
from ruvak.core.rig.rig import Rig


def speakers(amplifier: str, passive: str, lead: str, length_m: float, many: int = 1, **settings: str) -> Rig:
    """So many loudspeakers in a row on one amplifier."""
    pieces = [f"l{n}" for n in range(1, many + 1)]
    document = {
        "format": "ruvak-rig", "version": 2, "id": "x", "name": "x", "venue": {"name": "Hall"},
        "gear": [
            {"id": "amp", "name": "Amplifier", "part": amplifier},
            *({"id": f"s{n}", "name": f"S{n}", "part": passive, "settings": settings} for n in range(1, many + 1)),
        ],
        "kit": [{"id": piece, "tag": piece, "part": lead, "length_m": length_m} for piece in pieces],
        "runs": [{
            "id": "r", "number": 1, "name": "R", "pieces": pieces,
            "joins": [
                join for n, piece in enumerate(pieces, 1) for join in (
                    {"a": f"s{n - 1}.link" if n > 1 else f"amp.{'out1' if 'channel' in amplifier else 'out'}",
                     "b": f"{piece}.in"},
                    {"a": f"{piece}.out", "b": f"s{n}.in"},
                )
            ],
        }],
    }  # fmt: skip
    return prepare(rig_from_document(document))
