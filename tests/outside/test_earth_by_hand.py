"""Situations as netlists written by hand from the physics, solved by ngspice, against the rig's own result.

Nothing here comes from the exporter: the elements stand in the text as a textbook would draw them.
"""

import math
import unittest
from typing import Any

from ruvak.core.rig.rig import Rig
from tests.support.earths import (
    class_1,
    earthed,
    hum_of,
    hum_v,
    outlets,
    quiet,
    ts_cable,
    ts_input,
    ts_source,
    xlr_cable,
    xlr_input,
    xlr_source,
)
from tests.support.one_lead import AT, FLOATING, REAL, TS, XLR, leads
from tests.support.spice import by_hand


class ByHand(unittest.TestCase):
    def same(self, rig: Rig, elements: str, hot: str, cold: str, hz: float = 50.0, run: int = 0) -> None:
        """Within 0.01 dB or 1 nV."""
        got = by_hand(elements, hz)
        expected = abs(got[f"v({hot})"] - (got[f"v({cold})"] if cold != "0" else 0))
        mine = hum_v(rig, run, hz)
        close = abs(mine - expected) < 1e-9 or abs(20 * math.log10(mine / expected)) < 0.01
        self.assertTrue(close, f"{mine} V here, {expected} V in ngspice")

    def test_earth_difference_into_an_unbalanced_input(self) -> None:
        rig = earthed(
            [ts_source("source", 600, class_1(0.1)), ts_input("desk", 47_000, class_1(0.15)), ts_cable(**REAL)],
            TS,
            leads(20.0),
            AT,
            outlets(here=0.0, there=0.06),
        )
        elements = """
            V1 e 0 0 AC 0.06
            R1 e there 0.1
            R2 there gb 0.15
            R3 0 here 0.1
            R4 here ga 0.1
            L1 ga x1 20u
            R5 x1 gb 0.6
            R6 ga s 600
            L2 s x2 26u
            R7 x2 hot 1.6
            K1 L1 L2 0.8770580193070293
            C1 s ga 1n
            C2 hot gb 1n
            R8 hot gb 47k
        """
        # M = 20 uH: k = 20 / sqrt(20 x 26).
        self.same(rig, elements, "hot", "gb")

    def test_earth_difference_into_a_balanced_input_with_uneven_legs(self) -> None:
        rig = earthed(
            [
                xlr_source("source", 75, class_1(0.1), leg_mismatch=0.1),
                xlr_input("desk", 10_000, class_1(0.1), z_common_mismatch=0.04, rejection_db=60),
                xlr_cable(screen_ohm_per_m=0.03, core_ohm_per_m=0.08),
            ],
            XLR,
            leads(10.0),
            AT,
            outlets(here=0.0, there=0.05),
        )
        elements = """
            V1 e 0 0 AC 0.05
            R1 e there 0.1
            R2 there gb 0.1
            R3 0 here 0.1
            R4 here ga 0.1
            R5 ga gb 0.3
            R6 ga hot 79.55
            R7 ga cold 72.05
            R8 hot gb 10200
            R9 cold gb 9800
            R10 hot cold 1e9
            E1 common 0 VOL='(v(hot)+v(cold))/2-v(gb)'
            E2 out 0 VOL='v(hot)-v(cold)+0.001*v(common)'
            R11 common 0 1
            R12 out 0 1
        """
        self.same(rig, elements, "out", "0")

    def test_a_two_contact_plug_and_a_three_conductor_lead_into_a_balanced_input(self) -> None:
        """With cold on the screen at the far end the whole screen drop is heard, at the source's end almost none."""
        socket = {
            **xlr_input("desk", 10_000, class_1(0.1)),
            "connectors": [{"id": "in", "label": "in", "form": "trs635-socket", "side": "in"}],
            "wires": [{"a": "in.S", "b": "chassis"}],
        }
        socket["inputs"] = [{**socket["inputs"][0], "hot": "in.T", "cold": "in.R", "screen": "in.S"}]
        joins = [[("source.out1", "lead.in"), ("lead.out", "desk.in")]]
        earth = outlets(here=0.0, there=0.06)
        source = ts_source("source", 1000, class_1(0.1))
        far = earthed([source, socket, ts_cable()], joins, leads(10.0), AT, earth)
        common = """
            V1 e 0 0 AC 0.06
            R1 e gb 0.2
            R2 0 ga 0.2
            R3 ga gb 0.5
            R4 ga s 1000
            R5 s hot 1
            R6 hot gb 10k
        """
        self.same(far, common + "R7 hot gb 1e9\n", "hot", "gb")
        near = ts_cable()
        near["connectors"][1]["form"] = "trs635-plug"
        near["cables"][0]["conductors"] = [
            {"a": "in.T", "b": "out.T", "kind": "core"},
            {"a": "in.S", "b": "out.R", "kind": "core"},
            {"a": "in.S", "b": "out.S", "kind": "screen"},
        ]
        quieter = earthed([source, socket, near], joins, leads(10.0), AT, earth)
        self.same(quieter, common + "R7 ga cold 1\nR8 cold gb 10k\nR9 hot cold 1e9\n", "hot", "cold")
        self.assertGreater(hum_of(far).likely_dbu - hum_of(quieter).likely_dbu, 15)

    def test_a_line_isolator_in_an_unbalanced_run(self) -> None:
        isolator = {
            "id": "isolator",
            "name": "isolator",
            "kind": "box",
            "connectors": [
                {"id": "in", "label": "in", "form": "ts635-socket", "side": "in"},
                {"id": "out", "label": "out", "form": "ts635-plug", "side": "out"},
            ],
            "elements": [
                {
                    "type": "transformer",
                    "primary_a": "in.T",
                    "primary_b": "in.S",
                    "secondary_a": "out.T",
                    "secondary_b": "out.S",
                    "turns_ratio": 1,
                    "primary_ohm": 60,
                    "secondary_ohm": 70,
                    "magnetising_h": 20,
                    "leakage_h": 0.004,
                    "winding_f": 3e-10,
                }
            ],
        }
        rig = earthed(
            [ts_source("source", 600, class_1(0.1)), ts_input("desk", 10_000, class_1(0.1)), ts_cable(), isolator],
            [[("source.out1", "lead.in"), ("lead.out", "iso.in"), ("iso.out", "desk.in1")]],
            {**leads(10.0), "iso": {"part": "isolator"}},
            AT,
            outlets(here=0.0, there=1.0),
        )
        # The ideal 1:1 pair by an E and an F source.
        elements = """
            V1 e 0 0 AC 1
            R1 e gb 0.2
            R2 0 ga 0.2
            R3 ga ps 0.5
            R4 ga s 600
            R5 s pt 1
            R6 pt w1 60
            L1 w1 w 4m
            L2 w ps 20
            E1 w y z gb 1
            V2 y ps 0
            F1 gb z V2 1
            R7 z hot 70
            R8 hot gb 10k
            C1 pt hot 150p
            C2 ps gb 150p
        """
        self.same(rig, elements, "hot", "gb")

    def field_rig(self, screen: tuple[str, str]) -> Rig:
        disturbances = quiet(field_t=1e-6, loop_width_m=0.5)
        return earthed(
            [
                xlr_source("source", 100, class_1(0.1), leg_mismatch=0.02),
                xlr_input("desk", 10_000, class_1(0.1)),
                xlr_cable(screen=screen, **REAL),
            ],
            XLR,
            leads(20.0),
            disturbances=disturbances,
            venue={"earth": [{"id": "o", "name": "o", "kind": "outlet", "ohm": 0.1, "henry": 0}]},
            gear={"source": {"outlet": "o"}, "desk": {"outlet": "o"}},
        )

    FIELD = """
        V1 s1 ga 0 AC 3.141592653589793m 90
        V2 h1 hs 0 AC 3.141592653589793m 90
        V3 c1 cs 0 AC 3.141592653589793m 90
        R1 ga gb 0.2
        Rg ga 0 1
        R2 ga hs 101
        R3 ga cs 99
        L1 s1 s2 20u
        L2 h1 h2 26u
        L3 c1 c2 26u
        K1 L1 L2 0.8770580193070293
        K2 L1 L3 0.8770580193070293
        K3 L2 L3 0.7692307692307693
        R5 h2 hot 1.6
        R6 c2 cold 1.6
        R7 hot gb 10k
        R8 cold gb 10k
        Rd hot cold 1e9
        C1 hs cs 600p
        C2 hot cold 600p
        C3 hs {near} 1n
        C4 cs {near} 1n
        C5 hot {far} 1n
        C6 cold {far} 1n
    """

    def test_a_loop_in_a_field_with_the_screen_bonded(self) -> None:
        # w B area = 2 pi 50 x 1 uT x 10 m2 = 3.14 mV along every conductor.
        elements = self.FIELD.format(near="ga", far="gb") + "R4 s2 gb 0.6\n"
        self.same(self.field_rig(("in.1", "out.1")), elements, "hot", "cold")

    def test_a_loop_in_a_field_with_the_screen_lifted_at_the_desk(self) -> None:
        elements = self.FIELD.format(near="ga", far="cut") + "R4 s2 cut 0.6\n"
        self.same(self.field_rig(("in.1", "")), elements, "hot", "cold")

    def test_a_lead_along_a_mains_cable(self) -> None:
        beside = {"length_m": 12, "distance_m": 0.02, "current_a": 8, "spacing_m": 0.005, "twist_db": 20}
        rig = earthed(
            [ts_source("source", 1000, class_1(0.1)), ts_input("desk", 20_000, class_1(0.1)), ts_cable(**REAL)],
            TS,
            leads(15.0, beside=beside, loop_width_m=0.3),
            venue={"earth": [{"id": "o", "name": "o", "kind": "outlet", "ohm": 0.1, "henry": 0}]},
            gear={"source": {"outlet": "o"}, "desk": {"outlet": "o"}},
        )
        # mu0/2pi x 8 A x (ln 25/20 - ln 325/320) / 10 x 12 m, times w.
        flux = 2e-7 * 8 * (math.log(25 / 20) - math.log(325 / 320)) / 10 * 12
        emf = 2 * math.pi * 50 * flux
        elements = f"""
            V1 s1 ga 0 AC {emf!r} 90
            V2 h1 hs 0 AC {emf!r} 90
            R1 ga gb 0.2
            Rg ga 0 1
            R2 ga hs 1000
            L1 s1 s2 15u
            L2 h1 h2 19.5u
            K1 L1 L2 0.8770580193070293
            R3 s2 gb 0.45
            R4 h2 hot 1.2
            R5 hot gb 20k
            C1 hs ga 0.75n
            C2 hot gb 0.75n
        """
        self.same(rig, elements, "hot", "gb")

    def test_touch_current_of_two_pin_gear(self) -> None:
        source = ts_source("source", 1000, {"earthing": {"type": "class-2", "touch_a": 2e-4}})
        rig = earthed([source, ts_input("desk", 10_000, class_1(0.1)), ts_cable(**REAL)], TS, leads(10.0))
        # C = 200 uA / (w x 115 V), fed from half of 230 V.
        elements = f"""
            V1 y 0 0 AC 115
            C1 y ga {2e-4 / (2 * math.pi * 50 * 115)!r}
            L1 ga s2 10u
            R1 s2 gb 0.3
            R2 gb 0 0.31
            R3 ga hs 1000
            L2 hs h2 13u
            K1 L1 L2 0.8770580193070293
            R4 h2 hot 0.8
            R5 hot gb 10k
            C2 hs ga 0.5n
            C3 hot gb 0.5n
        """
        self.same(rig, elements, "hot", "gb")

    def computer(self, **earthing: Any) -> dict[str, Any]:
        return ts_source("source", 100, {"earthing": {"computer_v": 0.002, "reference_to_chassis_ohm": 1, **earthing}})

    def test_computer_noise_through_a_charger(self) -> None:
        source = self.computer(type="class-1", cord_ohm=0.1, cord_h=0)
        rig = earthed(
            [source, ts_input("desk", 10_000, class_1(0.1)), ts_cable()],
            TS,
            leads(10.0),
            AT,
            outlets(here=0.0, there=0.0),
            quiet(computer_hz=[1000, 8000]),
        )
        elements = """
            V1 m ch 0 AC 2m
            R1 m ga 1
            R2 ch 0 0.2
            R3 gb 0 0.2
            R4 ga gb 0.5
            R5 ga s 100
            R6 s hot 1
            R7 hot gb 10k
        """
        for hz in (1000.0, 8000.0):
            self.same(rig, elements, "hot", "gb", hz)

    def test_computer_noise_on_battery_is_gone(self) -> None:
        source = self.computer(type="floating")
        parts = [source, ts_input("desk", 10_000, class_1(0.1)), ts_cable()]
        rig = earthed(parts, TS, leads(10.0), disturbances=quiet(computer_hz=[1000]))
        self.assertLess(hum_of(rig).likely_dbu, -150)

    def test_a_floating_pair_in_the_electric_field(self) -> None:
        """Battery devices: nothing but 50 pF each ties them to earth, and live mains reaches the screen."""
        rig = earthed(
            [
                ts_source("source", 10_000, FLOATING),
                ts_input("desk", 1e6, FLOATING),
                ts_cable(**{**REAL, "screen_ohm_per_m": 3.0}),
                ts_source("tablet", 100, FLOATING),
            ],
            TS,
            leads(10.0),
            disturbances=quiet(electric_f_per_m=1e-10),
            bonds=[{"id": "usb", "name": "USB", "kind": "usb", "a": "tablet", "b": "desk", "ohm": 0.1, "henry": 0}],
        )
        elements = """
            V1 live 0 0 AC 230
            C1 live ga 500p
            C2 live gb 500p
            Ca ga 0 50p
            Cb gb 0 100p
            L1 ga s2 10u
            R1 s2 gb 30
            R2 ga hs 10k
            L2 hs h2 13u
            K1 L1 L2 0.8770580193070293
            R3 h2 hot 0.8
            R4 hot gb 1e6
            C3 hs ga 0.5n
            C4 hot gb 0.5n
        """
        self.same(rig, elements, "hot", "gb")

    def test_an_unscreened_lead_in_the_electric_field(self) -> None:
        open_lead = ts_cable()
        open_lead["cables"][0]["conductors"][1] = {"a": "in.S", "b": "out.S", "kind": "core"}
        rig = earthed(
            [ts_source("source", 100_000, class_1(0.1)), ts_input("desk", 1e6, class_1(0.1)), open_lead],
            TS,
            leads(10.0),
            AT,
            outlets(here=0.0, there=0.0),
            quiet(electric_f_per_m=1e-12),
        )
        # 10 pF over two conductors and both ends.
        elements = """
            V1 live 0 0 AC 230
            C1 live s 2.5p
            C2 live hot 2.5p
            C3 live ga 2.5p
            C4 live gb 2.5p
            R1 ga s 100k
            R2 s hot 1
            R3 hot gb 1e6
            R4 ga gb 1
            R5 ga 0 0.2
            R6 gb 0 0.2
        """
        self.same(rig, elements, "hot", "gb")

    def test_screen_current_couples_into_the_first_core_of_a_pair(self) -> None:
        rig = earthed(
            [
                xlr_source("source", 50, class_1(0.1)),
                xlr_input("desk", 10_000, class_1(0.1)),
                xlr_cable(**{**REAL, "screen_coupling_h_per_m": 1e-9}),
            ],
            XLR,
            leads(20.0),
            AT,
            outlets(here=0.0, there={"lines": [{"h": 20, "v": 0.05}]}),
        )
        # M of screen and hot 20 uH + 10 nH, of screen and cold 20 uH - 10 nH.
        high, low = 20.01 / math.sqrt(520), 19.99 / math.sqrt(520)
        elements = f"""
            V1 e 0 0 AC 0.05
            R1 e gb 0.2
            R2 0 ga 0.2
            L1 ga s2 20u
            R3 s2 gb 0.6
            R4 ga hs 50
            R5 ga cs 50
            L2 hs h2 26u
            L3 cs c2 26u
            K1 L1 L2 {high!r}
            K2 L1 L3 {low!r}
            K3 L2 L3 0.7692307692307693
            R6 h2 hot 1.6
            R7 c2 cold 1.6
            R8 hot gb 10k
            R9 cold gb 10k
            Rd hot cold 1e9
            C1 hs cs 0.6n
            C2 hot cold 0.6n
            C3 hs ga 1n
            C4 cs ga 1n
            C5 hot gb 1n
            C6 cold gb 1n
        """
        self.same(rig, elements, "hot", "cold", 1000.0)

    def test_a_failing_supply(self) -> None:
        rig = earthed(
            [ts_source("source", 1000, FLOATING), ts_input("desk", 9000, class_1(0.1)), ts_cable(core_ohm_per_m=0)],
            TS,
            leads(10.0),
            gear={"source": {"supply_fault_v": 0.01}},
        )
        elements = "V1 s 0 0 AC 10m\nR1 s hot 1000\nR2 hot 0 9000\n"
        for hz in (50.0, 100.0):
            self.same(rig, elements, "hot", "0", hz)


if __name__ == "__main__":
    unittest.main()
