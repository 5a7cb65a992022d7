"""The bound on what opening a connection can change: never below the change itself, and some use."""

import unittest

import numpy as np

from ruvak.core.circuit.build import build
from ruvak.core.results.hum import Disturbed
from ruvak.core.results.run_ports import by_owner, ports_of_run
from ruvak.core.results.sensitivities import Sensitivities
from ruvak.core.results.solving import RigSolver
from ruvak.core.rig.prune import prune
from ruvak.core.trace.trace import trace
from tests.support.random_rigs import random_rig


class Bounds(unittest.TestCase):
    def test_no_change_exceeds_its_bound(self) -> None:
        looked_at = small = 0
        for seed in range(12):
            rig = prune(random_rig(seed, 8))
            traced = trace(rig)
            circuit = build(rig, traced)
            if not circuit.openable_connections or not circuit.causes:
                continue
            disturbed = Disturbed(circuit, RigSolver(circuit, bonds=True), bonds=True)
            tolerances = by_owner((*circuit.tolerances, *circuit.hum_tolerances))
            heard = [
                (number, [one for owner in ports.owners for one in tolerances.get(owner, ())])
                for ports in (ports_of_run(rig, traced, circuit, run) for run in rig.runs)
                for number in ports.receivers
            ]
            effects = Sensitivities(circuit, heard)
            screening = disturbed.screening(effects)
            assert screening is not None
            bounds = np.stack(screening.changes())
            before = disturbed.weighted_v(effects)
            for index in range(len(circuit.openable_connections)):
                without = disturbed.without(index)
                if without is None:
                    continue
                change = np.abs(without.weighted_v(effects) - before)
                self.assertTrue(np.all(change <= bounds[:, index] * (1.0 + 1e-6) + 1e-9 * before), f"seed {seed}")
                looked_at += change.shape[1]
                small += int(np.sum(bounds[0, index] < 0.01 * before[0]))
        self.assertGreater(looked_at, 200)
        self.assertGreater(small, 0, "some inputs need not be solved again")

    def test_some_inputs_alone_are_the_same_as_among_all(self) -> None:
        rig = prune(random_rig(3, 8))
        traced = trace(rig)
        circuit = build(rig, traced)
        disturbed = Disturbed(circuit, RigSolver(circuit))
        tolerances = by_owner((*circuit.tolerances, *circuit.hum_tolerances))
        ports_by_run = [ports_of_run(rig, traced, circuit, run) for run in rig.runs]
        heard = [
            (n, [u for o in ports.owners for u in tolerances.get(o, ())])
            for ports in ports_by_run
            for n in ports.receivers
        ]
        effects = Sensitivities(circuit, heard)
        every = disturbed.weighted_v(effects)
        for chosen in ([0], [2, 1], [len(heard) - 1, 0]):
            some = disturbed.weighted_v(effects.only(np.array(chosen)))
            np.testing.assert_allclose(some, every[:, chosen], rtol=1e-9)
