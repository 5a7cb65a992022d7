"""Readings as they are typed."""

import unittest

from ruvak.core.parts.library import library
from ruvak.core.tester.lines import read_lines

MIC, INSERT = library()["mic-lead"], library()["lead-insert"]


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
        ):
            with self.subTest(text):
                self.assertEqual(read(text), expected)

    def test_plugs_with_other_contacts(self) -> None:
        self.assertEqual(read("tip-tip, sleeve-sleeve open", "lead-ts-ts")[1], ("in.S", "out.S", "open"))
        self.assertEqual(read("T-2, S-3", "lead-ts-xlrm"), [("in.T", "out.2", "joined"), ("in.S", "out.3", "joined")])
        self.assertEqual(read("send tip open", "lead-insert"), [("send.T", "insert.T", "open")])

    def test_lamps_and_where_it_was_moved(self) -> None:
        self.assertEqual(read_lines(MIC, "pass").lamp, "pass")
        self.assertEqual(read_lines(MIC, "FAIL, 2 dark").lamp, "fail")
        for words, place in (("moved at the male end", "far"), ("wiggled at near", "near"), ("bent middle", "middle")):
            self.assertEqual(read_lines(MIC, f"2 cuts, {words}").moved_at, place)

    def test_what_is_not_understood_is_named_with_a_line_that_would_be(self) -> None:
        for part, text, words in (
            (MIC, "9-1", "XLR female has 2, 3, 1, shell"),
            (MIC, "flux", "As in “XLR female 2 - XLR male 2 ok”"),
            (MIC, "jack 1 - 1", "no plug “jack”"),
            (INSERT, "tip - tip", "of 3 plugs, say which"),
            (MIC, "shell dead", "joined to no other"),
            (MIC, "2 cuts, moved somewhere", "at which plug"),
        ):
            with self.subTest(text), self.assertRaises(ValueError) as raised:
                read_lines(part, text)
            self.assertIn(words, str(raised.exception))
