"""Lines rewritten before they are planned: two sides of one socket, lists whose names have boxes of their own."""

import unittest

from ruvak.core.entry.names import Directory
from ruvak.core.entry.reader import read, read_all, read_rows
from ruvak.core.entry.rewritten import join_sides, one_line_each
from ruvak.core.entry.rows import InputRow
from tests.support.typed import empty_rig, typed_rig


class Sides(unittest.TestCase):
    def setUp(self) -> None:
        self.directory = Directory(empty_rig())

    def test_the_two_sides_of_a_stereo_socket_are_one_line(self) -> None:
        for first, second, joined in (
            ("laptop L > desk 15", "laptop R > desk 16", "laptop > desk 15/16"),
            ("15: laptop left > desk 15, 10 m", "16: laptop right > desk 16, 10 m", "15: laptop > desk 15/16, 10 m"),
            ("laptop R > di > desk 16", "laptop L > di > desk 15", "laptop > di > desk 15/16"),
        ):
            self.assertEqual(join_sides(self.directory, first, second), joined)

    def test_other_two_lines_stay_as_they_are(self) -> None:
        for first, second in (
            ("overhead L > desk 7", "overhead R > desk 8"),
            ("keys L > desk 7", "keys R > desk 8"),
            ("laptop L > desk 7", "tablet R > desk 8"),
            ("laptop L > desk 7", "laptop R > small mixer 8"),
            ("laptop L > di > desk 7", "laptop R > desk 8"),
            ("laptop L > desk 7", ""),
        ):
            self.assertIsNone(join_sides(self.directory, first, second), (first, second))

    def test_in_a_list_the_second_line_says_that_it_goes_along(self) -> None:
        first, second, third = read_all(empty_rig(), "laptop L > desk 15\nlaptop R > desk 16\nvocal > desk 1")
        self.assertEqual([len(reading.runs) for reading in (first, second, third)], [1, 0, 1])
        self.assertEqual((second.problems, second.line), ((), "laptop R > desk 16"))
        self.assertIn("line before", second.sentence)

    def test_in_an_input_list_too(self) -> None:
        rows = tuple(
            InputRow(row=number, channel=str(channel), who=who)
            for number, (channel, who) in enumerate(((14, "Vocal mic"), (15, "Playback L"), (16, "Playback R")), 1)
        )
        readings = read_rows(empty_rig(), rows, "desk")
        self.assertEqual([len(reading.runs) for reading in readings], [1, 1, 0])
        self.assertEqual(readings[1].runs[0].to_words, "Desk, Line 15 and Line 16")


class Boxes(unittest.TestCase):
    def test_a_box_named_with_one_of_a_list_is_that_ones(self) -> None:
        directory = Directory(empty_rig())
        self.assertEqual(
            one_line_each(directory, "7. kick in, snare DI > desk 1-2, 10 m"),
            ["7. kick in > desk 1, 10 m", "8. snare > DI > desk 2, 10 m"],
        )
        self.assertEqual(
            one_line_each(directory, "bass DI and bass mic > desk 5, 6"), ["bass > DI > desk 5", "bass mic > desk 6"]
        )

    def test_lists_without_one_and_lists_with_fewer_places_stay(self) -> None:
        directory = Directory(empty_rig())
        for line in ("kick, snare, hat > desk 1-3", "bass DI, keys DI > desk 5", "bass DI > desk 5", "mute"):
            self.assertIsNone(one_line_each(directory, line), line)


class Names(unittest.TestCase):
    def test_two_microphones_at_one_drum_are_told_apart_line_by_line(self) -> None:
        rig = typed_rig("kick in > desk 1", "kick out > desk 2", "snare top > desk 3", "snare bottom > desk 4")
        self.assertEqual([run.name for run in rig.runs], ["Kick in", "Kick out", "Snare top", "Snare bottom"])
        self.assertEqual([problem.code for problem in read(rig, "kick > desk 5").problems], ["ambiguous_name"])

    def test_an_amplifier_drives_loudspeakers_by_the_channels_that_are_fed(self) -> None:
        by_one = typed_rig("desk matrix 2 > lobby amp > speakers")
        self.assertEqual(
            [str(run.joins[0].a) for run in by_one.runs[1:]], ["lobby-power-amplifier.out1", "speaker-1.link"]
        )
        by_two = typed_rig("desk main > amp > speakers")
        self.assertEqual([run.joins[0].a.connector for run in by_two.runs[1:]], ["out1", "out2"])
