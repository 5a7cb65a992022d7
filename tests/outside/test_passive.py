"""Cables, shared returns and transformers against closed forms (Horowitz and Hill; Whitlock in Ballou's Handbook)."""

import math
import unittest
from typing import Any

import numpy as np

from ruvak.core.analyse import analyse
from ruvak.core.circuit.build import build
from ruvak.core.parts.reading import rig_from_document
from ruvak.core.prepare import prepare
from ruvak.core.results.records import InputResult
from ruvak.core.rig.part import Cable
from ruvak.core.rig.rig import Rig
from ruvak.core.solve.solver import solve
from ruvak.core.trace.trace import trace
from tests.support.rigs import receiver_part, source_part, stated_rig

RETURN = [("in.S", "out1.3"), ("in.S", "out1.1")]


def transformer(**changes: Any) -> dict[str, Any]:
    return {
        "type": "transformer", "primary_a": "in.T", "primary_b": "in.S", "secondary_a": "out1.2",
        "secondary_b": "out1.3", "turns_ratio": 1, "primary_ohm": 0, "secondary_ohm": 0, "magnetising_h": 1e9,
        "leakage_h": 0, "winding_f": 0, **changes,
    }  # fmt: skip


def one_input(**changes: Any) -> InputResult:
    mono = source_part(channels=[{"id": "1", "hot": "out.T"}], z_ohm=changes.pop("z_ohm", 100))
    return analyse(stated_rig(source=mono, **changes)).runs[0].result.inputs[0]


STATED_OTHERWISE = ("conductors", "characteristic_ohm", "screen_coverage", "optical")
"""Fields of a cable that are no plain figure, or that are not zero where nothing is stated."""


class Transformers(unittest.TestCase):
    def test_winding_resistance_divides_into_the_load(self) -> None:
        # 100 + 60 + 60 ohm into the 20 kohm between the legs.
        one = one_input(wires=[], elements=[transformer(primary_ohm=60, secondary_ohm=60)])
        self.assertAlmostEqual(one.channels[0].gain_db, 20 * math.log10(20_000 / 20_220), places=3)

    def test_a_step_down_divides_by_its_ratio(self) -> None:
        # 10:1 into 20 kohm: reflected 2 Mohm, so hardly any loss but the ratio.
        one = one_input(wires=[], elements=[transformer(turns_ratio=10)])
        self.assertAlmostEqual(one.channels[0].gain_db, -20 + 20 * math.log10(2e6 / (2e6 + 100)), places=3)

    def test_magnetising_inductance_sets_the_bass_corner(self) -> None:
        # R/(2 pi L), R being source and reflected load in parallel; half power relative to 1 kHz.
        ohm = 1 / (1 / 600 + 1 / 20_000)
        corner = 60.0
        one = one_input(z_ohm=600, wires=[], elements=[transformer(magnetising_h=ohm / (2 * math.pi * corner))])
        assert one.response is not None and one.response.low_3db_hz is not None
        expected = corner / math.sqrt(2 * (1 + (corner / 1000) ** 2) - 1)
        self.assertAlmostEqual(one.response.low_3db_hz, expected, delta=0.2)

    def test_leakage_inductance_sets_the_treble_corner(self) -> None:
        # R/(2 pi L) with source and load in series.
        corner = 8000.0
        one = one_input(wires=[], elements=[transformer(leakage_h=20_100 / (2 * math.pi * corner))])
        assert one.response is not None and one.response.high_3db_hz is not None
        expected = corner * math.sqrt(2 * (1 + (1000 / corner) ** 2) - 1)
        self.assertAlmostEqual(one.response.high_3db_hz, expected, delta=20)

    def test_reversed_secondary_turns_the_signal_over(self) -> None:
        turned = transformer(secondary_a="out1.3", secondary_b="out1.2")
        self.assertFalse(one_input(wires=[], elements=[turned]).channels[0].in_phase)
        self.assertTrue(one_input(wires=[], elements=[transformer()]).channels[0].in_phase)


class SharedReturn(unittest.TestCase):
    def test_crosstalk_of_a_common_return_resistance(self) -> None:
        # Left loaded with R_L through a return r: the return rises by E r/(r + Z + R_L), and right follows it.
        # Here right alone is listened to, against the sleeve, while left drives its load.
        r, z, load = 10.0, 100.0, 500.0
        loads = [{"type": "resistor", "a": "in.T", "b": "in.S", "ohm": load}]
        wires = [("in.R", "out1.2"), ("in.S", "out1.3")]
        big = receiver_part(z_common_ohm=1e12, z_differential_ohm=1e12)
        rig = stated_rig(wires=wires, elements=loads, source=source_part(z_ohm=z, return_ohm=r), receiver=big)
        left, right = analyse(rig).runs[0].result.inputs[0].channels
        self.assertAlmostEqual(left.gain_db, 20 * math.log10(r / (r + z + load)), places=2)
        self.assertAlmostEqual(right.gain_db, 0.0, places=3)


def lead_rig(length_m: float, **per_m: float) -> Rig:
    """A two-channel source through a lead of stated constants into an XLR input."""
    constants = dict.fromkeys(
        (name for name in Cable.model_fields if name not in STATED_OTHERWISE),
        0.0,
    )
    pairs = (("T", "2"), ("R", "3"), ("S", "1"))
    conductors = [
        {"a": f"in.{a}", "b": f"out.{b}", "kind": "screen" if a == "S" else "core"} for a, b in pairs
    ]  # fmt: skip
    lead = {
        "id": "lead", "name": "Lead", "kind": "lead",
        "connectors": [{"id": "in", "label": "In", "form": "trs35-plug", "side": "in"},
                       {"id": "out", "label": "Out", "form": "xlr3-male", "side": "out"}],
        "cables": [{"conductors": conductors, **constants, **per_m}],
    }  # fmt: skip
    base = stated_rig().model_dump(mode="json", exclude_none=True)
    parts = [part for part in base["parts"] if part["id"] != "adapter"] + [lead]
    joins = [{"a": "source.out", "b": "lead1.in"}, {"a": "lead1.out", "b": "receiver.in1"}]
    run = {"id": "run", "number": 1, "name": "Run", "pieces": ["lead1"], "joins": joins}
    kit = [{"id": "lead1", "tag": "L1", "part": "lead", "length_m": length_m}]
    return prepare(rig_from_document({**base, "parts": parts, "kit": kit, "runs": [run]}))


class Cables(unittest.TestCase):
    def test_core_resistance_adds_to_the_source(self) -> None:
        # 100 ohm + 50 m of 2 ohm/m into 10 kohm a leg.
        one = analyse(lead_rig(50, core_ohm_per_m=2.0)).runs[0].result.inputs[0]
        self.assertAlmostEqual(one.channels[0].gain_db, 20 * math.log10(10_000 / 10_200), places=3)

    def test_capacitance_makes_an_rc_low_pass(self) -> None:
        # Core to screen 100 pF/m over 800 m with 100 ohm parallel 10 kohm; series resistance next to nothing.
        one = analyse(lead_rig(800, core_to_screen_f_per_m=1e-10)).runs[0].result.inputs[0]
        assert one.response is not None
        ohm, farad = 1 / (1 / 100 + 1 / 10_000), 800 * 1e-10

        def power(hertz: float) -> float:
            return 1 + (2 * math.pi * hertz * ohm * farad) ** 2

        self.assertAlmostEqual(one.response.loss_20k_db, 10 * math.log10(power(20e3) / power(1e3)), delta=0.01)

    def test_doubling_the_length_doubles_what_is_in_series(self) -> None:
        ohms = []
        for length_m in (10, 20):
            rig = lead_rig(length_m, core_ohm_per_m=0.08, screen_ohm_per_m=0.03)
            bundle = max(build(rig, trace(rig)).network.bundles, key=lambda one: len(one.ohm))
            ohms.append(np.array(bundle.ohm))
        np.testing.assert_allclose(ohms[1], 2 * ohms[0])

    def test_pair_loop_inductance_is_what_the_maker_states(self) -> None:
        # Out through one core and back through the other: L1 + L2 - 2M = 0.6 uH/m, whatever all share.
        rig = lead_rig(10, pair_h_per_m=0.6e-6, external_h_per_m=1e-6)
        bundle = max(build(rig, trace(rig)).network.bundles, key=lambda one: len(one.ohm))
        (l1, m, _), (_, l2, _), _ = bundle.henry
        self.assertAlmostEqual(l1 + l2 - 2 * m, 6e-6, places=15)

    def test_the_screen_couples_to_both_cores_alike(self) -> None:
        rig = lead_rig(10, pair_h_per_m=0.6e-6, external_h_per_m=1e-6, screen_ohm_per_m=0.03)
        bundle = max(build(rig, trace(rig)).network.bundles, key=lambda one: len(one.ohm))
        self.assertEqual(bundle.henry[2][0], bundle.henry[2][1])
        self.assertEqual(bundle.henry[2][2], bundle.henry[2][0])


class Reciprocity(unittest.TestCase):
    def test_what_a_source_puts_into_an_input_the_input_would_put_into_the_source(self) -> None:
        # The reciprocity theorem of passive networks: the transfer is the same both ways.
        rig = lead_rig(100, core_ohm_per_m=0.1, core_to_core_f_per_m=6e-11, pair_h_per_m=6e-7)
        circuit = build(rig, trace(rig))
        emfs = np.zeros((circuit.network.branch_count, 1))
        emfs[circuit.drives[0].branch_gains[0][0]] = 1.0
        pick = np.zeros((circuit.network.size, 1))
        pick[circuit.receivers[0].hot] = 1.0
        solution = solve(circuit.network, np.array([5000.0]), emfs, pick)
        forward = solution.unknowns[0, circuit.receivers[0].hot, 0]
        branch = circuit.network.node_count + circuit.drives[0].branch_gains[0][0]
        self.assertAlmostEqual(forward, -solution.adjoints[0, branch, 0], places=12)
