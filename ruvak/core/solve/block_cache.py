"""Answers of blocks kept for the next solution: after an edit all but one of them are the same again.

A block is known by what it is made of, so nothing kept can ever be out of date.
"""

import hashlib
from collections import OrderedDict
from dataclasses import dataclass, replace
from threading import Lock

import numpy as np

from ruvak.core.solve.blocks import Group
from ruvak.core.solve.network import Complexes, Floats, Ints

MOST_BYTES = 128 * 2**20


@dataclass(frozen=True)
class BlockSolution:
    """One group solved at every frequency; all (frequencies, kinds, …).

    With n unknowns inside, k border nodes, p ports, q read-outs: `to_border` W (n, k), `to_ports` U (n, p),
    `to_readouts` (n, q) and `adjoint_border` (n, k) of the transposed block; what the block is to the border: `share`
    of its matrix (k, k), `injected` (k, p) by a volt in each port, `read` (k, q) by each read-out.
    """

    to_border: Complexes
    to_ports: Complexes
    to_readouts: Complexes
    adjoint_border: Complexes
    share: Complexes
    injected: Complexes
    read: Complexes

    def of_kind(self, kind: int) -> "BlockSolution":
        """A copy of one kind's alone, so that the others can be forgotten."""
        return BlockSolution(*(np.ascontiguousarray(entry[:, kind : kind + 1]) for entry in self._all))

    def at(self, frequencies: Ints) -> "BlockSolution":
        """Some frequencies', by number."""
        return BlockSolution(*(entry[frequencies] for entry in self._all))

    @property
    def size_bytes(self) -> int:
        """What it holds."""
        return sum(entry.nbytes for entry in self._all)

    @property
    def _all(self) -> tuple[Complexes, ...]:
        return (
            self.to_border,
            self.to_ports,
            self.to_readouts,
            self.adjoint_border,
            self.share,
            self.injected,
            self.read,
        )

    @staticmethod
    def side_by_side(parts: list["BlockSolution"]) -> "BlockSolution":
        """Kinds of several in order."""
        if len(parts) == 1:
            return parts[0]
        return BlockSolution(
            *(np.concatenate(entry, axis=1) for entry in zip(*(part._all for part in parts), strict=True))
        )


class BlockCache:
    """The answers last used, up to so many bytes."""

    def __init__(self, most_bytes: int = MOST_BYTES) -> None:
        self._most_bytes, self._bytes = most_bytes, 0
        self._kept: OrderedDict[bytes, BlockSolution] = OrderedDict()
        self._lock = Lock()

    def find(self, key: bytes) -> BlockSolution | None:
        """What was kept under this name."""
        with self._lock:
            match = self._kept.get(key)
            if match is not None:
                self._kept.move_to_end(key)
            return match

    def keep(self, key: bytes, answers: BlockSolution) -> None:
        """Forgets what was not used longest to make room."""
        with self._lock:
            if key in self._kept or answers.size_bytes > self._most_bytes:
                return
            self._kept[key] = answers
            self._bytes += answers.size_bytes
            while self._bytes > self._most_bytes:
                _, gone = self._kept.popitem(last=False)
                self._bytes -= gone.size_bytes


def names_of(group: Group, frequencies_hz: Floats) -> list[bytes]:
    """A name for each kind: all that its answers depend on."""
    shape = np.array([group.n, *group.matrix.shape[1:], *group.ports.shape[1:], *group.readouts.shape[1:]])
    common = shape.tobytes() + frequencies_hz.tobytes()
    return [
        hashlib.blake2b(common + matrix.tobytes() + ports.tobytes() + readouts.tobytes(), digest_size=20).digest()
        for matrix, ports, readouts in zip(group.matrix, group.ports, group.readouts, strict=True)
    ]


def of_kinds(group: Group, kinds: list[int]) -> Group:
    """The group with these kinds alone; its blocks are of no account."""
    return replace(group, matrix=group.matrix[kinds], ports=group.ports[kinds], readouts=group.readouts[kinds])
