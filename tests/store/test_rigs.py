"""What is saved is what comes back, in every process; what is deleted is gone."""

from sqlalchemy import create_engine, inspect, text

from ruvak.core.rig.earth import Bond, EarthPoint, MainsRun, Position
from ruvak.core.rig.edits import Edit, PutThing, RemoveThing, SetField, set_setting
from ruvak.core.rig.rig import KitItem, Run
from ruvak.core.rig.values import Value
from ruvak.service.problems import NotFound
from ruvak.service.states import Person
from tests.support.database import DatabaseTest, length, process_at
from tests.support.random_rigs import random_rig
from tests.support.rigs import demo_rig

ANN = Person(id="a", name="First")


class Saving(DatabaseTest):
    def setUp(self) -> None:
        self.rig_id = self.rigs.import_rig(demo_rig(), ANN).rig.id

    def tearDown(self) -> None:
        self.rigs.delete(self.rig_id)

    def test_a_rig_comes_back_as_it_was(self) -> None:
        self.assertEqual(self.rigs.export(self.rig_id), demo_rig().with_fields(id=self.rig_id))

    def test_any_rig_comes_back_as_it_was(self) -> None:
        for seed in range(6):
            rig = random_rig(seed).with_fields(id=f"random-{seed}")
            self.addCleanup(self.rigs.delete, self.rigs.import_rig(rig, ANN).rig.id)
            self.assertEqual(process_at(self.url)[0].export(rig.id), rig)

    def test_every_kind_of_edit_survives_in_a_process_that_was_there_and_in_a_new_one(self) -> None:
        kit = KitItem(id="lead-9", tag="M9", part="mic-lead", length_m=3.0)
        strip = EarthPoint(id="strip", name="Stage strip", kind="strip")
        outlet = EarthPoint(id="first", name="First", kind="outlet", parent="strip")
        spare = Run(id="spare", number=2, name="Spare", pieces=("lead-9",))
        usb = Bond.model_validate({"id": "usb", "name": "USB", "kind": "usb", "a": "laptop", "b": "speaker"})
        ways = tuple(Position(x_m=x, y_m=0.0) for x in (0.0, 5.0))
        cable = MainsRun(id="feed", name="Feed", points=ways, current_a=Value(value=3.0))
        beside, _ = process_at(self.url)
        beside.export(self.rig_id)
        for edit in (
            length(22.5),
            Edit(label="mic", ops=(set_setting("speaker", "input1", "mic"),)),
            Edit(label="kit", ops=(PutThing(kind="kit", thing=kit, at=0),)),
            Edit(label="run", ops=(PutThing(kind="runs", thing=spare),)),
            Edit(label="gone", ops=(RemoveThing(kind="kit", id="lead-8"),)),
            Edit(
                label="outlet",
                ops=(
                    PutThing(kind="earth", thing=strip),
                    PutThing(kind="earth", thing=outlet),
                    SetField(kind="gear", id="speaker", field="outlet", value="first"),
                ),
            ),
            Edit(label="bond", ops=(PutThing(kind="bonds", thing=usb),)),
            Edit(label="mains", ops=(PutThing(kind="mains", thing=cable),)),
            Edit(label="house", ops=(SetField(kind="venue", field="house", key="passive_y", value="never"),)),
            Edit(label="room", ops=(SetField(kind="venue", field="noise_dba", value=30.0),)),
            Edit(label="30 mA", ops=(SetField(kind="earth", id="strip", field="residual_a", value=0.03),)),
            Edit(label="name", ops=(SetField(kind="rig", field="name", value="Other"),)),
            Edit(label="alignment", ops=(SetField(kind="rig", field="alignment", value="ebu-r-68"),)),
            Edit(label="unbonded", ops=(RemoveThing(kind="bonds", id="usb"),)),
        ):
            before = self.rigs.open(self.rig_id, ANN)
            outcome = self.edits.make(self.rig_id, before.version, edit, ANN)
            here = self.rigs.export(self.rig_id)
            self.assertNotEqual(here, before.rig, edit.label)
            self.assertNotEqual(outcome.version, before.version)
            self.assertEqual(process_at(self.url)[0].export(self.rig_id), here, edit.label)
            self.assertEqual(beside.export(self.rig_id), here, f"{edit.label}: caught up by the edit alone")

    def test_an_edit_says_what_it_changed(self) -> None:
        outcome = self.edits.make(self.rig_id, "0.0", length(22.5), ANN)
        (changed,) = outcome.changed
        self.assertEqual((changed.kind, changed.id, outcome.base, outcome.version), ("kit", "lead-31", "0.0", "1.0"))
        assert changed.thing is not None and changed.at is not None
        self.assertEqual(changed.thing["length_m"], 22.5)
        self.assertEqual(self.rigs.export(self.rig_id).kit[changed.at].id, "lead-31")

    def test_versions_belong_to_what_holds_the_thing(self) -> None:
        room = Edit(label="room", ops=(SetField(kind="venue", field="noise_dba", value=30.0),))
        both = Edit(label="both", ops=(*room.ops, SetField(kind="rig", field="name", value="Other")))
        self.assertEqual(self.edits.make(self.rig_id, "0.0", room, ANN).version, "0.1")
        self.assertEqual(self.edits.make(self.rig_id, "0.1", both, ANN).version, "1.2")

    def test_many_things_put_in_front_keep_their_order(self) -> None:
        for number in range(80):
            kit = KitItem(id=f"front-{number}", tag=f"F{number}", part="mic-lead", length_m=3.0)
            edit = Edit(label="kit", ops=(PutThing(kind="kit", thing=kit, at=1),))
            self.edits.make(self.rig_id, self.rigs.open(self.rig_id, ANN).version, edit, ANN)
        here = self.rigs.export(self.rig_id)
        self.assertEqual([item.id for item in here.kit[1:4]], ["front-79", "front-78", "front-77"])
        self.assertEqual(process_at(self.url)[0].export(self.rig_id), here)

    def test_what_is_new_in_a_rig_is_kept_too(self) -> None:
        run = demo_rig().runs[0].model_copy(update={"note": "phantom; stand: tall"})
        joins = (*run.joins[:1], run.joins[1].model_copy(update={"sleeve": None}), *run.joins[2:])
        rig = demo_rig().with_fields(runs=(run.model_copy(update={"joins": joins}),))
        saved = self.rigs.import_rig(rig, ANN).rig
        self.addCleanup(self.rigs.delete, saved.id)
        self.assertEqual(process_at(self.url)[0].export(saved.id), saved)
        self.assertEqual(saved.runs[0].note, "phantom; stand: tall")
        self.assertTrue(any(item.installed for item in saved.kit))

    def test_a_taken_id_gets_a_number(self) -> None:
        second = self.rigs.import_rig(demo_rig(), ANN)
        self.assertEqual(second.rig.id, f"{self.rig_id}-2")
        self.rigs.delete(second.rig.id)

    def test_nothing_is_left_of_a_deleted_rig(self) -> None:
        other = self.rigs.import_rig(demo_rig(), ANN).rig.id
        self.edits.make(other, "0.0", length(16.0), ANN)
        self.rigs.delete(other)
        with self.assertRaises(NotFound):
            self.rigs.open(other, ANN)
        engine = create_engine(self.url)
        with engine.connect() as connection:
            for table in inspect(engine).get_table_names():
                columns = {column["name"] for column in inspect(engine).get_columns(table)}
                owner = next((name for name in ("holder_id", "rig_id") if name in columns), "id")
                query = text(f"SELECT count(*) FROM {table} WHERE CAST({owner} AS text) IN (:rig, :venue)")
                if owner in columns:
                    found = connection.execute(query, {"rig": other, "venue": f"venue-of-{other}"})
                    self.assertEqual(found.scalar(), 0, table)

    def test_a_new_rig_of_a_deleted_ones_name_is_not_taken_for_it(self) -> None:
        beside, _ = process_at(self.url)
        other = self.rigs.import_rig(demo_rig(), ANN).rig.id
        self.edits.make(other, "0.0", length(16.0), ANN)
        beside.export(other)
        self.rigs.delete(other)
        again = self.rigs.import_rig(demo_rig().with_fields(name="Another"), ANN).rig
        self.addCleanup(self.rigs.delete, again.id)
        self.edits.make(again.id, "0.0", length(17.0), ANN)
        self.assertEqual((again.id, beside.export(other)), (other, self.rigs.export(other)))
