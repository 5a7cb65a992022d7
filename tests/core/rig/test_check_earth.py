"""Faults in the earth's tree, in readings, outlets and bonds, each told where it stands."""

import unittest
from typing import Any

from ruvak.core.errors import RigFault
from tests.support.earths import class_1, earthed, outlets, ts_cable, ts_input, ts_source

Doc = dict[str, Any]


def faults(earth: list[Doc], **more: Any) -> dict[str, str]:
    parts = [ts_source("keys", 100, class_1(0.1)), ts_input("desk", 1e4, class_1(0.1)), ts_cable()]
    joins = [[("keys.out1", "lead.in"), ("lead.out", "desk.in1")]]
    try:
        earthed(parts, joins, {"lead": {"part": "lead", "length_m": 5.0}}, earth=earth, **more)
    except RigFault as fault:
        return {one.where: one.code for one in fault.faults}
    return {}


def point(id_: str, kind: str = "outlet", **more: Any) -> Doc:
    return {"id": id_, "name": id_, "kind": kind, **more}


class Faults(unittest.TestCase):
    def test_a_sound_tree(self) -> None:
        tree = [
            point("b", "board"),
            point("c", "circuit", parent="b"),
            point("o", parent="c", voltage={"reading_v": 0.1}),
        ]
        self.assertEqual(faults(tree, at={"keys": "o"}), {})

    def test_parents(self) -> None:
        self.assertEqual(faults([point("o", parent="x")]), {"venue.earth[0].parent": "unknown_outlet"})
        upside_down = [point("o"), point("c", "circuit", parent="o")]
        self.assertEqual(faults(upside_down), {"venue.earth[1].parent": "earth_order"})
        ring = [point("a", parent="b"), point("b", parent="a")]
        self.assertEqual(faults(ring), {"venue.earth": "earth_loop"})

    def test_readings(self) -> None:
        where = "venue.earth[0].voltage"
        self.assertEqual(faults([point("o", voltage={})]), {where: "earth_voltage"})
        both = {"reading_v": 0.1, "lines": [{"h": 1, "v": 0.1}]}
        self.assertEqual(faults([point("o", voltage=both)]), {where: "earth_voltage"})
        twice = {"lines": [{"h": 1, "v": 0.1}, {"h": 1, "v": 0.2}]}
        self.assertEqual(faults([point("o", voltage=twice)]), {f"{where}.lines": "earth_voltage"})
        two_pin = {"reading_v": 60.0}
        self.assertEqual(faults([point("o", voltage=two_pin)]), {f"{where}.reading_v": "earth_voltage"})
        self.assertEqual(
            faults([point("o", voltage={"reading_v": 0.1, "against": "x"})]), {f"{where}.against": "unknown_outlet"}
        )
        each_other = [
            point("a", voltage={"reading_v": 0.1, "against": "b"}),
            point("b", voltage={"reading_v": 0.1, "against": "a"}),
        ]
        self.assertEqual(faults(each_other), {"venue.earth": "earth_loop"})

    def test_outlets_and_names(self) -> None:
        self.assertEqual(faults(outlets(o=0.0), at={"keys": "x"}), {"gear[0].outlet": "unknown_outlet"})
        self.assertEqual(faults([point("keys")]), {"venue.earth[0].id": "duplicate_id"})
        self.assertEqual(faults([point("o"), point("o")]), {"venue.earth": "duplicate_id"})

    def test_bonds(self) -> None:
        def bond(a: str, b: str) -> dict[str, str]:
            return faults(outlets(o=0.0), bonds=[{"id": "x", "name": "x", "kind": "usb", "a": a, "b": b}])

        self.assertEqual(bond("keys", "desk"), {})
        self.assertEqual(bond("keys.g", "o"), {})
        self.assertEqual(bond("keys.out1.S", "desk.chassis"), {})
        self.assertEqual(bond("keys.out1.X", "o"), {"bonds[0].a": "unknown_owner"})
        self.assertEqual(bond("keys", "lead"), {"bonds[0].b": "unknown_owner"})
        self.assertEqual(bond("keys", "keys"), {"bonds[0]": "bond_to_itself"})
