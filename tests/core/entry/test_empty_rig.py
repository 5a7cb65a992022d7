"""Lines typed into an empty rig come out as they were meant: devices, pieces in their order, the computed grade."""

import unittest
from collections.abc import Iterable

from ruvak.core.analyse import analyse
from ruvak.core.entry.reader import read, read_all
from ruvak.core.judge.finding import SEVERITY, Grade
from ruvak.core.rig.edits import apply
from ruvak.core.rig.rig import Rig, Run
from tests.support.typed import corpus, empty_rig, typed_rig


def pieces_of(rig: Rig, run: Run) -> str:
    items = {item.id: item for item in rig.kit}
    lengths = [items[piece].length_m for piece in run.pieces]
    named = ", ".join(
        rig.part_of(piece).id + (f" {length:g}" if length else "")
        for piece, length in zip(run.pieces, lengths, strict=True)
    )
    return named or "straight"


class EmptyRig(unittest.TestCase):
    FULLY = 8
    """Of so many lines one is solved as a whole rig too, whose grade must be the one that the line was given."""

    def test_every_line_is_planned_as_it_was_meant(self) -> None:
        lines = corpus()
        self.assertGreater(len(lines), 450)
        for place, (line, *expected) in enumerate(lines):
            with self.subTest(line):
                reading = read(empty_rig(), line)
                codes = [problem.code for problem in reading.problems]
                if len(expected) == 1:
                    self.assertEqual([f"? {code}" for code in codes], expected)
                    continue
                self.assertEqual(codes, [])
                rig = apply(empty_rig(), reading.edit or self.fail("not read"))
                self.assertEqual(", ".join(f"{gear.name}={gear.part}" for gear in rig.gear), expected[0])
                self.assertEqual("; ".join(pieces_of(rig, run) for run in rig.runs), expected[1])
                self.assertEqual(_worst(run.grade for run in reading.runs), expected[2])
                if place % self.FULLY == 0:
                    self.assertEqual(_worst(run.findings[0].grade for run in analyse(rig).runs), expected[2])


def _worst(grades: Iterable[Grade]) -> str:
    return min(grades, key=lambda grade: SEVERITY[grade]).value


class LongLines(unittest.TestCase):
    def test_a_piece_named_many_times_is_there_as_often(self) -> None:
        line = f"laptop >{' di >' * 5} desk 3"
        rig = typed_rig(line)
        self.assertEqual(sum(rig.part_of(piece).id.startswith("di-") for piece in rig.runs[0].pieces), 5)


class Lists(unittest.TestCase):
    """Lines that follow each other: what the first adds, the next tells from what it adds itself."""

    def devices(self, *lines: str) -> list[str]:
        rig = empty_rig()
        for reading in read_all(rig, "\n".join(lines)):
            self.assertEqual([problem.sentence for problem in reading.problems], [])
            rig = apply(rig, reading.edit or self.fail("not read"))
        return [f"{gear.name}={gear.part}" for gear in rig.gear if gear.name != "Desk"]

    def test_a_second_radio_beside_the_first(self) -> None:
        found = self.devices("wireless handheld > desk 1", "wireless lapel > desk 2")
        self.assertEqual(found, ["Wireless handheld=wireless-receiver", "Wireless lapel=wireless-receiver"])

    def test_the_other_side_is_another_microphone(self) -> None:
        found = self.devices("overhead L > desk 1", "overhead R > desk 2")
        self.assertEqual(found, ["Overhead L=mic-condenser", "Overhead R=mic-condenser"])

    def test_a_number_behind_a_microphone_is_another(self) -> None:
        found = self.devices("lead vocal > desk 1", "lead vocal 2 > desk 2")
        self.assertEqual(found, ["Lead vocal=mic-dynamic", "Lead vocal 2=mic-dynamic"])

    def test_numbers_behind_those_that_are_there_are_more_of_the_kind(self) -> None:
        found = self.devices("vocals 1-2 > desk 1-2", "vocals 3-4 > desk 3-4")
        self.assertEqual([device.split("=")[0] for device in found], ["Vocal 1", "Vocal 2", "Vocal 3", "Vocal 4"])

    def test_what_stands_before_an_amplifier_is_another_device(self) -> None:
        found = self.devices(
            "guitar > amp", "amp > desk 5", "amp mic > desk 6", "wedge < desk aux 1", "wedge 2 < desk aux 2"
        )
        names = ["Guitar", "Amp", "Amp mic", "Wedge", "Wedge 2"]
        self.assertEqual([device.split("=")[0] for device in found], names)

    def test_a_side_is_another_device_beside_one_without(self) -> None:
        found = self.devices("desk main left > sub > top", "desk main right > sub right > top right")
        self.assertEqual([device.split("=")[0] for device in found], ["Sub", "Top", "Sub right", "Top right"])

    def test_a_multicore_still_to_be_got_grows_with_the_lines(self) -> None:
        for lines, part in (
            (("kick > snake 1 > desk 1",), "multicore-4"),
            (("kick > snake 1 > desk 1", "desk aux 1 > snake return 1 > wedge"), "multicore-8-2"),
            (("kick > snake 1 > desk 1", "hat > snake 12 > desk 2"), "multicore-16-4"),
        ):
            rig = typed_rig(*lines)
            multicores = [item for item in rig.kit if "multicore" in item.part]
            self.assertEqual([item.part for item in multicores], [part])
            self.assertTrue(all(multicores[0].id in run.pieces for run in rig.runs))

    def test_a_desk_that_is_too_small_is_offered_as_a_larger_one(self) -> None:
        rig = typed_rig("kick > desk 1")
        (problem,) = read(rig, "choir > desk 17").problems
        self.assertEqual(problem.suggestions, ("Desk is now a big desk",))
        larger = apply(rig, read(rig, problem.suggestions[0]).edit or self.fail("not read"))
        self.assertEqual(read(larger, "choir > desk 17").problems, ())
        self.assertEqual(larger.runs, rig.runs)

    def test_a_source_in_use_is_offered_with_the_next_number(self) -> None:
        (problem,) = read(typed_rig("mic > desk 1"), "mic > desk 2").problems
        self.assertEqual(problem.suggestions, ("Mic 2 > desk 2", "move Mic to desk 2"))

    def test_places_in_use_are_offered_as_the_next_that_are_free_in_a_row(self) -> None:
        rig = typed_rig("choir 1-3 > desk 1-3", "keys L/R > desk line 6/7", "desk aux 2 > wedge")
        for line, offered in (
            ("tenor > desk 2, 10 m", "tenor > desk 4, 10 m"),
            ("tenor > desk mic 2", "tenor > desk mic 4"),
            ("laptop > desk 1/2, 5 m", "laptop > desk 9/10, 5 m"),
            ("strings 1-3 > desk 3-5", "strings 1-3 > desk 8-10"),
            ("desk aux 2 > second wedge", "desk aux 3 > second wedge"),
        ):
            with self.subTest(line):
                (problem,) = read(rig, line).problems
                self.assertEqual((problem.code, problem.suggestions), ("socket_taken", (offered,)))
                self.assertEqual(read(rig, offered).problems, ())

    def test_a_destination_without_a_number_is_offered_the_first_that_is_free(self) -> None:
        rig = typed_rig("mic > desk 1")
        for line, offered in (("vocal > desk", "vocal > desk 2"), ("laptop > desk, 5 m", "laptop > desk 3/4, 5 m")):
            (problem,) = read(rig, line).problems
            self.assertEqual(problem.suggestions, (offered,))

    def test_a_desk_is_chosen_for_the_whole_list(self) -> None:
        rig = empty_rig()
        readings = read_all(rig, "kick > desk 1\nkeys L/R > desk 17/18")
        self.assertEqual([problem for reading in readings for problem in reading.problems], [])
        self.assertEqual(readings[0].runs[0].new_gear, ("mic-dynamic", "desk-digital-32"))


class Suggestions(unittest.TestCase):
    def test_near_names_are_offered_as_whole_lines_that_are_read(self) -> None:
        for line, first in (
            ("laptp > desk 3", "laptop > desk 3"),
            ("keys > mixr 3", "keys > mixer 3"),
            ("laptop > isolater > desk 15/16", "laptop > isolator > desk 15/16"),
            ("vocl 2 > desk 2", "vocal 2 > desk 2"),
        ):
            (found,) = read(empty_rig(), line).problems
            self.assertEqual(found.suggestions[0], first)
            self.assertLessEqual(len(found.suggestions), 3)
            for other in found.suggestions:
                self.assertEqual(read(empty_rig(), other).problems, (), other)

    def test_of_two_unknown_names_the_first_is_mended_first(self) -> None:
        (found,) = read(empty_rig(), "laptp > mixr 3").problems
        self.assertEqual(found.suggestions[0], "laptop > mixr 3")

    def test_nothing_is_near_to_what_is_like_nothing(self) -> None:
        (found,) = read(empty_rig(), "mic > xqzzv").problems
        self.assertEqual(found.suggestions, ())

    def test_what_nobody_knows_may_have_a_microphone_before_it(self) -> None:
        (found,) = read(empty_rig(), "zither > desk 3").problems
        self.assertEqual(found.suggestions[0], "zither mic > desk 3")

    def test_a_row_of_an_input_list_is_offered_as_a_line(self) -> None:
        for row, line in (
            ("ch 9 acoustic guitar DI 20m", "acoustic guitar > DI > desk 9, 20 m"),
            ("10: cajon, dynamic mic, 10 m", "cajon dynamic mic > desk 10, 10 m"),
            ("7 keys L/R DI", "keys L/R > DI > desk 7/8"),
            ("5. overhead, condenser, phantom", "overhead condenser > desk 5, phantom"),
        ):
            (found,) = read(empty_rig(), row).problems
            self.assertEqual(found.suggestions, (line,))
            self.assertEqual(read(empty_rig(), line).problems, ())


if __name__ == "__main__":
    unittest.main()
