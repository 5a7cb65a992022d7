"""One pi section a lead against the exact line, as the network library scikit-rf solves it (general-purpose reference).

Reflection at a wrong ending: (Z - Z0) / (Z + Z0), any textbook of lines.
"""

import unittest

import numpy as np
import skrf
from skrf.media import DistributedCircuit

from ruvak.core.analyse import analyse
from ruvak.core.results.response import THIRD_OCTAVES_HZ
from tests.support.earths import Doc, class_1, earthed, outlets, ts_cable, ts_input, ts_source

PER_M: Doc = {"core_ohm_per_m": 0.08, "screen_ohm_per_m": 0.02, "core_to_screen_f_per_m": 1e-10, "pair_h_per_m": 1.2e-6}
HERTZ = np.array(THIRD_OCTAVES_HZ)


def exact(length_m: float, source_ohm: float, load_ohm: float) -> np.ndarray:
    """Gain from emf to load through the line: core out, screen back, so half the pair's inductance is the loop's."""
    media = DistributedCircuit(
        skrf.Frequency.from_f(HERTZ, unit="hz"),
        R=np.full(len(HERTZ), PER_M["core_ohm_per_m"] + PER_M["screen_ohm_per_m"]),
        L=np.full(len(HERTZ), 0.5 * PER_M["pair_h_per_m"]),
        C=np.full(len(HERTZ), PER_M["core_to_screen_f_per_m"]),
        G=np.zeros(len(HERTZ)),
    )
    a = media.line(length_m, unit="m", z0=media.z0).a
    found: np.ndarray = 1.0 / (a[:, 0, 0] + a[:, 0, 1] / load_ohm + source_ohm * (a[:, 1, 0] + a[:, 1, 1] / load_ohm))
    return found


def ours(length_m: float, source_ohm: float, load_ohm: float) -> np.ndarray:
    """Response against 1 kHz, in dB."""
    floating: Doc = {"earthing": {"type": "floating"}}
    rig = earthed(
        [ts_source("source", source_ohm, floating), ts_input("desk", load_ohm, class_1(0.1)), ts_cable(**PER_M)],
        [[("source.out1", "lead1.in"), ("lead1.out", "desk.in1")]],
        {"lead1": {"part": "lead", "length_m": length_m}},
        {"desk": "here"},
        outlets(here=0.0),
    )
    response = analyse(rig).runs[0].result.inputs[0].response
    assert response is not None
    return np.array(response.level_db)


class Lines(unittest.TestCase):
    def against(self, length_m: float, source_ohm: float, load_ohm: float, within_db: float) -> None:
        gains = 20 * np.log10(np.abs(exact(length_m, source_ohm, load_ohm)))
        worst = np.max(np.abs(ours(length_m, source_ohm, load_ohm) - (gains - gains[THIRD_OCTAVES_HZ.index(1000.0)])))
        self.assertLess(worst, within_db, f"{length_m} m, {source_ohm} ohm into {load_ohm} ohm")

    def test_one_section_follows_the_exact_line_where_it_is_meant_to(self) -> None:
        for source_ohm in (50.0, 200.0, 1000.0):
            self.against(20.0, source_ohm, 10_000.0, 0.001)
            self.against(100.0, source_ohm, 10_000.0, 0.01)
            self.against(200.0, source_ohm, 10_000.0, 0.05)

    def test_a_lead_from_a_low_impedance_does_not_go_dull(self) -> None:
        # Common practice: 1 kohm, 18 m, 100 pF a metre lose 0.2 dB at 20 kHz.
        self.assertAlmostEqual(-float(ours(18.0, 1000.0, 1e6)[-1]), 0.2, delta=0.05)
