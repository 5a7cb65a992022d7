"""Labels, the input list and wiring sheets, of rigs and of the library's parts."""

import unittest

from ruvak.core.parts.library import library
from ruvak.core.prepare import prepare
from ruvak.core.rig.rig import Rig
from ruvak.core.sheets.inputs import input_list
from ruvak.core.sheets.labels import end_labels
from ruvak.core.sheets.wiring import WiringSheet, is_soldered, wiring_sheet, wiring_sheets
from tests.support.rigs import demo_rig

INPUT_OHM, SOURCE_OHM = 10_000.0, 150.0


def concert() -> Rig:
    return prepare(demo_rig("midwinter-concert"))


class Labels(unittest.TestCase):
    def test_every_plug_of_every_lead_has_one_of_its_own(self) -> None:
        rig = concert()
        labels = end_labels(rig)
        leads = [
            (run, piece)
            for run in rig.runs
            for piece in run.pieces
            if rig.part_of(piece).kind == "lead" and not getattr(rig.owners_by_id[piece], "installed", False)
        ]
        plugs = sum(sum(end.owner == piece for end in run.ends) for run, piece in leads)
        self.assertEqual(len(labels), plugs)
        self.assertEqual(len({label.code for label in labels}), len(labels))

    def test_both_ends_say_what_they_go_into_and_where_the_run_ends(self) -> None:
        near, far = (label for label in end_labels(concert()) if label.run == "lead-vocal")
        self.assertEqual((near.code, far.code), ("1a", "1b"))
        self.assertEqual((near.name, near.tag, near.is_audio), ("Lead vocal", "M1", True))
        self.assertTrue(near.plugs_into.startswith("Lead vocal: "))
        self.assertTrue(far.plugs_into.startswith("Stage box: "))
        self.assertEqual(near.destination, far.destination)

    def test_leads_of_data_and_of_loudspeakers_are_told_from_those_of_audio(self) -> None:
        kinds = {label.name: (label.kind, label.is_audio) for label in end_labels(concert())}
        self.assertEqual(kinds["Front lantern data"], ("LIGHTING DATA", False))
        self.assertEqual(kinds["Kick"], ("AUDIO", True))


class InputList(unittest.TestCase):
    def test_each_run_is_there_once_by_area_and_number(self) -> None:
        rig = concert()
        lines = input_list(rig)
        self.assertEqual(sorted(line.run for line in lines), sorted(run.id for run in rig.runs))
        areas = [line.area for line in lines]
        self.assertEqual(areas, sorted(areas, key=list(dict.fromkeys(areas)).index))
        by_name = {line.name: line for line in lines}
        self.assertEqual(by_name["Lead vocal"].area, "Stage box")
        self.assertEqual(by_name["Wedge 1"].area, "Stage box, returns")
        self.assertTrue(by_name["Choir 1"].phantom)
        self.assertFalse(by_name["Lead vocal"].phantom)
        self.assertEqual(by_name["Lead vocal"].leads, "M1")


class Wiring(unittest.TestCase):
    def sheet(self, part: str) -> WiringSheet:
        return wiring_sheet(library()[part])

    def ohm(self, sheet: WiringSheet, a: str, b: str) -> float | None:
        """What a meter reads between two contacts; None where that is nothing."""
        read = {frozenset((reading.a, reading.b)): reading.ohm for reading in sheet.readings}
        return read.get(frozenset((a, b)))

    def test_a_mono_sum_reads_its_two_resistors_in_series_from_tip_to_ring(self) -> None:
        sheet = self.sheet("adapter-trs35-xlr-sum")
        tip, ring, hot = "3.5 mm stereo plug tip", "3.5 mm stereo plug ring", "XLR male pin 2"
        self.assertEqual(self.ohm(sheet, tip, hot), 1000.0)
        self.assertEqual(self.ohm(sheet, tip, ring), 2000.0)
        self.assertEqual(self.ohm(sheet, "3.5 mm stereo plug sleeve", "XLR male pin 3"), 0.0)
        self.assertIsNone(self.ohm(sheet, tip, "XLR male pin 3"))

    def test_a_pad_reads_its_shunt_beside_nothing_and_its_legs_in_series(self) -> None:
        sheet = self.sheet("pad-20")
        self.assertEqual(self.ohm(sheet, "XLR male pin 2", "XLR male pin 3"), 150.0)
        self.assertEqual(self.ohm(sheet, "XLR female pin 2", "XLR female pin 3"), 680.0 + 150.0 + 680.0)

    def test_loss_of_a_pad_is_what_its_divider_gives(self) -> None:
        # Voltage divider (any textbook of circuits): the shunt beside the input, over the legs and the source.
        shunt = 1 / (1 / 150.0 + 1 / INPUT_OHM)
        share = shunt / (shunt + 2 * 680.0 + SOURCE_OHM)
        (loss,) = self.sheet("pad-20").losses
        self.assertAlmostEqual(10 ** (-loss.loss_db / 20), share * (INPUT_OHM + SOURCE_OHM) / INPUT_OHM, delta=0.001)
        self.assertEqual(loss.signal, "XLR female pin 2 and pin 3 to XLR male pin 2 and pin 3")

    def test_loss_of_a_mono_sum_counts_the_other_side_as_a_load(self) -> None:
        # Millman's theorem: the joint's voltage is the mean of the sources' weighted by their conductances.
        leg = 1000.0 + SOURCE_OHM
        volts = (1 / leg) / (2 / leg + 1 / INPUT_OHM)
        left, right = self.sheet("adapter-trs35-xlr-sum").losses
        self.assertEqual(left.loss_db, right.loss_db)
        self.assertAlmostEqual(10 ** (-left.loss_db / 20), volts * (INPUT_OHM + SOURCE_OHM) / INPUT_OHM, delta=0.002)

    def test_a_lifted_screen_is_drawn_as_cut(self) -> None:
        sheet = self.sheet("mic-lead-lifted")
        (cut,) = [joint for joint in sheet.joints if joint.b == ""]
        self.assertEqual((cut.kind, len(sheet.cut)), ("screen", 1))

    def test_plain_leads_read_metal_and_lose_nothing(self) -> None:
        for part in library().values():
            if is_soldered(part) and not part.elements:
                sheet = wiring_sheet(part)
                self.assertEqual(
                    ({reading.ohm for reading in sheet.readings} | {0.0}, sheet.losses), ({0.0}, ()), part.id
                )

    def test_multicores_data_and_boxes_with_stages_are_not_soldered_from_paper(self) -> None:
        for part in ("multicore-16-4", "lead-hdmi", "lead-optical", "network-lead-screened"):
            self.assertFalse(is_soldered(library()[part]), part)

    def test_each_kind_of_piece_is_there_once_with_how_many_there_are(self) -> None:
        rig = concert()
        sheets = wiring_sheets(rig)
        self.assertEqual(len({sheet.part for sheet in sheets}), len(sheets))
        microphone = next(sheet for sheet in sheets if sheet.name == "Microphone lead")
        used = {piece for run in rig.runs for piece in run.pieces if rig.part_of(piece).id == microphone.part}
        self.assertEqual(microphone.count, len(used))


if __name__ == "__main__":
    unittest.main()
