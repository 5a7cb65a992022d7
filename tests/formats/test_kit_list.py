"""Kit as CSV, out and in."""

import unittest

from ruvak.core.kit.lines import read_kit
from ruvak.core.prepare import prepare
from ruvak.core.rig.edits import apply
from ruvak.formats.kit_list import BadKitList, kit_to_csv, lines_from_csv
from ruvak.service.demo_data import demo_rig


class KitList(unittest.TestCase):
    def test_what_goes_out_comes_in_again(self) -> None:
        rig = prepare(demo_rig("midwinter-concert"))
        empty = rig.with_fields(kit=(), runs=())
        reading = read_kit(empty, lines_from_csv(kit_to_csv(rig)))
        self.assertEqual([line.problem for line in reading.lines if line.problem], [])
        assert reading.edit is not None
        back = apply(empty, reading.edit)
        want = [(item.tag, item.part, item.length_m, item.owned, item.installed) for item in rig.kit]
        self.assertEqual([(item.tag, item.part, item.length_m, item.owned, item.installed) for item in back.kit], want)

    def test_no_cell_is_a_formula_to_a_spreadsheet_and_none_is_changed_by_that(self) -> None:
        """As OWASP's note on CSV injection asks, from memory."""
        rig = prepare(demo_rig("midwinter-concert"))
        tags = ("=1+1", "+Lead", "-Lead", "@Lead", "'Lead", "Lead=")
        kit = tuple(item.model_copy(update={"tag": tag}) for item, tag in zip(rig.kit, tags, strict=False))
        text = kit_to_csv(rig.with_fields(kit=kit, runs=()))
        for row in text.splitlines()[1:]:
            self.assertNotIn(row.lstrip('"')[0], "=+-@", row)
        self.assertEqual([line.split(":")[0] for line in lines_from_csv(text).splitlines()], list(tags))

    def test_other_headings_and_separators(self) -> None:
        lines = lines_from_csv("Qty;Item;Length\n6;microphone lead;10\n2;passive DI box;\n")
        self.assertEqual(lines.splitlines(), ["6 microphone lead 10 m", "2 passive DI box"])

    def test_refusals_say_what_is_missing(self) -> None:
        for text, words in (("tag\nM1\n", "what"), ("what\n", "headings"), ("x" * 300_000, "longer")):
            with self.assertRaises(BadKitList) as caught:
                lines_from_csv(text)
            self.assertIn(words, str(caught.exception))
