"""Input lists: headings in any words and order, and refusals that say what is missing."""

import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from ruvak.formats.input_list import BadInputList, match_headings, rows_from_csv

PLAIN = "channel,who,microphone or DI,stand,phantom\n1,Kick,dynamic,short,no\n2,Choir left,condenser,tall boom,yes\n"


class Reading(unittest.TestCase):
    def test_the_plain_list(self) -> None:
        first, second = rows_from_csv(PLAIN)
        self.assertEqual((first.row, first.channel, first.who, first.device), (2, "1", "Kick", "dynamic"))
        self.assertEqual((second.stand, second.phantom), ("tall boom", "yes"))

    def test_other_separators_orders_headings_and_a_byte_order_mark(self) -> None:
        for text in (
            "\ufeffInstrument;Ch;48V;Mic\nKick;1;no;dynamic\n",
            "Source\tInput\tPhantom power\tMic type\nKick\t1\t\tdynamic\n",
            "No,Name,Remarks,Mic/DI\n1,Kick,loud,dynamic\n",
            "chanel,whoo,mic\n1,Kick,dynamic\n",
        ):
            row = rows_from_csv(text)[0]
            self.assertEqual((row.channel, row.who, row.device), ("1", "Kick", "dynamic"), text)

    def test_empty_lines_are_skipped_and_short_rows_filled(self) -> None:
        rows = rows_from_csv("ch,who,mic\n\n,,\n1,Kick\n")
        self.assertEqual([(row.who, row.device) for row in rows], [("Kick", "")])

    def test_each_kind_of_column_is_found_once(self) -> None:
        self.assertEqual(sorted(match_headings(["channel", "ch", "who", "name"]).values()), ["channel", "who"])

    def test_refusals(self) -> None:
        for text, word in (("", "headings"), ("ch,who", "headings"), ("a,b\n1,2", "channel and who"),
                           ("ch,stand\n1,tall", "who"), ("x" * 300_000, "right file")):  # fmt: skip
            with self.assertRaises(BadInputList) as caught:
                rows_from_csv(text)
            self.assertIn(word, str(caught.exception))

    @given(st.text(max_size=200))
    @settings(max_examples=200)
    def test_anything_is_read_or_refused(self, text: str) -> None:
        try:
            rows = rows_from_csv("channel,who\n" + text)
        except BadInputList:
            return
        self.assertTrue(all(len(row.who) <= 120 for row in rows))
