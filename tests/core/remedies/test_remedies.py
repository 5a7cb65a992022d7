"""Remedies of the demo: found by what plugs into what, solved, ranked, and honest about what does not help."""

import unittest

from ruvak.core.analyse import analyse
from ruvak.core.analysis_cache import AnalysisCache
from ruvak.core.entry.reader import read
from ruvak.core.judge.finding import Grade
from ruvak.core.pieces.cures import is_light_load
from ruvak.core.remedies.remedy import Remedy
from ruvak.core.remedies.search import first_remedy, remedies_for
from ruvak.core.rig.edits import Edit, RemoveThing, apply, set_setting
from ruvak.core.rig.rig import KitItem, Rig
from tests.support.rigs import demo_rig, receiver_part, source_part, stated_rig, wired

LEFT = [("in.T", "out1.2"), ("in.S", "out1.3"), ("in.S", "out1.1")]


def parts_used(rig: Rig, remedy: Remedy) -> set[str]:
    after = apply(rig, remedy.edit)
    owners = {item.id: item.part for item in after.kit}
    return {owners[piece] for piece in after.runs[0].pieces}


class DemoRemedies(unittest.TestCase):
    found: tuple[Remedy, ...]

    @classmethod
    def setUpClass(cls) -> None:
        cls.found = remedies_for(demo_rig(), "slides")

    def using(self, part: str) -> Remedy:
        return next(one for one in self.found if part in parts_used(demo_rig(), one))

    def test_the_best_is_in_the_kit_and_takes_one_swap(self) -> None:
        best = self.found[0]
        self.assertIn("adapter-trs35-xlr-sum", parts_used(demo_rig(), best))
        self.assertTrue(all(piece.in_kit for piece in best.pieces))
        self.assertEqual(best.changes, 2)

    def test_the_sum_brings_the_centre_back(self) -> None:
        effect = self.using("adapter-trs35-xlr-sum").effects[0]
        self.assertAlmostEqual(effect.after.centre_db or 0, 6.0, delta=0.1)
        self.assertEqual(effect.after.codes, ("clear",))

    def test_an_isolator_or_a_split_lead_takes_two_inputs(self) -> None:
        for part in ("isolator-stereo-trs35-xlr", "lead-trs35-two-xlr"):
            remedy = self.using(part)
            self.assertTrue(remedy.helps)
            self.assertEqual({one.input for one in remedy.after.result.inputs}, {"in1", "in2"})
            self.assertAlmostEqual(remedy.effects[0].after.centre_db or 0, 6.0, delta=0.1)

    def test_one_side_only_is_offered_with_the_source_in_mono_so_that_nothing_goes_unheard(self) -> None:
        one_side = [one for one in self.found if "adapter-trs35-xlr-left" in parts_used(demo_rig(), one)]
        ended = {one.effects[0].after.codes for one in one_side}
        self.assertEqual(ended, {("clear",)})
        self.assertTrue(all("Mono sound on" in one.title for one in one_side))

    def test_the_mono_switch_is_named_as_no_help_because_it_silences(self) -> None:
        last = self.found[-1]
        self.assertFalse(last.helps)
        self.assertIn(set_setting("laptop", "mono", True), last.edit.ops)
        self.assertTrue(last.effect.startswith("Silences it"))
        self.assertEqual(last.effects[0].after.codes, ("silent",))

    def test_each_does_exactly_what_it_promised(self) -> None:
        for remedy in self.found:
            after = analyse(apply(demo_rig(), remedy.edit))
            self.assertEqual(after.runs[0], remedy.after)
            self.assertEqual(after.verdict, remedy.verdict)

    def test_a_rewiring_reaches_as_far_as_the_old_one(self) -> None:
        for remedy in self.found:
            lengths = {piece.owner: piece.length_m or 0.0 for piece in remedy.after.drawing.pieces}
            self.assertGreaterEqual(max(lengths.values()), 15.0, remedy.title)

    def test_no_remedy_twice(self) -> None:
        self.assertEqual(len({one.id for one in self.found}), len(self.found))
        self.assertEqual(len({(one.title, one.detail) for one in self.found}), len(self.found))


class Otherwise(unittest.TestCase):
    def test_a_clear_run_needs_none(self) -> None:
        best = remedies_for(demo_rig(), "slides")[0]
        self.assertEqual(remedies_for(apply(demo_rig(), best.edit), "slides"), ())

    def test_the_first_clears_the_run_and_is_among_all_of_them(self) -> None:
        first = first_remedy(demo_rig(), "slides")
        assert first is not None
        self.assertEqual((first.helps, first.after.findings[0].grade), (True, Grade.CLEAR))
        self.assertIn(first.id, [one.id for one in remedies_for(demo_rig(), "slides")])
        self.assertIsNone(first_remedy(apply(demo_rig(), first.edit), "slides"))

    def test_an_analysis_at_hand_changes_nothing(self) -> None:
        cache = AnalysisCache()
        known = analyse(demo_rig(), cache)
        self.assertEqual(remedies_for(demo_rig(), "slides", known, cache), remedies_for(demo_rig(), "slides"))

    def test_an_unknown_run_is_a_key_error(self) -> None:
        with self.assertRaises(KeyError):
            remedies_for(demo_rig(), "nothing")

    def test_what_is_not_in_the_kit_is_said_to_be_got(self) -> None:
        poor = apply(demo_rig(), Edit(label="x", ops=(RemoveThing(kind="kit", id="adapter-7"),)))
        sums = [one for one in remedies_for(poor, "slides") if "adapter-trs35-xlr-sum" in parts_used(poor, one)]
        self.assertFalse(any(piece.in_kit for piece in sums[0].pieces))
        self.assertFalse(
            next(item for item in apply(poor, sums[0].edit).kit if item.id == sums[0].pieces[0].item).owned
        )

    def test_a_clipping_input_is_cured_by_its_switch_or_the_volume(self) -> None:
        best = next(one for one in remedies_for(demo_rig(), "slides") if one.helps)
        loud = apply(apply(demo_rig(), best.edit),
                     Edit(label="x", ops=(set_setting("speaker", "input1", "mic"),)))  # fmt: skip
        self.assertEqual(analyse(loud).runs[0].findings[0].code, "level_clips")
        titles = [one.title for one in remedies_for(loud, "slides") if one.helps]
        self.assertIn("Left speaker: Input 1 switch line", titles)
        self.assertTrue(any("Volume" in title for title in titles), titles)

    def test_a_hopeless_run_gets_nothing_rather_than_nonsense(self) -> None:
        quiet = stated_rig(wires=LEFT, source=source_part(nominal_dbu=-90), receiver=receiver_part(boost_db=1))
        for one in remedies_for(quiet, "run"):
            self.assertIsNot(one.effects[0].after.grade, Grade.CLEAR)

    def test_a_dull_guitar_gets_its_box_near_the_guitar(self) -> None:
        empty = wired(demo_rig(), gear=[], kit=[], runs=[], parts=[])
        rig = apply(
            empty, read(empty, "guitar > mono jack to XLR > small desk mic 2, 8 m").edit or self.fail("not read")
        )
        self.assertEqual(analyse(rig).runs[0].findings[0].code, "dull")
        best = first_remedy(rig, "guitar")
        assert best is not None
        self.assertIs(best.after.findings[0].grade, Grade.CLEAR)
        after = apply(rig, best.edit)
        pieces = [after.owners_by_id[piece] for piece in after.runs[0].pieces]
        lead, box, last = (one for one in pieces if isinstance(one, KitItem))
        self.assertTrue(is_light_load(after.part_of(box.id)))
        self.assertLessEqual(lead.length_m or 0.0, 3.0)
        self.assertEqual(last.part, "mic-lead")
