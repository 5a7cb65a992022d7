"""Wirings every technician meets, each against its closed form (dividers, superposition, resonance).

The circuits are those of the trade's textbooks (Ballou, Handbook for Sound Engineers, ch. "Grounding and
Interfacing"; Whitlock, J. Audio Eng. Soc. 43(6), 1995); the figures follow from Ohm's law beside each check.
"""

import math
import unittest

from ruvak.core.analyse import RunAnalysis
from tests.support.wirings import (
    balanced_input,
    balanced_source,
    lead,
    solved,
    unbalanced_input,
    unbalanced_source,
)

THROUGH = [("source.out", "lead.in"), ("lead.out", "receiver.in")]
XLR = ("xlr3-female", "xlr3-male")


def db(ratio: float) -> float:
    return 20 * math.log10(ratio)


def gains(run: RunAnalysis, number: int = 0) -> list[float]:
    return [channel.gain_db for channel in run.result.inputs[number].channels]


def codes(run: RunAnalysis) -> set[str]:
    return {finding.code for finding in run.findings}


def joined(source: str, receiver: str) -> list[tuple[str, str]]:
    return [(f"{source}.out", "lead.in"), ("lead.out", f"{receiver}.in")]


class UnbalancedIntoBalanced(unittest.TestCase):
    """1 kohm source, 10 kohm from each leg to ground."""

    EXPECTED = db(10_000 / 11_000)

    def test_a_two_contact_lead_shorts_cold_to_the_screen(self) -> None:
        ts = lead("ts635-plug", "ts635-plug", [("in.T", "out.T"), ("in.S", "out.S")])
        run = solved([unbalanced_source(1000), ts, balanced_input(10_000, "TRS")], joined("source", "input-trs"))
        self.assertAlmostEqual(gains(run)[0], self.EXPECTED, places=3)
        self.assertEqual(run.result.inputs[0].balance.verdict, "unbalanced")
        self.assertTrue(run.result.inputs[0].balance.cold_on_screen)

    def test_three_conductors_with_cold_tied_at_the_source(self) -> None:
        tied = lead("ts635-plug", "xlr3-male", [("in.T", "out.2"), ("in.S", "out.3"), ("in.S", "out.1")])
        run = solved([unbalanced_source(1000), tied, balanced_input(10_000)], joined("source", "input-xlr"))
        self.assertAlmostEqual(gains(run)[0], self.EXPECTED, places=3)
        self.assertEqual(run.result.inputs[0].balance.verdict, "unbalanced")

    def test_a_longer_plug_in_a_two_contact_socket_leaves_cold_open_or_joins_it_as_the_socket_says(self) -> None:
        trs = lead("trs635-plug", "trs635-plug", [("in.T", "out.T"), ("in.R", "out.R"), ("in.S", "out.S")])
        for ring, verdict in (("open", "open"), ("sleeve", "unbalanced")):
            source = unbalanced_source(1000)
            source["connectors"][0]["ring"] = ring
            run = solved([source, trs, balanced_input(10_000, "TRS")], joined("source", "input-trs"))
            self.assertEqual(run.result.inputs[0].balance.cold_on_screen, ring == "sleeve", verdict)
            self.assertAlmostEqual(gains(run)[0], self.EXPECTED, places=3)


class BalancedOutputs(unittest.TestCase):
    """50 ohm a leg into 10 kohm a leg: straight, with cold grounded at the far end, and with cold open."""

    Z, LEG, COMMON = 10_000.0, 50.0, 5000.0
    STRAIGHT = (("in.2", "out.2"), ("in.3", "out.3"), ("in.1", "out.1"))

    def run_of(self, topology: str, wiring: str, **more: float) -> RunAnalysis:
        cores = {
            "straight": list(self.STRAIGHT),
            "grounded": [("in.2", "out.2"), ("in.3", "out.1"), ("in.1", "out.1")],
            "open": [("in.2", "out.2"), ("in.1", "out.1")],
        }[wiring]
        wires = [("out.3", "out.1")] if wiring == "grounded" else []
        source = balanced_source(topology, self.LEG, "XLR", **more)
        parts = [source, lead(*XLR, cores, wires), balanced_input(self.Z)]
        return solved(parts, joined(source["id"], "input-xlr"))

    def level(self, topology: str, wiring: str, **more: float) -> float:
        return gains(self.run_of(topology, wiring, **more))[0]

    def test_straight_all_deliver_the_whole(self) -> None:
        # Each leg is a divider of its own; the difference is E Z / (Z + leg).
        whole = db(self.Z / (self.Z + self.LEG))
        self.assertAlmostEqual(self.level("active", "straight"), whole, places=3)
        self.assertAlmostEqual(self.level("impedance", "straight"), whole, places=3)
        self.assertAlmostEqual(self.level("cross-coupled", "straight", common_ohm=self.COMMON), whole, places=3)
        self.assertAlmostEqual(self.level("floating", "straight"), whole, places=3)

    def test_an_active_output_loses_half_with_cold_grounded_or_open(self) -> None:
        half = db(0.5 * self.Z / (self.Z + self.LEG))
        self.assertAlmostEqual(self.level("active", "grounded"), half, places=3)
        self.assertAlmostEqual(self.level("active", "open"), half, places=3)

    def test_grounding_a_leg_of_an_active_output_loads_its_driver(self) -> None:
        run = self.run_of("active", "grounded", min_load_ohm=600)
        self.assertIn("load_low", codes(run))
        self.assertLess(run.result.sources[0].load_ohm, 1.0)
        self.assertNotIn("load_low", codes(self.run_of("active", "straight", min_load_ohm=600)))

    def test_an_impedance_balanced_output_loses_nothing(self) -> None:
        whole = db(self.Z / (self.Z + self.LEG))
        self.assertAlmostEqual(self.level("impedance", "grounded"), whole, places=3)
        self.assertAlmostEqual(self.level("impedance", "open"), whole, places=3)

    def test_a_cross_coupled_output_moves_its_midpoint(self) -> None:
        # KCL at the midpoint m with cold at 0: m (1/leg + 1/(Z+leg) + 1/common) = E/2 (1/leg - 1/(Z+leg)).
        g_leg, g_hot, g_common = 1 / self.LEG, 1 / (self.Z + self.LEG), 1 / self.COMMON
        middle = 0.5 * (g_leg - g_hot) / (g_leg + g_hot + g_common)
        expected = db(self.Z * g_hot * (middle + 0.5))
        self.assertAlmostEqual(self.level("cross-coupled", "grounded", common_ohm=self.COMMON), expected, places=3)
        # Cold open: no current in it, so m (1/(Z+leg) + 1/common) = -E/2 / (Z+leg); the input's cold leg is at 0.
        middle = -0.5 * g_hot / (g_hot + g_common)
        expected = db(self.Z * g_hot * (middle + 0.5))
        self.assertAlmostEqual(self.level("cross-coupled", "open", common_ohm=self.COMMON), expected, places=3)

    def test_a_transformer_needs_both_legs(self) -> None:
        # Grounded: one loop, E through both legs into Z. Open: no way back, nothing.
        self.assertAlmostEqual(self.level("floating", "grounded"), db(self.Z / (self.Z + 2 * self.LEG)), places=3)
        self.assertIn("silent", codes(self.run_of("floating", "open")))

    def test_pin_3_on_the_screen_is_unbalanced_whatever_the_plugs_are(self) -> None:
        self.assertEqual(self.run_of("active", "grounded").result.inputs[0].balance.verdict, "unbalanced")
        self.assertEqual(self.run_of("active", "straight").result.inputs[0].balance.verdict, "balanced")

    def test_a_pin_3_hot_input_inverts(self) -> None:
        receiver = balanced_input(self.Z)
        receiver["inputs"][0] |= {"hot": "in.3", "cold": "in.2"}
        source = balanced_source("active", self.LEG)
        run = solved([source, lead(*XLR, list(self.STRAIGHT)), receiver], joined(source["id"], "input-xlr"))
        self.assertIn("inverted", codes(run))
        self.assertFalse(run.result.inputs[0].channels[0].in_phase)

    def test_faulty_leads(self) -> None:
        swapped = lead(*XLR, [("in.2", "out.3"), ("in.3", "out.2"), ("in.1", "out.1")])
        shorted = lead(*XLR, list(self.STRAIGHT), [("out.2", "out.3")])
        source = balanced_source("active", self.LEG)
        ends = joined(source["id"], "input-xlr")
        self.assertIn("inverted", codes(solved([source, swapped, balanced_input(self.Z)], ends)))
        self.assertIn("silent", codes(solved([source, shorted, balanced_input(self.Z)], ends)))


class StereoRecorder(unittest.TestCase):
    def test_a_balanced_output_through_a_straight_lead_is_silent_in_mono(self) -> None:
        # Tip and ring carry E/2 and -E/2: each side half, the mono sum nothing.
        trs = lead("trs635-plug", "trs635-plug", [("in.T", "out.T"), ("in.R", "out.R"), ("in.S", "out.S")])
        source = balanced_source("active", 50, "TRS")
        stereo = unbalanced_input("trs635-socket", {"left": "T", "right": "R"}, "S", 10_000)
        run = solved([source, trs, stereo], joined(source["id"], "receiver"))
        side = db(0.5 * 10_000 / 10_050)
        self.assertAlmostEqual(gains(run, 0)[0], side, places=3)
        self.assertAlmostEqual(gains(run, 1)[0], side, places=3)
        phases = [one.channels[0].in_phase for one in run.result.inputs]
        self.assertEqual(phases, [True, False])
        pair = run.result.mixes[0].pair
        assert pair is not None
        self.assertEqual(pair.centre_db, -130.0)
        self.assertAlmostEqual(pair.sides_db, db(2), places=3)
        self.assertEqual(codes(run), {"mono_cancels"})

    def test_impedance_balanced_reaches_one_side_only(self) -> None:
        trs = lead("trs635-plug", "trs635-plug", [("in.T", "out.T"), ("in.R", "out.R"), ("in.S", "out.S")])
        source = balanced_source("impedance", 50, "TRS")
        stereo = unbalanced_input("trs635-socket", {"left": "T", "right": "R"}, "S", 10_000)
        self.assertIn("one_sided", codes(solved([source, trs, stereo], joined(source["id"], "receiver"))))


class TwoOutputsOnOneInput(unittest.TestCase):
    def y_box(self, series_ohm: float) -> dict[str, object]:
        ends = [(f"{x}.T", "out.T") for x in "ab"]
        resistors = [{"type": "resistor", "a": a, "b": b, "ohm": series_ohm} for a, b in ends] if series_ohm else []
        wires = [] if series_ohm else [{"a": a, "b": b} for a, b in ends]
        return {
            "id": "lead",
            "name": "Y",
            "kind": "box",
            "connectors": [
                *({"id": x, "label": x, "form": "ts635-plug", "side": "in"} for x in "ab"),
                {"id": "out", "label": "out", "form": "ts635-plug", "side": "out"},
            ],
            "wires": [*wires, *({"a": f"{x}.S", "b": "out.S"} for x in "ab")],
            "elements": resistors,
        }

    def run_of(self, series_ohm: float) -> RunAnalysis:
        sources = [unbalanced_source(100, name, min_load_ohm=600) for name in ("one", "two")]
        joins = [("one.out", "lead.a"), ("two.out", "lead.b"), ("lead.out", "receiver.in")]
        receiver = unbalanced_input("ts635-socket", {"in": "T"}, "S", 10_000)
        return solved([*sources, self.y_box(series_ohm), receiver], joins)

    def test_a_passive_y_halves_both_and_each_drives_the_other(self) -> None:
        # Each sees the other's 100 ohm beside 10 kohm.
        load = 1 / (1 / 100 + 1 / 10_000)
        run = self.run_of(0)
        for gain in gains(run):
            self.assertAlmostEqual(gain, db(load / (load + 100)), places=3)
        self.assertAlmostEqual(run.result.sources[0].load_ohm, load, places=2)
        # Each of the two is told apart, or the page could not list both.
        loads = [finding.subject for finding in run.findings if finding.code == "load_low"]
        self.assertEqual(loads, ["one.out", "two.out"])

    def test_series_resistors_spare_the_outputs(self) -> None:
        # 100 + 1000 ohm on either side.
        load = 1 / (1 / 1100 + 1 / 10_000)
        run = self.run_of(1000)
        for gain in gains(run):
            self.assertAlmostEqual(gain, db(load / (load + 1100)), places=3)
        self.assertAlmostEqual(run.result.sources[0].load_ohm, 1000 + load, places=1)
        self.assertNotIn("load_low", codes(run))
        self.assertEqual(len(run.result.sources), 2)

    def test_a_source_that_arrives_nowhere_is_named(self) -> None:
        box = self.y_box(0)
        box["wires"] = [wire for wire in box["wires"] if wire["a"] != "b.T"]  # type: ignore[attr-defined]
        sources = [unbalanced_source(100, name) for name in ("one", "two")]
        joins = [("one.out", "lead.a"), ("two.out", "lead.b"), ("lead.out", "receiver.in")]
        receiver = unbalanced_input("ts635-socket", {"in": "T"}, "S", 10_000)
        self.assertIn("source_lost", codes(solved([*sources, box, receiver], joins)))


class Headsets(unittest.TestCase):
    """Library parts: 2.2 kohm capsules into 2.2 kohm microphone inputs halve."""

    HALF = db(2200 / 4400)

    def test_a_three_contact_lapel_in_a_four_contact_socket_brings_nothing(self) -> None:
        # Its sleeve joins the socket's microphone contact to ground.
        run = solved(["mic-lapel-trs35", "phone-headset"], [("mic-lapel-trs35.plug", "phone-headset.headset")])
        self.assertEqual(codes(run), {"silent", "phantom_missing"})

    def test_a_four_contact_lapel_works(self) -> None:
        run = solved(["mic-lapel-trrs35", "phone-headset"], [("mic-lapel-trrs35.plug", "phone-headset.headset")])
        self.assertAlmostEqual(gains(run)[0], self.HALF, places=3)
        self.assertEqual(codes(run), {"clear"})

    def test_a_splitter_or_a_usb_adapter_makes_the_three_contact_one_work(self) -> None:
        split = solved(
            ["mic-lapel-trs35", "adapter-trrs-split", "phone-headset"],
            [("mic-lapel-trs35.plug", "adapter-trrs-split.mic"), ("adapter-trrs-split.plug", "phone-headset.headset")],
        )
        usb = solved(["mic-lapel-trs35", "usb-sound-adapter"], [("mic-lapel-trs35.plug", "usb-sound-adapter.mic")])
        for run in (split, usb):
            self.assertAlmostEqual(gains(run)[0], self.HALF, places=3)
            self.assertEqual(codes(run), {"clear"})

    def test_crossed_headset_wirings_turn_the_signal_round_and_an_adapter_turns_it_back(self) -> None:
        crossed = solved(
            ["mic-lapel-trrs35", "phone-headset-old"], [("mic-lapel-trrs35.plug", "phone-headset-old.headset")]
        )
        self.assertIn("inverted", codes(crossed))
        mended = solved(
            ["mic-lapel-trrs35", "adapter-trrs-cross", "phone-headset-old"],
            [
                ("mic-lapel-trrs35.plug", "adapter-trrs-cross.in"),
                ("adapter-trrs-cross.out", "phone-headset-old.headset"),
            ],
        )
        self.assertEqual(codes(mended), {"clear"})

    def test_a_four_contact_plug_in_a_shorter_socket_is_uncertain_and_says_what_each_would_do(self) -> None:
        run = solved(
            ["phone-headset", "lead-trrs-trrs", "recorder-pocket"],
            [("phone-headset.headset", "lead-trrs-trrs.in"), ("lead-trrs-trrs.out", "recorder-pocket.in")],
            {"lead-trrs-trrs": 2.0},
        )
        finding = next(one for one in run.findings if one.code == "contact_uncertain")
        self.assertEqual(finding.sentence.count(";"), 2, "three possibilities")


class ManyOnOne(unittest.TestCase):
    def test_a_keyboards_left_mono_socket_with_one_plug_and_with_two(self) -> None:
        # One plug: both sides through 1 kohm each onto 10 kohm || 1 kohm. Two: left alone onto 10 kohm.
        ts = lead("ts635-plug", "ts635-plug", [("in.T", "out.T"), ("in.S", "out.S")])
        receiver = unbalanced_input("ts635-socket", {"in": "T"}, "S", 10_000)
        mono = solved(
            ["keyboard-stereo", ts, receiver], [("keyboard-stereo.left", "lead.in"), ("lead.out", "receiver.in")]
        )
        load = 1 / (1 / 1000 + 1 / 10_000)
        for gain in gains(mono):
            # The library's two sides differ by unknown tenths, which widens the figure a little.
            self.assertAlmostEqual(gain, db(load / (load + 1000)), places=1)
        self.assertEqual(len(mono.result.sources[0].channels), 2)
        second = lead("ts635-plug", "ts635-plug", [("in.T", "out.T"), ("in.S", "out.S")]) | {"id": "lead2"}
        other = unbalanced_input("ts635-socket", {"in": "T"}, "S", 10_000) | {"id": "receiver2"}
        joins = [("keyboard-stereo.left", "lead.in"), ("lead.out", "receiver.in"),
                 ("keyboard-stereo.right", "lead2.in"), ("lead2.out", "receiver2.in")]  # fmt: skip
        both = solved(["keyboard-stereo", ts, second, receiver, other], joins)
        self.assertAlmostEqual(gains(both, 0)[0], db(10_000 / 11_000), places=1)
        self.assertIsNone(both.result.inputs[0].channels[1].in_phase)

    def test_five_earphones_share_one_output(self) -> None:
        # 10 ohm into 32 / 5 ohm; the output is made for 16. The library's 0.1 ohm of shared return is left over.
        phones = [
            unbalanced_input("trs35-plug", {"left": "T", "right": "R"}, "S", 32.0) | {"id": f"ear{n}"}
            for n in range(1, 6)
        ]
        joins = [("laptop-headphone-trs35.phones", "adapter-star-trs35.in")]
        joins += [(f"adapter-star-trs35.s{n}", f"ear{n}.in") for n in range(1, 6)]
        run = solved(["laptop-headphone-trs35", "adapter-star-trs35", *phones], joins)
        self.assertAlmostEqual(gains(run)[0], db(6.4 / 16.4), delta=0.1)
        self.assertIn("load_low", codes(run))
        alone = solved(["laptop-headphone-trs35", phones[0]], [("laptop-headphone-trs35.phones", "ear1.in")])
        self.assertAlmostEqual(gains(alone)[0], db(32 / 42), places=1)
        self.assertNotIn("load_low", codes(alone))


class Pickups(unittest.TestCase):
    def test_a_magnetic_pickup_resonates_with_its_lead(self) -> None:
        # V/E = 1 / ((R + jwL)(1/RL + jwC) + 1): R 6 kohm, L 3 H, C 600 pF, into 1 Mohm and into 10 kohm.
        r, l_, c = 6000.0, 3.0, 600e-12
        source = unbalanced_source(r)
        source["outputs"][0]["channels"] = [{"id": "1", "hot": "out.T", "inner": "coil"}]
        source["elements"] = [
            {"type": "inductor", "a": "coil", "b": "out.T", "henry": l_, "ohm": 0},
            {"type": "capacitor", "a": "out.T", "b": "g", "farad": c},
        ]
        ts = lead("ts635-plug", "ts635-plug", [("in.T", "out.T"), ("in.S", "out.S")])
        for load in (1e6, 1e4):
            receiver = unbalanced_input("ts635-socket", {"in": "T"}, "S", load)
            response = solved([source, ts, receiver], joined("source", "receiver")).result.inputs[0].response
            assert response is not None

            def expected(hz: float, load: float = load) -> float:
                w = 2j * math.pi * hz
                return abs(1 / ((r + w * l_) * (1 / load + w * c) + 1))

            for hz, level in zip(response.frequencies_hz, response.level_db, strict=True):
                self.assertAlmostEqual(level, db(expected(hz) / expected(1000.0)), places=2)

    def test_a_piezo_loses_its_bass_into_a_megohm_and_keeps_it_into_ten(self) -> None:
        # High-pass of 0.6 nF against the load: 265 Hz and 26.5 Hz.
        for load in (1e6, 1e7):
            source = unbalanced_source(0.001)
            source["outputs"][0]["channels"] = [{"id": "1", "hot": "out.T", "inner": "crystal"}]
            source["elements"] = [{"type": "capacitor", "a": "crystal", "b": "out.T", "farad": 0.6e-9}]
            ts = lead("ts635-plug", "ts635-plug", [("in.T", "out.T"), ("in.S", "out.S")])
            receiver = unbalanced_input("ts635-socket", {"in": "T"}, "S", load)
            run = solved([source, ts, receiver], joined("source", "receiver"))
            response = run.result.inputs[0].response
            assert response is not None
            corner = 1 / (2 * math.pi * load * 0.6e-9)
            for hz, level in zip(response.frequencies_hz, response.level_db, strict=True):
                shape = [1 / math.sqrt(1 + (corner / f) ** 2) for f in (hz, 1000.0)]
                self.assertAlmostEqual(level, db(shape[0] / shape[1]), places=2)
            self.assertEqual("thin" in codes(run), load == 1e6)


class Boxes(unittest.TestCase):
    TS = (("in.T", "out.T"), ("in.S", "out.S"))

    def di_into(self, z_ohm: float, **mode: float) -> RunAnalysis:
        receiver = balanced_input(1e12, "XLR", z_ohm)
        receiver["inputs"][0]["modes"][0] |= mode
        joins = [("source.out", "lead.in"), ("lead.out", "di-passive.in"), ("di-passive.out", "input-xlr.in")]
        return solved(
            [unbalanced_source(1000), lead("ts635-plug", "ts635-plug", list(self.TS)), "di-passive", receiver], joins
        )

    def test_a_twelve_to_one_box_starves_a_line_input_and_suits_a_microphone_input(self) -> None:
        # E/12 behind (Zs + Rp) / 144 + Rs, into the input; at 1 kHz the 700 H and 10 pF hardly count.
        inner = (1000 + 1500) / 144 + 25
        for z_ohm in (2000.0, 20_000.0):
            gain = gains(self.di_into(z_ohm))[0]
            self.assertAlmostEqual(gain, db(z_ohm / (z_ohm + inner) / 12), places=1)
        line = self.di_into(20_000.0, nominal_dbu=4, boost_db=24, clip_dbu=22)
        mic = self.di_into(2000.0, nominal_dbu=-40, boost_db=20, clip_dbu=6)
        self.assertIn("level_low", codes(line))
        self.assertEqual(codes(mic), {"clear"})

    def test_a_camera_at_microphone_level_wants_a_pad(self) -> None:
        camera = balanced_input(1e12, "XLR", 2000)
        camera["inputs"][0]["modes"][0] |= {"nominal_dbu": -50, "boost_db": 12, "clip_dbu": -20}
        source = balanced_source("active", 50, peak_dbu=14)
        straight = lead(*XLR, list(BalancedOutputs.STRAIGHT))
        bare = solved([source, straight, camera], joined(source["id"], "input-xlr"))
        self.assertIn("level_clips", codes(bare))
        joins = [(f"{source['id']}.out", "lead.in"), ("lead.out", "pad-40.in"), ("pad-40.out", "input-xlr.in")]
        padded = solved([source, straight, "pad-40", camera], joins)
        # 150 ohm beside 2 kohm, behind 2 x 7.5 kohm and 2 x 50 ohm.
        shunt = 1 / (1 / 150 + 1 / 2000)
        self.assertAlmostEqual(gains(padded)[0], db(shunt / (shunt + 15_000 + 100)), places=2)
        self.assertEqual(codes(padded), {"clear"})
