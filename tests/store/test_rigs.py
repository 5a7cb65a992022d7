"""What is saved is what comes back, edit by edit; history is complete; conflicts change nothing."""

import threading

from sqlalchemy import create_engine, text

from ruvak.core.errors import BadEdit
from ruvak.core.remedies.search import remedies_for
from ruvak.core.rig.earth import Bond, EarthPoint
from ruvak.core.rig.edits import (
    Edit,
    PutBond,
    PutEarth,
    PutGear,
    PutKit,
    PutPart,
    PutRun,
    Remove,
    SetHouse,
    SetLength,
    SetSetting,
)
from ruvak.core.rig.rig import KitItem, Run
from ruvak.core.rig.values import Value
from ruvak.service.problems import Conflict, NotFound, NothingToUndo
from ruvak.service.states import Person, RigState
from ruvak.service.upkeep import rigs_at
from tests.support.database import DatabaseTest
from tests.support.random_rigs import random_rig
from tests.support.rigs import demo_rig

ANN, BEN = Person(id="a", name="First"), Person(id="b", name="Second")


def length(metres: float) -> Edit:
    return Edit(label=f"{metres} m", ops=(SetLength(item="lead-31", length_m=metres),))


class Saving(DatabaseTest):
    def setUp(self) -> None:
        self.rig_id = self.rigs.imported(demo_rig(), ANN).rig.id

    def tearDown(self) -> None:
        self.rigs.deleted(self.rig_id)

    def test_a_rig_comes_back_as_it_was(self) -> None:
        self.assertEqual(self.rigs.exported(self.rig_id), demo_rig().replaced(id=self.rig_id))

    def test_any_rig_comes_back_as_it_was(self) -> None:
        for seed in range(6):
            rig = random_rig(seed).replaced(id=f"random-{seed}")
            self.addCleanup(self.rigs.deleted, self.rigs.imported(rig, ANN).rig.id)
            self.assertEqual(rigs_at(self.url).exported(rig.id), rig)

    def test_every_kind_of_edit_survives_a_new_connection(self) -> None:
        kit = KitItem(id="lead-9", tag="M9", part="mic-lead", length_m=3.0)
        strip = EarthPoint(id="strip", name="Stage strip", kind="strip")
        outlet = EarthPoint(id="first", name="First", kind="outlet", parent="strip")
        plugged = next(one for one in demo_rig().gear if one.id == "speaker").model_copy(update={"outlet": "first"})
        usb = Bond(id="usb", name="USB", kind="usb", a="laptop", b="speaker")
        for edit in (
            length(22.5),
            Edit(label="mic", ops=(SetSetting(gear="speaker", setting="input1", value="mic"),)),
            Edit(label="kit", ops=(PutKit(thing=kit, at=0),)),
            Edit(label="run", ops=(PutRun(thing=Run(id="spare", number=2, name="Spare", legs=("lead-9",))),)),
            Edit(label="gone", ops=(Remove(kind="kit", id="lead-8"),)),
            Edit(label="outlet", ops=(PutEarth(thing=strip), PutEarth(thing=outlet), PutGear(thing=plugged))),
            Edit(label="bond", ops=(PutBond(thing=usb),)),
            Edit(label="house", ops=(SetHouse(field="passive_y", value="never"),)),
            Edit(label="room", ops=(SetHouse(field="noise_dba", value=30.0),)),
            Edit(label="30 mA", ops=(PutEarth(thing=strip.model_copy(update={"residual_a": Value(value=0.03)})),)),
            Edit(label="unbonded", ops=(Remove(kind="bonds", id="usb"),)),
        ):
            state = self.rigs.opened(self.rig_id, ANN)
            saved = self.rigs.edited(self.rig_id, state.version, edit, ANN)
            self.assertEqual(rigs_at(self.url).exported(self.rig_id), saved.rig, edit.label)
            self.assertEqual(saved.version, state.version + 1)

    def test_a_part_of_ones_own_can_be_taken_back_while_things_change_to_another(self) -> None:
        state = self.rigs.opened(self.rig_id, ANN)
        own = state.rig.part_of("lead-31").model_copy(update={"id": "own-lead-31"})
        item = next(one for one in state.rig.kit if one.id == "lead-31").model_copy(update={"part": own.id})
        edit = Edit(label="wiring", ops=(PutPart(thing=own), PutKit(thing=item)))
        self.rigs.edited(state.rig.id, 0, edit, ANN)
        self.assertEqual(self.rigs.undone(state.rig.id, ANN).rig, state.rig)
        self.assertEqual(self.rigs.redone(state.rig.id, ANN).rig.part_of("lead-31").id, "own-lead-31")

    def test_what_is_new_in_a_rig_is_kept_too(self) -> None:
        run = demo_rig().runs[0].model_copy(update={"note": "phantom; stand: tall"})
        joins = (*run.joins[:1], run.joins[1].model_copy(update={"sleeve": None}), *run.joins[2:])
        rig = demo_rig().replaced(runs=(run.model_copy(update={"joins": joins}),))
        saved = self.rigs.imported(rig, ANN).rig
        self.addCleanup(self.rigs.deleted, saved.id)
        self.assertEqual(self.rigs.exported(saved.id), saved)
        self.assertEqual(saved.runs[0].note, "phantom; stand: tall")
        self.assertTrue(any(item.installed for item in saved.kit))

    def test_each_remedy_can_be_applied_and_taken_back(self) -> None:
        for remedy in remedies_for(demo_rig(), "slides"):
            before = self.rigs.opened(self.rig_id, ANN)
            after = self.rigs.edited(self.rig_id, before.version, remedy.edit, ANN)
            self.assertEqual(after.analysis.runs[0], remedy.after)
            self.assertEqual(self.rigs.undone(self.rig_id, ANN).rig, before.rig)

    def test_undo_and_redo_walk_ones_own_edits(self) -> None:
        for metres in (16.0, 17.0, 18.0):
            self.rigs.edited(self.rig_id, self.rigs.opened(self.rig_id, ANN).version, length(metres), ANN)
        self.assertEqual(self._length(self.rigs.undone(self.rig_id, ANN)), 17.0)
        self.assertEqual(self._length(self.rigs.undone(self.rig_id, ANN)), 16.0)
        self.assertEqual(self._length(self.rigs.redone(self.rig_id, ANN)), 17.0)
        state = self.rigs.edited(self.rig_id, self.rigs.opened(self.rig_id, ANN).version, length(40.0), ANN)
        self.assertIsNone(state.redo_label)
        self.assertEqual(state.undo_label, "40.0 m")
        with self.assertRaises(NothingToUndo):
            self.rigs.redone(self.rig_id, ANN)

    def test_undo_never_touches_somebody_elses_edit(self) -> None:
        self.rigs.edited(self.rig_id, 0, length(16.0), ANN)
        with self.assertRaises(NothingToUndo):
            self.rigs.undone(self.rig_id, BEN)
        self.rigs.edited(self.rig_id, 1, length(19.0), BEN)
        with self.assertRaises(Conflict):
            self.rigs.undone(self.rig_id, ANN)
        self.assertEqual(self._length(self.rigs.opened(self.rig_id, ANN)), 19.0)

    def test_undo_passes_by_what_others_did_elsewhere(self) -> None:
        self.rigs.edited(self.rig_id, 0, length(16.0), ANN)
        mic = Edit(label="mic", ops=(SetSetting(gear="speaker", setting="input1", value="mic"),))
        self.rigs.edited(self.rig_id, 1, mic, BEN)
        state = self.rigs.undone(self.rig_id, ANN)
        self.assertEqual(self._length(state), 15.0)
        self.assertEqual(state.rig.gear[1].settings, {"input1": "mic"})

    def test_an_edit_on_an_old_version_changes_nothing(self) -> None:
        self.rigs.edited(self.rig_id, 0, length(16.0), ANN)
        with self.assertRaises(Conflict) as caught:
            self.rigs.edited(self.rig_id, 0, length(99.0), BEN)
        self.assertEqual(caught.exception.current_version, 1)
        self.assertEqual(self._length(self.rigs.opened(self.rig_id, BEN)), 16.0)

    def test_of_two_at_the_same_moment_one_wins(self) -> None:
        outcomes: list[str] = []

        def save(metres: float, person: Person) -> None:
            try:
                rigs_at(self.url).edited(self.rig_id, 0, length(metres), person)
                outcomes.append("saved")
            except Conflict:
                outcomes.append("conflict")

        threads = [threading.Thread(target=save, args=(20.0 + n, ANN)) for n in range(4)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.assertEqual(sorted(outcomes), ["conflict"] * 3 + ["saved"])

    def test_a_refused_edit_leaves_no_trace(self) -> None:
        with self.assertRaises(BadEdit):
            self.rigs.edited(self.rig_id, 0, length(-4.0), ANN)
        self.assertEqual(self.rigs.opened(self.rig_id, ANN).version, 0)
        self.assertEqual(self.rigs.history(self.rig_id, ANN), [])

    def test_history_tells_who_did_what(self) -> None:
        self.rigs.edited(self.rig_id, 0, length(16.0), ANN)
        self.rigs.undone(self.rig_id, ANN)
        self.rigs.edited(self.rig_id, 2, length(17.0), BEN)
        lines = [
            (line.kind, line.label, line.person, line.mine, line.undone) for line in self.rigs.history(self.rig_id, ANN)
        ]
        self.assertEqual(
            lines,
            [
                ("edit", "17.0 m", "Second", False, False),
                ("undo", "16.0 m", "First", True, False),
                ("edit", "16.0 m", "First", True, True),
            ],
        )

    def test_a_taken_id_gets_a_number(self) -> None:
        second = self.rigs.imported(demo_rig(), ANN)
        self.assertEqual(second.rig.id, f"{self.rig_id}-2")
        self.rigs.deleted(second.rig.id)

    def test_nothing_is_left_of_a_deleted_rig(self) -> None:
        other = self.rigs.imported(demo_rig(), ANN).rig.id
        self.rigs.edited(other, 0, length(16.0), ANN)
        self.rigs.deleted(other)
        with self.assertRaises(NotFound):
            self.rigs.opened(other, ANN)
        with create_engine(self.url).connect() as connection:
            for table in ("part", "gear", "kit_item", "run", "leg", "join_of_run", "edit"):
                query = text(f"SELECT count(*) FROM {table} WHERE rig_id = :rig")
                self.assertEqual(connection.execute(query, {"rig": other}).scalar(), 0, table)
            venues = connection.execute(text("SELECT count(*) FROM venue WHERE id = :id"), {"id": f"venue-of-{other}"})
            self.assertEqual(venues.scalar(), 0)

    def _length(self, state: RigState) -> float | None:
        return next(item.length_m for item in state.rig.kit if item.id == "lead-31")
