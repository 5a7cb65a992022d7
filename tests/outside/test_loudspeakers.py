"""Loudspeaker lines against the divider anybody can work out, copper by IEC 60028, and taps in watts."""

import math
import unittest

from ruvak.core.analyse import analyse
from ruvak.core.parts.library import library
from ruvak.core.parts.reading import rig_from_document
from ruvak.core.prepare import prepare
from ruvak.core.results.line_records import LoudspeakerLine
from ruvak.core.results.records import RunResult
from ruvak.core.rig.rig import Rig
from tests.outside.test_library_rigs import rig_of
from tests.support.earths import Doc
from tests.support.loudspeakers import speakers

COPPER_OHM_MM2_PER_M = 0.01724
"""IEC 60028."""
CONTACT_OHM = 0.005


def result(rig: Rig) -> RunResult:
    return analyse(rig).runs[0].result


def line(found: RunResult, number: int = 0) -> LoudspeakerLine:
    here = found.inputs[number].loudspeaker
    assert here is not None
    return here


class OneLoudspeaker(unittest.TestCase):
    """20 log10 ((R + r) / R), r there and back with its four contacts; 0.6 uH a metre is nothing at 1 kHz."""

    def test_the_loss_is_the_divider_of_copper_and_coil(self) -> None:
        for lead, area_mm2 in (
            ("loudspeaker-lead", 2.5),
            ("loudspeaker-lead-1-5", 1.5),
            ("loudspeaker-line-0-75", 0.75),
        ):
            for length_m in (5.0, 30.0, 100.0):
                copper_ohm = COPPER_OHM_MM2_PER_M * 2 * length_m / area_mm2 + 4 * CONTACT_OHM
                found = line(result(speakers("amplifier-two-channel", "loudspeaker-passive", lead, length_m, 1)))
                self.assertAlmostEqual(found.loss_db, 20 * math.log10((8 + copper_ohm) / 8), delta=0.02)

    def test_power_is_voltage_squared_over_impedance(self) -> None:
        # 32 dBu are 30.8 V: 119 W into 8 ohm, less what the amplifier's own 51 milliohm and 4 contacts of 5 take.
        found = line(result(speakers("amplifier-two-channel", "loudspeaker-passive", "loudspeaker-lead", 0.001, 1)))
        volts = math.sqrt(0.6) * 10 ** (32 / 20) * 8 / (8 + 0.051 + 4 * CONTACT_OHM)
        self.assertAlmostEqual(found.peak_w, volts**2 / 8, delta=0.1)


class Rows(unittest.TestCase):
    def test_three_in_a_row_are_a_ladder(self) -> None:
        found = result(speakers("amplifier-two-channel", "loudspeaker-passive", "loudspeaker-lead", 10.0, 3))
        r = 0.0069 * 20 + 4 * CONTACT_OHM
        third = 8.0
        second = 8 * (r + third) / (8 + r + third)
        first = 8 * (r + second) / (8 + r + second)
        self.assertAlmostEqual(found.sources[0].load_ohm, r + first, delta=0.01)
        gains = [first / (r + first)]
        gains.append(gains[0] * second / (r + second))
        gains.append(gains[1] * third / (r + third))
        for number, gain in enumerate(gains):
            self.assertAlmostEqual(line(found, number).loss_db, -20 * math.log10(gain), delta=0.02)

    def test_a_run_from_the_link_hears_the_same_amplifier(self) -> None:
        whole = speakers("amplifier-two-channel", "loudspeaker-passive", "loudspeaker-lead", 10.0, 2)
        run = whole.runs[0]
        document = whole.model_dump(mode="json", exclude_none=True)
        joins = document["runs"][0]["joins"]
        document["runs"] = [
            {**document["runs"][0], "pieces": run.pieces[:1], "joins": joins[:2]},
            {**document["runs"][0], "id": "on", "number": 2, "pieces": run.pieces[1:], "joins": joins[2:]},
        ]
        split = analyse(prepare(rig_from_document(document)))
        second = split.runs[1].result
        self.assertEqual([one.gear for one in second.sources], ["amp"])
        self.assertEqual([one.gear for one in second.inputs], ["s2"])
        self.assertAlmostEqual(line(second).loss_db, line(result(whole), 1).loss_db, places=9)

    def test_watts_of_the_taps_add_up_on_a_100_volt_line(self) -> None:
        for many, tap in ((2, "20 W"), (5, "10 W"), (6, "3 W")):
            rig = speakers("amplifier-100-v", "loudspeaker-100-v", "loudspeaker-lead", 0.01, many, tap=tap)
            asks_w = 100**2 / result(rig).sources[0].load_ohm
            self.assertAlmostEqual(asks_w / (many * float(tap.split()[0])), 1.0, delta=0.003)

    def test_the_same_copper_costs_far_less_at_100_volts(self) -> None:
        # Sixty watts either way: 8 ohm are 167 times less than the 1667 ohm of a 6 W tap's ten.
        low = line(result(speakers("amplifier-two-channel", "loudspeaker-passive", "loudspeaker-line-0-75", 100.0, 1)))
        high = line(
            result(speakers("amplifier-100-v", "loudspeaker-100-v", "loudspeaker-line-0-75", 100.0, 1, tap="20 W"))
        )
        self.assertGreater(low.loss_db, 3.0)
        self.assertLess(high.loss_db, 0.1)


class Bridged(unittest.TestCase):
    """Neither contact of a bridged output may meet an earth: common practice, and every maker's warning."""

    def found(self, amplifier: str) -> set[str]:
        receiver = library()["desk-digital-16"].id
        adapter: Doc = {
            "id": "odd",
            "name": "Loudspeaker plug to 6.35 mm",
            "kind": "lead",
            "connectors": [
                {"id": "in", "label": "in", "form": "loudspeaker-plug", "side": "in"},
                {"id": "out", "label": "out", "form": "ts635-plug", "side": "out"},
            ],
            "wires": [{"a": "in.plus", "b": "out.T"}, {"a": "in.minus", "b": "out.S"}],
        }
        gear: list[Doc] = [
            {"id": "amp", "name": "Amp", "part": amplifier},
            {"id": "desk", "name": "Desk", "part": receiver},
        ]
        socket = "amp.out1" if amplifier == "amplifier-two-channel" else "amp.out"
        joins = [(socket, "x.in"), ("x.out", "desk.line1")]
        rig = rig_of(gear, [{"id": "x", "part": "odd"}], [(["x"], joins)], parts=[adapter])
        return {one.code for one in analyse(rig).runs[0].findings}

    def test_earthed_by_a_desk_it_is_a_stop_of_its_own(self) -> None:
        self.assertLessEqual({"sleeve_earthed", "amplified_into_input"}, self.found("amplifier-bridged"))
        self.assertNotIn("sleeve_earthed", self.found("amplifier-two-channel"))
