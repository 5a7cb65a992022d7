"""Two leads side by side between two earths: both are isolated, for one alone only moves the current."""

import unittest

from ruvak.core.analyse import analyse
from ruvak.core.judge.finding import Grade
from ruvak.core.remedies.pairs import beside
from ruvak.core.remedies.search import remedies_for
from ruvak.core.rig.edits import apply
from ruvak.core.rig.rig import Rig
from tests.outside.test_library_rigs import rig_of
from tests.support.earths import outlets

FADERS = {"aux1-fader": -12.0, "aux2-fader": -12.0}


def side_by_side() -> Rig:
    """Two auxiliary outputs as two runs into a mixer on another circuit."""
    return rig_of(
        [
            {"id": "desk", "name": "Desk", "part": "desk-digital-16", "outlet": "here", "settings": FADERS},
            {"id": "mixer", "name": "Mixer", "part": "mixer-analogue-12", "outlet": "there"},
            {"id": "singer", "name": "Singer", "part": "mic-dynamic"},
        ],
        [
            *({"id": f"j{n}", "part": "lead-ts-ts", "length_m": 6} for n in range(1, 5)),
            *({"id": f"iso{n}", "part": "isolator-ts"} for n in (1, 2)),
            {"id": "m", "part": "mic-lead", "length_m": 10},
        ],
        [
            (["j1"], [("desk.aux1", "j1.in"), ("j1.out", "mixer.line1")]),
            (["j2"], [("desk.aux2", "j2.in"), ("j2.out", "mixer.line2")]),
            (["m"], [("singer.out", "m.in"), ("m.out", "desk.mic1")]),
        ],
        earth=outlets(here=0.0, there=0.3),
    )


class SideBySide(unittest.TestCase):
    def test_runs_between_the_same_devices(self) -> None:
        rig = side_by_side()
        self.assertEqual([run.id for run in beside(rig, rig.runs[0])], ["r2"])
        self.assertEqual(list(beside(rig, rig.runs[2])), [])

    def test_both_are_isolated_and_come_out_clear(self) -> None:
        rig = side_by_side()
        self.assertEqual([run.findings[0].code for run in analyse(rig).runs[:2]], ["hum", "hum"])
        best = next(one for one in remedies_for(rig, "r1") if one.helps)
        self.assertIn("and the same on R2", best.title)
        after = analyse(apply(rig, best.edit))
        self.assertEqual([run.findings[0].grade for run in after.runs[:2]], [Grade.CLEAR, Grade.CLEAR])
        self.assertEqual({effect.run for effect in best.effects}, {"r1", "r2"})
        self.assertTrue(all(piece.in_kit for piece in best.pieces), best.pieces)
