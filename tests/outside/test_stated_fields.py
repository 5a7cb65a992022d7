"""What a rig can state since version 2 of its format, by hand: single contacts, capacitances, a known phase, a supply.

Ohm's and Kirchhoff's laws; phantom by IEC 61938 (48 V through 6.81 kohm a leg).
"""

import math
import unittest
from typing import Any

from ruvak.core.analyse import analyse
from ruvak.core.rig.rig import Rig
from tests.support.earths import (
    class_1,
    earthed,
    hum_v,
    outlets,
    quiet,
    ts_cable,
    ts_input,
    ts_source,
    xlr_cable,
    xlr_input,
    xlr_source,
)

JOINS = [[("source.out1", "lead.in"), ("lead.out", "desk.in1")]]
XLR = [[("source.out", "lead.in"), ("lead.out", "desk.in")]]
AT = {"source": "here", "desk": "there"}
OMEGA = 2 * math.pi * 50


class Contacts(unittest.TestCase):
    def rig(self, lead: dict[str, Any], gear: dict[str, Any] | None = None) -> Rig:
        parts = [ts_source("source", 100, class_1(0.1)), ts_input("desk", 1e6, class_1(0.1)), ts_cable()]
        leads = {"lead": {"part": "lead", "length_m": 20.0, **lead}}
        return earthed(parts, JOINS, leads, AT, outlets(here=0.0, there=0.06), gear=gear or {})

    def test_a_bad_sleeve_alone_is_in_the_ground_loop(self) -> None:
        # 1 ohm of screen becomes 1.5: 60 mV over 0.4 + 1.5 ohm, along the lead with its sleeve.
        self.assertAlmostEqual(hum_v(self.rig({})), 0.06 / 1.4, delta=1e-5)
        self.assertAlmostEqual(
            hum_v(self.rig({"contacts": [{"at": "in.S", "ohm": 0.5}]})), 0.06 * 1.5 / 1.9, delta=2e-5
        )

    def test_a_bad_tip_alone_is_not(self) -> None:
        self.assertAlmostEqual(hum_v(self.rig({"contacts": [{"at": "out.T", "ohm": 0.5}]})), 0.06 / 1.4, delta=1e-5)

    def test_either_side_can_state_it_and_the_worse_counts(self) -> None:
        gear = {"source": {"contacts": [{"at": "out1.S", "ohm": 0.5}]}}
        self.assertAlmostEqual(hum_v(self.rig({}, gear)), 0.06 * 1.5 / 1.9, delta=2e-5)
        both = self.rig({"contacts": [{"at": "in.S", "ohm": 0.2}]}, gear)
        self.assertAlmostEqual(hum_v(both), 0.06 * 1.5 / 1.9, delta=2e-5)


class Capacitances(unittest.TestCase):
    def test_live_mains_beside_a_floating_case(self) -> None:
        # 230 V through 200 pF; 300 pF from that case to earth, 50 pF from the recorder's.
        parts = [
            ts_source("source", 1000, {"earthing": {"type": "floating"}}),
            ts_input("desk", 1e6, {"earthing": {"type": "floating"}}),
            ts_cable(),
        ]
        leads = {"lead": {"part": "lead", "length_m": 1.0}}
        rig = earthed(parts, JOINS, leads, gear={"source": {"mains_f": 200e-12, "earth_f": 300e-12}})
        case = next(one for one in analyse(rig).runs[0].result.case_voltages if one.gear == "source")
        load = 1j * OMEGA * (200e-12 + 300e-12 + 50e-12) + 1e-7
        self.assertAlmostEqual(case.likely_v, abs(1j * OMEGA * 200e-12 * 230 / load), delta=1e-3)

    def test_a_stated_capacitance_to_earth_counts_on_an_earthed_case_too_and_floats_nothing(self) -> None:
        parts = [ts_source("source", 100, class_1(0.1)), ts_input("desk", 1e6, class_1(0.1)), ts_cable()]
        leads = {"lead": {"part": "lead", "length_m": 1.0}}
        rig = earthed(parts, JOINS, leads, AT, outlets(here=0.0, there=0.0), gear={"source": {"earth_f": 1e-9}})
        self.assertEqual(analyse(rig).runs[0].result.floating, ())


class KnownPhase(unittest.TestCase):
    def rig(self, phase_deg: float | None, field_t: Any = 2e-6) -> Rig:
        """An earth voltage and a field drive the same loop, the screen of one lead."""
        parts = [ts_source("source", 100, class_1(0.1)), ts_input("desk", 1e6, class_1(0.1)), ts_cable()]
        leads = {"lead": {"part": "lead", "length_m": 20.0, "loop_width_m": 0.5}}
        venue = {"induced_phase_deg": phase_deg} if phase_deg is not None else {}
        disturbances = quiet(field_t=field_t)
        return earthed(parts, JOINS, leads, AT, outlets(here=0.0, there=0.005), disturbances, venue=venue)

    def test_they_add_by_their_phase_where_it_is_known_and_as_powers_where_not(self) -> None:
        # Each alone: 5 mV over 1.4 ohm of loop, 1 ohm of it the screen; 2 uT through 10 square metres.
        earth = 0.005 / 1.4
        induced = OMEGA * 2e-6 * 10.0
        # The emf lies along screen and core alike: what is left at the input is the current's drop along the screen.
        field = induced / 1.4
        self.assertAlmostEqual(hum_v(self.rig(None)), math.hypot(earth, field), delta=1e-6)
        for phase in (0.0, 60.0, 180.0):
            turned = math.radians(phase + 90.0)
            sizes = [abs(earth + sign * field * complex(math.cos(turned), math.sin(turned))) for sign in (1, -1)]
            self.assertLess(min(abs(hum_v(self.rig(phase)) - size) for size in sizes), 1e-6, phase)

    def test_what_is_only_assumed_keeps_its_own_phase(self) -> None:
        assumed = {"likely": 2e-6, "worst": 2e-5}
        self.assertAlmostEqual(hum_v(self.rig(60.0, assumed)), hum_v(self.rig(None, assumed)), delta=1e-9)


class Supply(unittest.TestCase):
    """A condenser microphone of 3 mA on a lead with one leg open."""

    def phantom(self, wiring: str, legs: int) -> tuple[float, float, float]:
        need = {"ampere": 0.003, "leg_ohm": 2200, "min_v": 1, "wiring": wiring}
        microphone = xlr_source("source", 50, {"earthing": {"type": "floating"}}, phantom=need)
        microphone["wires"] = [{"a": "out.1", "b": "chassis"}, {"a": "chassis", "b": "g"}]
        desk = xlr_input("desk", 5000, class_1(0.1))
        desk["inputs"][0]["phantom"] = {"volt": 48, "feed_ohm": 6810}
        lead = xlr_cable(core_ohm_per_m=0.01, screen_ohm_per_m=0.01)
        if legs == 1:
            lead["cables"][0]["conductors"].pop(1)
        leads = {"lead": {"part": "lead", "length_m": 10.0}}
        rig = earthed([microphone, desk, lead], XLR, leads, {"desk": "there"}, outlets(there=0.0))
        at = analyse(rig).runs[0].result.phantom[0]
        return at.volt, at.volt_low, at.volt_high

    def test_both_legs_whole_the_inside_makes_no_difference(self) -> None:
        for wiring in ("resistors", "centre-tap", "unknown"):
            for volt in self.phantom(wiring, 2):
                self.assertAlmostEqual(volt, 48 - 6810 * 0.0015, delta=0.01, msg=wiring)

    def test_with_a_leg_open_it_does(self) -> None:
        hot = 48 - 6810 * 0.003
        by_resistors = hot - 0.5 * 2200 * 0.003
        by_winding = hot - 0.5 * 50 * 0.003
        for wiring, expected in (
            ("resistors", (by_resistors, by_resistors, by_resistors)),
            ("centre-tap", (by_winding, by_winding, by_winding)),
            ("unknown", (by_resistors, by_resistors, by_winding)),
        ):
            for volt, wanted in zip(self.phantom(wiring, 1), expected, strict=True):
                self.assertAlmostEqual(volt, wanted, delta=0.01, msg=wiring)


if __name__ == "__main__":
    unittest.main()
