"""Boards, circuits, strips, outlets and measurements typed as plain lines."""

import unittest
from pathlib import Path
from random import Random

from ruvak.core.errors import RuvakError
from ruvak.core.rig.earth import EarthPoint
from ruvak.core.rig.edits import apply
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.values import Quantity
from ruvak.core.venue.lines import MOST_LINES, read_venue
from tests.support.rigs import demo_rig
from tests.support.typed import empty_rig

HOUSE = """main board
circuit 1, control: outlets 1-2
circuit 2, 16 A, stage: outlets 5-8; strip stage left
circuit 3, 30 mA, gallery"""


def typed(rig: Rig, text: str) -> Rig:
    """The rig after lines that are all understood."""
    reading = read_venue(rig, text)
    problems = [line.problem for line in reading.lines if line.problem]
    assert not problems, problems
    return apply(rig, reading.edit) if reading.edit else rig


def points(rig: Rig) -> dict[str, EarthPoint]:
    return {point.name: point for point in rig.venue.earth}


def on(rig: Rig, name: str) -> str | None:
    """What a point hangs on, by name."""
    names = {point.id: point.name for point in rig.venue.earth}
    return names.get(points(rig)[name].parent or "")


class Building(unittest.TestCase):
    def setUp(self) -> None:
        self.rig = typed(empty_rig(), HOUSE)

    def test_a_circuit_with_its_breaker_outlets_and_strip(self) -> None:
        stage = points(self.rig)["Circuit 2, stage"]
        self.assertEqual((stage.kind, stage.breaker_a and stage.breaker_a.value), ("circuit", 16))
        self.assertEqual(on(self.rig, "Circuit 2, stage"), "Main board")
        for outlet in ("Outlet 5", "Outlet 6", "Outlet 7", "Outlet 8", "Stage left strip"):
            self.assertEqual(on(self.rig, outlet), "Circuit 2, stage", outlet)

    def test_a_residual_current_device(self) -> None:
        gallery = points(self.rig)["Circuit 3, gallery"]
        self.assertEqual(gallery.residual_a and gallery.residual_a.value, 0.03)
        rig = typed(self.rig, "circuit 2 rcd 30 mA")
        stage = points(rig)["Circuit 2, stage"]
        self.assertEqual(stage.residual_a and stage.residual_a.value, 0.03)

    def test_what_was_measured_between_two_outlets(self) -> None:
        for line, volts, against in (
            ("outlet 5: 0.4 V against outlet 1", 0.4, "Outlet 1"),
            ("outlet 5: 350 mV to outlet 2", 0.35, "Outlet 2"),
            ("outlet 5, 0,2 V", 0.2, None),
            ("outlet 5: 1,5 V", 1.5, None),
        ):
            rig = typed(self.rig, line)
            voltage = points(rig)["Outlet 5"].voltage
            assert voltage is not None
            names = {point.id: point.name for point in rig.venue.earth}
            self.assertAlmostEqual(voltage.reading_v or 0, volts)
            self.assertEqual(names.get(voltage.against or ""), against)

    def test_a_comma_behind_a_circuits_number_is_no_decimal_comma(self) -> None:
        self.assertEqual(points(typed(self.rig, "circuit 7,30 mA"))["Circuit 7"].residual_a, Quantity(value=0.03))

    def test_lists_of_outlets(self) -> None:
        rig = typed(self.rig, "sockets 13, 14 and 15 on circuit 3\noutlets 21 to 23 on circuit 1")
        # A wall socket is an outlet; both words are taken, and the house keeps one of them.
        self.assertEqual([on(rig, f"Outlet {n}") for n in (13, 14, 15)], ["Circuit 3, gallery"] * 3)
        self.assertEqual([on(rig, f"Outlet {n}") for n in (21, 22, 23)], ["Circuit 1, control"] * 3)

    def test_a_strip_plugged_into_an_outlet_is_on_its_circuit(self) -> None:
        rig = typed(self.rig, "strip booth at outlet 6")
        self.assertEqual(on(rig, "Booth strip"), "Circuit 2, stage")

    def test_a_line_again_changes_nothing_and_adds_nothing(self) -> None:
        self.assertIsNone(read_venue(self.rig, HOUSE).edit)
        again = typed(self.rig, "circuit 2, 20 A")
        self.assertEqual(len(again.venue.earth), len(self.rig.venue.earth))
        breaker = points(again)["Circuit 2, stage"].breaker_a
        self.assertEqual(breaker and breaker.value, 20)

    def test_names_in_any_order_of_their_words(self) -> None:
        rig = typed(self.rig, "left stage strip: 0.1 V")
        self.assertIsNotNone(points(rig)["Stage left strip"].voltage)

    def test_moving_renaming_removing(self) -> None:
        rig = typed(self.rig, "outlet 8 on circuit 3\nrename outlet 5 to pulpit outlet\nremove outlet 7")
        self.assertEqual(on(rig, "Outlet 8"), "Circuit 3, gallery")
        self.assertEqual(on(rig, "Pulpit outlet"), "Circuit 2, stage")
        self.assertNotIn("Outlet 7", points(rig))

    def test_a_ground_floor_is_no_earth(self) -> None:
        rig = typed(self.rig, "circuit 8, ground floor\n16 A breaker on circuit 8")
        breaker = points(rig)["Circuit 8, ground floor"].breaker_a
        self.assertEqual(breaker and breaker.value, 16)
        self.assertNotIn("Circuit 8, ground floor", points(typed(rig, "remove ground floor circuit 8")))

    def test_a_device_stays_where_it_is_plugged_in(self) -> None:
        rig = demo_rig("midwinter-concert")
        used = next(gear for gear in rig.gear if gear.outlet is not None)
        name = next(point.name for point in rig.venue.earth if point.id == used.outlet)
        problem = read_venue(rig, f"remove {name}").lines[0].problem
        self.assertIn("plugged into", problem or "")


class Refusals(unittest.TestCase):
    def test_each_says_what_and_how_to_mend_it(self) -> None:
        rig = typed(empty_rig(), HOUSE)
        for line, words in (
            ("outlet 5: 0.4 V against outlet 99", "There is no “outlet 99”"),
            ("outlet 5: 0.4 V against outlet 5", "against itself"),
            ("remove circuit 2", "hangs on"),
            ("0.4 V", "begin with one of these words"),
            ("circuit 2, 5000 A", "look at what is printed"),
            ("circuit 9 on strip stage left", "is on Circuit 2, stage"),
            ("lift the earth of circuit 2", "never opened"),
            (";:;", "Say what is there"),
            ("x" * 601, "longer than"),
            ("outlet " * 80, "at most 120 letters"),
            ("outlet 5: 900 V", "no voltage between protective earths"),
        ):
            with self.subTest(line):
                reading = read_venue(rig, line)
                if line.startswith("circuit 9"):
                    # A circuit is not on a strip: it goes where the strip's own board is.
                    self.assertEqual(reading.lines[0].problem, None)
                    continue
                self.assertIn(words, reading.lines[0].problem or "")
                self.assertIsNone(reading.edit)

    def test_a_line_that_is_refused_leaves_nothing_of_itself(self) -> None:
        reading = read_venue(empty_rig(), "circuit 2: outlets 5-8; strip x on nothing at all\ncircuit 3")
        assert reading.edit is not None
        self.assertEqual(list(points(apply(empty_rig(), reading.edit))), ["Circuit 3"])

    def test_too_many_lines_are_told(self) -> None:
        reading = read_venue(empty_rig(), "\n".join(f"circuit {n}" for n in range(MOST_LINES + 5)))
        self.assertIn("5 more lines", reading.lines[-1].problem or "")


class Visits(unittest.TestCase):
    """Lines typed one after the other into an empty rig, with what each is understood to mean; NO: refused so."""

    def test_a_first_visit(self) -> None:
        self.understood("first_visit.txt")

    def test_other_words_for_the_same(self) -> None:
        self.understood("other_words.txt")

    def understood(self, file: str) -> None:
        rig = empty_rig()
        for row in (Path(__file__).parent / file).read_text(encoding="utf-8").splitlines():
            line, _, words = row.partition(" => ")
            with self.subTest(line):
                reading = read_venue(rig, line)
                problem = reading.lines[0].problem
                self.assertEqual(reading.lines[0].words or f"NO: {problem}", words)
                rig = apply(rig, reading.edit) if reading.edit is not None else rig


class AnyWords(unittest.TestCase):
    def test_any_line_is_an_edit_that_can_be_made_or_a_sentence(self) -> None:
        rng = Random(7)
        words = (
            "circuit", "outlet", "outlets", "strip", "board", "main", "2", "5-8", "16 A", "30 mA", "0.4 V", "0.2 ohm",
            "stage", "left", "on", "at", "against", ":", ";", ",", "remove", "rename", "to", "rcd", "%", "²", "9999",
            "A2-A4", "is", "between", "and", "has a", "move", "from", "in",
        )  # fmt: skip
        for rig in (empty_rig(), typed(empty_rig(), HOUSE), demo_rig("midwinter-concert")):
            for _ in range(400):
                line = " ".join(rng.choices(words, k=rng.randint(1, 9)))
                reading = read_venue(rig, line)
                if reading.edit is None:
                    continue
                try:
                    apply(rig, reading.edit)
                except RuvakError as fault:
                    self.fail(f"“{line}”: {fault}")
