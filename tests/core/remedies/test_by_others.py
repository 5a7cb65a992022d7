"""Hum that only other runs close the loop of is cured all the same: candidates are looked at in the rest of the rig."""

import unittest

from ruvak.core.analyse import analyse, quick_findings
from ruvak.core.judge.finding import Grade
from ruvak.core.parts.reading import rig_from_document
from ruvak.core.prepare import prepare
from ruvak.core.remedies.search import first_remedy, remedies_for
from ruvak.core.rig.prune import sub_rig
from ruvak.core.rig.rig import Rig


def two_desks() -> Rig:
    """A keyboard with two pins feeds two desks on two circuits: each run by itself has one earth, both have two."""
    return prepare(
        rig_from_document(
            {
                "format": "ruvak-rig", "version": 2, "id": "x", "name": "x",
                "venue": {"name": "Hall", "earth": [
                    {"id": "board", "name": "Board", "kind": "board"},
                    *({"id": f"circuit-{n}", "name": f"C{n}", "kind": "circuit", "parent": "board"} for n in (1, 2)),
                    *({"id": f"o-{n}", "name": f"O{n}", "kind": "outlet", "parent": f"circuit-{n}"} for n in (1, 2)),
                ]},
                "gear": [
                    {"id": "keys", "name": "Keys", "part": "keyboard-stereo"},
                    *({"id": f"desk-{n}", "name": f"Desk {n}", "part": "desk-digital-16", "outlet": f"o-{n}"}
                      for n in (1, 2)),
                ],
                "kit": [
                    {"id": "j1", "tag": "J1", "part": "lead-ts-ts", "length_m": 5},
                    {"id": "j2", "tag": "J2", "part": "lead-ts-ts", "length_m": 15},
                    {"id": "j3", "tag": "J3", "part": "lead-ts-ts", "length_m": 3},
                    {"id": "d1", "tag": "D1", "part": "di-passive"},
                    {"id": "m1", "tag": "M1", "part": "mic-lead", "length_m": 15},
                ],
                "runs": [
                    {"id": f"run-{n}", "number": n, "name": f"R{n}", "pieces": [f"j{n}"], "joins": [
                        {"a": f"keys.{side}", "b": f"j{n}.in"}, {"a": f"j{n}.out", "b": f"desk-{n}.line9"}]}
                    for n, side in ((1, "left"), (2, "right"))
                ],
            }
        )
    )  # fmt: skip


class ByOthers(unittest.TestCase):
    def test_the_loop_through_the_other_run_is_found_and_opened(self) -> None:
        rig = two_desks()
        before = analyse(rig)
        for run in before.runs:
            self.assertEqual([one.code for one in run.findings], ["hum"])
            self.assertEqual(
                [one.code for one in quick_findings(sub_rig(rig, run.run))[0]], ["clear"], "alone it would be quiet"
            )
            first = first_remedy(rig, run.run, before)
            assert first is not None
            self.assertIs(first.after.findings[0].grade, Grade.CLEAR)
            self.assertTrue(first.pieces, "not by a switch: something that isolates")
            helping = [one for one in remedies_for(rig, run.run, before) if one.helps]
            self.assertIn("Put a DI in: D1 Passive DI box", [one.title for one in helping])
