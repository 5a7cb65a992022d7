"""Solves a large network block by block: the blocks in batches, then what is left of them on the border.

With the border's voltages x_b, a block's unknowns are x_i = U s - W x_b, where W = A_ii^-1 A_ib answers the border
and U = A_ii^-1 answers each driving row; on the border S x_b = -sum A_bi U s with S = A_bb - sum A_bi W. Adjoints the
same from the transposed matrices. Nothing is approximated.
"""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from scipy import sparse
from scipy.sparse.linalg import SuperLU, splu

from ruvak.core.errors import SingularNetwork
from ruvak.core.solve.blocks import Group, Partition, partition
from ruvak.core.solve.network import EARTH, Complexes, Floats, Ints, Network
from ruvak.core.solve.solver import entries_of

LARGEST = 160
"""Up to this many unknowns a block's full matrix is solved; a larger one (a multicore with all its runs) sparse."""


@dataclass(frozen=True)
class _Answers:
    """One group solved at every frequency; all (frequencies, kinds, n, …)."""

    to_border: Complexes
    to_ports: Complexes
    to_picks: Complexes
    adjoint_border: Complexes


class Reduced:
    """A network split once at its border nodes; every node is tied to the reference (see islands), or it is singular.

    `driven`: the branches any emf enters; `functionals`: (size, m), what adjoints are wanted of.
    """

    def __init__(self, network: Network, border: Ints, driven: Ints, functionals: Floats) -> None:
        self.network = network
        self.driven = np.unique(driven)
        self.functionals = sparse.csc_matrix(functionals)
        rows = network.node_count + self.driven
        whole = np.concatenate([border, _stiff(network, border)])
        self.parts: Partition = partition(entries_of(network), whole, rows, self.functionals.tocoo())
        self._pattern()

    def _pattern(self) -> None:
        """The border matrix's pattern: where each block's share and each entry between border nodes is added."""
        parts, rows, columns = self.parts, [], []
        for group in parts.groups:
            k = group.border.shape[1]
            rows.append(np.repeat(group.border, k, axis=1).ravel())
            columns.append(np.tile(group.border, (1, k)).ravel())
        rows.append(parts.rest.rows)
        columns.append(parts.rest.columns)
        size = len(parts.border)
        keys, self._slot = np.unique(np.concatenate(columns) * size + np.concatenate(rows), return_inverse=True)
        self._indices = (keys % max(1, size)).astype(np.int32)
        self._indptr = np.searchsorted(keys, np.arange(size + 1) * size).astype(np.int32)

    def solve(self, frequencies_hz: Floats, emfs: list[sparse.csc_matrix], adjoints: bool) -> "ReducedSolution":
        """`emfs`: by frequency, or one for all, (driven, columns): volts on the driven branches in order."""
        try:
            return self._solved(frequencies_hz, emfs, adjoints)
        except (np.linalg.LinAlgError, RuntimeError) as problem:
            # How numpy and SuperLU say that a matrix is exactly singular.
            raise SingularNetwork(()) from problem

    def _solved(self, frequencies_hz: Floats, emfs: list[sparse.csc_matrix], adjoints: bool) -> "ReducedSolution":
        answers = [_answered(group, frequencies_hz) for group in self.parts.groups]
        size, columns = len(self.parts.border), emfs[0].shape[1]
        border = np.zeros((len(frequencies_hz), size, columns), dtype=np.complex128)
        count = self.functionals.shape[1] if adjoints else 0
        border_adjoints = np.zeros((len(frequencies_hz), size, count), dtype=np.complex128)
        for index, frequency_hz in enumerate(frequencies_hz):
            omega = 2j * np.pi * float(frequency_hz)
            factors = self._factors(answers, index, omega)
            if factors is None:
                continue
            if columns:
                right = self._injected(answers, index, omega) @ -emfs[index % len(emfs)]
                border[index] = factors.solve(-right.toarray())
            if count:
                border_adjoints[index] = factors.solve(self._read(answers, index, omega), trans="T")  # type: ignore[call-overload]
        side_by_side = sparse.hstack(emfs, format="csr")
        return ReducedSolution(self, frequencies_hz, side_by_side, len(emfs), answers, border, border_adjoints)

    def _factors(self, answers: list[_Answers], index: int, omega: complex) -> SuperLU | None:
        size = len(self.parts.border)
        if size == 0:
            return None
        shares = []
        for group, one in zip(self.parts.groups, answers, strict=True):
            back = _from_border(group, omega)
            shares.append((back[:, :, group.n :] - back[:, :, : group.n] @ one.to_border[index])[group.kind].ravel())
        shares.append(_at(self.parts.rest.values, omega))
        values = np.concatenate(shares)
        length = len(self._indices)
        data = np.bincount(self._slot, values.real, length) + 1j * np.bincount(self._slot, values.imag, length)
        return splu(sparse.csc_matrix((data, self._indices, self._indptr), shape=(size, size)))

    def _injected(self, answers: list[_Answers], index: int, omega: complex) -> sparse.csr_matrix:
        """(border, driven): what a volt in each driving row brings to the border, A_bi U."""
        rows, columns, values = [], [], []
        for group, one in zip(self.parts.groups, answers, strict=True):
            share = (_from_border(group, omega)[:, :, : group.n] @ one.to_ports[index])[group.kind]
            block, k, p = np.nonzero(np.broadcast_to((group.driven >= 0)[:, None, :], share.shape))
            rows.append(group.border[block, k])
            columns.append(group.driven[block, p])
            values.append(share[block, k, p])
        own = self.network.node_count + self.driven
        here = np.flatnonzero(self.parts.group[own] < 0)
        rows.append(self.parts.place[own[here]])
        columns.append(here)
        values.append(np.full(len(here), -1.0 + 0j))
        return _gathered(rows, columns, values, (len(self.parts.border), len(self.driven)))

    def _read(self, answers: list[_Answers], index: int, omega: complex) -> Complexes:
        """(border, functionals): what a border volt brings to each functional, c_b - A_ib^T A_ii^-T c_i."""
        rows, columns, values = [], [], []
        for group, one in zip(self.parts.groups, answers, strict=True):
            into = _at(group.matrix[:, : group.n, group.n :], omega)
            share = -(into.transpose(0, 2, 1) @ one.to_picks[index])[group.kind]
            block, k, q = np.nonzero(np.broadcast_to((group.read >= 0)[:, None, :], share.shape))
            rows.append(group.border[block, k])
            columns.append(group.read[block, q])
            values.append(share[block, k, q])
        shape = (len(self.parts.border), self.functionals.shape[1])
        own = self.functionals[self.parts.border].toarray() if len(self.parts.border) else np.zeros(shape)
        found: Complexes = own + _gathered(rows, columns, values, shape).toarray()
        return found


@dataclass(frozen=True)
class ReducedSolution:
    """Border voltages at every frequency, and the blocks' answers: single unknowns are put together when asked for."""

    system: Reduced
    frequencies_hz: Floats
    emfs: sparse.csr_matrix
    """(driven, parts x columns): the emfs of each frequency side by side, or one for all of them."""
    parts_of_frequency: int
    answers: list[_Answers]
    border: Complexes
    border_adjoints: Complexes

    def rows(self, rows: Ints, columns: Ints) -> Complexes:
        """(frequencies, rows, columns) of the solution; EARTH reads as zero."""
        found = np.zeros((len(self.frequencies_hz), len(rows), len(columns)), dtype=np.complex128)
        position = np.full(self.border.shape[2], -1, dtype=np.int64)
        position[columns] = np.arange(len(columns))
        for index, places, group, one, block in self._blocks(rows, self.border, columns, found):
            kind = group.kind[block]
            around = self.border[:, group.border[block]][:, :, columns]
            found[:, index] = -(one.to_border[:, kind, places] @ around)
            for slot, port in enumerate(group.driven[block]):
                if port < 0:
                    break
                answer = one.to_ports[:, kind, places, slot]
                for at, column, volts in self._driving(int(port), position):
                    found[at, index, column] -= volts * answer[at]
        return found

    def _driving(self, port: int, position: Ints) -> list[tuple[int | slice, int, complex]]:
        """Which columns a driven branch has an emf in: frequency (or all), position (where wanted), volts."""
        start, stop = self.emfs.indptr[port : port + 2]
        at, column = np.divmod(self.emfs.indices[start:stop], len(position))
        where = position[column]
        wanted = where >= 0
        if self.parts_of_frequency == 1:
            every: list[int | slice] = [slice(None)] * int(wanted.sum())
        else:
            every = at[wanted].tolist()
        return list(zip(every, where[wanted].tolist(), self.emfs.data[start:stop][wanted].tolist(), strict=True))

    def adjoint_rows(self, rows: Ints, functionals: Ints) -> Complexes:
        """(frequencies, rows, functionals) of the adjoints; EARTH reads as zero."""
        found = np.zeros((len(self.frequencies_hz), len(rows), len(functionals)), dtype=np.complex128)
        position = np.full(self.border_adjoints.shape[2], -1, dtype=np.int64)
        position[functionals] = np.arange(len(functionals))
        for index, places, group, one, block in self._blocks(rows, self.border_adjoints, functionals, found):
            kind = group.kind[block]
            around = self.border_adjoints[:, group.border[block]][:, :, functionals]
            found[:, index] = -(one.adjoint_border[:, kind, places] @ around)
            for slot, functional in enumerate(group.read[block]):
                if functional >= 0 and (column := position[functional]) >= 0:
                    found[:, index, column] += one.to_picks[:, kind, places, slot]
        return found

    def _blocks(
        self, rows: Ints, border: Complexes, columns: Ints, found: Complexes
    ) -> Iterator[tuple[Ints, Ints, Group, _Answers, int]]:
        """Fills in what stands on the border; yields for each block met which of the rows are its own, and where."""
        parts, real = self.system.parts, rows != EARTH
        number, block = parts.group[rows], parts.block[rows]
        here = np.flatnonzero(real & (number < 0))
        if len(here):
            found[:, here] = border[:, parts.place[rows[here]]][:, :, columns]
        inner = np.flatnonzero(real & (number >= 0))
        inner = inner[np.lexsort((block[inner], number[inner]))]
        if not len(inner):
            return
        changes = np.flatnonzero(np.diff(number[inner]) | np.diff(block[inner])) + 1
        for index in np.split(inner, changes):
            one = int(number[index[0]])
            yield index, parts.place[rows[index]], parts.groups[one], self.answers[one], int(block[index[0]])


def _stiff(network: Network, border: Ints) -> Ints:
    """Branches without any impedance between border nodes: by themselves they could not be solved, so they stay."""
    nodes = {EARTH, *border.tolist()}
    found, row = [], network.node_count
    for bundle in network.bundles:
        for k, (a, b, ohm) in enumerate(zip(bundle.a, bundle.b, bundle.ohm, strict=True)):
            if ohm == 0.0 and not any(bundle.henry[k]) and a in nodes and b in nodes:
                found.append(row + k)
        row += len(bundle.a)
    return np.array(found, dtype=np.int64)


def _at(values: Complexes, omega: complex) -> Complexes:
    """A0 + j w A1."""
    found: Complexes = values.real + omega * values.imag
    return found


def _from_border(group: Group, omega: complex) -> Complexes:
    """(kinds, k, n + k): the border rows of the blocks' matrices."""
    return _at(group.matrix[:, group.n :], omega)


def _gathered(
    rows: list[Ints], columns: list[Ints], values: list[Complexes], shape: tuple[int, int]
) -> sparse.csr_matrix:
    if not rows:
        return sparse.csr_matrix(np.zeros(shape, dtype=np.complex128))
    where = (np.concatenate(rows), np.concatenate(columns))
    return sparse.csr_matrix((np.concatenate(values), where), shape=shape)


def _answered(group: Group, frequencies_hz: Floats) -> _Answers:
    n, k, p = group.n, group.border.shape[1], group.ports.shape[2]
    omegas = 2j * np.pi * frequencies_hz
    matrix: Complexes = group.matrix.real[None] + omegas[:, None, None, None] * group.matrix.imag[None]
    inner, into, back = matrix[:, :, :n, :n], matrix[:, :, :n, n:], matrix[:, :, n:, :n].transpose(0, 1, 3, 2)
    shape = (*inner.shape[:2], n)
    ports: Floats = np.broadcast_to(group.ports, (*shape, p))
    picks: Floats = np.broadcast_to(group.picks, (*shape, group.picks.shape[2]))
    symmetric = np.array_equal(group.matrix, group.matrix.transpose(0, 2, 1))
    right = [into, ports, picks] if symmetric else [into, ports]
    solved = _block_solve(inner, np.concatenate(right, axis=3))
    to_border, to_ports = solved[..., :k], solved[..., k : k + p]
    if symmetric:
        return _Answers(to_border, to_ports, solved[..., k + p :], to_border)
    turned = _block_solve(inner.transpose(0, 1, 3, 2), np.concatenate([back, picks], axis=3))
    return _Answers(to_border, to_ports, turned[..., k:], turned[..., :k])


def _block_solve(inner: Complexes, right: Complexes) -> Complexes:
    if inner.shape[-1] <= LARGEST:
        return np.linalg.solve(inner, right).astype(np.complex128, copy=False)
    solved = np.empty(right.shape, dtype=np.complex128)
    for where in np.ndindex(inner.shape[:2]):
        solved[where] = splu(sparse.csc_matrix(inner[where])).solve(np.ascontiguousarray(right[where]))
    return solved
