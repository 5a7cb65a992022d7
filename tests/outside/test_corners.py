"""Half-power corners against closed forms: first order and Butterworth slopes, inside the audible range and outside."""

import math
import unittest

import numpy as np

from ruvak.core.results.records import Response
from ruvak.core.results.response import FULL_SWEEP_HZ, response

HERTZ = np.array(FULL_SWEEP_HZ)


def low_pass(corner_hz: float, order: int = 1) -> np.ndarray:
    """Size of a Butterworth low-pass; order 1 is a resistance and a capacitance."""
    return (1.0 / np.sqrt(1.0 + (HERTZ / corner_hz) ** (2 * order))).astype(np.complex128)


def high_pass(corner_hz: float, order: int = 1) -> np.ndarray:
    return (1.0 / np.sqrt(1.0 + (corner_hz / HERTZ) ** (2 * order))).astype(np.complex128)


def found(gains: np.ndarray) -> Response:
    return response("1", gains)


class Corners(unittest.TestCase):
    def test_high_corners_from_the_bass_to_far_above_hearing(self) -> None:
        for order in (1, 2, 3):
            for corner_hz in (1500.0, 3333.0, 17_000.0, 21_000.0, 37_000.0, 90_000.0, 190_000.0):
                got = found(low_pass(corner_hz, order)).passband_high_hz
                assert got is not None
                self.assertAlmostEqual(got / corner_hz, 1.0, delta=0.004, msg=f"{corner_hz} Hz, order {order}")

    def test_low_corners_down_to_a_hertz(self) -> None:
        for order in (1, 2, 3):
            for corner_hz in (1.3, 4.2, 7.0, 15.0, 23.0, 77.0, 600.0):
                got = found(high_pass(corner_hz, order)).passband_low_hz
                assert got is not None
                self.assertAlmostEqual(got / corner_hz, 1.0, delta=0.004, msg=f"{corner_hz} Hz, order {order}")

    def test_beyond_what_is_solved_there_is_none(self) -> None:
        flat = found(np.ones(len(HERTZ), dtype=np.complex128))
        self.assertEqual((flat.passband_low_hz, flat.passband_high_hz, flat.low_3db_hz), (None, None, None))
        self.assertEqual(flat.passband_db, 0.0)

    def test_relative_to_the_passband_and_to_1_khz(self) -> None:
        # A dead lead: its corner lies at 400 Hz, so 1 kHz is 8.6 dB down already.
        dull = found(low_pass(400.0))
        self.assertAlmostEqual(dull.passband_db, 10 * math.log10(1 + 2.5**2), delta=0.15)
        assert dull.passband_high_hz is not None and dull.high_3db_hz is not None
        self.assertAlmostEqual(dull.passband_high_hz, 400.0, delta=14.0)
        # Half of the power at 1 kHz: 1 + (f/400)^2 = 2 (1 + 2.5^2).
        self.assertAlmostEqual(dull.high_3db_hz, 400.0 * math.sqrt(2 * 7.25 - 1), delta=5.0)

    def test_a_narrow_resonance_is_no_passband(self) -> None:
        quality, resonance_hz = 4.0, 3000.0
        ratio = HERTZ / resonance_hz
        gains = 1.0 / (1.0 - ratio**2 + 1j * ratio / quality)
        peaky = found(gains)
        # The octave just below the peak is the loudest that holds; the peak itself, 12 dB, is narrower.
        self.assertLess(peaky.passband_db, 6.0)
        assert peaky.passband_high_hz is not None
        self.assertGreater(peaky.passband_high_hz, resonance_hz)

    def test_a_corner_behind_a_resonance(self) -> None:
        """Second order with a quality of 1.5: half of the passband's power where |1 - r^2 + j r/Q|^2 is twice what it
        is there, a quadratic in r^2; of the two frequencies beside it the lower lies over the passband."""
        quality = 1.5
        for resonance_hz in (900.0, 2000.0, 4700.0):
            ratio = HERTZ / resonance_hz
            peaky = found(1.0 / (1.0 - ratio**2 + 1j * ratio / quality))
            at_1k = 1.0 - (1000.0 / resonance_hz) ** 2 + 1j * 1000.0 / resonance_hz / quality
            power = 2.0 * abs(at_1k) ** 2 * 10.0 ** (-peaky.passband_db / 10.0)
            half = 1.0 - 0.5 / quality**2
            corner_hz = resonance_hz * math.sqrt(half + math.sqrt(half**2 + power - 1.0))
            assert peaky.passband_high_hz is not None
            self.assertAlmostEqual(peaky.passband_high_hz / corner_hz, 1.0, delta=0.01, msg=str(resonance_hz))

    def test_frequencies_drawn_are_the_audible_ones(self) -> None:
        drawn = found(low_pass(1000.0)).frequencies_hz
        self.assertEqual((drawn[0], drawn[-1], len(drawn)), (20.0, 20_000.0, 31))


if __name__ == "__main__":
    unittest.main()
