"""A rig solved block by block is what it is solved whole, at all its frequencies and at some of them."""

import unittest

import numpy as np

from bench.rigs import earthed_rig
from ruvak.core.circuit.build import build
from ruvak.core.results.solving import Emfs, RigSolver, cause_emfs, drive_emfs
from ruvak.core.rig.prune import prune
from ruvak.core.solve.condensed import CondensedSolution
from ruvak.core.solve.network import Floats
from ruvak.core.solve.solver import System
from ruvak.core.trace.trace import trace


class BlockByBlock(unittest.TestCase):
    def setUp(self) -> None:
        rig = prune(earthed_rig(6))
        self.circuit = build(rig, trace(rig))
        self.solver = RigSolver(self.circuit)

    def assert_as_whole(self, hertz: Floats, emfs: Emfs, some: list[int]) -> None:
        found = self.solver.solve(hertz, emfs, adjoints=2)
        assert isinstance(found, CondensedSolution)
        whole = System(self.circuit.network).solve(hertz, emfs.dense(), self.solver.legs)
        rows, columns = np.arange(self.circuit.network.size), np.arange(emfs.shape[2])
        row, functional = (one.ravel() for one in np.indices(self.solver.legs.shape))
        np.testing.assert_allclose(found.rows(rows, columns), whole.unknowns, rtol=1e-6, atol=1e-12)
        picked = found.at(np.array(some))
        np.testing.assert_allclose(picked.rows(rows, columns), whole.unknowns[some], rtol=1e-6, atol=1e-12)
        both = found.at(np.array([1, 0]))
        adjoints = both.adjoint_at(row, functional).reshape(2, *self.solver.legs.shape)
        np.testing.assert_allclose(adjoints, whole.adjoints[[1, 0]], rtol=1e-6, atol=1e-9)

    def test_programme_the_same_at_every_frequency(self) -> None:
        self.assert_as_whole(np.array([20.0, 1000.0, 20_000.0]), drive_emfs(self.circuit), [2, 0])

    def test_disturbances_each_frequency_its_own(self) -> None:
        hertz, emfs = cause_emfs(self.circuit)
        self.assertGreater(emfs.shape[0], 3)
        self.assert_as_whole(hertz, emfs, [3, 1])
