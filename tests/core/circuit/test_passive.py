"""Leads, coils, transformers and stages as elements, each against the textbook's list of them."""

import unittest
from typing import Any

from ruvak.core.rig.rig import Rig
from tests.support.earths import class_1, earthed, outlets, ts_input, ts_source, xlr_cable, xlr_input
from tests.support.earths import xlr_source as balanced_source
from tests.support.elements import Elements, ElementTest, inner
from tests.support.one_lead import AT, REAL, XLR, leads

TS = [[("source.out1", "box.in"), ("box.out", "desk.in1")]]


def on_a_lead(length_m: float, **per_m: Any) -> Rig:
    parts = [balanced_source("source", 50, class_1(0.1)), xlr_input("desk", 1e6, class_1(0.1)), xlr_cable(**per_m)]
    return earthed(parts, XLR, leads(length_m), AT, outlets(here=0.0, there=0.0))


def with_box(elements: list[dict[str, Any]], **more: Any) -> Rig:
    """A box with one element between an unbalanced source and input."""
    box = {
        "id": "box",
        "name": "box",
        "kind": "box",
        "connectors": [
            {"id": "in", "label": "in", "form": "ts635-plug", "side": "in"},
            {"id": "out", "label": "out", "form": "ts635-plug", "side": "out"},
        ],
        "elements": elements,
        **more,
    }
    parts = [ts_source("source", 600, class_1(0.1)), ts_input("desk", 10_000, class_1(0.1)), box]
    return earthed(parts, TS, {"box": {"part": "box"}}, AT, outlets(here=0.0, there=0.0))


class Leads(ElementTest):
    def test_series_resistance_by_the_metre(self) -> None:
        found = Elements(on_a_lead(20.0, **REAL))
        self.close(found.between("lead.in.2", "lead.out.2").ohm, 1.6)
        self.close(found.between("lead.in.1", "lead.out.1").ohm, 0.6)

    def test_half_of_each_capacitance_at_either_end(self) -> None:
        found = Elements(on_a_lead(20.0, **REAL))
        for end in ("in", "out"):
            self.close(found.farad(f"lead.{end}.2", f"lead.{end}.3"), 600e-12)
            for core in ("2", "3"):
                self.close(found.farad(f"lead.{end}.{core}", f"lead.{end}.1"), 1000e-12)

    def test_screen_and_cores_share_the_external_inductance(self) -> None:
        """Without the mutual inductance, screen current would not induce into the cores what it drops along the screen:
        a balanced line's rejection at high frequencies rests on it."""
        found = Elements(on_a_lead(20.0, **REAL))
        screen, hot, cold = (found.between(f"lead.in.{contact}", f"lead.out.{contact}") for contact in ("1", "2", "3"))
        self.close(screen.henry, 20e-6)
        self.close(found.henry(screen, hot), 20e-6)
        self.close(found.henry(screen, cold), 20e-6)
        self.close(found.henry(hot, cold), 20e-6)
        self.close(hot.henry, 20e-6 + 6e-6)
        # Out by one core and back by the other: the pair's loop inductance and no more.
        self.close(hot.henry + cold.henry - 2 * found.henry(hot, cold), 12e-6)

    def test_a_stated_screen_coupling_is_more_to_one_core_than_to_the_other(self) -> None:
        found = Elements(on_a_lead(20.0, **REAL, screen_coupling_h_per_m=1e-9))
        screen, hot, cold = (found.between(f"lead.in.{contact}", f"lead.out.{contact}") for contact in ("1", "2", "3"))
        self.close(found.henry(screen, hot) - found.henry(screen, cold), 20e-9)

    def test_a_coupling_and_a_capacitance_of_unknown_sign_are_tolerances(self) -> None:
        spread = {"likely": 0.02, "worst": 0.05}
        coupling = {"likely": 1e-9, "worst": 1e-8}
        found = Elements(on_a_lead(20.0, **REAL, screen_coupling_h_per_m=coupling, core_screen_mismatch=spread))
        one = found.tolerance("screen_coupling")
        self.assertEqual((one.owner, one.likely, one.worst), ("lead#0", 1e-9, 1e-8))
        self.close(sum(henry for _, _, henry in one.branch_henries), 0.0)
        self.close(max(henry for _, _, henry in one.branch_henries), 10.0)
        other = found.tolerance("core_screen_mismatch")
        self.assertEqual(len(other.capacitances), 4)
        self.close(sum(farad for _, farad in other.capacitances), 0.0)
        self.close(max(farad for _, farad in other.capacitances), 500e-12)

    def test_a_long_lead_has_equal_sections_and_the_same_in_all(self) -> None:
        short, long = Elements(on_a_lead(100.0, **REAL)), Elements(on_a_lead(301.0, **REAL))
        self.assertEqual(len(short.circuit.cables[0][1]), 3)
        first = long.between("lead.in.2", inner("lead", "joint0-1", 0))
        self.close(first.ohm, 301.0 * 0.08 / 4)
        self.close(first.henry, 301.0 * 1.3e-6 / 4)
        self.close(long.farad("lead.in.2", "lead.in.1"), 0.5 * 301.0 * 100e-12 / 4)
        joint = [inner("lead", "joint0-1", number) for number in (0, 2)]
        self.close(long.farad(joint[0], joint[1]), 301.0 * 100e-12 / 4)
        # It can be opened once, and is clamped once.
        self.assertEqual([one.owner for one in long.circuit.openable_connections], ["lead"])
        self.assertEqual(len(long.circuit.cables), 1)


class Components(ElementTest):
    COIL: dict[str, Any] = {  # noqa: RUF012
        "type": "transformer",
        "primary_a": "in.T",
        "primary_b": "in.S",
        "secondary_a": "out.T",
        "secondary_b": "out.S",
        "turns_ratio": 1,
        "primary_ohm": 60,
        "secondary_ohm": 70,
        "magnetising_h": 10,
        "leakage_h": 1e-3,
        "winding_f": 150e-12,
    }

    def test_a_transformer_has_half_its_winding_capacitance_at_each_end(self) -> None:
        """All of it at one end would turn what both legs carry into programme, and half of it cancels."""
        found = Elements(with_box([self.COIL]))
        self.close(found.farad("box.in.T", "box.out.T"), 75e-12)
        self.close(found.farad("box.in.S", "box.out.S"), 75e-12)

    def test_a_transformer_has_its_losses_around_an_ideal_ratio(self) -> None:
        found = Elements(with_box([{**self.COIL, "turns_ratio": 12}]))
        primary, secondary = inner("box", "winding-primary"), inner("box", "winding-secondary")
        series = found.between("box.in.T", primary)
        self.assertEqual((series.ohm, series.henry), (60.0, 1e-3))
        self.assertEqual(found.between(primary, "box.in.S").henry, 10.0)
        self.close(found.siemens(secondary, "box.out.T"), 1 / 70)
        (ideal,) = found.network.transformers
        self.assertEqual(
            (ideal.p, ideal.q, ideal.s), (found.node(primary), found.node("box.in.S"), found.node(secondary))
        )
        self.assertEqual(ideal.ratio, 12.0)

    def test_a_core_that_saturates_is_where_its_flux_is(self) -> None:
        found = Elements(with_box([{**self.COIL, "saturates_dbu": 6, "saturates_hz": 20}]))
        (core,) = found.circuit.cores
        self.assertEqual((core.owner, core.saturates_dbu, core.saturates_hz), ("box", 6.0, 20.0))
        self.assertEqual((core.a, core.b), (found.node(inner("box", "winding-primary")), found.node("box.in.S")))

    def test_resistor_capacitor_and_coil(self) -> None:
        found = Elements(
            with_box(
                [
                    {"type": "resistor", "a": "in.T", "b": "out.T", "ohm": 470},
                    {"type": "capacitor", "a": "in.T", "b": "in.S", "farad": 1e-9},
                    {"type": "inductor", "a": "in.S", "b": "out.S", "henry": 2.0, "ohm": 5},
                ]
            )
        )
        self.close(found.siemens("box.in.T", "box.out.T"), 1 / 470)
        self.close(found.farad("box.in.T", "box.in.S"), 1e-9)
        coil = found.between("box.in.S", "box.out.S")
        self.assertEqual((coil.ohm, coil.henry), (5.0, 2.0))

    def test_a_stage_draws_by_its_input_and_drives_through_its_output(self) -> None:
        stage = {
            "type": "buffer",
            "a": "in.T",
            "b": "in.S",
            "c": "out.T",
            "d": "out.S",
            "input_ohm": 1e6,
            "output_ohm": 75,
            "gain_db": 20,
        }
        found = Elements(with_box([stage], wires=[{"a": "in.S", "b": "out.S"}]))
        self.close(found.siemens("box.in.T", "box.in.S"), 1e-6)
        self.assertEqual(found.between(inner("box", "stage"), "box.out.T").ohm, 75.0)
        (ideal,) = found.network.amplifiers
        self.close(ideal.gain, 10.0)
        self.assertEqual((ideal.p, ideal.t), (found.node("box.in.T"), found.node("box.out.S")))


if __name__ == "__main__":
    unittest.main()
