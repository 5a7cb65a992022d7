"""The pull list on a real database: rigs of one day share the cupboard, and taking it changes their runs."""

from datetime import timedelta

from ruvak.core.analyse import analyse
from ruvak.core.judge.codes import FindingCode
from ruvak.core.prepare import prepare
from ruvak.core.pull.pull_list import PullList
from ruvak.core.rig.rig import Rig
from ruvak.service.pool import InPlace
from ruvak.service.pulling import Pulling
from tests.support.house import ADA, HouseTest

MIC = "vocal mic > desk 1, 8 m"


class Pull(HouseTest):
    def go_on(self) -> None:
        super().go_on()
        self.pulling = Pulling(self.edits, InPlace(self.computer))

    def read(self, rig: str, spare_m: float = 0.0) -> PullList:
        return self.computer.pull(rig, spare_m).list

    def given(self, rig: str) -> list[list[str]]:
        return [[lead.tag for lead in line.leads] for line in self.read(rig).lines if line.rig == rig]

    def leads_of(self, rig_id: str) -> list[list[str]]:
        rig = self.rigs.export(rig_id)
        tags = {item.id: item.tag for item in rig.kit}
        return [[tags[piece] for piece in run.pieces] for run in rig.runs]

    def sound(self, rig_id: str) -> Rig:
        rig = prepare(self.rigs.export(rig_id))
        self.assertNotIn(FindingCode.NOT_CONNECTED, [run.findings[0].code for run in analyse(rig).runs])
        return rig

    def test_what_was_to_be_got_comes_from_the_cupboard_that_was_filled_since(self) -> None:
        rig = self.new_rig("Sunday")
        self.type(rig, MIC, "second mic > desk 2, 12 m", "guitar > di > desk 3, 5 m")
        before = self.read(rig)
        self.assertEqual(sum(short.count for short in before.shortages if short.length_m), 4)
        self.cupboard.add("M1: 10 m mic lead\nM2: 20 m mic lead\nM3-M4: 6 m mic leads\nJ1: 6 m instrument lead", ADA)
        self.assertEqual(self.given(rig)[:2], [["M1"], ["M2"]])
        self.assertEqual(self.pulling.take(rig, 0.0, ADA).rigs, (rig,))
        self.assertEqual(self.leads_of(rig)[:2], [["M1"], ["M2"]])
        self.sound(rig)
        self.assertEqual(self.pulling.take(rig, 0.0, ADA).rigs, ())
        self.edits.undo(rig, ADA)
        self.assertNotIn("M1", self.tags(rig))

    def test_two_leads_are_joined_only_where_none_reaches(self) -> None:
        rig = self.new_rig("Sunday")
        self.type(rig, "vocal mic > desk 1, 18 m")
        self.cupboard.add("M1-M2: 10 m mic leads", ADA)
        self.assertEqual(self.read(rig).joins, 1)
        self.pulling.take(rig, 0.0, ADA)
        self.assertEqual(self.leads_of(rig), [["M1", "M2"]])
        self.sound(rig)
        self.cupboard.add("M3: 20 m mic lead", ADA)
        self.pulling.take(rig, 0.0, ADA)
        self.assertEqual(self.leads_of(rig), [["M3"]])
        self.assertEqual(self.tags(rig), ["M3"])
        self.sound(rig)

    def test_rigs_of_one_day_share_by_their_hours(self) -> None:
        morning, evening = self.new_rig("Morning"), self.new_rig("Evening")
        for rig in (morning, evening):
            self.type(rig, MIC)
        self.cupboard.add("M1: 10 m mic lead", ADA)
        self.date(morning, name="Morning")
        self.assertEqual(self.given(morning), [["M1"]])
        self.date(evening, name="At the same time")
        same = self.read(morning)
        self.assertEqual(sorted(len(line.leads) for line in same.lines), [0, 1])
        self.assertEqual([(short.count, short.length_m) for short in same.shortages if short.length_m], [(1, 10.0)])

    def test_faulty_away_and_held_back_leads_stay_where_they_are(self) -> None:
        rig = self.new_rig("Sunday")
        self.type(rig, MIC)
        self.cupboard.add(
            "M1: 10 m mic lead, faulty\nM2: 10 m mic lead, away\nM3: 10 m mic lead, suspect: crackles", ADA
        )
        self.cupboard.add("M4: 10 m mic lead", ADA)
        self.cupboard.change("m4", "remark", "spare for the pulpit", "", ADA)
        self.assertEqual(self.given(rig), [["M3"]])
        self.assertEqual([lead.suspect for line in self.read(rig).lines for lead in line.leads], [True])

    def test_a_lead_with_a_fault_is_replaced(self) -> None:
        self.cupboard.add("M1-M2: 10 m mic leads", ADA)
        rig = self.new_rig("Sunday")
        self.type(rig, MIC)
        (used,) = self.leads_of(rig)
        self.cupboard.note_condition(used[0].lower(), "faulty", "good", "dead", ADA)
        self.pulling.take(rig, 0.0, ADA)
        self.assertEqual(self.leads_of(rig), [["M2" if used == ["M1"] else "M1"]])
        self.sound(rig)

    def test_spare_makes_a_longer_lead_of_it(self) -> None:
        self.cupboard.add("M1: 8 m mic lead\nM2: 10 m mic lead", ADA)
        rig = self.new_rig("Sunday")
        self.type(rig, MIC)
        self.assertEqual(self.given(rig), [["M1"]])
        self.assertEqual([lead.tag for line in self.read(rig, 1.0).lines for lead in line.leads], ["M2"])

    def test_what_a_rig_of_another_day_has_is_not_taken_from_it(self) -> None:
        there, here = self.new_rig("Festival"), self.new_rig("Sunday")
        self.type(here, MIC)
        self.cupboard.add("M1: 10 m mic lead", ADA)
        self.type(there, MIC)
        self.date(there, hours=80)
        self.date(here, after=timedelta(days=2))
        self.assertEqual(self.given(here), [[]])
