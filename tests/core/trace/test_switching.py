"""Sockets that switch, lines that several runs share, and what a run shows of a multicore."""

import unittest
from typing import Any

from ruvak.core.analyse import analyse
from ruvak.core.entry.reader import read_all
from ruvak.core.prepare import prepare
from ruvak.core.rig.edits import apply
from ruvak.core.rig.points import parse_point_ref
from ruvak.core.rig.prune import prune
from ruvak.core.rig.rig import Join, Rig
from ruvak.core.trace.trace import trace
from tests.support.entry import entry_rig
from tests.support.wirings import balanced_input, balanced_source, situation

PATCH: dict[str, Any] = {
    # One way of a half-normalled patch bay: a plug below takes over the input, a plug above only listens.
    "id": "patch",
    "name": "Patch bay",
    "kind": "box",
    "connectors": [
        {"id": "top-rear", "label": "Top rear", "form": "trs635-socket", "side": "in"},
        {"id": "bottom-rear", "label": "Bottom rear", "form": "trs635-socket", "side": "out"},
        {"id": "bottom-front", "label": "Bottom front", "form": "trs635-socket", "side": "in"},
    ],
    "wires": [{"a": f"bottom-front.{c}", "b": f"bottom-rear.{c}"} for c in "TRS"],
    "switches": [
        {"connector": "bottom-front", "a": f"top-rear.{c}", "b": f"bottom-rear.{c}", "closed": "empty"} for c in "TRS"
    ],
}


def lead(id_: str) -> dict[str, Any]:
    plugs = [("in", "in"), ("out", "out")]
    return {
        "id": id_,
        "name": "Lead",
        "kind": "adapter",
        "connectors": [{"id": n, "label": n, "form": "trs635-plug", "side": side} for n, side in plugs],
        "wires": [{"a": f"in.{c}", "b": f"out.{c}"} for c in "TRS"],
    }


def patched(plug_below: bool) -> Rig:
    first, second = balanced_source("active", 50, "TRS"), balanced_source("impedance", 50, "TRS")
    joins = [("source-active.out", "a.in"), ("a.out", "patch.top-rear"), ("patch.bottom-rear", "b.in"),
             ("b.out", "input-trs.in"), ("source-impedance.out", "c.in")]  # fmt: skip
    if plug_below:
        joins.append(("c.out", "patch.bottom-front"))
    parts: list[dict[str, Any] | str] = [
        first,
        second,
        lead("a"),
        PATCH,
        lead("b"),
        lead("c"),
        balanced_input(10_000, "TRS"),
    ]
    return situation(parts, joins)


class Switching(unittest.TestCase):
    def test_a_half_normalled_socket_passes_until_something_is_plugged_in_below(self) -> None:
        for below, heard in ((False, {"source-active"}), (True, {"source-impedance"})):
            result = analyse(patched(below)).runs[0].result
            arriving = {
                result.sources[one.source].gear for one in result.inputs[0].channels if one.in_phase is not None
            }
            self.assertEqual(arriving, heard)

    def test_an_insert_sends_and_returns_on_one_socket(self) -> None:
        rig = entry_rig()
        edit = read_all(rig, "small mixer insert 3 > compressor")[0].edit
        assert edit is not None
        result = analyse(apply(rig, edit)).runs[0].result
        heard = {(one.gear, one.input): {result.sources[c.source].gear for c in one.channels if c.in_phase is not None}
                 for one in result.inputs}  # fmt: skip
        self.assertEqual(heard, {("comp", "in"): {"mixer"}, ("mixer", "return3"): {"comp"}})

    def test_an_insert_whose_return_is_broken_is_not_listened_to(self) -> None:
        rig = entry_rig()
        edit = read_all(rig, "small mixer insert 3 > compressor")[0].edit
        assert edit is not None
        rig = apply(rig, edit)
        (lead,) = rig.runs[0].pieces
        part = rig.part_of(lead)
        whole = [
            cable.model_copy(update={"conductors": tuple(c for c in cable.conductors if str(c.b) != "insert.R")})
            for cable in part.cables
        ]
        broken = part.model_copy(update={"id": "broken", "cables": tuple(cable for cable in whole if cable.conductors)})
        kit = tuple(item.model_copy(update={"part": "broken"}) if item.id == lead else item for item in rig.kit)
        result = analyse(rig.with_fields(kit=kit, parts=(*rig.parts, broken))).runs[0].result
        self.assertEqual([(one.gear, one.input) for one in result.inputs], [("comp", "in")])


class Sharing(unittest.TestCase):
    TEXT = "lead vocal > box 3 > desk 3\nchoir 1 > box 4 > desk 4\nlectern > wall 2 > desk 5"

    def rig(self) -> Rig:
        rig = entry_rig()
        for reading in read_all(rig, self.TEXT):
            assert reading.edit is not None
            rig = apply(rig, reading.edit)
        return rig

    def test_runs_share_a_multicore_and_each_shows_its_own_way(self) -> None:
        first, second, third = analyse(self.rig()).runs
        ways = [[str(one.end) for piece in run.drawing.pieces if piece.owner in ("box", "wall") for one in
                 (*piece.ins, *piece.outs)] for run in (first, second, third)]  # fmt: skip
        self.assertEqual(ways, [["box.s3", "box.t3"], ["box.s4", "box.t4"], ["wall.p2", "wall.k2"]])
        self.assertTrue(next(piece for piece in first.drawing.pieces if piece.owner == "box").installed)

    def test_pairs_with_one_screen_for_all_are_joined_by_it(self) -> None:
        traced = trace(self.rig())

        def conductor(point: str) -> str:
            return traced.conductor_of[parse_point_ref(point)]

        self.assertEqual(conductor("wall.p1.1"), conductor("wall.p4.1"))
        self.assertNotEqual(conductor("wall.p1.2"), conductor("wall.p2.2"))
        self.assertNotEqual(conductor("box.s1.1"), conductor("box.s2.1"))

    def test_a_single_lead_is_never_shared(self) -> None:
        rig = self.rig()
        from ruvak.core.errors import RigFault

        twice = rig.runs[1].model_copy(update={"pieces": (*rig.runs[0].pieces[:1], "box"), "joins": ()})
        with self.assertRaises(RigFault) as caught:
            prepare(rig.with_fields(runs=(rig.runs[0], twice, rig.runs[2])))
        self.assertIn("lead_used_twice", [fault.code for fault in caught.exception.faults])

    def test_what_is_not_in_use_changes_no_figure(self) -> None:
        rig = self.rig()
        small = prune(rig)
        self.assertLess(len(small.gear), len(rig.gear))
        self.assertLess(len(small.part_of("desk").connectors), len(rig.part_of("desk").connectors))
        self.assertTrue(all(isinstance(join, Join) for run in small.runs for join in run.joins))
        mine = [one.result.inputs[0].levels[0].arriving_dbu for one in analyse(rig).runs]
        theirs = [one.result.inputs[0].levels[0].arriving_dbu for one in analyse(small).runs]
        for one, other in zip(mine, theirs, strict=True):
            self.assertAlmostEqual(one, other, places=9)
