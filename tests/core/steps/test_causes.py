"""What a broken conductor sounds like, by solving it. The expected symptoms are common practice of lead repair: an
unbalanced lead is silent without its tip and hums without its sleeve; a balanced line from an earth-referenced driver
loses about half its voltage (6 dB) with one core open; a dynamic microphone, which floats, is nearly silent then; a
condenser microphone is silent without its screen, which carries the phantom supply's return."""

import unittest
from functools import cache

from ruvak.core.analyse import Analysis, analyse, quick_verdicts
from ruvak.core.judge.symptoms import symptoms
from ruvak.core.rig.edits import Edit, SetField, apply
from ruvak.core.rig.prune import prune
from ruvak.core.rig.rig import Rig
from ruvak.core.steps.broken import broken_leads
from ruvak.core.steps.card import CheckCard, check_card
from ruvak.core.steps.causes import LikelyCause, likely_causes
from tests.support.entry import entry_rig
from tests.support.rigs import demo_rig
from tests.support.typed import read_all


@cache
def rig_of(line: str) -> Rig:
    (reading,) = read_all(entry_rig(), line)
    assert reading.edit is not None, reading.sentence
    return apply(entry_rig(), reading.edit)


@cache
def solved(line: str) -> Analysis:
    return analyse(rig_of(line))


def heard(line: str) -> dict[tuple[str, str], tuple[str, ...]]:
    """By piece and contact."""
    rig = rig_of(line)
    run = rig.runs[-1]
    alone = rig.with_fields(runs=(run,))
    (right,) = quick_verdicts(prune(alone))
    return {
        (broken.item.tag, broken.contact): symptoms(right, quick_verdicts(prune(broken.rig))[0])
        for broken in broken_leads(alone, run)
    }


def causes(line: str) -> tuple[LikelyCause, ...]:
    rig = rig_of(line)
    return likely_causes(rig, rig.runs[-1].id, solved(line))


def card(line: str) -> CheckCard:
    rig = rig_of(line)
    return check_card(rig, rig.runs[-1], solved(line).runs[-1], causes(line))


class BrokenConductors(unittest.TestCase):
    def test_an_unbalanced_lead_is_silent_without_its_tip_and_hums_without_its_screen(self) -> None:
        said = {contact: what for (_, contact), what in heard("Guitar > Guitar amp, 6 m").items()}
        self.assertIn("silent", said["tip"])
        self.assertIn("hum", said["screen"])

    def test_a_dynamic_microphone_is_silent_or_thin_with_one_core_open(self) -> None:
        said = {contact: what for (_, contact), what in heard("Lead vocal > Desk 1, 10 m").items()}
        for contact in ("pin 2", "pin 3"):
            self.assertTrue({"silent", "thin", "weak"} & set(said[contact]), said)
        self.assertNotIn("silent", said["screen"])

    def test_a_condenser_microphone_is_silent_without_its_screen(self) -> None:
        said = {contact: what for (_, contact), what in heard("Choir 1 > Desk 1, 10 m, phantom").items()}
        self.assertIn("silent", said["screen"])

    def test_a_driver_referenced_to_earth_loses_half_or_more_with_one_core_open(self) -> None:
        # Half of the voltage, 6 dB, where nothing joins the input's legs; 20 lg 2(1 + R_common/R_between) where a
        # resistor does (a divider, by hand): 12 dB where the two are equal.
        rig = rig_of("Desk main left > Left speaker, 20 m")
        run = rig.runs[-1]
        alone = rig.with_fields(runs=(run,))
        (right,) = quick_verdicts(prune(alone))
        for broken in broken_leads(alone, run):
            if broken.contact in ("pin 2", "pin 3"):
                (wrong,) = quick_verdicts(prune(broken.rig))
                (before,), (after,) = (
                    [channel.gain_db for channel in verdict.result.inputs[0].channels] for verdict in (right, wrong)
                )
                self.assertTrue(6.0 <= round(before - after, 1) < 15.0, (broken.contact, before - after))
                self.assertIn("weak", symptoms(right, wrong))

    def test_one_of_two_sides_gone_is_one_side_and_not_silence(self) -> None:
        said = heard("Keys L/R > Desk 7/8, 6 m")
        tips = [what for (_, contact), what in said.items() if contact == "tip"]
        self.assertTrue(tips)
        for what in tips:
            self.assertIn("one_side", what)
            self.assertNotIn("silent", what)


class Causes(unittest.TestCase):
    def test_shares_of_a_symptom_are_at_most_one_and_the_likeliest_comes_first(self) -> None:
        by_symptom: dict[str, list[float]] = {}
        for cause in causes("Lead vocal > Desk 1, 10 m"):
            by_symptom.setdefault(cause.heard, []).append(cause.share)
        for shares in by_symptom.values():
            self.assertLessEqual(sum(shares), 1.003)
            self.assertEqual(shares, sorted(shares, reverse=True))
        self.assertLessEqual({"silent", "crackle", "weak", "distorted"}, set(by_symptom))

    def test_a_suspect_lead_comes_before_everything_else_that_is_silent(self) -> None:
        rig = rig_of("Lead vocal > Desk 1, 10 m")
        run = rig.runs[-1]
        suspect = Edit(label="x", ops=(SetField(kind="kit", id=run.pieces[0], field="condition", value="suspect"),))
        marked = apply(rig, suspect)
        silent = [each for each in likely_causes(marked, run.id) if each.heard == "silent"]
        self.assertEqual(silent[0].things, (run.pieces[0],))

    def test_a_switch_in_another_position_is_named(self) -> None:
        phantom = [each for each in causes("Choir 1 > Desk 1, 10 m, phantom") if "hantom" in each.words]
        self.assertEqual([each.heard for each in phantom], ["silent"])

    def test_each_symptom_has_something_to_look_at(self) -> None:
        for name in ("lantern-evening", "midwinter-concert"):
            rig = demo_rig(name)
            solved = analyse(rig)
            for run in (rig.runs[0], rig.runs[-1], *(run for run in rig.runs if run.id in ("stream", "slides"))):
                heard = {cause.heard for cause in likely_causes(rig, run.id, solved)}
                self.assertLessEqual({"silent", "one_side", "thin", "hum", "weak", "distorted"}, heard, run.id)

    def test_what_was_computed_of_the_run_as_planned_comes_first(self) -> None:
        rig = demo_rig("midwinter-concert")
        causes = likely_causes(rig, "stream", analyse(rig))
        hum = next(each for each in causes if each.heard == "hum")
        self.assertIn("the two ends stand on different earths", hum.words)
        self.assertGreater(hum.share, 0.5)

    def test_a_failing_supply_hums_where_it_gives_line_level(self) -> None:
        # Common practice: ripple is in series with what a device gives, so it is heard from a desk and a receiver.
        rig = demo_rig("midwinter-concert")
        supply = [each for each in likely_causes(rig, "main-left") if "supply of Desk" in each.words]
        self.assertEqual([each.heard for each in supply], ["hum"])

    def test_lamps_are_asked_for_lamps(self) -> None:
        rig = demo_rig("midwinter-concert")
        causes = likely_causes(rig, "lights", analyse(rig))
        self.assertEqual({each.heard for each in causes}, {"silent", "crackle"})
        self.assertTrue(any("terminator" in each.words for each in causes))
        self.assertTrue(any("address" in each.words for each in causes))

    def test_an_unknown_run_is_refused(self) -> None:
        with self.assertRaises(KeyError):
            likely_causes(entry_rig(), "nobody")


class Cards(unittest.TestCase):
    def test_it_says_where_to_make_a_sound_where_to_listen_and_what_the_meter_reads(self) -> None:
        made = card("Lead vocal > Desk 1, 10 m")
        self.assertIn("Lead vocal", made.source)
        self.assertIn("Desk", made.into)
        (at,) = made.expected
        self.assertEqual(at.meter.average_dbfs, -20.0)
        # Common practice: a microphone gives some -60 to -30 dBu.
        assert at.arriving_dbu is not None
        self.assertTrue(-65.0 < at.arriving_dbu < -25.0, at)
        self.assertEqual(made.phantom, "")

    def test_a_condenser_says_that_it_needs_phantom_with_its_channel_muted(self) -> None:
        self.assertIn("mute the channel", card("Choir 1 > Desk 1, 10 m, phantom").phantom)
