"""Left on hot, right on cold: the centre that is left, in closed form.

With equal loads the receiver takes a (L - R). For a centre signal, L = R, what is left comes from each
imperfection alone (common-mode rejection: IEC 60268-3; Whitlock, J. Audio Eng. Soc. 43(6), 1995).
"""

import math
import unittest

from ruvak.core.analyse import analyse
from ruvak.core.results.records import Sum
from tests.support.rigs import receiver_part, source_part, stated_rig


def centre_of(**changes: object) -> Sum:
    made = analyse(stated_rig(**changes)).runs[0].result.inputs[0].sum  # type: ignore[arg-type]
    assert made is not None
    return made


class CentreThatIsLeft(unittest.TestCase):
    def test_perfect_parts_leave_nothing(self) -> None:
        left = centre_of()
        self.assertEqual(left.centre_ideal_db, -130.0)
        self.assertAlmostEqual(left.sides_db, 20 * math.log10(2), places=4)

    def test_channel_mismatch_alone(self) -> None:
        # Left +0.1 dB, right -0.1 dB: (10^(0.1/20) - 10^(-0.1/20)) / 10^(0.1/20) = 1 - 10^(-0.2/20).
        left = centre_of(source=source_part(channel_match_db=0.2))
        self.assertAlmostEqual(left.centre_db, 20 * math.log10(1 - 10 ** (-0.2 / 20)), places=3)
        self.assertAlmostEqual(left.centre_db, -32.86, places=2)

    def test_receiver_rejection_alone(self) -> None:
        # With r = 10^(-rejection/20): left arrives as 1 + r/2, right as -1 + r/2; r is left of their sum.
        for rejection_db in (40.0, 50.0, 60.0):
            left = centre_of(receiver=receiver_part(rejection_db=rejection_db))
            r = 10 ** (-rejection_db / 20)
            self.assertAlmostEqual(left.centre_db, 20 * math.log10(r / (1 + r / 2)), places=3)

    def test_unequal_source_legs_divide_differently_into_the_input(self) -> None:
        # 105 and 95 ohm into 10 kohm each: 10000/10105 - 10000/10095, against 10000/10095.
        left = centre_of(source=source_part(z_mismatch=0.1))
        expected = abs(10_000 / 10_105 - 10_000 / 10_095) / (10_000 / 10_095)
        self.assertAlmostEqual(left.centre_db, 20 * math.log10(expected), places=3)

    def test_unequal_input_legs(self) -> None:
        # 100 ohm into 10.1 and 9.9 kohm.
        left = centre_of(receiver=receiver_part(z_common_mismatch=0.02))
        hot, cold = 10_100 / 10_200, 9_900 / 10_000
        self.assertAlmostEqual(left.centre_db, 20 * math.log10((hot - cold) / hot), places=3)

    def test_unknown_signs_add_as_powers_and_at_worst_as_magnitudes(self) -> None:
        spread = {"likely": 0.2, "worst": 0.5}
        rejection = {"likely": 50.0, "worst": 40.0}
        left = centre_of(source=source_part(channel_match_db=spread), receiver=receiver_part(rejection_db=rejection))
        match, match_worst = 10 ** (0.2 / 20) - 1, 10 ** (0.5 / 20) - 1
        self.assertAlmostEqual(left.centre_db, 20 * math.log10(math.hypot(match, 10 ** (-50 / 20))), places=2)
        self.assertAlmostEqual(left.centre_worst_db, 20 * math.log10(match_worst + 10 ** (-40 / 20)), places=2)

    def test_about_30_db_is_real(self) -> None:
        # Common practice: a cancellation between two channels of one device is some 30 dB deep, never 60.
        likely, worst = {"likely": 0.2, "worst": 0.5}, {"likely": 50.0, "worst": 40.0}
        left = centre_of(source=source_part(channel_match_db=likely), receiver=receiver_part(rejection_db=worst))
        self.assertTrue(-36 < left.centre_db < -28, left.centre_db)


class SumsThatWork(unittest.TestCase):
    RESISTORS = ({"type": "resistor", "a": "in.T", "b": "out1.2", "ohm": 1000},
                 {"type": "resistor", "a": "in.R", "b": "out1.2", "ohm": 1000})  # fmt: skip
    RETURN = (("in.S", "out1.3"), ("in.S", "out1.1"))

    def test_resistive_sum_in_closed_form(self) -> None:
        # Two sources of 100 + 1000 ohm onto 10 kohm: each side alone sees the other as a load.
        rig = stated_rig(wires=list(self.RETURN), elements=list(self.RESISTORS))
        one = analyse(rig).runs[0].result.inputs[0]
        load = 1 / (1 / 10_000 + 1 / 1100)
        expected_db = 20 * math.log10(load / (load + 1100))
        for channel in one.channels:
            self.assertAlmostEqual(channel.gain_db, expected_db, places=3)
            self.assertTrue(channel.in_phase)
        assert one.sum is not None
        self.assertAlmostEqual(one.sum.centre_db, 20 * math.log10(2), places=4)
        self.assertEqual(one.balance.verdict, "unbalanced")

    def test_what_differs_between_the_sides_is_left_by_the_channels_mismatch_alone(self) -> None:
        spread = {"likely": 0.2, "worst": 0.5}
        source = source_part(channel_match_db=spread)
        rig = stated_rig(wires=list(self.RETURN), elements=list(self.RESISTORS), source=source)
        one = analyse(rig).runs[0].result.inputs[0]
        (levels,) = (level for level in one.levels if level.active)
        # One side is 0.2 dB louder: the difference is 10^(0.2/20) - 1 of one side.
        expected_db = one.channels[0].gain_db + 20 * math.log10(10 ** (0.2 / 20) - 1)
        nominal_dbu = levels.arriving_dbu - (one.channels[0].gain_db + 20 * math.log10(2))
        self.assertAlmostEqual(levels.sides_dbu - nominal_dbu, expected_db, delta=0.1)

    def test_one_side_alone_brings_the_centre_at_its_own_level(self) -> None:
        one = analyse(stated_rig(wires=[("in.T", "out1.2"), *self.RETURN])).runs[0].result.inputs[0]
        assert one.sum is not None
        self.assertAlmostEqual(one.sum.centre_db, 0.0, places=3)
        self.assertAlmostEqual(one.channels[0].gain_db, 20 * math.log10(10_000 / 10_100), places=3)
        self.assertIsNone(one.channels[1].in_phase)
