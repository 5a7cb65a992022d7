"""Hum by the way it enters a balanced input, each way alone by hand.

Whitlock, J. Audio Eng. Soc. 43(6), 1995 (unequal legs, the receiver's own rejection); AES48 and Muncy, same issue (pin
1). What stands in series with the programme is the unbalanced line of any textbook.
"""

import unittest
from typing import Any

from ruvak.core.analyse import analyse
from ruvak.core.rig.rig import Rig
from ruvak.core.units import volts_from_dbu
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
from tests.support.random_rigs import random_rig

XLR = [[("source.out", "lead.in"), ("lead.out", "desk.in")]]
AT = {"source": "here", "desk": "there"}


def shares(rig: Rig, worst: bool = False) -> dict[str, float]:
    """Volts of each mechanism at the first input."""
    return {
        share.code: volts_from_dbu(share.worst_dbu if worst else share.likely_dbu) for share in hum_of(rig).mechanisms
    }


def balanced(volts: float, lead: dict[str, Any], source: dict[str, Any], z_common_ohm: float, **desk: Any) -> Rig:
    parts = [
        xlr_source("source", 50, class_1(1e-9), **source),
        xlr_input("desk", z_common_ohm, class_1(1e-9), **desk),
        xlr_cable(**lead),
    ]
    leads = {"lead": {"part": "lead", "length_m": 10.0}}
    return earthed(parts, XLR, leads, AT, outlets(here=0.0, there=volts))


class Ways(unittest.TestCase):
    def only(self, found: dict[str, float], code: str, volts: float) -> None:
        """This mechanism has so many volts, and every other less than a thousandth of it."""
        self.assertAlmostEqual(found[code] / volts, 1.0, delta=0.002)
        for other, volt in found.items():
            if other != code:
                self.assertLess(volt, 0.002 * volts, other)

    def test_unequal_legs_of_the_source(self) -> None:
        # 55 and 45 ohm, cores of 1 ohm each, into 10 kohm a leg.
        rig = balanced(0.01, {"screen_ohm_per_m": 1e6}, {"leg_mismatch": 0.2}, 10_000)
        self.only(shares(rig), "leg_imbalance", 0.01 * (10_000 / 10_046 - 10_000 / 10_056))

    def test_unequal_legs_of_unknown_sign(self) -> None:
        rig = balanced(0.01, {"screen_ohm_per_m": 1e6}, {"leg_mismatch": {"likely": 0.02, "worst": 0.2}}, 10_000)
        self.only(shares(rig), "leg_imbalance", 0.01 * (10_000 / 10_050.5 - 10_000 / 10_051.5))
        self.only(shares(rig, worst=True), "leg_imbalance", 0.01 * (10_000 / 10_046 - 10_000 / 10_056))

    def test_unequal_capacitances_of_the_cores_to_the_screen(self) -> None:
        # 50 nF a leg at the far end, a fifth more on one: i = w dC V into the legs' 51 ohm beside 10 kohm.
        at_the_pins = 0.01 * 10_000 / 10_051
        expected_v = 314.159 * 0.2 * 50e-9 * at_the_pins * (51 * 10_000 / 10_051)
        for mismatch in (0.2, {"likely": 0.2, "worst": 0.4}):
            lead = {"screen_ohm_per_m": 1e6, "core_to_screen_f_per_m": 1e-8, "core_screen_mismatch": mismatch}
            hum = hum_of(balanced(0.01, lead, {}, 10_000))
            self.assertAlmostEqual(volts_from_dbu(hum.likely_dbu) / expected_v, 1.0, delta=0.015)

    def test_the_receivers_own_rejection_stated_and_of_unknown_sign(self) -> None:
        at_the_pins = 0.01 * 10_000 / 10_051
        for rejection in (50, {"likely": 50, "worst": 40}):
            rig = balanced(0.01, {"screen_ohm_per_m": 1e6}, {}, 10_000, rejection_db=rejection)
            self.only(shares(rig), "rejection", at_the_pins * 10 ** (-50 / 20))

    def test_a_rejection_falls_by_6_db_an_octave_above_its_corner(self) -> None:
        # 50 Hz is an octave and a half above 17.7 Hz: 50 / 17.678 = 2.828 times as much.
        at_the_pins = 0.01 * 10_000 / 10_051
        for rejection in (50, {"likely": 50, "worst": 40}):
            rig = balanced(
                0.01, {"screen_ohm_per_m": 1e6}, {}, 10_000, rejection_db=rejection, rejection_corner_hz=50 / 8**0.5
            )
            expected_v = at_the_pins * 10 ** (-50 / 20) * 8**0.5
            self.only(shares(rig), "rejection", expected_v)
            self.assertAlmostEqual(volts_from_dbu(hum_of(rig).likely_dbu) / expected_v, 1.0, delta=0.002)

    def test_pin_1_stated_and_of_unknown_sign(self) -> None:
        # 70 mV drive 0.1 A through 0.2 ohm of earth and 0.5 of screen; 30 mohm of it count.
        for pin1 in (0.03, {"likely": 0.03, "worst": 0.3}):
            rig = balanced(0.07, {"screen_ohm_per_m": 0.05}, {}, 1e6, pin1_ohm=pin1)
            self.only(shares(rig), "pin1", 0.1 * 0.03)

    def test_a_screen_that_couples_more_into_one_core(self) -> None:
        # 1 nH a metre over 10 m at 50 Hz, between the cores: w M I with 0.1 A.
        lead = {"screen_ohm_per_m": 0.05, "screen_coupling_h_per_m": {"likely": 1e-9, "worst": 1e-8}}
        rig = balanced(0.07, lead, {}, 1e6)
        self.only(shares(rig), "screen_coupling", 314.159265 * 10e-9 * 0.1)

    def test_a_pair_without_a_screen_shares_an_electric_field_unequally(self) -> None:
        # 10 m at 1 pF a metre over two cores: 5 pF each, one per cent more on one than on the other. The current of
        # the difference flows through the legs' 50 ohm at the source: nearer the desk the core's 1 ohm more.
        core_f, mismatch, leg_ohm = 5e-12, 0.01, 50.5
        expected_v = 314.159265 * 230.0 * core_f * mismatch * leg_ohm
        for stated in (mismatch, {"likely": mismatch, "worst": 0.05}):
            rig = self.bare_pair(field_mismatch=stated)
            hum = hum_of(rig)
            self.assertAlmostEqual(volts_from_dbu(hum.likely_dbu) / expected_v, 1.0, delta=0.01)
        self.only(shares(rig), "field_mismatch", volts_from_dbu(hum_of(rig).likely_dbu))
        self.assertAlmostEqual(shares(rig, worst=True)["field_mismatch"] / (5 * expected_v), 1.0, delta=0.01)

    def test_an_equal_share_and_a_screen_leave_nothing_between_the_legs(self) -> None:
        for rig in (self.bare_pair(), self.bare_pair(screened=True, field_mismatch=0.5)):
            self.assertLessEqual(hum_of(rig).likely_dbu, -200.0)

    def bare_pair(self, screened: bool = False, **lead: Any) -> Rig:
        """A balanced lead of 10 m in the electric field of mains, both its ends earthed, its screen left out."""
        cable = xlr_cable(screen_ohm_per_m=0.01, **lead)
        conductors = cable["cables"][0]["conductors"]
        cable["cables"][0]["conductors"] = [
            conductor for conductor in conductors if screened or conductor["kind"] == "core"
        ]
        parts = [xlr_source("source", 50, class_1(1e-9)), xlr_input("desk", 1e9, class_1(1e-9)), cable]
        leads = {"lead": {"part": "lead", "length_m": 10.0}}
        there = quiet(electric_f_per_m=1e-12)
        return earthed(parts, XLR, leads, AT, outlets(here=0.0, there=0.0), there)

    def test_an_unbalanced_line_has_it_in_series(self) -> None:
        # 60 mV over 0.1 + 0.1 of cords, 0.2 of outlets and 1 ohm of screen: 1/1.4 of it along the screen.
        parts = [ts_source("source", 100, class_1(0.1)), ts_input("desk", 1e6, class_1(0.1)), ts_cable()]
        joins = [[("source.out1", "lead.in"), ("lead.out", "desk.in1")]]
        leads = {"lead": {"part": "lead", "length_m": 20.0}}
        rig = earthed(parts, joins, leads, AT, outlets(here=0.0, there=0.06))
        self.only(shares(rig), "direct", 0.06 / 1.4)

    def test_a_two_contact_plug_into_a_balanced_input_is_in_series_too(self) -> None:
        # Pin 3 meets the screen at the desk: the screen's drop stands between the legs.
        parts = [
            ts_source("source", 100, class_1(0.1)),
            xlr_input("desk", 1e6, class_1(0.1)),
            {
                **xlr_cable(),
                "connectors": [
                    {"id": "in", "label": "in", "form": "ts635-plug", "side": "in"},
                    {"id": "out", "label": "out", "form": "xlr3-male", "side": "out"},
                ],
                "wires": [{"a": "out.3", "b": "out.1"}],
                "cables": [{**ts_cable()["cables"][0], "conductors": TS_TO_XLR}],
            },
        ]
        joins = [[("source.out1", "lead.in"), ("lead.out", "desk.in")]]
        leads = {"lead": {"part": "lead", "length_m": 20.0}}
        rig = earthed(parts, joins, leads, AT, outlets(here=0.0, there=0.06))
        self.only(shares(rig), "direct", 0.06 / 1.4)

    def test_an_unbalanced_source_on_a_three_conductor_lead_has_unequal_legs(self) -> None:
        # Pin 3 goes back to the source by a core of its own: the legs differ by the source's 600 ohm.
        parts = [
            ts_source("source", 600, class_1(1e-9)),
            xlr_input("desk", 10_000, class_1(1e-9)),
            {
                **xlr_cable(),
                "connectors": [
                    {"id": "in", "label": "in", "form": "ts635-plug", "side": "in"},
                    {"id": "out", "label": "out", "form": "xlr3-male", "side": "out"},
                ],
                "cables": [
                    {
                        **xlr_cable(screen_ohm_per_m=1e6)["cables"][0],
                        "conductors": [
                            {"a": "in.T", "b": "out.2", "kind": "core"},
                            {"a": "in.S", "b": "out.3", "kind": "core"},
                            {"b": "out.1", "kind": "screen"},
                        ],
                    }
                ],
            },
        ]
        joins = [[("source.out1", "lead.in"), ("lead.out", "desk.in")]]
        leads = {"lead": {"part": "lead", "length_m": 10.0}}
        rig = earthed(parts, joins, leads, AT, outlets(here=0.0, there=0.01))
        self.only(shares(rig), "leg_imbalance", 0.01 * (10_000 / 10_001 - 10_000 / 10_601))


TS_TO_XLR = [{"a": "in.T", "b": "out.2", "kind": "core"}, {"a": "in.S", "b": "out.1", "kind": "screen"}]


class Together(unittest.TestCase):
    def test_worst_sizes_of_all_mechanisms_cover_the_whole(self) -> None:
        for seed in range(4):
            for run in analyse(random_rig(seed, most_runs=6)).runs:
                for heard in run.result.inputs:
                    assert heard.hum is not None
                    sizes = [volts_from_dbu(share.worst_dbu) for share in heard.hum.mechanisms]
                    self.assertGreaterEqual(sum(sizes) * (1 + 1e-6) + 1e-10, volts_from_dbu(heard.hum.worst_dbu))
