"""What meters would read, by hand: clamp currents by Ohm's law, a floating case by Thevenin's theorem.

Touch current: the body network of IEC 60990, figure 3 (values from memory), against ngspice.
"""

import math
import unittest

from ruvak.core.analyse import analyse
from ruvak.core.results.hum_records import LeadCurrent
from ruvak.core.rig.rig import Rig
from tests.support.earths import (
    class_1,
    earthed,
    outlets,
    quiet,
    ts_cable,
    ts_input,
    ts_source,
    xlr_cable,
    xlr_input,
    xlr_source,
)
from tests.support.spice import by_hand

AT = {"source": "here", "desk": "there"}
OMEGA = 2.0 * math.pi * 50.0


def clamp(rig: Rig) -> LeadCurrent:
    """Round the first lead of the first run."""
    return analyse(rig).runs[0].result.lead_currents[0]


class Clamp(unittest.TestCase):
    def test_the_current_round_a_loop_of_known_resistance(self) -> None:
        # 60 mV over 0.1 + 0.1 of cords, 0.1 + 0.1 of outlets and 1 ohm of screen; the cores carry next to nothing.
        parts = [xlr_source("source", 50, class_1(0.1)), xlr_input("desk", 1e6, class_1(0.1)), xlr_cable()]
        leads = {"lead": {"part": "lead", "length_m": 20.0}}
        rig = earthed(
            parts, [[("source.out", "lead.in"), ("lead.out", "desk.in")]], leads, AT, outlets(here=0.0, there=0.06)
        )
        reading = clamp(rig)
        self.assertEqual(reading.item, "lead")
        self.assertAlmostEqual(reading.likely_a, 0.06 / 1.4, delta=1e-5)

    def test_an_unbalanced_lead_reads_what_core_and_screen_carry_together(self) -> None:
        # The core's 0.1 mA is part of it: 60 mV over the lead in parallel with core, 100 and 500 ohm.
        parts = [ts_source("source", 100, class_1(0.1)), ts_input("desk", 500, class_1(0.1)), ts_cable()]
        leads = {"lead": {"part": "lead", "length_m": 20.0}}
        rig = earthed(
            parts, [[("source.out1", "lead.in"), ("lead.out", "desk.in1")]], leads, AT, outlets(here=0.0, there=0.06)
        )
        lead_ohm = 1.0 / (1.0 / 1.0 + 1.0 / (100 + 2 + 500))
        self.assertAlmostEqual(clamp(rig).likely_a, 0.06 / (0.4 + lead_ohm), delta=1e-7)

    def test_a_reading_is_total_rms(self) -> None:
        lines = {"lines": [{"h": 1, "v": 0.03}, {"h": 3, "v": 0.04}]}
        parts = [xlr_source("source", 50, class_1(0.1)), xlr_input("desk", 1e6, class_1(0.1)), xlr_cable()]
        leads = {"lead": {"part": "lead", "length_m": 20.0}}
        joins = [[("source.out", "lead.in"), ("lead.out", "desk.in")]]
        reading = clamp(earthed(parts, joins, leads, AT, outlets(here=0.0, there=lines)))
        self.assertAlmostEqual(reading.likely_a, 0.05 / 1.4, delta=1e-5)

    def test_a_lead_of_several_sections_reads_once(self) -> None:
        parts = [xlr_source("source", 50, class_1(0.1)), xlr_input("desk", 1e6, class_1(0.1)), xlr_cable()]
        leads = {"lead": {"part": "lead", "length_m": 250.0}}
        joins = [[("source.out", "lead.in"), ("lead.out", "desk.in")]]
        reading = clamp(earthed(parts, joins, leads, AT, outlets(here=0.0, there=0.06)))
        self.assertAlmostEqual(reading.likely_a, 0.06 / (0.4 + 12.5), delta=1e-6)


class Cases(unittest.TestCase):
    """A two-pin device by itself: half of 230 V through its interference capacitor, 50 pF to the room."""

    def reading(self, touch_a: float) -> tuple[float, float]:
        keys = ts_source("source", 1000, {"earthing": {"type": "class-2", "touch_a": touch_a}})
        recorder = ts_input("desk", 1e6, {"earthing": {"type": "floating"}})
        leads = {"lead": {"part": "lead", "length_m": 1.0}}
        joins = [[("source.out1", "lead.in"), ("lead.out", "desk.in1")]]
        rig = earthed([keys, recorder, ts_cable()], joins, leads, disturbances=quiet(touch_a=touch_a))
        case = next(one for one in analyse(rig).runs[0].result.case_voltages if one.gear == "source")
        return case.likely_v, case.touch_likely_a

    def test_a_voltmeter_loads_what_it_measures(self) -> None:
        # Keys and recorder are one island with one stray capacitance each: two devices, 100 pF.
        for touch_a in (20e-6, 100e-6, 250e-6):
            feed_f = touch_a / (OMEGA * 115.0)
            source = 1j * OMEGA * feed_f * 115.0
            load = 1j * OMEGA * (feed_f + 100e-12) + 1.0 / 10e6
            self.assertAlmostEqual(self.reading(touch_a)[0], abs(source / load), delta=1e-4)

    def test_touch_current_is_the_stated_one_as_the_body_network_lets_it_through(self) -> None:
        # 20 mA is no device's: the feed is so large there that the body's own resistance counts.
        for touch_a in (20e-6, 100e-6, 250e-6, 20e-3):
            feed_f = touch_a / (OMEGA * 115.0)
            got = by_hand(
                f"""
                V1 y 0 0 AC 115
                C1 y case {feed_f!r}
                C2 case 0 100p
                R1 case skin 1500
                C3 case skin 0.22u
                R2 skin 0 500
                """,
                50.0,
            )
            amperes = self.reading(touch_a)[1]
            self.assertAlmostEqual(amperes / (abs(got["v(skin)"]) / 500.0), 1.0, delta=1e-6)
            if touch_a < 1e-3:
                self.assertAlmostEqual(amperes, touch_a, delta=0.01 * touch_a)

    def test_an_earthed_case_is_not_among_them(self) -> None:
        keys = ts_source("source", 1000, {"earthing": {"type": "class-2", "touch_a": 1e-4}})
        joins = [[("source.out1", "lead.in"), ("lead.out", "desk.in1")]]
        leads = {"lead": {"part": "lead", "length_m": 1.0}}
        rig = earthed([keys, ts_input("desk", 1e6, class_1(0.1)), ts_cable()], joins, leads)
        self.assertEqual(analyse(rig).runs[0].result.case_voltages, ())


if __name__ == "__main__":
    unittest.main()
