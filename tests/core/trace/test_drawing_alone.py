"""A run drawn by itself is the run as it is drawn in the whole rig."""

import unittest

from ruvak.core.analyse import draw_run
from ruvak.core.prepare import prepare
from ruvak.core.rig.prune import prune
from ruvak.core.trace.drawing import draw
from ruvak.core.trace.trace import trace
from tests.support.random_rigs import random_rig


class Alone(unittest.TestCase):
    def test_the_same_drawing(self) -> None:
        for seed in range(12):
            rig = prepare(random_rig(seed, 8))
            used = prune(rig)
            traced = trace(used)
            for run in used.runs:
                self.assertEqual(draw_run(rig, run.id), draw(used, traced, run), f"seed {seed}, {run.id}")

    def test_an_unknown_run(self) -> None:
        with self.assertRaises(KeyError):
            draw_run(prepare(random_rig(1, 8)), "ghost")


if __name__ == "__main__":
    unittest.main()
