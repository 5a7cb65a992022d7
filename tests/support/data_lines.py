"""Lighting data from library parts."""

from ruvak.core.analyse import prepare
from ruvak.core.parts.reading import rig_from_document
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
    legs = [f"m{n}" for n in range(1, count + 1)]
    document = {
        "format": "ruvak-rig", "version": 1, "id": "x", "name": "x", "venue": {"name": "Hall"},
        "gear": [
            {"id": "lights", "name": "Lights", "part": "lighting-desk"},
            {"id": "desk", "name": "Desk", "part": "desk-digital-16"},
            *lanterns,
        ],
        "kit": [
            *({"id": leg, "tag": leg.upper(), "part": lead, "length_m": length_m} for leg in legs),
            {"id": "a", "tag": "A", "part": "adapter-xlrm-xlrm"},
        ],
        "runs": [{
            "id": "r", "number": 1, "name": "R", "legs": ["a", *legs] if into_desk else legs,
            "joins": [{"a": a, "b": b} for a, b in joins],
        }],
    }  # fmt: skip
    return prepare(rig_from_document(document))
