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
from ruvak.core.solve.block_cache import BlockCache, BlockSolution, names_of, of_kinds
from ruvak.core.solve.blocks import Group, Partition, partition
from ruvak.core.solve.network import EARTH, Complexes, Floats, Ints, Network
from ruvak.core.solve.solver import entries_of

LARGEST = 160
"""Up to this many unknowns a block's full matrix is solved; a larger one (a multicore with all its runs) sparse."""


class CondensedSystem:
    """A network split once at its border nodes; every node is tied to the reference (see islands), or it is singular.

    `driven`: the branches any emf enters; `functionals`: (size, m), what adjoints are wanted of; `block_cache`: where
    blocks solved before are looked for and new ones left.
    """

    def __init__(
        self, network: Network, border: Ints, driven: Ints, functionals: Floats, block_cache: BlockCache | None = None
    ) -> None:
        self.network, self._memory = network, block_cache
        self.driven = np.unique(driven)
        self.functionals = sparse.csc_matrix(functionals)
        rows = network.node_count + self.driven
        whole = np.concatenate([border, _stiff(network, border)])
        self.parts: Partition = partition(entries_of(network), whole, rows, self.functionals.tocoo())
        self._own_readouts = self.functionals[self.parts.border].toarray()
        self._patterns()

    def _patterns(self) -> None:
        """Where each block's share and each entry between border nodes goes, the same at every frequency."""
        parts, own = self.parts, self.network.node_count + self.driven
        here = np.flatnonzero(parts.group[own] < 0)
        self._here = (parts.place[own[here]], here)
        self._shares = [_Places.of(group, group.border) for group in parts.groups]
        self._injected = [_Places.of(group, group.driven) for group in parts.groups]
        self._read = [_Places.of(group, group.read) for group in parts.groups]

    def solve(self, frequencies_hz: Floats, emfs: list[sparse.csc_matrix], adjoints: int) -> "CondensedSolution":
        """`emfs`: by frequency, or one for all, (driven, columns): volts on the driven branches in order.

        `adjoints`: at how many of the first frequencies they are wanted.
        """
        try:
            return self._solve_all(frequencies_hz, emfs, adjoints)
        except (np.linalg.LinAlgError, RuntimeError) as problem:
            # How numpy and SuperLU say that a matrix is exactly singular.
            raise SingularNetwork(()) from problem

    def _solve_all(self, frequencies_hz: Floats, emfs: list[sparse.csc_matrix], adjoints: int) -> "CondensedSolution":
        answers = [_find_or_solve(group, frequencies_hz, self._memory) for group in self.parts.groups]
        size, columns = len(self.parts.border), emfs[0].shape[1]
        border = np.zeros((len(frequencies_hz), size, columns), dtype=np.complex128)
        border_adjoints = np.zeros((adjoints, size, self.functionals.shape[1]), dtype=np.complex128)
        between, driving = self._between(answers, frequencies_hz), self._driving(answers, emfs, len(frequencies_hz))
        reading = self._reading(answers, adjoints)
        for index in range(len(frequencies_hz) if size else 0):
            # Few nodes and many columns: a full matrix. Not its inverse, whose rounding beside a floating device's
            # megohms is large against what a volt drives round a loop of milliohms.
            factors = _factors(between.at(index, (size, size)))
            if columns:
                right = driving[index % len(emfs)].at(index, (size, columns))
                border[index] = _solved_for(factors, right, turned=False)
            if index < adjoints:
                right = reading.at(index, self._own_readouts.shape) + self._own_readouts
                border_adjoints[index] = _solved_for(factors, right, turned=True)
        side_by_side = sparse.hstack(emfs, format="csr")
        return CondensedSolution(self, frequencies_hz, side_by_side, len(emfs), answers, border, border_adjoints)

    def _between(self, answers: list[BlockSolution], frequencies_hz: Floats) -> "_Filled":
        """S: what stands between border nodes, and every block's share."""
        rest = self.parts.rest
        values = [rest.values.real + 2j * np.pi * frequencies_hz[:, None] * rest.values.imag]
        values += [where.chosen(answer.share) for where, answer in zip(self._shares, answers, strict=True)]
        rows = np.concatenate([rest.rows, *(share.rows for share in self._shares)])
        columns = np.concatenate([rest.columns, *(share.columns for share in self._shares)])
        return _Filled(rows, columns, np.concatenate(values, axis=1))

    def _driving(self, answers: list[BlockSolution], emfs: list[sparse.csc_matrix], count: int) -> list["_Filled"]:
        """What emfs bring to the border, A_bi U s, (border, columns) for each part of `emfs`."""
        rows = np.concatenate([self._here[0], *(entry.rows for entry in self._injected)])
        ports = np.concatenate([self._here[1], *(entry.columns for entry in self._injected)])
        values = [where.chosen(answer.injected) for where, answer in zip(self._injected, answers, strict=True)]
        per_volt = np.concatenate([np.full((count, len(self._here[0])), -1.0 + 0j), *values], axis=1)
        result = []
        for index, emf in enumerate(emfs):
            by_port = emf.tocsr()
            place, entry = _join_entries(ports, by_port)
            columns = by_port.indices[entry].astype(np.int64)
            at = per_volt if len(emfs) == 1 else per_volt[index : index + 1]
            result.append(_Filled(rows[place], columns, at[:, place] * by_port.data[entry]))
        return result

    def _reading(self, answers: list[BlockSolution], count: int) -> "_Filled":
        """What a border volt brings to each functional by way of the blocks, - A_ib^T A_ii^-T c_i."""
        values = [where.chosen(answer.read[:count]) for where, answer in zip(self._read, answers, strict=True)]
        nothing = np.zeros(0, dtype=np.int64)
        rows = np.concatenate([nothing, *(entry.rows for entry in self._read)])
        columns = np.concatenate([nothing, *(entry.columns for entry in self._read)])
        return _Filled(rows, columns, np.concatenate([np.zeros((count, 0), dtype=np.complex128), *values], axis=1))


@dataclass(frozen=True)
class CondensedSolution:
    """Border voltages at every frequency, and the blocks' answers: single unknowns are put together when asked for."""

    system: CondensedSystem
    frequencies_hz: Floats
    emfs: sparse.csr_matrix
    """(driven, parts x columns): the emfs of each frequency side by side, or one for all of them."""
    parts_of_frequency: int
    answers: list[BlockSolution]
    border: Complexes
    border_adjoints: Complexes
    """At the first frequencies alone."""

    def at(self, frequencies: Ints) -> "CondensedSolution":
        """The same at some of its frequencies, by number; with adjoints where all of these have them."""
        emfs, width = self.emfs, self.border.shape[2]
        if self.parts_of_frequency > 1:
            emfs = emfs[:, (frequencies[:, None] * width + np.arange(width)).ravel()]
        whole = bool(np.all(frequencies < len(self.border_adjoints)))
        return CondensedSolution(
            self.system,
            self.frequencies_hz[frequencies],
            emfs,
            len(frequencies) if self.parts_of_frequency > 1 else 1,
            [answer.at(frequencies) for answer in self.answers],
            self.border[frequencies],
            self.border_adjoints[frequencies if whole else []],
        )

    def rows(self, rows: Ints, columns: Ints) -> Complexes:
        """(frequencies, rows, columns) of the solution; EARTH reads as zero."""
        result = np.zeros((len(self.frequencies_hz), len(rows), len(columns)), dtype=np.complex128)
        whole = len(columns) == self.border.shape[2] and bool(np.all(columns == np.arange(len(columns))))
        border = self.border if whole else self.border[:, :, columns]
        here, inner = self._split(rows)
        result[:, here] = border[:, self.system.parts.place[rows[here]]]
        position = np.full(self.border.shape[2], -1, dtype=np.int64)
        position[columns] = np.arange(len(columns))
        for group, entry, at in inner:
            met = _Met.of(self.system.parts, group, rows[at])
            volts = -(entry.to_border[:, met.kinds[:, None], met.places] @ border[:, group.border[met.blocks]])
            self._drive(volts, group, entry, met, position)
            result[:, at] = volts[:, met.which, met.slot]
        return result

    def _drive(
        self, volts: Complexes, group: Group, block_solution: BlockSolution, met: "_Met", position: Ints
    ) -> None:
        """Adds what emfs inside the blocks do there; `position`: where each column is wanted, or -1."""
        ports = group.driven[met.blocks]
        block, port = np.nonzero(ports >= 0)
        place, entry = _join_entries(ports[block, port], self.emfs)
        at, column = np.divmod(self.emfs.indices[entry].astype(np.int64), len(position))
        block, port, column = block[place], port[place], position[column]
        wanted = column >= 0
        emf = -self.emfs.data[entry]
        # Port by port, since one frequency and column may have emfs in several ports of a block.
        for slot in np.unique(port[wanted]):
            own = np.flatnonzero((port == slot) & wanted)
            f: Ints | slice = slice(None) if self.parts_of_frequency == 1 else at[own, None]
            answer = block_solution.to_ports[f, met.kinds[block[own], None], met.places[block[own]], slot]
            if isinstance(f, slice):
                volts[:, block[own], :, column[own]] += emf[own, None, None] * answer.transpose(1, 0, 2)
            else:
                volts[at[own], block[own], :, column[own]] += emf[own, None] * answer

    def adjoint_at(self, rows: Ints, functionals: Ints) -> Complexes:
        """(frequencies, pairs): of each functional's adjoint the row beside it; EARTH reads as zero."""
        parts = self.system.parts
        result = np.zeros((len(self.border_adjoints), len(rows)), dtype=np.complex128)
        here, inner = self._split(rows)
        result[:, here] = self.border_adjoints[:, parts.place[rows[here]], functionals[here]]
        for group, entry, at in inner:
            block, place, functional = parts.block[rows[at]], parts.place[rows[at]], functionals[at]
            kind = group.kind[block]
            around = self.border_adjoints[:, group.border[block], functional[:, None]]
            result[:, at] = -np.einsum("fnk,fnk->fn", entry.adjoint_border[:, kind, place], around)
            own, slot = np.nonzero(group.read[block] == functional[:, None])
            result[:, at[own]] += entry.to_readouts[:, kind[own], place[own], slot]
        return result

    def _split(self, rows: Ints) -> tuple[Ints, Iterator[tuple[Group, BlockSolution, Ints]]]:
        """Which of the rows stand on the border, and which in each group of blocks; none is where EARTH stands."""
        number = np.where(rows == EARTH, -2, self.system.parts.group[rows])
        inner = (
            (self.system.parts.groups[entry], self.answers[entry], np.flatnonzero(number == entry))
            for entry in set(number[number >= 0].tolist())
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
    factors, pivots, fault = zgetrf(matrix, overwrite_a=True)
    if fault > 0:
        raise np.linalg.LinAlgError(f"Pivot {fault} is zero")
    return factors, pivots


def _solved_for(factors: tuple[Complexes, Ints], right: Complexes, turned: bool) -> Complexes:
    values: Complexes = zgetrs(*factors, right, trans=int(turned), overwrite_b=True)[0]
    return values


def _stiff(network: Network, border: Ints) -> Ints:
    """Branches without any impedance between border nodes: by themselves they could not be solved, so they stay."""
    nodes = {EARTH, *border.tolist()}
    result = [network.node_count + branch for branch, a, b in network.stiff if a in nodes and b in nodes]
    return np.array(result, dtype=np.int64)


def _join_entries(ports: Ints, by_port: sparse.csr_matrix) -> tuple[Ints, Ints]:
    """Each of the ports with each entry in its row: (which port, which entry)."""
    starts = by_port.indptr[ports].astype(np.int64)
    counts = by_port.indptr[ports + 1].astype(np.int64) - starts
    place = np.repeat(np.arange(len(ports)), counts)
    entry: Ints = np.arange(len(place)) + np.repeat(starts - np.cumsum(counts) + counts, counts)
    return place, entry


@dataclass(frozen=True)
class _Places:
    """Where a group's answers on the border go: from `source`, indices in an answer's array, to rows and columns."""

    rows: Ints
    columns: Ints
    source: tuple[Ints, Ints, Ints]

    @staticmethod
    def of(group: Group, numbers: Ints) -> "_Places":
        """`numbers`: (blocks, m), the columns; -1 pads."""
        shape = (len(numbers), group.border.shape[1], numbers.shape[1])
        block, at, slot = np.nonzero(np.broadcast_to((numbers >= 0)[:, None, :], shape))
        return _Places(group.border[block, at], numbers[block, slot], (group.kind[block], at, slot))

    def chosen(self, values: Complexes) -> Complexes:
        """(frequencies, places) of an array (frequencies, kinds, border, columns)."""
        kind, at, slot = self.source
        result: Complexes = values[:, kind, at, slot]
        return result


@dataclass(frozen=True)
class _Filled:
    """Entries of a matrix; several may fall on one place. `values`: (frequencies or 1, entries)."""

    rows: Ints
    columns: Ints
    values: Complexes

    def at(self, index: int, shape: tuple[int, int]) -> Complexes:
        """The full matrix at one frequency, in LAPACK's order."""
        flat = np.zeros(shape[0] * shape[1], dtype=np.complex128)
        np.add.at(flat, self.columns * shape[0] + self.rows, self.values[index % len(self.values)])
        values: Complexes = flat.reshape(shape[::-1]).T
        return values


def _find_or_solve(group: Group, frequencies_hz: Floats, block_cache: BlockCache | None) -> BlockSolution:
    if block_cache is None:
        return _solve_blocks(group, frequencies_hz)
    names = names_of(group, frequencies_hz)
    result = [block_cache.find(name) for name in names]
    missing = [kind for kind, entry in enumerate(result) if entry is None]
    if missing:
        solved = _solve_blocks(of_kinds(group, missing), frequencies_hz)
        for slot, kind in enumerate(missing):
            block = solved.of_kind(slot)
            result[kind] = block
            block_cache.keep(names[kind], block)
    return BlockSolution.side_by_side([entry for entry in result if entry is not None])


def _solve_blocks(group: Group, frequencies_hz: Floats) -> BlockSolution:
    n, k, p = group.n, group.border.shape[1], group.ports.shape[2]
    omegas = 2j * np.pi * frequencies_hz
    matrix: Complexes = group.matrix.real[None] + omegas[:, None, None, None] * group.matrix.imag[None]
    inner, into, back = matrix[:, :, :n, :n], matrix[:, :, :n, n:], matrix[:, :, n:, :n].transpose(0, 1, 3, 2)
    corner = matrix[:, :, n:, n:]
    shape = (*inner.shape[:2], n)
    ports: Floats = np.broadcast_to(group.ports, (*shape, p))
    readouts: Floats = np.broadcast_to(group.readouts, (*shape, group.readouts.shape[2]))
    symmetric = np.array_equal(group.matrix, group.matrix.transpose(0, 2, 1))
    right = [into, ports, readouts] if symmetric else [into, ports]
    solved = _block_solve(inner, np.concatenate(right, axis=3))
    to_border, to_ports = solved[..., :k], solved[..., k : k + p]
    if symmetric:
        to_readouts, adjoint_border = solved[..., k + p :], to_border
    else:
        turned = _block_solve(inner.transpose(0, 1, 3, 2), np.concatenate([back, readouts], axis=3))
        to_readouts, adjoint_border = turned[..., k:], turned[..., :k]
    across, along = back.transpose(0, 1, 3, 2), into.transpose(0, 1, 3, 2)
    return BlockSolution(
        to_border,
        to_ports,
        to_readouts,
        adjoint_border,
        share=corner - across @ to_border,
        injected=across @ to_ports,
        read=-(along @ to_readouts),
    )


def _block_solve(inner: Complexes, right: Complexes) -> Complexes:
    if inner.shape[-1] <= LARGEST:
        return np.linalg.solve(inner, right).astype(np.complex128, copy=False)
    solved = np.empty(right.shape, dtype=np.complex128)
    for where in np.ndindex(inner.shape[:2]):
        solved[where] = splu(sparse.csc_matrix(inner[where])).solve(np.ascontiguousarray(right[where]))
    return solved
