"""Situations as netlists written by hand from the physics, solved by ngspice, against the rig's own result.

Nothing here comes from the exporter: the elements stand in the text as a textbook would draw them.
"""

import math
import unittest

from ruvak.core.analyse import analyse
from ruvak.core.rig.rig import Rig
from tests.support.earths import (
    class_1,
    earthed,
    ts_cable,
    ts_input,
    ts_source,
    xlr_cable,
    xlr_input,
    xlr_source,
)
from tests.support.one_lead import FLOATING, REAL, TS, XLR, leads
from tests.support.spice import by_hand


class ProgrammeByHand(unittest.TestCase):
    """Levels and response of the same network."""

    def gain_db(self, rig: Rig, hz: float) -> float:
        response = analyse(rig).runs[0].result.inputs[0].response
        assert response is not None
        at_1k = analyse(rig).runs[0].result.inputs[0].channels[0].gain_db
        nearest = min(range(len(response.frequencies_hz)), key=lambda i: abs(response.frequencies_hz[i] - hz))
        self.assertAlmostEqual(response.frequencies_hz[nearest], hz, delta=hz * 1e-6)
        return at_1k + response.level_db[nearest]

    def test_a_long_microphone_lead(self) -> None:
        rig = earthed(
            [
                xlr_source("source", 100, FLOATING),
                xlr_input("desk", 1e9, class_1(0.1), z_differential_ohm=1500),
                xlr_cable(**REAL),
            ],
            XLR,
            leads(150.0),
        )
        elements = """
            V1 p 0 0 AC 0.5
            V2 0 m 0 AC 0.5
            R1 p hs 100
            R2 m cs 100
            L2 hs h2 195u
            L3 cs c2 195u
            K3 L2 L3 0.7692307692307693
            R6 h2 hot 12
            R7 c2 cold 12
            R8 hot cold 1500
            C1 hs cs 4.5n
            C2 hot cold 4.5n
            C3 hs 0 7.5n
            C4 cs 0 7.5n
            C5 hot 0 7.5n
            C6 cold 0 7.5n
            Rr hot 0 1e9
        """
        for hz in (1000.0, 10_000.0, 20_000.0):
            got = by_hand(elements, hz)
            expected = 20 * math.log10(abs(got["v(hot)"] - got["v(cold)"]))
            self.assertAlmostEqual(self.gain_db(rig, hz), expected, delta=0.01, msg=str(hz))

    def test_a_passive_y_of_two_outputs(self) -> None:
        y_box = {
            "id": "y",
            "name": "y",
            "kind": "box",
            "connectors": [
                *({"id": x, "label": x, "form": "ts635-plug", "side": "in"} for x in "ab"),
                {"id": "out", "label": "out", "form": "ts635-plug", "side": "out"},
            ],
            "wires": [{"a": f"{x}.{c}", "b": f"out.{c}"} for x in "ab" for c in "TS"],
        }
        rig = earthed(
            [
                ts_source("one", 150, FLOATING),
                ts_source("two", 330, FLOATING),
                y_box,
                ts_input("desk", 10_000, class_1(0.1)),
            ],
            [[("one.out1", "box.a"), ("two.out1", "box.b"), ("box.out", "desk.in1")]],
            {"box": {"part": "y"}},
        )
        channels = analyse(rig).runs[0].result.inputs[0].channels
        for number, (first, second) in enumerate(((1, 0), (0, 1))):
            elements = f"V1 a 0 0 AC {first}\nV2 b 0 0 AC {second}\nR1 a hot 150\nR2 b hot 330\nR3 hot 0 10k\n"
            expected = 20 * math.log10(abs(by_hand(elements, 1000.0)["v(hot)"]))
            self.assertAlmostEqual(channels[number].gain_db, expected, delta=0.01)

    def test_a_pickup_and_its_lead_resonate(self) -> None:
        pickup = ts_source("source", 0, FLOATING)
        pickup["outputs"][0]["channels"] = [{"id": "1", "hot": "out1.T", "inner": "emf"}]
        pickup["elements"] = [
            {"type": "inductor", "a": "emf", "b": "coil", "henry": 4, "ohm": 8000},
            {"type": "capacitor", "a": "coil", "b": "g", "farad": 1e-10},
            {"type": "resistor", "a": "coil", "b": "g", "ohm": 250_000},
            {"type": "resistor", "a": "coil", "b": "out1.T", "ohm": 1},
        ]
        rig = earthed([pickup, ts_input("desk", 1e6, class_1(0.1)), ts_cable(**REAL)], TS, leads(6.0))
        elements = """
            V1 e 0 0 AC 1
            L1 e x 4
            R1 x coil 8000
            C1 coil 0 100p
            R2 coil 0 250k
            R3 coil s 1
            C2 s 0 300p
            C3 hot 0 300p
            L2 s y 7.8u
            R4 y hot 0.48
            R5 hot 0 1e6
        """
        for hz in (250.0, 2000.0, 4000.0, 10_000.0):
            expected = 20 * math.log10(abs(by_hand(elements, hz)["v(hot)"]))
            self.assertAlmostEqual(self.gain_db(rig, hz), expected, delta=0.01, msg=str(hz))


if __name__ == "__main__":
    unittest.main()
