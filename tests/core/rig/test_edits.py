"""Edits: what they do, what they refuse, and that the inverse takes each back exactly."""

import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from ruvak.core.errors import BadEdit, RigFault
from ruvak.core.parts.library import library
from ruvak.core.rig.edits import (
    Edit,
    Op,
    PutGear,
    PutKit,
    PutPart,
    PutRun,
    Remove,
    SetHouse,
    SetLength,
    SetRig,
    SetSetting,
    apply,
    inverse,
)  # fmt: skip
from ruvak.core.rig.rig import ALIGNMENTS, Alignment, Gear, KitItem, Run
from tests.support.rigs import demo_rig

RIG = demo_rig()


def edit(*ops: Op) -> Edit:
    return Edit(label="test", ops=ops)


POSSIBLE: list[Op] = [
    SetSetting(gear="laptop", setting="volume", value=-12.0),
    SetSetting(gear="laptop", setting="mono", value=True),
    SetSetting(gear="laptop", setting="volume", value=None),
    SetSetting(gear="speaker", setting="input1", value="mic"),
    SetLength(item="lead-31", length_m=30.0),
    PutGear(thing=Gear(id="laptop", name="Other laptop", part="laptop-headphone-trs35")),
    PutGear(thing=Gear(id="second", name="Second", part="laptop-headphone-trs35"), at=0),
    PutKit(thing=KitItem(id="lead-40", tag="M40", part="mic-lead", length_m=4.0)),
    PutPart(thing=library()["lead-trs35-two-xlr"]),
    PutRun(thing=Run(id="slides", number=3, name="Renamed", legs=(), joins=())),
    PutRun(thing=Run(id="empty", number=2, name="Empty"), at=0),
    SetHouse(field="screens", value="lifted-at-receiver"),
    SetHouse(field="unbalanced_limit_m", value=5.0),
    SetHouse(field="unbalanced_limit_m", value=None),
    SetHouse(field="programme_db_spl", value=85.0),
    SetHouse(field="noise_dba", value=900.0),
    SetRig(field="name", value="Second night"),
    SetRig(field="occasion", value=""),
    SetRig(field="venue_name", value="Chapel"),
    SetRig(field="length_unit", value="ft"),
    SetRig(field="mains_hz", value=60),
    SetRig(field="alignment", value="ebu-r-68"),
    SetRig(field="alignment", value=Alignment(full_scale_dbu=20.0, nominal_dbu=2.0, source="own")),
    SetRig(field="name", value=""),
    Remove(kind="kit", id="adapter-7"),
    Remove(kind="runs", id="slides"),
]


class Edits(unittest.TestCase):
    @given(st.lists(st.sampled_from(POSSIBLE), min_size=1, max_size=6))
    @settings(max_examples=200, deadline=None, derandomize=True)
    def test_the_inverse_takes_it_back_exactly(self, ops: list[Op]) -> None:
        made = edit(*ops)
        try:
            after = apply(RIG, made)
            back = inverse(RIG, made)
        except BadEdit:
            return
        self.assertEqual(apply(after, back), RIG)

    def test_it_changes_what_it_says(self) -> None:
        after = apply(RIG, edit(SetLength(item="lead-31", length_m=30.0)))
        self.assertEqual({item.id: item.length_m for item in after.kit}["lead-31"], 30.0)
        self.assertEqual({item.id: item.length_m for item in RIG.kit}["lead-31"], 15.0)

    def test_what_is_said_about_the_rig_as_a_whole(self) -> None:
        after = apply(
            RIG,
            edit(
                SetRig(field="venue_name", value="Chapel"),
                SetRig(field="mains_hz", value=60.0),
                SetRig(field="alignment", value="ebu-r-68"),
                SetRig(field="length_unit", value="ft"),
            ),
        )
        self.assertEqual((after.venue.name, after.venue.mains_hz, after.length_unit), ("Chapel", 60, "ft"))
        self.assertEqual(after.alignment, ALIGNMENTS["ebu-r-68"])
        self.assertEqual((RIG.alignment.headroom_db, after.alignment.headroom_db), (20.0, 18.0))
        self.assertEqual(type(after.venue.mains_hz), int)
        wrong: list[tuple[SetRig, str]] = [
            (SetRig(field="name", value=""), "1 to 120 letters"),
            (SetRig(field="mains_hz", value=55), "50 or 60 Hz"),
            (SetRig(field="mains_hz", value="fast"), "50 or 60 Hz"),
            (SetRig(field="length_unit", value="yards"), "m or ft"),
            (SetRig(field="alignment", value="loud"), "smpte-rp-155, ebu-r-68"),
            (SetRig(field="venue_name", value=3), "1 to 120 letters"),
        ]
        for op, words in wrong:
            with self.assertRaisesRegex(BadEdit, words):
                apply(RIG, edit(op))

    def test_look_ups_follow_the_edit(self) -> None:
        self.assertIn("lead-31", RIG.owners_by_id)
        after = apply(RIG, edit(Remove(kind="runs", id="slides"), Remove(kind="kit", id="lead-31")))
        self.assertNotIn("lead-31", after.owners_by_id)

    def test_refusals_name_the_place(self) -> None:
        for op, where in (
            (SetSetting(gear="nobody", setting="volume", value=0.0), "id"),
            (SetSetting(gear="laptop", setting="bass", value=0.0), "setting"),
            (SetSetting(gear="laptop", setting="volume", value=99.0), "value"),
            (SetSetting(gear="laptop", setting="mono", value="yes"), "value"),
            (SetLength(item="lead-31", length_m=-2.0), "length_m"),
            (SetLength(item="lead-31", length_m=1e9), "length_m"),
            (Remove(kind="kit", id="nothing"), "id"),
        ):
            with self.assertRaises(BadEdit) as caught:
                apply(RIG, edit(op))
            self.assertEqual(caught.exception.where, where, op)

    def test_an_edit_that_leaves_the_rig_unsound_is_refused(self) -> None:
        with self.assertRaises(RigFault):
            apply(RIG, edit(Remove(kind="kit", id="lead-31")))
        with self.assertRaises(RigFault):
            apply(RIG, edit(SetLength(item="adapter-4", length_m=3.0)))
