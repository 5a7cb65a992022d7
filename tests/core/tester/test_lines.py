"""Readings as they are typed."""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from ruvak.core.parts.library import library
from ruvak.core.tester.lines import read_lines

MIC, INSERT = library()["mic-lead"], library()["lead-insert"]

WORDS = (
    "1",
    "2",
    "3",
    "shell",
    "tip",
    "female",
    "send",
    "1-1",
    "2-3",
    "-",
    ",",
    ";",
    "and",
    "or",
    "ok",
    "dead",
    "short",
)
ODD_WORDS = ("swapped", "on", "at", "moved", "0.3", "45ohm", "9", "x", "pass")


def read(text: str, part: str = "mic-lead") -> list[tuple[str, str, str]]:
    return [(str(each.a), str(each.b), each.state) for each in read_lines(library()[part], text).readings]


class Lines(unittest.TestCase):
    def test_pairs_are_from_the_first_plug_to_the_other(self) -> None:
        for text, expected in (
            ("1-1", [("in.1", "out.1", "joined")]),
            ("2 - 3 lit; 3 to 2", [("in.2", "out.3", "joined"), ("in.3", "out.2", "joined")]),
            ("pin 2 to pin 2 dead", [("in.2", "out.2", "open")]),
            ("3 open", [("in.3", "out.3", "open")]),
            ("screen: no", [("in.1", "out.1", "open")]),
            ("hot crackles", [("in.2", "out.2", "flickers")]),
            ("1-1 0,4 ohm, 2-2 300 Ω", [("in.1", "out.1", "joined"), ("in.2", "out.2", "open")]),
            ("female 1-2 beeps", [("in.1", "in.2", "joined")]),
            ("male 3 - male shell short", [("out.3", "out.shell", "joined")]),
            ("female 2 - male 3", [("in.2", "out.3", "joined")]),
            ("female 1-1", [("in.1", "out.1", "joined")]),
        ):
            with self.subTest(text):
                self.assertEqual(read(text), expected)

    def test_plugs_with_other_contacts(self) -> None:
        self.assertEqual(read("tip-tip, sleeve-sleeve open", "lead-ts-ts")[1], ("in.S", "out.S", "open"))
        self.assertEqual(read("T-2, S-3", "lead-ts-xlrm"), [("in.T", "out.2", "joined"), ("in.S", "out.3", "joined")])
        self.assertEqual(read("send tip open", "lead-insert"), [("send.T", "insert.T", "open")])
        self.assertEqual(len(read("T-T R-R S-S", "lead-trs-trs")), 3)
        self.assertEqual(read("plug 1 tip - plug 2 ring ok", "lead-trs-trs"), [("in.T", "out.R", "joined")])
        self.assertEqual(read("ring to sleeve at plug 1 short", "lead-trs-trs"), [("in.R", "in.S", "joined")])
        self.assertEqual(read("send 1 box 2 dead", "multicore-4"), [("s1.2", "t1.2", "open")])
        self.assertEqual(read("+ ok, - dead", "loudspeaker-lead")[1], ("in.minus", "out.minus", "open"))
        self.assertEqual(read("tip - left 2", "lead-trs35-two-xlr"), [("in.T", "left.2", "joined")])

    def test_one_conductor_is_said_in_many_ways(self) -> None:
        for text in (
            "pin 3 is open",
            "3: OL",
            "3-3 OL",
            "3 \N{INFINITY}",
            "pin 3 no connection",
            "no continuity on 3",
            "nothing at all on pin 3",
            "cold not connected",
            "3 doesn't beep",
            "contact 3 to contact 3: not ok",
            "#3 dead",
            "3 nope",
        ):
            with self.subTest(text):
                self.assertEqual(read(text), [("in.3", "out.3", "open")])

    def test_several_conductors_in_one_go(self) -> None:
        joined = [(f"in.{pin}", f"out.{pin}", "joined") for pin in "123"]
        for text in (
            "1 ok 2 ok 3 ok",
            "1 2 3 ok",
            "1,2,3 ok",
            "1, 2 and 3 ok",
            "1 and 2 and 3 beep",
            "1-1, 2-2, 3-3 all ok",
            "1:1 2:2 3:3",
            "1=1 2=2 3=3",
            "1-1 beep 2-2 beep 3-3 beep",
            "ok: 1 2 3",
            "screen, hot and cold good",
        ):
            with self.subTest(text):
                self.assertEqual(read(text), joined)
        self.assertEqual(read("1 ok 2 or 3 dead"), [joined[0], ("in.2", "out.2", "open"), ("in.3", "out.3", "open")])
        self.assertEqual(read("1 and 2 beep, 3 doesn't beep")[2], ("in.3", "out.3", "open"))

    def test_two_contacts_that_touch_or_are_exchanged(self) -> None:
        swapped = {("in.2", "out.3", "joined"), ("in.3", "out.2", "joined")}
        for text in ("2 and 3 swapped", "2/3 crossed", "hot and cold reversed", "swapped: 2 and 3"):
            with self.subTest(text):
                self.assertLessEqual(swapped, set(read(text)))
        self.assertEqual(set(read("2-3 and 3-2")), swapped)
        for text in ("1 and shell at female touch", "female 1 - shell short", "shell to 1 at female connected"):
            with self.subTest(text):
                self.assertEqual({frozenset(each[:2]) for each in read(text)}, {frozenset(("in.1", "in.shell"))})

    def test_resistances_in_any_unit(self) -> None:
        for text, ohm in (
            ("2-2 0.3", 0.3),
            ("2-2 0,3", 0.3),
            ("2 0.3R", 0.3),
            ("2 1.2 kohm", 1200),
            ("2-2 2.3k", 2300),
        ):
            with self.subTest(text):
                (reading,) = read_lines(MIC, text).readings
                self.assertAlmostEqual(reading.ohm or 0.0, ohm)

    def test_lamps_and_where_it_was_moved(self) -> None:
        self.assertEqual(read_lines(MIC, "pass").lamp, "pass")
        self.assertEqual(read_lines(MIC, "FAIL, 2 dark").lamp, "fail")
        for words, place in (("moved at the male end", "far"), ("wiggled at near", "near"), ("bent middle", "middle")):
            self.assertEqual(read_lines(MIC, f"2 cuts, {words}").moved_at, place)

    @given(st.lists(st.sampled_from(WORDS + ODD_WORDS), max_size=8).map(" ".join) | st.text(max_size=24))
    def test_whatever_is_typed_is_read_or_refused_with_a_sentence(self, text: str) -> None:
        for part in (MIC, INSERT):
            try:
                read_lines(part, text)
            except ValueError as refused:
                self.assertRegex(str(refused), r"\.$")

    def test_what_is_not_understood_is_named_with_a_line_that_would_be(self) -> None:
        for part, text, words in (
            (MIC, "9-1", "XLR female has 2, 3, 1, shell"),
            (MIC, "flux", "As in “XLR female 2 - XLR male 2 ok”"),
            (MIC, "jack 1 - 1", "no plug “jack”"),
            (INSERT, "tip - tip", "of 3 plugs, say which"),
            (MIC, "shell ok", "joined to no other"),
            (MIC, "1, 2, 3 dead", "say it of each"),
            (MIC, "3 high resistance", "say what it reads"),
            (MIC, "2 -", "names no contact, or not both"),
            (MIC, "dead", "names no contact"),
            (MIC, "short", "names no contact"),
            (MIC, "2 cuts, moved somewhere", "at which plug"),
        ):
            with self.subTest(text), self.assertRaises(ValueError) as raised:
                read_lines(part, text)
            self.assertIn(words, str(raised.exception))
