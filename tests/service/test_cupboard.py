"""The house's cupboard on a real database: two rigs at one time never have the same thing."""

import threading
from datetime import timedelta

from ruvak.core.analyse import analyse
from ruvak.core.errors import BadEdit
from ruvak.core.judge.codes import FindingCode
from ruvak.service.cupboard_records import CupboardConflict
from ruvak.service.problems import NotFound
from ruvak.service.states import Person
from ruvak.service.takings import AlreadyTaken
from tests.support.house import ADA, HouseTest

HANS = Person(id="hans", name="Hans")
MIC = "vocal mic > desk 1, 8 m"


class Contents(HouseTest):
    def test_lines_are_added_and_listed_in_their_order(self) -> None:
        read = self.cupboard.read("M1-M3: 10 m mic leads\nflux capacitor")
        self.assertEqual((read.things, self.cupboard.list_all().entries), (3, ()))
        self.cupboard.add("M1-M3: 10 m mic leads\nflux capacitor\n4 passive DIs, van", ADA)
        entries = self.cupboard.list_all().entries
        self.assertEqual(
            [(e.name, e.count, e.store) for e in entries][2:], [("M3", 1, "cupboard"), ("Passive DI box", 4, "van")]
        )
        changes = self.cupboard.list_changes()
        self.assertEqual((len(changes), changes[0].person, changes[0].words), (4, "Ada", "added"))

    def test_a_change_names_what_was_on_screen(self) -> None:
        self.cupboard.add("M1: 10 m mic lead\nM2: 10 m mic lead", ADA)
        self.cupboard.change("m1", "store", "van", "cupboard", ADA)
        self.cupboard.change("m1", "store", "van", "cupboard", HANS)
        with self.assertRaises(CupboardConflict):
            self.cupboard.change("m1", "store", "gallery", "cupboard", HANS)
        for field, value in (("length_m", -1.0), ("count", 0), ("condition", "odd"), ("store", ""), ("length_m", None)):
            was = getattr(self.cupboard.list_all().entries[0], field)
            with self.subTest(field), self.assertRaises(BadEdit):
                self.cupboard.change("m1", field, value, was, ADA)  # type: ignore[arg-type]
        with self.assertRaises(CupboardConflict):
            self.cupboard.change("m1", "name", "m2", "M1", ADA)
        with self.assertRaises(NotFound):
            self.cupboard.change("m9", "store", "van", "cupboard", ADA)

    def test_one_of_several_alike_is_set_apart_where_it_is_and_the_others_close_up(self) -> None:
        self.cupboard.add("3 passive DIs", ADA)
        hall, chapel = self.new_rig("Hall"), self.new_rig("Chapel")
        self.date(hall, chapel)
        for rig in (hall, hall, chapel):
            self.cupboard.draw(rig, "passive-di-box", ADA)
        single = self.cupboard.set_apart("passive-di-box", 1, "faulty", "hums", HANS)
        several, apart = self.cupboard.list_all().entries
        self.assertEqual((several.count, apart.id, apart.name), (2, single, "Passive DI box 1"))
        self.assertEqual((apart.condition, apart.remark, several.condition), ("faulty", "hums", "good"))
        drawn = [
            (item.tag, item.condition, item.drawn and (item.drawn.item, item.drawn.number))
            for rig in (hall, chapel)
            for item in self.rigs.export(rig).kit
        ]
        self.assertEqual(
            drawn,
            [
                ("Passive DI box 1", "faulty", (single, 1)),
                ("Passive DI box 2", "good", ("passive-di-box", 2)),
                ("Passive DI box 1", "good", ("passive-di-box", 1)),
            ],
        )
        held = {(held.item, held.number): held.rig for e in (several, apart) for held in e.holdings}
        self.assertEqual(held, {(single, 1): hall, ("passive-di-box", 2): hall, ("passive-di-box", 1): chapel})
        self.cupboard.set_apart("passive-di-box", None, "away", "", HANS)
        with self.assertRaises(BadEdit):
            self.cupboard.set_apart("passive-di-box", None, "away", "", HANS)
        with self.assertRaises(NotFound):
            self.cupboard.set_apart("nothing", None, "away", "", HANS)

    def test_a_rig_s_own_kit_becomes_the_house_s(self) -> None:
        rig = self.new_rig("Sunday")
        self.type(rig, MIC)
        self.assertIsNotNone(self.cupboard.adopt(rig, ADA))
        self.assertIsNone(self.cupboard.adopt(rig, ADA))
        saved = self.rigs.export(rig)
        self.assertTrue(all(device.drawn for device in saved.gear))
        # The lead has still to be got, so it is nobody's.
        self.assertEqual([item.drawn for item in saved.kit], [None])
        self.assertEqual(len(self.cupboard.list_all().entries), len(saved.gear))

    def test_as_a_file_it_comes_back_and_nothing_twice(self) -> None:
        self.cupboard.add("M1: 10 m mic lead, suspect: crackles\n4 passive DIs, van\nDesk: digital desk, 32", ADA)
        document = self.cupboard.export()
        self.assertEqual(self.cupboard.import_document(document, ADA), 0)
        self.setUp()
        self.assertEqual(self.cupboard.import_document(document, ADA), 3)
        self.assertEqual(self.cupboard.export(), document)

    def test_what_another_process_changed_is_seen(self) -> None:
        self.cupboard.add("M1: 10 m mic lead", ADA)
        rig = self.new_rig("Sunday")
        self.type(rig, MIC)
        before = self.cupboard
        self.go_on()
        self.cupboard.add("M2: 10 m mic lead", ADA)
        self.assertEqual(len(before.list_all().entries), 2)


class Taking(HouseTest):
    def setUp(self) -> None:
        super().setUp()
        self.cupboard.add("M1: 10 m mic lead\nM2: 15 m mic lead", ADA)
        self.hall, self.chapel = self.new_rig("Hall"), self.new_rig("Chapel")

    def test_a_rig_of_the_same_hours_gets_another_and_of_other_hours_the_same(self) -> None:
        self.date(self.hall)
        self.date(self.chapel, after=timedelta(hours=2))
        later = self.new_rig("Later")
        self.date(later, after=timedelta(hours=8))
        for rig in (self.hall, self.chapel, later):
            self.type(rig, MIC)
        self.assertEqual([self.tags(rig) for rig in (self.hall, self.chapel, later)], [["M1"], ["M2"], ["M1"]])
        holders = {entry.name: [held.rig for held in entry.holdings] for entry in self.cupboard.list_all().entries}
        self.assertEqual(holders, {"M1": [self.hall, later], "M2": [self.chapel]})

    def test_two_rigs_of_one_occasion_count_as_of_one_time(self) -> None:
        self.date(self.hall, self.chapel)
        self.type(self.hall, MIC)
        self.type(self.chapel, MIC)
        self.assertEqual((self.tags(self.hall), self.tags(self.chapel)), (["M1"], ["M2"]))

    def test_without_a_date_nothing_is_taken_and_a_date_that_clashes_is_refused_by_name(self) -> None:
        self.type(self.hall, MIC)
        self.type(self.chapel, MIC)
        self.date(self.hall)
        with self.assertRaises(AlreadyTaken) as refused:
            self.date(self.chapel)
        self.assertIn("M1 is taken by Hall", str(refused.exception))
        self.assertEqual([clash.thing for clash in refused.exception.clashes], ["own-m1"])
        self.assertEqual(len(self.occasions.list_all()), 1)
        evening = self.date()
        made = self.occasions.put_rig(evening, self.chapel, True, ADA)
        self.assertEqual(made.said, ("Chapel: M1 is taken: M2 in its place.",))
        self.assertEqual(self.tags(self.chapel), ["M2"])

    def test_an_edit_that_was_read_before_somebody_took_the_lead_is_refused(self) -> None:
        self.date(self.hall, self.chapel)
        reading = self.computer.read_lines(self.chapel, MIC)
        self.type(self.hall, MIC)
        assert reading.edit is not None
        with self.assertRaises(AlreadyTaken):
            self.edits.make(self.chapel, reading.version, reading.edit, HANS)
        self.assertEqual(self.rigs.export(self.chapel).runs, ())

    def test_of_many_that_want_the_same_at_one_moment_one_gets_it(self) -> None:
        rigs = [self.new_rig(f"Room {number}") for number in range(6)]
        self.date(*rigs)
        readings = {rig: self.computer.read_lines(rig, MIC) for rig in rigs}
        came: list[str] = []

        def plan(rig: str) -> None:
            reading = readings[rig]
            assert reading.edit is not None
            try:
                self.edits.make(rig, reading.version, reading.edit, ADA)
                came.append(rig)
            except AlreadyTaken:
                pass

        threads = [threading.Thread(target=plan, args=(rig,)) for rig in rigs]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.assertEqual(len(came), 1)
        self.assertEqual([rig for rig in rigs if self.tags(rig) == ["M1"]], came)

    def test_what_is_undone_is_free_again_and_redone_only_if_it_still_is(self) -> None:
        self.date(self.hall, self.chapel)
        self.type(self.hall, MIC)
        self.edits.undo(self.hall, ADA)
        self.type(self.chapel, MIC)
        self.assertEqual(self.tags(self.chapel), ["M1"])
        with self.assertRaises(AlreadyTaken):
            self.edits.redo(self.hall, ADA)
        self.edits.undo(self.chapel, ADA)
        self.edits.redo(self.hall, ADA)
        self.assertEqual(self.tags(self.hall), ["M1"])

    def test_templates_and_deleted_rigs_and_dates_take_nothing(self) -> None:
        evening = self.date(self.hall)
        self.type(self.hall, MIC)
        self.rigs.shelve(self.hall, "templates")
        self.assertEqual(self.held(), [])
        self.rigs.shelve(self.hall, "plans")
        self.assertEqual(self.held(), ["M1"])
        self.occasions.remove(evening)
        self.assertEqual(self.held(), [])
        self.date(self.hall)
        self.assertEqual(self.held(), ["M1"])
        self.rigs.delete(self.hall)
        self.assertEqual(self.held(), [])

    def held(self) -> list[str]:
        return [entry.name for entry in self.cupboard.list_all().entries if entry.holdings]

    def test_what_a_rig_has_is_neither_removed_nor_counted_away(self) -> None:
        self.cupboard.add("2 passive DIs", ADA)
        self.date(self.hall)
        self.type(self.hall, MIC)
        with self.assertRaises(CupboardConflict):
            self.cupboard.remove("m1", ADA)
        for _ in range(2):
            self.cupboard.draw(self.hall, "passive-di-box", ADA)
        with self.assertRaises(CupboardConflict):
            self.cupboard.draw(self.hall, "passive-di-box", ADA)
        with self.assertRaises(CupboardConflict):
            self.cupboard.change("passive-di-box", "count", 1, 2, ADA)
        self.assertIsNotNone(self.cupboard.put_back(self.hall, ADA))
        self.assertIsNone(self.cupboard.put_back(self.hall, ADA))
        self.cupboard.change("passive-di-box", "count", 1, 2, ADA)
        self.cupboard.remove("passive-di-box", ADA)

    def test_an_imported_rig_has_drawn_nothing_the_house_does_not_have(self) -> None:
        rig = self.type(self.hall, MIC)
        self.assertEqual(self.rigs.import_rig(rig, ADA).rig.kit[0].drawn, rig.kit[0].drawn)
        self.cupboard.remove("m1", ADA)
        self.assertIsNone(self.rigs.import_rig(rig, ADA).rig.kit[0].drawn)


class Conditions(HouseTest):
    def setUp(self) -> None:
        super().setUp()
        self.cupboard.add("M1: 10 m mic lead\nM2: 10 m mic lead", ADA)
        self.rig = self.new_rig("Hall")
        self.type(self.rig, MIC)

    def worst(self) -> list[FindingCode]:
        analysis = analyse(self.rigs.export(self.rig))
        return [run.findings[0].code for run in analysis.runs]

    def test_every_rig_that_has_it_says_so_and_a_remedy_takes_another(self) -> None:
        self.assertEqual(self.worst(), [FindingCode.CLEAR])
        self.cupboard.note_condition("m1", "faulty", "good", "cold is open", HANS)
        self.assertEqual(self.worst(), [FindingCode.UNUSABLE])
        run = self.rigs.export(self.rig).runs[0].id
        (first, *_) = self.computer.remedies(self.rig, run, first=False).root
        self.assertIn("M2", first.title)
        version = self.rigs.version(self.rig).version
        self.edits.make(self.rig, version, first.edit, ADA)
        self.assertEqual(self.worst(), [FindingCode.CLEAR])
        self.cupboard.note_condition("m2", "suspect", "good", "crackles", HANS)
        self.assertEqual(self.worst(), [FindingCode.SUSPECT])
        history = self.rigs.list_history(self.rig, HANS)
        self.assertEqual((history[0].person, history[0].label), ("Hans", "Cupboard: M2 suspect (crackles)"))

    def test_a_rig_whose_occasion_is_over_stays_as_it_was(self) -> None:
        self.date(self.rig, after=timedelta(days=-30))
        self.cupboard.note_condition("m1", "faulty", "good", "", HANS)
        self.assertEqual(self.worst(), [FindingCode.CLEAR])

    def test_a_new_name_and_length_follow(self) -> None:
        self.cupboard.change("m1", "name", "Mic 1", "M1", ADA)
        self.cupboard.change("m1", "length_m", 9.5, 10.0, ADA)
        (piece,) = self.rigs.export(self.rig).kit
        self.assertEqual((piece.tag, piece.length_m), ("Mic 1", 9.5))
