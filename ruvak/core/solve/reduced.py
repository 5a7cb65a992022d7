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
        border = self.border[:, :, columns]
        here, inner = self._split(rows)
        found[:, here] = border[:, self.system.parts.place[rows[here]]]
        position = np.full(self.border.shape[2], -1, dtype=np.int64)
        position[columns] = np.arange(len(columns))
        for group, one, at in inner:
            met = _Met.of(self.system.parts, group, rows[at])
            volts = -(one.to_border[:, met.kinds[:, None], met.places] @ border[:, group.border[met.blocks]])
            self._drive(volts, group, one, met, position)
            found[:, at] = volts[:, met.which, met.slot]
        return found

    def _drive(self, volts: Complexes, group: Group, one: Answers, met: "_Met", position: Ints) -> None:
        """Adds what emfs inside the blocks do there; `position`: where each column is wanted, or -1."""
        ports = group.driven[met.blocks]
        block, port = np.nonzero(ports >= 0)
        starts, stops = self.emfs.indptr[ports[block, port]], self.emfs.indptr[ports[block, port] + 1]
        counts = (stops - starts).astype(np.int64)
        entry = np.arange(counts.sum()) + np.repeat(starts - np.cumsum(counts) + counts, counts)
        at, column = np.divmod(self.emfs.indices[entry].astype(np.int64), len(position))
        block, port, column = np.repeat(block, counts), np.repeat(port, counts), position[column]
        emf = -self.emfs.data[entry]
        # Port by port, since one frequency and column may have emfs in several ports of a block.
        for slot in range(ports.shape[1]):
            mine = np.flatnonzero((port == slot) & (column >= 0))
            f: Ints | slice = slice(None) if self.parts_of_frequency == 1 else at[mine, None]
            answer = one.to_ports[f, met.kinds[block[mine], None], met.places[block[mine]], slot]
            if isinstance(f, slice):
                volts[:, block[mine], :, column[mine]] += emf[mine, None, None] * answer.transpose(1, 0, 2)
            else:
                volts[at[mine], block[mine], :, column[mine]] += emf[mine, None] * answer

    def adjoint_at(self, rows: Ints, functionals: Ints) -> Complexes:
        """(frequencies, pairs): of each functional's adjoint the row beside it; EARTH reads as zero."""
        parts = self.system.parts
        found = np.zeros((len(self.border_adjoints), len(rows)), dtype=np.complex128)
        here, inner = self._split(rows)
        found[:, here] = self.border_adjoints[:, parts.place[rows[here]], functionals[here]]
        for group, one, at in inner:
            block, place, functional = parts.block[rows[at]], parts.place[rows[at]], functionals[at]
            kind = group.kind[block]
            around = self.border_adjoints[:, group.border[block], functional[:, None]]
            found[:, at] = -np.einsum("fnk,fnk->fn", one.adjoint_border[:, kind, place], around)
            own, slot = np.nonzero(group.read[block] == functional[:, None])
            found[:, at[own]] += one.to_picks[:, kind[own], place[own], slot]
        return found

    def _split(self, rows: Ints) -> tuple[Ints, Iterator[tuple[Group, Answers, Ints]]]:
        """Which of the rows stand on the border, and which in each group of blocks; none is where EARTH stands."""
        number = np.where(rows == EARTH, -2, self.system.parts.group[rows])
        inner = (
            (self.system.parts.groups[one], self.answers[one], np.flatnonzero(number == one))
            for one in set(number[number >= 0].tolist())
        )
        return np.flatnonzero(number == -1), inner


@dataclass(frozen=True)
class _Met:
    """Blocks of a group that some rows belong to, and in each the rows' places padded to one length."""

    blocks: Ints
    kinds: Ints
    places: Ints
    which: Ints
    slot: Ints

    @staticmethod
    def of(parts: Partition, group: Group, rows: Ints) -> "_Met":
        """`which` block and `slot` among its places each row has."""
        blocks, which, counts = np.unique(parts.block[rows], return_inverse=True, return_counts=True)
        order = np.argsort(which, kind="stable")
        slot = np.empty(len(rows), dtype=np.int64)
        slot[order] = np.arange(len(rows)) - np.repeat(np.cumsum(counts) - counts, counts)
        places = np.zeros((len(blocks), int(counts.max())), dtype=np.int64)
        places[which, slot] = parts.place[rows]
        return _Met(blocks, group.kind[blocks], places, which, slot)


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
