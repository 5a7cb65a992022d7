"""Any rig file ends in an analysis or in a RigFault that names the field: known faults by name, and a seeded sample."""

import unittest
from typing import Any

from ruvak.core.analyse import analyse
from ruvak.core.errors import RigFault
from ruvak.core.parts.library import default_assumptions
from ruvak.core.parts.reading import rig_from_document
from ruvak.core.rig.values import sizes
from tests.support.mutants import mutant, verdict_of
from tests.support.rigs import document

SAMPLE = 250


def with_assumptions(**changes: Any) -> dict[str, Any]:
    return document(assumptions=changes)


def with_disturbances(**changes: Any) -> dict[str, Any]:
    return with_assumptions(disturbances=changes)


def with_part(part_id: str, change: Any) -> dict[str, Any]:
    """The demo rig's file with one of its parts changed."""
    whole = document()
    change(next(part for part in whole["parts"] if part["id"] == part_id))
    return whole


class KnownFaults(unittest.TestCase):
    def fields(self, given: dict[str, Any]) -> list[str]:
        with self.assertRaises(RigFault) as caught:
            analyse(rig_from_document(given))
        return [fault.where for fault in caught.exception.faults]

    def test_an_output_or_input_at_a_node_that_nothing_leads_to(self) -> None:
        whole = document()
        for index, part in enumerate(whole["parts"]):
            for kind in ("outputs", "inputs"):
                for number, port in enumerate(part.get(kind, ())):
                    for field in {"common", "hot", "cold", "screen"} & port.keys():
                        kept, port[field] = port[field], "nowhere"
                        self.assertIn(f"parts[{index}].{kind}[{number}].{field}", self.fields(whole))
                        port[field] = kept

    def test_plug_in_power_with_a_switch_that_is_not_there(self) -> None:
        whole = document()
        inputs = [(i, j, one) for i, part in enumerate(whole["parts"]) for j, one in enumerate(part.get("inputs", ()))]
        for i, j, one in inputs:
            one["phantom"] = {"setting": "missing"}
            self.assertIn(f"parts[{i}].inputs[{j}].phantom.setting", self.fields(whole))

    def test_preset_lines_and_frequencies_that_are_none(self) -> None:
        line = {"presets": {"linear": {"lines": {"h3": 1.0}, "source": "stated"}}}
        self.assertTrue(self.fields(with_disturbances(**line))[0].startswith("assumptions.disturbances.presets.linear"))
        line["presets"]["linear"]["lines"] = {"0": 1.0}
        self.assertTrue(self.fields(with_disturbances(**line))[0].startswith("assumptions.disturbances.presets.linear"))
        for hz in (0, -5000):
            where = self.fields(with_disturbances(computer_hz=[hz]))
            self.assertEqual(where[0], "assumptions.disturbances.computer_hz[0]")

    def test_a_connector_family_that_does_not_exist(self) -> None:
        where = self.fields(with_assumptions(contact_ohm={"XLR": 5}))
        self.assertTrue(where[0].startswith("assumptions.contact_ohm"), where)

    def test_a_level_no_device_has(self) -> None:
        whole = document(alignment={"full_scale_dbu": -1e15, "nominal_dbu": 4.0})
        self.assertEqual(self.fields(whole), ["alignment.full_scale_dbu"])


class PartialAssumptions(unittest.TestCase):
    """What a file leaves out is the library's."""

    def test_nothing_stated_is_the_library(self) -> None:
        empty: tuple[dict[str, Any], ...] = ({}, {"disturbances": {}}, {"contact_ohm": {}})
        for stated in empty:
            self.assertEqual(rig_from_document(document(assumptions=stated)).assumptions, default_assumptions())

    def test_empty_tables_are_the_library(self) -> None:
        for table in ("segments", "between_v", "presets", "bond_ohm", "mains_v"):
            rig = rig_from_document(with_disturbances(**{table: {}}))
            self.assertEqual(rig.assumptions, default_assumptions(), table)

    def test_one_figure_is_enough(self) -> None:
        known = default_assumptions()
        rig = rig_from_document(with_disturbances(field_t=0))
        assert rig.assumptions is not None
        self.assertEqual(sizes(rig.assumptions.disturbances.field_t), (0.0, 0.0))
        self.assertEqual(rig.assumptions.disturbances.between_v, known.disturbances.between_v)
        self.assertEqual(rig.assumptions.contact_ohm, known.contact_ohm)

    def test_one_figure_of_a_table_leaves_the_others(self) -> None:
        given = with_disturbances(segments={"strip": {"ohm": 0.5}}, mains_v={"50": 240})
        rig = rig_from_document(given)
        assert rig.assumptions is not None
        found, known = rig.assumptions.disturbances, default_assumptions().disturbances
        self.assertEqual((found.segments["strip"].ohm.value, found.mains_v["50"].value), (0.5, 240.0))
        self.assertEqual(found.segments["strip"].length_m, known.segments["strip"].length_m)
        self.assertEqual((found.segments["board"], found.mains_v["60"]), (known.segments["board"], known.mains_v["60"]))


class Mutants(unittest.TestCase):
    def test_a_seeded_sample_ends_as_it_must(self) -> None:
        for seed in range(SAMPLE):
            given, done = mutant(seed)
            self.assertIsNone(verdict_of(given), f"seed {seed}: {done}")
