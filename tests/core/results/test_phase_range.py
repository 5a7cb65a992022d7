"""The range of a connection's benefit over unknown phase: two phasors by hand."""

import math
import unittest
from typing import Any

import numpy as np

from ruvak.core.analyse import ground_loops_of
from ruvak.core.results.input_hum import InputHum, Sizes
from ruvak.core.results.phase_range import change_ranges_db
from tests.core.results.test_ground_loops import AT, TWO, of
from tests.support.earths import class_1, earthed, outlets, quiet, ts_cable, ts_input, ts_source

ALONE = np.zeros(1, dtype=np.int64)


class Apart:
    """In place of sensitivities: one input whose tolerances are of size 1."""

    def __init__(self, tolerances: int) -> None:
        self.first = np.array([0, tolerances])
        self.counts = np.array([tolerances])
        self.likely = np.ones(tolerances)

    def tolerances_of(self, _chosen: np.ndarray) -> np.ndarray:
        return np.arange(self.first[1])

    def sum_tolerances(self, values: np.ndarray) -> np.ndarray:
        sums: np.ndarray = values.sum(axis=1, keepdims=True)
        return sums


def hum(*components: tuple[complex, ...]) -> Any:
    """At one frequency; the first component with its sign, the others tolerances' shares."""
    first, *others = (np.array(component, dtype=np.complex128) for component in components)
    sizes = Sizes(np.ones(len(first)), np.ones(len(first)), np.ones(1))
    per_unit = np.array(others, dtype=np.complex128).reshape(1, len(others), len(first))
    return InputHum(Apart(len(others)), first.reshape(1, 1, -1), per_unit, sizes)  # type: ignore[arg-type]


def range_db(before: Any, after: Any) -> tuple[float, float]:
    least, greatest = change_ranges_db(before, ALONE, after, ALONE)[0].tolist()
    return least, greatest


class TwoCauses(unittest.TestCase):
    def test_taking_one_of_two_away(self) -> None:
        # 3 and 2 mV stand to each other anyhow: 1 to 5 mV before, 3 mV after.
        least, greatest = range_db(hum((0.003, 0.002)), hum((0.003, 0.0)))
        self.assertAlmostEqual(least, 20 * math.log10(3 / 5), places=3)
        self.assertAlmostEqual(greatest, 20 * math.log10(3 / 1), places=3)

    def test_both_lowered_alike_leave_no_doubt(self) -> None:
        least, greatest = range_db(hum((0.003, 0.002)), hum((0.0015, 0.001)))
        self.assertAlmostEqual(least, -6.0206, places=3)
        self.assertAlmostEqual(greatest, -6.0206, places=3)

    def test_one_cause_alone_has_no_phase(self) -> None:
        least, greatest = range_db(hum((0.003,)), hum((0.001,)))
        self.assertAlmostEqual(least, 20 * math.log10(1 / 3), places=9)
        self.assertEqual(least, greatest)

    def test_components_add_as_powers_and_causes_within_one_by_phase(self) -> None:
        # The first component carries the first cause alone, the second the other: nothing can cancel.
        least, greatest = range_db(hum((0.003, 0.0), (0.0, 0.002)), hum((0.0015, 0.0), (0.0, 0.001)))
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
