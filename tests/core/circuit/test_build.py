"""From parts to elements: floating things are tied down and told, worn contacts count, islands never crash."""

import unittest

from ruvak.core.circuit.build import build
from ruvak.core.rig.rig import Rig
from ruvak.core.solve.islands import islands
from ruvak.core.trace.trace import trace
from tests.support.rigs import demo_rig, stated_rig, wired


class Building(unittest.TestCase):
    def test_no_island_is_left(self) -> None:
        for rig in (demo_rig(), stated_rig(wires=[]), stated_rig(wires=[("in.T", "out1.1")])):
            self.assertEqual(islands(build(rig, trace(rig)).network), ())

    def test_what_floats_is_named(self) -> None:
        rig = stated_rig(wires=[])
        self.assertIn("source", build(rig, trace(rig)).floating)
        self.assertNotIn("laptop", build(demo_rig(), trace(demo_rig())).floating)

    def test_an_empty_rig_is_no_trouble(self) -> None:
        rig = Rig.model_validate({**demo_rig().model_dump(), "gear": (), "kit": (), "runs": ()})
        self.assertEqual(build(rig, trace(rig)).drives, ())

    def test_a_worn_contact_replaces_the_assumption(self) -> None:
        def ohms(rig: Rig) -> list[float]:
            return sorted({ohm for bundle in build(rig, trace(rig)).network.bundles for ohm in bundle.ohm})

        rig = demo_rig()
        parts = [part.model_dump() for part in rig.parts]
        for part in parts:
            if part["id"] == "mic-lead":
                part["connectors"][1]["contact_ohm"] = {"value": 0.77, "source": "measured"}
        self.assertNotIn(0.77, ohms(rig))
        self.assertIn(0.77, ohms(wired(rig, parts=parts)))
