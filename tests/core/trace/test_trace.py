"""The metal: what is joined to what, and the drawing that the strip is made from."""

import random
import unittest
from typing import Any

from pydantic import BaseModel

from ruvak.core.analyse import analyse
from ruvak.core.rig.connectors import SHAPES, Form, fits, touching, uncertain
from ruvak.core.rig.points import parse_point_ref
from ruvak.core.rig.rig import Rig
from ruvak.core.trace.drawing import RunDrawing, draw
from ruvak.core.trace.trace import Trace, trace
from tests.support.rigs import adapter_part, demo_rig, receiver_part, stated_rig, wired


def together(traced: Trace, *points: str) -> bool:
    return len({traced.conductor_of[parse_point_ref(point)] for point in points}) == 1


def rounded(record: Any) -> Any:
    """The record's figures to nine significant digits: order of entry may move the last bits."""
    if isinstance(record, BaseModel):
        return {name: rounded(value) for name, value in record}
    if isinstance(record, tuple):
        return [rounded(value) for value in record]
    return float(f"{record:.8g}") * (abs(record) > 1e-9) if isinstance(record, float) else record


class Mating(unittest.TestCase):
    def test_only_a_plug_and_a_socket_of_one_family_fit(self) -> None:
        for one in Form:
            for other in Form:
                families = {SHAPES[one].family, SHAPES[other].family}
                same = len(families) == 1 or families in ({"combo", "xlr3"}, {"combo", "6.35 mm"})
                self.assertEqual(fits(one, other), same and SHAPES[one].plug != SHAPES[other].plug, (one, other))

    def test_four_contact_plugs_and_sockets(self) -> None:
        self.assertEqual(
            set(touching(Form.TRS35_PLUG, Form.TRRS35_SOCKET)), {("T", "T"), ("R", "R1"), ("S", "R2"), ("S", "S")}
        )
        self.assertTrue(uncertain(Form.TRRS35_PLUG, Form.TRS35_SOCKET))
        self.assertFalse(uncertain(Form.TRS35_PLUG, Form.TRRS35_SOCKET))
        for sleeve, met in (("R2", {"R2"}), ("S", {"S"}), ("both", {"R2", "S"})):
            pairs = touching(Form.TRRS35_PLUG, Form.TRS35_SOCKET, sleeve)  # type: ignore[arg-type]
            self.assertEqual({a for a, b in pairs if b == "S"}, met)
            self.assertIn(("R1", "R"), pairs)

    def test_a_two_contact_socket_may_short_a_ring(self) -> None:
        pairs = set(touching(Form.TRS635_PLUG, Form.TS635_SOCKET, ring="sleeve"))
        self.assertEqual(pairs, {("T", "T"), ("S", "S"), ("R", "S")})

    def test_a_combo_socket_is_two_inputs_in_one(self) -> None:
        self.assertEqual({b for _, b in touching(Form.XLR3_MALE, Form.COMBO_SOCKET)}, {"1", "2", "3", "shell"})
        self.assertEqual({b for _, b in touching(Form.TS635_PLUG, Form.COMBO_SOCKET)}, {"T", "R", "S"})

    def test_a_network_screen_needs_both_halves(self) -> None:
        both = touching(Form.MODULAR8_PLUG_SCREENED, Form.MODULAR8_SOCKET_SCREENED)
        self.assertIn(("screen", "screen"), both)
        for plug, socket in ((Form.MODULAR8_PLUG, Form.MODULAR8_SOCKET_SCREENED),
                             (Form.MODULAR8_PLUG_SCREENED, Form.MODULAR8_SOCKET)):  # fmt: skip
            self.assertEqual(len(touching(plug, socket)), 8)

    def test_touching_is_the_same_from_either_side(self) -> None:
        for one in Form:
            for other in Form:
                if fits(one, other):
                    turned = {(b, a) for a, b in touching(other, one)}
                    self.assertEqual(set(touching(one, other)), turned)

    def test_a_two_contact_plug_shorts_a_ring_to_its_sleeve(self) -> None:
        pairs = set(touching(Form.TS635_PLUG, Form.TRS635_SOCKET))
        self.assertEqual(pairs, {("T", "T"), ("S", "R"), ("S", "S")})

    def test_a_three_contact_plug_leaves_its_ring_open_in_a_two_contact_socket(self) -> None:
        self.assertEqual(set(touching(Form.TRS635_PLUG, Form.TS635_SOCKET)), {("T", "T"), ("S", "S")})


class Tracing(unittest.TestCase):
    def test_the_demo_brings_left_to_hot_right_to_cold_and_the_return_to_the_screen(self) -> None:
        traced = trace(demo_rig())
        self.assertTrue(together(traced, "laptop.phones.T", "adapter-4.out.2", "lead-31.out.2", "speaker.in1.2"))
        self.assertTrue(together(traced, "laptop.phones.R", "speaker.in1.3"))
        self.assertTrue(together(traced, "laptop.phones.S", "speaker.in1.1", "speaker.chassis", "speaker.in2.1"))
        self.assertFalse(together(traced, "laptop.phones.T", "laptop.phones.R"))

    def test_wires_merge_nodes_but_cores_and_contacts_do_not(self) -> None:
        traced = trace(demo_rig())

        def node(point: str) -> str:
            return traced.node_of[parse_point_ref(point)]

        self.assertEqual(node("adapter-4.in.T"), node("adapter-4.out.2"))
        self.assertNotEqual(node("lead-31.in.2"), node("lead-31.out.2"))
        self.assertNotEqual(node("laptop.phones.T"), node("adapter-4.in.T"))

    def test_only_kit_in_use_is_traced(self) -> None:
        self.assertNotIn("adapter-7", trace(demo_rig()).owners)

    def test_a_resistor_is_not_metal(self) -> None:
        resistor = {"type": "resistor", "a": "in.T", "b": "out1.2", "ohm": 1000}
        traced = trace(stated_rig(wires=[("in.S", "out1.1")], elements=[resistor]))
        self.assertFalse(together(traced, "source.out.T", "receiver.in1.2"))


class Drawing(unittest.TestCase):
    def drawn(self, rig: Rig) -> RunDrawing:
        return draw(rig, trace(rig), rig.runs[0])

    def test_pieces_stand_in_order_of_the_joins(self) -> None:
        pieces = self.drawn(demo_rig()).pieces
        self.assertEqual([(p.owner, p.column) for p in pieces],
                         [("laptop", 0), ("adapter-4", 1), ("lead-31", 2), ("speaker", 3)])  # fmt: skip

    def test_joins_may_be_written_in_any_order_and_direction(self) -> None:
        rig = demo_rig()
        joins = [{"a": join.b, "b": join.a} for join in reversed(rig.runs[0].joins)]
        turned = wired(rig, runs=[{**rig.runs[0].model_dump(), "joins": joins}])
        self.assertEqual(self.drawn(turned).pieces, self.drawn(rig).pieces)
        self.assertEqual(rounded(analyse(turned).runs[0].result), rounded(analyse(rig).runs[0].result))

    def test_a_fork_gets_a_second_lane(self) -> None:
        rig = stated_rig(wires=[("in.T", "out1.2"), ("in.R", "out2.2"), ("in.S", "out1.1"), ("in.S", "out2.1")],
                         outs=2, receiver=receiver_part(inputs=2, mix="mono"))  # fmt: skip
        adapter = self.drawn(rig).pieces[1]
        self.assertEqual([connector.lane for connector in adapter.outs], [0, 1])

    def test_conductors_say_what_they_carry_and_where_it_arrives(self) -> None:
        carried = {(c.carries, c.arrives) for c in self.drawn(demo_rig()).conductors}
        self.assertEqual(carried, {(("L",), ("hot",)), (("R",), ("cold",)), (("return",), ("screen",))})

    def test_conductors_partition_the_points_for_any_wiring(self) -> None:
        chance = random.Random(7)
        contacts = [f"in.{c}" for c in "TRS"] + [f"out1.{c}" for c in "231"]
        for _ in range(60):
            wires = [tuple(chance.sample(contacts, 2)) for _ in range(chance.randint(0, 6))]
            drawing = self.drawn(stated_rig(wires=wires))  # type: ignore[arg-type]
            points = [point for conductor in drawing.conductors for point in conductor.points]
            self.assertEqual(len(points), len(set(points)))
            where = {point: c.id for c in drawing.conductors for point in c.points}
            for link in drawing.links:
                self.assertEqual(where[link.a], where[link.b])


class Names(unittest.TestCase):
    def test_renaming_everything_changes_no_number_and_no_code(self) -> None:
        rig = demo_rig()
        before = analyse(rig).runs[0]
        parts = tuple(part.model_copy(update={"id": f"p{n}", "name": f"Thing {n}", "words": ""})
                      for n, part in enumerate(rig.parts))  # fmt: skip
        new = {part.id: f"p{n}" for n, part in enumerate(rig.parts)}
        renamed = rig.with_fields(
            parts=parts,
            gear=tuple(g.model_copy(update={"part": new[g.part], "name": "x"}) for g in rig.gear),
            kit=tuple(k.model_copy(update={"part": new[k.part], "tag": "y"}) for k in rig.kit),
        )
        after = analyse(renamed).runs[0]
        self.assertEqual(after.result, before.result)
        self.assertEqual([f.code for f in after.findings], [f.code for f in before.findings])

    def test_renaming_the_wiring_points_changes_nothing_either(self) -> None:
        rig = stated_rig()
        other = adapter_part(
            [(b, a) for a, b in reversed([("in.T", "out1.2"), ("in.R", "out1.3"), ("in.S", "out1.1")])]
        )
        parts = [part.model_dump() for part in rig.parts if part.id != "adapter"] + [other]
        self.assertEqual(analyse(wired(rig, parts=parts)).runs[0].result, analyse(rig).runs[0].result)
