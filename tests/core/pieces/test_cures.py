"""Pieces are known by what is inside them: coils isolate, stages ask little, resistors sum."""

import unittest
from collections.abc import Callable

from ruvak.core.parts.library import library
from ruvak.core.pieces.cures import Cure, cures, is_isolator, is_light_load, is_resistive_sum
from ruvak.core.rig.part import Part


def parts(is_so: Callable[[Part], bool]) -> set[str]:
    return {part.id for part in library().values() if part.kind != "gear" and is_so(part)}


class Cures(unittest.TestCase):
    def test_what_each_kind_takes_in(self) -> None:
        self.assertEqual(parts(is_resistive_sum), {"mono-sum-ts", "adapter-trs35-xlr-sum"})
        self.assertTrue({"isolator-xlr", "isolator-stereo-trs35-xlr", "di-passive"} <= parts(is_isolator))
        self.assertTrue({"di-active", "di-active-piezo", "di-passive"} <= parts(is_light_load))
        self.assertFalse(parts(is_light_load) & {"isolator-xlr", "pad-20", "mono-sum-ts"})
        self.assertFalse(parts(is_isolator) & {"di-active", "pad-20", "lift-xlr", "mic-lead"})

    def test_each_kind_once(self) -> None:
        self.assertEqual(
            cures([Cure.ISOLATOR, Cure.LIGHT_LOAD, Cure.ISOLATOR, None, Cure.LIGHT_LOAD]), (is_isolator, is_light_load)
        )
        self.assertEqual(cures([None]), ())
