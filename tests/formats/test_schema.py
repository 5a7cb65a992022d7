"""The published JSON Schema of rig files and the OpenAPI document say of every property what it is."""

import json
import unittest
from pathlib import Path
from typing import Any

from script.shared.form_fields import form_fields

FORMATS = Path("docs/formats")


def bare(records: dict[str, Any]) -> list[str]:
    """Properties without a description."""
    return [
        f"{name}.{field}"
        for name, record in records.items()
        for field, given in record.get("properties", {}).items()
        if not given.get("description")
    ]


class Published(unittest.TestCase):
    def test_every_property_of_a_rig_file_is_described(self) -> None:
        schema: dict[str, Any] = json.loads((FORMATS / "rig.schema.json").read_text(encoding="utf-8"))
        records = {**schema["$defs"], "Rig": schema}
        self.assertEqual(bare(records), [])
        self.assertLessEqual({"Rig", "Gear", "BalancedInput", "EarthPoint", "Transformer"}, records.keys())

    def test_what_forms_show_comes_from_the_schema(self) -> None:
        schema: dict[str, Any] = json.loads((FORMATS / "rig.schema.json").read_text(encoding="utf-8"))
        committed = json.loads(Path("frontend/src/lib/api/form-fields.json").read_text(encoding="utf-8"))
        self.assertEqual(committed, form_fields(schema))
        self.assertEqual(committed["Venue.noise_dba"]["unit"], "dBA")

    def test_every_property_of_what_the_server_answers_is_described(self) -> None:
        document: dict[str, Any] = json.loads((FORMATS / "openapi.json").read_text(encoding="utf-8"))
        records = document["components"]["schemas"]
        self.assertEqual(bare(records), [])
        self.assertLessEqual({"Overview", "RunAnalysis", "Problem", "Remedy", "EditOutcome"}, records.keys())
