"""Legs plugged in a given order, and what could stand at a place."""

import unittest

from ruvak.core.pieces.choices import choices
from ruvak.core.pieces.plug import plug_pieces
from ruvak.core.rig.rig import Rig, Run
from tests.support.rigs import demo_rig, wired


def run_of(rig: Rig) -> Run:
    return rig.runs[0]


class Plugging(unittest.TestCase):
    def test_as_it_is_it_stays(self) -> None:
        rig = demo_rig()
        self.assertEqual(plug_pieces(rig, run_of(rig), run_of(rig).pieces).joins, run_of(rig).joins)

    def test_another_adapter_of_the_same_kind_takes_its_place(self) -> None:
        found = plug_pieces(demo_rig(), run_of(demo_rig()), ("adapter-7", "lead-31"))
        self.assertEqual([(str(join.a), str(join.b)) for join in found.joins], [
            ("laptop.phones", "adapter-7.in"), ("adapter-7.out", "lead-31.in"), ("lead-31.out", "speaker.in1"),
        ])  # fmt: skip
        self.assertEqual(found.gaps, ())

    def test_what_does_not_fit_is_left_out_and_said(self) -> None:
        found = plug_pieces(demo_rig(), run_of(demo_rig()), ("lead-31",))
        self.assertEqual([str(join.b) for join in found.joins], ["speaker.in1"])
        self.assertEqual(len(found.gaps), 1)
        self.assertIn("does not go into", found.gaps[0])

    def test_no_legs_at_all(self) -> None:
        found = plug_pieces(demo_rig(), run_of(demo_rig()), ())
        self.assertEqual((found.joins, len(found.gaps)), ((), 1))

    def test_a_looked_at_sleeve_is_remembered(self) -> None:
        rig = demo_rig()
        kit = [*(k.model_dump() for k in rig.kit), {"id": "four", "tag": "F", "part": "lead-trrs-trrs", "length_m": 1}]
        from ruvak.core.parts.library import embed

        joins = [{"a": "laptop.phones", "b": "four.in", "sleeve": "R2"}]
        changed_run = {**run_of(rig).model_dump(), "pieces": ["four"], "joins": joins}
        changed = wired(embed(rig.with_fields(kit=wired_kit(kit))), runs=[changed_run])
        self.assertEqual(plug_pieces(changed, run_of(changed), ("four",)).joins[0].sleeve, "R2")


def wired_kit(kit: list[dict[str, object]]) -> tuple[object, ...]:
    from ruvak.core.rig.rig import KitItem

    return tuple(KitItem.model_validate(item) for item in kit)


class Choices(unittest.TestCase):
    def test_fitting_and_owned_things_first(self) -> None:
        found = choices(demo_rig(), run_of(demo_rig()), 0, replace=True)
        self.assertEqual(found[0].item, "adapter-7")
        ranks = [(not one.fits, not one.in_kit) for one in found]
        self.assertEqual(ranks, sorted(ranks))

    def test_between_two_xlrs_what_has_xlrs_on_both_sides_fits(self) -> None:
        found = choices(demo_rig(), run_of(demo_rig()), 1, replace=False)
        named = [(one.item, one.length_m) for one in found]
        self.assertEqual(len(named), len(set(named)), "each once, though some may stand either way round")
        fitting = {one.part for one in found if one.fits}
        self.assertLessEqual({"mic-lead", "isolator-xlr", "pad-20", "lift-xlr", "adapter-xlr-turn"}, fitting)
        self.assertNotIn("di-passive", fitting)

    def test_an_empty_run_takes_anything(self) -> None:
        rig = wired(demo_rig(), runs=[{"id": "slides", "number": 1, "name": "S", "pieces": [], "joins": []}])
        self.assertTrue(all(one.fits for one in choices(rig, run_of(rig), 0, replace=False)))
