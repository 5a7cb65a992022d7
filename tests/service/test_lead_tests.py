"""Tests of leads on a real database: the cupboard, the rigs that have the lead and the log say the same."""

import uuid
from datetime import UTC, datetime
from typing import Any

from ruvak.core.errors import BadEdit
from ruvak.service.kept import KeptRigs
from ruvak.service.lead_tests import LeadTests, NewLeadTest, ReadingsBody
from ruvak.service.log_lines import LogLines, LogQuery
from ruvak.service.problems import NotFound
from ruvak.service.tester import NoTester, Tester
from tests.support.house import ADA, HouseTest

MIC = "vocal mic > desk 1, 8 m"


def typed(text: str, **more: Any) -> NewLeadTest:
    return NewLeadTest(id=uuid.uuid4().hex, at=datetime(2026, 1, 4, 9, 30, tzinfo=UTC), text=text, **more)


class Tests(HouseTest):
    def go_on(self) -> None:
        super().go_on()
        self.tests = LeadTests(self.sessions, KeptRigs(), self.edits, self.cupboard, Tester(None))

    def with_lead(self, line: str = "M1: 10 m mic lead") -> str:
        self.cupboard.add(line, ADA)
        rig = self.new_rig("Sunday")
        self.date(rig)
        self.type(rig, MIC)
        return rig

    def lines(self, **query: Any) -> list[str]:
        return [line.words for line in LogLines(self.sessions).list_lines(LogQuery(**query), 50)]

    def test_a_fault_reaches_the_rig_that_has_the_lead_and_being_mended_takes_it_away(self) -> None:
        rig = self.with_lead()
        bench = self.tests.read_item("m1", ReadingsBody(text="1-1, 2-2, 3 dead, 3 - male shell open, male 3-2 open"))
        self.assertEqual(bench.diagnosis.explanations[0].words, "pin 3 is broken")
        noted = self.tests.note_item("m1", typed("1-1, 2-2, 3 dead", chosen=0), ADA)
        self.assertEqual((noted.condition, len(noted.faults)), ("faulty", 1))
        (item,) = (item for item in self.rigs.export(rig).kit if item.tag == "M1")
        self.assertEqual((item.condition, [str(each.a) for each in item.faults]), ("faulty", ["in.3"]))
        self.assertIn("Pin 3 is broken", self.lines(item="m1"))
        self.tests.note_item("m1", typed("pass"), ADA)
        (item,) = (item for item in self.rigs.export(rig).kit if item.tag == "M1")
        self.assertEqual((item.condition, item.faults, item.remark), ("good", (), ""))
        self.assertEqual(len(self.lines(item="m1", kind="test")), 2)

    def test_a_test_that_is_sent_twice_is_in_the_log_once(self) -> None:
        self.with_lead()
        test = typed("fail")
        self.tests.note_item("m1", test, ADA)
        self.tests.note_item("m1", test, ADA)
        self.assertEqual(len(self.lines(item="m1", kind="test")), 1)
        self.assertEqual(self.cupboard.list_all().entries[0].condition, "suspect")

    def test_of_several_alike_the_tested_piece_becomes_a_thing_of_its_own(self) -> None:
        self.cupboard.add("about six 10 m mic leads", ADA)
        (several,) = self.cupboard.list_all().entries
        test = typed("1-1, 2-2, 3 dead", chosen=0, number=4)
        self.tests.note_item(several.id, test, ADA)
        self.tests.note_item(several.id, test, ADA)
        rest, single = self.cupboard.list_all().entries
        self.assertEqual((rest.count, rest.condition, single.condition), (5, "good", "faulty"))

    def test_what_is_unfinished_changes_nothing_but_the_log(self) -> None:
        self.with_lead()
        self.tests.note_item("m1", typed("1-1"), ADA)
        self.assertEqual(self.cupboard.list_all().entries[0].condition, "good")
        self.assertEqual(len(self.lines(item="m1", kind="test")), 1)

    def test_a_rig_s_own_piece_is_tested_in_the_rig_and_can_be_undone(self) -> None:
        rig = self.new_rig("Sunday")
        self.type(rig, MIC)
        (item,) = self.rigs.export(rig).kit
        noted = self.tests.note_piece(rig, item.id, typed("1-1, 2-2, 3 dead", chosen=0), ADA)
        self.assertEqual(noted.condition, "faulty")
        self.edits.undo(rig, ADA)
        self.assertEqual(self.rigs.export(rig).kit[0].faults, ())
        self.assertEqual(len(self.lines(rig=rig, kind="test")), 1)

    def test_a_drawn_piece_is_the_house_s(self) -> None:
        rig = self.with_lead()
        (item,) = (item for item in self.rigs.export(rig).kit if item.tag == "M1")
        self.tests.note_piece(rig, item.id, typed("1-1, 2-2, 3 dead", chosen=0), ADA)
        self.assertEqual(self.cupboard.list_all().entries[0].condition, "faulty")
        self.cupboard.note_condition("m1", "good", "faulty", "", ADA)
        (item,) = (item for item in self.rigs.export(rig).kit if item.tag == "M1")
        self.assertEqual(item.faults, ())

    def test_what_cannot_be_tested_says_why(self) -> None:
        self.cupboard.add("M1: 10 m mic lead\nDesk: digital desk, 32", ADA)
        for item, text, refused in (("m9", "", NotFound), ("desk", "", BadEdit), ("m1", "9-9", BadEdit)):
            with self.subTest(item), self.assertRaises(refused):
                self.tests.read_item(item, ReadingsBody(text=text))
        with self.assertRaises(BadEdit):
            self.tests.note_item("m1", typed("1-1, 2-2, 3 dead", chosen=9), ADA)
        with self.assertRaises(NoTester):
            self.tests.ask_about_item("m1", None, ())
