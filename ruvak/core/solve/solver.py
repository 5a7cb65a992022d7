"""Modified nodal analysis: one sparse complex LU a frequency, any number of right-hand sides and adjoints.

The matrix is A(w) = A0 + j w A1 with one sparsity pattern, assembled once (Ho, Ruehli, Brennan, "The modified
nodal approach to network analysis", IEEE Trans. Circuits and Systems CAS-22, 1975).
"""

from dataclasses import dataclass

import numpy as np
from scipy import sparse
from scipy.sparse.linalg import splu

from ruvak.core.errors import SingularNetwork
from ruvak.core.solve.islands import islands
from ruvak.core.solve.network import EARTH, Complexes, Floats, Network


@dataclass(frozen=True)
class Solution:
    """`unknowns`: (frequencies, size, emf columns), volts and amperes, rms if the emfs are.

    `adjoints`: (frequencies, size, functionals): y with A^T y = c, so that c.x = y.b for any right-hand side b.
    Amplifiers are not reciprocal, so the adjoints come from the transposed factors.
    """

    frequencies_hz: Floats
    unknowns: Complexes
    adjoints: Complexes


class _Entries:
    """Coordinates and values of A0 and A1 as they are stamped."""

    def __init__(self) -> None:
        self.rows: list[int] = []
        self.columns: list[int] = []
        self.constant: list[float] = []
        self.slope: list[float] = []

    def add(self, row: int, column: int, constant: float, slope: float = 0.0) -> None:
        if row != EARTH and column != EARTH:
            self.rows.append(row)
            self.columns.append(column)
            self.constant.append(constant)
            self.slope.append(slope)

    def admittance(self, a: int, b: int, siemens: float, farad: float) -> None:
        for row, column, sign in ((a, a, 1), (b, b, 1), (a, b, -1), (b, a, -1)):
            self.add(row, column, sign * siemens, sign * farad)


def solve(network: Network, frequencies_hz: Floats, emfs: Floats, functionals: Floats) -> Solution:
    """Solves for each column of `emfs` (branches, k) and each functional (size, m) at every frequency.

    Raises SingularNetwork naming the nodes that nothing ties to the reference.
    """
    if loose := islands(network):
        raise SingularNetwork(tuple(network.node_names[node] for group in loose for node in group))
    entries = _stamped(network)
    shape = (network.size, network.size)
    # Explicit zeros keep one pattern for A0 and A1, so only the data change with frequency.
    where = (np.array(entries.rows, dtype=np.int64), np.array(entries.columns, dtype=np.int64))
    both = np.array(entries.constant) + 1j * np.array(entries.slope)
    pattern = sparse.coo_matrix((both, where), shape=shape, dtype=np.complex128).tocsc()
    constant, slope = pattern.data.real.copy(), pattern.data.imag.copy()
    right = np.zeros((network.size, emfs.shape[1]), dtype=np.complex128)
    right[network.node_count : network.node_count + network.branch_count] = -emfs
    unknowns = np.empty((len(frequencies_hz), network.size, emfs.shape[1]), dtype=np.complex128)
    adjoints = np.empty((len(frequencies_hz), network.size, functionals.shape[1]), dtype=np.complex128)
    targets = functionals.astype(np.complex128)
    for index, frequency_hz in enumerate(frequencies_hz):
        data = constant + 1j * (2.0 * np.pi * frequency_hz) * slope
        factors = splu(sparse.csc_matrix((data, pattern.indices, pattern.indptr), shape=shape))
        if right.shape[1]:
            unknowns[index] = factors.solve(right)
        if targets.shape[1]:
            adjoints[index] = factors.solve(targets, trans="T")  # type: ignore[call-overload]
    return Solution(frequencies_hz=frequencies_hz, unknowns=unknowns, adjoints=adjoints)


def _stamped(network: Network) -> _Entries:
    entries = _Entries()
    for a, b, siemens in network.conductances:
        entries.admittance(a, b, siemens, 0.0)
    for a, b, farad in network.capacitances:
        entries.admittance(a, b, 0.0, farad)
    row = network.node_count
    for bundle in network.bundles:
        for k, (a, b, ohm) in enumerate(zip(bundle.a, bundle.b, bundle.ohm, strict=True)):
            for node, sign in ((a, 1.0), (b, -1.0)):
                entries.add(node, row + k, sign)
                entries.add(row + k, node, sign)
            entries.add(row + k, row + k, -ohm)
            for m, henry in enumerate(bundle.henry[k]):
                entries.add(row + k, row + m, 0.0, -henry)
        row += len(bundle.a)
    for coil in network.transformers:
        for node, weight in ((coil.p, 1.0), (coil.q, -1.0), (coil.s, -coil.ratio), (coil.t, coil.ratio)):
            entries.add(node, row, weight)
            entries.add(row, node, weight)
        row += 1
    for stage in network.amplifiers:
        for node, weight in ((stage.s, 1.0), (stage.t, -1.0)):
            entries.add(node, row, weight)
            entries.add(row, node, weight)
        for node, weight in ((stage.p, -stage.gain), (stage.q, stage.gain)):
            entries.add(row, node, weight)
        row += 1
    return entries
