"""The solver against textbook circuits (Horowitz and Hill, The Art of Electronics, ch. 1; Nilsson and Riedel)."""

import math
import unittest

import numpy as np

from ruvak.core.solve.network import EARTH, Bundle, IdealTransformer, Network
from ruvak.core.solve.solver import solve


def branch(a: int, b: int, ohm: float, henry: float = 0.0) -> Bundle:
    return Bundle((a,), (b,), (ohm,), ((henry,),))


def volts(network: Network, hertz: float, emfs: list[float], node: int) -> complex:
    solution = solve(network, np.array([hertz]), np.array([emfs]).T, np.zeros((network.size, 0)))
    return complex(solution.unknowns[0, node, 0])


class Dividers(unittest.TestCase):
    def test_two_resistors_divide(self) -> None:
        network = Network(("top",), ((0, EARTH, 1 / 3000.0),), (), (branch(EARTH, 0, 1000.0),), ())
        self.assertAlmostEqual(volts(network, 1000.0, [1.0], 0), 0.75, places=12)

    def test_loaded_divider(self) -> None:
        # 1 kohm into 10 kohm in parallel with 10 kohm: 5/6.
        network = Network(("out",), ((0, EARTH, 1e-4), (0, EARTH, 1e-4)), (), (branch(EARTH, 0, 1000.0),), ())
        self.assertAlmostEqual(volts(network, 50.0, [1.0], 0), 5 / 6, places=12)


class Corners(unittest.TestCase):
    def test_rc_low_pass_is_3_01_db_down_and_45_degrees_late_at_its_corner(self) -> None:
        ohm, farad = 10_000.0, 1e-9
        corner = 1 / (2 * math.pi * ohm * farad)
        network = Network(("out",), (), ((0, EARTH, farad),), (branch(EARTH, 0, ohm),), ())
        out = volts(network, corner, [1.0], 0)
        self.assertAlmostEqual(20 * math.log10(abs(out)), -3.0103, places=4)
        self.assertAlmostEqual(math.degrees(math.atan2(out.imag, out.real)), -45.0, places=9)

    def test_rc_falls_20_db_a_decade(self) -> None:
        network = Network(("out",), (), ((0, EARTH, 1e-6),), (branch(EARTH, 0, 1e4),), ())
        high, higher = (abs(volts(network, hertz, [1.0], 0)) for hertz in (1e4, 1e5))
        self.assertAlmostEqual(20 * math.log10(higher / high), -20.0, places=4)

    def test_series_resonance(self) -> None:
        # Q = (1/R) sqrt(L/C) = 10: the capacitor carries ten times the emf at 1/(2 pi sqrt(LC)).
        henry, farad, ohm = 1e-3, 1e-7, 10.0
        hertz = 1 / (2 * math.pi * math.sqrt(henry * farad))
        network = Network(("out",), (), ((0, EARTH, farad),), (branch(EARTH, 0, ohm, henry),), ())
        self.assertAlmostEqual(abs(volts(network, hertz, [1.0], 0)), 10.0, places=9)


class Coupling(unittest.TestCase):
    def test_opposed_coupled_coils_have_their_leakage_only(self) -> None:
        # L1 + L2 - 2M for a current that goes out through one and back through the other.
        own, mutual, hertz = 1.3e-6, 1.0e-6, 10_000.0
        bundle = Bundle((EARTH, EARTH), (0, 0), (1.0, 1.0), ((own, mutual), (mutual, own)))
        network = Network(("far",), ((0, EARTH, 1e-9),), (), (bundle,), ())
        emfs = np.array([[1.0], [-1.0]])
        solution = solve(network, np.array([hertz]), emfs, np.zeros((network.size, 0)))
        current = complex(solution.unknowns[0, 1, 0])
        expected = 1.0 / complex(1.0, 2 * math.pi * hertz * (own - mutual))
        self.assertAlmostEqual(current, expected, places=12)

    def test_ideal_transformer_reflects_impedance_by_the_square_of_its_ratio(self) -> None:
        # 10:1 from 1 kohm to 10 ohm: the source sees 1 kohm, so half the emf; the load a tenth of that.
        network = Network(
            ("primary", "load"), ((1, EARTH, 0.1),), (), (branch(EARTH, 0, 1000.0),),
            (IdealTransformer(0, EARTH, 1, EARTH, 10.0),),
        )  # fmt: skip
        self.assertAlmostEqual(volts(network, 1000.0, [1.0], 0), 0.5, places=12)
        self.assertAlmostEqual(volts(network, 1000.0, [1.0], 1), 0.05, places=12)
