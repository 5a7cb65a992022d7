"""How long a whole rig takes: cold, after one edit, against ngspice on the same netlists, against bare factorisations.

ngspice gets one run a cause and a channel, at the same frequencies; of large rigs a sample of them, scaled up. What
its process takes to start is measured by an empty netlist and shown apart.
"""

import re
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

import numpy as np
from scipy import sparse
from scipy.sparse.linalg import splu

from bench.rigs import earthed_rig
from ruvak.core.analyse import analyse
from ruvak.core.analysis_cache import AnalysisCache
from ruvak.core.circuit.build import build
from ruvak.core.circuit.circuit import Circuit
from ruvak.core.results.response import THIRD_OCTAVES_HZ
from ruvak.core.results.solving import cause_emfs
from ruvak.core.rig.prune import prune
from ruvak.core.rig.rig import Rig
from ruvak.core.solve.solver import entries_of
from ruvak.core.trace.trace import trace
from ruvak.formats.spice import Excitation, excitations, netlist

SIZES = (24, 64, 256, 1024)
SAMPLED, LARGE, OF_LARGE = 3, 256, 1
"""So many causes and so many channels are timed; of rigs with more runs than LARGE only OF_LARGE of each."""
NGSPICE = "/usr/bin/ngspice"
NOTHING = "* nothing\nR1 1 0 1\n.options noopac\n.control\nquit\n.endc\n.end\n"
SHORT_S = 1.0
"""What takes less is timed three times: beside the start of a process it would be lost in the noise."""
COLD_AIM_MS, EDIT_AIM_MS = 300.0, 80.0


def main() -> None:
    """Prints milliseconds and ratios by size."""
    start = min(_ngspice(NOTHING) for _ in range(9))
    print(f"analysis: whole rigs; aims at 64 runs {COLD_AIM_MS:.0f} ms cold, {EDIT_AIM_MS:.0f} ms after one edit")
    print(f"  an ngspice process takes {1000 * start:.0f} ms to start; taken off its times below")
    for size in SIZES:
        _measure(earthed_rig(size), start)
        sys.stdout.flush()


def _measure(rig: Rig, start: float) -> None:
    used = prune(rig)
    circuit = build(used, trace(used))
    times = 3 if len(rig.runs) <= 256 else 1
    cold = _median(lambda: analyse(rig), times)
    after = _after_an_edit(rig, times)
    bare = _median(lambda: _factorise(circuit), 1)
    spice = _spice(used, circuit, start)
    print(
        f"  {len(rig.runs):5d} runs, {circuit.network.size:6d} unknowns, {len(circuit.causes):4d} causes:"
        f" cold {1000 * cold:7.0f} ms, after an edit {1000 * after:7.0f} ms;"
        f" ngspice {spice:8.1f} s, {spice / cold:6.1f} times as long;"
        f" bare factorisations {1000 * bare:6.0f} ms, cold is {cold / bare:4.2f} of it"
    )


def _after_an_edit(rig: Rig, times: int) -> float:
    """As the application does it: blocks solved before are at hand; every time another lead has another length."""
    cache = AnalysisCache()
    analyse(rig, cache)
    lengths = iter(range(4, 4 + times))

    def edit() -> None:
        shorter = rig.kit[0].model_copy(update={"length_m": float(next(lengths))})
        analyse(rig.with_fields(kit=(shorter, *rig.kit[1:])), cache)

    return _median(edit, times)


def _median(work: Callable[[], object], times: int) -> float:
    taken = []
    for _ in range(times):
        began = time.perf_counter()
        work()
        taken.append(time.perf_counter() - began)
    return statistics.median(taken)


def _factorise(circuit: Circuit) -> None:
    """One sparse LU of the whole matrix at every frequency, nothing solved."""
    entries = entries_of(circuit.network)
    where = (entries.rows, entries.columns)
    constant = sparse.csc_matrix((entries.values.real, where), shape=(entries.size, entries.size), dtype=np.complex128)
    slope = sparse.csc_matrix((entries.values.imag, where), shape=(entries.size, entries.size), dtype=np.complex128)
    for hz in (*cause_emfs(circuit)[0], *THIRD_OCTAVES_HZ):
        splu((constant + 2j * np.pi * float(hz) * slope).tocsc())


def _spice(rig: Rig, circuit: Circuit, start: float) -> float:
    """Seconds for all causes and all channels, each kind from an even sample of its own: a channel is a whole sweep."""
    every = excitations(rig, circuit)
    channels = [one for one in every if one.name.endswith("programme")]
    causes = [one for one in every if not one.name.endswith("programme")]
    sampled = SAMPLED if len(rig.runs) <= LARGE else OF_LARGE
    taken = 0.0
    for kind in (causes, channels):
        chosen = kind[:: max(1, len(kind) // sampled)][:sampled]
        taken += len(kind) * statistics.mean(_seconds(rig, circuit, one) - start for one in chosen)
    return taken


def _seconds(rig: Rig, circuit: Circuit, one: Excitation) -> float:
    """One netlist's process, nothing written; a channel's frequencies are swept in one go."""
    text = re.sub(r"\nwrite [^\n]*", "", netlist(rig, circuit, one))
    if one.name.endswith("programme"):
        text = re.sub(r"\nac lin 1 [^\n]*", "\nac dec 10 20 20000", text)
    once = _ngspice(text)
    return min([once, _ngspice(text), _ngspice(text)] if once < SHORT_S else [once])


def _ngspice(text: str) -> float:
    with tempfile.TemporaryDirectory() as folder:
        (Path(folder) / "rig.cir").write_text(text, encoding="ascii")
        began = time.perf_counter()
        subprocess.run([NGSPICE, "-b", "rig.cir"], cwd=folder, capture_output=True, check=True)  # noqa: S603
        return time.perf_counter() - began
