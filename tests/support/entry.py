"""The rig that typed lines are read in: a desk, a band, a choir, an installed stage box and wall plate, some kit."""

from functools import cache

from ruvak.core.parts.reading import rig_from_document
from ruvak.core.prepare import prepare
from ruvak.core.rig.rig import Rig

GEAR = (
    ("keys", "Keys", "keyboard-stereo"),
    ("laptop", "Slides laptop", "laptop-headphone-trs35"),
    ("guitar", "Guitar", "guitar-magnetic"),
    ("bass", "Bass", "bass-active"),
    ("acoustic", "Acoustic", "guitar-acoustic-active"),
    *((f"choir-{n}", f"Choir {n}", "mic-condenser") for n in range(1, 5)),
    ("vox", "Lead vocal", "mic-dynamic"),
    ("lectern", "Lectern", "mic-dynamic"),
    ("radio-1", "Radio 1", "wireless-receiver"),
    ("radio-2", "Radio 2", "wireless-receiver"),
    ("phone", "Phone", "phone-headset"),
    ("player", "CD player", "player-rca"),
    ("desk", "Desk", "desk-digital-16"),
    ("mixer", "Small mixer", "mixer-analogue-12"),
    ("comp", "Compressor", "processor-line"),
    ("left", "Left speaker", "speaker-powered-two-xlr"),
    ("right", "Right speaker", "speaker-powered-two-xlr"),
    ("wedge-1", "Wedge 1", "speaker-powered-two-xlr"),
    ("wedge-2", "Wedge 2", "speaker-powered-two-xlr"),
    ("camera", "Camera", "camera-mic-trs35"),
    ("recorder", "Recorder", "recorder-stereo-xlr"),
    ("pocket", "Pocket recorder", "recorder-pocket"),
    ("loop", "Hearing loop", "hearing-loop-amplifier"),
    ("amp", "Guitar amp", "instrument-amplifier"),
)
KIT = (
    ("mic-lead", "M", (10,) * 8 + (5,) * 4 + (20,) * 6),
    ("lead-ts-ts", "J", (6,) * 4 + (10,) * 2),
    ("lead-trs-trs", "B", (3,) * 2),
    ("lead-xlrf-trs", "X", (3,) * 2),
    ("lead-rca-ts-twin", "R", (3,)),
    ("lead-trs35-two-ts", "P", (3,)),
    ("di-passive", "D", (None,) * 2),
    ("di-active", "DA", (None,)),
    ("adapter-trs35-xlr-sum", "S", (None,)),
    ("isolator-stereo-trs35-xlr", "I", (None,)),
)


@cache
def entry_rig() -> Rig:
    """Gear and kit, nothing connected."""
    kit = [
        {"id": f"{tag.lower()}{n}", "tag": f"{tag}{n}", "part": part, **({"length_m": length} if length else {})}
        for part, tag, lengths in KIT
        for n, length in enumerate(lengths, 1)
    ]
    kit += [
        {"id": "box", "tag": "Stage box", "part": "multicore-16-4", "length_m": 30, "installed": True},
        {"id": "wall", "tag": "Wall plate", "part": "tie-line-4", "length_m": 20, "installed": True},
    ]
    return prepare(
        rig_from_document(
            {
                "format": "ruvak-rig",
                "version": 2,
                "id": "entry",
                "name": "Entry",
                "venue": {"name": "Nowhere"},
                "gear": [{"id": id_, "name": name, "part": part} for id_, name, part in GEAR],
                "kit": kit,
            }
        )
    )
