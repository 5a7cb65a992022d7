"""When an answer of the line check still holds: after what changes of the plan a run is to be checked again."""

import unittest
from typing import ClassVar

from ruvak.core.analyse import analyse
from ruvak.core.analysis_cache import AnalysisCache
from ruvak.core.log.as_checked import key_as_checked
from ruvak.core.rig.controls import phantom_settings
from ruvak.core.rig.edits import Edit, Op, SetField, apply
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.wiring_fault import WiringFault
from tests.support.rigs import demo_rig


class KeyAsChecked(unittest.TestCase):
    rig: ClassVar[Rig]
    cache: ClassVar[AnalysisCache]
    before: ClassVar[dict[str, str]]

    @classmethod
    def setUpClass(cls) -> None:
        cls.rig = demo_rig("midwinter-concert")
        cls.cache = AnalysisCache()
        cls.before = cls.keys(cls.rig)

    @classmethod
    def keys(cls, rig: Rig) -> dict[str, str]:
        solved = analyse(rig, cls.cache)
        return {
            run.id: key_as_checked(rig, run, own.findings, [(each.gear, each.setting) for each in own.controls])
            for run, own in zip(rig.runs, solved.runs, strict=True)
        }

    def changed_by(self, *ops: Op) -> set[str]:
        """Runs that have another key after an edit."""
        after = self.keys(apply(self.rig, Edit(label="change", ops=ops)))
        return {run for run, key in after.items() if key != self.before[run]}

    def lead(self, run_id: str) -> str:
        return next(run for run in self.rig.runs if run.id == run_id).pieces[0]

    def test_another_lead_concerns_its_run_alone_though_its_signal_reaches_the_speakers(self) -> None:
        for run in ("lead-vocal", "choir-1", "bass"):
            with self.subTest(run):
                ops = SetField(kind="kit", id=self.lead(run), field="length_m", value=17.5)
                self.assertEqual(self.changed_by(ops), {run})

    def test_what_a_test_showed_inside_a_lead_concerns_its_run(self) -> None:
        fault = WiringFault(kind="open", a="in.3", b="out.3")
        ops = SetField(kind="kit", id=self.lead("lead-vocal"), field="faults", value=[fault.model_dump(mode="json")])
        self.assertEqual(self.changed_by(ops), {"lead-vocal"})

    def test_names_and_remarks_change_nothing(self) -> None:
        lead, desk = self.lead("lead-vocal"), self.rig.gear[0].id
        self.assertEqual(
            self.changed_by(
                SetField(kind="kit", id=lead, field="tag", value="M99"),
                SetField(kind="kit", id=lead, field="remark", value="taped at both ends"),
                SetField(kind="gear", id=desk, field="name", value="Other desk"),
                SetField(kind="runs", id="bass", field="name", value="Upright bass"),
            ),
            set(),
        )

    def test_a_switch_of_a_socket_concerns_the_runs_at_it(self) -> None:
        end = next(run for run in self.rig.runs if run.id == "lead-vocal").ends[-1]
        desk = end.owner
        setting = next(phantom_settings(self.rig.part_of(desk), [end.connector]))
        was = next(gear for gear in self.rig.gear if gear.id == desk).settings.get(setting, False)
        ops = SetField(kind="gear", id=desk, field="settings", key=setting, value=not was)
        changed = self.changed_by(ops)
        self.assertIn("lead-vocal", changed)
        self.assertLess(len(changed), 9)


if __name__ == "__main__":
    unittest.main()
