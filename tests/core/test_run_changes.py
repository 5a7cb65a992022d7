"""Runs before and after an edit: those that differ, by themselves, added and deleted ones included."""

import unittest

from ruvak.core.entry.reader import read
from ruvak.core.judge.finding import Grade
from ruvak.core.rig.edits import Edit, SetField, apply_edit
from ruvak.core.rig.rig import Rig
from ruvak.core.run_changes import MOST_SHOWN, RunChange, changed_runs
from tests.support.typed import typed_rig


def typed(rig: Rig, line: str) -> tuple[Rig, tuple[RunChange, ...]]:
    """The rig after a line, and the runs that the line changed."""
    edit = read(rig, line).edit or Edit(label="nothing", ops=())
    after = apply_edit(rig, edit).rig
    return after, changed_runs(rig, after, edit)


class Comparing(unittest.TestCase):
    def setUp(self) -> None:
        self.rig = typed_rig("lectern > desk 7, 10 m", "laptop > left speaker, 10 m", "vocal > desk 1")

    def test_an_added_run_was_not_there_and_a_deleted_one_is_gone(self) -> None:
        after, (added,) = typed(self.rig, "tenor > desk 2")
        self.assertEqual((added.name, added.before), ("Tenor", None))
        self.assertIs((added.after or self.fail("not there")).finding.grade, Grade.CLEAR)
        _, (deleted,) = typed(after, "delete tenor")
        self.assertEqual((deleted.name, deleted.after, deleted.before), ("Tenor", None, added.after))

    def test_a_moved_run_is_drawn_at_both_places(self) -> None:
        _, (moved,) = typed(self.rig, "lectern moves to desk 9")
        sides = [side or self.fail("not there") for side in (moved.before, moved.after)]
        self.assertNotEqual(sides[0].drawing, sides[1].drawing)
        self.assertIn("Mic 7", sides[0].finding.sentence)
        self.assertIn("Mic 9", sides[1].finding.sentence)

    def test_another_device_shows_the_runs_at_it_alone(self) -> None:
        _, changes = typed(self.rig, "lectern is now a gooseneck")
        self.assertEqual([change.name for change in changes], ["Lectern"])

    def test_a_note_changes_no_run_and_a_new_name_stands_on_the_tape(self) -> None:
        note = Edit(label="note", ops=(SetField(kind="runs", id="vocal", field="note", value="stage left"),))
        self.assertEqual(changed_runs(self.rig, apply_edit(self.rig, note).rig, note), ())
        _, (renamed,) = typed(self.rig, "rename vocal to Soloist")
        sides = [side or self.fail("not there") for side in (renamed.before, renamed.after)]
        self.assertEqual([side.drawing.pieces[0].name for side in sides], ["Vocal", "Soloist"])

    def test_of_many_the_first_few_are_shown(self) -> None:
        _, changes = typed(self.rig, "choir 1-8 > desk 8-15")
        self.assertEqual(
            [change.name for change in changes], [f"Choir {number}" for number in range(1, MOST_SHOWN + 1)]
        )
