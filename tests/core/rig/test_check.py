"""Names in a rig that point nowhere: each fault names the place, and the rig is refused."""

import unittest
from typing import Any

from ruvak.core.errors import RigFault
from ruvak.core.parts.reading import rig_from_document
from ruvak.core.prepare import prepare
from tests.support.rigs import adapter_part, document, source_part


def faults(given: dict[str, Any]) -> dict[str, str]:
    """where -> code."""
    try:
        prepare(rig_from_document(given))
    except RigFault as fault:
        assert all(one.sentence.endswith(".") for one in fault.faults), fault
        return {one.where: one.code for one in fault.faults}
    return {}


def run(**changes: Any) -> dict[str, Any]:
    return {**document()["runs"][0], **changes}


class Checks(unittest.TestCase):
    def test_the_demo_is_sound(self) -> None:
        self.assertEqual(faults(document()), {})

    def test_unknown_parts(self) -> None:
        gear = [{**document()["gear"][0], "part": "laptop-of-dreams"}, document()["gear"][1]]
        self.assertEqual(faults(document(gear=gear))["gear[0].part"], "unknown_part")
        kit = [{**item, "part": "no-such"} if item["id"] == "lead-31" else item for item in document()["kit"]]
        self.assertIn("unknown_part", faults(document(kit=kit)).values())

    def test_gear_is_not_kit(self) -> None:
        gear = [*document()["gear"], {"id": "odd", "name": "Odd", "part": "mic-lead"}]
        self.assertEqual(faults(document(gear=gear)), {f"gear[{len(gear) - 1}].part": "unknown_part"})

    def test_contacts_that_do_not_exist(self) -> None:
        parts = [*document()["parts"], adapter_part([("in.T", "out1.7")])]
        found = faults(document(parts=parts))
        self.assertEqual(list(found.values()), ["unknown_contact"])
        self.assertTrue(next(iter(found)).endswith("wires[0].b"))

    def test_two_things_with_one_id(self) -> None:
        gear = [*document()["gear"], document()["gear"][0]]
        self.assertEqual(faults(document(gear=gear)), {"gear and kit": "duplicate_id"})

    def test_a_lead_used_twice(self) -> None:
        runs = [run(), run(id="other", number=2, joins=[])]
        found = faults(document(runs=runs))
        self.assertEqual(found, {"runs[1].pieces[0]": "lead_used_twice", "runs[1].pieces[1]": "lead_used_twice"})

    def test_a_socket_taken_twice(self) -> None:
        joins = [*run()["joins"], {"a": "laptop.phones", "b": "adapter-4.in"}]
        self.assertEqual(faults(document(runs=[run(joins=joins)]))["runs[0].joins[3].a"], "socket_taken")

    def test_plugs_that_do_not_fit(self) -> None:
        joins = [{"a": "laptop.phones", "b": "lead-31.in"}]
        self.assertEqual(faults(document(runs=[run(joins=joins)])), {"runs[0].joins[0]": "does_not_fit"})

    def test_ends_that_are_not_there(self) -> None:
        joins = [{"a": "laptop.ghost", "b": "ghost.in"}]
        expected = {"runs[0].joins[0].a": "unknown_connector", "runs[0].joins[0].b": "unknown_owner"}
        self.assertEqual(faults(document(runs=[run(joins=joins)])), expected)

    def test_a_join_through_something_not_in_the_run(self) -> None:
        joins = [{"a": "laptop.phones", "b": "adapter-7.in"}]
        self.assertEqual(faults(document(runs=[run(joins=joins)])), {"runs[0].joins[0].b": "not_a_piece"})

    def test_leads_have_lengths_and_adapters_have_none(self) -> None:
        kit = [{k: v for k, v in item.items() if k != "length_m"} for item in document()["kit"]]
        self.assertEqual(set(faults(document(kit=kit)).values()), {"length"})
        kit = [{**item, "length_m": 2} for item in document()["kit"]]
        self.assertEqual(set(faults(document(kit=kit)).values()), {"length"})

    def test_settings(self) -> None:
        for settings, code in (
            ({"volume": 7}, "bad_setting"),
            ({"volume": "loud"}, "bad_setting"),
            ({"mono": 1}, "bad_setting"),
            ({"bass": 3}, "unknown_setting"),
        ):
            gear = [{**document()["gear"][0], "settings": settings}, document()["gear"][1]]
            self.assertEqual(list(faults(document(gear=gear)).values()), [code], settings)

    def test_ports_name_connectors_and_settings_that_exist(self) -> None:
        part = source_part(connectors=["in9"], level_setting="volume", mono_setting="mono")
        found = faults(document(parts=[*document()["parts"], part]))
        self.assertEqual(sorted(found.values()), ["unknown_connector", "unknown_setting", "unknown_setting"])
