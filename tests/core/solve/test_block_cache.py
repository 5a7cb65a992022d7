"""Blocks remembered from one solution to the next: never another answer, never more than there is room for."""

import unittest

import numpy as np

from ruvak.core.solve.block_cache import BlockCache, BlockSolution


def answers(size: int) -> BlockSolution:
    return BlockSolution(*(np.zeros((1, 1, size), dtype=np.complex128) for _ in range(7)))


class Remembered(unittest.TestCase):
    def test_there_is_only_so_much_room(self) -> None:
        one = answers(1000)
        block_cache = BlockCache(most_bytes=2 * one.size_bytes)
        for name in (b"a", b"b"):
            block_cache.keep(name, one)
        block_cache.find(b"a")
        block_cache.keep(b"c", one)
        self.assertEqual([block_cache.find(name) is not None for name in (b"a", b"b", b"c")], [True, False, True])
        block_cache.keep(b"too large", answers(3000))
        self.assertIsNone(block_cache.find(b"too large"))
