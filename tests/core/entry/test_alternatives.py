"""Beside the plan stand other wirings that were solved, each with the line that asks for it; the plan itself stays."""

import random
import unittest
from unittest import mock

from ruvak.core.entry import propose
from ruvak.core.entry.reader import read, read_all
from ruvak.core.entry.search import MOST_SOLVED
from ruvak.core.judge.finding import Grade
from tests.support.typed import corpus, empty_rig


def lines_of_the_corpus(count: int, seed: int) -> list[str]:
    """Some of the lines that make runs."""
    lines = [line for line, *expected in corpus() if len(expected) > 1]
    return random.Random(seed).sample(lines, count)


class NamedPieces(unittest.TestCase):
    def test_the_named_wiring_is_planned_and_a_better_one_offered(self) -> None:
        reading = read(empty_rig(), "laptop > 3.5 mm to XLR adapter > powered speaker, 10 m")
        self.assertIs(reading.runs[0].grade, Grade.STOP)
        self.assertIn("3.5 mm stereo to XLR", reading.runs[0].pieces[0].words)
        (better,) = reading.alternatives
        self.assertEqual((better.line, better.finding.grade), ("laptop > powered speaker, 10 m", Grade.CLEAR))
        self.assertIs(read(empty_rig(), better.line).runs[0].grade, Grade.CLEAR)

    def test_length_and_options_are_kept(self) -> None:
        for line, other in (
            ("guitar > TS to XLR > desk mic 2, 8 m", "guitar > desk mic 2, 8 m"),
            ("guitar > TS to XLR > desk mic 2, 8", "guitar > desk mic 2, 8 m"),
            ("guitar > desk mic 2, 8 m, mono, TS to XLR", "guitar > desk mic 2, 8 m, mono"),
            ("guitar > TS to XLR > desk mic 2, 8 m, +48v", "guitar > desk mic 2, 8 m, +48v"),
        ):
            with self.subTest(line):
                self.assertEqual([entry.line for entry in read(empty_rig(), line).alternatives], [other])

    def test_nothing_is_offered_where_nothing_is_better(self) -> None:
        for line in ("vocal > mic lead > desk 1, 40 m", "nonsense > desk 1"):
            with self.subTest(line):
                self.assertEqual(read(empty_rig(), line).alternatives, ())

    def test_two_lines_gain_no_isolators_that_nobody_named(self) -> None:
        run = read(empty_rig(), "mixer > XLR lead > XLR to RCA > switcher, 10 m").runs[0]
        self.assertEqual({piece.words.split(",")[0] for piece in run.pieces}, {"Microphone lead", "Lead"})


class ByUsb(unittest.TestCase):
    def test_a_usb_lead_is_offered_beside_a_lead_into_a_computers_headset_socket(self) -> None:
        # Common practice: a desk with a USB socket is recorded by it.
        reading = read(empty_rig(), "desk > recording laptop, 3 m")
        self.assertIsNot(reading.runs[0].grade, Grade.CLEAR)
        offered = reading.alternatives[0]
        self.assertEqual((offered.line, offered.is_usual), ("Desk USB > Recording laptop, 3 m", True))
        self.assertEqual((offered.pieces, offered.finding.grade), (("USB lead, 3 m",), Grade.CLEAR))
        with mock.patch.object(propose, "solve_runs", wraps=propose.solve_runs) as solved:
            run = read(empty_rig(), offered.line).runs[0]
        self.assertEqual(solved.call_count, 1)
        self.assertEqual([piece.words for piece in run.pieces], ["USB lead, 3 m"])

    def test_none_is_offered_where_it_is_too_long_or_nothing_has_usb(self) -> None:
        for line in ("desk > recording laptop, 20 m", "small mixer record out > laptop"):
            offered = [entry.line for entry in read(empty_rig(), line).alternatives]
            self.assertFalse([entry for entry in offered if "USB" in entry], line)


class ChosenPieces(unittest.TestCase):
    def test_what_practice_would_take_is_said_where_the_computed_result_differs(self) -> None:
        # Common practice is a lead from the two outputs; computed, it hums between the two earths.
        reading = read(empty_rig(), "small mixer record out > interface")
        self.assertIs(reading.runs[0].grade, Grade.CLEAR)
        usual = next(entry for entry in reading.alternatives if entry.is_usual)
        self.assertEqual((len(usual.pieces), usual.finding.code), (1, "hum"))

    def test_a_clear_plan_offers_nothing(self) -> None:
        self.assertEqual(read(empty_rig(), "vocal > desk 1, 20 m").alternatives, ())

    def test_each_line_that_is_offered_plans_just_that(self) -> None:
        count = 0
        for line in lines_of_the_corpus(60, seed=5):
            for entry in read(empty_rig(), line).alternatives:
                count += 1
                with self.subTest(line, offered=entry.line):
                    runs = read(empty_rig(), entry.line).runs
                    planned = [piece.words for run in runs for piece in run.pieces]
                    self.assertEqual(sorted(set(planned)), sorted(set(entry.pieces)))
        self.assertGreater(count, 5)

    def test_a_list_is_read_without_offers(self) -> None:
        lines = "guitar > TS to XLR > desk mic 2, 8 m\nsmall mixer record out > interface"
        self.assertEqual([reading.alternatives for reading in read_all(empty_rig(), lines)], [(), ()])

    def test_a_line_of_one_run_solves_four_wirings_at_most(self) -> None:
        by_usb = ["desk > recording laptop, 3 m", "desk aux 5/6 > 2x XLR to 3.5 mm > laptop", "laptop > pad > desk 1"]
        for line in (*by_usb, *lines_of_the_corpus(60, seed=6)):
            with mock.patch.object(propose, "solve_runs", wraps=propose.solve_runs) as solved:
                runs = read(empty_rig(), line).runs
            if len(runs) == 1:
                with self.subTest(line):
                    self.assertLessEqual(solved.call_count, MOST_SOLVED)
