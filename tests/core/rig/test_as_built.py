"""Which edits only record what was really done."""

import unittest

from ruvak.core.parts.library import library
from ruvak.core.rig.as_built import is_as_built
from ruvak.core.rig.edits import Edit, Op, PutThing, RemoveThing, SetField, set_setting
from ruvak.core.rig.rig import KitItem
from tests.support.rigs import demo_rig


class AsBuilt(unittest.TestCase):
    def setUp(self) -> None:
        self.rig = demo_rig("midwinter-concert")
        self.first, self.lead = self.rig.runs[0], next(item for item in self.rig.kit if item.length_m)

    def records_work(self, *ops: Op) -> bool:
        return is_as_built(self.rig, Edit(label="done", ops=ops))

    def test_leads_swapped_sockets_moved_switches_set(self) -> None:
        swapped = SetField(kind="runs", id=self.first.id, field="pieces", value=[])
        moved = SetField(kind="runs", id=self.first.id, field="joins", value=[])
        device = self.rig.gear[0]
        outlet = SetField(kind="gear", id=device.id, field="outlet", value=None)
        for op in (swapped, moved, outlet, set_setting(device.id, "gain", 3)):
            self.assertTrue(self.records_work(op), op)
        self.assertTrue(self.records_work(swapped, moved))

    def test_a_lead_nobody_had_planned(self) -> None:
        own = {part.id for part in self.rig.parts}
        part = next(part for part in library().values() if part.kind == "lead" and part.id not in own)
        new = KitItem(id="found-one", tag="Drummer's lead", part=part.id, length_m=3.0, owned=False)
        self.assertTrue(self.records_work(PutThing(kind="parts", thing=part), PutThing(kind="kit", thing=new)))

    def test_nothing_that_changes_the_plan(self) -> None:
        plan: tuple[Op, ...] = (
            SetField(kind="runs", id=self.first.id, field="name", value="Mine"),
            SetField(kind="kit", id=self.lead.id, field="length_m", value=1.0),
            SetField(kind="venue", field="name", value="Mine"),
            SetField(kind="rig", field="name", value="Mine"),
            RemoveThing(kind="runs", id=self.first.id),
            PutThing(kind="runs", thing=self.first),
            PutThing(kind="kit", thing=self.lead),
            PutThing(kind="parts", thing=self.rig.parts[0]),
        )
        for op in plan:
            self.assertFalse(self.records_work(op), op)
        self.assertFalse(self.records_work(set_setting(self.rig.gear[0].id, "gain", 3), plan[0]))
