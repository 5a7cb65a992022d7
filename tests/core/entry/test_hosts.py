"""A box that belongs to a computer brings it along, and without one its run is not called clear."""

import unittest

from ruvak.core.analyse import analyse
from ruvak.core.judge.assumed import list_assumptions
from ruvak.core.judge.codes import FindingCode
from tests.support.typed import typed_rig


class Hosts(unittest.TestCase):
    def test_a_computer_comes_with_the_box(self) -> None:
        rig = typed_rig("usb box > small mixer 5/6, 3 m")
        box = next(gear for gear in rig.gear if gear.part == "usb-sound-adapter")
        self.assertEqual(box.host, "usb-box-computer")
        self.assertEqual([(str(bond.a), str(bond.b), bond.kind) for bond in rig.bonds], [(box.id, box.host, "usb")])

    def test_the_only_computer_of_the_rig_is_the_host(self) -> None:
        rig = typed_rig("laptop > desk 1", "usb box > desk 5/6, 3 m")
        self.assertEqual([gear.host for gear in rig.gear if gear.part == "usb-sound-adapter"], ["laptop"])

    def test_the_computer_a_line_names_before_or_behind_its_box_is_the_host(self) -> None:
        rig = typed_rig("laptop > desk 1", "slides computer > usb lead > interface > desk 3/4")
        (box,) = (gear for gear in rig.gear if gear.part == "interface-usb-two")
        self.assertEqual((box.host, rig.runs[-1].name), ("slides-computer", "Slides computer"))
        self.assertEqual(
            [str(rig.runs[1].joins[0].a), str(rig.runs[1].joins[-1].b)], ["slides-computer.usb", f"{box.id}.usb"]
        )
        self.assertEqual((len(rig.runs), rig.bonds), (3, ()))
        rig = typed_rig("desk aux 5/6 > interface > laptop")
        (box,) = (gear for gear in rig.gear if gear.part == "interface-usb-two")
        self.assertEqual(([gear.name for gear in rig.gear if gear.id == box.host], rig.bonds), (["Laptop"], ()))

    def test_a_usb_lead_typed_later_takes_the_place_of_the_bond(self) -> None:
        rig = typed_rig("desk aux 5/6 > interface", "stream laptop > interface, 2 m")
        self.assertEqual([gear.name for gear in rig.gear], ["Desk", "Interface", "Stream laptop"])
        self.assertEqual(rig.bonds, ())
        self.assertEqual(rig.owners_by_id[rig.runs[-1].pieces[0]].part, "lead-usb-device")
        self.assertNotIn("host", [question.code for question in list_assumptions(rig)])

    def test_the_supply_decides_by_a_usb_lead_as_by_a_bond(self) -> None:
        hums = {}
        for lines in (("interface > desk 3/4, 3 m",), ("laptop > interface > desk 3/4, 3 m",)):
            rig = typed_rig(*lines)
            result = analyse(rig).runs[-1].result.inputs[0]
            hums[lines] = result.hum.weighted_dbu if result.hum is not None else self.fail("no hum")
        by_bond, by_lead = hums.values()
        self.assertAlmostEqual(by_bond, by_lead, delta=3.0)

    def test_a_socket_named_on_the_computer_is_what_the_line_starts_from(self) -> None:
        rig = typed_rig("laptop headphones > interface > desk 3/4")
        self.assertEqual([str(run.joins[0].a) for run in rig.runs], ["laptop.phones", "interface.out1"])

    def test_on_battery_it_floats_and_on_an_earthed_supply_it_hums(self) -> None:
        rig = typed_rig("usb box > 3.5 mm to two jacks > small mixer 5/6, 3 m")
        hums = {}
        for supply in ("battery", "earthed plug"):
            gear = tuple(
                device.model_copy(update={"settings": {**device.settings, "supply": supply}})
                if device.id == "usb-box-computer"
                else device
                for device in rig.gear
            )
            result = analyse(rig.with_fields(gear=gear)).runs[0].result.inputs[0]
            hums[supply] = result.hum.weighted_dbu if result.hum is not None else self.fail("no hum")
        self.assertLess(hums["battery"], hums["earthed plug"] - 20.0)

    def test_a_plan_without_the_computer_says_so_and_asks(self) -> None:
        rig = typed_rig("usb box > small mixer 5/6, 3 m")
        alone = rig.with_fields(
            gear=tuple(gear.model_copy(update={"host": None}) for gear in rig.gear if gear.id != "usb-box-computer"),
            bonds=(),
        )
        self.assertIn(FindingCode.HOST_UNKNOWN, [finding.code for finding in analyse(alone).runs[0].findings])
        self.assertIn("host", [question.code for question in list_assumptions(alone)])
        self.assertNotIn("host", [question.code for question in list_assumptions(rig)])
