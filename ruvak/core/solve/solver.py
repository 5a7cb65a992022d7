"""Modified nodal analysis: one sparse complex LU a frequency, any number of right-hand sides and adjoints.

The matrix is A(w) = A0 + j w A1 with one sparsity pattern, assembled once (Ho, Ruehli, Brennan, "The modified
nodal approach to network analysis", IEEE Trans. Circuits and Systems CAS-22, 1975).
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np
from scipy import sparse
from scipy.sparse.linalg import splu

from ruvak.core.errors import SingularNetwork
from ruvak.core.solve.blocks import Entries
from ruvak.core.solve.islands import islands
from ruvak.core.solve.network import EARTH, Complexes, Floats, Ints, Network

SMALL = 160
"""Up to this many unknowns a full matrix is solved soonest; one run alone has about fifty."""


@dataclass(frozen=True)
class Solution:
    """`unknowns`: (frequencies, size, emf columns), volts and amperes, rms if the emfs are.

    `adjoints`: (frequencies, size, functionals): y with A^T y = c, so that c.x = y.b for any right-hand side b.
    Amplifiers and transresistances are not reciprocal, so the adjoints come from the transposed factors.
    """

    frequencies_hz: Floats
    unknowns: Complexes
    adjoints: Complexes

    def rows(self, rows: Ints, columns: Ints) -> Complexes:
        """(frequencies, rows, columns) of the solution; EARTH reads as zero."""
        values: Complexes = self.unknowns[:, rows[:, None], columns[None, :]]
        values[:, rows == EARTH] = 0.0
        return values

    def adjoint_at(self, rows: Ints, functionals: Ints) -> Complexes:
        """(frequencies, pairs): of each functional's adjoint the row beside it; EARTH reads as zero."""
        values: Complexes = self.adjoints[:, rows, functionals]
        values[:, rows == EARTH] = 0.0
        return values

    def at(self, frequencies: Ints) -> "Solution":
        """The same at some of its frequencies, by number."""
        return Solution(self.frequencies_hz[frequencies], self.unknowns[frequencies], self.adjoints[frequencies])


@dataclass(frozen=True)
class NortonLoad:
    """What stands round a network, as seen from some of its nodes at every frequency solved.

    `siemens`: (frequencies, nodes, nodes), joined in parallel; `amperes`: (frequencies, nodes, emf columns), into them.
    """

    nodes: Ints
    siemens: Complexes
    amperes: Complexes


class System:
    """A network assembled once, to be solved at any frequencies.

    Raises SingularNetwork naming the nodes that nothing ties to the reference; `tied`: the caller has seen to that.
    """

    def __init__(self, network: Network, tied: bool = False) -> None:
        if not tied:
            refuse_islands(network)
        self.network = network
        entries = entries_of(network)
        where = (entries.rows, entries.columns)
        if network.size <= SMALL:
            self._full: Complexes = np.zeros(self._shape, dtype=np.complex128)
            np.add.at(self._full, where, entries.values)
            return
        # Explicit zeros keep one pattern for A0 and A1, so only the data change with frequency.
        pattern = sparse.coo_matrix((entries.values, where), shape=self._shape, dtype=np.complex128).tocsc()
        self._indices, self._indptr = pattern.indices, pattern.indptr
        self._constant, self._slope = pattern.data.real.copy(), pattern.data.imag.copy()

    @property
    def _shape(self) -> tuple[int, int]:
        return self.network.size, self.network.size

    def solve(
        self, frequencies_hz: Floats, emfs: Floats | Complexes, functionals: Floats, around: NortonLoad | None = None
    ) -> Solution:
        """For each column of `emfs` and each functional (size, m), at every frequency.

        `emfs`: (branches, k), or (frequencies or 1, branches, k) where they differ by frequency.
        """
        try:
            return self._solve_each(frequencies_hz, emfs, functionals, around)
        except (np.linalg.LinAlgError, RuntimeError) as problem:
            # How numpy and SuperLU say that a matrix is exactly singular.
            raise SingularNetwork(()) from problem

    def _solve_each(
        self, frequencies_hz: Floats, emfs: Floats | Complexes, functionals: Floats, around: NortonLoad | None
    ) -> Solution:
        network = self.network
        emfs = emfs if emfs.ndim == 3 else emfs[None]
        right = np.zeros((len(emfs), network.size, emfs.shape[2]), dtype=np.complex128)
        right[:, network.node_count : network.node_count + network.branch_count] = -emfs
        if around is not None:
            right = np.broadcast_to(right, (len(frequencies_hz), *right.shape[1:])).copy()
            right[:, around.nodes] += around.amperes
        unknowns = np.empty((len(frequencies_hz), network.size, emfs.shape[2]), dtype=np.complex128)
        adjoints = np.empty((len(frequencies_hz), network.size, functionals.shape[1]), dtype=np.complex128)
        targets = functionals.astype(np.complex128)
        if network.size <= SMALL:
            matrices = self._dense(frequencies_hz)
            if around is not None:
                matrices[:, around.nodes[:, None], around.nodes] += around.siemens
            if around is not None or not network.is_reciprocal:
                unknowns[:] = np.linalg.solve(matrices, right)
                adjoints[:] = np.linalg.solve(matrices.transpose(0, 2, 1), targets)
            else:
                # Symmetric: one factorisation answers both.
                both = [np.broadcast_to(entry, (len(matrices), *entry.shape[-2:])) for entry in (right, targets)]
                solved = np.linalg.solve(matrices, np.concatenate(both, axis=2))
                unknowns[:], adjoints[:] = solved[:, :, : right.shape[2]], solved[:, :, right.shape[2] :]
            return Solution(frequencies_hz=frequencies_hz, unknowns=unknowns, adjoints=adjoints)
        for index, frequency_hz in enumerate(frequencies_hz):
            data = self._constant + 1j * (2.0 * np.pi * frequency_hz) * self._slope
            matrix = sparse.csc_matrix((data, self._indices, self._indptr), shape=self._shape)
            if around is not None:
                where = (np.repeat(around.nodes, len(around.nodes)), np.tile(around.nodes, len(around.nodes)))
                matrix = matrix + sparse.csc_matrix((around.siemens[index].ravel(), where), shape=self._shape)
            factors = splu(matrix)
            if right.shape[2]:
                unknowns[index] = factors.solve(right[index % len(right)])
            if targets.shape[1]:
                adjoints[index] = factors.solve(targets, trans="T")  # type: ignore[call-overload]
        return Solution(frequencies_hz=frequencies_hz, unknowns=unknowns, adjoints=adjoints)

    def _dense(self, frequencies_hz: Floats) -> Complexes:
        """All matrices at once, (frequencies, size, size)."""
        matrices: Complexes = self._full.real + 2j * np.pi * frequencies_hz[:, None, None] * self._full.imag
        return matrices


def solve(network: Network, frequencies_hz: Floats, emfs: Floats | Complexes, functionals: Floats) -> Solution:
    """Assembles and solves once; see System."""
    return System(network).solve(frequencies_hz, emfs, functionals)


def refuse_islands(network: Network) -> None:
    """Raises SingularNetwork naming the nodes that nothing ties to the reference."""
    if loose := islands(network):
        raise SingularNetwork(tuple(network.node_names[node] for group in loose for node in group))


def entries_of(network: Network) -> Entries:
    """The matrix's coordinates without the reference's row and column."""
    stamps = [
        _across(network.conductances, 1.0),
        _across(network.capacitances, 1j),
        *_of_bundles(network),
        _stamps(list(_of_ideal_elements(network))),
    ]
    rows, columns, values = (np.concatenate(entry) for entry in zip(*stamps, strict=True))
    inside = (rows != EARTH) & (columns != EARTH)
    return Entries(network.size, rows[inside], columns[inside], values[inside])


_Stamps = tuple[Ints, Ints, Complexes]
"""Rows, columns, and what is added there: the constant part as real, what grows with j w as imaginary part."""


def _stamps(result: Sequence[tuple[int, int, complex]]) -> _Stamps:
    rows, columns, values = np.array(result, dtype=np.complex128).reshape(-1, 3).T
    return rows.real.astype(np.int64), columns.real.astype(np.int64), values


def _across(elements: Sequence[tuple[int, int, float]], unit: complex) -> _Stamps:
    """Elements between two nodes by their admittance."""
    a, b, size = np.array(elements, dtype=np.float64).reshape(-1, 3).T
    at, to, value = a.astype(np.int64), b.astype(np.int64), unit * size
    return (
        np.concatenate([at, to, at, to]),
        np.concatenate([at, to, to, at]),
        np.concatenate([value] * 2 + [-value] * 2),
    )


def _of_bundles(network: Network) -> Iterator[_Stamps]:
    """A branch's current leaves a for b; its own row is its equation."""
    count = network.branch_count
    branch = network.node_count + np.arange(count)
    a = np.fromiter((node for bundle in network.bundles for node in bundle.a), np.int64, count)
    b = np.fromiter((node for bundle in network.bundles for node in bundle.b), np.int64, count)
    ones = np.ones(count, dtype=np.complex128)
    yield (
        np.concatenate([a, branch, b, branch]),
        np.concatenate([branch, a, branch, b]),
        np.concatenate([ones, ones, -ones, -ones]),
    )
    yield branch, branch, -np.array(network.branch_ohms, dtype=np.complex128)
    widths = np.array([len(bundle.a) for bundle in network.bundles], dtype=np.int64)
    first = network.node_count + np.cumsum(widths) - widths
    for width in np.unique(widths):
        own = np.flatnonzero(widths == width)
        henry = np.array([network.bundles[index].henry for index in own])
        bundle, row, column = np.nonzero(henry)
        yield first[own[bundle]] + row, first[own[bundle]] + column, -1j * henry[bundle, row, column]


def _of_ideal_elements(network: Network) -> Iterator[tuple[int, int, complex]]:
    row = network.node_count + network.branch_count
    for coil in network.transformers:
        for node, weight in ((coil.p, 1.0), (coil.q, -1.0), (coil.s, -coil.ratio), (coil.t, coil.ratio)):
            yield from ((node, row, weight), (row, node, weight))
        row += 1
    for stage in network.amplifiers:
        for node, weight in ((stage.s, 1.0), (stage.t, -1.0)):
            yield from ((node, row, weight), (row, node, weight))
        for node, weight in ((stage.p, -stage.gain), (stage.q, stage.gain)):
            yield row, node, weight
        row += 1
    for element in network.transresistances:
        yield network.node_count + element.driven, network.node_count + element.sensed, element.ohm
