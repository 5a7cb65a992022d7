"""Splits a network's unknowns into a border and the blocks that only meet at it.

Take the border's nodes away and the rest falls into pieces that know nothing of each other. Each can be solved by
itself, in batches, and leaves on the border what it does to its few nodes there (static condensation: Guyan, AIAA
Journal 3(2), 1965; in circuits Kron's tearing).
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import connected_components

from ruvak.core.solve.network import Complexes, Floats, Ints

Mask = NDArray[np.bool_]

ROUND_UP = 4
"""Blocks are padded to a multiple of this many unknowns, so that more of them are solved in one batch."""


@dataclass(frozen=True)
class Entries:
    """A matrix A0 + j w A1 as coordinates: `values` hold A0 as real and A1 as imaginary part."""

    size: int
    rows: Ints
    columns: Ints
    values: Complexes


@dataclass(frozen=True)
class Group:
    """Blocks padded to one size, and of those that are alike only one: `kind` tells each block's number among them.

    `matrix`: (kinds, n + k, n + k), the block's unknowns first, then its border nodes, A0 and A1 as in Entries.
    `ports`: (kinds, n, p), columns of the unknowns that drive; `readouts`: (kinds, n, q), what is read, as vectors.
    `border`: (blocks, k), positions on the border; -1 pads. `driven`, `read`: (blocks, p) and (blocks, q), the
    numbers of the driving unknowns and of the functionals; -1 pads.
    """

    n: int
    kind: Ints
    matrix: Complexes
    ports: Floats
    readouts: Floats
    border: Ints
    driven: Ints
    read: Ints


@dataclass(frozen=True)
class Partition:
    """`block` and `place` of each unknown: its group's number, its block there, its row; border nodes have group -1
    and their position on the border as row. `rest`: entries between border nodes, by position."""

    border: Ints
    group: Ints
    block: Ints
    place: Ints
    groups: tuple[Group, ...]
    rest: Entries


def partition(entries: Entries, border: Ints, driven: Ints, readouts: coo_matrix) -> Partition:
    """`driven`: the unknowns whose rows any emf enters; `readouts`: (size, functionals), what is read."""
    on_border: Mask = np.zeros(entries.size, dtype=bool)
    on_border[border] = True
    label = _labels(entries, on_border)
    count = int(label.max(initial=-1)) + 1
    place = _places(label, count)
    place[border] = np.arange(len(border))
    touched = _border_pairs(entries, label, place, on_border)
    inside = np.bincount(label[label >= 0], minlength=count)
    width = np.bincount(touched[:, 0], minlength=count)
    padded = -(-inside // ROUND_UP) * ROUND_UP
    shapes, shape_of = np.unique(np.stack([padded, width], axis=1), axis=0, return_inverse=True)
    number = np.zeros(count, dtype=np.int64)
    groups = []
    for index, (n, k) in enumerate(shapes):
        blocks = np.flatnonzero(shape_of.ravel() == index)
        number[blocks] = np.arange(len(blocks))
        builder = _Builder(entries, label, place, touched, blocks, int(n), int(k))
        groups.append(builder.group(driven, readouts, inside))
    group, block = np.full(entries.size, -1, dtype=np.int64), np.full(entries.size, -1, dtype=np.int64)
    group[label >= 0] = shape_of.ravel()[label[label >= 0]]
    block[label >= 0] = number[label[label >= 0]]
    between = on_border[entries.rows] & on_border[entries.columns]
    rest = Entries(len(border), place[entries.rows[between]], place[entries.columns[between]], entries.values[between])
    return Partition(border, group, block, place, tuple(groups), rest)


def _labels(entries: Entries, on_border: Mask) -> Ints:
    """Block of each unknown, counted from 0; -1 on the border."""
    inside = ~on_border[entries.rows] & ~on_border[entries.columns]
    rows, columns = entries.rows[inside], entries.columns[inside]
    graph = coo_matrix((np.ones(len(rows)), (rows, columns)), shape=(entries.size, entries.size))
    _, result = connected_components(graph, directed=False)
    label: Ints = result.astype(np.int64)
    _, label[~on_border] = np.unique(label[~on_border], return_inverse=True)
    label[on_border] = -1
    return label


def _places(label: Ints, count: int) -> Ints:
    """Position of each unknown within its block."""
    order = np.argsort(label, kind="stable")
    order = order[label[order] >= 0]
    starts = np.searchsorted(label[order], np.arange(count))
    place: Ints = np.zeros(len(label), dtype=np.int64)
    place[order] = np.arange(len(order)) - starts[label[order]]
    return place


def _border_pairs(entries: Entries, label: Ints, place: Ints, on_border: Mask) -> Ints:
    """(block, border position) pairs, each once, in order."""
    out = on_border[entries.columns] & ~on_border[entries.rows]
    into = on_border[entries.rows] & ~on_border[entries.columns]
    pairs = [
        np.stack([label[entries.rows[out]], place[entries.columns[out]]], axis=1),
        np.stack([label[entries.columns[into]], place[entries.rows[into]]], axis=1),
    ]
    values: Ints = np.unique(np.concatenate(pairs).reshape(-1, 2), axis=0)
    return values


@dataclass(frozen=True)
class _Builder:
    """Fills one group's arrays."""

    entries: Entries
    label: Ints
    place: Ints
    touched: Ints
    blocks: Ints
    n: int
    k: int

    def group(self, driven: Ints, readouts: coo_matrix, inside: Ints) -> Group:
        border = self._border()
        matrix = self._matrix(inside)
        ports, driven_by = self._columns(driven, np.arange(len(driven)), np.ones(len(driven)))
        at, which = readouts.row.astype(np.int64), readouts.col.astype(np.int64)
        vectors, read = self._columns(at, which, readouts.data)
        alike = np.concatenate([matrix.reshape(len(self.blocks), -1).view(np.float64), _flat(ports), _flat(vectors)], 1)
        _, first, kind = np.unique(_bytes(alike), return_index=True, return_inverse=True)
        return Group(self.n, kind.ravel(), matrix[first], ports[first], vectors[first], border, driven_by, read)

    def _number_blocks(self) -> Ints:
        number: Ints = np.full(int(self.label.max(initial=-1)) + 1, -1, dtype=np.int64)
        number[self.blocks] = np.arange(len(self.blocks))
        return number

    def _border(self) -> Ints:
        number = self._number_blocks()[self.touched[:, 0]]
        border: Ints = self.touched[number >= 0, 1].reshape(len(self.blocks), self.k)
        return border

    def _matrix(self, inside: Ints) -> Complexes:
        """Every entry with at least one foot in a block, and ones where a row only pads."""
        width, entries = self.n + self.k, self.entries
        row_label, column_label = self.label[entries.rows], self.label[entries.columns]
        owner = np.maximum(row_label, column_label)
        own = self._number_blocks()[owner]
        own = np.where(owner >= 0, own, -1)
        chosen = own >= 0
        rows = self._local(entries.rows[chosen], row_label[chosen], owner[chosen])
        columns = self._local(entries.columns[chosen], column_label[chosen], owner[chosen])
        flat = np.zeros(len(self.blocks) * width * width, dtype=np.complex128)
        np.add.at(flat, (own[chosen] * width + rows) * width + columns, entries.values[chosen])
        matrix: Complexes = flat.reshape(len(self.blocks), width, width)
        padding = np.arange(self.n)[None, :] >= inside[self.blocks][:, None]
        block, row = np.nonzero(padding)
        matrix[block, row, row] = 1.0
        return matrix

    def _local(self, unknowns: Ints, labels: Ints, owner: Ints) -> Ints:
        """Row of an unknown in its block's matrix: its own place, or behind the block among its border nodes."""
        keys = self.touched[:, 0] * (self.entries.size + 1) + self.touched[:, 1]
        at = np.searchsorted(keys, owner * (self.entries.size + 1) + self.place[unknowns])
        starts = np.searchsorted(self.touched[:, 0], owner)
        values: Ints = np.where(labels >= 0, self.place[unknowns], self.n + at - starts)
        return values

    def _columns(self, unknowns: Ints, numbers: Ints, weights: Floats) -> tuple[Floats, Ints]:
        """Vectors over the block's unknowns, (blocks, n, m), one a number met in it; and the numbers, (blocks, m)."""
        labels = self.label[unknowns]
        own = np.where(labels >= 0, self._number_blocks()[labels], -1)
        chosen = own >= 0
        pairs = np.stack([own[chosen], numbers[chosen]], axis=1).reshape(-1, 2)
        result, index = np.unique(pairs, axis=0, return_inverse=True)
        starts = np.searchsorted(result[:, 0], np.arange(len(self.blocks)))
        slot = np.arange(len(result)) - starts[result[:, 0]]
        most = int(slot.max(initial=-1)) + 1
        vectors = np.zeros((len(self.blocks), self.n, most))
        np.add.at(vectors, (own[chosen], self.place[unknowns[chosen]], slot[index.ravel()]), weights[chosen])
        which: Ints = np.full((len(self.blocks), most), -1, dtype=np.int64)
        which[result[:, 0], slot] = result[:, 1]
        return vectors, which


def _flat(values: Floats) -> Floats:
    return values.reshape(len(values), -1)


def _bytes(values: Floats) -> NDArray[np.void]:
    """Rows as opaque bytes, so that equal rows are found by sorting."""
    whole = np.ascontiguousarray(values + 0.0)
    return whole.view(np.dtype((np.void, whole.dtype.itemsize * max(1, whole.shape[1])))).ravel()
