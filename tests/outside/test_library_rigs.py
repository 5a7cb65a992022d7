"""Situations everybody in the trade can work out in their head, from library parts in ordinary rig files."""

import math
import unittest
from typing import Any

from ruvak.core.analyse import RunAnalysis, analyse
from ruvak.core.judge.finding import Grade
from ruvak.core.parts.library import default_assumptions, library
from ruvak.core.parts.reading import rig_from_document
from ruvak.core.prepare import prepare
from ruvak.core.remedies.search import remedies_for
from ruvak.core.results.clamp import earth_from_current
from ruvak.core.results.hum_records import Hum
from ruvak.core.rig.edits import apply
from ruvak.core.rig.rig import Join, Rig
from ruvak.service.demo_data import demo_rig
from tests.support.earths import Doc, outlets, quiet


def dbu(volts: float) -> float:
    return 20 * math.log10(volts / math.sqrt(0.6))


def rig_of(gear: list[Doc], kit: list[Doc], runs: list[tuple[list[str], list[tuple[str, str]]]], **more: Any) -> Rig:
    """Library parts only; assumptions of the library, with the disturbances given (or all off)."""
    disturbances = more.pop("disturbances", quiet())
    assumptions = {**default_assumptions().model_dump(mode="json"), "disturbances": disturbances}
    document = {
        "format": "ruvak-rig",
        "version": 2,
        "id": "library",
        "name": "Library",
        "venue": {"name": "Hall", "earth": more.pop("earth", [])},
        "assumptions": assumptions,
        "gear": gear,
        "kit": [{"tag": one["id"], **one} for one in kit],
        "runs": [
            {
                "id": f"r{n}",
                "number": n,
                "name": f"R{n}",
                "pieces": pieces,
                "joins": [{"a": a, "b": b} for a, b in joins],
            }
            for n, (pieces, joins) in enumerate(runs, 1)
        ],
        **more,
    }
    return prepare(rig_from_document(document))


def run_of(rig: Rig, number: int = 0) -> RunAnalysis:
    return analyse(rig).runs[number]


def hum_at(rig: Rig, number: int = 0) -> Hum:
    found = run_of(rig, number).result.inputs[0].hum
    assert found is not None
    return found


class TwoPinKeyboard(unittest.TestCase):
    """100 microampere through half an ohm of return are 50 microvolt."""

    def rig(self, outlet: str | None = None) -> Rig:
        keys: Doc = {"id": "keys", "name": "Keys", "part": "keyboard-stereo", "touch_a": 1e-4}
        if outlet:
            keys["outlet"] = outlet
        desk = {"id": "desk", "name": "Desk", "part": "desk-digital-16", "outlet": "there"}
        # The keyboard's own return, one contact (cold is the plug's sleeve itself); the rest is the screen's.
        own = library()["keyboard-stereo"].outputs[0]
        assert own.type == "unbalanced"
        screen = library()["lead-ts-ts"].cables[0].screen_ohm_per_m.value
        length_m = (0.5 - 0.01 - own.return_ohm.value) / screen
        return rig_of(
            [keys, desk],
            [{"id": "j", "part": "lead-ts-ts", "length_m": length_m}],
            [(["j"], [("keys.left", "j.in"), ("j.out", "desk.line1")])],
            earth=outlets(here=0.0, there=0.06),
            disturbances=quiet(),
        )

    def test_it_is_minus_83_8_dbu(self) -> None:
        # The input's own impedance takes a little of it behind the keyboard's.
        self.assertAlmostEqual(dbu(1e-4 * 0.5), -83.8, delta=0.05)
        self.assertAlmostEqual(hum_at(self.rig()).likely_dbu, -83.8, delta=0.4)

    def test_moving_it_between_outlets_60_millivolts_apart_changes_nothing(self) -> None:
        self.assertAlmostEqual(hum_at(self.rig("here")).likely_dbu, hum_at(self.rig("there")).likely_dbu, places=6)


class Phantom(unittest.TestCase):
    def rig(self) -> Rig:
        desk: Doc = {"id": "desk", "name": "Desk", "part": "mixer-analogue-12", "settings": {"phantom": True}}
        return rig_of(
            [
                {"id": "choir", "name": "Choir", "part": "mic-condenser"},
                {"id": "singer", "name": "Singer", "part": "mic-dynamic"},
                {"id": "laptop", "name": "Laptop", "part": "laptop-headphone-trs35"},
                desk,
            ],
            [
                {"id": "m1", "part": "mic-lead", "length_m": 1},
                {"id": "m2", "part": "mic-lead", "length_m": 10},
                {"id": "m3", "part": "mic-lead", "length_m": 10},
                {"id": "a", "part": "adapter-trs35-xlr-straight"},
            ],
            [
                (["m1"], [("choir.out", "m1.in"), ("m1.out", "desk.mic1")]),
                (["m2"], [("singer.out", "m2.in"), ("m2.out", "desk.mic2")]),
                (["a", "m3"], [("laptop.phones", "a.in"), ("a.out", "m3.in"), ("m3.out", "desk.mic3")]),
            ],
        )

    def test_a_microphone_of_3_milliamperes_gets_37_8_volts(self) -> None:
        (at,) = run_of(self.rig()).result.phantom
        self.assertAlmostEqual(at.volt, 48 - 0.003 * 6810 / 2, delta=0.02)
        self.assertAlmostEqual(at.volt, 37.8, delta=0.05)

    def test_a_dynamic_on_the_same_bank_is_clear_and_a_laptop_through_tip_2_ring_3_is_a_stop(self) -> None:
        rig = self.rig()
        self.assertEqual(run_of(rig, 1).findings[0].grade, Grade.CLEAR)
        laptop = run_of(rig, 2).findings
        self.assertEqual(laptop[0].grade, Grade.STOP)
        self.assertIn("phantom_harms", {one.code for one in laptop})

    def test_a_network_lead_without_screen_brings_none(self) -> None:
        for lead, arrives in (("network-lead-screened", True), ("network-lead", False)):
            rig = rig_of(
                [
                    {"id": "choir", "name": "Choir", "part": "mic-condenser"},
                    {"id": "desk", "name": "Desk", "part": "desk-digital-16", "settings": {"phantom1": True}},
                ],
                [
                    {"id": "m1", "part": "mic-lead", "length_m": 5},
                    {"id": "m2", "part": "mic-lead", "length_m": 5},
                    {"id": "a", "part": "network-box-in"},
                    {"id": "b", "part": "network-box-out"},
                    {"id": "n", "part": lead, "length_m": 20},
                ],
                [
                    (
                        ["m1", "a", "n", "b", "m2"],
                        [
                            ("choir.out", "m1.in"),
                            ("m1.out", "a.c1"),
                            ("a.net", "n.in"),
                            ("n.out", "b.net"),
                            ("b.c1", "m2.in"),
                            ("m2.out", "desk.mic1"),
                        ],
                    )
                ],
            )
            codes = {one.code for one in run_of(rig).findings}
            self.assertEqual("phantom_missing" not in codes, arrives, lead)


class BetweenCircuits(unittest.TestCase):
    EARTH = outlets(here=0.0, there=0.06)

    def player(self, **more: Any) -> Rig:
        return rig_of(
            [
                {"id": "desk", "name": "Desk", "part": "desk-digital-16", "outlet": "here"},
                {"id": "switcher", "name": "Switcher", "part": "switcher-rca", "outlet": "there"},
            ],
            [
                {"id": "r", "part": "lead-rca-ts-twin", "length_m": 10},
                {"id": "q", "part": "lead-rca-twin", "length_m": 2},
                {"id": "iso", "part": "isolator-rca-twin"},
            ],
            [
                (
                    ["r"],
                    [
                        ("desk.aux1", "r.left-out"),
                        ("desk.aux2", "r.right-out"),
                        ("r.left-in", "switcher.left"),
                        ("r.right-in", "switcher.right"),
                    ],
                )
            ],
            earth=self.EARTH,
            **more,
        )

    def test_a_lead_between_circuits_is_offered_isolation_of_both_its_sides(self) -> None:
        rig = self.player()
        self.assertEqual({one.code for one in run_of(rig).findings if one.code == "hum"}, {"hum"})
        best = next(one for one in remedies_for(rig, "r1") if "isolator" in one.title)
        self.assertTrue(best.helps)
        hums = [one.hum for one in best.after.result.inputs]
        self.assertEqual(len(hums), 2)
        for hum in hums:
            assert hum is not None and hum.below_programme_db is not None
            self.assertGreater(hum.below_programme_db, 80.0)

    def test_a_balanced_line_with_ten_millivolts_common_and_50_db_is_clear_and_no_lift_is_offered(self) -> None:
        # 10 mV x 10^(-50/20) = 31.6 uV: -87.8 dBu.
        rig = rig_of(
            [
                {
                    "id": "desk",
                    "name": "Desk",
                    "part": "desk-digital-16",
                    "outlet": "here",
                    "settings": {"main-fader": -6.0},
                },
                {"id": "speaker", "name": "Speaker", "part": "speaker-powered-two-xlr", "outlet": "there"},
            ],
            [{"id": "m", "part": "mic-lead", "length_m": 15}, {"id": "l", "part": "lift-xlr"}],
            [(["m"], [("desk.main-left", "m.in"), ("m.out", "speaker.in2")])],
            earth=outlets(here=0.0, there=0.01),
        )
        self.assertAlmostEqual(dbu(0.01 * 10 ** (-50 / 20)), -87.8, delta=0.05)
        self.assertEqual([one.code for one in run_of(rig).findings], ["clear"])
        self.assertLess(hum_at(rig).likely_dbu, -87.0)
        self.assertEqual(remedies_for(rig, "r1"), ())

    def test_a_hundred_milliamperes_over_thirty_milliohms_whatever_the_rejection(self) -> None:
        # 0.1 A x 30 mohm: 3 mV, -48.2 dBu (AES48 asks for next to nothing; Muncy 1995 for why).
        for rejection_db in (60.0, 100.0):
            rig = rig_of(
                [
                    {"id": "desk", "name": "Desk", "part": "desk-digital-16", "outlet": "here"},
                    {"id": "loop", "name": "Loop", "part": "hearing-loop-amplifier", "outlet": "there"},
                ],
                [{"id": "m", "part": "mic-lead", "length_m": 15}],
                [(["m"], [("desk.main-left", "m.in"), ("m.out", "loop.in")])],
                earth=outlets(here=0.0, there=0.0),
            )
            document = rig.model_dump(mode="json")
            for part in document["parts"]:
                for receiver in part.get("inputs", []) if part["id"] == "hearing-loop-amplifier" else []:
                    receiver["pin1_ohm"] = {"value": 0.03, "source": "measured"}
                    receiver["modes"][0]["rejection_db"] = {"value": rejection_db, "source": "measured"}
            rig = prepare(rig_from_document(document))
            rig = apply(rig, earth_from_current(rig, "m", 0.1))
            self.assertAlmostEqual(hum_at(rig).likely_dbu, -48.2, delta=0.35)

    def test_of_two_parallel_leads_both_are_isolated(self) -> None:
        # One network: the lead that is left takes the other's share of the current, so one isolator alone is no cure.
        rig = self.player()
        alone = self.hums(rig, ("left",))
        self.assertGreater(alone[1], self.hums(rig, ())[1])
        both = self.hums(rig, ("left", "right"))
        self.assertLess(max(both), self.hums(rig, ())[1] - 30.0)

    def hums(self, rig: Rig, isolated: tuple[str, ...]) -> tuple[float, float]:
        """Hum left and right with these sides through the isolator."""
        joins = [("desk.aux1", "r.left-out"), ("desk.aux2", "r.right-out")]
        for side in ("left", "right"):
            if side in isolated:
                joins += [(f"r.{side}-in", f"iso.{side}-in"), (f"iso.{side}-out", f"q.{side}-in")]
                joins += [(f"q.{side}-out", f"switcher.{side}")]
            else:
                joins += [(f"r.{side}-in", f"switcher.{side}")]
        pieces = ("r", "iso", "q") if isolated else ("r",)
        run = rig.runs[0].model_copy(
            update={"pieces": pieces, "joins": tuple(Join.model_validate({"a": a, "b": b}) for a, b in joins)}
        )
        inputs = analyse(rig.with_fields(runs=(run,))).runs[0].result.inputs
        found = {one.input: one.hum.weighted_dbu for one in inputs if one.hum is not None}
        return found["left"], found["right"]


class BadlyLoopedLine(unittest.TestCase):
    def test_isolating_the_concerts_stream_gains_twenty_decibels_and_more(self) -> None:
        # Opening the screen of a badly looped line improved it by about 21 dB: common practice.
        rig = prepare(demo_rig("midwinter-concert"))
        best = next(one for one in remedies_for(rig, "stream") if one.helps)
        before, after = best.effects[0].before.hum_below_db, best.effects[0].after.hum_below_db
        assert before is not None and after is not None
        self.assertGreater(after - before, 20.0)
