"""Kit in plain words."""

import unittest

from ruvak.core.kit.lines import KitLine, read_kit
from ruvak.core.prepare import prepare
from ruvak.core.rig.edits import apply
from ruvak.service.demo_data import demo_rig

RIG = prepare(demo_rig("midwinter-concert"))


def one(text: str) -> KitLine:
    (line,) = read_kit(RIG, text).lines
    return line


class Understood(unittest.TestCase):
    def test_about_six_ten_metre_microphone_leads(self) -> None:
        for text in ("about six 10 m microphone leads", "6 x mic lead 10m", "six XLR leads, 10 metres"):
            line = one(text)
            self.assertIsNone(line.problem, text)
            self.assertEqual(
                {(item.part, item.length_m, item.owned) for item in line.items}, {("mic-lead", 10.0, True)}
            )
            self.assertEqual(len({item.tag for item in line.items}), 6)

    def test_tags_go_on_from_those_there_are(self) -> None:
        taken = {item.tag for item in RIG.kit}
        tags = [item.tag for item in one("3 mic leads 5 m").items]
        self.assertFalse(taken & set(tags))
        self.assertTrue(all(tag.startswith("M") for tag in tags))

    def test_own_tags_one_or_a_range(self) -> None:
        self.assertEqual([item.tag for item in one("Z7: microphone lead 3 m").items], ["Z7"])
        tags = [item.tag for item in one("Z40-Z43: microphone lead 3 m").items]
        self.assertEqual(tags, ["Z40", "Z41", "Z42", "Z43"])

    def test_boxes_without_length_and_things_to_borrow(self) -> None:
        line = one("2 passive DI box, borrowed")
        self.assertEqual([(item.length_m, item.owned) for item in line.items], [(None, False)] * 2)
        self.assertIn("to get", line.words)

    def test_feet(self) -> None:
        self.assertEqual(one("mic lead 25 ft").items[0].length_m, 7.62)

    def test_a_slip_of_the_pen(self) -> None:
        self.assertEqual(one("microfone lead 5 m").items[0].part, "mic-lead")

    def test_one_edit_that_can_be_applied(self) -> None:
        reading = read_kit(RIG, "six 10 m microphone leads\nnonsense here\nline isolator, XLR")
        assert reading.edit is not None
        after = apply(RIG, reading.edit)
        self.assertEqual(len(after.kit), len(RIG.kit) + 7)
        self.assertEqual(reading.edit.label, "Kit: 7 items")


class Refused(unittest.TestCase):
    def test_each_says_what_and_how_to_mend_it(self) -> None:
        cases = {
            "six mic leads": "How long?",
            "passive DI box 5 m": "no cable of its own",
            "glockenspiel 5 m": "Nothing here is called",
            "isolator": "That could be",
            "300 mic leads 5 m": "1 to 200",
            "M1: mic lead 5 m": "in the kit already",
            "Z9-Z3: mic lead 5 m": "smaller number first",
            "Z1-Z2: mic lead": "How long?",
            "Z1-Z2: 3 mic leads 5 m": "make the two agree",
            "mic lead 5 km": "0.001 to 1000 m",
            "10 m": "Say what it is",
        }
        for text, words in cases.items():
            with self.subTest(text):
                line = one(text)
                self.assertEqual(line.items, ())
                self.assertIn(words, line.problem or "")
        self.assertIsNone(read_kit(RIG, "glockenspiel").edit)
        self.assertEqual(read_kit(RIG, "  \n").lines, ())
