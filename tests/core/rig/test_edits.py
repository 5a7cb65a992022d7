"""Edits: what they do, what they refuse, and that the inverse takes each back exactly."""

import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from ruvak.core.errors import BadEdit, RigFault
from ruvak.core.parts.library import library
from ruvak.core.rig.check import check
from ruvak.core.rig.edits import (
    Edit,
    Op,
    PutThing,
    RemoveThing,
    SetField,
    Touched,
    apply,
    apply_edit,
    changes,
    replay,
    set_setting,
    value_at,  # fmt: skip
)
from ruvak.core.rig.rig import ALIGNMENTS, Alignment, Gear, KitItem, Run
from tests.support.rigs import demo_rig

RIG = demo_rig()


def edit(*ops: Op) -> Edit:
    return Edit(label="test", ops=ops)


POSSIBLE: list[Op] = [
    set_setting("laptop", "volume", -12.0),
    set_setting("laptop", "mono", True),
    set_setting("laptop", "volume", None),
    set_setting("speaker", "input1", "mic"),
    SetField(kind="kit", id="lead-31", field="length_m", value=30.0),
    PutThing(kind="gear", thing=Gear(id="laptop", name="Other laptop", part="laptop-headphone-trs35")),
    PutThing(kind="gear", thing=Gear(id="second", name="Second", part="laptop-headphone-trs35"), at=0),
    PutThing(kind="kit", thing=KitItem(id="lead-40", tag="M40", part="mic-lead", length_m=4.0)),
    PutThing(kind="parts", thing=library()["lead-trs35-two-xlr"]),
    PutThing(kind="runs", thing=Run(id="slides", number=3, name="Renamed", pieces=(), joins=())),
    PutThing(kind="runs", thing=Run(id="empty", number=2, name="Empty"), at=0),
    SetField(kind="venue", field="house", key="screens", value="lifted-at-receiver"),
    SetField(kind="venue", field="house", key="unbalanced_limit_m", value=5.0),
    SetField(kind="venue", field="house", key="unbalanced_limit_m", value=None),
    SetField(kind="venue", field="programme_db_spl", value=85.0),
    SetField(kind="venue", field="noise_dba", value=900.0),
    SetField(kind="rig", field="name", value="Second night"),
    SetField(kind="rig", field="occasion", value=""),
    SetField(kind="venue", field="name", value="Chapel"),
    SetField(kind="rig", field="length_unit", value="ft"),
    SetField(kind="venue", field="mains_hz", value=60),
    SetField(kind="rig", field="alignment", value="ebu-r-68"),
    SetField(kind="rig", field="alignment", value=Alignment(full_scale_dbu=20.0, nominal_dbu=2.0, source="own")),
    SetField(kind="rig", field="name", value=""),
    RemoveThing(kind="kit", id="adapter-7"),
    RemoveThing(kind="runs", id="slides"),
]


class Edits(unittest.TestCase):
    @given(st.lists(st.sampled_from(POSSIBLE), min_size=1, max_size=6))
    @settings(max_examples=200)
    def test_the_inverse_takes_it_back_exactly(self, ops: list[Op]) -> None:
        made = edit(*ops)
        try:
            applied = apply_edit(RIG, made)
        except (BadEdit, RigFault):
            return
        self.assertEqual(apply(applied.rig, applied.inverse), RIG)
        self.assertEqual(check(applied.rig), applied.rig, "what a local check lets through is sound as a whole")
        self.assertEqual(replay(RIG, made), applied.rig)

    def test_it_changes_what_it_says(self) -> None:
        after = apply(RIG, edit(SetField(kind="kit", id="lead-31", field="length_m", value=30.0)))
        self.assertEqual({item.id: item.length_m for item in after.kit}["lead-31"], 30.0)
        self.assertEqual({item.id: item.length_m for item in RIG.kit}["lead-31"], 15.0)

    def test_what_is_said_about_the_rig_as_a_whole(self) -> None:
        after = apply(
            RIG,
            edit(
                SetField(kind="venue", field="name", value="Chapel"),
                SetField(kind="venue", field="mains_hz", value=60.0),
                SetField(kind="rig", field="alignment", value="ebu-r-68"),
                SetField(kind="rig", field="length_unit", value="ft"),
            ),
        )
        self.assertEqual((after.venue.name, after.venue.mains_hz, after.length_unit), ("Chapel", 60, "ft"))
        self.assertEqual(after.alignment, ALIGNMENTS["ebu-r-68"])
        self.assertEqual((RIG.alignment.headroom_db, after.alignment.headroom_db), (20.0, 18.0))
        self.assertEqual(type(after.venue.mains_hz), int)
        wrong: list[tuple[SetField, str]] = [
            (SetField(kind="rig", field="name", value=""), "1 to 120 letters"),
            (SetField(kind="venue", field="mains_hz", value=55), "50 or 60 Hz"),
            (SetField(kind="venue", field="mains_hz", value="fast"), "50 or 60 Hz"),
            (SetField(kind="rig", field="length_unit", value="yards"), "m or ft"),
            (SetField(kind="rig", field="alignment", value="loud"), "smpte-rp-155, ebu-r-68"),
            (SetField(kind="venue", field="name", value=3), "1 to 120 letters"),
        ]
        for op, words in wrong:
            with self.assertRaisesRegex(BadEdit, words):
                apply(RIG, edit(op))

    def test_look_ups_follow_the_edit(self) -> None:
        self.assertIn("lead-31", RIG.owners_by_id)
        after = apply(RIG, edit(RemoveThing(kind="runs", id="slides"), RemoveThing(kind="kit", id="lead-31")))
        self.assertNotIn("lead-31", after.owners_by_id)

    def test_refusals_name_the_place(self) -> None:
        for op, where in (
            (set_setting("nobody", "volume", 0.0), "id"),
            (SetField(kind="kit", id="lead-31", field="length_m", value=-2.0), "value"),
            (SetField(kind="kit", id="lead-31", field="length_m", value=1e9), "value"),
            (SetField(kind="kit", id="lead-31", field="colour", value="red"), "field"),
            (SetField(kind="kit", id="lead-31", field="id", value="other"), "field"),
            (SetField(kind="kit", id="lead-31", field="tag", key="x", value="other"), "key"),
            (SetField(kind="kit", field="tag", value="other"), "id"),
            (SetField(kind="rig", field="gear", value=[]), "field"),
            (SetField(kind="rig", id="lead-31", field="name", value="x"), "field"),
            (SetField(kind="house", field="name", value="x"), "field"),
            (RemoveThing(kind="kit", id="nothing"), "id"),
        ):
            with self.assertRaises(BadEdit) as caught:
                apply(RIG, edit(op))
            self.assertEqual(caught.exception.where, where, op)

    def test_a_setting_a_device_does_not_have_is_refused_by_name(self) -> None:
        for op, where in (
            (set_setting("laptop", "bass", 0.0), "gear[0].settings.bass"),
            (set_setting("laptop", "volume", 99.0), "gear[0].settings.volume"),
            (set_setting("laptop", "mono", "yes"), "gear[0].settings.mono"),
        ):
            with self.assertRaises(RigFault) as caught:
                apply(RIG, edit(op))
            self.assertEqual([fault.where for fault in caught.exception.faults], [where])

    def test_an_operation_says_what_it_touches_and_what_stood_there(self) -> None:
        touched = apply_edit(RIG, edit(set_setting("laptop", "volume", -12.0))).touched
        self.assertEqual(touched, (Touched("gear", "laptop", "settings", "volume"),))
        self.assertEqual(value_at(RIG, Touched("kit", "lead-31", "length_m")), 15.0)
        self.assertEqual(value_at(RIG, Touched("venue", None, "house", "passive_y")), "with-resistors")
        self.assertIsNone(value_at(RIG, Touched("kit", "nothing", "length_m")))

    def test_two_states_of_a_thing_differ_by_their_fields(self) -> None:
        run = RIG.runs[0]
        ops = tuple(changes("runs", run, run.model_copy(update={"name": "Other", "number": 9})))
        self.assertEqual([op.field for op in ops], ["number", "name"])
        self.assertEqual(apply(RIG, edit(*ops)).runs[0].name, "Other")

    def test_an_edit_that_leaves_the_rig_unsound_is_refused(self) -> None:
        with self.assertRaises(RigFault):
            apply(RIG, edit(RemoveThing(kind="kit", id="lead-31")))
        with self.assertRaises(RigFault):
            apply(RIG, edit(SetField(kind="kit", id="adapter-4", field="length_m", value=3.0)))
