"""Outputs and inputs as elements: emfs, impedances, what a receiver reads, what phantom reaches; each as stated."""

import unittest
from typing import Any

from ruvak.core.circuit.circuit import Sink
from ruvak.core.rig.rig import Rig
from tests.support.earths import class_1, earthed, outlets, ts_input, ts_source, xlr_cable, xlr_input, xlr_source
from tests.support.earths import ts_cable as two_contact_lead
from tests.support.elements import Elements, ElementTest, inner, reference

XLR = [[("source.out", "lead.in"), ("lead.out", "desk.in")]]
TS = [[("source.out1", "lead.in"), ("lead.out", "desk.in1")]]
AT = {"source": "here", "desk": "there"}
LEAD = {"lead": {"part": "lead", "length_m": 1.0}}


def balanced(output: dict[str, Any] | None = None, pin1_ohm: Any = 0, **mode: Any) -> Rig:
    source = xlr_source("source", 50, class_1(0.1), **(output or {}))
    desk = xlr_input("desk", mode.pop("z_common_ohm", 10_000), class_1(0.1), pin1_ohm, **mode)
    return earthed([source, desk, xlr_cable()], XLR, LEAD, AT, outlets(here=0.0, there=0.0))


class Outputs(ElementTest):
    def gains(self, topology: str, **more: Any) -> list[float]:
        (drive,) = Elements(balanced({"topology": topology, **more})).circuit.drives
        return [gain for _, gain in drive.branch_gains]

    def test_what_each_topology_drives(self) -> None:
        self.assertEqual(self.gains("active"), [0.5, -0.5])
        self.assertEqual(self.gains("impedance"), [1.0, 0.0])
        self.assertEqual(self.gains("cross-coupled", common_ohm=5000), [0.5, -0.5])
        self.assertEqual(self.gains("floating"), [0.5, -0.5])

    def test_legs_stand_on_the_reference_or_on_a_midpoint(self) -> None:
        found = Elements(balanced({"topology": "active"}))
        self.assertEqual(found.between(reference("source"), "source.out.2").ohm, 50.0)
        found = Elements(balanced({"topology": "cross-coupled", "common_ohm": 5000, "winding_f": 2e-10}))
        middle = inner("source", "out-middle")
        self.assertEqual(found.between(middle, "source.out.3").ohm, 50.0)
        self.close(found.siemens(middle, reference("source")), 1 / 5000)
        self.close(found.farad("source.out.2", reference("source")), 1e-10)

    def test_a_stated_mismatch_is_shared_by_the_legs_and_an_unknown_one_is_a_tolerance(self) -> None:
        found = Elements(balanced({"leg_mismatch": 0.2}))
        ohms = [found.between(reference("source"), f"source.out.{contact}").ohm for contact in ("2", "3")]
        self.close(ohms[0], 55.0)
        self.close(ohms[1], 45.0)
        found = Elements(balanced({"leg_mismatch": {"likely": 0.02, "worst": 0.2}}))
        tolerance = found.tolerance("source_leg_mismatch")
        self.assertEqual([ohm for _, ohm in tolerance.branch_ohms], [25.0, -25.0])
        self.assertEqual((tolerance.likely, tolerance.worst), (0.02, 0.2))

    def test_levels_follow_the_alignment_where_nothing_is_stated(self) -> None:
        source = ts_source("source", 100, class_1(0.1))
        source["outputs"][0] |= {"peak_dbu": 24, "kept_free_db": 6}
        del source["outputs"][0]["nominal_dbu"]
        parts = [source, ts_input("desk", 1e4, class_1(0.1)), two_contact_lead()]
        for alignment, headroom in (("smpte-rp-155", 20.0), ("ebu-r-68", 18.0)):
            rig = earthed(parts, TS, LEAD, AT, outlets(here=0.0, there=0.0), alignment=alignment)
            (drive,) = Elements(rig).circuit.drives
            self.assertEqual((drive.peak_dbu, drive.nominal_dbu), (18.0, 24.0 - headroom))

    def test_a_return_of_its_own_lies_between_reference_and_sleeve(self) -> None:
        source = ts_source("source", 100, class_1(0.1))
        source["outputs"][0]["return_ohm"] = 0.3
        parts = [source, ts_input("desk", 1e4, class_1(0.1)), two_contact_lead()]
        found = Elements(earthed(parts, TS, LEAD, AT, outlets(here=0.0, there=0.0)))
        self.assertEqual(found.between(reference("source"), "source.out1.S").ohm, 0.3)

    def test_current_into_a_stated_pin_1_drives_the_hot_leg(self) -> None:
        output = {"screen": "out.1", "pin1_ohm": 0.05}
        (found,) = Elements(balanced(output)).network.transresistances
        self.assertEqual(abs(found.ohm), 0.05)
        unknown = Elements(balanced({"screen": "out.1", "pin1_ohm": {"likely": 0.01, "worst": 0.3}}))
        self.assertEqual(len(unknown.tolerance("pin1").transresistances), 1)


class Inputs(ElementTest):
    def test_a_balanced_input_loads_between_and_to_its_reference(self) -> None:
        found = Elements(balanced(z_differential_ohm=22_000, z_common_mismatch=0.1))
        self.close(found.siemens("desk.in.2", "desk.in.3"), 1 / 22_000)
        self.close(found.siemens("desk.in.2", reference("desk")), 1 / 10_500)
        self.close(found.siemens("desk.in.3", reference("desk")), 1 / 9_500)
        (receiver,) = found.circuit.receivers
        self.close(receiver.own_ohm, 1 / (1 / 22_000 + 1 / 20_000))
        self.assertEqual(receiver.leg_siemens, (1 / 10_500, 1 / 9_500))

    def test_a_stated_rejection_is_a_gain_and_an_unknown_one_a_tolerance(self) -> None:
        (receiver,) = Elements(balanced(rejection_db=60)).circuit.receivers
        self.close(receiver.stated_rejection, 1e-3)
        found = Elements(balanced(rejection_db={"likely": 80, "worst": 40}))
        self.assertEqual(found.circuit.receivers[0].stated_rejection, 0.0)
        tolerance = found.tolerance("receiver_rejection")
        self.close(tolerance.likely, 1e-4)
        self.close(tolerance.worst, 1e-2)

    def test_an_input_mismatch_of_unknown_sign_moves_both_legs_against_each_other(self) -> None:
        found = Elements(balanced(z_common_mismatch={"likely": 0.01, "worst": 0.1}))
        changes = dict(found.tolerance("input_leg_mismatch").conductances)
        self.close(sum(changes.values()), 0.0)
        self.close(max(changes.values()), 0.5 / 10_000)

    def test_pin_1_of_an_input_adds_to_what_it_reads(self) -> None:
        (receiver,) = Elements(balanced(pin1_ohm=0.03)).circuit.receivers
        self.assertEqual([abs(ohm) for _, ohm in receiver.pin1], [0.03])
        self.assertEqual(Elements(balanced()).circuit.receivers[0].pin1, ())

    def test_an_unbalanced_input_reads_against_its_reference(self) -> None:
        parts = [ts_source("source", 100, class_1(0.1)), ts_input("desk", 47_000, class_1(0.1)), two_contact_lead()]
        found = Elements(earthed(parts, TS, LEAD, AT, outlets(here=0.0, there=0.0)))
        (receiver,) = found.circuit.receivers
        self.assertEqual(receiver.cold, receiver.reference)
        self.close(found.siemens("desk.in1.T", reference("desk")), 1 / 47_000)
        self.assertEqual(receiver.leg_siemens, (0.0, 0.0))


class Phantom(ElementTest):
    def sink(self, **need: Any) -> Sink:
        (found,) = Elements(balanced({"phantom": {"ampere": 0.003, "leg_ohm": 2200, **need}})).circuit.sinks
        return found

    def test_what_a_microphone_draws_and_through_what(self) -> None:
        sink = self.sink(wiring="resistors")
        self.assertEqual((sink.ampere, sink.leg_ohm, sink.other_leg_ohm), (0.003, 2200.0, 2200.0))
        self.assertEqual((self.sink(wiring="centre-tap").leg_ohm, self.sink().other_leg_ohm), (50.0, 50.0))
        self.assertEqual(self.sink().leg_ohm, 2200.0)

    def test_only_a_supply_that_is_switched_on_feeds(self) -> None:
        desk = xlr_input("desk", 10_000, class_1(0.1))
        desk["inputs"][0]["phantom"] = {"volt": 48, "feed_ohm": 6810, "setting": "48v"}
        desk["settings"] = [{"type": "switch", "id": "48v", "label": "48 V", "default": False}]
        for on in (False, True):
            gear = {"desk": {"settings": {"48v": on}}}
            parts = [xlr_source("source", 50, class_1(0.1)), desk, xlr_cable()]
            found = Elements(earthed(parts, XLR, LEAD, AT, outlets(here=0.0, there=0.0), gear=gear))
            self.assertEqual([(one.volt, one.ohm) for one in found.circuit.feeds], [(48.0, 6810.0)] if on else [])


if __name__ == "__main__":
    unittest.main()
