"""Opened screens are offered only where both devices keep their own earth; a protective earth is never opened."""

import unittest
from typing import Any

from ruvak.core.analyse import analyse
from ruvak.core.analysis_cache import AnalysisCache
from ruvak.core.judge.finding import Grade
from ruvak.core.parts.library import library
from ruvak.core.pieces.screens import opens_screen
from ruvak.core.prepare import prepare
from ruvak.core.remedies.search import first_remedy, remedies_for
from ruvak.core.remedies.settings import settings_edits
from ruvak.core.rig.edits import Edit, PutThing, SetField, apply
from ruvak.core.rig.rig import Rig, earthing_of
from tests.outside.test_library_rigs import rig_of
from tests.support.earths import outlets
from tests.support.random_rigs import random_rig
from tests.support.solved import demo_remedies, solved_demo

LIFTS = {"lift-xlr", "lift-xlr-capacitor", "mic-lead-lifted", "network-boxes-4-unscreened"}


def looped(source: dict[str, Any], end: str, **more: Any) -> Rig:
    """A balanced line into an amplifier whose screen contact sits on its circuit board; a volt between the earths."""
    return rig_of(
        [
            {"id": "source", "name": "Source", "outlet": "here", **source},
            {"id": "loop", "name": "Loop", "part": "hearing-loop-amplifier", "outlet": "there"},
        ],
        [{"id": "m", "part": "mic-lead", "length_m": 15}, {"id": "l", "part": "lift-xlr"}],
        [(["m"], [(end, "m.in"), ("m.out", "loop.in")])],
        earth=outlets(here=0.0, there=1.0),
        **more,
    )


def lifts_in(rig: Rig, edit: Edit) -> bool:
    after = apply(rig, edit)
    return any(opens_screen(after.part_of(piece)) for run in after.runs for piece in run.pieces)


class Lifts(unittest.TestCase):
    DESK = {"part": "desk-digital-16", "settings": {"main-fader": -6.0}}  # noqa: RUF012

    def test_which_library_parts_open_a_screen(self) -> None:
        found = {part.id for part in library().values() if part.kind != "gear" and opens_screen(part)}
        self.assertEqual(found, LIFTS)

    def test_offered_solved_and_with_its_caution_between_two_earthed_devices(self) -> None:
        rig = looped(self.DESK, "source.main-left")
        self.assertIs(analyse(rig).runs[0].findings[0].grade, Grade.WATCH)
        offered = [one for one in remedies_for(rig, "r1") if lifts_in(rig, one.edit)]
        self.assertTrue(offered)
        for one in offered:
            self.assertTrue(one.helps)
            self.assertIn("never opened", one.caution)

    def test_not_offered_where_the_screen_is_all_the_earth_there_is(self) -> None:
        rig = looped(self.DESK, "source.main-left")
        unearthed = rig.gear[1].model_copy(update={"earth_open": True})
        lost = rig.with_fields(gear=(rig.gear[0], unearthed))
        self.assertEqual(remedies_for(lost, "r1"), ())
        # Nor an isolator: it would take the last earth its metal has.
        self.assertIsNone(first_remedy(lost, "r1"))
        earthing = rig.part_of("loop").earthing
        assert earthing is not None
        two_pin = rig.part_of("loop").model_copy(
            update={"earthing": earthing.model_copy(update={"type": "class-2", "cord_ohm": None})}
        )
        parts = tuple(two_pin if part.id == two_pin.id else part for part in rig.parts)
        other = prepare(rig.with_fields(parts=parts))
        self.assertFalse([one for one in remedies_for(other, "r1") if lifts_in(other, one.edit)])


class NeverAProtectiveEarth(unittest.TestCase):
    def kept(self, rig: Rig, edit: Edit) -> None:
        """An edit of leads and switches alone, after which every earthed device is earthed or off the mains."""
        for op in edit.ops:
            self.assertIsInstance(op, PutThing | SetField)
        after = apply(rig, edit)
        self.assertEqual((after.venue, after.bonds), (rig.venue, rig.bonds))
        for old, new in zip(rig.gear, after.gear, strict=True):
            before, now = (earthing_of(one, rig.part_of(one.id)) for one in (old, new))
            self.assertEqual((old.earth_open, old.outlet), (new.earth_open, new.outlet))
            if before is not None and before.type == "class-1":
                assert now is not None
                self.assertIn(now.type, ("class-1", "floating"))

    def test_no_remedy_of_the_demos_touches_one(self) -> None:
        for name in ("lantern-evening", "midwinter-concert"):
            rig, analysis, _ = solved_demo(name)
            for run in analysis.runs:
                for remedy in demo_remedies(run.run, name):
                    self.kept(rig, remedy.edit)

    def test_nor_of_random_rigs(self) -> None:
        offered = 0
        for seed in range(3):
            rig, solved = prepare(random_rig(seed, 7)), AnalysisCache()
            before = analyse(rig, solved)
            for run in rig.runs:
                for remedy in remedies_for(rig, run.id, before, solved):
                    self.kept(rig, remedy.edit)
                    offered += 1
        self.assertGreater(offered, 5)

    def test_nobody_is_sent_from_an_earthed_plug_to_one_with_two_pins(self) -> None:
        rig, analysis, _ = solved_demo()
        supplies = [
            (gear.id, part.earthing_setting)
            for gear in rig.gear
            if (part := rig.part_of(gear.id)).earthing_setting is not None
        ]
        self.assertTrue(supplies)
        tried = 0
        for found in analysis.runs:
            for edit in settings_edits(rig, found):
                self.kept(rig, edit)
                tried += 1
        self.assertGreater(tried, 20)
