"""What opening connections does, against the network with the branch really open, and the bound that spares work."""

import unittest
from collections.abc import Iterator
from dataclasses import replace

import numpy as np

from ruvak.core.circuit.build import build
from ruvak.core.circuit.circuit import Circuit
from ruvak.core.results.connection_openings import Answers, ConnectionOpenings
from ruvak.core.results.hum import Disturbed
from ruvak.core.results.run_ports import by_owner, ports_of_run
from ruvak.core.results.sensitivities import Sensitivities
from ruvak.core.results.solving import RigSolver
from ruvak.core.rig.prune import prune
from ruvak.core.solve.network import Bundle
from ruvak.core.trace.trace import trace
from tests.support.random_rigs import random_rig

OPEN_OHM = 1e15
NOTHING_V = 1e-9


def circuits(seeds: range) -> Iterator[tuple[int, Circuit, Sensitivities]]:
    """Of random rigs, with every input's tolerances."""
    for seed in seeds:
        rig = prune(random_rig(seed, 8))
        traced = trace(rig)
        circuit = build(rig, traced)
        if not circuit.openable_connections or not circuit.causes:
            continue
        tolerances = by_owner((*circuit.tolerances, *circuit.hum_tolerances))
        heard = [
            (number, [entry for owner in ports.owners for entry in tolerances.get(owner, ())])
            for ports in (ports_of_run(rig, traced, circuit, run) for run in rig.runs)
            for number in ports.receivers
        ]
        yield seed, circuit, Sensitivities(circuit, heard)


def openings_of(circuit: Circuit, effects: Sensitivities) -> ConnectionOpenings:
    openings = Disturbed(circuit, RigSolver(circuit, bonds=True), bonds=True).openings(effects)
    assert openings is not None
    return openings


def really_opened(circuit: Circuit, branch: int) -> Circuit:
    """With so much resistance in the branch that nothing flows."""
    bundles, first = list[Bundle](), 0
    for bundle in circuit.network.bundles:
        if first <= branch < first + len(bundle.ohm):
            ohm = list(bundle.ohm)
            ohm[branch - first] = OPEN_OHM
            bundle = replace(bundle, ohm=tuple(ohm))
        bundles.append(bundle)
        first += len(bundle.ohm)
    return replace(circuit, network=replace(circuit.network, bundles=tuple(bundles)))


def hum_v(circuit: Circuit, effects: Sensitivities) -> np.ndarray:
    return weighted_v(Disturbed(circuit, RigSolver(circuit, whole=True)), effects)


def weighted_v(disturbed: Disturbed, effects: Sensitivities) -> np.ndarray:
    """(2, inputs): A-weighted, likely and worst, input by input."""
    return np.array([disturbed.together(phasors) for phasors in disturbed.phasors(effects)]).T


class AgainstTheOpenedNetwork(unittest.TestCase):
    def test_every_changed_input(self) -> None:
        compared = 0
        for seed, circuit, effects in circuits(range(6)):
            openings = openings_of(circuit, effects)
            np.testing.assert_allclose(openings.before_v(), hum_v(circuit, effects), rtol=1e-6, atol=NOTHING_V)
            opened: dict[int, np.ndarray] = {}
            for change in openings.changes(np.zeros((2, len(effects.receivers)))):
                after = change.after.weighted_v()
                for pair, (number, place) in enumerate(zip(change.connections, change.inputs, strict=True)):
                    if number not in opened:
                        branch = circuit.openable_connections[number].branch
                        opened[number] = hum_v(really_opened(circuit, branch), effects)
                    where = f"seed {seed}, {circuit.openable_connections[number].owner}, input {place}"
                    np.testing.assert_allclose(
                        after[:, pair], opened[number][:, place], rtol=1e-6, atol=NOTHING_V, err_msg=where
                    )
                    compared += 1
        self.assertGreater(compared, 100)

    def test_no_change_exceeds_its_bound(self) -> None:
        looked_at = small = 0
        for seed, circuit, effects in circuits(range(12)):
            openings = openings_of(circuit, effects)
            before = openings.before_v()
            bounds = np.stack(openings.bounds(np.arange(len(circuit.openable_connections))))
            for change in openings.changes(np.zeros_like(before)):
                changes = np.abs(change.after.weighted_v() - before[:, change.inputs])
                limits = bounds[:, change.connections, change.inputs]
                self.assertTrue(
                    np.all(changes <= limits * (1 + 1e-6) + 1e-9 * before[:, change.inputs]), f"seed {seed}"
                )
                looked_at += changes.shape[1]
                small += int(np.sum(limits[0] < 0.01 * before[0, change.inputs]))
        self.assertGreater(looked_at, 200)
        self.assertGreater(small, 0, "some inputs need not be looked at")

    def test_a_bound_of_its_own_leaves_out_what_does_not_change(self) -> None:
        for _, circuit, effects in circuits(range(3)):
            openings = openings_of(circuit, effects)
            before = openings.before_v()
            every = list(openings.changes(np.zeros_like(before)))
            some = list(openings.changes(0.1 * before))
            kept = {pair for change in some for pair in zip(change.connections, change.inputs, strict=True)}
            for change in every:
                moved = np.abs(change.after.weighted_v() - before[:, change.inputs]) >= 0.1 * before[:, change.inputs]
                for pair in np.flatnonzero(moved.any(axis=0)):
                    self.assertIn((change.connections[pair], change.inputs[pair]), kept)


class SomeInputs(unittest.TestCase):
    def test_alone_they_are_the_same_as_among_all(self) -> None:
        _, circuit, effects = next(circuits(range(3, 4)))
        disturbed = Disturbed(circuit, RigSolver(circuit))
        every = weighted_v(disturbed, effects)
        last = len(effects.receivers) - 1
        for chosen in ([0], [2, 1], [last, 0], [1, 1]):
            some = weighted_v(disturbed, effects.only(np.array(chosen)))
            np.testing.assert_allclose(some, every[:, chosen], rtol=1e-9)


class Closing(unittest.TestCase):
    def test_forwards_and_backwards_a_connection_answers_alike(self) -> None:
        for seed, circuit, effects in circuits(range(4)):
            answers = openings_of(circuit, effects).answers(np.arange(len(circuit.openable_connections)))
            self.assertLess(answers.residuals()[answers.close_loops()].max(initial=0.0), 1e-5, f"seed {seed}")

    def test_what_is_all_rounding_is_no_loop(self) -> None:
        siemens = np.array([[1.0, 1.0, 1e-12]], dtype=np.complex128)
        backwards = np.array([[-1.0, -1.01, -1e-12]], dtype=np.complex128)
        self.assertEqual(Answers(siemens, backwards).close_loops().tolist(), [True, False, False])


if __name__ == "__main__":
    unittest.main()
