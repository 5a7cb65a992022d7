"""Phantom supply (IEC 61938: 48 V, 6.81 kohm a leg): by Ohm's law, and a netlist by hand in ngspice."""

import unittest
from typing import Any

from ruvak.core.analyse import analyse
from ruvak.core.results.records import PhantomAt
from ruvak.core.rig.rig import Rig
from tests.support.earths import class_1, earthed, ts_cable, ts_input, ts_source, xlr_cable, xlr_input, xlr_source
from tests.support.spice import by_hand

FLOATING = {"earthing": {"type": "floating"}}
JOINS = [[("source.out", "lead.in"), ("lead.out", "desk.in")]]


def desk(**phantom: Any) -> dict[str, Any]:
    part = xlr_input("desk", 1e9, class_1(0.1), z_differential_ohm=1e9)
    part["inputs"][0]["phantom"] = phantom
    return part


def microphone(milliampere: float) -> dict[str, Any]:
    return xlr_source("source", 75, FLOATING, topology="impedance", phantom={"ampere": milliampere / 1000})


def rig_of(source: dict[str, Any], lead: dict[str, Any], length_m: float = 10.0, **phantom: Any) -> Rig:
    return earthed([source, desk(**phantom), lead], JOINS, {"lead": {"part": "lead", "length_m": length_m}})


def reached(rig: Rig) -> PhantomAt:
    return analyse(rig).runs[0].result.phantom[0]


class Phantom(unittest.TestCase):
    def test_three_milliamperes_leave_37_8_volts(self) -> None:
        # 48 - 3 mA x 6810 / 2
        got = reached(rig_of(microphone(3), xlr_cable(core_ohm_per_m=1e-6, screen_ohm_per_m=1e-6)))
        self.assertAlmostEqual(got.volt, 48 - 0.003 * 6810 / 2, places=3)
        self.assertAlmostEqual(got.volt, 37.8, delta=0.05)
        self.assertAlmostEqual(got.across_v, 0.0, places=4)

    def test_a_long_thin_lead_takes_its_share(self) -> None:
        # 100 m: 10 ohm a core, two in parallel, and 5 of screen carry 10 mA.
        got = reached(rig_of(microphone(10), xlr_cable(), 100.0))
        self.assertAlmostEqual(got.volt, 48 - 0.01 * (6810 / 2 + 10 / 2 + 5), places=2)

    def test_a_dynamic_microphone_sees_the_same_on_both_legs_and_carries_nothing(self) -> None:
        got = reached(rig_of(xlr_source("source", 100, FLOATING, topology="floating"), xlr_cable()))
        self.assertIsNone(got.wanted_a)
        self.assertAlmostEqual(got.volt, 48.0, places=3)
        self.assertAlmostEqual(got.across_v, 0.0, places=4)
        self.assertLess(got.leg_a, 1e-6)

    def test_a_lead_with_an_open_core_puts_the_whole_current_into_one_leg(self) -> None:
        broken = xlr_cable(core_ohm_per_m=1e-6, screen_ohm_per_m=1e-6)
        broken["cables"][0]["conductors"][1] = {"a": "in.3", "kind": "core"}
        got = reached(rig_of(microphone(2), broken))
        # 2 mA through 6810 ohm to hot; cold hangs 2 mA x 2200 ohm below it.
        hot_v, cold_v = 48 - 0.002 * 6810, 48 - 0.002 * (6810 + 2200)
        self.assertAlmostEqual(got.across_v, hot_v - cold_v, places=2)
        self.assertAlmostEqual(got.volt, (hot_v + cold_v) / 2, places=2)

    def test_a_lifted_screen_delivers_none(self) -> None:
        lifted = reached(rig_of(microphone(3), xlr_cable(("in.1", ""))))
        bonded = reached(rig_of(microphone(3), xlr_cable()))
        self.assertGreater(bonded.volt, 37.0)
        self.assertEqual(lifted.volt, 0.0)

    def test_an_unbalanced_output_takes_direct_current_into_its_own_impedance(self) -> None:
        headphones = ts_source("source", 10, {"earthing": {"type": "class-1", "cord_ohm": 0.1}})
        headphones["connectors"][0]["form"] = "trs635-socket"
        output = headphones["outputs"][0]
        output["channels"] = [{"id": "L", "hot": "out1.T"}, {"id": "R", "hot": "out1.R"}]
        straight = xlr_cable()
        straight["connectors"][0]["form"] = "trs635-plug"
        straight["cables"][0]["conductors"] = [
            {"a": "in.T", "b": "out.2", "kind": "core"},
            {"a": "in.R", "b": "out.3", "kind": "core"},
            {"a": "in.S", "b": "out.1", "kind": "screen"},
        ]
        rig = earthed(
            [headphones, desk(), straight],
            [[("source.out1", "lead.in"), ("lead.out", "desk.in")]],
            {"lead": {"part": "lead", "length_m": 1.0}},
        )
        # 48 V through 6810 + 10 ohm: 7 mA in each channel.
        for one in analyse(rig).runs[0].result.phantom:
            self.assertAlmostEqual(one.leg_a, 48 / 6820, places=5)

    def test_switched_off_it_is_nowhere(self) -> None:
        part = desk(setting="phantom")
        part["settings"] = [{"type": "switch", "id": "phantom", "label": "Phantom", "default": False}]
        rig = earthed([microphone(3), part, xlr_cable()], JOINS, {"lead": {"part": "lead", "length_m": 5.0}})
        self.assertEqual(reached(rig).volt, 0.0)


class ByHand(unittest.TestCase):
    def test_a_hungry_microphone_on_a_thin_lead_in_ngspice(self) -> None:
        rig = rig_of(microphone(8), xlr_cable(core_ohm_per_m=0.5), 60.0)
        elements = """
            V1 supply 0 DC 48 AC 48
            R1 supply hot 6810
            R2 supply cold 6810
            R3 hot mh 30
            R4 cold mc 30
            R5 mh inner 2200
            R6 mc inner 2200
            I1 inner mg DC 8m AC 8m
            R7 mg 0 3
        """
        got = by_hand(elements, 1e-3)
        middle = (got["v(mh)"] + got["v(mc)"]) / 2 - got["v(mg)"]
        self.assertAlmostEqual(reached(rig).volt, middle.real, places=3)


if __name__ == "__main__":
    unittest.main()


class PlugInPower(unittest.TestCase):
    """A few volts through one resistor to the hot of an unbalanced microphone input: common practice."""

    def rig(self, fed: bool, milliampere: float | None = 0.3) -> Rig:
        floating: dict[str, Any] = {"earthing": {"type": "floating"}}
        source = ts_source("source", 2200, floating)
        if milliampere is not None:
            need = {"ampere": milliampere / 1000, "leg_ohm": 100, "min_v": 1.0}
            source["outputs"][0]["phantom"] = need
        receiver = ts_input("camera", 10_000, floating)
        if fed:
            receiver["inputs"][0]["phantom"] = {"volt": 3.0, "feed_ohm": 2200}
        return earthed(
            [source, receiver, ts_cable(core_ohm_per_m=1e-6, screen_ohm_per_m=1e-6)],
            [[("source.out1", "lead1.in"), ("lead1.out", "camera.in1")]],
            {"lead1": {"part": "lead", "length_m": 1.0}},
        )

    def test_a_capsule_takes_its_current_through_the_resistor(self) -> None:
        got = reached(self.rig(fed=True))
        self.assertAlmostEqual(got.volt, 3.0 - 0.0003 * 2200, places=3)
        self.assertNotIn("phantom_missing", {one.code for one in analyse(self.rig(fed=True)).runs[0].findings})

    def test_without_it_the_capsule_is_silent(self) -> None:
        self.assertEqual(reached(self.rig(fed=False)).volt, 0.0)
        self.assertIn("phantom_missing", {one.code for one in analyse(self.rig(fed=False)).runs[0].findings})

    def test_a_line_output_does_not_mind_a_few_volts(self) -> None:
        found = {one.code for one in analyse(self.rig(fed=True, milliampere=None)).runs[0].findings}
        self.assertNotIn("phantom_harms", found)
