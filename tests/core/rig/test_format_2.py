"""Version 2 of the rig file: files of version 1 are read as they were meant; what is new is checked by name."""

import json
import unittest
from pathlib import Path
from typing import Any

from ruvak.core.errors import RigFault
from ruvak.core.parts.reading import rig_from_document, rig_from_json
from ruvak.core.prepare import prepare
from ruvak.core.rig.files import VERSION, upgrade
from ruvak.service.demo_data import demo_rig

FORMER = Path(__file__).parents[2] / "fixtures" / "format-1"
Doc = dict[str, Any]


def demo_document() -> Doc:
    document: Doc = json.loads(demo_rig("lantern-evening").model_dump_json(exclude_none=True))
    return document


class Former(unittest.TestCase):
    def test_every_demo_rig_as_version_1_had_it_reads_as_the_same_rig(self) -> None:
        files = sorted(FORMER.glob("*.json"))
        self.assertEqual(len(files), 4)
        for file in files:
            self.assertEqual(json.loads(file.read_text())["version"], 1)
            self.assertEqual(prepare(rig_from_json(file.read_bytes())), prepare(demo_rig(file.stem)), file.stem)

    def test_only_the_runs_pieces_have_another_name(self) -> None:
        former = json.loads((FORMER / "lantern-evening.json").read_text())
        run = former["runs"][0]
        renamed = {"pieces" if name == "legs" else name: value for name, value in run.items()}
        self.assertEqual(upgrade(former), {**former, "version": VERSION, "runs": [renamed]})

    def test_what_is_wrong_in_a_former_file_is_still_named(self) -> None:
        for runs in (7, [7], [{"id": "r"}]):
            with self.assertRaises(RigFault) as raised:
                rig_from_document({**demo_document(), "version": 1, "runs": runs})
            self.assertTrue(any(fault.where.startswith("runs") for fault in raised.exception.faults))


class New(unittest.TestCase):
    def faults(self, **gear: Any) -> set[str]:
        document = demo_document()
        document["gear"][0] |= gear
        with self.assertRaises(RigFault) as raised:
            prepare(rig_from_document(document))
        return {fault.code for fault in raised.exception.faults}

    def test_a_contact_that_is_not_there(self) -> None:
        self.assertEqual(self.faults(contacts=[{"at": "phones.R9", "ohm": 0.1}]), {"unknown_contact"})
        self.assertEqual(self.faults(contacts=[{"at": "phones", "ohm": 0.1}]), {"field_string_pattern_mismatch"})

    def test_a_host_that_is_not_there_or_the_box_itself(self) -> None:
        document = demo_document()
        self.assertEqual(self.faults(host="nobody"), {"unknown_host"})
        self.assertEqual(self.faults(host=document["gear"][0]["id"]), {"unknown_host"})

    def test_a_send_of_an_input_and_output_that_are_not_there(self) -> None:
        self.assertEqual(self.faults(sends=[{"input": "x", "output": "y"}]), {"unknown_input", "unknown_output"})


if __name__ == "__main__":
    unittest.main()
