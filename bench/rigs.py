"""Rigs of a stated size: sources into a large desk through leads of their own, every fourth a pair."""

from ruvak.core.entry.reader import MOST_LINES, read_all
from ruvak.core.parts.reading import rig_from_document
from ruvak.core.prepare import prepare
from ruvak.core.rig.edits import apply
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
                "version": 2,
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
    for first in range(0, runs, MOST_LINES):
        for reading in read_all(rig, "\n".join(lines[first : first + MOST_LINES])):
            if reading.edit is None:
                raise SystemExit(f"The bench rig could not be built: {reading.line}: {reading.sentence}")
            rig = apply(rig, reading.edit)
    return rig


SIDES = ("left", "right")
PER_DESK = 24


def earthed_rig(runs: int) -> Rig:
    """`runs` runs of leads that all differ in length: microphones, and every fourth a laptop on its charger as a pair.

    Desks of 32 channels and laptops stand on outlets of strips, circuits and boards.
    """
    desks = 1 + runs // PER_DESK
    boards = 1 + runs // 200
    earth = [{"id": f"board-{b}", "name": f"Board {b}", "kind": "board"} for b in range(boards)]
    circuits = 2 + runs // 32
    earth += [
        {"id": f"circuit-{c}", "name": f"Circuit {c}", "kind": "circuit", "parent": f"board-{c % boards}"}
        for c in range(circuits)
    ]
    outlets = desks + runs // 4 + 1
    earth += [
        {"id": f"outlet-{o}", "name": f"Outlet {o}", "kind": "outlet", "parent": f"circuit-{o % circuits}"}
        for o in range(outlets)
    ]
    gear = [
        {"id": f"desk-{n}", "name": f"Desk {n}", "part": "desk-digital-32", "outlet": f"outlet-{n}"}
        for n in range(desks)
    ]
    kit, made, used = [], [], [0] * desks
    for number in range(runs):
        desk = number % desks
        length_m = round(5.0 + 20.0 * ((number * 0.6180339887) % 1.0), 2)
        used[desk] += 1
        if number % 4:
            gear.append({"id": f"mic-{number}", "name": f"Singer {number}", "part": "mic-dynamic"})
            kit.append({"id": f"m{number}", "tag": f"M{number}", "part": "mic-lead", "length_m": length_m})
            joins = [(f"mic-{number}.out", f"m{number}.in"), (f"m{number}.out", f"desk-{desk}.mic{used[desk]}")]
        else:
            outlet = f"outlet-{desks + number // 4}"
            laptop = {"id": f"laptop-{number}", "name": f"Laptop {number}", "part": "laptop-headphone-trs35"}
            gear.append({**laptop, "outlet": outlet})
            kit.append({"id": f"p{number}", "tag": f"P{number}", "part": "lead-trs35-two-ts", "length_m": length_m})
            joins = [(f"laptop-{number}.phones", f"p{number}.in")]
            joins += [(f"p{number}.{side}", f"desk-{desk}.line{used[desk] + i}") for i, side in enumerate(SIDES)]
            used[desk] += 1
        made.append(
            {
                "id": f"run-{number}",
                "number": number + 1,
                "name": f"Run {number}",
                "pieces": [kit[-1]["id"]],
                "joins": [{"a": a, "b": b} for a, b in joins],
            }
        )
    document = {
        "format": "ruvak-rig",
        "version": 2,
        "id": f"earthed-{runs}",
        "name": f"{runs} runs",
        "venue": {"name": "Bench", "earth": earth},
        "gear": gear,
        "kit": kit,
        "runs": made,
    }
    return prepare(rig_from_document(document))
