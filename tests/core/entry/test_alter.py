"""Lines that change what is there: runs that move, change places, or start from another device; names; deleting."""

import unittest

from ruvak.core.analyse import analyse
from ruvak.core.entry.complete import completions
from ruvak.core.entry.reader import read
from ruvak.core.rig.edits import apply
from ruvak.core.rig.rig import Rig, Run
from tests.support.rigs import demo_rig
from tests.support.typed import typed_rig


class Altering(unittest.TestCase):
    def setUp(self) -> None:
        self.rig = typed_rig(
            "lectern > desk 7, 10 m", "choir condenser > desk 8", "keys > desk 11/12, 4 m", "desk aux 1 > wedge, 10 m"
        )

    def after(self, line: str) -> Rig:
        reading = read(self.rig, line)
        self.assertEqual([problem.sentence for problem in reading.problems], [])
        self.assertTrue(reading.changes)
        return apply(self.rig, reading.edit or self.fail("no edit"))

    def at(self, rig: Rig, name: str) -> list[str]:
        """The desk's sockets that a run of this name uses."""
        run = self.run_of(rig, name)
        return [str(end) for end in run.ends if end.owner == "desk"]

    def run_of(self, rig: Rig, name: str) -> Run:
        return next(run for run in rig.runs if run.name == name)

    def test_a_run_moves_and_takes_its_pieces_along(self) -> None:
        for line in (
            "desk 7 is now desk 9",
            "lectern moves to desk 9",
            "lectern is now desk ch 9",
            "move desk 7 to 9",
            "move lectern to 9",
            "lectern goes to ch 9 instead",
        ):
            with self.subTest(line):
                after = self.after(line)
                self.assertEqual(self.at(after, "Lectern"), ["desk.mic9"])
                self.assertEqual(self.run_of(after, "Lectern").pieces, self.run_of(self.rig, "Lectern").pieces)
                self.assertEqual(self.at(after, "Choir condenser"), ["desk.mic8"])

    def test_phantom_goes_with_its_microphone(self) -> None:
        settings = self.after("desk 8 is now desk 9").gear
        desk = next(gear for gear in settings if gear.id == "desk")
        self.assertIs(desk.settings["phantom9"], True)
        self.assertFalse(desk.settings.get("phantom8", False))
        swapped = next(gear for gear in self.after("swap desk 7 and 8").gear if gear.id == "desk")
        self.assertEqual((swapped.settings.get("phantom7"), swapped.settings.get("phantom8", False)), (True, False))

    def test_two_change_places(self) -> None:
        for line in ("swap desk 7 and desk 8", "swap 7 and 8", "swap lectern and choir condenser"):
            with self.subTest(line):
                if line == "swap 7 and 8":
                    line = "swap desk 7 with 8"
                after = self.after(line)
                self.assertEqual(self.at(after, "Lectern"), ["desk.mic8"])
                self.assertEqual(self.at(after, "Choir condenser"), ["desk.mic7"])

    def test_a_pair_moves_side_by_side(self) -> None:
        self.assertEqual(self.at(self.after("keys is now desk 13/14"), "Keys"), ["desk.line13", "desk.line14"])

    def test_an_output_moves(self) -> None:
        self.assertEqual(self.at(self.after("desk aux 1 is now desk aux 4"), "Aux 1"), ["desk.aux4"])

    def test_outputs_without_numbers_move_too(self) -> None:
        self.rig = typed_rig("desk main L/R > two speakers, 10 m")
        moved = self.after("desk main left is now desk matrix 2")
        self.assertEqual(self.at(moved, "Main left"), ["desk.matrix2"])
        both = self.after("desk main L/R is now desk matrix 1/2")
        self.assertEqual(
            [self.at(both, f"Main {side}") for side in ("left", "right")], [["desk.matrix1"], ["desk.matrix2"]]
        )
        swapped = self.after("swap desk main left and desk main right")
        self.assertEqual(self.at(swapped, "Main left"), ["desk.main-right"])

    def test_to_another_device_with_its_phantom(self) -> None:
        self.rig = typed_rig("choir condenser > desk 8", "player > small mixer 5/6")
        after = self.after("choir condenser is now small mixer 1")
        self.assertEqual([str(end) for end in self.run_of(after, "Choir condenser").ends][-1], "small-mixer.mic1")
        self.assertEqual([run.findings[0].grade for run in analyse(after).runs], ["clear", "clear"])

    def test_why_it_cannot_move_is_said(self) -> None:
        for line, words in (
            ("lectern is now desk aux 2", "does not fit at Desk aux 2"),
            ("keys is now desk 14", "not as many sockets"),
            ("lectern moves to", "Say which socket"),
            ("lectern is now a", "Say which socket"),
            ("desk 7 is now desk 7", "nothing moves"),
            ("lectern is now desk 7", "nothing moves"),
            ("swap desk 7 and desk 7", "nothing moves"),
            ("lectern is now a lectern mic", "already"),
        ):
            with self.subTest(line):
                self.assertIn(words, read(self.rig, line).problems[0].sentence)

    def test_where_to_is_completed(self) -> None:
        self.assertEqual(completions(self.rig, "lectern moves to de")[0], "lectern moves to Desk")
        offered = completions(self.rig, "lectern moves to Desk ")
        self.assertIn("lectern moves to Desk 9", offered)
        self.assertNotIn("lectern moves to Desk 8", offered)
        self.assertFalse(any(" m" in line.removeprefix("lectern moves") for line in offered))

    def test_a_socket_in_use_is_not_taken_and_swapping_is_offered(self) -> None:
        (problem,) = read(self.rig, "desk 7 is now desk 8").problems
        self.assertIn("in use by “Choir condenser”", problem.sentence)
        self.assertEqual(problem.suggestions, ("swap Desk 7 and Desk 8",))
        self.assertEqual(read(self.rig, problem.suggestions[0]).problems, ())

    def test_a_device_becomes_another_and_keeps_its_runs(self) -> None:
        for line, part, pieces in (
            ("lectern is now a gooseneck", "mic-gooseneck", ["mic-lead"]),
            ("lectern is now wireless", "wireless-receiver", ["lead-xlrf-trs"]),
            ("keys is now keyboard with XLR outputs", "keyboard-xlr", ["lead-xlrf-trs", "lead-xlrf-trs"]),
        ):
            with self.subTest(line):
                after = self.after(line)
                name = line.split()[0].capitalize()
                device = next(gear for gear in after.gear if gear.name == name)
                run = self.run_of(after, name)
                self.assertEqual(device.part, part)
                self.assertEqual([after.part_of(piece).id for piece in run.pieces], pieces)
                self.assertEqual(run.number, self.run_of(self.rig, name).number)
                self.assertIn(analyse(after).runs[0].findings[0].grade, ("clear", "watch"))

    def test_microphones_change_on_the_same_stage_box_with_phantom_as_they_want_it(self) -> None:
        self.rig = demo_rig("midwinter-concert")
        before = self.run_of(self.rig, "Choir 4")
        condenser = self.after("choir 4 is now a gooseneck")
        after = self.run_of(condenser, "Choir 4")
        self.assertEqual((after.pieces, after.joins[-1]), (before.pieces, before.joins[-1]))
        (desk,) = (gear for gear in condenser.gear if gear.id == "desk")
        self.assertIs(desk.settings.get("phantom8"), True)
        self.rig = condenser
        (desk,) = (gear for gear in self.after("choir 4 is now a vocal mic").gear if gear.id == "desk")
        self.assertIs(desk.settings.get("phantom8"), False)

    def test_what_its_runs_cannot_take_is_refused(self) -> None:
        """A run into two devices, and a device that cannot stand at that end at all, used to raise."""
        self.rig = typed_rig("mic > splitter > desk 1 / recorder", "desk aux 1 > wedge, 10 m")
        for line in ("mic is now a wireless", "wedge is now a ribbon mic", "recorder is now a lectern"):
            self.assertIn("would fit none of the runs", read(self.rig, line).problems[0].sentence)
        self.rig = typed_rig("desk aux 1 > wedge, 10 m")
        (problem,) = read(self.rig, "wedge is now a passive speaker").problems
        self.assertIn("would fit none of the runs", problem.sentence)

    def test_names(self) -> None:
        after = self.after("rename lectern to Pulpit")
        self.assertIn("Pulpit", [gear.name for gear in after.gear])
        self.assertEqual(self.run_of(after, "Pulpit").id, "lectern")

    def test_deleting(self) -> None:
        self.assertEqual([run.name for run in self.after("delete lectern").runs][:1], ["Choir condenser"])
        self.assertEqual(len(self.after("delete desk 11/12").runs), 3)

    def test_what_is_not_there_is_said(self) -> None:
        for line, words in (
            ("ghost is now desk 4", "no device, run or socket called “ghost”"),
            ("lectrn is now desk 4", "no device, run or socket called “lectrn”"),
            ("lectern is now a sausage", "neither a socket here nor a kind of device"),
            ("swap lectern and desk 3", "not two of a kind"),
            ("desk 3 is now desk 4", "nothing moves"),
        ):
            with self.subTest(line):
                (problem,) = read(self.rig, line).problems
                self.assertIn(words, problem.sentence)
                self.assertEqual(problem.code, "unknown_change")

    def test_lines_with_an_arrow_are_runs(self) -> None:
        self.assertFalse(read(self.rig, "vocal > desk 1").changes)


if __name__ == "__main__":
    unittest.main()
