"""A venue by itself, and the edit that brings a rig's own to it."""

import unittest

from ruvak.core.rig.earth import EarthPoint
from ruvak.core.rig.edits import Edit, PutThing, SetField, apply
from ruvak.core.rig.rig import Rig
from ruvak.core.venue.document import VenueDocument, difference, document_of
from tests.core.venue.test_lines import HOUSE, typed
from tests.support.rigs import demo_rig
from tests.support.typed import empty_rig

PLUG = EarthPoint(id="desk-plug", name="Desk's plug", kind="outlet", parent="control-strip")


def taken(rig: Rig, document: VenueDocument) -> Rig:
    found = difference(rig, document, "Venue", 2)
    assert found.edit is not None
    return apply(rig, found.edit)


class Differences(unittest.TestCase):
    def setUp(self) -> None:
        self.rig = demo_rig("midwinter-concert")

    def test_a_rig_does_not_differ_from_its_own_venue(self) -> None:
        found = difference(self.rig, document_of(self.rig), "Venue")
        self.assertEqual((found.edit, found.said, found.kept), (None, (), ()))

    def test_what_is_taken_is_then_the_same_but_for_the_rigs_own_plugs(self) -> None:
        house = typed(self.rig, "circuit 4, 20 A, foyer: outlets 21-24\nstage left strip: 0.9 V\ncircuit 3 30 mA")
        own = apply(self.rig, Edit(label="plug", ops=(PutThing(kind="earth", thing=PLUG),)))
        after = taken(own, document_of(house))
        self.assertEqual(difference(after, document_of(house), "Venue").said, ())
        self.assertEqual(after.venue.revision, 2)
        self.assertIn(PLUG, after.venue.earth)
        self.assertNotIn(PLUG, document_of(own).venue.earth)

    def test_it_says_what_is_different(self) -> None:
        house = typed(self.rig, "outlet 21 on circuit 3\nstage left strip: 0.9 V\nrename circuit 3 to gallery circuit")
        said = difference(self.rig, document_of(house), "Venue").said
        self.assertEqual(set(said), {"Outlet 21 added", "Stage left strip: measured", "Gallery circuit: renamed"})

    def test_an_empty_rig_takes_everything(self) -> None:
        after = taken(empty_rig(), document_of(self.rig))
        self.assertEqual(document_of(after), document_of(self.rig).model_copy(update={"venue": after.venue}))
        self.assertEqual(after.venue.name, "Ferrywell Hall")
        self.assertEqual(after.venue.earth, self.rig.venue.earth)

    def test_what_the_rig_uses_stays_and_is_told(self) -> None:
        bare = document_of(typed(empty_rig(), HOUSE))
        found = difference(self.rig, bare, "Venue")
        after = taken(self.rig, bare)
        there = {point.id for point in after.venue.earth}
        for device in self.rig.gear:
            if device.outlet is not None:
                self.assertIn(device.outlet, there)
        self.assertTrue(any("Stage right strip is no longer in the venue" in words for words in found.kept))
        used = {piece for run in self.rig.runs for piece in run.pieces}
        self.assertTrue({item.id for item in self.rig.kit if item.installed and item.id in used})
        self.assertLessEqual(used, {item.id for item in after.kit})

    def test_house_rules_and_loudness_are_the_venues(self) -> None:
        quiet = SetField(kind="venue", field="noise_dba", value=28.0)
        house = apply(self.rig, Edit(label="x", ops=(quiet,)))
        found = difference(self.rig, document_of(house), "Venue")
        self.assertEqual(found.said, ("the empty room's noise changed",))

    def test_a_document_goes_out_and_comes_in_again(self) -> None:
        document = document_of(self.rig)
        self.assertEqual(VenueDocument.model_validate_json(document.model_dump_json()), document)
