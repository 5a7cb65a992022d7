"""Gains, levels, response and balance of one run."""

import math
import unittest

from ruvak.core.analyse import analyse
from ruvak.core.results.records import InputResult, RunResult
from ruvak.core.rig.edits import Edit, SetField, apply, set_setting
from ruvak.core.rig.rig import Rig
from tests.support.rigs import demo_rig, receiver_part, source_part, stated_rig, wired

UNBALANCED = [("in.T", "out1.2"), ("in.S", "out1.3"), ("in.S", "out1.1")]


def result(rig: Rig) -> RunResult:
    return analyse(rig).runs[0].result


def first(rig: Rig) -> InputResult:
    return result(rig).inputs[0]


class Gains(unittest.TestCase):
    def test_both_sides_arrive_opposed(self) -> None:
        left, right = first(demo_rig()).channels
        self.assertEqual((left.in_phase, right.in_phase), (True, False))
        self.assertAlmostEqual(left.gain_db, right.gain_db, places=6)

    def test_nothing_connected_gives_null_and_a_reason(self) -> None:
        one = first(stated_rig(wires=[]))
        self.assertIsNone(one.sum)
        self.assertEqual(one.sum_null, "nothing_arrives")
        self.assertIsNone(one.response)
        self.assertEqual(one.balance.verdict, "open")

    def test_a_single_channel_has_no_centre(self) -> None:
        one_channel = source_part(channels=[{"id": "1", "hot": "out.T"}])
        one = first(stated_rig(wires=UNBALANCED, source=one_channel))
        self.assertEqual((one.sum, one.sum_null), (None, "one_channel"))

    def test_a_run_without_a_source_is_told_as_such(self) -> None:
        rig = demo_rig()
        cut = wired(rig, runs=[{**rig.runs[0].model_dump(), "joins": rig.runs[0].model_dump()["joins"][1:]}])
        self.assertEqual(result(cut).sources, ())
        self.assertEqual([f.code for f in analyse(cut).runs[0].findings], ["not_connected"])

    def test_shared_return_resistance_lets_one_side_into_the_other(self) -> None:
        # 100 + 32 ohm loads on a common return of 1 ohm: crosstalk rises with the return's resistance.
        wires = [("in.T", "out1.2"), ("in.S", "out1.3")]
        quiet, loud = (
            first(stated_rig(wires=wires, source=source_part(return_ohm=ohm), receiver=receiver_part(z_common_ohm=100)))
            for ohm in (0.1, 10.0)
        )
        self.assertEqual(quiet.sum_null, None)
        self.assertNotEqual(quiet.channels, loud.channels)


class Levels(unittest.TestCase):
    def test_volume_moves_everything_by_itself(self) -> None:
        down = apply(demo_rig(), Edit(label="x", ops=(set_setting("laptop", "volume", -12.0),)))
        before, after = first(demo_rig()).levels[0], first(down).levels[0]
        for field in ("arriving_dbu", "sides_dbu", "peak_dbu"):
            self.assertAlmostEqual(getattr(after, field), getattr(before, field) - 12.0, places=9)
        self.assertAlmostEqual(after.headroom_db, before.headroom_db + 12.0, places=9)
        self.assertAlmostEqual(after.gap_db, before.gap_db + 12.0, places=9)

    def test_both_switch_positions_are_solved_and_the_active_one_is_marked(self) -> None:
        levels = first(demo_rig()).levels
        self.assertEqual([(level.when, level.active) for level in levels], [("line", True), ("mic", False)])
        flipped = apply(demo_rig(), Edit(label="x", ops=(set_setting("speaker", "input1", "mic"),)))
        turned = first(flipped).levels
        self.assertEqual([(level.when, level.active) for level in turned], [("line", False), ("mic", True)])
        for one, other in zip(levels, turned, strict=True):
            self.assertAlmostEqual(one.arriving_dbu, other.arriving_dbu, places=9)

    def test_the_programme_lies_below_full_scale_by_the_alignment(self) -> None:
        self.assertAlmostEqual(result(demo_rig()).sources[0].nominal_dbu, 2.2 - 20.0)
        europe = wired(demo_rig(), alignment={"full_scale_dbu": 18.0, "nominal_dbu": 0.0, "source": "EBU R 68"})
        self.assertAlmostEqual(result(europe).sources[0].nominal_dbu, 2.2 - 18.0)

    def test_mono_sends_half_of_each_to_both(self) -> None:
        mono = apply(demo_rig(), Edit(label="x", ops=(set_setting("laptop", "mono", True),)))
        one = first(mono)
        self.assertTrue(result(mono).sources[0].mono)
        self.assertEqual(one.sum_null, "nothing_arrives")
        self.assertTrue(all(channel.gain_db < -35 for channel in one.channels))


class Tone(unittest.TestCase):
    def test_a_low_impedance_output_does_not_go_dull_over_a_stage(self) -> None:
        # 1 kohm, 18 m at 100 pF/m into one leg: 0.2 dB at 20 kHz (closed form of an RC low-pass).
        rig = demo_rig()
        parts = [p.model_dump() for p in rig.parts]
        for part in parts:
            if part["id"] == "laptop-headphone-trs35":
                part["outputs"][0]["z_ohm"]["value"] = 1000.0
            if part["id"] == "mic-lead":
                part["cables"][0]["core_to_core_f_per_m"]["value"] = 0.0
        long = apply(
            wired(rig, parts=parts),
            Edit(label="x", ops=(SetField(kind="kit", id="lead-31", field="length_m", value=18.0),)),
        )
        response = first(long).response
        assert response is not None
        load = 1000.0 * (1 / (1 / 1000.0 + 1 / 20_000.0 + 1 / 20_000.0)) / 1000.0
        expected = 10 * math.log10(1 + (2 * math.pi * 20_000 * load * 1.8e-9) ** 2)
        self.assertAlmostEqual(response.loss_20k_db, expected, delta=0.02)
        self.assertAlmostEqual(response.loss_20k_db, 0.2, delta=0.05)

    def test_a_longer_lead_never_brings_more_treble_here(self) -> None:
        losses = []
        for length_m in (5.0, 50.0, 200.0, 800.0):
            rig = apply(
                demo_rig(), Edit(label="x", ops=(SetField(kind="kit", id="lead-31", field="length_m", value=length_m),))
            )
            response = first(rig).response
            assert response is not None
            losses.append(response.level_db[-1])
        self.assertEqual(len(losses), 4)
        self.assertTrue(all(abs(loss) < 6 for loss in losses))

    def test_3_db_points_are_found_on_the_log_axis(self) -> None:
        blocked = {"type": "capacitor", "a": "in.T", "b": "out1.2", "farad": 1 / (2 * math.pi * 200.0 * 10_100.0)}
        one = first(stated_rig(wires=[("in.S", "out1.3"), ("in.S", "out1.1")], elements=[blocked]))
        assert one.response is not None and one.response.low_3db_hz is not None
        # Half power relative to 1 kHz, where the filter itself already takes 1 + (200/1000)^2 in power.
        self.assertAlmostEqual(one.response.low_3db_hz, 200.0 / math.sqrt(2 * 1.04 - 1), delta=0.2)


class Balance(unittest.TestCase):
    def test_cold_on_the_screen_is_unbalanced_whatever_the_plug(self) -> None:
        balance = first(stated_rig(wires=UNBALANCED)).balance
        self.assertEqual((balance.verdict, balance.cold_on_screen), ("unbalanced", True))

    def test_two_signals(self) -> None:
        self.assertEqual(first(demo_rig()).balance.verdict, "two_signals")

    def test_hot_and_cold_joined(self) -> None:
        wires = [("in.T", "out1.2"), ("in.T", "out1.3"), ("in.S", "out1.1")]
        self.assertEqual(first(stated_rig(wires=wires)).balance.verdict, "shorted")

    def test_leg_impedance_is_what_the_metal_gives(self) -> None:
        # 100 ohm in parallel with the input's own 10 kohm.
        balance = first(stated_rig(wires=UNBALANCED)).balance
        self.assertAlmostEqual(balance.hot_ohm, 1 / (1 / 100 + 1 / 10_000), places=2)
        self.assertLess(balance.cold_ohm, 1.0)
