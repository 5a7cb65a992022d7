"""Pieces are known by what is inside them: coils isolate, stages ask little, resistors sum."""

import unittest
from collections.abc import Callable

from ruvak.core.parts.library import library
from ruvak.core.pieces.cures import Cure, cures, is_isolator, is_light_load, is_pad, is_resistive_sum, pad_loss_db
from ruvak.core.rig.part import Part


def parts(is_so: Callable[[Part], bool]) -> set[str]:
    return {part.id for part in library().values() if part.kind != "gear" and is_so(part)}


class Cures(unittest.TestCase):
    def test_what_each_kind_takes_in(self) -> None:
        self.assertEqual(parts(is_resistive_sum), {"mono-sum-ts", "mono-sum-xlr", "adapter-trs35-xlr-sum"})
        self.assertTrue({"isolator-xlr", "isolator-stereo-trs35-xlr", "di-passive"} <= parts(is_isolator))
        self.assertTrue({"di-active", "di-active-piezo", "di-passive"} <= parts(is_light_load))
        self.assertFalse(parts(is_light_load) & {"isolator-xlr", "pad-20", "mono-sum-ts"})
        self.assertFalse(parts(is_isolator) & {"di-active", "pad-20", "lift-xlr", "mic-lead"})

    def test_a_pad_is_known_by_its_divider_and_takes_what_it_says(self) -> None:
        for part, loss_db in (("pad-10", 9.5), ("pad-20", 20.0), ("pad-40", 40.0), ("pad-trs35-40", 40.0)):
            self.assertAlmostEqual(pad_loss_db(library()[part]), loss_db, delta=0.8, msg=part)
        self.assertEqual(parts(is_pad), {part for part in parts(lambda part: part.kind == "box") if "pad-" in part})
        self.assertEqual(pad_loss_db(library()["mono-sum-ts"]), 0.0)

    def test_each_kind_once(self) -> None:
        self.assertEqual(
            cures([Cure.ISOLATOR, Cure.LIGHT_LOAD, Cure.ISOLATOR, None, Cure.LIGHT_LOAD]), (is_isolator, is_light_load)
        )
        self.assertEqual(cures([None]), ())
