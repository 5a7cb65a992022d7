"""A fault that a test showed goes through trace, solution and judgement of every run that uses the lead."""

import unittest

from ruvak.core.analyse import RunAnalysis, analyse
from ruvak.core.errors import RigFault
from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.prepare import prepare
from ruvak.core.rig.edits import Edit, SetField, apply
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.wiring_fault import WiringFault
from tests.support.typed import typed_rig
from tests.support.wirings import balanced_input, balanced_source, situation

ONE_OF_TWO_LEGS_DB = 6.02
"""20 lg 2: of two equal halves of a signal one arrives."""


def fault(kind: str, a: str, b: str) -> WiringFault:
    return WiringFault.model_validate({"kind": kind, "a": a, "b": b})


def with_fault(rig: Rig, *faults: WiringFault) -> Rig:
    """The rig with these faults in the first lead of its first run."""
    first = next(piece for piece in rig.runs[0].pieces if rig.part_of(piece).kind == "lead")
    kit = tuple(item.model_copy(update={"faults": faults}) if item.id == first else item for item in rig.kit)
    return prepare(rig.with_fields(kit=kit))


def analysed(line: str, *faults: WiringFault) -> RunAnalysis:
    return analyse(with_fault(typed_rig(line), *faults)).runs[0]


def said(run: RunAnalysis) -> Finding:
    return next(finding for finding in run.findings if finding.code is FindingCode.LEAD_FAULT)


def codes(run: RunAnalysis) -> set[FindingCode]:
    return {finding.code for finding in run.findings}


class Heard(unittest.TestCase):
    """Common practice: what each fault of a lead does to whom."""

    def test_unbalanced_a_broken_tip_is_silent_and_a_broken_sleeve_hums(self) -> None:
        line = "guitar > instrument lead > amp"
        silent = analysed(line, fault("open", "in.T", "out.T"))
        self.assertIn("It will be silent.", said(silent).sentence)
        self.assertIn(FindingCode.SILENT, codes(silent))
        hums = analysed(line, fault("open", "in.S", "out.S"))
        self.assertIn("full of hum", said(hums).sentence)
        self.assertIn(FindingCode.HUM, codes(hums))

    def test_a_dynamic_microphone_with_one_core_open_is_nearly_silent_and_thin(self) -> None:
        run = analysed("dynamic mic > desk 1, 10 m", fault("open", "in.2", "out.2"))
        self.assertIn("nearly silent", said(run).sentence)
        self.assertIn(FindingCode.THIN, codes(run))

    def test_an_open_screen_loses_phantom_and_may_be_inaudible_otherwise(self) -> None:
        screen = fault("open", "in.1", "out.1")
        self.assertIn("Phantom does not arrive", said(analysed("condenser mic > desk 1, 10 m", screen)).sentence)
        self.assertIn("unnoticed", said(analysed("dynamic mic > desk 1, 10 m", screen)).sentence)

    def test_cores_exchanged_reverse_the_polarity(self) -> None:
        run = analysed("dynamic mic > desk 1, 10 m", fault("exchanged", "in.2", "in.3"))
        self.assertIn(FindingCode.INVERTED, codes(run))

    def test_what_comes_and_goes_is_watched_and_changes_nothing_else(self) -> None:
        line = "dynamic mic > desk 1, 10 m"
        run = analysed(line, fault("flickers", "in.2", "out.2"))
        self.assertEqual((said(run).grade, run.result), (Grade.WATCH, analysed(line).result))
        self.assertIn("crackle", said(run).sentence)


class Figures(unittest.TestCase):
    def test_of_a_driver_on_the_ground_one_leg_arrives_six_decibels_down(self) -> None:
        """With a receiver whose legs lead to the ground alone, as an instrumentation amplifier's do."""
        lead = "mic-lead"
        joins = [("source-active.out", f"{lead}.in"), (f"{lead}.out", "input-xlr.in")]
        rig = situation([balanced_source("active", 50.0), lead, balanced_input(20_000.0)], joins)
        sound, broken = (
            analyse(with_fault(rig, *faults)).runs[0] for faults in ((), (fault("open", "in.3", "out.3"),))
        )
        loss_db = sound.result.inputs[0].channels[0].gain_db - broken.result.inputs[0].channels[0].gain_db
        self.assertAlmostEqual(loss_db, ONE_OF_TWO_LEGS_DB, delta=0.05)


class Kept(unittest.TestCase):
    def test_the_drawing_shows_the_gap(self) -> None:
        sound = analysed("dynamic mic > desk 1, 10 m").drawing
        broken = analysed("dynamic mic > desk 1, 10 m", fault("open", "in.2", "out.2")).drawing
        self.assertNotEqual(sound, broken)

    def test_the_part_itself_stays_as_it_is(self) -> None:
        rig = with_fault(typed_rig("dynamic mic > desk 1, 10 m"), fault("short", "in.1", "in.2"))
        item = rig.kit[0]
        self.assertNotEqual(rig.part_of(item.id), rig.parts_by_id[item.part])
        self.assertEqual(rig.parts_by_id[item.part].id, "mic-lead")

    def test_a_fault_at_a_contact_that_is_not_there_is_refused(self) -> None:
        rig = typed_rig("dynamic mic > desk 1, 10 m")
        faults = [{"kind": "open", "a": "in.9", "b": "out.9"}]
        op = SetField(kind="kit", id=rig.runs[0].pieces[0], field="faults", value=faults)
        with self.assertRaises(RigFault) as raised:
            apply(rig, Edit(label="test", ops=(op,)))
        self.assertIn("no contact 'in.9'", str(raised.exception.faults[0].sentence))

    def test_of_a_multicore_only_the_runs_of_that_line_change(self) -> None:
        rig = typed_rig("dynamic mic > 24 way multicore 3 > desk 3", "another dynamic mic > multicore 4 > desk 4")
        (piece,) = {p for p in rig.runs[0].pieces if p in rig.runs[1].pieces}
        faults = (fault("open", "s3.2", "t3.2"),)
        kit = tuple(item.model_copy(update={"faults": faults}) if item.id == piece else item for item in rig.kit)
        before, after = (
            [run.result.inputs[0].channels[0].gain_db for run in analyse(each).runs]
            for each in (rig, prepare(rig.with_fields(kit=kit)))
        )
        self.assertLess(after[0], before[0] - 20.0)
        self.assertAlmostEqual(after[1], before[1], delta=0.1)
