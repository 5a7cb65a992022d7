"""The exported netlists of the demo rigs and of random rigs, solved by ngspice: every input within 0.01 dB or 1 nV."""

import unittest
from statistics import median
from typing import get_args

from hypothesis import HealthCheck, Phase, given, settings

from ruvak.core.circuit.circuit import CauseCode
from ruvak.core.rig.rig import Rig
from ruvak.formats.spice import excitations, netlist
from ruvak.service.demo_data import DEMOS, demo_rig
from tests.support.agreement import circuit_of, disagreements, some_points
from tests.support.fuzzing import MakeUp, agree_throughout
from tests.support.random_rigs import rigs

SAMPLE = 300


class Agreement(unittest.TestCase):
    def test_the_demo_rig(self) -> None:
        rig, circuit = circuit_of(demo_rig())
        self.assertEqual(disagreements(rig, circuit), [])

    def test_the_larger_ones_at_some_points(self) -> None:
        for name in DEMOS:
            rig, circuit = circuit_of(demo_rig(name))
            _, several = some_points(rig, circuit, 24)
            self.assertEqual(disagreements(rig, circuit, [several]), [], name)

    def test_random_rigs(self) -> None:
        of_all = MakeUp()

        @settings(
            max_examples=SAMPLE,
            derandomize=True,
            database=None,
            deadline=None,
            phases=[Phase.generate],
            suppress_health_check=list(HealthCheck),
        )
        @given(rigs())
        def agrees(random: Rig) -> None:
            rig, circuit = circuit_of(random)
            names, several = some_points(rig, circuit)
            of_all.add(len(rig.runs), bool(circuit.floating), names)
            self.assertEqual(disagreements(rig, circuit, [several]), [])

        agrees()
        print(f"\n{of_all}")
        self.assertGreaterEqual(median(of_all.runs), 12)
        self.assertGreaterEqual(of_all.floating, len(of_all.runs) / 4)
        self.assertLessEqual({*get_args(CauseCode), "programme"}, set(of_all.causes))


class ShortOfDigits(unittest.TestCase):
    def test_what_ngspice_cannot_tell_is_told_by_extended_precision(self) -> None:
        # 4 uV at an input beside 60 V of a floating source: ngspice is off by 13 nV, which fuzzing found.
        self.assertEqual(agree_throughout(5181).faults, [])


class Netlists(unittest.TestCase):
    def test_they_read_like_the_rig(self) -> None:
        rig, circuit = circuit_of(demo_rig())
        found = excitations(rig, circuit)
        text = netlist(rig, circuit, found[0])
        self.assertIn("* Lantern Evening: ", text)
        self.assertIn("laptop.phones.t", text)
        self.assertIn("* Input speaker in1: hot speaker.in1.2, cold speaker.in1.3", text)
        self.assertTrue(text.isascii())
        words = " ".join(one.words for one in found)
        self.assertIn("programme from Slides laptop, channel L", words)

    def test_names_that_differ_in_case_alone_stay_apart(self) -> None:
        from ruvak.core.solve.network import Network
        from ruvak.formats.spice import node_names

        network = Network(("a.In", "a.in", "a-in", "a:in", "0"), (), (), (), ())
        self.assertEqual(node_names(network), ["a.in", "a.in_2", "a_in", "a_in_2", "0_2"])


if __name__ == "__main__":
    unittest.main()
