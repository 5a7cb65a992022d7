"""What is packed beside the leads: from the gear of the rig, where it plays, and what nobody knows of the place."""

import unittest

from ruvak.core.prepare import prepare
from ruvak.core.pull.assign import Assignment
from ruvak.core.pull.pull_list import PackLine, pull_list
from ruvak.core.rig.rig import Rig
from tests.support.rigs import demo_rig
from tests.support.typed import typed_rig


def packed(rig: Rig, kind: str) -> list[PackLine]:
    nothing = Assignment(filled=(), cost=0.0, bound=0.0, proven=True)
    return [line for line in pull_list([prepare(rig)], nothing).packing if line.kind == kind]


class Packing(unittest.TestCase):
    def setUp(self) -> None:
        self.rig = typed_rig(
            "handheld mic > desk 1, 10 m", "laptop > desk 7/8, 5 m", "desk main left > powered speaker, 10 m"
        )

    def test_in_the_open_air_everything_with_mains_gets_a_cover(self) -> None:
        self.assertEqual(packed(self.rig, "cover"), [])
        outside = self.rig.with_fields(venue=self.rig.venue.model_copy(update={"weather": "open-air"}))
        (covers,) = packed(outside, "cover")
        self.assertEqual(covers.count, len(covers.tags))
        self.assertIn("Desk", covers.tags)
        self.assertNotIn("Handheld mic", covers.tags)

    def test_for_a_place_that_nobody_has_described_there_are_adapters_from_what_the_mixer_gives(self) -> None:
        counted = {line.words.partition(":")[0]: line.count for line in packed(self.rig, "adapter")}
        # The desk gives its main mix at XLR, its line outputs at 6.35 mm.
        outs = {"XLR": ("RCA", "6.35 mm jack"), "6.35 mm jack": ("RCA", "XLR")}
        self.assertEqual(counted, {f"adapters, {out} to {into}": 2 for out, ends in outs.items() for into in ends})

    def test_a_place_that_is_described_needs_none(self) -> None:
        self.assertEqual(packed(demo_rig("midwinter-concert"), "adapter"), [])

    def test_stands_and_batteries_are_counted_by_what_needs_them(self) -> None:
        (stands,) = packed(self.rig, "stand")
        self.assertEqual(stands.tags, ("Handheld mic",))


if __name__ == "__main__":
    unittest.main()
