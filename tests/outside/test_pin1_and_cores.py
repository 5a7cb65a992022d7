"""Screen contacts of outputs, a transformer's flux, a screen's holes: each against its one-line law."""

import math
import unittest
from typing import Any

from ruvak.core.analyse import analyse
from ruvak.core.errors import RigFault
from ruvak.core.results.records import CoreResult
from ruvak.core.rig.rig import Rig
from tests.support.earths import (
    class_1,
    earthed,
    hum_of,
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
from tests.support.spice import by_hand

XLR = [[("source.out", "lead.in"), ("lead.out", "desk.in")]]
AT = {"source": "here", "desk": "there"}


def balanced(ohm: Any, **more: Any) -> Rig:
    """0.12 V over 1 ohm of screen and two outlets of 0.1 ohm: 100 mA."""
    source = xlr_source("source", 50, class_1(1e-9), screen="out.1", pin1_ohm=ohm)
    parts = [source, xlr_input("desk", 1e6, class_1(1e-9), **more), xlr_cable()]
    leads = {"lead": {"part": "lead", "length_m": 20.0}}
    return earthed(parts, XLR, leads, AT, outlets(here=0.0, there=0.12))


class ScreenContactOfAnOutput(unittest.TestCase):
    """The pin 1 problem (Muncy, J. Audio Eng. Soc. 43(6), 1995) at the sending end: Z_t I in series with hot."""

    def test_current_times_transfer_impedance(self) -> None:
        # 0.12 V over 1.2 ohm: 100 mA; times 30 mohm 3 mV, -48.2 dBu.
        rig = balanced(0.03)
        self.assertAlmostEqual(hum_of(rig).likely_dbu, -48.2, delta=0.05)
        self.assertAlmostEqual(hum_v(rig), 0.003, delta=0.003 * 0.002)

    def test_of_unknown_sign_it_widens_likely_and_worst(self) -> None:
        hum = hum_of(balanced({"likely": 0.01, "worst": 0.1}))
        self.assertAlmostEqual(hum.likely_dbu, 20 * math.log10(0.001 / math.sqrt(0.6)), delta=0.05)
        self.assertAlmostEqual(hum.worst_dbu, 20 * math.log10(0.01 / math.sqrt(0.6)), delta=0.05)

    def test_bonded_to_the_chassis_it_adds_nothing(self) -> None:
        self.assertLess(hum_of(balanced(0)).likely_dbu, -120)

    def test_the_rejection_at_the_far_end_does_not_help(self) -> None:
        for rejection_db in (80, 100):
            rig = balanced(0.03, rejection_db=rejection_db)
            self.assertAlmostEqual(hum_of(rig).likely_dbu, -48.2, delta=0.1)

    def test_unbalanced_output_against_a_netlist_by_hand(self) -> None:
        source = ts_source("source", 600, class_1(0.1))
        source["outputs"][0]["pin1_ohm"] = 0.05
        rig = earthed(
            [source, ts_input("desk", 10_000, class_1(0.1)), ts_cable()],
            [[("source.out1", "lead.in"), ("lead.out", "desk.in1")]],
            {"lead": {"part": "lead", "length_m": 20.0}},
            AT,
            outlets(here=0.0, there=0.06),
        )
        # Current into the contact flows from the lead's screen to ga; the emf lifts hot against ga.
        elements = """
            V1 e 0 0 AC 0.06
            R1 e there 0.1
            R2 there gb 0.1
            R3 0 here 0.1
            R4 here ga 0.1
            R5 gb x 1.0
            V2 x ga 0
            H1 s ga V2 0.05
            R6 s hot 602
            R7 hot gb 10k
        """
        got = by_hand(elements, 50.0)
        self.assertAlmostEqual(hum_v(rig), abs(got["v(hot)"] - got["v(gb)"]), delta=1e-8)

    def test_a_balanced_output_has_to_name_its_screen_contact(self) -> None:
        source = xlr_source("source", 50, class_1(1e-9), pin1_ohm=0.03)
        with self.assertRaises(RigFault) as caught:
            earthed([source, xlr_input("desk", 1e6, class_1(1e-9)), xlr_cable()], XLR, {}, AT)
        self.assertIn("screen contact", str(caught.exception))


class HolesInAScreen(unittest.TestCase):
    """A current source of C w V into the cores' impedance to ground: Kirchhoff."""

    def rig(self, coverage: float) -> Rig:
        return earthed(
            [
                ts_source("source", 10_000, {"earthing": {"type": "floating"}}),
                ts_input("desk", 10_000, class_1(1e-9)),
                ts_cable(screen_coverage=coverage),
            ],
            [[("source.out1", "lead.in"), ("lead.out", "desk.in1")]],
            {"lead": {"part": "lead", "length_m": 10.0}},
            AT,
            outlets(here=0.0, there=0.0),
            quiet(electric_f_per_m=5e-12),
            venue={"mains_v": 230},
        )

    def test_what_gets_through_goes_to_the_core(self) -> None:
        ampere = 0.01 * 50e-12 * 2 * math.pi * 50 * 230
        # Half of it at either end, 5 kohm to ground.
        self.assertAlmostEqual(hum_v(self.rig(0.99)), ampere * 5000, delta=ampere * 5000 * 0.01)

    def test_twice_the_holes_twice_the_hum(self) -> None:
        self.assertAlmostEqual(hum_v(self.rig(0.98)) / hum_v(self.rig(0.99)), 2.0, places=2)

    def test_a_share_is_between_nought_and_one(self) -> None:
        with self.assertRaises(RigFault) as caught:
            self.rig(1.2)
        self.assertIn("between 0 and 1", str(caught.exception))


class Saturation(unittest.TestCase):
    """Flux is voltage over frequency (Faraday): the level a core bears grows by 6 dB an octave."""

    def core(self, saturates_hz: float) -> CoreResult:
        coil = {
            "type": "transformer",
            "primary_a": "in.T",
            "primary_b": "in.S",
            "secondary_a": "out.T",
            "secondary_b": "out.S",
            "turns_ratio": 1,
            "primary_ohm": 1e-6,
            "secondary_ohm": 1e-6,
            "magnetising_h": 1e6,
            "leakage_h": 0,
            "winding_f": 0,
            "saturates_dbu": 6,
            "saturates_hz": saturates_hz,
        }
        plugs = [{"id": side, "label": side, "form": "ts635-plug", "side": side} for side in ("in", "out")]
        box = {"id": "box", "name": "box", "kind": "box", "connectors": plugs, "elements": [coil]}
        rig = earthed(
            [ts_source("source", 600, class_1(1e-9)), ts_input("desk", 600, class_1(1e-9)), box],
            [[("source.out1", "box.in"), ("box.out", "desk.in1")]],
            {"box": {"part": "box"}},
            AT,
            outlets(here=0.0, there=0.0),
        )
        (found,) = analyse(rig).runs[0].result.cores
        return found

    def test_peaks_over_the_primary(self) -> None:
        # Peaks of +20 dBu of emf, halved by 600 into 600 ohm.
        self.assertAlmostEqual(self.core(20).peak_dbu, 20 - 6.02, places=2)

    def test_what_it_bears_where_it_is_stated_and_an_octave_higher(self) -> None:
        stated = self.core(20)
        self.assertEqual((stated.at_hz, stated.saturates_dbu), (20.0, 6.0))
        self.assertAlmostEqual(self.core(10).saturates_dbu, 6 + 6.02, places=2)
