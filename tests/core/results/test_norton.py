"""One run solved by itself in what the others make of its devices has the whole rig's hum."""

import unittest

from ruvak.core.analyse import analyse, rest_of_rig
from ruvak.core.circuit.build import build
from ruvak.core.prepare import prepare
from ruvak.core.results.records import RunResult
from ruvak.core.results.response import COARSE_HZ
from ruvak.core.results.runs import rig_results
from ruvak.core.results.solved_rig import Options
from ruvak.core.rig.prune import sub_rig
from ruvak.core.rig.rig import Rig
from ruvak.core.trace.trace import trace
from ruvak.service.demo_data import demo_rig
from tests.support.random_rigs import random_rig

QUIET_DBU = -130.0


def hums(result: RunResult) -> list[float]:
    """Likely and worst of each input, A-weighted, nothing told apart below QUIET_DBU."""
    found = [one.hum for one in result.inputs if one.hum is not None]
    return [max(QUIET_DBU, level) for one in found for level in (one.weighted_dbu, one.weighted_worst_dbu)]


def by_itself(rig: Rig, run_id: str, in_the_rig: bool) -> tuple[list[float], tuple[str, ...]]:
    """Its hum, and what floats in its own circuit."""
    small = sub_rig(rig, run_id)
    traced = trace(small)
    circuit = build(small, traced)
    rest = rest_of_rig(rig, run_id) if in_the_rig else None
    return hums(rig_results(small, traced, circuit, Options(COARSE_HZ, "brief", norton=rest)).runs[0]), circuit.floating


class NortonEquivalent(unittest.TestCase):
    def off_by(self, rig: Rig) -> tuple[float, float, int]:
        """Largest difference from the whole rig, in it and alone, and of how many figures.

        A device that floats alone has a stray capacitance there that it has not in the rig: left out. So are runs that
        share a lead.
        """
        whole = {run.run: run.result for run in analyse(rig).runs}
        together, apart, count = 0.0, 0.0, 0
        for run in rig.runs:
            shared = any(piece in other.pieces for other in rig.runs if other is not run for piece in run.pieces)
            figures, floating = by_itself(rig, run.id, in_the_rig=True)
            if shared or floating:
                continue
            expected = hums(whole[run.id])
            lonely, _ = by_itself(rig, run.id, in_the_rig=False)
            together = max([together, *(abs(a - b) for a, b in zip(figures, expected, strict=True))])
            apart = max([apart, *(abs(a - b) for a, b in zip(lonely, expected, strict=True))])
            count += len(expected)
        return together, apart, count

    def test_random_rigs(self) -> None:
        figures = 0
        for seed in range(200, 205):
            rig = prepare(random_rig(seed))
            together, apart, count = self.off_by(rig)
            # On a plan the field's share of the building's earth depends on what else is placed: good for a glance.
            on_a_plan = any(one.at is not None for one in rig.gear) or rig.venue.bar_at is not None
            self.assertLess(together, 6.0 if on_a_plan else 0.01, f"seed {seed}")
            self.assertLessEqual(together, apart, f"seed {seed}")
            figures += count
        self.assertGreater(figures, 40)

    def test_the_concert_where_alone_it_would_be_far_off(self) -> None:
        together, apart, _ = self.off_by(prepare(demo_rig("midwinter-concert")))
        self.assertLess(together, 1e-6)
        self.assertGreater(apart, 20.0)

    def test_a_run_that_is_all_there_is_has_none(self) -> None:
        rig = prepare(demo_rig())
        self.assertEqual(len(rig.runs), 1)
        self.assertIsNone(rest_of_rig(rig, rig.runs[0].id))
