"""One circuit, solved as its size asks: whole when small, block by block when it is a rig."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Protocol

import numpy as np
from scipy import sparse

from ruvak.core.circuit.circuit import Circuit
from ruvak.core.solve.block_cache import BlockCache
from ruvak.core.solve.condensed import CondensedSolution, CondensedSystem
from ruvak.core.solve.network import EARTH, Complexes, Floats, Ints
from ruvak.core.solve.solver import SMALL, NortonLoad, Solution, System


class NetworkSolution(Protocol):
    """What both solvers answer with."""

    @property
    def frequencies_hz(self) -> Floats:
        """Of the first axis of what is asked for."""

    def rows(self, rows: Ints, columns: Ints) -> Complexes:
        """(frequencies, rows, columns) of the unknowns; EARTH reads as zero."""

    def adjoint_at(self, rows: Ints, functionals: Ints) -> Complexes:
        """(frequencies, pairs): of each functional's adjoint the row beside it; EARTH reads as zero."""


class RigSolver:
    """Built circuits have no islands, so none are looked for.

    Functionals are two a receiver, hot and cold: see leg_functionals.

    `bonds`: each removable connection's current is a functional too, and its branch may be driven. `ports`: nodes whose
    voltages are functionals, behind all others. `block_cache`: answers of blocks solved before. `whole`: never block by
    block, so that something may stand around it.
    """

    def __init__(
        self,
        circuit: Circuit,
        bonds: bool = False,
        block_cache: BlockCache | None = None,
        ports: Sequence[int] = (),
        whole: bool = False,
    ) -> None:
        self.circuit = circuit
        self.legs = leg_functionals(circuit)
        connections = [connection.branch for connection in circuit.openable_connections] if bonds else []
        if connections:
            currents = np.zeros((circuit.network.size, len(connections)))
            currents[circuit.network.node_count + np.array(connections), np.arange(len(connections))] = 1.0
            self.legs = np.hstack([self.legs, currents])
        network = circuit.network
        if ports:
            at = np.zeros((network.size, len(ports)))
            at[np.array(ports), np.arange(len(ports))] = 1.0
            self.legs = np.hstack([self.legs, at])
        if whole or network.size <= SMALL:
            self._whole: System | None = System(network, tied=True)
            return
        self._whole = None
        lines = [line for cause in circuit.causes for line in cause.lines]
        driven = {branch for line in lines for branch, _ in line.emfs}
        driven |= {branch for drive in circuit.drives for branch, _ in drive.branch_gains}
        driven |= set(connections)
        border = np.array(circuit.border, dtype=np.int64)
        self._reduced = CondensedSystem(
            network, border, np.array(sorted(driven), dtype=np.int64), self.legs, block_cache
        )

    def solve(
        self, frequencies_hz: Floats, emfs: "Emfs", adjoints: int, around: NortonLoad | None = None
    ) -> Solution | CondensedSolution:
        """Every column of `emfs` at every frequency; adjoints at so many of the first."""
        if self._whole is None:
            if around is not None:
                raise ValueError("What stands around is for a circuit solved whole.")
            return self._reduced.solve(frequencies_hz, emfs.sparse(self._reduced.driven), adjoints)
        return self._whole.solve(frequencies_hz, emfs.dense(), self.legs if adjoints else self.legs[:, :0], around)


@dataclass(frozen=True)
class Emfs:
    """Emfs in volts rms by frequency (or once for all frequencies), branch and column."""

    shape: tuple[int, int, int]
    """Frequencies or 1, branches, columns."""
    at: Ints
    """(3, entries)"""
    volts: Complexes

    def dense(self) -> Complexes:
        """As one array of `shape`."""
        values: Complexes = np.zeros(self.shape, dtype=np.complex128)
        np.add.at(values, tuple(self.at), self.volts)
        return values

    def sparse(self, driven: Ints) -> list[sparse.csc_matrix]:
        """A matrix a frequency, (driven, columns), of these branches alone, which are sorted."""
        rows = np.searchsorted(driven, self.at[1])
        result = []
        for index in range(self.shape[0]):
            own = self.at[0] == index
            where = (rows[own], self.at[2, own])
            result.append(sparse.csc_matrix((self.volts[own], where), shape=(len(driven), self.shape[2])))
        return result


def drive_emfs(circuit: Circuit, bonds: bool = False) -> Emfs:
    """Programme, one column a drive, the same at every frequency; `bonds`: behind them a volt in each connection."""
    entries = [
        (branch, column, gain) for column, drive in enumerate(circuit.drives) for branch, gain in drive.branch_gains
    ]
    connections = [connection.branch for connection in circuit.openable_connections] if bonds else []
    entries += [(branch, len(circuit.drives) + n, 1.0) for n, branch in enumerate(connections)]
    at = np.array([(0, branch, column) for branch, column, _ in entries], dtype=np.int64).reshape(-1, 3).T
    volts = np.array([gain for _, _, gain in entries], dtype=np.complex128)
    return Emfs((1, circuit.network.branch_count, len(circuit.drives) + len(connections)), at, volts)


def cause_frequencies(circuit: Circuit) -> set[float]:
    """All frequencies that some cause has, in hertz."""
    return {line.frequency_hz for cause in circuit.causes for line in cause.lines}


def cause_emfs(circuit: Circuit, bonds: bool = False, at: Iterable[float] = ()) -> tuple[Floats, Emfs]:
    """All frequencies that some cause has and those of `at`, and there its emfs, a column each cause.

    `bonds`: behind them a volt in each removable connection, a column each.
    """
    frequencies = sorted(cause_frequencies(circuit) | set(at))
    number = {hz: index for index, hz in enumerate(frequencies)}
    entries = [
        (number[line.frequency_hz], branch, column, volts)
        for column, cause in enumerate(circuit.causes)
        for line in cause.lines
        for branch, volts in line.emfs
    ]
    connections = [connection.branch for connection in circuit.openable_connections] if bonds else []
    for index in range(len(frequencies)):
        entries += [(index, branch, len(circuit.causes) + n, 1.0) for n, branch in enumerate(connections)]
    where = np.array([entry[:3] for entry in entries], dtype=np.int64).reshape(-1, 3).T
    result = np.array([entry[3] for entry in entries], dtype=np.complex128)
    shape = (len(frequencies), circuit.network.branch_count, len(circuit.causes) + len(connections))
    return np.array(frequencies), Emfs(shape, where, result)


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
