"""The cupboard as it is typed: what is understood, and what is refused with a sentence that helps."""

import unittest

from ruvak.core.cupboard.item import CupboardItem
from ruvak.core.cupboard.lines import MOST_LINES, CupboardLine, read_cupboard


def read(*lines: str, items: tuple[CupboardItem, ...] = ()) -> tuple[CupboardLine, ...]:
    return read_cupboard(items, "\n".join(lines))


def only(line: str) -> CupboardItem:
    """The one thing that a line adds."""
    (result,) = read(line)
    assert result.problem is None, result.problem
    (item,) = result.items
    return item


# Typed line, then what it adds: name, how many, part, metres, store, condition, remark.
UNDERSTOOD = [
    ("B3: passive DI", ("B3", 1, "di-passive", None, "cupboard", "good", "")),
    ("about six 10 m microphone leads", ("Microphone lead, 10 m", 6, "mic-lead", 10.0, "cupboard", "good", "")),
    ("20 mic leads 5 m in the van", ("Microphone lead, 5 m", 20, "mic-lead", 5.0, "van", "good", "")),
    ("12 x XLR lead 20 m, van", ("Microphone lead, 20 m", 12, "mic-lead", 20.0, "van", "good", "")),
    ("M7: 10 m mic lead, suspect: crackles", ("M7", 1, "mic-lead", 10.0, "cupboard", "suspect", "crackles")),
    ("M8: 10 m mic lead (faulty, cold open)", ("M8", 1, "mic-lead", 10.0, "cupboard", "faulty", "cold open")),
    ("M9: 33 ft mic lead; broken", ("M9", 1, "mic-lead", 10.058, "cupboard", "faulty", "broken")),
    ("M6: mic lead 3 m in the gallery rack, suspect", ("M6", 1, "mic-lead", 3.0, "gallery rack", "suspect", "")),
    ("wireless handheld, lent to the school",
     ("Wireless handheld", 1, "wireless-receiver", None, "cupboard", "away", "lent to the school")),
    ("Foyer left: powered speaker",
     ("Foyer left", 1, "speaker-powered-two-xlr", None, "cupboard", "good", "")),
    ("two powered speakers, stage rack",
     ("Powered speaker", 2, "speaker-powered-two-xlr", None, "stage rack", "good", "")),
    ("Desk: digital mixer, 32 inputs", ("Desk", 1, "desk-digital-32", None, "cupboard", "good", "")),
    ("3 laptops in the office", ("Laptop", 3, "laptop-headphone-trs35", None, "office", "good", "")),
]  # fmt: skip

REFUSED = [
    ("mic lead", "How long"),
    ("5 m mic lead to borrow", "what the house owns"),
    ("W1: 20 m tie line, installed", "belongs to the venue"),
    ("M1-M3: two 5 m mic leads", "make the two agree"),
    ("M9-M3: 5 m mic lead", "smaller number first"),
    ("flux capacitor", "Nothing here is called"),
    ("900 mic leads 5 m", "more than a cupboard holds"),
    ("900 laptops", "more than a cupboard holds"),
]


class Lines(unittest.TestCase):
    def test_each_line_adds_what_it_says(self) -> None:
        for line, expected in UNDERSTOOD:
            with self.subTest(line):
                item = only(line)
                is_this = (
                    item.name, item.count, item.part.id, item.length_m, item.store, item.condition, item.remark
                )  # fmt: skip
                self.assertEqual(is_this, expected)

    def test_what_is_not_understood_says_why(self) -> None:
        for line, words in REFUSED:
            with self.subTest(line):
                (result,) = read(line)
                self.assertEqual(result.items, ())
                self.assertIn(words, result.problem or "")

    def test_a_range_of_tags_is_so_many_things(self) -> None:
        (line,) = read("M08-M11: 10 m mic leads")
        self.assertEqual([item.name for item in line.items], ["M08", "M09", "M10", "M11"])

    def test_a_heading_names_the_store_of_the_lines_below(self) -> None:
        lines = read("Van:", "M1: 5 m mic lead", "M2: 5 m mic lead, cupboard", "Gallery rack:", "passive DI")
        stores = [item.store for line in lines for item in line.items]
        self.assertEqual(stores, ["Van", "cupboard", "Gallery rack"])
        self.assertEqual([line.problem for line in lines], [None] * 5)

    def test_a_tag_is_one_things(self) -> None:
        first, second = read("M1: 5 m mic lead", "m1: passive DI")
        self.assertIsNone(first.problem)
        self.assertIn("already", second.problem or "")
        (again,) = read("M1: 3 m mic lead", items=first.items)
        self.assertIn("already", again.problem or "")

    def test_ids_are_free(self) -> None:
        lines = read("5 m mic lead", "5 m mic lead", "passive DI", "passive DI")
        ids = [item.id for line in lines for item in line.items]
        self.assertEqual(len(ids), len(set(ids)))
        names = [item.name for line in lines for item in line.items]
        self.assertEqual(len(names), len(set(names)))

    def test_more_lines_than_are_read_are_counted(self) -> None:
        lines = read(*(f"T{number}: passive DI" for number in range(MOST_LINES + 3)))
        self.assertEqual(len(lines), MOST_LINES + 1)
        self.assertIn("3 more lines", lines[-1].problem or "")

    def test_empty_text_adds_nothing(self) -> None:
        self.assertEqual(read(""), ())
        for odd in (":", ",", "van:", "  :  ", "x" * 3000, "in the in the in the"):
            with self.subTest(odd):
                for line in read(odd):
                    self.assertEqual(line.items, ())


if __name__ == "__main__":
    unittest.main()
