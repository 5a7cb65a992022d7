"""Whether ngspice, given the exported netlist, hears at every input what the solver says."""

import math
from random import Random

import numpy as np

from ruvak.core.circuit.build import build
from ruvak.core.circuit.circuit import Circuit, Receiver
from ruvak.core.results.sensitivities import receive, rejection_fall
from ruvak.core.results.solving import Emfs, RigSolver
from ruvak.core.rig.prune import prune
from ruvak.core.rig.rig import Rig
from ruvak.core.solve.network import EARTH
from ruvak.core.solve.solver import Solution, entries_of
from ruvak.core.trace.trace import trace
from ruvak.formats.spice import Excitation, excitations, netlist, node_names
from tests.support.spice import solved_by_spice

CLOSE_DB, CLOSE_V = 0.01, 1e-9
POINTS_EACH = 6
REFINED, CONFIRMED = 6, 1e-6


def circuit_of(rig: Rig) -> tuple[Rig, Circuit]:
    """What analyse() solves."""
    used = prune(rig)
    return used, build(used, trace(used))


def some_points(rig: Rig, circuit: Circuit, many: int = POINTS_EACH) -> tuple[list[str], Excitation]:
    """A few points of all causes and channels, always the same of one rig: their causes, and one netlist's worth."""
    points = [(one.name[4:].lstrip("-"), line) for one in excitations(rig, circuit) for line in one.lines]
    chosen = Random(len(points)).sample(points, min(many, len(points)))
    lines = tuple(line for _, line in chosen)
    return [name for name, _ in chosen], Excitation("several", "several causes, one after the other", lines)


def disagreements(rig: Rig, circuit: Circuit, chosen: list[Excitation] | None = None, digits: float = 0.0) -> list[str]:
    """Sentences about inputs where the two differ by more than CLOSE_DB and CLOSE_V; empty when they agree.

    `digits`: a share of the largest voltage in the network that is forgiven once a refinement in extended precision
    says that it is ngspice which is short of digits: of the 60 V of a floating source it keeps some nine or ten.
    """
    found = []
    solver, names = RigSolver(circuit), node_names(circuit.network)
    for excitation in excitations(rig, circuit) if chosen is None else chosen:
        points = solved_by_spice(netlist(rig, circuit, excitation))
        assert len(points) == len(excitation.lines), f"ngspice stopped after {len(points)} points"
        for (hz, emfs), volts in zip(excitation.lines, points, strict=True):
            at = np.array([(0, branch, 0) for branch, _ in emfs]).T
            column = Emfs((1, circuit.network.branch_count, 1), at, np.array([emf for _, emf in emfs]))
            solved = solver.solve(np.array([hz]), column, adjoints=0)
            mine = receive(circuit, solved, range(len(circuit.receivers)), [0])[0, :, 0]
            for number, receiver in enumerate(circuit.receivers):
                theirs = _heard(circuit, receiver, names, volts, hz)
                if _close(abs(mine[number]), abs(theirs)):
                    continue
                largest = max(abs(volt) for name, volt in volts.items() if name.startswith("v("))
                short_of_digits = abs(abs(mine[number]) - abs(theirs)) <= digits * largest
                if not (short_of_digits and _confirmed(circuit, number, hz, emfs, complex(mine[number]))):
                    where = f"{rig.id} {excitation.name} {hz} Hz {receiver.gear}.{receiver.input.id}"
                    found.append(f"{where}: {abs(mine[number])} V, ngspice {abs(theirs)} V")
    return found


def _close(mine: float, theirs: float) -> bool:
    if abs(mine - theirs) <= CLOSE_V:
        return True
    return min(mine, theirs) > 0 and abs(20 * math.log10(mine / theirs)) <= CLOSE_DB


def _heard(circuit: Circuit, receiver: Receiver, names: list[str], volts: dict[str, complex], hz: float) -> complex:
    """The receiver's own sum, from ngspice's node voltages."""

    def at(node: int) -> complex:
        return 0j if node == EARTH else volts[f"v({names[node]})"]

    hot, cold = at(receiver.hot) - at(receiver.reference), at(receiver.cold) - at(receiver.reference)
    fall = float(rejection_fall(np.array([receiver.rejection_corner_hz]), np.array([hz]))[0, 0])
    heard = hot - cold + 0.5 * (hot + cold) * receiver.stated_rejection * fall
    bundles = [(b, k) for b in circuit.network.bundles for k in range(len(b.a))]
    for branch, ohm in receiver.pin1:
        bundle, k = bundles[branch]
        # A mated contact: nothing but resistance.
        heard += ohm * (at(bundle.a[k]) - at(bundle.b[k])) / bundle.ohm[k]
    return heard


def _confirmed(circuit: Circuit, number: int, hz: float, emfs: tuple[tuple[int, complex], ...], heard: complex) -> bool:
    """Whether iterative refinement with residuals in extended precision (Wilkinson) ends at the same figure."""
    network = circuit.network
    entries = entries_of(network)
    matrix = np.zeros((network.size, network.size), dtype=np.complex128)
    np.add.at(matrix, (entries.rows, entries.columns), entries.values.real + 2j * np.pi * hz * entries.values.imag)
    right = np.zeros(network.size, dtype=np.clongdouble)
    for branch, volt in emfs:
        right[network.node_count + branch] -= volt
    exact = np.zeros(network.size, dtype=np.clongdouble)
    for _ in range(REFINED):
        residual = right - matrix.astype(np.clongdouble) @ exact
        exact = exact + np.linalg.solve(matrix, residual.astype(np.complex128))
    tolerances = exact.astype(np.complex128)[None, :, None]
    solution = Solution(np.array([hz]), tolerances, tolerances[:, :, :0])
    refined = receive(circuit, solution, [number], [0])[0, 0, 0]
    return bool(abs(refined - heard) <= CONFIRMED * abs(refined))
