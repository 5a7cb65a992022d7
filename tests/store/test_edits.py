"""Editing together: different things never meet, the same field is a conflict with both values; undo is one's own."""

import threading
import uuid
from operator import attrgetter
from typing import Any
from unittest.mock import patch

from ruvak.core.errors import BadEdit
from ruvak.core.remedies.search import remedies_for
from ruvak.core.rig.edits import Edit, PutThing, RemoveThing, SetField, Touched, set_setting
from ruvak.core.rig.rig import KitItem, Run
from ruvak.service import kept
from ruvak.service.computer import Computer
from ruvak.service.problems import Conflict, NotCurrent, NothingToUndo
from ruvak.service.rigs import Rigs
from ruvak.service.states import Person
from tests.support.database import DatabaseTest, length, process_at
from tests.support.rigs import demo_rig

ANN, BEN = Person(id="a", name="First"), Person(id="b", name="Second")
MIC = Edit(label="mic", ops=(set_setting("speaker", "input1", "mic"),))


class EditTest(DatabaseTest):
    def setUp(self) -> None:
        self.rig_id = self.rigs.import_rig(demo_rig(), ANN).rig.id

    def tearDown(self) -> None:
        self.rigs.delete(self.rig_id)

    def version(self) -> str:
        return self.rigs.version(self.rig_id).version

    def length_m(self) -> float | None:
        return next(item.length_m for item in self.rigs.export(self.rig_id).kit if item.id == "lead-31")


class ReadWhileOthersSave(EditTest):
    """A process that reads a rig while another saves it has one version or the other, never some of both."""

    def read_while_saved(self, reader: Rigs, place: str) -> None:
        spare = KitItem(id="lead-90", tag="M90", part="mic-lead", length_m=5.0)
        added = Edit(label="M90", ops=(PutThing(kind="kit", thing=spare, at=0),))
        removed = Edit(label="no M90", ops=(RemoveThing(kind="kit", id="lead-90"),))
        self.edits.make(self.rig_id, self.version(), added, ANN)
        late = [removed]
        really = attrgetter(place)(kept)

        def save_first(*given: Any) -> Any:
            if late:
                self.edits.make(self.rig_id, self.version(), late.pop(), BEN)
            return really(*given)

        with patch(f"ruvak.service.kept.{place}", save_first):
            state = reader.open(self.rig_id, ANN)
        self.assertEqual(state.version, self.version())
        self.assertNotIn("lead-90", [item.id for item in state.rig.kit])
        self.edits.make(self.rig_id, self.version(), length(16.0), ANN)
        self.assertEqual(reader.export(self.rig_id), self.rigs.export(self.rig_id))

    def test_a_rig_read_whole(self) -> None:
        reader, _ = process_at(self.url)
        self.read_while_saved(reader, "read_rig")

    def test_a_rig_kept_from_before_with_the_edits_since(self) -> None:
        reader, _ = process_at(self.url)
        reader.export(self.rig_id)
        self.read_while_saved(reader, "history.since")


class SavedWhileSolving(EditTest):
    def test_remedies_of_a_version_that_nobody_has_any_longer_are_not_solved_to_the_end(self) -> None:
        told: list[float] = []

        def save_once(share: float) -> None:
            if not told:
                self.edits.make(self.rig_id, self.version(), length(16.0), ANN)
            told.append(share)

        computer = Computer(self.sessions, kept.KeptRigs(), save_once)
        with self.assertRaises(NotCurrent) as caught:
            computer.remedies(self.rig_id, "slides", False)
        self.assertEqual(caught.exception.current_version, self.version())
        ended_after = len(told)
        self.assertTrue(computer.remedies(self.rig_id, "slides", False).root)
        self.assertGreater(len(told) - ended_after, ended_after)


class Together(EditTest):
    def test_different_things_changed_on_the_same_version_both_stand(self) -> None:
        self.edits.make(self.rig_id, "0.0", length(16.0), ANN)
        outcome = self.edits.make(self.rig_id, "0.0", MIC, BEN)
        self.assertEqual((outcome.base, outcome.version), ("1.0", "2.0"))
        self.assertEqual(self.length_m(), 16.0)
        self.assertEqual(self.rigs.export(self.rig_id).gear[1].settings, {"input1": "mic"})

    def test_different_fields_of_one_thing_both_stand(self) -> None:
        self.edits.make(self.rig_id, "0.0", length(16.0), ANN)
        tag = Edit(label="tag", ops=(SetField(kind="kit", id="lead-31", field="tag", value="M99"),))
        self.edits.make(self.rig_id, "0.0", tag, BEN)
        item = next(one for one in self.rigs.export(self.rig_id).kit if one.id == "lead-31")
        self.assertEqual((item.length_m, item.tag), (16.0, "M99"))

    def test_the_same_field_is_a_conflict_with_both_values(self) -> None:
        self.edits.make(self.rig_id, "0.0", length(16.0), ANN)
        with self.assertRaises(Conflict) as caught:
            self.edits.make(self.rig_id, "0.0", length(99.0), BEN)
        (meeting,) = caught.exception.meetings
        self.assertEqual(caught.exception.current_version, "1.0")
        self.assertEqual(meeting.touched, Touched("kit", "lead-31", "length_m"))
        self.assertEqual((meeting.yours, meeting.theirs, meeting.by), (99.0, 16.0, "First"))
        self.assertEqual(self.length_m(), 16.0)

    def test_the_same_value_twice_is_no_conflict(self) -> None:
        self.edits.make(self.rig_id, "0.0", length(16.0), ANN)
        self.edits.make(self.rig_id, "0.0", length(16.0), BEN)
        self.assertEqual(self.length_m(), 16.0)

    def test_a_thing_and_a_field_of_it_meet(self) -> None:
        spare = KitItem(id="lead-31", tag="M31", part="mic-lead", length_m=7.0)
        self.edits.make(self.rig_id, "0.0", Edit(label="put", ops=(PutThing(kind="kit", thing=spare),)), ANN)
        with self.assertRaises(Conflict):
            self.edits.make(self.rig_id, "0.0", length(99.0), BEN)
        self.edits.make(self.rig_id, self.version(), length(8.0), ANN)
        with self.assertRaises(Conflict):
            self.edits.make(self.rig_id, "1.0", Edit(label="put", ops=(PutThing(kind="kit", thing=spare),)), BEN)

    def test_nobody_meets_their_own_edits(self) -> None:
        self.edits.make(self.rig_id, "0.0", length(16.0), ANN)
        self.edits.make(self.rig_id, "0.0", length(17.0), ANN)
        self.assertEqual(self.length_m(), 17.0)

    def test_what_no_longer_fits_together_is_a_conflict(self) -> None:
        gone = Edit(label="gone", ops=(RemoveThing(kind="kit", id="lead-8"),))
        self.edits.make(self.rig_id, "0.0", gone, ANN)
        run = Run(id="spare", number=2, name="Spare", pieces=("lead-8",))
        with self.assertRaisesRegex(Conflict, "no longer fits"):
            self.edits.make(self.rig_id, "0.0", Edit(label="run", ops=(PutThing(kind="runs", thing=run),)), BEN)

    def test_an_edit_sent_twice_is_applied_once(self) -> None:
        uid = str(uuid.uuid4())
        first = self.edits.make(self.rig_id, "0.0", length(16.0), ANN, uid)
        self.edits.make(self.rig_id, "1.0", length(17.0), ANN)
        again = self.edits.make(self.rig_id, "0.0", length(16.0), ANN, uid)
        self.assertEqual((first.version, again.version, self.length_m()), ("1.0", "2.0", 17.0))
        undo = str(uuid.uuid4())
        self.edits.undo(self.rig_id, ANN, undo)
        self.edits.undo(self.rig_id, ANN, undo)
        self.assertEqual(self.length_m(), 16.0)

    def test_a_refused_edit_leaves_no_trace(self) -> None:
        with self.assertRaises(BadEdit):
            self.edits.make(self.rig_id, "0.0", length(-4.0), ANN)
        self.assertEqual(self.version(), "0.0")
        self.assertEqual(self.rigs.list_history(self.rig_id, ANN), [])


class ManyClients(EditTest):
    """Clients that edit one rig as fast as they can, each with its own process's memory."""

    EACH = 12

    def loop(self, number: int, failures: list[str]) -> None:
        _, edits = process_at(self.url)
        me = Person(id=f"p{number}", name=f"Client {number}")
        version = "0.0"
        for step in range(self.EACH):
            item = KitItem(id=f"lead-{number}-{step}", tag=f"L{number}-{step}", part="mic-lead", length_m=1.0 + step)
            ops = (
                PutThing(kind="kit", thing=item),
                SetField(kind="kit", id=f"own-{number}", field="length_m", value=1.0 + step),
            )
            try:
                # On a version that others have long left behind: nobody waits for anybody.
                version = edits.make(self.rig_id, version, Edit(label="x", ops=ops), me, str(uuid.uuid4())).base
            except Exception as problem:
                failures.append(f"{number}: {problem}")

    def run_clients(self, count: int) -> None:
        own = tuple(
            PutThing(kind="kit", thing=KitItem(id=f"own-{n}", tag=f"Own {n}", part="mic-lead", length_m=1.0))
            for n in range(count)
        )
        self.edits.make(self.rig_id, "0.0", Edit(label="own", ops=own), ANN)
        failures: list[str] = []
        threads = [threading.Thread(target=self.loop, args=(n, failures)) for n in range(count)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.assertEqual(failures, [])
        rig = process_at(self.url)[0].export(self.rig_id)
        lengths = {item.id: item.length_m for item in rig.kit}
        for number in range(count):
            self.assertEqual(lengths[f"own-{number}"], float(self.EACH))
            for step in range(self.EACH):
                self.assertEqual(lengths[f"lead-{number}-{step}"], 1.0 + step)
        self.assertEqual(rig, self.rigs.export(self.rig_id))

    def test_of_two_every_acknowledged_edit_is_there(self) -> None:
        self.run_clients(2)

    def test_of_eight_every_acknowledged_edit_is_there(self) -> None:
        self.run_clients(8)

    def test_of_four_on_one_field_one_is_saved(self) -> None:
        outcomes: list[str] = []

        def save(metres: float) -> None:
            try:
                who = Person(id=f"p{metres}", name="Somebody")
                process_at(self.url)[1].make(self.rig_id, "0.0", length(metres), who)
                outcomes.append("saved")
            except Conflict:
                outcomes.append("conflict")

        threads = [threading.Thread(target=save, args=(20.0 + n,)) for n in range(4)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.assertEqual(sorted(outcomes), ["conflict"] * 3 + ["saved"])


class Undoing(EditTest):
    def make(self, edit: Edit, person: Person) -> None:
        self.edits.make(self.rig_id, self.version(), edit, person)

    def test_undo_and_redo_walk_ones_own_edits(self) -> None:
        for metres in (16.0, 17.0, 18.0):
            self.make(length(metres), ANN)
        self.edits.undo(self.rig_id, ANN)
        self.assertEqual(self.length_m(), 17.0)
        self.edits.undo(self.rig_id, ANN)
        self.assertEqual(self.length_m(), 16.0)
        self.edits.redo(self.rig_id, ANN)
        self.assertEqual(self.length_m(), 17.0)
        outcome = self.edits.make(self.rig_id, self.version(), length(40.0), ANN)
        self.assertEqual((outcome.undo_label, outcome.redo_label), ("40.0 m", None))
        with self.assertRaises(NothingToUndo):
            self.edits.redo(self.rig_id, ANN)

    def test_undo_never_touches_somebody_elses_edit(self) -> None:
        self.make(length(16.0), ANN)
        with self.assertRaises(NothingToUndo):
            self.edits.undo(self.rig_id, BEN)
        self.make(length(19.0), BEN)
        with self.assertRaisesRegex(Conflict, "Second"):
            self.edits.undo(self.rig_id, ANN)
        self.assertEqual(self.length_m(), 19.0)
        self.edits.undo(self.rig_id, BEN)
        self.edits.undo(self.rig_id, ANN)
        self.assertEqual(self.length_m(), 15.0)

    def test_undo_passes_by_what_others_did_elsewhere(self) -> None:
        self.make(length(16.0), ANN)
        self.make(MIC, BEN)
        self.edits.undo(self.rig_id, ANN)
        self.assertEqual(self.length_m(), 15.0)
        self.assertEqual(self.rigs.export(self.rig_id).gear[1].settings, {"input1": "mic"})

    def test_everything_undone_and_redone_in_turn_is_exact(self) -> None:
        start = self.rigs.export(self.rig_id)
        self.make(length(16.0), ANN)
        self.make(MIC, BEN)
        self.make(length(17.0), ANN)
        end = self.rigs.export(self.rig_id)
        for person in (ANN, BEN, ANN):
            self.edits.undo(self.rig_id, person)
        self.assertEqual(self.rigs.export(self.rig_id), start)
        for person in (BEN, ANN, ANN):
            self.edits.redo(self.rig_id, person)
        self.assertEqual(self.rigs.export(self.rig_id), end)

    def test_a_part_of_ones_own_can_be_taken_back_while_things_change_to_another(self) -> None:
        rig = self.rigs.export(self.rig_id)
        own = rig.part_of("lead-31").model_copy(update={"id": "own-lead-31"})
        ops = (PutThing(kind="parts", thing=own), SetField(kind="kit", id="lead-31", field="part", value=own.id))
        self.make(Edit(label="wiring", ops=ops), ANN)
        self.edits.undo(self.rig_id, ANN)
        self.assertEqual(self.rigs.export(self.rig_id), rig)
        self.edits.redo(self.rig_id, ANN)
        self.assertEqual(process_at(self.url)[0].export(self.rig_id).part_of("lead-31").id, "own-lead-31")

    def test_each_remedy_can_be_applied_and_taken_back(self) -> None:
        for remedy in remedies_for(demo_rig(), "slides"):
            before = self.rigs.export(self.rig_id)
            self.make(remedy.edit, ANN)
            self.assertNotEqual(self.rigs.export(self.rig_id), before)
            self.edits.undo(self.rig_id, ANN)
            self.assertEqual(self.rigs.export(self.rig_id), before)

    def test_the_list_of_rigs_counts_and_names_the_last_change(self) -> None:
        (before,) = self.rigs.list_all()
        self.assertEqual((before.runs, before.last_change, before.changed_by), (1, None, None))
        run = self.rigs.export(self.rig_id).runs[0].model_copy(update={"id": "spare", "pieces": (), "joins": ()})
        lead = self.rigs.export(self.rig_id).kit[0].model_copy(update={"id": "x-1", "tag": "X1", "owned": False})
        ops = (PutThing(kind="runs", thing=run), PutThing(kind="kit", thing=lead))
        self.make(Edit(label="Add a spare", ops=ops), BEN)
        (after,) = self.rigs.list_all()
        self.assertEqual((after.runs, after.devices, after.to_get), (2, before.devices, before.to_get + 1))
        self.assertEqual((after.last_change, after.changed_by), ("Add a spare", "Second"))
        (line,) = self.rigs.list_history(self.rig_id, ANN)
        self.assertEqual(line.runs, ("spare",))

    def test_history_tells_who_did_what(self) -> None:
        self.make(length(16.0), ANN)
        self.edits.undo(self.rig_id, ANN)
        self.make(length(17.0), BEN)
        lines = [
            (line.kind, line.label, line.person, line.own, line.undone)
            for line in self.rigs.list_history(self.rig_id, ANN)
        ]
        self.assertEqual(
            lines,
            [
                ("edit", "17.0 m", "Second", False, False),
                ("undo", "16.0 m", "First", True, False),
                ("edit", "16.0 m", "First", True, True),
            ],
        )
