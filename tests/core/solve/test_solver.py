"""The solver's own promises: reciprocity, adjoints, untouched input, and a physical word about islands."""

import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from ruvak.core.errors import SingularNetwork
from ruvak.core.solve.islands import islands
from ruvak.core.solve.network import EARTH, Bundle, IdealAmplifier, IdealTransformer, Network
from ruvak.core.solve.solver import NortonLoad, System, solve

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
    @settings(max_examples=120)
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
    @settings(max_examples=60)
    def test_scaling_an_emf_scales_everything(self, network: Network, factor: float) -> None:
        emfs = np.ones((network.branch_count, 1))
        none = np.zeros((network.size, 0))
        one = solve(network, np.array([50.0]), emfs, none).unknowns
        more = solve(network, np.array([50.0]), emfs * factor, none).unknowns
        # What a solution is good to is a share of its largest voltage, not of each.
        largest = max(1.0, float(np.abs(one).max(initial=0.0)))
        np.testing.assert_allclose(more, one * factor, rtol=1e-9, atol=1e-9 * largest * factor)

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

    def test_a_shorted_source_without_impedance_is_said_not_crashed_on(self) -> None:
        network = Network(("a",), ((0, EARTH, 1.0),), (), (Bundle((0,), (0,), (0.0,), ((0.0,),)),), ())
        with self.assertRaises(SingularNetwork) as caught:
            solve(network, np.array([50.0]), np.ones((1, 1)), np.zeros((network.size, 0)))
        self.assertIn("without any resistance", str(caught.exception))

    def test_an_amplifier_multiplies_and_takes_nothing(self) -> None:
        # 1 V through 1 kohm into 1 kohm gives 0.5 V; ten times that behind 100 ohm into 100 ohm gives 2.5 V.
        source = Bundle((EARTH,), (0,), (1000.0,), ((0.0,),))
        output = Bundle((1,), (2,), (100.0,), ((0.0,),))
        stage = IdealAmplifier(0, EARTH, 1, EARTH, 10.0)
        network = Network(
            ("in", "inner", "out"), ((0, EARTH, 1e-3), (2, EARTH, 1e-2)), (), (source, output), (), (stage,)
        )
        emfs = np.array([[1.0], [0.0]])
        pick = np.zeros((network.size, 1))
        pick[2] = 1.0
        solution = solve(network, np.array([1000.0]), emfs, pick)
        self.assertAlmostEqual(solution.unknowns[0, 0, 0].real, 0.5)
        self.assertAlmostEqual(solution.unknowns[0, 2, 0].real, 2.5)
        # The adjoint, though nothing goes back through a stage: c.x = y.b.
        right = np.zeros(network.size)
        right[network.node_count] = -1.0
        self.assertAlmostEqual(float((solution.adjoints[0, :, 0] @ right).real), 2.5)

    def test_what_stands_around_a_part_stands_for_the_rest(self) -> None:
        # Norton: 2 V behind 5 ohm beside the part are 0.2 S and 0.4 A into it; a second emf of its own comes on top.
        part = Network(
            ("a", "b"), ((0, 1, 0.5), (1, EARTH, 0.25)), (), (Bundle((0,), (EARTH,), (4.0,), ((1e-3,),)),), ()
        )
        rest = Bundle((EARTH,), (1,), (5.0,), ((0.0,),))
        whole = Network(part.node_names, part.conductances, (), (*part.bundles, rest), ())
        hertz, none = np.array([50.0, 1000.0]), np.zeros((3, 0))
        expected = solve(whole, hertz, np.array([[1.0], [2.0]]), np.zeros((4, 0))).unknowns[:, :2, 0]
        around = NortonLoad(np.array([1]), np.full((2, 1, 1), 0.2 + 0j), np.full((2, 1, 1), 0.4 + 0j))
        found = System(part).solve(hertz, np.array([[1.0]]), none, around).unknowns[:, :2, 0]
        np.testing.assert_allclose(found, expected, rtol=1e-12)

    def test_many_copies_solved_sparsely_are_each_as_one_solved_in_full(self) -> None:
        def chain(copies: int) -> Network:
            conductances = [(n, EARTH, 0.01 * (1 + n % 3)) for n in range(3 * copies)]
            capacitances = tuple((3 * k, 3 * k + 1, 1e-7) for k in range(copies))
            bundles = tuple(
                Bundle((EARTH, 3 * k), (3 * k, 3 * k + 2), (5.0, 2.0), ((1e-3, 4e-4), (4e-4, 2e-3)))
                for k in range(copies)
            )
            coils = tuple(IdealTransformer(3 * k + 1, EARTH, 3 * k + 2, EARTH, 2.0) for k in range(copies))
            return Network(tuple(map(str, range(3 * copies))), tuple(conductances), capacitances, bundles, coils)

        hertz = np.array([50.0, 1000.0, 20_000.0])
        one, many = chain(1), chain(40)
        self.assertLess(one.size, 100)
        self.assertGreater(many.size, 100)
        small = solve(one, hertz, np.array([[1.0], [0.0]]), np.eye(one.size)[:, :1])
        emfs = np.zeros((many.branch_count, 1))
        emfs[2 * 7] = 1.0
        pick = np.zeros((many.size, 1))
        pick[3 * 7] = 1.0
        large = solve(many, hertz, emfs, pick)
        np.testing.assert_allclose(large.unknowns[:, 21:24, 0], small.unknowns[:, :3, 0], rtol=1e-9)
        np.testing.assert_allclose(large.adjoints[:, 21:24, 0], small.adjoints[:, :3, 0], rtol=1e-9)
        self.assertLess(np.abs(large.unknowns[:, :21]).max(), 1e-12)
