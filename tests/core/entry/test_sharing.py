"""Two runs by one headset splitter: what goes into a phone and what comes back from it."""

import unittest

from ruvak.core.analyse import analyse
from ruvak.core.circuit.build import build
from ruvak.core.entry.reader import read
from ruvak.core.errors import RigFault
from ruvak.core.judge.finding import Grade
from ruvak.core.remedies.search import remedies_for
from ruvak.core.rig.check import check
from ruvak.core.rig.edits import Edit, RemoveThing, apply
from ruvak.core.trace.trace import trace
from tests.support.typed import typed_rig

FEED = "small mixer aux 1 > headset splitter > phone, 3 m"
MONITOR = "phone > headset splitter > small mixer 5/6, 3 m"
PIECE = "get-adapter-trrs-split-1"


class Sharing(unittest.TestCase):
    def test_either_may_be_typed_first(self) -> None:
        for lines in ((FEED, MONITOR), (MONITOR, FEED)):
            with self.subTest(lines[0]):
                rig = typed_rig(*lines)
                check(rig)
                self.assertEqual([item.id for item in rig.kit if "split" in item.part], [PIECE])
                self.assertTrue(all(PIECE in run.pieces for run in rig.runs))
                by_name = {run.name: run for run in rig.runs}
                self.assertEqual(str(by_name["Aux 1"].joins[-1].b), "phone.headset")
                self.assertEqual(str(by_name["Phone"].joins[0].a), "phone.headset")

    def test_both_are_judged_by_what_goes_their_way(self) -> None:
        analysis = analyse(typed_rig(MONITOR, FEED))
        inputs = {run.run: [(entry.gear, entry.input) for entry in run.result.inputs] for run in analysis.runs}
        self.assertEqual(inputs["aux-1"], [("phone", "mic")])
        self.assertEqual([gear for gear, _ in inputs["phone"]], ["small-mixer", "small-mixer"])
        self.assertNotIn(Grade.STOP, [finding.grade for run in analysis.runs for finding in run.findings])

    def test_the_plug_in_common_is_one_contact_and_not_two_side_by_side(self) -> None:
        rig = typed_rig(MONITOR, FEED)
        circuit = build(rig, trace(rig))
        plug = [point for point in circuit.node_of if str(point) == f"{PIECE}.plug.T"]
        socket = [point for point in circuit.node_of if str(point) == "phone.headset.T"]
        nodes = {circuit.node_of[plug[0]], circuit.node_of[socket[0]]}
        branches = [pair for some in circuit.network.bundles for pair in zip(some.a, some.b, strict=True)]
        self.assertEqual([set(pair) for pair in branches].count(nodes), 1)

    def test_a_free_socket_of_it_is_used_where_the_line_names_no_splitter(self) -> None:
        rig = typed_rig(MONITOR, "lapel > phone")
        self.assertTrue(all(PIECE in run.pieces for run in rig.runs))

    def test_where_it_is_full_the_line_is_refused(self) -> None:
        rig = typed_rig(MONITOR, FEED)
        self.assertEqual([problem.code for problem in read(rig, "lapel > phone").problems], ["socket_taken"])

    def test_another_piece_named_there_is_not_put_aside_for_it(self) -> None:
        reading = read(typed_rig(MONITOR), "lapel > headset wiring adapter > phone")
        self.assertEqual([problem.code for problem in reading.problems], ["socket_taken"])

    def test_one_of_them_can_be_deleted(self) -> None:
        rig = apply(typed_rig(MONITOR, FEED), Edit(label="x", ops=(RemoveThing(kind="runs", id="phone"),)))
        self.assertEqual([run.findings[0].grade for run in analyse(rig).runs], [Grade.CLEAR])

    def test_remedies_leave_it_where_it_is(self) -> None:
        rig = typed_rig(FEED, MONITOR)
        remedies = remedies_for(rig, "aux-1")
        self.assertTrue(remedies)
        for remedy in remedies:
            after = apply(rig, remedy.edit)
            self.assertTrue(all(PIECE in run.pieces for run in after.runs), remedy.title)

    def test_a_one_way_piece_is_still_in_one_run_only(self) -> None:
        rig = typed_rig("vocal > desk 1", "choir > desk 2")
        first, second = rig.runs
        stolen = second.model_copy(update={"pieces": first.pieces, "joins": first.joins})
        with self.assertRaises(RigFault) as caught:
            check(rig.with_fields(runs=(first, stolen)))
        self.assertIn("lead_used_twice", [fault.code for fault in caught.exception.faults])
