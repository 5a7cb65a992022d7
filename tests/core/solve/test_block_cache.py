"""Blocks remembered from one solution to the next: never another answer, never more than there is room for."""

import unittest

import numpy as np

from bench.rigs import earthed_rig
from ruvak.core.analyse import analyse, assess, prepare
from ruvak.core.rig.edits import Edit, SetField, apply
from ruvak.core.solve.block_cache import BlockCache, BlockSolution
from ruvak.service.demo_data import demo_rig


def answers(size: int) -> BlockSolution:
    return BlockSolution(*(np.zeros((1, 1, size), dtype=np.complex128) for _ in range(7)))


class Remembered(unittest.TestCase):
    def test_an_edit_is_answered_as_if_nothing_had_been_solved_before(self) -> None:
        rig, block_cache = earthed_rig(12), BlockCache()
        analyse(rig, block_cache)
        for length_m in (3.0, 30.0, 3.0):
            edited = apply(
                rig,
                Edit(label="length", ops=(SetField(kind="kit", id=rig.kit[1].id, field="length_m", value=length_m),)),
            )
            self.assertEqual(analyse(edited, block_cache), analyse(edited))

    def test_a_stage_with_a_multicore_too(self) -> None:
        rig, block_cache = prepare(demo_rig("midwinter-concert")), BlockCache()
        self.assertEqual(analyse(rig, block_cache), analyse(rig, block_cache))
        self.assertEqual(analyse(rig, block_cache), analyse(rig))

    def test_there_is_only_so_much_room(self) -> None:
        one = answers(1000)
        block_cache = BlockCache(most_bytes=2 * one.size_bytes)
        for name in (b"a", b"b"):
            block_cache.keep(name, one)
        block_cache.known(b"a")
        block_cache.keep(b"c", one)
        self.assertEqual([block_cache.known(name) is not None for name in (b"a", b"b", b"c")], [True, False, True])
        block_cache.keep(b"too large", answers(3000))
        self.assertIsNone(block_cache.known(b"too large"))


class Assessed(unittest.TestCase):
    def test_the_same_figures_and_findings_as_the_whole_analysis(self) -> None:
        rig = prepare(demo_rig("midwinter-concert"))
        whole, light = analyse(rig), assess(rig, "slides")
        self.assertEqual(light.verdict, whole.verdict)
        self.assertEqual(light.mine, next(one for one in whole.runs if one.run == "slides"))
        for one, other in zip(whole.runs, light.runs, strict=True):
            self.assertEqual(one.findings, other.findings)
            self.assertEqual(one.result.mixes, other.result.mixes)
            for mine, theirs in zip(one.result.inputs, other.result.inputs, strict=True):
                self.assertEqual(mine.levels, theirs.levels)
                assert mine.hum is not None and theirs.hum is not None
                self.assertEqual(mine.hum.weighted_dbu, theirs.hum.weighted_dbu)
