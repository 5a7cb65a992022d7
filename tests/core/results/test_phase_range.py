"""The range of a connection's benefit over unknown phase: two phasors by hand."""

import math
import unittest

import numpy as np

from ruvak.core.analyse import ground_loops_of
from ruvak.core.results.phase_range import change_range_db
from tests.core.results.test_ground_loops import AT, TWO, of
from tests.support.earths import class_1, earthed, outlets, quiet, ts_cable, ts_input, ts_source

FLAT = np.ones(1)


def volts(*causes: complex) -> np.ndarray:
    """One frequency, one component."""
    return np.array(causes, dtype=np.complex128).reshape(1, 1, -1)


class TwoCauses(unittest.TestCase):
    def test_taking_one_of_two_away(self) -> None:
        # 3 and 2 mV stand to each other anyhow: 1 to 5 mV before, 3 mV after.
        least, greatest = change_range_db(volts(0.003, 0.002), volts(0.003, 0.0), FLAT)
        self.assertAlmostEqual(least, 20 * math.log10(3 / 5), places=3)
        self.assertAlmostEqual(greatest, 20 * math.log10(3 / 1), places=3)

    def test_both_lowered_alike_leave_no_doubt(self) -> None:
        least, greatest = change_range_db(volts(0.003, 0.002), volts(0.0015, 0.001), FLAT)
        self.assertAlmostEqual(least, -6.0206, places=3)
        self.assertAlmostEqual(greatest, -6.0206, places=3)

    def test_one_cause_alone_has_no_phase(self) -> None:
        least, greatest = change_range_db(volts(0.003), volts(0.001), FLAT)
        self.assertAlmostEqual(least, 20 * math.log10(1 / 3), places=9)
        self.assertEqual(least, greatest)

    def test_components_add_as_powers_and_causes_within_one_by_phase(self) -> None:
        # The first component carries the first cause alone, the second the other: nothing can cancel.
        apart = np.array([[[0.003, 0.0], [0.0, 0.002]]], dtype=np.complex128)
        least, greatest = change_range_db(apart, apart / 2, FLAT)
        self.assertAlmostEqual(least, greatest, places=9)
        self.assertAlmostEqual(least, -6.0206, places=3)


class InARig(unittest.TestCase):
    def test_two_causes_in_one_screen(self) -> None:
        """An earth voltage and the field both drive the loop of each lead; opening one leaves the other with both."""
        parts = [ts_source("keys", 1000, class_1(0.1), 2), ts_input("desk", 1e5, class_1(0.1), 2), ts_cable()]
        leads = {name: {"part": "lead", "length_m": 20.0, "loop_width_m": 1.0} for name in ("left", "right")}
        rig = earthed(parts, TWO, leads, AT, outlets(here=0.0, there=0.001), quiet(field_t=2e-7))
        loops = ground_loops_of(rig)
        for opening in of(loops, "left").openings:
            likely_db = opening.after_dbu - opening.before_dbu
            self.assertLessEqual(opening.change_best_db, likely_db + 1e-6)
            self.assertGreaterEqual(opening.change_worst_db, likely_db - 1e-6)


if __name__ == "__main__":
    unittest.main()
