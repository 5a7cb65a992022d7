"""Lines that change what is there in other words: lengths, pieces put in, phantom, supplies, numbers, channels."""

import unittest

from ruvak.core.entry.reader import read
from ruvak.core.entry.reading import Reading
from ruvak.core.rig.check import check
from ruvak.core.rig.edits import apply
from ruvak.core.rig.rig import Rig, Run, longest_way_m
from tests.support.typed import typed_rig

LINES = (
    "vocal > desk 1, 10 m",
    "choir 1-2 > desk 2-3",
    "keys > desk 7/8",
    "bass > di > desk 5, 12 m",
    "laptop > desk 15/16",
    "desk main > speakers, 15 m",
    "desk aux 1 > wedge, 20 m",
)


class InOtherWords(unittest.TestCase):
    rig: Rig

    @classmethod
    def setUpClass(cls) -> None:
        cls.rig = typed_rig(*LINES)

    def after(self, line: str) -> Rig:
        """The rig changed, whole as any rig."""
        reading = self.read(line)
        return check(apply(self.rig, reading.edit or self.fail(f"{line}: {reading.sentence}")))

    def read(self, line: str) -> Reading:
        return read(self.rig, line)

    def run_of(self, rig: Rig, name: str) -> Run:
        return next(run for run in rig.runs if run.name == name)

    def parts(self, rig: Rig, name: str) -> list[str]:
        return [rig.part_of(piece).id for piece in self.run_of(rig, name).pieces]

    def test_a_run_is_as_long_as_is_said(self) -> None:
        for line in (
            "vocal 20 m", "make vocal 20 m", "vocal lead 20 m", "vocal length 20 m", "set the vocal length to 20 m",
            "vocal is 20 m long", "1 20 m",
        ):  # fmt: skip
            with self.subTest(line):
                rig = self.after(line)
                self.assertEqual(longest_way_m(rig, self.run_of(rig, "Vocal")), 20.0)
                before, run = self.run_of(self.rig, "Vocal"), self.run_of(rig, "Vocal")
                self.assertEqual((run.id, run.number, rig.runs.index(run)), (before.id, before.number, 0))
                self.assertEqual(str(run.joins[-1].b), str(before.joins[-1].b))

    def test_several_runs_are_as_long_as_is_said(self) -> None:
        for line in ("all choir mics 15 m", "choir 1 and choir 2 15 m", "choir mics 15 m each"):
            rig = self.after(line)
            for name in ("Choir 1", "Choir 2"):
                self.assertEqual(longest_way_m(rig, self.run_of(rig, name)), 15.0, line)

    def test_several_runs_are_deleted(self) -> None:
        names = {run.name for run in self.after("delete choir 1 and choir 2").runs}
        self.assertEqual(names, {run.name for run in self.rig.runs} - {"Choir 1", "Choir 2"})

    def test_what_is_used_takes_the_place_of_what_is_like_it(self) -> None:
        for line in ("use an active DI on bass", "bass uses an active DI"):
            self.assertEqual([part for part in self.parts(self.after(line), "Bass") if "di-" in part], ["di-active"])

    def test_what_the_longer_run_does_is_shown(self) -> None:
        reading = self.read("vocal 20 m")
        self.assertEqual(
            [(run.name, run.pieces[0].words) for run in reading.runs], [("Vocal", "Microphone lead, 20 m")]
        )

    def test_its_boxes_stay_when_it_gets_longer(self) -> None:
        rig = self.after("bass 30 m")
        self.assertIn("di-passive", self.parts(rig, "Bass"))
        self.assertGreaterEqual(longest_way_m(rig, self.run_of(rig, "Bass")), 30.0)

    def test_leads_that_were_to_be_got_go_with_the_old_wiring(self) -> None:
        rig = self.after("vocal 20 m")
        used = {piece for run in rig.runs for piece in run.pieces}
        self.assertEqual({item.id for item in rig.kit} - used, set())

    def test_a_box_is_put_in(self) -> None:
        for line in ("add di to keys", "keys through a stereo DI", "put a stereo DI on keys", "keys via stereo di"):
            with self.subTest(line):
                rig = self.after(line)
                self.assertTrue(any(part.startswith("di-") for part in self.parts(rig, "Keys")), line)
                ends = [str(end) for join in self.run_of(rig, "Keys").joins for end in join.ends if end.owner == "desk"]
                self.assertEqual(ends, ["desk.mic7", "desk.mic8"])

    def test_a_run_is_put_through_a_multicore_that_is_not_there_yet(self) -> None:
        rig = self.after("vocal via stage box")
        self.assertEqual(self.parts(rig, "Vocal")[-1], "multicore-8-2")

    def test_a_box_is_taken_out(self) -> None:
        for line in ("bass without di", "bass without a DI", "remove the DI from bass", "no di on bass"):
            with self.subTest(line):
                rig = self.after(line)
                self.assertFalse(any(part.startswith("di-") for part in self.parts(rig, "Bass")), line)
                before, run = self.run_of(self.rig, "Bass"), self.run_of(rig, "Bass")
                self.assertEqual((run.id, run.number), (before.id, before.number))
                self.assertEqual(longest_way_m(rig, run), longest_way_m(self.rig, before))

    def test_what_is_not_on_the_way_or_has_to_stay_is_not_taken_out(self) -> None:
        for line, word in (
            ("vocal without di", "Microphone lead"),
            ("vocal without microphone lead", "cannot do without"),
        ):
            reading = self.read(line)
            self.assertIsNone(reading.edit, line)
            self.assertIn(word, reading.sentence)

    def test_a_run_is_deleted_at_one_device_only(self) -> None:
        self.assertNotIn("Keys", [run.name for run in self.after("remove keys from desk 7").runs])
        self.assertIsNone(self.read("remove keys from wedge").edit)

    def test_several_copies_take_the_next_places(self) -> None:
        for line in ("copy choir 1 3 times", "copy choir 1 three times", "duplicate choir 1 x3"):
            with self.subTest(line):
                runs = self.after(line).runs[len(self.rig.runs) :]
                self.assertEqual([run.name for run in runs], ["Choir 3", "Choir 4", "Choir 5"])
                ends = [str(end) for run in runs for join in run.joins for end in join.ends if end.owner == "desk"]
                self.assertEqual(ends, ["desk.mic4", "desk.mic6", "desk.mic9"])

    def test_copies_that_cannot_be_made_are_refused(self) -> None:
        for line in ("copy choir 1 40 times", "copy choir 1 0 times", "copy choir 1 9 times as altos"):
            self.assertIsNone(self.read(line).edit, line)

    def test_what_does_not_fit_on_the_way_is_refused_and_nothing_changes(self) -> None:
        reading = self.read("vocal through optical lead")
        self.assertEqual([problem.code for problem in reading.problems], ["unknown_change"])
        self.assertIsNone(reading.edit)

    def test_phantom_is_switched(self) -> None:
        on = {"desk": "phantom2"}
        for line in ("phantom on choir 1", "phantom on for desk 2", "48v on choir 1", "choir 1 phantom on",
                     "choir 1 with phantom", "turn phantom on at desk 2"):  # fmt: skip
            with self.subTest(line):
                rig = self.after(line)
                desk = next(gear for gear in rig.gear if gear.id == "desk")
                self.assertIs(desk.settings[on["desk"]], True)
        rig = self.after("phantom on choir 1")
        off = read(rig, "phantom off choir 1")
        desk = next(gear for gear in apply(rig, off.edit or self.fail("not read")).gear if gear.id == "desk")
        self.assertIsNot(desk.settings.get("phantom2"), True)

    def test_phantom_that_nothing_switches_is_said(self) -> None:
        for line in ("phantom on wedge", "phantom off choir 1"):
            self.assertEqual([problem.code for problem in self.read(line).problems], ["unknown_change"], line)

    def test_a_supply_is_set(self) -> None:
        for line in ("laptop on battery", "laptop is now on battery", "laptop is on battery", "laptop now on battery"):
            with self.subTest(line):
                laptop = next(gear for gear in self.after(line).gear if gear.id == "laptop")
                self.assertEqual((laptop.settings["supply"], laptop.part), ("battery", "laptop-headphone-trs35"))
        self.assertEqual([problem.code for problem in self.read("desk on battery").problems], ["unknown_change"])

    def test_a_run_gets_a_number(self) -> None:
        for line in ("number vocal 11", "renumber vocal to 11", "vocal is number 11", "number 1 is 11"):
            self.assertEqual(self.run_of(self.after(line), "Vocal").number, 11, line)

    def test_a_channel_moves(self) -> None:
        for line in (
            "channel 1 to channel 9",
            "ch 1 > ch 9",
            "desk 1 to desk 9",
            "desk 1 > desk 9",
            "vocal now desk 9",
        ):
            with self.subTest(line):
                self.assertEqual(str(self.run_of(self.after(line), "Vocal").joins[-1].b), "desk.mic9")

    def test_names_are_given(self) -> None:
        for line in (
            "vocal is now called lead vocal", "vocal is called lead vocal", "call vocal lead vocal",
            "rename vocal lead vocal", "vocal's name is lead vocal",
        ):  # fmt: skip
            self.assertEqual(self.after(line).gear[0].name, "lead vocal", line)

    def test_a_device_is_another(self) -> None:
        for line in ("replace laptop by tablet", "replace laptop with a tablet", "laptop is a tablet"):
            rig = self.after(line)
            self.assertEqual(next(gear.part for gear in rig.gear if gear.id == "laptop"), "tablet-headset", line)

    def test_a_run_is_said_to_be_elsewhere(self) -> None:
        for line in ("vocal is on desk 9 now", "vocal goes into desk 9", "vocal is now on desk 9"):
            self.assertEqual(str(self.run_of(self.after(line), "Vocal").joins[-1].b), "desk.mic9", line)

    def test_what_is_fed_is_said_to_be_at_another_output(self) -> None:
        rig = self.after("wedge is now on aux 3")
        self.assertIn("desk.aux3", {str(end) for run in rig.runs for end in run.ends})
        self.assertNotIn("desk.aux1", {str(end) for run in rig.runs for end in run.ends})

    def test_a_source_typed_to_another_place_offers_the_move(self) -> None:
        problem = self.read("vocal > desk 9").problems[0]
        self.assertEqual((problem.code, problem.suggestions[-1]), ("socket_taken", "move Vocal to desk 9"))
        self.assertEqual(str(self.run_of(self.after(problem.suggestions[-1]), "Vocal").joins[-1].b), "desk.mic9")

    def test_lines_that_make_runs_are_not_taken_for_changes(self) -> None:
        for line in (
            "gooseneck to desk 4 via stage box",
            "organ > desk 9",
            "lectern mic > desk 9, 20 m",
            "desk aux 2 to fill",
        ):
            reading = self.read(line)
            self.assertEqual((reading.problems, reading.changes), ((), False), line)
