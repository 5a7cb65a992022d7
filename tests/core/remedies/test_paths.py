"""The search for rewirings: it reaches, it fits, it takes nothing that others use."""

import unittest

from ruvak.core.entry.reader import read
from ruvak.core.pieces.cures import is_light_load, is_resistive_sum
from ruvak.core.pieces.route import Route
from ruvak.core.remedies.paths import edit_for, paths
from ruvak.core.rig.connectors import made_for
from ruvak.core.rig.edits import apply
from ruvak.core.rig.rig import Rig
from ruvak.core.trace.trace import connector_at
from tests.support.rigs import demo_rig, wired


def found(rig: Rig) -> tuple[Route, ...]:
    return paths(rig, rig.runs[0])


def goals(route: Route) -> list[str]:
    return [str(join.b) for join in route.joins if join.b.owner == "speaker"]


class Search(unittest.TestCase):
    def test_every_path_can_be_applied_and_every_plug_is_made_for_its_socket(self) -> None:
        rig = demo_rig()
        self.assertGreater(len(found(rig)), 20)
        for route in found(rig):
            after = apply(rig, edit_for(rig, rig.runs[0], route, "x"))
            for join in after.runs[0].joins:
                self.assertTrue(made_for(connector_at(after, join.a).form, connector_at(after, join.b).form))

    def test_every_path_of_runs_typed_from_nothing_can_be_applied(self) -> None:
        empty = wired(demo_rig(), gear=[], kit=[], runs=[], parts=[])
        for line in (
            "keyboard L/R > desk 1, 4 m, Y join",
            "cd player > desk 15/16, 3 m",
            "laptop > desk 1",
            "bass > amp",
        ):
            rig = apply(empty, read(empty, line).edit or self.fail(line))
            routes = paths(rig, rig.runs[0], (is_resistive_sum, is_light_load))
            self.assertTrue(routes, line)
            for route in routes:
                apply(rig, edit_for(rig, rig.runs[0], route, "x"))

    def test_todays_wiring_is_among_them(self) -> None:
        rig = demo_rig()
        self.assertIn(rig.runs[0].joins, [route.joins for route in found(rig)])

    def test_every_output_of_a_box_lands_in_a_socket_of_its_own(self) -> None:
        for route in found(demo_rig()):
            self.assertEqual(len(goals(route)), len(set(goals(route))))
            self.assertTrue(goals(route))

    def test_a_lead_that_is_too_short_alone_is_not_taken_alone(self) -> None:
        rig = demo_rig()
        far = wired(rig, kit=[{**k.model_dump(), "length_m": 18} if k.id == "lead-31" else k.model_dump()
                              for k in rig.kit])  # fmt: skip
        for route in found(far):
            total = sum(item.length_m or 0.0 for item in route.items)
            self.assertGreaterEqual(total, 18.0 * len(goals(route)) - 1e-9, [item.part for item in route.items])

    def test_kit_in_another_run_is_left_there(self) -> None:
        rig = demo_rig()
        other = {"id": "other", "number": 2, "name": "Other", "pieces": ["adapter-7", "lead-32"], "joins": []}
        busy = wired(rig, runs=[rig.runs[0].model_dump(), other])
        for route in found(busy):
            self.assertFalse({"adapter-7", "lead-32"} & {item.id for item in route.items})

    def test_what_is_built_in_is_never_taken_along(self) -> None:
        for route in found(demo_rig()):
            self.assertFalse(any(item.installed for item in route.items))

    def test_a_socket_in_use_is_left_alone(self) -> None:
        rig = demo_rig()
        joins = [{"a": "lead-32.out", "b": "speaker.in2"}]
        other = {"id": "other", "number": 2, "name": "Other", "pieces": ["lead-32"], "joins": joins}
        busy = wired(rig, runs=[rig.runs[0].model_dump(), other])
        for route in found(busy):
            self.assertEqual(goals(route), ["speaker.in1"])

    def test_nothing_is_searched_without_both_ends(self) -> None:
        rig = demo_rig()
        cut = wired(rig, runs=[{**rig.runs[0].model_dump(), "joins": []}])
        self.assertEqual(found(cut), ())
