"""The noise under a programme: the input's own, and what the resistances it looks at make by their warmth."""

import math

import numpy as np

from ruvak.core.results.records import Noise
from ruvak.core.solve.network import Complexes, Floats
from ruvak.core.units import dbu_from_volts, volts_from_dbu

BOLTZMANN_J_PER_K = 1.380649e-23
"""Exact by definition (SI, 2019)."""
ZERO_C_IN_K = 273.15


def noise(
    ohm: Complexes, frequencies_hz: Floats, temperature_c: float, receiver_dbu: float, programme_dbu: float | None
) -> Noise:
    """`ohm`: between the input's contacts, everything joined, at frequencies that span the audio band.

    4 k T Re Z, added up over the band (Nyquist, Physical Review 32, 1928): 150 ohm at 20 C give -131.0 dBu in 20 kHz.
    """
    density = 4.0 * BOLTZMANN_J_PER_K * (temperature_c + ZERO_C_IN_K) * np.maximum(ohm.real, 0.0)
    order = np.argsort(frequencies_hz)
    thermal_v = math.sqrt(float(np.trapezoid(density[order], frequencies_hz[order])))
    total_dbu = dbu_from_volts(math.hypot(thermal_v, volts_from_dbu(receiver_dbu)))
    return Noise(
        receiver_dbu=receiver_dbu,
        thermal_dbu=dbu_from_volts(thermal_v) if thermal_v > 0.0 else None,
        total_dbu=total_dbu,
        below_programme_db=programme_dbu - total_dbu if programme_dbu is not None else None,
    )
