"""Decibel references against published figures."""

import unittest

from ruvak.core import units


class Decibels(unittest.TestCase):
    def test_zero_dbu_is_a_milliwatt_in_600_ohm(self) -> None:
        # ITU-R BS.645 and IEC 60268-2: 0 dB(u) is 0.775 V rms, the voltage of 1 mW in 600 ohm.
        self.assertAlmostEqual(units.volts_from_dbu(0.0), 0.7746, places=4)
        self.assertAlmostEqual(units.volts_from_dbu(0.0) ** 2 / 600.0, 1e-3, places=12)

    def test_plus_four_dbu_is_1_228_volts(self) -> None:
        # Handbook figure for professional line level (Ballou, Handbook for Sound Engineers, level tables).
        self.assertAlmostEqual(units.volts_from_dbu(4.0), 1.228, places=3)

    def test_dbv_and_dbu_lie_2_218_db_apart(self) -> None:
        # 20 log10(1 / 0.7746); same handbook.
        self.assertAlmostEqual(units.dbu_from_dbv(0.0), 2.218, places=3)

    def test_consumer_and_professional_level_differ_by_11_78_db(self) -> None:
        # -10 dBV against +4 dBu; same handbook, usually rounded to 11.8 dB.
        self.assertAlmostEqual(4.0 - units.dbu_from_dbv(-10.0), 11.78, places=2)

    def test_doubling_a_voltage_adds_6_02_db(self) -> None:
        self.assertAlmostEqual(units.ratio_db(2.0), 6.0206, places=4)

    def test_there_and_back(self) -> None:
        for level in (-130.0, -10.0, 0.0, 4.0, 24.0):
            self.assertAlmostEqual(units.dbu_from_volts(units.volts_from_dbu(level)), level, places=9)
