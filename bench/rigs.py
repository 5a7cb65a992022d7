"""Rigs of a stated size: sources into a large desk through leads of their own, every fourth a pair."""

from ruvak.core.analyse import prepare
from ruvak.core.entry.reader import read_all
from ruvak.core.rig.edits import apply
from ruvak.core.rig.files import rig_from_document
from ruvak.core.rig.rig import Rig


def sized_rig(runs: int) -> Rig:
    """`runs` runs made by typed lines, and some gear and sockets left free to type against."""
    desks = 1 + runs // 24
    gear = [{"id": f"desk-{n}", "name": f"Desk {chr(64 + n)}", "part": "desk-digital-32"} for n in range(1, desks + 1)]
    gear += [{"id": f"mic-{n}", "name": f"Singer {n}", "part": "mic-dynamic"} for n in range(1, runs + 5)]
    gear += [{"id": f"keys-{n}", "name": f"Keys {n}", "part": "keyboard-stereo"} for n in range(1, runs // 4 + 3)]
    gear.append({"id": "laptop", "name": "Laptop", "part": "laptop-headphone-trs35"})
    kit = [{"id": f"m{n}", "tag": f"M{n}", "part": "mic-lead", "length_m": 10} for n in range(runs + 20)]
    kit += [{"id": f"j{n}", "tag": f"J{n}", "part": "lead-ts-ts", "length_m": 6} for n in range(runs)]
    kit.append({"id": "p1", "tag": "P1", "part": "lead-trs35-two-ts", "length_m": 3})
    rig = prepare(
        rig_from_document(
            {
                "format": "ruvak-rig",
                "version": 1,
                "id": f"sized-{runs}",
                "name": f"{runs} runs",
                "venue": {"name": "Bench"},
                "gear": gear,
                "kit": kit,
            }
        )
    )
    lines, used = [], dict.fromkeys(range(1, desks + 1), 0)
    for number in range(1, runs + 1):
        desk = 1 + number % desks
        if number % 4 == 0:
            lines.append(f"Keys {number // 4} > Desk {chr(64 + desk)} {used[desk] + 1}/{used[desk] + 2}")
            used[desk] += 2
        else:
            lines.append(f"Singer {number} > Desk {chr(64 + desk)} {used[desk] + 1}, 8 m")
            used[desk] += 1
    for reading in read_all(rig, "\n".join(lines)):
        if reading.edit is None:
            raise SystemExit(f"The bench rig could not be built: {reading.line}: {reading.sentence}")
        rig = apply(rig, reading.edit)
    return rig
