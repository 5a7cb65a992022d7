"""Each rule fires from a rig through the whole pipeline, and is silent in its neighbour case."""

import string
import unittest
from functools import cache
from typing import Any

from ruvak.core.analyse import Analysis, analyse, prepare
from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Grade
from ruvak.core.judge.registry import RIG_RULES, RULES
from ruvak.core.judge.sentences import CATALOGUE, MINUS, number, signed, written
from ruvak.core.parts.reading import rig_from_document
from ruvak.core.rig.edits import Edit, apply, set_setting
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.values import Value
from tests.support.data_lines import lit
from tests.support.earths import class_1, earthed, outlets, ts_cable, ts_input, ts_source
from tests.support.loudspeakers import speakers
from tests.support.rigs import demo_rig, receiver_part, source_part, stated_rig, wired
from tests.support.wirings import situation, unbalanced_input, unbalanced_source

RETURN = [("in.S", "out1.3"), ("in.S", "out1.1")]
LEFT = [("in.T", "out1.2"), *RETURN]
BOTH_TO_TWO = [("in.T", "out1.2"), ("in.R", "out2.2"), ("in.S", "out1.3"), ("in.S", "out2.3"), ("in.S", "out1.1")]
CROSSED = [("in.R", "out1.2"), ("in.T", "out2.2"), *BOTH_TO_TWO[2:]]
OPPOSED = [("in.T", "out1.2"), ("in.R", "out2.3"), ("in.S", "out1.3"), ("in.S", "out2.2"), ("in.S", "out1.1")]
MONO = source_part(channels=[{"id": "1", "hot": "out.T"}])


def resistor(a: str, b: str, ohm: float) -> dict[str, Any]:
    return {"type": "resistor", "a": a, "b": b, "ohm": ohm}


def coil(saturates_dbu: float) -> dict[str, Any]:
    """A one to one transformer between the adapter's two ends."""
    ends = {"primary_a": "in.T", "primary_b": "in.S", "secondary_a": "out1.2", "secondary_b": "out1.3"}
    return {
        "type": "transformer",
        "turns_ratio": 1,
        "primary_ohm": 1,
        "secondary_ohm": 1,
        "magnetising_h": 100,
        "leakage_h": 0,
        "winding_f": 0,
        "saturates_dbu": saturates_dbu,
        **ends,
    }


def codes(rig: Rig) -> list[str]:
    return codes_in(analyse(rig))


def codes_in(found: Analysis) -> list[str]:
    return [str(one.code) for one in found.findings] + [str(one.code) for one in found.runs[0].findings]


def flipped(gear: str, setting: str, value: bool | str | float) -> Rig:
    return apply(demo_rig(), Edit(label="x", ops=(set_setting(gear, setting, value),)))


def headset(device: str, socket: str) -> tuple[list[dict[str, Any] | str], list[tuple[str, str]]]:
    """A four-contact lapel microphone straight into a device."""
    return ["mic-lapel-trrs35", device], [("mic-lapel-trrs35.plug", f"{device}.{socket}")]


def two_sources(both: bool) -> Rig:
    """Two sources into a box; the second one's core may go nowhere."""
    box = {
        "id": "y",
        "name": "Y",
        "kind": "box",
        "connectors": [
            *({"id": x, "label": x, "form": "ts635-plug", "side": "in"} for x in "ab"),
            {"id": "out", "label": "out", "form": "ts635-plug", "side": "out"},
        ],
        "wires": [{"a": "a.S", "b": "out.S"}, {"a": "b.S", "b": "out.S"}],
        "elements": [resistor("a.T", "out.T", 1000.0), *([resistor("b.T", "out.T", 1000.0)] if both else [])],
    }
    sources = [unbalanced_source(100, name) for name in ("one", "two")]
    receiver = unbalanced_input("ts635-socket", {"in": "T"}, "S", 10_000)
    joins = [("one.out", "y.a"), ("two.out", "y.b"), ("y.out", "receiver.in")]
    return situation([*sources, box, receiver], joins)


def two_earths(volts: float) -> Rig:
    """An unbalanced lead between two outlets that differ by so much."""
    parts = [ts_source("keys", 1000, class_1(1e-3)), ts_input("desk", 1e6, class_1(1e-3)), ts_cable()]
    joins = [[("keys.out1", "lead.in"), ("lead.out", "desk.in1")]]
    at = {"keys": "here", "desk": "there"}
    leads = {"lead": {"part": "lead", "length_m": 10.0}}
    return earthed(parts, joins, leads, at, outlets(here=0.0, there=volts))


def unearthed(is_open: bool) -> Rig:
    """Two earthed devices, the protective earth of one open."""
    rig = two_earths(0.001)
    first = rig.gear[0].model_copy(update={"earth_open": is_open})
    return rig.with_fields(gear=(first, *rig.gear[1:]))


def leaking(many: int, ampere: float) -> Rig:
    """So many two-pin keyboards behind a 30 mA device."""
    rig = two_earths(0.001)
    here = rig.venue.earth[0].model_copy(update={"residual_a": Value(value=0.03)})
    extra = prepare(rig_from_document({
        "format": "ruvak-rig", "version": 2, "id": "x", "name": "x", "venue": {"name": "Hall"},
        "gear": [
            {"id": f"k{n}", "name": f"Keys {n}", "part": "keyboard-stereo", "touch_a": ampere} for n in range(many)
        ],
    }))  # fmt: skip
    plugged = tuple(gear.model_copy(update={"outlet": here.id}) for gear in extra.gear)
    own = tuple(gear.model_copy(update={"touch_a": Value(value=0.0005)}) for gear in rig.gear)
    venue = rig.venue.model_copy(update={"earth": (here, *rig.venue.earth[1:])})
    return rig.with_fields(gear=(*own, *plugged), parts=(*rig.parts, *extra.parts), venue=venue)


def powered(microphone: str = "mic-condenser", switch: bool = True, lead: dict[str, Any] | None = None) -> Rig:
    """A microphone, or something else with three pins, at a desk whose phantom can be switched."""
    leg = lead or {"id": "m", "tag": "M", "part": "mic-lead", "length_m": 10}
    document = {
        "format": "ruvak-rig", "version": 2, "id": "x", "name": "x", "venue": {"name": "Hall"},
        "gear": [
            {"id": "source", "name": "Source", "part": microphone},
            {"id": "desk", "name": "Desk", "part": "desk-digital-16", "settings": {"phantom1": switch}},
        ],
        "kit": [leg],
        "runs": [{
            "id": "r", "number": 1, "name": "R", "pieces": [leg["id"]],
            "joins": [{"a": f"source.{'xlr' if microphone == 'wireless-receiver' else 'out'}", "b": "m.in"},
                      {"a": "m.out", "b": "desk.mic1"}],
        }],
    }  # fmt: skip
    return prepare(rig_from_document(document))


def starved(ampere: float) -> Rig:
    """A microphone that draws so much, through 6.81 kohm a leg."""
    rig = powered()
    parts = []
    for part in rig.parts:
        if part.id == "mic-condenser":
            output = part.outputs[0]
            assert output.type == "balanced" and output.phantom is not None
            need = output.phantom.model_copy(update={"ampere": Value(value=ampere, source="stated")})
            part = part.model_copy(update={"outputs": (output.model_copy(update={"phantom": need}),)})
        parts.append(part)
    return rig.with_fields(parts=tuple(parts))


def sharing(screen_ohm_per_m: float) -> Rig:
    """Two outputs of one player by one lead with one screen into an unbalanced pair."""
    lead = {
        "id": "both", "name": "both", "kind": "lead",
        "connectors": [
            {"id": f"{side}{n}", "label": f"{side}{n}", "form": "ts635-plug", "side": side}
            for side in ("in", "out") for n in (1, 2)
        ],
        "wires": [{"a": f"{side}1.S", "b": f"{side}2.S"} for side in ("in", "out")],
        "cables": [{
            **ts_cable(screen_ohm_per_m=screen_ohm_per_m)["cables"][0],
            "conductors": [
                *({"a": f"in{n}.T", "b": f"out{n}.T", "kind": "core"} for n in (1, 2)),
                {"a": "in1.S", "b": "out1.S", "kind": "screen"},
            ],
        }],
    }  # fmt: skip
    floating = {"earthing": {"type": "floating"}}
    return earthed(
        [ts_source("player", 10, floating, 2), ts_input("desk", 1000, class_1(0.1), 2), lead],
        [[(f"player.out{n}", f"both.in{n}"), (f"both.out{n}", f"desk.in{n}")] for n in (1, 2)],
        {"both": {"part": "both", "length_m": 20.0}},
        gear={"player": {"name": "Player"}},
    )


def amplified(passive: bool) -> Rig:
    """A power amplifier into a loudspeaker, or into a powered one's line input."""
    goal = "loudspeaker-passive" if passive else "amplified-input"
    receiver = {**ts_input("amplified-input", 20_000, class_1(0.1)), "name": "Desk"}
    receiver["connectors"][0]["form"] = "loudspeaker-socket"
    receiver["inputs"][0] |= {"hot": "in1.plus", "common": "in1.minus", "signal": "professional-line"}
    receiver["wires"] = [{"a": "in1.minus", "b": "g"}]
    document = {
        "format": "ruvak-rig", "version": 2, "id": "x", "name": "x", "venue": {"name": "Hall"},
        "parts": [] if passive else [receiver],
        "gear": [
            {"id": "amp", "name": "Amplifier", "part": "amplifier-two-channel"},
            {"id": "goal", "name": "Goal", "part": goal},
        ],
        "kit": [{"id": "m", "tag": "M", "part": "loudspeaker-lead", "length_m": 10}],
        "runs": [{
            "id": "r", "number": 1, "name": "R", "pieces": ["m"],
            "joins": [{"a": "amp.out1", "b": "m.in"}, {"a": "m.out", "b": f"goal.{'in' if passive else 'in1'}"}],
        }],
    }  # fmt: skip
    return prepare(rig_from_document(document))


LINE = ("amplifier-100-v", "loudspeaker-100-v", "loudspeaker-line-0-75", 20.0)
LOW = ("amplifier-two-channel", "loudspeaker-passive")


def pocket(isolated: bool) -> Rig:
    """A pocket player into an earthed desk, straight or through transformers."""
    box = ["isolator-stereo-trs35-xlr"] if isolated else []
    document = {
        "format": "ruvak-rig", "version": 2, "id": "x", "name": "x", "venue": {"name": "Hall"},
        "gear": [
            {"id": "player", "name": "Player", "part": "player-driven-sleeve"},
            {"id": "desk", "name": "Desk", "part": "desk-digital-16"},
        ],
        "kit": [
            {"id": "p", "tag": "P", "part": "lead-trs35-trs35", "length_m": 1.5},
            {"id": "y", "tag": "Y", "part": "lead-trs35-two-ts", "length_m": 3},
            *({"id": "b", "tag": "B", "part": part} for part in box),
        ],
        "runs": [{
            "id": "r", "number": 1, "name": "R", "pieces": ["p", "b"] if isolated else ["y"],
            "joins": [
                {"a": "player.phones", "b": "p.in"}, {"a": "p.out", "b": "b.in"},
                {"a": "b.left", "b": "desk.mic1"}, {"a": "b.right", "b": "desk.mic2"},
            ] if isolated else [
                {"a": "player.phones", "b": "y.in"},
                {"a": "y.left", "b": "desk.line1"}, {"a": "y.right", "b": "desk.line2"},
            ],
        }],
    }  # fmt: skip
    return prepare(rig_from_document(document))


FIRES: dict[str, Rig] = {
    "centre_cancels": demo_rig(),
    # Right upside down at 0.6 of left's level: 0.4 remains of the centre, 8 dB below.
    "centre_weakened": stated_rig(
        wires=[("in.T", "out1.2"), ("in.S", "out1.1")],
        elements=[resistor("in.R", "out1.3", 6667.0)],
        source=source_part(z_ohm=1),
    ),
    "silent": stated_rig(wires=[]),
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
    "one_sided": stated_rig(
        wires=[("in.T", "out1.2"), ("in.S", "out1.1"), ("in.S", "out1.3"), ("in.S", "out2.3"), ("in.S", "out2.1")],
        outs=2, source=MONO, receiver=receiver_part(inputs=2, mix="stereo"),
    ),
}  # fmt: skip
SILENT: dict[str, Rig] = {
    "centre_cancels": stated_rig(wires=LEFT),
    "centre_weakened": stated_rig(wires=LEFT),
    "silent": stated_rig(wires=LEFT),
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
        self.assertEqual([signed(v) for v in (6.02, 0.0, -3.0)], ["+6.0", "0.0", f"{MINUS}3.0"])
