"""Any wiring of any gear: analysed without a crash or a figure that is not finite, and drawn from the trace alone."""

import unittest

from ruvak.core.analyse import analyse
from ruvak.core.remedies.search import remedies_for
from tests.support.figures import unfinite
from tests.support.wild import wild_rig


class Wild(unittest.TestCase):
    def test_every_run_is_analysed(self) -> None:
        for seed in range(4):
            analysis = analyse(wild_rig(seed))
            self.assertEqual(unfinite(analysis.model_dump()), [])
            self.assertTrue(all(run.findings for run in analysis.runs))
            for run in analysis.runs:
                known = [(finding.code, finding.subject) for finding in run.findings]
                self.assertEqual(len(known), len(set(known)), known)

    def test_every_shown_point_is_in_exactly_one_conductor(self) -> None:
        for run in analyse(wild_rig(7)).runs:
            points = [point for conductor in run.drawing.conductors for point in conductor.points]
            self.assertEqual(len(points), len(set(points)))
            shown = {c for piece in run.drawing.pieces for one in (*piece.ins, *piece.outs) for c in one.contacts}
            self.assertLessEqual(shown, set(points))

    def test_remedies_are_sought_for_any_wiring(self) -> None:
        rig = wild_rig(0, 6)
        for run in rig.runs:
            for remedy in remedies_for(rig, run.id):
                self.assertEqual(remedy.after.run, run.id)

    def test_every_leg_is_drawn_and_no_two_connectors_share_a_place(self) -> None:
        rigs = [wild_rig(seed) for seed in range(10)]
        pairs = [pair for rig in rigs for pair in zip(rig.runs, analyse(rig).runs, strict=True)]
        for run, analysed in pairs:
            pieces = analysed.drawing.pieces
            self.assertLessEqual(set(run.pieces), {piece.owner for piece in pieces})
            for side in ("ins", "outs"):
                places = [(piece.column, one.lane) for piece in pieces for one in getattr(piece, side)]
                self.assertEqual(len(places), len(set(places)), run.id)
