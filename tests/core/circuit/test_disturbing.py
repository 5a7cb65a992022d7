"""What disturbs, as elements and emfs: earth cords and trees, touch currents, fields, mains cables, computers.

Faraday's law and parallel wires from any textbook; half the mains voltage at a two-pin case is common practice (equal
interference capacitors from live and neutral).
"""

import cmath
import math
import unittest
from typing import Any

from ruvak.core.circuit.circuit import Cause, CauseLine
from ruvak.core.circuit.exposure import LIVE
from ruvak.core.circuit.known_phase import join_known_phase
from ruvak.core.circuit.spectra import harmonics_of, preset
from ruvak.core.parts.library import default_disturbances
from ruvak.core.rig.earth import EarthVoltage, MainsLine
from ruvak.core.rig.rig import Rig
from tests.support.earths import class_1, earthed, outlets, quiet, ts_cable, ts_input, ts_source
from tests.support.elements import AT_EARTH, Elements, ElementTest, chassis, inner, point, reference

JOINS = [[("source.out1", "lead.in"), ("lead.out", "desk.in1")]]
AT = {"source": "here", "desk": "there"}
OMEGA = 2 * math.pi * 50


def rig(source: dict[str, Any] | None = None, **more: Any) -> Rig:
    """An unbalanced source and input on two outlets, 20 m of lead between."""
    lead = {"part": "lead", "length_m": 20.0, **more.pop("lead", {})}
    parts = [ts_source("source", 100, source or class_1(0.1)), ts_input("desk", 1e4, class_1(0.1)), ts_cable()]
    at = more.pop("at", AT)
    return earthed(parts, JOINS, {"lead": lead}, at, more.pop("earth", outlets(here=0.0, there=0.0)), **more)


class Somewhere(ElementTest):
    def test_an_outlet_nobody_named_has_every_stretch_up_to_where_it_joins(self) -> None:
        segments = {
            kind: {"ohm": ohm, "length_m": 0.0}
            for kind, ohm in (("outlet", 0.11), ("strip", 0.22), ("circuit", 0.44), ("board", 0.88), ("building", 1.76))
        }
        for joins, ohm in (("strip", 0.11), ("circuit", 0.33), ("board", 0.77), ("building", 1.65)):
            document = quiet(unknown_outlet=joins, segments={**quiet()["segments"], **segments})
            found = Elements(rig(at={"desk": "there"}, disturbances=document))
            self.assertTrue(any(abs(branch.ohm - ohm) < 1e-9 for branch in found.branches), joins)


class Touch(ElementTest):
    def test_a_two_pin_case_is_driven_from_half_the_mains_voltage(self) -> None:
        """From the full voltage it would show twice the volts a meter reads there."""
        for mains_hz, mains_v in ((50, 230.0), (60, 120.0)):
            venue = {"mains_hz": mains_hz}
            found = Elements(rig({"earthing": {"type": "class-2", "touch_a": 1e-4}}, at={"desk": "there"}, venue=venue))
            supply = inner("source", "interference")
            cause = found.cause("touch")
            emf = found.emf(cause, found.between(AT_EARTH, supply), float(mains_hz))
            self.close(abs(emf), mains_v / 2)
            # The stated current at that voltage, at the fundamental.
            farad = found.farad(supply, chassis("source"))
            self.close(2 * math.pi * mains_hz * farad * mains_v / 2, 1e-4)
            self.assertEqual((cause.owner, cause.likely, cause.worst), ("source", 1.0, 1.0))

    def test_an_earthed_device_has_none_until_its_earth_is_open(self) -> None:
        self.assertEqual([one.code for one in Elements(rig()).circuit.causes], [])
        gear = {"source": {"earth_open": True, "touch_a": 5e-4}}
        found = Elements(rig(gear=gear))
        self.assertEqual([one.owner for one in found.circuit.causes if one.code == "touch"], ["source"])

    def test_a_stated_capacitance_to_live_is_driven_from_all_of_it(self) -> None:
        found = Elements(rig(gear={"source": {"mains_f": 2e-10}}))
        live = inner("source", "live")
        self.close(abs(found.emf(found.cause("electric", "source"), found.between(AT_EARTH, live))), 230.0)
        self.close(found.farad(live, chassis("source")), 2e-10)


class Mains(ElementTest):
    """20 m of lead at 0.1 m from a pair 10 mm apart, the earth path 0.5 m behind the lead, 10 A."""

    BESIDE: dict[str, Any] = {  # noqa: RUF012
        "length_m": 20,
        "distance_m": 0.1,
        "current_a": 10,
        "spacing_m": 0.01,
        "twist_db": 0,
        "spectrum": "linear",
    }

    def emf(self, **beside: Any) -> float:
        lead = {"beside": {**self.BESIDE, **beside}, "loop_width_m": 0.5}
        found = Elements(rig(lead=lead))
        screen = found.between("lead.in.S", "lead.out.S")
        core = found.between("lead.in.T", "lead.out.T")
        cause = found.cause("mains_pair")
        self.assertEqual(found.emf(cause, screen), found.emf(cause, core))
        return abs(found.emf(cause, screen))

    def test_a_mains_pair_induces_what_its_two_wires_leave_of_each_other(self) -> None:
        """mu0 / 2 pi (ln of far over near) of the wire there, less that of its return a centimetre farther."""
        flux = 2e-7 * 20 * 10 * (math.log(0.6 / 0.1) - math.log(0.61 / 0.11))
        self.close(self.emf() / (OMEGA * flux), 1.0)
        # Without its return it would be some twenty times as much.
        self.assertGreater(2e-7 * 20 * 10 * math.log(0.6 / 0.1) / flux, 20.0)

    def test_a_twist_lowers_it_and_what_returns_elsewhere_does_not_care(self) -> None:
        self.close(self.emf(twist_db=20) / self.emf(), 0.1)
        alone = 2e-7 * 20 * 0.3 * math.log(0.6 / 0.1)
        self.close(self.emf(current_a=0, residual_a=0.3) / (OMEGA * alone), 1.0)

    def test_a_long_lead_shares_it_among_its_sections(self) -> None:
        lead = {"length_m": 250.0, "beside": self.BESIDE, "loop_width_m": 0.5}
        found = Elements(rig(lead=lead))
        cause = found.cause("mains_pair")
        sections = [emf for branch, emf in cause.lines[0].emfs]
        flux = 2e-7 * 20 * 10 * (math.log(0.6 / 0.1) - math.log(0.61 / 0.11))
        self.assertEqual(len(sections), 6)
        self.close(abs(sum(sections)) / (2 * OMEGA * flux), 1.0)


class Fields(ElementTest):
    def test_a_field_goes_through_length_times_width(self) -> None:
        found = Elements(rig(lead={"loop_width_m": 0.5}, disturbances=quiet(field_t={"likely": 1e-6, "worst": 1e-5})))
        cause = found.cause("field")
        self.assertEqual((cause.likely, cause.worst), (1e-6, 1e-5))
        emf = found.emf(cause, found.between("lead.in.S", "lead.out.S"))
        self.close(abs(emf), OMEGA * 20.0 * 0.5)
        self.close(cmath.phase(emf), math.pi / 2)

    def test_a_harmonic_of_the_field_induces_by_its_order(self) -> None:
        shape = {"lines": {"1": 1, "3": 0.5}, "source": "stated"}
        presets = dict.fromkeys(("linear", "switched-mode", "dimmers"), shape)
        found = Elements(rig(disturbances=quiet(field_t=1e-6, presets=presets)))
        screen = found.between("lead.in.S", "lead.out.S")
        cause = found.cause("field")
        self.close(abs(found.emf(cause, screen, 150.0)) / abs(found.emf(cause, screen)), 1.5)

    def test_an_electric_field_reaches_the_screen_and_cores_through_its_holes(self) -> None:
        disturbances = quiet(electric_f_per_m=1e-12)
        parts = [ts_source("source", 100, class_1(0.1)), ts_input("desk", 1e4, class_1(0.1))]
        cover = ts_cable(screen_coverage=0.9)
        leads = {"lead": {"part": "lead", "length_m": 20.0}}
        found = Elements(earthed([*parts, cover], JOINS, leads, AT, outlets(here=0.0, there=0.0), disturbances))
        for end in ("in", "out"):
            self.close(found.farad(LIVE, f"lead.{end}.S"), 0.5 * 20e-12 * 0.9)
            self.close(found.farad(LIVE, f"lead.{end}.T"), 0.5 * 20e-12 * 0.1)
        self.close(abs(found.emf(found.cause("electric"), found.between(AT_EARTH, LIVE))), 230.0)


class Earths(ElementTest):
    def test_a_cord_leads_from_the_outlet_to_the_case(self) -> None:
        found = Elements(rig(class_1(0.23, cord_h=4e-6)))
        cord = found.between("earth:here", chassis("source"))
        self.assertEqual((cord.ohm, cord.henry), (0.23, 4e-6))

    def test_an_open_earth_has_no_cord(self) -> None:
        found = Elements(rig(gear={"source": {"earth_open": True}}))
        nodes = {found.node(chassis("source")), found.circuit.node_of.get(point("earth:here"), 999)}
        self.assertEqual([one for one in found.branches if {one.a, one.b} == nodes], [])

    def test_the_signal_reference_stands_on_the_case_by_what_is_stated(self) -> None:
        lifted = class_1(0.1, reference_to_chassis_ohm=47, reference_to_chassis_f=1e-7)
        found = Elements(rig(lifted))
        self.close(found.siemens(reference("source"), chassis("source")), 1 / 47)
        self.close(found.farad(reference("source"), chassis("source")), 1e-7)

    def test_a_computer_is_noisy_between_reference_and_case(self) -> None:
        noisy = class_1(0.1, reference_to_chassis_ohm=1, computer_v={"likely": 0.002, "worst": 0.02})
        found = Elements(rig(noisy))
        cause = found.cause("computer")
        self.assertEqual((cause.owner, cause.likely, cause.worst), ("source", 0.002, 0.02))
        branch = found.between(reference("source"), chassis("source"))
        self.assertEqual({line.frequency_hz for line in cause.lines}, set(default_disturbances().computer_hz))
        self.assertEqual(found.emf(cause, branch, cause.lines[0].frequency_hz), 1.0)

    def test_a_measured_outlet_is_one_reading_whatever_lies_between(self) -> None:
        strip = {"id": "strip", "name": "Strip", "kind": "strip", "ohm": 0.05, "henry": 0}
        beneath = [{**one, "parent": "strip"} for one in outlets(here={"reading_v": 0.03}, there=0.0)]
        found = Elements(rig(earth=[strip, *beneath], disturbances=quiet(between_v={**BETWEEN, "circuit": 0.01})))
        cause = found.cause("earth_measured")
        trunk, here = found.between(AT_EARTH, "earth:strip"), found.between("earth:strip", "earth:here")
        # The strip's own emf is not known; what stands at the outlet is, so the way to it makes up the difference.
        self.close(found.emf(cause, trunk) + found.emf(cause, here), 0.03)

    def test_two_unmeasured_outlets_of_a_strip_share_what_stands_between_them(self) -> None:
        strip = {"id": "strip", "name": "Strip", "kind": "strip", "ohm": 0.05, "henry": 0}
        plain = [{"id": name, "name": name, "kind": "outlet", "parent": "strip"} for name in ("here", "there")]
        likely_worst = {"likely": 3e-4, "worst": 3e-3}
        found = Elements(rig(earth=[strip, *plain], disturbances=quiet(between_v={**BETWEEN, "strip": likely_worst})))
        for name in ("here", "there"):
            cause = found.cause("earth", name)
            # Two independent halves: likely by powers, worst by sizes.
            self.close(cause.likely, 3e-4 / math.sqrt(2))
            self.close(cause.worst, 1.5e-3)

    def test_a_bond_is_metal_between_two_cases(self) -> None:
        bond = {"id": "video", "name": "Video", "kind": "video", "a": "source", "b": "desk", "ohm": 0.4, "henry": 2e-6}
        found = Elements(rig(bonds=[bond]))
        metal = found.between(chassis("source"), chassis("desk"))
        self.assertEqual((metal.ohm, metal.henry), (0.4, 2e-6))
        self.assertIn(("bond", "video"), [(one.kind, one.owner) for one in found.circuit.openable_connections])


BETWEEN = dict.fromkeys(("strip", "circuit", "board", "building", "site"), 0)


class Spectra(ElementTest):
    def test_a_reading_is_shared_by_root_sum_of_squares_and_lines_stand(self) -> None:
        disturbances = default_disturbances()
        reading = dict(harmonics_of(disturbances, EarthVoltage(reading_v=1.0, spectrum="switched-mode")))
        self.close(math.sqrt(sum(abs(volt) ** 2 for volt in reading.values())), 1.0)
        self.close(abs(reading[3] / reading[1]), dict(preset(disturbances, "switched-mode"))[3].real)
        lines = (MainsLine(h=1, v=0.1), MainsLine(h=3, v=0.2, phase_deg=90.0))
        stated = dict(harmonics_of(disturbances, EarthVoltage(lines=lines)))
        self.close(stated[1], 0.1)
        self.close(stated[3], 0.2j)


class KnownPhase(ElementTest):
    EARTH = Cause("earth_measured", "venue", 1.0, 1.0, (CauseLine(50.0, ((0, 1.0),)),))
    FIELD = Cause("field", "venue", 2e-6, 2e-6, (CauseLine(50.0, ((0, 1.0), (1, 3.0))), CauseLine(150.0, ((1, 1.0),))))

    def test_they_become_one_cause_turned_by_the_phase_and_by_h_times_it(self) -> None:
        (joined,) = join_known_phase([self.EARTH, self.FIELD], 50.0, 90.0)
        self.assertEqual((joined.code, joined.likely, joined.worst), ("earth_measured", 1.0, 1.0))
        emfs = {line.frequency_hz: dict(line.emfs) for line in joined.lines}
        self.close(emfs[50.0][0], 1.0 + 2e-6j)
        self.close(emfs[50.0][1], 6e-6j)
        self.close(emfs[150.0][1], -2e-6j)

    def test_without_both_stated_nothing_changes(self) -> None:
        guess = Cause("field", "venue", 1e-6, 1e-5, self.FIELD.lines)
        for causes in ([self.EARTH], [self.FIELD], [self.EARTH, guess]):
            self.assertEqual(join_known_phase(causes, 50.0, 30.0), causes)


if __name__ == "__main__":
    unittest.main()
