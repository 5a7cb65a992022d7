"""The check beside the runs, on a real database: what other rigs of the house transmit at the same hours."""

from datetime import timedelta

from ruvak.core.rig.edits import Edit, SetField
from tests.support.house import ADA, HouseTest


class RadioAtTheSameHours(HouseTest):
    def tuned(self, name: str, *mhz: float) -> str:
        rig_id = self.new_rig(name)
        rig = self.type(rig_id, "radio mic > desk 1, 5 m")
        (receiver,) = (gear for gear in rig.gear if rig.part_of(gear.id).role == "radio-receiver")
        op = SetField(kind="gear", id=receiver.id, field="radio_mhz", value=list(mhz))
        self.edits.make(rig_id, self.rigs.version(rig_id).version, Edit(label="tune", ops=(op,)), ADA)
        return rig_id

    def why(self, rig_id: str) -> str:
        return self.computer.round(rig_id).before[0].why

    def test_a_rig_on_at_the_same_hours_is_kept_clear_of_and_no_other(self) -> None:
        hall, chapel = self.tuned("Hall", 606.0), self.tuned("Chapel", 606.2)
        self.assertNotIn("at the same time", self.why(hall), "neither has a date")
        self.date(hall)
        self.date(chapel, after=timedelta(hours=4))
        self.assertNotIn("at the same time", self.why(hall), "one begins when the other ends")
        self.date(chapel, after=timedelta(hours=3))
        self.assertIn("(606 MHz) meets 606.2 MHz (another rig of the house at the same time)", self.why(hall))
        self.assertIn("(606.2 MHz) meets 606 MHz", self.why(chapel))
        self.rigs.shelve(chapel, "archive")
        self.assertNotIn("at the same time", self.why(hall), "it has taken place")
