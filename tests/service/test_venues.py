"""Venues of the house: revisions saved from one rig and taken into another, on a real database."""

from concurrent.futures import ThreadPoolExecutor

from sqlalchemy import text

from ruvak.core.errors import RuvakError
from ruvak.core.venue.lines import read_venue
from ruvak.service.computer import Computer
from ruvak.service.edits import Edits
from ruvak.service.kept import KeptRigs
from ruvak.service.problems import NotFound
from ruvak.service.states import Person
from ruvak.service.venues import NotNewest, Venues
from tests.support.database import DatabaseTest
from tests.support.rigs import demo_rig

HANNE = Person(id="hanne", name="Hanne Brook")


class HouseVenues(DatabaseTest):
    def setUp(self) -> None:
        with self.sessions.begin() as session:
            session.execute(text("TRUNCATE house_venue, holder CASCADE"))
        kept = KeptRigs()
        self.venues = Venues(self.sessions, kept, Edits(self.sessions, kept))
        self.computer = Computer(self.sessions, kept)
        self.rig = self.rigs.import_rig(demo_rig("midwinter-concert"), HANNE).rig.id
        self.other = self.rigs.copy(self.rig, "Spring Concert", "", HANNE).rig.id

    def type_into(self, rig_id: str, line: str) -> None:
        edit = read_venue(self.rigs.export(rig_id), line).edit
        assert edit is not None
        self.edits.make(rig_id, self.rigs.version(rig_id).version, edit, HANNE)

    def share(self) -> str:
        self.venues.save(self.rig, "first visit", HANNE)
        (venue,) = self.venues.list_all()
        self.venues.belong(self.other, venue.id)
        return venue.id

    def test_a_rigs_venue_becomes_the_houses_first_revision(self) -> None:
        self.assertIsNone(self.venues.standing(self.rig).venue)
        self.share()
        (venue,) = self.venues.list_all()
        self.assertEqual(
            (venue.name, venue.revision, venue.made_by, venue.rigs), ("Ferrywell Hall", 1, "Hanne Brook", 2)
        )
        standing = self.venues.standing(self.other)
        self.assertEqual((standing.at_revision, standing.newer, standing.own), (1, (), ()))

    def test_what_was_measured_in_one_rig_is_taken_by_the_other_with_its_verdicts_and_can_be_undone(self) -> None:
        self.share()
        self.type_into(self.rig, "stage left strip: 0.9 V")
        self.assertEqual(self.venues.standing(self.rig).own, ("Stage left strip: measured",))
        self.venues.save(self.rig, "stage left strip measured", HANNE)
        self.assertEqual(self.rigs.export(self.rig).venue.revision, 2)
        standing = self.venues.standing(self.other)
        self.assertEqual([line.words for line in standing.newer], ["stage left strip measured"])
        found = self.computer.newer_venue(self.other)
        self.assertEqual((found.revision, found.said), (2, ("Stage left strip: measured",)))
        changed = {change.name: (change.before.grade, change.after.grade) for change in found.runs}
        self.assertEqual(changed["Wedge 1"], ("clear", "watch"))
        assert found.edit is not None
        self.edits.make(self.other, self.rigs.version(self.other).version, found.edit, HANNE)
        self.assertEqual(self.venues.standing(self.other).newer, ())
        self.assertIsNone(self.computer.newer_venue(self.other).edit)
        self.edits.undo(self.other, HANNE)
        self.assertEqual(len(self.venues.standing(self.other).newer), 1)

    def test_nothing_is_saved_over_a_revision_that_was_not_taken(self) -> None:
        self.share()
        for rig in (self.rig, self.other):
            self.type_into(rig, "outlet 21 on circuit 3")
        self.venues.save(self.rig, "outlet 21", HANNE)
        with self.assertRaises(NotNewest):
            self.venues.save(self.other, "outlet 21 too", HANNE)

    def test_two_who_save_at_once_make_one_revision_each_or_are_refused(self) -> None:
        venue_id = self.share()
        for rig in (self.rig, self.other):
            self.type_into(rig, "outlet 21 on circuit 3")

        def save(rig: str) -> bool:
            try:
                self.venues.save(rig, "outlet 21", HANNE)
            except RuvakError:
                return False
            return True

        with ThreadPoolExecutor(2) as pool:
            saved = list(pool.map(save, (self.rig, self.other)))
        self.assertEqual(sorted(saved), [False, True])
        (venue,) = self.venues.list_all()
        self.assertEqual((venue.id, venue.revision), (venue_id, 2))

    def test_a_second_venue_of_the_same_name_is_refused(self) -> None:
        self.venues.save(self.rig, "first visit", HANNE)
        with self.assertRaises(NotNewest):
            self.venues.save(self.other, "another", HANNE)

    def test_a_deleted_rig_leaves_the_venue(self) -> None:
        venue_id = self.share()
        self.rigs.delete(self.rig)
        self.assertEqual(self.venues.read(venue_id).venue.name, "Ferrywell Hall")
        with self.assertRaises(NotFound):
            self.venues.read("none")
        with self.assertRaises(NotFound):
            self.venues.belong(self.other, "none")
