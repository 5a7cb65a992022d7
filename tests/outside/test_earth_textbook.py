"""Hum in situations whose answer is one line of Ohm's law, and the figures the trade quotes for them."""

import math
import unittest

from tests.support.earths import (
    class_1,
    earthed,
    hum_of,
    outlets,
    quiet,
    ts_cable,
    ts_input,
    ts_source,
    xlr_cable,
    xlr_input,
    xlr_source,
)

FLOATING = {"earthing": {"type": "floating"}}
TWO = outlets(here=0.0, there=0.06)


def dbu(volts: float) -> float:
    return 20 * math.log10(volts / math.sqrt(0.6))


class TwoEarths(unittest.TestCase):
    """60 mV between two outlets, 0.1 ohm in each; leads of 20 m with 1 ohm of screen."""

    PARTS = [ts_source("keys", 1000, class_1(1e-9), 2), ts_input("desk", 1e9, class_1(1e-9), 2), ts_cable()]  # noqa: RUF012
    BOTH = [  # noqa: RUF012
        [("keys.out1", "left.in"), ("left.out", "desk.in1")],
        [("keys.out2", "right.in"), ("right.out", "desk.in2")],
    ]
    LEADS = {"left": {"part": "lead", "length_m": 20.0}, "right": {"part": "lead", "length_m": 20.0}}  # noqa: RUF012
    AT = {"keys": "here", "desk": "there"}  # noqa: RUF012

    def test_two_leads_share_the_loop_and_one_alone_gets_all_of_it(self) -> None:
        # 0.5 ohm of 0.7; 1 ohm of 1.2. One network, not runs side by side.
        both = earthed(self.PARTS, self.BOTH, self.LEADS, self.AT, TWO)
        for run in (0, 1):
            self.assertAlmostEqual(hum_of(both, run).likely_dbu, dbu(0.06 * 0.5 / 0.7), places=3)
            self.assertAlmostEqual(hum_of(both, run).likely_dbu, -25.1, delta=0.05)
        one = earthed(self.PARTS, self.BOTH[1:], {"right": self.LEADS["right"]}, self.AT, TWO)
        self.assertAlmostEqual(hum_of(one).likely_dbu, dbu(0.06 * 1.0 / 1.2), places=3)
        self.assertAlmostEqual(hum_of(one).likely_dbu, -23.8, delta=0.05)

    def test_isolating_the_left_raises_the_right(self) -> None:
        isolator = {
            "id": "isolator",
            "name": "isolator",
            "kind": "box",
            "connectors": [
                {"id": "in", "label": "in", "form": "ts635-socket", "side": "in"},
                {"id": "out", "label": "out", "form": "ts635-plug", "side": "out"},
            ],
            "elements": [
                {
                    "type": "transformer",
                    "primary_a": "in.T",
                    "primary_b": "in.S",
                    "secondary_a": "out.T",
                    "secondary_b": "out.S",
                    "turns_ratio": 1,
                    "primary_ohm": 50,
                    "secondary_ohm": 50,
                    "magnetising_h": 30,
                    "leakage_h": 0.005,
                    "winding_f": 1.5e-10,
                }
            ],
        }
        runs = [[("keys.out1", "left.in"), ("left.out", "iso.in"), ("iso.out", "desk.in1")], self.BOTH[1]]
        rig = earthed([*self.PARTS, isolator], runs, {**self.LEADS, "iso": {"part": "isolator"}}, self.AT, TWO)
        self.assertAlmostEqual(hum_of(rig, 1).likely_dbu, dbu(0.06 * 1.0 / 1.2), places=2)
        # Half of 150 pF at either end passes 60 mV x w C x 1 kohm and less: inaudible.
        self.assertLess(hum_of(rig, 0).likely_dbu, -80)

    def test_more_earth_voltage_scales_its_share_exactly(self) -> None:
        once = hum_of(earthed(self.PARTS, self.BOTH, self.LEADS, self.AT, TWO)).likely_dbu
        twice = outlets(here=0.0, there=0.12)
        self.assertAlmostEqual(
            hum_of(earthed(self.PARTS, self.BOTH, self.LEADS, self.AT, twice)).likely_dbu, once + 20 * math.log10(2)
        )

    def test_a_reading_is_total_rms_and_lines_stand_as_entered(self) -> None:
        shape = {"lines": {"1": 1, "3": 0.75}, "source": "stated"}
        disturbances = quiet(presets={"linear": shape, "switched-mode": shape, "dimmers": shape})
        read = outlets(here=0.0, there={"reading_v": 0.06})
        rig = earthed(self.PARTS, self.BOTH, self.LEADS, self.AT, read, disturbances)
        tones = hum_of(rig).tones
        self.assertEqual(tones.frequencies_hz, (50.0, 150.0))
        # sqrt(1 + 0.75^2) = 1.25
        self.assertAlmostEqual(tones.likely_dbu[0], dbu(0.06 / 1.25 * 0.5 / 0.7), places=3)
        self.assertAlmostEqual(hum_of(rig).likely_dbu, dbu(0.06 * 0.5 / 0.7), places=3)

    def test_two_readings_are_coherent_phasors(self) -> None:
        opposite = outlets(here={"lines": [{"h": 1, "v": 0.03, "phase_deg": 180}]}, there=0.03)
        rig = earthed(self.PARTS, self.BOTH, self.LEADS, self.AT, opposite)
        self.assertAlmostEqual(hum_of(rig).likely_dbu, dbu(0.06 * 0.5 / 0.7), places=3)

    def test_a_reading_against_another_outlet_covers_the_way_between(self) -> None:
        # What nobody measured between the two cannot move them against each other.
        against = outlets(there={"lines": [{"h": 1, "v": 0.06}], "against": "here"})
        here = {"id": "here", "name": "here", "kind": "outlet", "ohm": 0.1, "henry": 0, "emf_v": 0.5}
        rig = earthed(self.PARTS, self.BOTH, self.LEADS, self.AT, [here, *against])
        self.assertAlmostEqual(hum_of(rig).likely_dbu, dbu(0.06 * 0.5 / 0.7), places=3)

    def test_unmeasured_outlets_of_a_strip_a_circuit_and_a_panel(self) -> None:
        # Likely as powers, worst as sizes: two outlets differ by what is assumed of the place where they join.
        between = {"strip": [0.0003, 0.003], "circuit": [0.002, 0.015], "board": [0.01, 0.08], "building": [0.1, 1.0]}
        spreads = {name: {"likely": likely, "worst": worst} for name, (likely, worst) in between.items()}
        disturbances = quiet(between_v={**spreads, "site": 0})
        tree = {
            "strip": [("strip", "s", None), ("outlet", "here", "s"), ("outlet", "there", "s")],
            "circuit": [
                ("circuit", "c", None),
                ("strip", "s", "c"),
                ("strip", "t", "c"),
                ("outlet", "here", "s"),
                ("outlet", "there", "t"),
            ],
            "board": [
                ("circuit", "c", None),
                ("circuit", "d", None),
                ("outlet", "here", "c"),
                ("outlet", "there", "d"),
            ],
            "building": [("board", "a", None), ("board", "b", None), ("outlet", "here", "a"), ("outlet", "there", "b")],
        }
        for joins, points in tree.items():
            earth = [
                {"id": id_, "name": id_, "kind": kind, "ohm": 1e-9, "henry": 0, **({"parent": up} if up else {})}
                for kind, id_, up in points
            ]
            rig = earthed(self.PARTS, self.BOTH[:1], {"left": self.LEADS["left"]}, self.AT, earth, disturbances)
            likely, worst = between[joins]
            self.assertAlmostEqual(hum_of(rig).likely_dbu, dbu(likely), places=3, msg=joins)
            self.assertAlmostEqual(hum_of(rig).worst_dbu, dbu(worst), places=3, msg=joins)


class ClassTwo(unittest.TestCase):
    def test_touch_current_through_a_half_ohm_return(self) -> None:
        # 100 uA through 0.5 ohm: 50 uV. Common practice: class 2 hum lies between -90 and -80 dBu.
        keys = ts_source("keys", 1000, {"earthing": {"type": "class-2", "touch_a": 1e-4}})
        desk = ts_input("desk", 1e9, class_1(1e-9))
        joins = [[("keys.out1", "lead.in"), ("lead.out", "desk.in1")]]
        leads = {"lead": {"part": "lead", "length_m": 10.0}}
        for at in ("here", "there"):
            # Which outlet a two-pin plug is in changes nothing.
            rig = earthed([keys, desk, ts_cable()], joins, leads, {"keys": at, "desk": "here"}, TWO)
            touch = next(share for share in hum_of(rig).causes if share.code == "touch")
            self.assertAlmostEqual(touch.likely_dbu, -83.8, delta=0.02, msg=at)
            self.assertAlmostEqual(hum_of(rig).likely_dbu, dbu(1e-4 * 0.5), places=2)

    def test_harmonics_of_the_touch_current_are_multiplied_by_their_order(self) -> None:
        shape = {"lines": {"1": 1, "3": 0.15}, "source": "stated"}
        keys = ts_source("keys", 1000, {"earthing": {"type": "class-2", "touch_a": 1e-4}})
        rig = earthed(
            [keys, ts_input("desk", 1e9, class_1(1e-9)), ts_cable()],
            [[("keys.out1", "lead.in"), ("lead.out", "desk.in1")]],
            {"lead": {"part": "lead", "length_m": 10.0}},
            disturbances=quiet(presets={"linear": shape, "switched-mode": shape, "dimmers": shape}),
        )
        tones = hum_of(rig).tones
        self.assertAlmostEqual(tones.likely_dbu[1] - tones.likely_dbu[0], 20 * math.log10(0.45), places=3)


class Balanced(unittest.TestCase):
    JOINS = [[("source.out", "lead.in"), ("lead.out", "desk.in")]]  # noqa: RUF012
    AT = {"source": "here", "desk": "there"}  # noqa: RUF012

    def rig(self, volts: float, screen_ohm_per_m: float = 1e6, **desk: object) -> object:
        return earthed(
            [
                xlr_source("source", 50, class_1(1e-9)),
                xlr_input("desk", desk.pop("z_common_ohm", 10_000), class_1(1e-9), **desk),  # type: ignore[arg-type]
                xlr_cable(screen_ohm_per_m=screen_ohm_per_m),
            ],
            self.JOINS,
            {"lead": {"part": "lead", "length_m": 10.0}},
            self.AT,
            outlets(here=0.0, there=volts),
        )

    def test_ten_millivolts_common_and_fifty_decibels_of_rejection(self) -> None:
        # The legs lose 50 of 10 050 ohm: 10 mV becomes 9.95 at the pins; -37.8 - 50 = -87.8 dBu.
        hum = hum_of(self.rig(0.01, rejection_db=50))  # type: ignore[arg-type]
        self.assertAlmostEqual(hum.likely_dbu, -87.8, delta=0.06)
        self.assertAlmostEqual(hum.likely_dbu, dbu(0.01 * 10_000 / 10_050 * 10 ** (-50 / 20)), places=2)

    def test_pin_1_adds_its_impedance_times_the_screen_current_whatever_the_rejection(self) -> None:
        # 0.1 A through 0.2 ohm of earth and 0.5 of screen: 70 mV. 30 mohm x 0.1 A = 3 mV: -48.2 dBu.
        for rejection_db in (40, 90):
            rig = self.rig(0.07, screen_ohm_per_m=0.05, pin1_ohm=0.03, rejection_db=300 if rejection_db == 90 else 120)
            self.assertAlmostEqual(hum_of(rig).likely_dbu, -48.2, delta=0.05)  # type: ignore[arg-type]
        rig = self.rig(0.07, screen_ohm_per_m=0.05, pin1_ohm={"likely": 0.01, "worst": 0.3})
        self.assertAlmostEqual(hum_of(rig).likely_dbu, dbu(0.01 * 0.1), delta=0.05)  # type: ignore[arg-type]
        self.assertAlmostEqual(hum_of(rig).worst_dbu, dbu(0.3 * 0.1), delta=0.05)  # type: ignore[arg-type]

    def test_source_impedance_imbalance_of_ten_ohm(self) -> None:
        # Whitlock, J. Audio Eng. Soc. 43(6), 1995: with 10 ohm of imbalance 10 kohm legs reject 60 dB.
        parts = [
            xlr_source("source", 50, class_1(1e-9), leg_mismatch=0.2),
            xlr_input("desk", 10_000, class_1(1e-9)),
            xlr_cable(screen_ohm_per_m=1e6),
        ]
        rig = earthed(
            parts, self.JOINS, {"lead": {"part": "lead", "length_m": 10.0}}, self.AT, outlets(here=0.0, there=0.01)
        )
        exact = 10_000 / 10_045 - 10_000 / 10_055
        # Cores of 1 ohm each are in both legs.
        self.assertAlmostEqual(hum_of(rig).likely_dbu, dbu(0.01 * exact), delta=0.01)
        self.assertAlmostEqual(20 * math.log10(exact), -60.1, delta=0.1)


class OtherBonds(unittest.TestCase):
    def test_a_battery_laptop_with_a_video_lead_to_an_earthed_projector_still_has_its_loop(self) -> None:
        laptop, desk = ts_source("laptop", 100, FLOATING), ts_input("desk", 1e9, class_1(1e-9))
        projector = {**ts_input("projector", 1e9, class_1(1e-9)), "id": "projector"}
        joins = [[("laptop.out1", "lead.in"), ("lead.out", "desk.in1")]]
        leads = {"lead": {"part": "lead", "length_m": 10.0}}
        at = {"desk": "here", "projector": "there"}
        bond = {
            "id": "video",
            "name": "Video",
            "kind": "video",
            "a": "laptop",
            "b": "projector",
            "ohm": 0.3,
            "henry": 0,
        }
        parts = [laptop, desk, projector, ts_cable()]
        free = earthed(parts, joins, leads, at, TWO)
        self.assertEqual(hum_of(free).likely_dbu, -200)
        loop = earthed(parts, joins, leads, at, TWO, bonds=[bond])
        # 0.5 of screen in 0.2 of earth, 0.3 of video lead and itself.
        self.assertAlmostEqual(hum_of(loop).likely_dbu, dbu(0.06 * 0.5 / 1.0), places=3)


class Weighting(unittest.TestCase):
    def test_against_the_table_of_the_standard(self) -> None:
        from ruvak.core.results.weighting import a_weighting_db

        # IEC 61672-1:2013, table 3, weighting A in dB, rounded there to 0.1.
        table = {20: -50.5, 50: -30.2, 100: -19.1, 200: -10.9, 500: -3.2, 1000: 0.0, 2000: 1.2, 4000: 1.0, 8000: -1.1}
        for nominal, expected in table.items():
            # Exact mid-band frequencies are powers of 10^0.1.
            exact = 1000 * 10 ** (round(10 * math.log10(nominal / 1000)) / 10)
            self.assertAlmostEqual(a_weighting_db(exact), expected, delta=0.06, msg=str(nominal))


if __name__ == "__main__":
    unittest.main()
