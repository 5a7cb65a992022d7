"""How long the pull list takes: the assignment of 400 leads to 200 runs, proven, against one plain linear program.

The reference is the same number of choices solved as a linear program by the same solver, without whole numbers.
"""

import time
from collections.abc import Sequence
from typing import TypeVar

import numpy as np
from scipy.optimize import linprog

from ruvak.core.parts.library import library
from ruvak.core.pull.assign import Assignment, assign
from ruvak.core.pull.need import Need
from ruvak.core.pull.supply import Lead
from ruvak.core.pull.wiring import extends_itself, wiring_of
from ruvak.core.rig.rig import KitItem

SIZES = ((50, 100), (200, 400), (200, 220), (400, 400))
"""Runs and leads."""
KINDS = ("mic-lead",) * 5 + ("lead-ts-ts", "lead-trs-trs")
MADE_M, WAYS_M = (2.5, 3.0, 5.0, 6.0, 10.0, 15.0, 20.0, 25.0, 30.0), (3.0, 4.5, 6.0, 8.0, 9.0, 12.0, 14.0, 18.0, 22.0)
HOURS = ((9.0, 12.0), (18.0, 22.0), (0.0, 24.0))
REFERENCE = 2000
Value = TypeVar("Value")


def main() -> None:
    """Prints seconds, shortages, joins, and whether the optimum is proven."""
    reference_s = _reference_s()
    print(f"pull: reference: a linear program of {REFERENCE} unknowns, {1000 * reference_s:.0f} ms")
    for seed, (runs, leads) in enumerate(SIZES):
        began = time.perf_counter()
        result = _assigned(np.random.default_rng(seed), runs, leads)
        taken = time.perf_counter() - began
        short, joined = (sum(len(filled.leads) == n for filled in result.filled) for n in (0, 2))
        proof = "proven" if result.proven else f"gap {100 * result.gap:.2f} %"
        print(
            f"  {runs:3} runs, {leads:3} leads  {1000 * taken:6.0f} ms, {taken / reference_s:6.2f} of the reference; "
            f"{proof}, {short} to get, {joined} joined"
        )


def _assigned(rng: np.random.Generator, runs: int, leads: int) -> Assignment:
    def one_of(values: Sequence[Value]) -> Value:
        return values[int(rng.integers(len(values)))]

    parts = library()
    wirings = {kind: wiring_of(parts[kind]) for kind in set(KINDS)}
    needs, there = [], []
    for number in range(runs):
        kind, way_m = one_of(KINDS), one_of(WAYS_M)
        planned = KitItem(id=f"get-{number}", tag=str(number), part=kind, length_m=way_m, owned=False)
        hours = one_of(HOURS)
        needs.append(Need("rig", str(number), wirings[kind], way_m, (planned,), hours, extends_itself(parts[kind])))
    for number in range(leads):
        kind = one_of(KINDS)
        suspect = rng.random() < 0.1
        there.append(Lead(f"L{number}", kind, wirings[kind], one_of(MADE_M), suspect, "cupboard", item=f"l{number}"))
    return assign(needs, there)


def _reference_s() -> float:
    rng = np.random.default_rng(1)
    cost, limits = rng.random(REFERENCE), rng.random((REFERENCE // 10, REFERENCE))
    began = time.perf_counter()
    linprog(cost, A_ub=-limits, b_ub=-np.full(len(limits), REFERENCE / 8), bounds=(0, 1), method="highs")
    return time.perf_counter() - began
