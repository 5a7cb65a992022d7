"""The library's cable resistances against copper's standard resistivity."""

import unittest

from ruvak.core.parts.library import library

RESISTIVITY_OHM_M = 1 / 58.0e6
"""Annealed copper at 20 degrees: 1/58 ohm mm2/m (IEC 60028)."""


class Copper(unittest.TestCase):
    def test_cores_have_the_resistance_of_their_cross_section(self) -> None:
        for part, square_mm in (("mic-lead", 0.22), ("lead-trs35-trs35", 0.12), ("lead-trs35-two-xlr", 0.12)):
            for cable in library()[part].cables:
                expected = RESISTIVITY_OHM_M / (square_mm * 1e-6)
                self.assertAlmostEqual(cable.core_ohm_per_m.value / expected, 1.0, delta=0.02, msg=part)

    def test_24_gauge_lies_where_the_wire_table_has_it(self) -> None:
        # ASTM B258: 24 AWG is 0.5106 mm across, 0.2047 mm2, 84.2 ohm/km of copper at 20 degrees.
        self.assertAlmostEqual(RESISTIVITY_OHM_M / 0.2047e-6 * 1000.0, 84.2, delta=0.1)
        # A 0.22 mm2 microphone core is a little thicker than that.
        self.assertLess(library()["mic-lead"].cables[0].core_ohm_per_m.value, 0.0842)
