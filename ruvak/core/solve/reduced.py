"""Solves a large network block by block: the blocks in batches, then what is left of them on the border.

With the border's voltages x_b, a block's unknowns are x_i = U s - W x_b, where W = A_ii^-1 A_ib answers the border
and U = A_ii^-1 answers each driving row; on the border S x_b = -sum A_bi U s with S = A_bb - sum A_bi W. Adjoints the
same from the transposed matrices. Nothing is approximated.
"""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from scipy import sparse
from scipy.linalg.lapack import zgetrf, zgetrs
from scipy.sparse.linalg import splu

from ruvak.core.errors import SingularNetwork
from ruvak.core.solve.blocks import Group, Partition, partition
from ruvak.core.solve.memory import Answers, Memory, names_of, of_kinds
from ruvak.core.solve.network import EARTH, Complexes, Floats, Ints, Network
from ruvak.core.solve.solver import entries_of

LARGEST = 160
"""Up to this many unknowns a block's full matrix is solved; a larger one (a multicore with all its runs) sparse."""


class Reduced:
    """A network split once at its border nodes; every node is tied to the reference (see islands), or it is singular.

    `driven`: the branches any emf enters; `functionals`: (size, m), what adjoints are wanted of; `memory`: where blocks
    solved before are looked for and new ones left.
    """

    def __init__(
        self, network: Network, border: Ints, driven: Ints, functionals: Floats, memory: Memory | None = None
    ) -> None:
        self.network, self._memory = network, memory
        self.driven = np.unique(driven)
        self.functionals = sparse.csc_matrix(functionals)
        rows = network.node_count + self.driven
        whole = np.concatenate([border, _stiff(network, border)])
        self.parts: Partition = partition(entries_of(network), whole, rows, self.functionals.tocoo())
        self._own_picks = sparse.csr_matrix(self.functionals[self.parts.border])
        self._patterns()

    def _patterns(self) -> None:
        """Where each block's share and each entry between border nodes goes, the same at every frequency."""
        parts, size = self.parts, len(self.parts.border)
        rows, columns = [parts.rest.rows], [parts.rest.columns]
        own = self.network.node_count + self.driven
        self._here = np.flatnonzero(parts.group[own] < 0)
        port_rows, port_columns = [parts.place[own[self._here]]], [self._here]
        pick_rows, pick_columns = [], []
        for group in parts.groups:
            k = group.border.shape[1]
            rows.append(np.repeat(group.border, k, axis=1).ravel())
            columns.append(np.tile(group.border, (1, k)).ravel())
            block, at, port = np.nonzero(np.broadcast_to((group.driven >= 0)[:, None, :], _grid(group.driven, k)))
            port_rows.append(group.border[block, at])
            port_columns.append(group.driven[block, port])
            block, at, pick = np.nonzero(np.broadcast_to((group.read >= 0)[:, None, :], _grid(group.read, k)))
            pick_rows.append(group.border[block, at])
            pick_columns.append(group.read[block, pick])
        self._between = _Pattern.of(rows, columns, (size, size))
        self._ports = _Pattern.of(port_rows, port_columns, (size, len(self.driven)))
        self._picks = _Pattern.of(pick_rows, pick_columns, (size, self.functionals.shape[1]))

    def solve(self, frequencies_hz: Floats, emfs: list[sparse.csc_matrix], adjoints: int) -> "ReducedSolution":
        """`emfs`: by frequency, or one for all, (driven, columns): volts on the driven branches in order.

        `adjoints`: at how many of the first frequencies they are wanted.
        """
        try:
            return self._solved(frequencies_hz, emfs, adjoints)
        except (np.linalg.LinAlgError, RuntimeError) as problem:
            # How numpy and SuperLU say that a matrix is exactly singular.
            raise SingularNetwork(()) from problem

    def _solved(self, frequencies_hz: Floats, emfs: list[sparse.csc_matrix], adjoints: int) -> "ReducedSolution":
        answers = [_remembered(group, frequencies_hz, self._memory) for group in self.parts.groups]
        size, columns = len(self.parts.border), emfs[0].shape[1]
        border = np.zeros((len(frequencies_hz), size, columns), dtype=np.complex128)
        border_adjoints = np.zeros((adjoints, size, self.functionals.shape[1]), dtype=np.complex128)
        for index, frequency_hz in enumerate(frequencies_hz if size else ()):
            # Few nodes and many columns: a full matrix. Not its inverse, whose rounding beside a floating device's
            # megohms is large against what a volt drives round a loop of milliohms.
            factors = _factors(self._border_matrix(answers, index, 2j * np.pi * float(frequency_hz)))
            if columns:
                right = self._injected(answers, index) @ emfs[index % len(emfs)]
                border[index] = _solved_for(factors, right, turned=False)
            if index < adjoints:
                border_adjoints[index] = _solved_for(factors, self._read(answers, index), turned=True)
        side_by_side = sparse.hstack(emfs, format="csr")
        return ReducedSolution(self, frequencies_hz, side_by_side, len(emfs), answers, border, border_adjoints)

    def _border_matrix(self, answers: list[Answers], index: int, omega: complex) -> Complexes:
        """S: what stands between border nodes, and every block's share."""
        values = [_at(self.parts.rest.values, omega)]
        values += [one.share[index][group.kind].ravel() for group, one in self._each(answers)]
        found: Complexes = self._between.filled(values).toarray()
        return found

    def _injected(self, answers: list[Answers], index: int) -> sparse.csr_matrix:
        """(border, driven): what a volt in each driving row brings to the border, A_bi U."""
        values = [np.full(len(self._here), -1.0 + 0j)]
        for group, one in self._each(answers):
            values.append(_chosen(one.injected[index][group.kind], group.driven))
        return self._ports.filled(values)

    def _read(self, answers: list[Answers], index: int) -> sparse.csr_matrix:
        """(border, functionals): what a border volt brings to each functional, c_b - A_ib^T A_ii^-T c_i."""
        values = [_chosen(one.read[index][group.kind], group.read) for group, one in self._each(answers)]
        found: sparse.csr_matrix = self._own_picks + self._picks.filled(values)
        return found

    def _each(self, answers: list[Answers]) -> Iterator[tuple[Group, Answers]]:
        return zip(self.parts.groups, answers, strict=True)


@dataclass(frozen=True)
class ReducedSolution:
    """Border voltages at every frequency, and the blocks' answers: single unknowns are put together when asked for."""

    system: Reduced
    frequencies_hz: Floats
    emfs: sparse.csr_matrix
    """(driven, parts x columns): the emfs of each frequency side by side, or one for all of them."""
    parts_of_frequency: int
    answers: list[Answers]
    border: Complexes
    border_adjoints: Complexes
    """At the first frequencies alone."""

    def at(self, frequencies: Ints) -> "ReducedSolution":
        """The same at some of its frequencies, by number; with adjoints where all of these have them."""
        emfs, width = self.emfs, self.border.shape[2]
        if self.parts_of_frequency > 1:
            emfs = emfs[:, (frequencies[:, None] * width + np.arange(width)).ravel()]
        whole = bool(np.all(frequencies < len(self.border_adjoints)))
        return ReducedSolution(
            self.system,
            self.frequencies_hz[frequencies],
            emfs,
            len(frequencies) if self.parts_of_frequency > 1 else 1,
            [one.at(frequencies) for one in self.answers],
            self.border[frequencies],
            self.border_adjoints[frequencies if whole else []],
        )

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
    ) -> Iterator[tuple[Ints, Ints, Group, Answers, int]]:
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


def _factors(matrix: Complexes) -> tuple[Complexes, Ints]:
    """LU with partial pivoting, by LAPACK. Raises LinAlgError for a matrix that is exactly singular."""
    factors, pivots, fault = zgetrf(matrix)
    if fault > 0:
        raise np.linalg.LinAlgError(f"Pivot {fault} is zero")
    return factors, pivots


def _solved_for(factors: tuple[Complexes, Ints], right: sparse.csr_matrix, turned: bool) -> Complexes:
    found: Complexes = zgetrs(*factors, right.toarray(), trans=int(turned))[0]
    return found


def _stiff(network: Network, border: Ints) -> Ints:
    """Branches without any impedance between border nodes: by themselves they could not be solved, so they stay."""
    nodes = {EARTH, *border.tolist()}
    found = [network.node_count + branch for branch, a, b in network.stiff if a in nodes and b in nodes]
    return np.array(found, dtype=np.int64)


def _at(values: Complexes, omega: complex) -> Complexes:
    """A0 + j w A1."""
    found: Complexes = values.real + omega * values.imag
    return found


@dataclass(frozen=True)
class _Pattern:
    """A sparse matrix whose values change and whose places do not; several values may fall on one place."""

    slot: Ints
    indices: Ints
    indptr: Ints
    shape: tuple[int, int]

    @staticmethod
    def of(rows: list[Ints], columns: list[Ints], shape: tuple[int, int]) -> "_Pattern":
        """By row, then column."""
        width = max(1, shape[1])
        both = [np.concatenate([*one, np.zeros(0, dtype=np.int64)]) for one in (rows, columns)]
        keys, slot = np.unique(both[0] * width + both[1], return_inverse=True)
        return _Pattern(slot.ravel(), keys % width, np.searchsorted(keys, np.arange(shape[0] + 1) * width), shape)

    def filled(self, values: list[Complexes]) -> sparse.csr_matrix:
        """With values in the order of the rows and columns given."""
        flat = np.concatenate([*values, np.zeros(0, dtype=np.complex128)])
        count = len(self.indices)
        data = np.bincount(self.slot, flat.real, count) + 1j * np.bincount(self.slot, flat.imag, count)
        return sparse.csr_matrix((data, self.indices, self.indptr), shape=self.shape)


def _grid(numbers: Ints, k: int) -> tuple[int, int, int]:
    return len(numbers), k, numbers.shape[1]


def _chosen(values: Complexes, numbers: Ints) -> Complexes:
    """(blocks, k, m) where a number is none of padding, in the order of the pattern."""
    there = np.broadcast_to((numbers >= 0)[:, None, :], values.shape)
    found: Complexes = values[there]
    return found


def _remembered(group: Group, frequencies_hz: Floats, memory: Memory | None) -> Answers:
    if memory is None:
        return _answered(group, frequencies_hz)
    names = names_of(group, frequencies_hz)
    found = [memory.known(name) for name in names]
    missing = [kind for kind, one in enumerate(found) if one is None]
    if missing:
        solved = _answered(of_kinds(group, missing), frequencies_hz)
        for slot, kind in enumerate(missing):
            one = solved.of_kind(slot)
            found[kind] = one
            memory.keep(names[kind], one)
    return Answers.side_by_side([one for one in found if one is not None])


def _answered(group: Group, frequencies_hz: Floats) -> Answers:
    n, k, p = group.n, group.border.shape[1], group.ports.shape[2]
    omegas = 2j * np.pi * frequencies_hz
    matrix: Complexes = group.matrix.real[None] + omegas[:, None, None, None] * group.matrix.imag[None]
    inner, into, back = matrix[:, :, :n, :n], matrix[:, :, :n, n:], matrix[:, :, n:, :n].transpose(0, 1, 3, 2)
    corner = matrix[:, :, n:, n:]
    shape = (*inner.shape[:2], n)
    ports: Floats = np.broadcast_to(group.ports, (*shape, p))
    picks: Floats = np.broadcast_to(group.picks, (*shape, group.picks.shape[2]))
    symmetric = np.array_equal(group.matrix, group.matrix.transpose(0, 2, 1))
    right = [into, ports, picks] if symmetric else [into, ports]
    solved = _block_solve(inner, np.concatenate(right, axis=3))
    to_border, to_ports = solved[..., :k], solved[..., k : k + p]
    if symmetric:
        to_picks, adjoint_border = solved[..., k + p :], to_border
    else:
        turned = _block_solve(inner.transpose(0, 1, 3, 2), np.concatenate([back, picks], axis=3))
        to_picks, adjoint_border = turned[..., k:], turned[..., :k]
    across, along = back.transpose(0, 1, 3, 2), into.transpose(0, 1, 3, 2)
    return Answers(
        to_border,
        to_ports,
        to_picks,
        adjoint_border,
        share=corner - across @ to_border,
        injected=across @ to_ports,
        read=-(along @ to_picks),
    )


def _block_solve(inner: Complexes, right: Complexes) -> Complexes:
    if inner.shape[-1] <= LARGEST:
        return np.linalg.solve(inner, right).astype(np.complex128, copy=False)
    solved = np.empty(right.shape, dtype=np.complex128)
    for where in np.ndindex(inner.shape[:2]):
        solved[where] = splu(sparse.csc_matrix(inner[where])).solve(np.ascontiguousarray(right[where]))
    return solved
