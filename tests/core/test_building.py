"""Lines about the building: the earth, and what is built in with what is at its ends."""

import unittest

from ruvak.core.building import read_building
from ruvak.core.rig.edits import PutThing, apply
from ruvak.core.rig.rig import KitItem
from tests.support.typed import empty_rig


class BuiltIn(unittest.TestCase):
    def setUp(self) -> None:
        self.rig = empty_rig()

    def items(self, *lines: str) -> list[KitItem]:
        edit = read_building(self.rig, "\n".join(lines)).edit
        assert edit is not None
        return [op.thing for op in edit.ops if isinstance(op, PutThing) and isinstance(op.thing, KitItem)]

    def test_a_line_of_the_building_says_what_it_is_and_what_is_at_its_ends(self) -> None:
        for line, expected in (
            ("W2: 20 m tie line from stage left to the booth rack", ("W2", 20.0, "from stage left to the booth rack")),
            (
                "House 1: 30 m mic lead between the gallery plate and the desk",
                ("House 1", 30.0, "from the gallery plate to the desk"),
            ),
            ("Foyer line: 25 m loudspeaker lead", ("Foyer line", 25.0, "")),
        ):
            with self.subTest(line):
                (item,) = self.items(line)
                self.assertEqual((item.tag, item.length_m, item.remark, item.installed), (*expected, True))

    def test_both_kinds_of_lines_make_one_edit(self) -> None:
        text = "circuit 2, 16 A, stage: outlets 5-8\nW1-W4: 20 m tie lines from stage left to the booth\nnonsense here"
        reading = read_building(self.rig, text)
        self.assertEqual([line.problem is None for line in reading.lines], [True, True, False])
        assert reading.edit is not None
        rig = apply(self.rig, reading.edit)
        self.assertEqual([item.tag for item in rig.kit if item.installed], ["W1", "W2", "W3", "W4"])
        self.assertIn("Outlet 5", [point.name for point in rig.venue.earth])

    def test_a_refusal_is_about_what_was_meant(self) -> None:
        (line,) = read_building(self.rig, "W1: tie line from stage to booth").lines
        self.assertIn("How long", line.problem or "")
        (line,) = read_building(self.rig, "outlet 5 somewhere").lines
        self.assertNotIn("Nothing here is called", line.problem or "")


if __name__ == "__main__":
    unittest.main()
