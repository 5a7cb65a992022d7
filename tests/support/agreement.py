"""Whether ngspice, given the exported netlist, hears at every input what the solver says."""

import math

import numpy as np

from ruvak.core.circuit.build import build
from ruvak.core.circuit.circuit import Circuit, Receiver
from ruvak.core.results.gains import received, rejection_fall
from ruvak.core.results.solving import Emfs, RigSolver
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.slim import in_use
from ruvak.core.solve.network import EARTH
from ruvak.core.trace.trace import trace
from ruvak.formats.spice import Excitation, excitations, netlist, node_names
from tests.support.spice import solved_by_spice

CLOSE_DB, CLOSE_V = 0.01, 1e-9


def circuit_of(rig: Rig) -> tuple[Rig, Circuit]:
    """What analyse() solves."""
    used = in_use(rig)
    return used, build(used, trace(used))


def disagreements(rig: Rig, circuit: Circuit, chosen: list[Excitation] | None = None, digits: float = 0.0) -> list[str]:
    """Sentences about inputs where the two differ by more than CLOSE_DB and CLOSE_V; empty when they agree.

    `digits`: what is forgiven besides, as a share of the volts common to an input's two legs. Of 20 V that a floating
    pair carries ngspice keeps some ten digits between neighbouring nodes, about a nanovolt.
    """
    found = []
    solver, names = RigSolver(circuit), node_names(circuit.network)
    for excitation in excitations(rig, circuit) if chosen is None else chosen:
        points = solved_by_spice(netlist(rig, circuit, excitation))
        assert len(points) == len(excitation.lines), f"ngspice stopped after {len(points)} points"
        for (hz, emfs), volts in zip(excitation.lines, points, strict=True):
            at = np.array([(0, branch, 0) for branch, _ in emfs]).T
            column = Emfs((1, circuit.network.branch_count, 1), at, np.array([emf for _, emf in emfs]))
            solved = solver.solve(np.array([hz]), column, adjoints=False)
            mine = received(circuit, solved, range(len(circuit.receivers)), [0])[0, :, 0]
            for number, receiver in enumerate(circuit.receivers):
                theirs = _heard(circuit, receiver, names, volts, hz)
                common = 0.0 if receiver.reference == EARTH else abs(volts[f"v({names[receiver.reference]})"])
                if not _close(abs(mine[number]), abs(theirs), CLOSE_V + digits * common):
                    where = f"{rig.id} {excitation.name} {hz} Hz {receiver.gear}.{receiver.input.id}"
                    found.append(f"{where}: {abs(mine[number])} V, ngspice {abs(theirs)} V")
    return found


def _close(mine: float, theirs: float, close_v: float) -> bool:
    if abs(mine - theirs) <= close_v:
        return True
    return min(mine, theirs) > 0 and abs(20 * math.log10(mine / theirs)) <= CLOSE_DB


def _heard(circuit: Circuit, receiver: Receiver, names: list[str], volts: dict[str, complex], hz: float) -> complex:
    """The receiver's own sum, from ngspice's node voltages."""

    def at(node: int) -> complex:
        return 0j if node == EARTH else volts[f"v({names[node]})"]

    hot, cold = at(receiver.hot) - at(receiver.reference), at(receiver.cold) - at(receiver.reference)
    fall = float(rejection_fall(receiver, np.array([hz]))[0])
    heard = hot - cold + 0.5 * (hot + cold) * receiver.stated_rejection * fall
    bundles = [(b, k) for b in circuit.network.bundles for k in range(len(b.a))]
    for branch, ohm in receiver.pin1:
        bundle, k = bundles[branch]
        # A mated contact: nothing but resistance.
        heard += ohm * (at(bundle.a[k]) - at(bundle.b[k])) / bundle.ohm[k]
    return heard
