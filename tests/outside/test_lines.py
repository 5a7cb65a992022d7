"""Leads of one or several pi sections against the exact line, as scikit-rf solves it (general-purpose reference).

Reflection at a wrong ending: (Z - Z0) / (Z + Z0), any textbook of lines.
"""

import unittest

import numpy as np
import skrf
from skrf.media import DistributedCircuit

from ruvak.core.analyse import analyse
from ruvak.core.results.response import THIRD_OCTAVES_HZ
from tests.support.data_lines import lit
from tests.support.earths import Doc, class_1, earthed, outlets, ts_cable, ts_input, ts_source
from tests.support.wirings import situation

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

    def test_a_long_lead_is_cut_into_sections_and_follows_the_exact_line_up_to_a_kilometre(self) -> None:
        for source_ohm in (10.0, 50.0, 200.0, 1000.0, 10_000.0):
            for load_ohm in (600.0, 10_000.0, 1e6):
                for length_m in (101.0, 200.0, 500.0, 1000.0):
                    self.against(length_m, source_ohm, load_ohm, 0.02)

    def test_a_lead_from_a_low_impedance_does_not_go_dull(self) -> None:
        # Common practice: 1 kohm, 18 m, 100 pF a metre lose 0.2 dB at 20 kHz.
        self.assertAlmostEqual(-float(ours(18.0, 1000.0, 1e6)[-1]), 0.2, delta=0.05)


class Data(unittest.TestCase):
    """What comes back of an edge, against scikit-rf's own reflection."""

    def reflected(self, wave_ohm: float, ohm: float) -> float:
        return 100.0 * float(np.abs(skrf.tlineFunctions.zl_2_Gamma0(wave_ohm, ohm)).squeeze())

    def test_a_lead_of_another_impedance_and_a_line_that_nothing_ends(self) -> None:
        line = analyse(lit("mic-lead", ended=0)).runs[0].result.data
        assert line is not None
        self.assertAlmostEqual(line.leads[0].reflected_percent, self.reflected(120.0, line.leads[0].ohm), places=9)
        # One EIA-485 unit load of 12 kohm, and 20 kohm from each leg to the reference.
        self.assertAlmostEqual(line.end_ohm, 1 / (1 / 12_000 + 1 / 40_000), delta=50.0)
        self.assertAlmostEqual(line.end_reflected_percent, self.reflected(120.0, line.end_ohm), places=9)

    def test_an_ended_line_sends_nothing_back_to_speak_of(self) -> None:
        line = analyse(lit("lead-lighting", length_m=250)).runs[0].result.data
        assert line is not None
        self.assertLess(line.end_reflected_percent, 2.0)

    def test_digital_audio_is_ended_by_its_receiver_on_either_plug(self) -> None:
        # AES3 and IEC 60958-3: 110 ohm on XLR, 75 ohm on RCA.
        for plug, wave_ohm in (("xlr", 110.0), ("rca", 75.0)):
            rig = situation(
                ["player-digital", f"lead-digital-{plug}", "converter-digital"],
                [
                    (f"player-digital.{plug}", f"lead-digital-{plug}.in"),
                    (f"lead-digital-{plug}.out", f"converter-digital.{plug}"),
                ],
                {f"lead-digital-{plug}": 5.0},
            )
            run = analyse(rig).runs[0]
            assert run.result.data is not None
            self.assertEqual((run.result.data.wave_ohm, run.findings[0].code), (wave_ohm, "data_clear"), plug)
            self.assertLess(run.result.data.end_reflected_percent, 2.0)
