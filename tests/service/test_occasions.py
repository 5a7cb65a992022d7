"""Occasions by date, "like last week", and what is found across the house."""

from datetime import timedelta

from ruvak.service.find import Finder
from ruvak.service.kept import KeptRigs
from ruvak.service.links import Links
from ruvak.service.occasions import BadHours, Occasion
from ruvak.service.problems import NotFound
from ruvak.service.states import Person
from ruvak.service.takings import AlreadyTaken
from ruvak.service.versions import version_of
from tests.support.house import ADA, TOMORROW, WEEK, HouseTest

HANS = Person(id="hans", name="Hans")
MIC = "vocal mic > desk 1, 8 m"


class Weeks(HouseTest):
    def setUp(self) -> None:
        super().setUp()
        self.cupboard.add("M1: 10 m mic lead\nM2: 15 m mic lead", ADA)
        self.hall = self.new_rig("Hall")
        self.sunday = self.date(self.hall, name="Sunday")
        self.type(self.hall, MIC)

    def again(self, of: str, weeks: int = 1) -> tuple[Occasion, tuple[str, ...]]:
        start = TOMORROW + weeks * WEEK
        made = self.occasions.make_again(of, "Sunday", start, start + timedelta(hours=4), ADA)
        return made.occasion, made.said

    def test_like_last_week_is_the_same_rig_with_the_same_things_a_week_later(self) -> None:
        occasion, said = self.again(self.sunday)
        self.assertEqual((said, occasion.after, occasion.starts_at), ((), self.sunday, TOMORROW + WEEK))
        (copy,) = occasion.rigs
        self.assertEqual((copy.name, copy.runs), ("Hall", 1))
        was, now = self.rigs.export(self.hall), self.rigs.export(copy.id)
        self.assertEqual((now.runs, now.kit, now.gear), (was.runs, was.kit, was.gear))
        (m1, _) = self.cupboard.list_all().entries
        self.assertEqual([held.rig for held in m1.holdings], [self.hall, copy.id])
        again, _ = self.again(occasion.id, 2)
        self.assertEqual(again.rigs[0].name, "Hall")

    def test_what_was_noted_goes_along_until_it_is_seen_to(self) -> None:
        crackle = self.occasions.note(self.sunday, "crackle on M1, left of the stage", HANS)
        water = self.occasions.note(self.sunday, "more water for the choir", HANS)
        self.assertEqual((crackle.item, water.item), ("m1", None))
        self.occasions.settle(water.id, True, ADA)
        occasion, _ = self.again(self.sunday)
        self.assertEqual(
            [(note.words, note.item, note.person) for note in occasion.notes], [(crackle.words, "m1", "Hans")]
        )
        old = next(each for each in self.occasions.list_all() if each.id == self.sunday)
        self.assertEqual([note.done_by for note in old.notes], [None, "Ada"])
        self.occasions.settle(water.id, False, ADA)
        with self.assertRaises(NotFound):
            self.occasions.settle("0" * 32, True, ADA)

    def test_what_is_out_of_order_or_taken_by_then_is_replaced_and_said(self) -> None:
        # The rig of last week has M1 for good; the copy gets another.
        chapel = self.new_rig("Chapel")
        self.date(chapel, after=WEEK)
        self.type(chapel, MIC)
        self.assertEqual(self.tags(chapel), ["M1"])
        occasion, said = self.again(self.sunday)
        self.assertEqual(said, ("Hall: M1 is taken: M2 in its place.",))
        self.assertEqual(self.tags(occasion.rigs[0].id), ["M2"])
        _, said = self.again(self.sunday)
        self.assertEqual(said, ("Hall: M1 is taken and there is no other: to be got.",))

    def test_other_hours_that_clash_are_refused_unless_others_may_take_the_place(self) -> None:
        chapel = self.new_rig("Chapel")
        monday = self.date(chapel, after=timedelta(days=1), name="Monday")
        self.type(chapel, MIC)
        ends = TOMORROW + timedelta(hours=4)
        with self.assertRaises(AlreadyTaken):
            self.occasions.change(monday, "Monday", TOMORROW, ends, False, ADA)
        self.assertEqual(self.occasions.list_all()[0].starts_at, TOMORROW + timedelta(days=1))
        made = self.occasions.change(monday, "Sunday too", TOMORROW, ends, True, ADA)
        self.assertEqual(made.said, ("Chapel: M1 is taken: M2 in its place.",))
        self.assertEqual((made.occasion.name, made.occasion.starts_at), ("Sunday too", TOMORROW))

    def test_hours_must_fit(self) -> None:
        for ends in (TOMORROW, TOMORROW - timedelta(hours=1), TOMORROW + timedelta(days=40)):
            with self.assertRaises(BadHours):
                self.occasions.add("Odd", TOMORROW, ends)
        for call in (
            lambda: self.occasions.change("none", "x", TOMORROW, TOMORROW + WEEK, False, ADA),
            lambda: self.occasions.put_rig("none", self.hall, False, ADA),
            lambda: self.occasions.note("none", "x", ADA),
            lambda: self.occasions.remove("none"),
            lambda: self.again("none"),
            lambda: self.occasions.add("x", TOMORROW, TOMORROW + WEEK, ["nowhere"]),
        ):
            with self.assertRaises(NotFound):
                call()
        self.assertEqual(len(self.occasions.list_all()), 1)

    def test_a_rig_may_leave_its_occasion(self) -> None:
        self.occasions.take_rig_out(self.sunday, self.hall)
        self.assertEqual(self.occasions.list_all()[0].rigs, ())
        self.assertEqual(self.cupboard.list_all().entries[0].holdings, ())
        self.occasions.remove(self.sunday)
        self.assertEqual(self.rigs.export(self.hall).runs[0].number, 1)

    def test_a_link_can_end_with_the_occasion(self) -> None:
        links = Links(self.sessions)
        self.assertEqual(links.add(self.hall, "Band", "read", None, "Ada").link.ends_at, TOMORROW + timedelta(hours=4))
        self.occasions.change(self.sunday, "Sunday", TOMORROW, TOMORROW + timedelta(hours=6), False, ADA)
        self.assertEqual(links.list_of(self.hall)[0].ends_at, TOMORROW + timedelta(hours=6))
        with self.assertRaises(BadHours):
            links.add(self.new_rig("Undated"), "Band", "read", None, "Ada")

    def test_everything_is_found_by_its_words(self) -> None:
        self.occasions.note(self.sunday, "crackle on M1", HANS)
        self.cupboard.note_condition("m1", "faulty", "good", "cold is open", HANS)
        with self.sessions() as session:
            kept = KeptRigs()
            version = version_of(kept.current(session, self.hall).holders)
        self.computer.overview(self.hall, version)
        finder = Finder(self.sessions, KeptRigs())

        def kinds(text: str) -> set[str]:
            return {match.kind for match in finder.find(text)}

        self.assertEqual(kinds("hall"), {"rig"})
        self.assertEqual(kinds("VOCAL"), {"run", "device"})
        self.assertEqual(kinds("m1"), {"lead", "cupboard", "note", "finding"})
        self.assertEqual(kinds("cold open"), {"lead", "cupboard", "finding"})
        self.assertEqual(kinds("sunday"), {"occasion"})
        self.assertEqual(kinds("nothing of the kind"), set())
        self.assertEqual(kinds("%"), set())
        self.rigs.shelve(self.hall, "archive")
        self.assertEqual(kinds("vocal"), set())
