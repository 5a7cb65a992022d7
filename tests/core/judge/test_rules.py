"""Each rule fires from a rig through the whole pipeline, and is silent in its neighbour case."""

import string
import unittest
from functools import cache

from ruvak.core.analyse import Analysis, analyse
from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Grade
from ruvak.core.judge.registry import RIG_RULES, RULES
from ruvak.core.judge.sentences import CATALOGUE, MINUS, number, write_signed, written
from ruvak.core.rig.rig import Condition, Rig
from ruvak.core.rig.wiring_fault import WiringFault
from tests.support.data_lines import lit
from tests.support.finding_rigs import (
    BOTH_TO_TWO,
    CROSSED,
    LEFT,
    LINE,
    LOW,
    MONO,
    OPPOSED,
    RETURN,
    amplified,
    codes,
    codes_in,
    coil,
    flipped,
    headset,
    leaking,
    pocket,
    powered,
    resistor,
    sharing,
    starved,
    two_earths,
    two_into_balanced,
    two_pin,
    two_sources,
    unearthed,
)
from tests.support.loudspeakers import speakers
from tests.support.rigs import demo_rig, receiver_part, source_part, stated_rig, wired
from tests.support.typed import typed_rig
from tests.support.wirings import situation


def open_sleeve(kind: str) -> Rig:
    """A guitar on its amplifier by a lead without its screen, or without its core."""
    rig = typed_rig("guitar > instrument lead > amp")
    lead = rig.part_of(rig.runs[0].pieces[0])
    cable = lead.cables[0]
    kept = tuple(conductor for conductor in cable.conductors if conductor.kind != kind)
    broken = lead.model_copy(update={"cables": (cable.model_copy(update={"conductors": kept}),)})
    return rig.with_fields(parts=tuple(broken if part.id == lead.id else part for part in rig.parts))


def tested() -> Rig:
    """A microphone's lead in which a test showed a fault."""
    rig = typed_rig("dynamic mic > desk 1, 10 m")
    fault = WiringFault.model_validate({"kind": "short", "a": "in.2", "b": "in.1"})
    return rig.with_fields(kit=tuple(item.model_copy(update={"faults": (fault,)}) for item in rig.kit))


def in_condition(condition: Condition) -> Rig:
    """A microphone's lead that somebody marked so."""
    rig = stated_rig(wires=LEFT)
    return rig.with_fields(kit=tuple(item.model_copy(update={"condition": condition}) for item in rig.kit))


FIRES: dict[str, Rig] = {
    "centre_cancels": demo_rig(),
    # Right upside down at 0.6 of left's level: 0.4 remains of the centre, 8 dB below.
    "centre_weakened": stated_rig(
        wires=[("in.T", "out1.2"), ("in.S", "out1.1")],
        elements=[resistor("in.R", "out1.3", 6667.0)],
        source=source_part(z_ohm=1),
    ),
    "silent": stated_rig(wires=[]),
    "hum_alone": open_sleeve("screen"),
    "mono_cancels": stated_rig(wires=OPPOSED, outs=2, receiver=receiver_part(inputs=2, mix="stereo")),
    "side_missing": stated_rig(wires=LEFT),
    "sides_swapped": stated_rig(wires=CROSSED, outs=2, receiver=receiver_part(inputs=2, mix="stereo")),
    "inverted": stated_rig(wires=[("in.T", "out1.3"), ("in.S", "out1.2"), ("in.S", "out1.1")], source=MONO),
    "level_low": stated_rig(wires=LEFT, source=MONO, receiver=receiver_part(boost_db=10)),
    "level_clips": stated_rig(wires=LEFT, source=MONO, receiver=receiver_part(clip_dbu=0)),
    "level_close": stated_rig(wires=LEFT, source=MONO, receiver=receiver_part(clip_dbu=6)),
    "dull": stated_rig(
        wires=LEFT, source=MONO, elements=[{"type": "capacitor", "a": "out1.2", "b": "out1.1", "farad": 2e-7}]
    ),
    "thin": stated_rig(
        wires=RETURN, source=MONO, elements=[{"type": "capacitor", "a": "in.T", "b": "out1.2", "farad": 1e-7}]
    ),
    "not_connected": wired(demo_rig(), runs=[{"id": "slides", "number": 1, "name": "S", "pieces": [], "joins": []}]),
    "clear": stated_rig(wires=LEFT, source=MONO),
    "source_lost": two_sources(both=False),
    "sources_opposed": two_into_balanced("3"),
    "saturates": stated_rig(source=MONO, wires=RETURN, elements=[coil(-20)]),
    "hum": two_earths(0.5),
    "crosstalk": sharing(0.5),
    "amplified_into_input": amplified(passive=False),
    "class_mixed": lit("mic-lead", into_desk=True),
    "sleeve_earthed": pocket(isolated=False),
    "lead_class": lit("mic-lead"),
    "data_open": lit("lead-lighting", ended=0),
    "data_overended": lit("lead-lighting", many=2, ended=2),
    "data_long": lit("lead-lighting", length_m=310),
    "data_loads": lit("lead-lighting", many=33, length_m=2),
    "data_clear": lit("lead-lighting", many=2),
    "phantom_missing": powered(switch=False),
    "phantom_low": starved(0.008),
    "case_live": two_pin(1e-3),
    "phantom_harms": powered("wireless-receiver"),
    "earth_lost": unearthed(True),
    # With half a milliampere of the earthed device behind the same: 9.6 of 30 mA, then 15.5.
    "leak_high": leaking(91, 1e-4),
    "leak_trips": leaking(150, 1e-4),
    "load_low": stated_rig(wires=LEFT, source=source_part(min_load_ohm=600), receiver=receiver_part(z_common_ohm=100)),
    "line_loss": speakers(*LOW, "loudspeaker-line-0-75", 30.0),
    "overpowered": speakers("amplifier-100-v", "loudspeaker-passive", "loudspeaker-lead", 10.0),
    "line_overloaded": speakers(*LINE, many=7, tap="20 W"),
    "line_full": speakers(*LINE, many=5, tap="20 W"),
    "contact_uncertain": situation(
        ["phone-headset", "lead-trrs-trrs", "recorder-pocket"],
        [("phone-headset.headset", "lead-trrs-trrs.in"), ("lead-trrs-trrs.out", "recorder-pocket.in")],
        {"lead-trrs-trrs": 2.0},
    ),
    "unusable": in_condition("faulty"),
    "suspect": in_condition("suspect"),
    "lead_fault": tested(),
    "body_floats": typed_rig("mic > unscreened network box > desk 1"),
    "host_unknown": situation(
        ["usb-sound-adapter", "lead-trs35-two-ts", "mixer-analogue-12"],
        [
            ("usb-sound-adapter.phones", "lead-trs35-two-ts.in"),
            ("lead-trs35-two-ts.left", "mixer-analogue-12.line5"),
            ("lead-trs35-two-ts.right", "mixer-analogue-12.line6"),
        ],
        {"lead-trs35-two-ts": 3.0},
    ),
    "one_sided": stated_rig(
        wires=[("in.T", "out1.2"), ("in.S", "out1.1"), ("in.S", "out1.3"), ("in.S", "out2.3"), ("in.S", "out2.1")],
        outs=2, source=MONO, receiver=receiver_part(inputs=2, mix="stereo"),
    ),
}  # fmt: skip
SILENT: dict[str, Rig] = {
    "unusable": in_condition("suspect"),
    "suspect": in_condition("good"),
    "lead_fault": in_condition("faulty"),
    "centre_cancels": stated_rig(wires=LEFT),
    "centre_weakened": stated_rig(wires=LEFT),
    "silent": stated_rig(wires=LEFT),
    "hum_alone": open_sleeve("core"),
    "mono_cancels": stated_rig(wires=BOTH_TO_TWO, outs=2, receiver=receiver_part(inputs=2, mix="stereo")),
    "side_missing": stated_rig(wires=BOTH_TO_TWO, outs=2, receiver=receiver_part(inputs=2, mix="mono")),
    "sides_swapped": stated_rig(wires=BOTH_TO_TWO, outs=2, receiver=receiver_part(inputs=2, mix="stereo")),
    "inverted": stated_rig(wires=LEFT, source=MONO),
    "level_low": stated_rig(wires=LEFT, source=MONO, receiver=receiver_part(boost_db=15)),
    "level_clips": stated_rig(wires=LEFT, source=MONO, receiver=receiver_part(clip_dbu=6)),
    "level_close": stated_rig(wires=LEFT, source=MONO, receiver=receiver_part(clip_dbu=8)),
    "dull": stated_rig(
        wires=LEFT, source=MONO, elements=[{"type": "capacitor", "a": "out1.2", "b": "out1.1", "farad": 5e-8}]
    ),
    "thin": stated_rig(
        wires=RETURN, source=MONO, elements=[{"type": "capacitor", "a": "in.T", "b": "out1.2", "farad": 1e-6}]
    ),
    "not_connected": demo_rig(),
    "clear": demo_rig(),
    "source_lost": two_sources(both=True),
    "sources_opposed": two_into_balanced("2"),
    "hum": two_earths(0.001),
    "crosstalk": sharing(0.001),
    "amplified_into_input": amplified(passive=True),
    "class_mixed": lit("lead-lighting"),
    "sleeve_earthed": pocket(isolated=True),
    "lead_class": lit("lead-lighting"),
    "data_open": lit("lead-lighting"),
    "data_overended": lit("lead-lighting", many=2),
    "data_long": lit("lead-lighting", length_m=290),
    "data_loads": lit("lead-lighting", many=3),
    "data_clear": lit("mic-lead"),
    "phantom_missing": powered(),
    "phantom_low": starved(0.003),
    "case_live": two_pin(1e-4),
    "phantom_harms": powered("mic-dynamic"),
    "saturates": stated_rig(source=MONO, wires=RETURN, elements=[coil(30)]),
    "earth_lost": unearthed(False),
    "leak_high": leaking(84, 1e-4),
    "leak_trips": leaking(140, 1e-4),
    "load_low": stated_rig(wires=LEFT, source=source_part(min_load_ohm=600)),
    "line_loss": speakers(*LOW, "loudspeaker-lead", 30.0),
    "overpowered": speakers(*LOW, "loudspeaker-lead", 10.0),
    "line_overloaded": speakers(*LINE, many=5, tap="20 W"),
    "line_full": speakers(*LINE, many=7, tap="10 W"),
    "contact_uncertain": situation(*headset("phone-headset", "headset")),
    # A lapel microphone closes no loop, whatever the computer is plugged into.
    "body_floats": typed_rig("mic > network box > desk 1"),
    "host_unknown": situation(
        ["mic-lapel-trs35", "usb-sound-adapter"], [("mic-lapel-trs35.plug", "usb-sound-adapter.mic")]
    ),
    "one_sided": stated_rig(wires=BOTH_TO_TWO, outs=2, receiver=receiver_part(inputs=2, mix="stereo")),
}


@cache
def fires(code: str) -> Analysis:
    """Solved once for all the tests that look at it."""
    return analyse(FIRES[code])


class Rules(unittest.TestCase):
    def test_every_code_of_the_catalogue_has_its_two_cases(self) -> None:
        self.assertEqual(set(FIRES), set(CATALOGUE))
        self.assertEqual(set(SILENT), set(CATALOGUE))

    def test_each_fires(self) -> None:
        for code in FIRES:
            self.assertIn(code, codes_in(fires(code)), code)

    def test_each_is_silent_next_door(self) -> None:
        for code, rig in SILENT.items():
            self.assertNotIn(code, codes(rig), code)

    def test_every_rule_of_the_registry_fires_somewhere(self) -> None:
        fired = set()
        for code, rig in FIRES.items():
            analysis = fires(code)
            for rule in RULES:
                if list(rule(rig, analysis.runs[0].result)):
                    fired.add(rule)
        self.assertEqual(fired, set(RULES))
        self.assertEqual({rule for rule in RIG_RULES for rig in FIRES.values() if list(rule(rig))}, set(RIG_RULES))

    def test_what_is_said_of_the_rig_is_said_once_and_counted(self) -> None:
        rig = unearthed(True)
        found = analyse(rig)
        self.assertEqual(
            [(one.code, one.gear, one.runs) for one in found.findings], [("earth_lost", ("keys",), ("run1",))]
        )
        others = [run.findings[0].grade for run in found.runs]
        self.assertEqual(found.verdict.stop, 1 + others.count(Grade.STOP))

    def test_copper_is_told_once_a_row_of_the_loudspeaker_that_loses_most(self) -> None:
        (said,) = analyse(speakers(*LOW, "loudspeaker-line-0-75", 20.0, many=3)).runs[0].findings
        self.assertEqual((said.code, said.grade, said.subject), ("line_loss", Grade.FIX, "s3.in"))
        self.assertRegex(said.sentence, "^At S3 .*; on the way it costs S2 4.0.dB and S1 2.3.dB\\.$")

    def test_leakage_counts_what_no_run_touches_and_only_what_is_behind_the_device(self) -> None:
        rig = leaking(100, 1e-4)
        self.assertEqual(len(analyse(rig).findings[0].gear), 101)
        elsewhere = tuple(gear.model_copy(update={"outlet": rig.venue.earth[1].id}) for gear in rig.gear[2:])
        self.assertEqual(analyse(rig.with_fields(gear=(*rig.gear[:2], *elsewhere))).findings, ())

    def test_advice_that_can_hurt_carries_its_caution(self) -> None:
        for code, words in (("hum", "mains earth"), ("phantom_missing", "Mute"), ("line_overloaded", "licensed")):
            said = next(one for one in analyse(FIRES[code]).runs[0].findings if one.code == code)
            self.assertIn(words, said.caution, code)


class Uncertain(unittest.TestCase):
    def test_what_comes_to_the_same_whatever_meets_is_not_worth_a_word(self) -> None:
        self.assertNotIn("contact_uncertain", codes(situation(*headset("usb-sound-adapter", "mic"))))


class Grading(unittest.TestCase):
    def test_a_lost_centre_stops(self) -> None:
        self.assertIs(analyse(demo_rig()).runs[0].findings[0].grade, Grade.STOP)
        self.assertEqual(analyse(demo_rig()).verdict.model_dump(), {"stop": 1, "fix": 0, "watch": 0, "clear": 0})

    def test_a_cancelled_centre_is_not_also_called_too_quiet(self) -> None:
        self.assertEqual(codes(demo_rig()), ["centre_cancels"])

    def test_mono_into_this_wiring_is_silent_and_says_why(self) -> None:
        finding = analyse(flipped("laptop", "mono", True)).runs[0].findings[0]
        self.assertEqual((finding.code, finding.grade), ("silent", Grade.STOP))
        self.assertIn("Switch mono off", finding.advice)

    def test_a_mono_source_setting_has_no_missing_side(self) -> None:
        mono = source_part(mono_setting="mono") | {
            "settings": [{"type": "switch", "id": "mono", "label": "Mono", "default": True}]
        }
        self.assertEqual(codes(stated_rig(wires=LEFT, source=mono)), ["clear"])

    def test_worst_first(self) -> None:
        both = stated_rig(wires=LEFT, receiver=receiver_part(clip_dbu=0))
        self.assertEqual(codes(both), ["level_clips", "side_missing"])


class Words(unittest.TestCase):
    def test_every_finding_reads_as_sentences_without_holes(self) -> None:
        for code in FIRES:
            found = fires(code)
            said = [text for one in found.findings for text in (one.sentence, one.advice)]
            for one in found.runs[0].findings:
                said += [one.sentence, one.advice, *([one.caution] if one.caution else [])]
            for text in said:
                self.assertRegex(text, r"^[A-Z].*\.$")
                self.assertNotRegex(text, r"[{}]|nan|inf\b|None")
                self.assertNotIn(" -", text.replace(" - ", ""), "a true minus sign")

    def test_the_first_sentence_carries_the_figures(self) -> None:
        sentence = analyse(demo_rig()).runs[0].findings[0].sentence
        self.assertIn("32.6\N{NO-BREAK SPACE}dB", sentence)
        self.assertIn("23.2\N{NO-BREAK SPACE}dB", sentence)

    def test_templates_use_only_named_parameters(self) -> None:
        for words in CATALOGUE.values():
            for text in (words.sentence, words.advice, words.caution):
                for _, name, spec, conversion in string.Formatter().parse(text):
                    self.assertFalse(spec or conversion, text)
                    self.assertTrue(name is None or name.isidentifier(), text)
        with self.assertRaises(KeyError):
            written(FindingCode.CLEAR, {})

    def test_numbers(self) -> None:
        self.assertEqual([number(v) for v in (-12.34, 0.04, -0.04, 123.4)], [f"{MINUS}12.3", "0.0", "0.0", "123"])
        self.assertEqual([write_signed(v) for v in (6.02, 0.0, -3.0)], ["+6.0", "0.0", f"{MINUS}3.0"])
