"""Points are values: parsed once from the text of a rig file, written back as the same text."""

import unittest
from typing import Any

from pydantic import TypeAdapter, ValidationError

from ruvak.core.rig.points import (
    CHASSIS,
    BondEnd,
    BondTarget,
    Contact,
    ContactRef,
    End,
    Endpoint,
    InnerNode,
    NodeRef,
    Point,
    PointRef,
)

READ: tuple[tuple[Any, str, Any], ...] = (
    (End, "laptop.phones", Endpoint("laptop", "phones")),
    (Point, "in.T", Contact("in", "T")),
    (Point, "g", InnerNode("g")),
    (PointRef, "laptop.phones.T", ContactRef("laptop", "phones", "T")),
    (PointRef, "laptop.g", NodeRef("laptop", "g")),
    (BondEnd, "projector", BondTarget("projector")),
    (BondEnd, "laptop.g", BondTarget("laptop", InnerNode("g"))),
    (BondEnd, "desk.usb.shell", BondTarget("desk", Contact("usb", "shell"))),
)


class Points(unittest.TestCase):
    def test_text_becomes_a_value_and_the_same_text_again(self) -> None:
        for kind, text, value in READ:
            adapter: TypeAdapter[object] = TypeAdapter(kind)
            self.assertEqual(adapter.validate_python(text), value)
            self.assertIs(type(adapter.validate_python(text)), type(value))
            self.assertEqual(str(value), text)
            self.assertEqual(adapter.dump_python(value, mode="json"), text)
            self.assertEqual(adapter.validate_python(value), value, "a value passes as it is")

    def test_text_that_is_no_point_is_refused(self) -> None:
        refused: tuple[tuple[Any, Any], ...] = (
            (End, "laptop"),
            (End, "a.b.c"),
            (Point, "a.b.c"),
            (Point, ""),
            (BondEnd, "A"),
            (End, 3),
        )
        for kind, text in refused:
            with self.assertRaises(ValidationError):
                TypeAdapter(kind).validate_python(text)

    def test_a_value_that_its_text_would_not_allow_is_refused(self) -> None:
        refused: tuple[tuple[Any, Any], ...] = (
            (End, Endpoint("laptop", "a.b")), (End, Contact("a", "b")), (Point, Contact("in", "T.x")),
        )  # fmt: skip
        for kind, value in refused:
            with self.assertRaises(ValidationError):
                TypeAdapter(kind).validate_python(value)

    def test_the_schema_says_that_it_is_text(self) -> None:
        for schema in (TypeAdapter(End).json_schema(), TypeAdapter(End).json_schema(mode="serialization")):
            self.assertEqual((schema["type"], "pattern" in schema), ("string", True))

    def test_points_of_a_part_become_points_of_a_device(self) -> None:
        self.assertEqual(Contact("in", "T").of("desk"), ContactRef("desk", "in", "T"))
        self.assertEqual(CHASSIS.of("desk"), NodeRef("desk", "chassis"))
        self.assertEqual(Endpoint("desk", "in").contact("T").in_part, Contact("in", "T"))
        self.assertEqual(ContactRef("desk", "in", "T").endpoint, Endpoint("desk", "in"))
