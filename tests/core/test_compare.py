"""Two rigs side by side: runs, devices and findings that differ, and nothing else."""

import unittest

from ruvak.core.analyse import analyse
from ruvak.core.compare import RigComparison, compare
from ruvak.core.entry.reader import read
from ruvak.core.judge.codes import FindingCode
from ruvak.core.rig.edits import Edit, SetField, apply
from ruvak.core.rig.rig import Rig
from tests.support.rigs import demo_rig
from tests.support.typed import typed_rig


def compared(before: Rig, after: Rig) -> RigComparison:
    return compare(before, analyse(before), after, analyse(after))


def typed(rig: Rig, *lines: str) -> Rig:
    for line in lines:
        edit = read(rig, line).edit
        assert edit is not None, line
        rig = apply(rig, edit)
    return rig


class Comparing(unittest.TestCase):
    def setUp(self) -> None:
        self.rig = typed_rig("lectern > desk 7, 10 m", "laptop > left speaker, 10 m", "vocal > desk 1")

    def test_a_rig_and_itself_differ_in_nothing(self) -> None:
        for rig in (self.rig, demo_rig()):
            result = compared(rig, rig)
            self.assertEqual((result.runs, result.gear, result.same_runs), ((), (), len(rig.runs)))

    def test_runs_that_came_went_and_moved_are_told_in_words_and_drawn(self) -> None:
        after = typed(self.rig, "tenor > desk 2", "delete vocal", "lectern moves to desk 9")
        result = compared(self.rig, after)
        words = {run.change.name: run.words for run in result.runs}
        self.assertEqual(words["Tenor"], ("added",))
        self.assertEqual(words["Vocal"], ("removed",))
        self.assertIn("Mic 9", words["Lectern"][0])
        self.assertIn("Mic 7", words["Lectern"][0])
        sides = {run.change.name: (run.change.before is None, run.change.after is None) for run in result.runs}
        self.assertEqual(sides, {"Tenor": (True, False), "Vocal": (False, True), "Lectern": (False, False)})
        self.assertEqual((result.same_runs, result.more_runs), (1, 0))

    def test_another_lead_and_what_follows_from_it(self) -> None:
        faulty = tuple(item.model_copy(update={"condition": "faulty"}) for item in self.rig.kit)
        result = compared(self.rig, self.rig.with_fields(kit=faulty))
        self.assertEqual([run.words for run in result.runs], [()] * 3)
        self.assertTrue(all(FindingCode.UNUSABLE in [f.code for f in run.came] for run in result.runs))
        back = compared(self.rig.with_fields(kit=faulty), self.rig)
        self.assertTrue(all(FindingCode.UNUSABLE in [f.code for f in run.went] for run in back.runs))
        longer = tuple(item.model_copy(update={"length_m": 30.0}) for item in self.rig.kit if item.length_m)
        boxes = tuple(item for item in self.rig.kit if not item.length_m)
        result = compared(self.rig, self.rig.with_fields(kit=(*longer, *boxes)))
        self.assertTrue(any("(30 m)" in word for run in result.runs for word in run.words))

    def test_devices_and_settings(self) -> None:
        desk = next(device for device in self.rig.gear if "desk" in device.name.lower())
        part = self.rig.part_of(desk.id)
        switch = next(setting for setting in part.settings if setting.type == "switch")
        edit = Edit(
            label="x",
            ops=(SetField(kind="gear", id=desk.id, field="settings", key=switch.id, value=not switch.default),),
        )
        (device,) = compared(self.rig, apply(self.rig, edit)).gear
        self.assertEqual((device.name, device.what), (desk.name, "changed"))
        self.assertRegex(device.words[0], r"(on|off) \(was (on|off)\)")
        added = compared(self.rig, typed(self.rig, "tenor > desk 2")).gear
        self.assertEqual([(each.what, each.name) for each in added], [("added", "Tenor")])

    def test_rigs_that_are_no_copies_are_matched_by_name(self) -> None:
        other = typed_rig("lectern > desk 3, 10 m", "vocal > desk 1")
        names = {run.id: f"other-{run.id}" for run in other.runs}
        other = other.with_fields(runs=tuple(run.model_copy(update={"id": names[run.id]}) for run in other.runs))
        result = compared(self.rig, other)
        vocal = next(run for run in result.runs if run.change.name == "Vocal")
        self.assertEqual((vocal.words, vocal.came), (("number 3 is 2",), ()))
        self.assertIn("Lectern", {run.change.name for run in result.runs})


if __name__ == "__main__":
    unittest.main()
