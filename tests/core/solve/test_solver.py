"""The solver's own promises: reciprocity, adjoints, untouched input, and a physical word about islands."""

import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from ruvak.core.errors import SingularNetwork
from ruvak.core.solve.islands import islands
from ruvak.core.solve.network import EARTH, Bundle, IdealTransformer, Network
from ruvak.core.solve.solver import solve

NODES = 5
nodes = st.integers(-1, NODES - 1)
pairs = st.tuples(nodes, nodes)


@st.composite
def networks(draw: st.DrawFn) -> Network:
    """Random networks in which every node has some way to earth."""
    ohms, farads = st.floats(1e-2, 1e7), st.floats(1e-12, 1e-6)
    conductances = [(n, EARTH, 1 / draw(ohms)) for n in range(NODES)]
    conductances += [(a, b, 1 / ohm) for (a, b), ohm in draw(st.lists(st.tuples(pairs, ohms), max_size=6))]
    capacitances = [(a, b, farad) for (a, b), farad in draw(st.lists(st.tuples(pairs, farads), max_size=6))]
    bundles = tuple(
        Bundle((a,), (b,), (ohm,), ((henry,),))
        for (a, b), ohm, henry in draw(st.lists(st.tuples(pairs, ohms, st.floats(0, 1e-2)), min_size=1, max_size=4))
    )
    coils = tuple(
        IdealTransformer(a, b, c, d, ratio)
        for (a, b), (c, d), ratio in draw(st.lists(st.tuples(pairs, pairs, st.floats(0.1, 20)), max_size=1))
        if a != b and c != d
    )
    return Network(tuple(f"n{n}" for n in range(NODES)), tuple(conductances), tuple(capacitances), bundles, coils)


class Solver(unittest.TestCase):
    @given(networks(), st.sampled_from([20.0, 1000.0, 20_000.0]))
    @settings(max_examples=120, deadline=None, derandomize=True)
    def test_an_adjoint_gives_what_a_solution_gives(self, network: Network, hertz: float) -> None:
        emfs = np.ones((network.branch_count, 1))
        pick = np.zeros((network.size, 1))
        pick[0] = 1.0
        solution = solve(network, np.array([hertz]), emfs, pick)
        right = np.zeros(network.size)
        right[network.node_count : network.node_count + network.branch_count] = -1.0
        direct, adjoint = solution.unknowns[0, 0, 0], solution.adjoints[0, :, 0] @ right
        self.assertLess(abs(direct - adjoint), 1e-9 * max(1.0, abs(direct)))

    @given(networks(), st.floats(1e-6, 1e6))
    @settings(max_examples=60, deadline=None, derandomize=True)
    def test_scaling_an_emf_scales_everything(self, network: Network, factor: float) -> None:
        emfs = np.ones((network.branch_count, 1))
        none = np.zeros((network.size, 0))
        one = solve(network, np.array([50.0]), emfs, none).unknowns
        more = solve(network, np.array([50.0]), emfs * factor, none).unknowns
        np.testing.assert_allclose(more, one * factor, rtol=1e-9, atol=1e-12 * factor)

    def test_its_input_is_not_touched(self) -> None:
        network = Network(("a",), ((0, EARTH, 1.0),), (), (Bundle((EARTH,), (0,), (1.0,), ((0.0,),)),), ())
        emfs = np.ones((1, 1))
        solve(network, np.array([50.0]), emfs, np.zeros((2, 0)))
        np.testing.assert_array_equal(emfs, np.ones((1, 1)))

    def test_nodes_without_a_way_to_earth_are_named(self) -> None:
        network = Network(("tied", "loose", "lost"), ((0, EARTH, 1.0), (1, 2, 1.0)), (), (), ())
        self.assertEqual(islands(network), ((1, 2),))
        with self.assertRaises(SingularNetwork) as caught:
            solve(network, np.array([50.0]), np.zeros((0, 1)), np.zeros((3, 0)))
        self.assertEqual(caught.exception.nodes, ("loose", "lost"))
        self.assertIn("loose, lost", str(caught.exception))

    def test_a_transformer_does_not_tie_its_windings_together(self) -> None:
        coil = IdealTransformer(0, EARTH, 1, 2, 1.0)
        network = Network(("p", "s", "t"), ((0, EARTH, 1.0), (1, 2, 1.0)), (), (), (coil,))
        self.assertEqual(islands(network), ((1, 2),))
