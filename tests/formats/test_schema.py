"""The published JSON Schema of rig files says of every property what it is."""

import json
import unittest
from pathlib import Path
from typing import Any

PUBLISHED = Path("docs/formats/rig.schema.json")


class PublishedSchema(unittest.TestCase):
    def test_every_property_is_described(self) -> None:
        schema: dict[str, Any] = json.loads(PUBLISHED.read_text(encoding="utf-8"))
        records = {**schema["$defs"], "Rig": schema}
        bare = [
            f"{name}.{field}"
            for name, record in records.items()
            for field, given in record.get("properties", {}).items()
            if not given.get("description")
        ]
        self.assertEqual(bare, [])
        self.assertLessEqual({"Rig", "Gear", "BalancedInput", "EarthPoint", "Transformer"}, records.keys())
