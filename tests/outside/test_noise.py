"""Hiss, crosstalk, and several inputs heard together, against figures anyone can work out."""

import math
import unittest
from typing import Any

from ruvak.core.analyse import analyse
from ruvak.core.results.records import InputResult
from ruvak.core.rig.rig import Rig
from tests.support.earths import Doc, class_1, earthed, hum_of, outlets, quiet, ts_cable, ts_input, ts_source

CORD = class_1(1e-9)
FLOATING: Doc = {"earthing": {"type": "floating"}}


def first(rig: Rig, run: int = 0) -> InputResult:
    return analyse(rig).runs[run].result.inputs[0]


def straight(z_ohm: float, input_ohm: float, **more: Any) -> Rig:
    return earthed(
        [ts_source("player", z_ohm, CORD), ts_input("desk", input_ohm, CORD), ts_cable(**more)],
        [[("player.out1", "lead1.in"), ("lead1.out", "desk.in1")]],
        {"lead1": {"part": "lead", "length_m": 0.01}},
        {"player": "here", "desk": "here"},
        outlets(here=0.0),
    )


class Warmth(unittest.TestCase):
    def test_a_200_ohm_microphone_makes_minus_130_dbu(self) -> None:
        # H. Nyquist, Physical Review 32 (1928): e = sqrt(4 k T R df); handbooks round 200 ohm in 20 kHz to -129.6 dBu.
        noise = first(straight(200.0, 1e9)).noise
        assert noise is not None and noise.thermal_dbu is not None
        expected = math.sqrt(4 * 1.380649e-23 * 293.15 * 200.0 * 19_980)
        self.assertAlmostEqual(noise.thermal_dbu, 20 * math.log10(expected / math.sqrt(0.6)), delta=0.01)
        self.assertAlmostEqual(noise.thermal_dbu, -129.7, delta=0.1)

    def test_the_inputs_own_noise_adds_as_power(self) -> None:
        noise = first(straight(1000.0, 1000.0)).noise
        assert noise is not None and noise.thermal_dbu is not None
        expected = 10 * math.log10(10 ** (noise.receiver_dbu / 10) + 10 ** (noise.thermal_dbu / 10))
        self.assertAlmostEqual(noise.total_dbu, expected, places=6)
        # Two times 1 kohm side by side hiss as 500 ohm.
        other = first(straight(500.0, 1e9)).noise
        assert other is not None and other.thermal_dbu is not None
        self.assertAlmostEqual(noise.thermal_dbu, other.thermal_dbu, places=3)

    def test_a_capacitance_takes_the_hiss_to_kt_over_c(self) -> None:
        # The whole band of a resistor on a capacitor holds k T / C, whatever the resistance (any textbook); a corner
        # at 200 Hz leaves 4/pi atan of it in 20 Hz to 20 kHz, worked out here exactly.
        ohm, farad = 1e6, 1.0 / (2 * math.pi * 2000.0 * 1e6)
        rig = straight(ohm, 1e12, core_to_screen_f_per_m=farad / 0.01)
        noise = first(rig).noise
        assert noise is not None and noise.thermal_dbu is not None
        corner = 2000.0
        share = (math.atan(20_000 / corner) - math.atan(20 / corner)) * corner
        expected = math.sqrt(4 * 1.380649e-23 * 293.15 * ohm * share)
        self.assertAlmostEqual(noise.thermal_dbu, 20 * math.log10(expected / math.sqrt(0.6)), delta=0.5)


class Shared(unittest.TestCase):
    def test_what_two_outputs_share_in_their_return_is_crosstalk(self) -> None:
        # Two lines through one 1 ohm screen into 1 kohm each: what flows back by it, about 1/1001 of the other's volts.
        lead = ts_cable(core_ohm_per_m=0)
        lead["connectors"] = [
            {"id": f"{side}{n}", "label": f"{side}{n}", "form": "ts635-plug", "side": side}
            for side in ("in", "out")
            for n in (1, 2)
        ]
        lead["cables"][0]["conductors"] = [{"a": f"in{n}.T", "b": f"out{n}.T", "kind": "core"} for n in (1, 2)] + [
            {"a": "in1.S", "b": "out1.S", "kind": "screen"}
        ]
        lead["wires"] = [{"a": f"{side}1.S", "b": f"{side}2.S"} for side in ("in", "out")]
        rig = earthed(
            [ts_source("player", 1e-6, FLOATING, 2), ts_input("desk", 1000, CORD, 2), lead],
            [[(f"player.out{n}", f"both.in{n}"), (f"both.out{n}", f"desk.in{n}")] for n in (1, 2)],
            {"both": {"part": "lead", "length_m": 20.0}},
            {"desk": "here"},
            outlets(here=0.0),
        )
        found = first(rig).crosstalk
        assert found is not None
        # Own and other drive 1 kohm each in series with 1 ohm both share: superposition of the two.
        shared, load = 1.0, 1000.0
        own = (load + shared) / (load + 2 * shared)
        other = shared / (load + 2 * shared)
        self.assertAlmostEqual(found.at_1k_db, 20 * math.log10(other / own), delta=0.01)
        self.assertAlmostEqual(found.at_10k_db, found.at_1k_db, delta=0.01)

    def test_runs_with_nothing_in_common_have_none(self) -> None:
        self.assertIsNone(first(straight(200.0, 10_000.0)).crosstalk)

    def test_a_loud_stranger_with_nothing_in_common_is_none_beside_a_quiet_microphone(self) -> None:
        # +30 dBu on leads of its own beside -60 dBu: what no metal carries is not heard however far apart they are.
        player, quiet_one = ts_source("player", 1.0, FLOATING), ts_source("voice", 200.0, FLOATING)
        player["outputs"][0] |= {"nominal_dbu": 30.0, "peak_dbu": 40.0}
        quiet_one["outputs"][0] |= {"nominal_dbu": -60.0, "peak_dbu": -40.0}
        rig = earthed(
            [player, quiet_one, ts_input("desk", 1000, FLOATING), ts_input("other", 1000, FLOATING), ts_cable()],
            [
                [("voice.out1", "lead1.in"), ("lead1.out", "desk.in1")],
                [("player.out1", "lead2.in"), ("lead2.out", "other.in1")],
            ],
            {f"lead{n}": {"part": "lead", "length_m": 20.0} for n in (1, 2)},
            {},
            outlets(here=0.0),
        )
        self.assertIsNone(first(rig).crosstalk)


class Together(unittest.TestCase):
    """Two unbalanced leads over the same two earths into one desk."""

    def rig(self, venue: Doc | None = None, faders: Doc | None = None) -> Rig:
        return earthed(
            [ts_source("keys", 1000, CORD, 2), ts_input("desk", 1e9, CORD, 2), ts_cable()],
            [[(f"keys.out{n}", f"lead{n}.in"), (f"lead{n}.out", f"desk.in{n}")] for n in (1, 2)],
            {f"lead{n}": {"part": "lead", "length_m": 20.0} for n in (1, 2)},
            {"keys": "here", "desk": "there"},
            outlets(here=0.0, there=0.06),
            quiet(),
            venue=venue or {},
            gear={"desk": {"faders_db": faders or {}}},
        )

    def test_one_cause_in_two_inputs_adds_up_by_six_decibels(self) -> None:
        rig = self.rig()
        (desk,) = analyse(rig).destinations
        alone = hum_of(rig).below_programme_db
        assert alone is not None
        self.assertEqual(desk.inputs, ("in1", "in2"))
        self.assertAlmostEqual(desk.hum_below_db, alone - 20 * math.log10(2), places=3)

    def test_a_fader_down_takes_its_inputs_hum_with_it(self) -> None:
        (desk,) = analyse(self.rig(faders={"in2": -20.0})).destinations
        alone = hum_of(self.rig()).below_programme_db
        assert alone is not None
        self.assertAlmostEqual(desk.hum_below_db, alone - 20 * math.log10(1.1), places=3)

    def test_the_listener_hears_it_as_far_under_the_programme(self) -> None:
        (desk,) = analyse(self.rig({"programme_db_spl": 85.0, "noise_dba": 30.0})).destinations
        assert desk.hum_dba is not None
        self.assertAlmostEqual(desk.hum_dba, 85.0 - desk.hum_below_db, places=9)
        self.assertEqual(desk.room_dba, 30.0)
