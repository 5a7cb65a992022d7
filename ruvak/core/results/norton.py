"""The rest of a rig as one run's devices see it, so that many wirings of that run can be looked at one by one.

Seen from a few nodes every linear network is admittances between them and, for each cause, currents into them (Norton's
theorem for several nodes). A run by itself has its own devices and the building's earth already; what all other runs
add is the rig without the run less those devices without it: an update of as many rows as the devices have nodes.
"""

from __future__ import annotations

from collections.abc import Hashable, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
from networkx.utils import UnionFind

from ruvak.core.circuit.circuit import Cause, Circuit
from ruvak.core.results.solving import RigSolver, cause_emfs, cause_frequencies
from ruvak.core.rig.points import CHASSIS, SIGNAL_REFERENCE, NodeRef
from ruvak.core.solve.block_cache import BlockCache
from ruvak.core.solve.network import EARTH, Complexes, Floats, Network
from ruvak.core.solve.solver import NortonLoad

MOST = 0.999
"""Of a stray capacitance is taken away where others earth a device; what a wiring joins to nothing still has some."""


@dataclass(frozen=True)
class NortonEquivalent:
    """`siemens`: (frequencies, points, points); `amperes`: (frequencies, points, causes), per unit of each cause.

    `stray_f`: by device, what it is tied down by where it floats; `earthed`: whether the others earth any of these
    devices, so that nothing joined to them floats.
    """

    points: tuple[NodeRef, ...]
    frequencies_hz: Floats
    siemens: Complexes
    amperes: Complexes
    causes: tuple[Cause, ...]
    stray_f: Mapping[str, float]
    earthed: bool

    def join(self, circuit: Circuit) -> tuple[Circuit, NortonLoad] | None:
        """The circuit with everybody's causes, and what to solve it in; None where the two do not meet.

        Of what this circuit's own causes drive, the share that comes by others' metal is in the currents.
        """
        nodes = [circuit.node_of.get(point, EARTH) for point in self.points]
        if EARTH in nodes or len(set(nodes)) < len(nodes) or not cause_frequencies(circuit) <= set(self.frequencies_hz):
            return None
        own = {(cause.code, cause.owner) for cause in circuit.causes}
        others = [cause for cause in self.causes if (cause.code, cause.owner) not in own]
        causes = (*circuit.causes, *(replace(other, lines=()) for other in others))
        column = {(cause.code, cause.owner): index for index, cause in enumerate(self.causes)}
        amperes = np.zeros((*self.amperes.shape[:2], len(causes)), dtype=np.complex128)
        for index, cause in enumerate(causes):
            if (cause.code, cause.owner) in column:
                amperes[:, :, index] = self.amperes[:, :, column[cause.code, cause.owner]]
        siemens = self.siemens
        if self.earthed:
            siemens = siemens - MOST * _strays(self.points, circuit.floating, self.frequencies_hz, self.stray_f)
        return replace(circuit, causes=causes), NortonLoad(np.array(nodes, dtype=np.int64), siemens, amperes)


def norton_equivalent(
    rest: Circuit,
    bare: Circuit,
    gear: Sequence[str],
    stray_f: Mapping[str, float],
    more_hz: Sequence[float],
    block_cache: BlockCache | None = None,
) -> NortonEquivalent | None:
    """`rest`: the rig with one run pulled out; `bare`: that run's devices `gear` and the building's earth alone.

    `more_hz`: frequencies at which a wiring may bring a cause that is not there yet. None where there is nothing to
    tell apart.
    """
    points = [point.of(device) for device in gear for point in (SIGNAL_REFERENCE, CHASSIS)]
    stiff = _stiff(bare.network)
    by_node = {stiff[bare.node_of.get(point, EARTH)]: point for point in points}
    by_node.pop(stiff[EARTH], None)
    points = [entry for entry in by_node.values() if rest.node_of.get(entry, EARTH) != EARTH]
    if not points or len({rest.node_of[point] for point in points}) < len(points):
        return None
    hertz = sorted(cause_frequencies(rest) | cause_frequencies(bare) | set(more_hz))
    try:
        (siemens, amperes), (own, currents) = (_seen(entry, points, hertz, block_cache) for entry in (rest, bare))
    except np.linalg.LinAlgError:
        # Two of the points are one to everybody else: a glance by itself has to do.
        return None
    column = {(cause.code, cause.owner): index for index, cause in enumerate(rest.causes)}
    for index, cause in enumerate(bare.causes):
        if (cause.code, cause.owner) in column:
            amperes[:, :, column[cause.code, cause.owner]] -= currents[:, :, index]
    # What ties a device down while nothing is plugged in is no part of what others add.
    siemens -= _strays(points, rest.floating, np.array(hertz), stray_f)
    own -= _strays(points, bare.floating, np.array(hertz), stray_f)
    earthed = any(device not in rest.floating for device in gear)
    return NortonEquivalent(tuple(points), np.array(hertz), siemens - own, amperes, rest.causes, stray_f, earthed)


def _strays(
    points: Sequence[NodeRef], floating: Sequence[str], frequencies_hz: Floats, stray_f: Mapping[str, float]
) -> Complexes:
    """(frequencies, points, points): the capacitance to earth of each floating device's chassis."""
    result = np.zeros((len(frequencies_hz), len(points), len(points)), dtype=np.complex128)
    for index, point in enumerate(points):
        if point.in_part == CHASSIS and point.owner in floating:
            result[:, index, index] = 2j * np.pi * frequencies_hz * stray_f[point.owner]
    return result


def _stiff(network: Network) -> UnionFind[Hashable]:
    """Nodes that only an emf without any impedance lies between: seen from outside one stands for the other."""
    joined: UnionFind[Hashable] = UnionFind([EARTH, *range(network.node_count)])
    for _, a, b in network.stiff:
        joined.union(a, b)
    return joined


def _seen(
    circuit: Circuit, points: Sequence[NodeRef], hertz: Sequence[float], block_cache: BlockCache | None
) -> tuple[Complexes, Complexes]:
    """Admittances between the points, and each cause's currents into them, volts held at nought."""
    nodes = [circuit.node_of[point] for point in points]
    solver = RigSolver(circuit, block_cache=block_cache, ports=nodes)
    frequencies_hz, emfs = cause_emfs(circuit, at=hertz)
    solved = solver.solve(frequencies_hz, emfs, adjoints=len(frequencies_hz))
    rows = np.array(nodes, dtype=np.int64)
    first = solver.legs.shape[1] - len(nodes)
    # By reciprocity of the adjoint: volts at port p for an ampere into q.
    port, into = (entry.ravel() for entry in np.indices((len(nodes), len(nodes))))
    ohms = solved.adjoint_at(rows[into], first + port).reshape(-1, len(nodes), len(nodes))
    volts = solved.rows(rows, np.arange(len(circuit.causes)))
    siemens: Complexes = np.linalg.inv(ohms).astype(np.complex128, copy=False)
    amperes: Complexes = siemens @ volts
    return siemens, amperes
