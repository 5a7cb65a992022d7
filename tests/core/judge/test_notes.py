"""House rules: notes beside the figures, never findings."""

import unittest

from ruvak.core.analyse import analyse
from ruvak.core.parts.reading import rig_from_document
from ruvak.core.prepare import prepare
from ruvak.core.rig.rig import HouseRules, Rig, longest_way_m
from ruvak.service.demo_data import demo_rig
from tests.core.remedies.test_lifts import looped
from tests.support.data_lines import lit
from tests.support.earths import Doc
from tests.support.typed import typed_rig


def noted(rig: Rig, run: int = 0, **house: object) -> list[str]:
    venue = rig.venue.model_copy(update={"house": HouseRules.model_validate(house)})
    return [one.code for one in analyse(rig.with_fields(venue=venue)).runs[run].notes]


def joined() -> Rig:
    """Two radio receivers' outputs on one input through a lead of two ends."""
    document: Doc = {
        "format": "ruvak-rig",
        "version": 2,
        "id": "joined",
        "name": "Joined",
        "venue": {"name": "Hall"},
        "gear": [
            {"id": "a", "name": "A", "part": "wireless-receiver"},
            {"id": "b", "name": "B", "part": "wireless-receiver"},
            {"id": "desk", "name": "Desk", "part": "desk-digital-16"},
        ],
        "kit": [{"id": "y", "tag": "Y1", "part": "lead-y-xlr-join", "length_m": 1}],
        "runs": [
            {
                "id": "both",
                "number": 1,
                "name": "Both",
                "pieces": ["y"],
                "joins": [{"a": "a.xlr", "b": "y.a"}, {"a": "b.xlr", "b": "y.b"}, {"a": "y.out", "b": "desk.mic1"}],
            }
        ],
    }
    return prepare(rig_from_document(document))


class Notes(unittest.TestCase):
    def test_unbalanced_beyond_the_houses_limit(self) -> None:
        rig = prepare(demo_rig("midwinter-concert"))
        run = next(index for index, one in enumerate(rig.runs) if one.id == "stream")
        self.assertEqual(noted(rig, run), ["unbalanced_long"])
        self.assertEqual(noted(rig, run, unbalanced_limit_m=25), [])
        found = analyse(rig).runs[run]
        self.assertIn("20.0 m; this house goes to 7.5 m", found.notes[0].sentence)
        self.assertNotIn("unbalanced_long", [one.code for one in found.findings])
        feet = analyse(rig.with_fields(length_unit="ft")).runs[run].notes[0].sentence
        self.assertIn("65.6 ft; this house goes to 24.6 ft", feet)

    def test_both_sides_of_a_pair_lie_beside_each_other(self) -> None:
        for line, metres in (
            ("keys > desk line 7/8, 5 m", 5.0),
            ("keys > di > desk 7/8, 20 m", 23.0),
            ("player > small mixer 5/6, 60 ft", 21.5),
            ("vocal > mic lead > mic lead > desk 1, 40 m", 51.0),
        ):
            with self.subTest(line):
                rig = typed_rig(line)
                self.assertAlmostEqual(longest_way_m(rig, rig.runs[0]), metres)

    def test_a_pair_is_not_noted_for_the_sum_of_its_sides(self) -> None:
        self.assertNotIn("unbalanced_long", noted(typed_rig("keys > desk line 7/8, 5 m")))

    def test_screens_the_other_way_than_the_house_does(self) -> None:
        rig = looped({"part": "desk-digital-16", "settings": {"main-fader": -6.0}}, "source.main-left")
        self.assertEqual(noted(rig), [])
        self.assertEqual(noted(rig, screens="lifted-at-receiver"), ["screens"])

    def test_screens_of_microphones_are_nobodys_quarrel(self) -> None:
        rig = prepare(demo_rig("midwinter-concert"))
        run = next(index for index, one in enumerate(rig.runs) if one.id == "lectern")
        self.assertEqual(noted(rig, run, screens="lifted-at-receiver"), [])

    def test_data_is_nobodys_quarrel(self) -> None:
        self.assertEqual(noted(lit("lead-lighting"), screens="lifted-at-receiver"), [])

    def test_two_outputs_on_one_input(self) -> None:
        self.assertEqual(noted(joined()), ["passive_y"])
        self.assertEqual(noted(joined(), passive_y="never"), ["passive_y"])
