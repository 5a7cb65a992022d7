"""Connections ranked by what opening them does: the rank update against the same rig really opened."""

import unittest
from typing import Any

from ruvak.core.analyse import analyse, ground_loops_of
from ruvak.core.results.hum_records import GroundLoop
from ruvak.core.rig.rig import Rig
from tests.support.earths import (
    class_1,
    earthed,
    hum_of,
    outlets,
    ts_cable,
    ts_input,
    ts_source,
    xlr_cable,
    xlr_input,
    xlr_source,
)

LEADS = {"left": {"part": "lead", "length_m": 20.0}, "right": {"part": "lead", "length_m": 20.0}}
TWO = [[("keys.out1", "left.in"), ("left.out", "desk.in1")], [("keys.out2", "right.in"), ("right.out", "desk.in2")]]
AT = {"keys": "here", "desk": "there"}


def two_leads() -> Rig:
    parts = [ts_source("keys", 1000, class_1(0.1), 2), ts_input("desk", 1e5, class_1(0.1), 2), ts_cable()]
    return earthed(parts, TWO, LEADS, AT, outlets(here=0.0, there=0.06))


def balanced(screen: tuple[str, str], **more: Any) -> Rig:
    lead = xlr_cable(screen, external_h_per_m=1e-6, pair_h_per_m=6e-7, core_to_screen_f_per_m=1e-10)
    desk = xlr_input(
        "desk", 10_000, class_1(0.1), {"likely": 0.01, "worst": 0.3}, rejection_db={"likely": 80, "worst": 60}
    )
    return earthed(
        [xlr_source("source", 50, class_1(0.1), leg_mismatch={"likely": 0.01, "worst": 0.1}), desk, lead],
        [[("source.out", "lead.in"), ("lead.out", "desk.in")]],
        {"lead": {"part": "lead", "length_m": 20.0}},
        {"source": "here", "desk": "there"},
        outlets(here=0.0, there=0.06),
        **more,
    )


def of(found: tuple[GroundLoop, ...], owner: str) -> GroundLoop:
    return next(one for one in found if one.owner == owner)


class Ranking(unittest.TestCase):
    def test_opening_one_of_two_leads_raises_the_other(self) -> None:
        found = ground_loops_of(two_leads())
        left = of(found, "left")
        self.assertTrue(left.is_return)
        other = next(one for one in left.openings if one.run == "run2")
        self.assertGreater(other.after_dbu, other.before_dbu + 1)

    def test_a_balanced_lines_screen_opened_like_the_real_one(self) -> None:
        bonded, lifted = balanced(("in.1", "out.1")), balanced(("in.1", ""))
        screen = of(ground_loops_of(bonded), "lead")
        self.assertFalse(screen.is_return)
        self.assertAlmostEqual(screen.openings[0].before_dbu, hum_of(bonded).weighted_dbu, places=6)
        # Opened in its middle or at an end: the capacitances of the far half move, no more.
        self.assertAlmostEqual(screen.openings[0].after_dbu, hum_of(lifted).weighted_dbu, delta=0.2)
        self.assertLess(screen.openings[0].after_dbu, screen.openings[0].before_dbu - 10)

    def test_a_bond_beside_the_runs_opened_like_the_rig_without_it(self) -> None:
        bond = {"id": "usb", "name": "USB", "kind": "usb", "a": "source", "b": "desk"}
        with_it, without = balanced(("in.1", ""), bonds=[bond]), balanced(("in.1", ""))
        opening = of(ground_loops_of(with_it), "usb").openings[0]
        self.assertAlmostEqual(opening.after_dbu, hum_of(without).weighted_dbu, places=4)
        self.assertAlmostEqual(opening.worst_after_dbu, hum_of(without).weighted_worst_dbu, places=4)

    def test_its_current_and_its_loop(self) -> None:
        parts = [ts_source("keys", 1000, class_1(0.1), 2), ts_input("desk", 1e9, class_1(0.1), 2), ts_cable()]
        rig = earthed(parts, TWO[:1], {"left": LEADS["left"]}, AT, outlets(here=0.0, there=0.06))
        found = of(ground_loops_of(rig), "left")
        # 60 mV through 1 ohm of screen, 0.2 of outlets and 0.2 of cords.
        self.assertAlmostEqual(found.likely_a, 0.06 / 1.4, places=5)
        self.assertTrue(found.is_return)
        self.assertEqual(found.loop, ("left", "desk", "earth:there", "earth", "earth:here", "keys"))

    def test_what_closes_no_loop_is_left_out(self) -> None:
        floating = {"earthing": {"type": "floating"}}
        parts = [ts_source("keys", 1000, floating), ts_input("desk", 1e5, class_1(0.1)), ts_cable()]
        rig = earthed(parts, [TWO[0]], {"left": LEADS["left"]}, {"desk": "there"}, outlets(there=0.06))
        self.assertEqual(ground_loops_of(rig), ())
        self.assertTrue(analyse(rig).runs)
