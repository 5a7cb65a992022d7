"""Figures as people write them."""

import unittest

from ruvak.core.units import FLOOR_DB, engineering, floored_db, ratio_db, ratio_from_db


class Units(unittest.TestCase):
    def test_nothing_is_infinitely_quiet(self) -> None:
        self.assertEqual(floored_db(0.0), FLOOR_DB)
        self.assertEqual(floored_db(1e-30), FLOOR_DB)
        self.assertAlmostEqual(floored_db(0.5), -6.0206, places=4)

    def test_ratios_there_and_back(self) -> None:
        for ratio in (1e-6, 0.5, 1.0, 3.0):
            self.assertAlmostEqual(ratio_from_db(ratio_db(ratio)), ratio, places=12)

    def test_prefixes(self) -> None:
        for value, unit, words in (
            (1000.0, "Ω", "1 kΩ"), (475.0, "Ω", "475 Ω"), (1e6, "Ω", "1 MΩ"), (0.01, "Ω", "10 mΩ"),
            (1e-7, "F", "100 nF"), (47e-12, "F", "47 pF"), (2.2e-6, "F", "2.2 \N{MICRO SIGN}F"),
        ):  # fmt: skip
            self.assertEqual(engineering(value, unit), words)
