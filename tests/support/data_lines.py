"""Lighting data from library parts."""

from ruvak.core.parts.reading import rig_from_document
from ruvak.core.prepare import prepare
from ruvak.core.rig.rig import Rig


def lit(lead: str, into_desk: bool = False, many: int = 1, length_m: float = 10, ended: int = 1) -> Rig:
    """A lighting desk's data on leads to lanterns, so many of the last ended; or by mistake to a sound desk."""
    count = 1 if into_desk else many
    lanterns = [
        {
            "id": f"l{n}",
            "name": f"Lantern {n}",
            "part": "lighting-fixture",
            "settings": {"end": ("off", "on")[n > many - ended]},
        }
        for n in range(1, many + 1)
    ]
    joins = [
        join
        for n in range(1, count + 1)
        for join in (("lights.data" if n == 1 else f"l{n - 1}.through", f"m{n}.out"), (f"m{n}.in", f"l{n}.data"))
    ]
    if into_desk:
        joins = [("lights.data", "a.in"), ("a.out", "m1.in"), ("m1.out", "desk.mic1")]
    pieces = [f"m{n}" for n in range(1, count + 1)]
    document = {
        "format": "ruvak-rig", "version": 2, "id": "x", "name": "x", "venue": {"name": "Hall"},
        "gear": [
            {"id": "lights", "name": "Lights", "part": "lighting-desk"},
            {"id": "desk", "name": "Desk", "part": "desk-digital-16"},
            *lanterns,
        ],
        "kit": [
            *({"id": piece, "tag": piece.upper(), "part": lead, "length_m": length_m} for piece in pieces),
            {"id": "a", "tag": "A", "part": "adapter-xlrm-xlrm"},
        ],
        "runs": [{
            "id": "r", "number": 1, "name": "R", "pieces": ["a", *pieces] if into_desk else pieces,
            "joins": [{"a": a, "b": b} for a, b in joins],
        }],
    }  # fmt: skip
    return prepare(rig_from_document(document))
