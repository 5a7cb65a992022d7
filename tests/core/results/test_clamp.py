"""A clamp meter's reading turned into the earth voltage behind it."""

import math
import unittest
from typing import Any

from ruvak.core.analyse import analyse
from ruvak.core.errors import BadEdit
from ruvak.core.results.clamp import earth_from_current
from ruvak.core.rig.earth import EarthVoltage
from ruvak.core.rig.edits import Edit, SetField, apply
from ruvak.core.rig.rig import Rig
from tests.support.earths import class_1, earthed, hum_of, quiet, ts_cable, ts_input, ts_source, xlr_cable
from tests.support.earths import xlr_input as balanced_input
from tests.support.earths import xlr_source as balanced_source

TS = [[("source.out1", "lead.in"), ("lead.out", "desk.in1")]]
AT = {"source": "here", "desk": "there"}
EARTH = [{"id": name, "name": name, "kind": "outlet", "ohm": 0.1, "henry": 0} for name in ("here", "there")]
FLOATING = {"earthing": {"type": "floating"}}


def rig(earthing: Any = None, at: dict[str, str] | None = None, **more: Any) -> Rig:
    """One lead with 1 ohm of screen between two outlets of 0.1 ohm each."""
    source = ts_source("source", 600, earthing or class_1(1e-9))
    parts = [source, ts_input("desk", 1e9, class_1(1e-9)), ts_cable()]
    return earthed(parts, TS, {"lead": {"part": "lead", "length_m": 20.0}}, at or AT, EARTH, **more)


def entered(edit: Edit) -> tuple[str, EarthVoltage]:
    """The outlet and what is now measured there."""
    (op,) = edit.ops
    assert isinstance(op, SetField) and op.field == "voltage" and op.id is not None
    return op.id, EarthVoltage.model_validate(op.value)


class Clamp(unittest.TestCase):
    def test_ohms_law_backwards(self) -> None:
        # 50 mA through 1.2 ohm: 60 mV between the outlets, 50 mV along the screen.
        edit = earth_from_current(rig(), "lead", 0.05)
        outlet, voltage = entered(edit)
        self.assertEqual((outlet, voltage.against), ("here", "there"))
        self.assertAlmostEqual(voltage.reading_v or 0.0, 0.06, places=6)
        measured = analyse(apply(rig(), edit))
        self.assertAlmostEqual(hum_of(measured).likely_dbu, 20 * math.log10(0.05 / math.sqrt(0.6)), places=3)
        self.assertIn("60 mV", edit.label)

    def test_a_meter_shows_total_rms(self) -> None:
        shape = {"lines": {"1": 1, "3": 0.75}, "source": "stated"}
        disturbances = quiet(presets={"linear": shape, "switched-mode": shape, "dimmers": shape})
        given = rig(disturbances=disturbances)
        edit = earth_from_current(given, "lead", 0.05)
        self.assertAlmostEqual(entered(edit)[1].reading_v or 0.0, 0.06, places=6)
        first, third = hum_of(analyse(apply(given, edit))).tones.likely_dbu
        for likely_dbu, volts in ((first, 0.05 / 1.25), (third, 0.05 * 0.75 / 1.25)):
            self.assertAlmostEqual(likely_dbu, 20 * math.log10(volts / math.sqrt(0.6)), places=3)

    def test_it_reads_back_what_the_rig_computes(self) -> None:
        edit = earth_from_current(rig(), "lead", 0.01)
        again = earth_from_current(apply(rig(), edit), "lead", 0.01)
        self.assertAlmostEqual(entered(again)[1].reading_v or 0.0, entered(edit)[1].reading_v or 1.0)

    def test_what_cannot_be_told_is_refused_in_words(self) -> None:
        lifted = xlr_cable(screen=("in.1", ""))
        open_branch = earthed(
            [balanced_source("source", 50, class_1(0.1)), balanced_input("desk", 1e6, class_1(0.1)), lifted],
            [[("source.out", "lead.in"), ("lead.out", "desk.in")]],
            {"lead": {"part": "lead", "length_m": 20.0}},
            AT,
            EARTH,
        )
        cases = {
            "above 0": (rig(), "lead", 0.0),
            "no lead 'other'": (rig(), "other", 0.1),
            "which outlets 'source' use": (rig(at={"desk": "there"}), "lead", 0.1),
            "two devices on two outlets": (rig(at={"desk": "there", "source": "there"}), "lead", 0.1),
            "No earth loop": (rig(FLOATING), "lead", 0.1),
            "open or isolated": (open_branch, "lead", 0.1),
            "electrician": (rig(), "lead", 100.0),
        }
        for words, (given, item, ampere) in cases.items():
            with self.subTest(words), self.assertRaises(BadEdit) as caught:
                earth_from_current(given, item, ampere)
            with self.subTest(words):
                self.assertIn(words, str(caught.exception))

    def test_against_an_outlet_that_is_measured_against_this_one(self) -> None:
        first = apply(rig(), earth_from_current(rig(), "lead", 0.05))
        turned = rig(at={"source": "there", "desk": "here"})
        turned = turned.with_fields(venue=first.venue)
        edit = earth_from_current(turned, "lead", 0.1)
        self.assertEqual(entered(edit)[1].against, "there")
        self.assertEqual(len(apply(turned, edit).venue.earth), 2)
