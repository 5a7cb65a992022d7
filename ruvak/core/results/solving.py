"""One circuit, solved as its size asks: whole when small, block by block when it is a rig."""

from typing import Protocol

import numpy as np
from scipy import sparse

from ruvak.core.circuit.circuit import Circuit
from ruvak.core.solve.network import EARTH, Complexes, Floats, Ints
from ruvak.core.solve.reduced import Reduced
from ruvak.core.solve.solver import SMALL, System


class Solved(Protocol):
    """What both solvers answer with."""

    @property
    def frequencies_hz(self) -> Floats:
        """Of the first axis of what is asked for."""

    def rows(self, rows: Ints, columns: Ints) -> Complexes:
        """(frequencies, rows, columns) of the unknowns; EARTH reads as zero."""

    def adjoint_rows(self, rows: Ints, functionals: Ints) -> Complexes:
        """(frequencies, rows, functionals) of the adjoints; EARTH reads as zero."""


class RigSolver:
    """Raises SingularNetwork. Functionals are two a receiver, hot and cold: see leg_functionals."""

    def __init__(self, circuit: Circuit) -> None:
        self.circuit = circuit
        self.legs = leg_functionals(circuit)
        network = circuit.network
        if network.size <= SMALL:
            self._whole: System | None = System(network)
            return
        self._whole = None
        lines = [line for cause in circuit.causes for line in cause.lines]
        driven = {branch for line in lines for branch, _ in line.emfs}
        driven |= {branch for drive in circuit.drives for branch, _ in drive.branch_gains}
        border = np.array(circuit.border, dtype=np.int64)
        self._reduced = Reduced(network, border, np.array(sorted(driven), dtype=np.int64), self.legs)

    def solve(self, frequencies_hz: Floats, emfs: list[sparse.csc_matrix], adjoints: bool) -> Solved:
        """`emfs`: by frequency, (branches, columns), volts; one for all where they are the same at every frequency."""
        if self._whole is None:
            driven = self._reduced.driven
            each = [one.tocsr()[driven].tocsc() for one in emfs]
            return self._reduced.solve(frequencies_hz, each, adjoints)
        full = np.stack([one.toarray() for one in emfs])
        return self._whole.solve(frequencies_hz, full, self.legs if adjoints else self.legs[:, :0])


def drive_emfs(circuit: Circuit) -> sparse.csc_matrix:
    """Programme, one column a drive: (branches, drives)."""
    entries = [
        (branch, column, gain) for column, drive in enumerate(circuit.drives) for branch, gain in drive.branch_gains
    ]
    rows, columns, gains = np.array(entries, dtype=np.float64).reshape(-1, 3).T
    shape = (circuit.network.branch_count, len(circuit.drives))
    return sparse.csc_matrix((gains, (rows.astype(np.int64), columns.astype(np.int64))), shape=shape)


def cause_emfs(circuit: Circuit) -> tuple[Floats, list[sparse.csc_matrix]]:
    """All frequencies that some cause has, and there its emfs, a column each cause: (branches, causes), volts rms."""
    at: dict[float, list[tuple[int, int, complex]]] = {}
    for column, cause in enumerate(circuit.causes):
        for line in cause.lines:
            at.setdefault(line.frequency_hz, []).extend((branch, column, volts) for branch, volts in line.emfs)
    shape = (circuit.network.branch_count, len(circuit.causes))
    found = []
    for _, entries in sorted(at.items()):
        volts = np.array([entry[2] for entry in entries], dtype=np.complex128)
        where = ([entry[0] for entry in entries], [entry[1] for entry in entries])
        found.append(sparse.csc_matrix((volts, where), shape=shape))
    return np.array(sorted(at)), found


def leg_functionals(circuit: Circuit) -> Floats:
    """What to read of the unknowns: hot and cold of each receiver against its reference, (size, 2 receivers).

    A stated pin 1 impedance adds its current's volts to hot minus cold, and nothing to what both carry.
    """
    legs = np.zeros((circuit.network.size, 2 * len(circuit.receivers)))
    for index, receiver in enumerate(circuit.receivers):
        for column, node, half in ((2 * index, receiver.hot, 0.5), (2 * index + 1, receiver.cold, -0.5)):
            for at, weight in ((node, 1.0), (receiver.reference, -1.0)):
                if at != EARTH:
                    legs[at, column] += weight
            for branch, ohm in receiver.pin1:
                legs[circuit.network.node_count + branch, column] += half * ohm
    return legs
