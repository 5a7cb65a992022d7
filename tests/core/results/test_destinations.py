"""What a device makes of all its inputs: two alike hear twice the hum of known sign and root two of the rest."""

import math
import unittest

import numpy as np

from ruvak.core.results.hum import Phasors


class TwoInputs(unittest.TestCase):
    def test_known_signs_add_and_unknown_ones_add_as_powers(self) -> None:
        shape = (1, 1)
        left = Phasors(np.full(shape, 0.003 + 0.0j), np.full(shape, 0.002**2), np.full(shape, 0.004))
        right = Phasors(np.full(shape, -0.001 + 0.0j), np.full(shape, 0.0015**2), np.full(shape, 0.003))
        both = left.plus(right.times(2.0))
        self.assertAlmostEqual(both.nominal[0, 0].real, 0.001, places=12)
        self.assertAlmostEqual(math.sqrt(both.likely_squares[0, 0]), math.hypot(0.002, 0.003), places=12)
        self.assertAlmostEqual(both.worst[0, 0], 0.010, places=12)


if __name__ == "__main__":
    unittest.main()
