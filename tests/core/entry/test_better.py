"""Beside named pieces that leave something wrong stands what would do better; the plan itself keeps them."""

import unittest

from ruvak.core.entry.reader import read, read_all
from ruvak.core.judge.finding import Grade
from tests.support.typed import empty_rig


class BetterWiring(unittest.TestCase):
    def test_the_named_wiring_is_planned_and_a_better_one_offered(self) -> None:
        reading = read(empty_rig(), "laptop > 3.5 mm to XLR adapter > powered speaker, 10 m")
        self.assertIs(reading.runs[0].grade, Grade.STOP)
        self.assertIn("3.5 mm stereo to XLR", reading.runs[0].pieces[0].words)
        better = reading.better or self.fail("nothing offered")
        self.assertEqual((better.line, better.grade), ("laptop > powered speaker, 10 m", Grade.CLEAR))
        self.assertIs(read(empty_rig(), better.line).runs[0].grade, Grade.CLEAR)

    def test_length_and_options_are_kept(self) -> None:
        for line, other in (
            ("guitar > TS to XLR > desk mic 2, 8 m", "guitar > desk mic 2, 8 m"),
            ("guitar > TS to XLR > desk mic 2, 8", "guitar > desk mic 2, 8 m"),
            ("guitar > desk mic 2, 8 m, mono, TS to XLR", "guitar > desk mic 2, 8 m, mono"),
            ("guitar > TS to XLR > desk mic 2, 8 m, +48v", "guitar > desk mic 2, 8 m, +48v"),
        ):
            with self.subTest(line):
                better = read(empty_rig(), line).better
                self.assertEqual(better and better.line, other)

    def test_nothing_is_offered_where_nothing_is_better_or_nothing_was_named(self) -> None:
        for line in ("vocal > mic lead > desk 1, 40 m", "desk > camera, 20 m", "nonsense > desk 1"):
            with self.subTest(line):
                self.assertIsNone(read(empty_rig(), line).better)

    def test_a_list_is_read_without_offers(self) -> None:
        lines = "guitar > TS to XLR > desk mic 2, 8 m\nvocal > desk 1"
        self.assertEqual([reading.better for reading in read_all(empty_rig(), lines)], [None, None])
