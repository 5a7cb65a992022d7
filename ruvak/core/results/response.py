"""Level against frequency at an input."""

import numpy as np

from ruvak.core.results.records import Response
from ruvak.core.solve.network import Complexes, Floats
from ruvak.core.units import floored_db

THIRD_OCTAVES_HZ = tuple(
    float(f)
    for f in (
        *(20, 25, 31.5, 40, 50, 63, 80, 100, 125, 160, 200, 250, 315, 400, 500, 630, 800, 1000, 1250, 1600, 2000),
        *(2500, 3150, 4000, 5000, 6300, 8000, 10000, 12500, 16000, 20000),
    )
)
"""Preferred frequencies of ISO 266, 20 Hz to 20 kHz."""

_REFERENCE = THIRD_OCTAVES_HZ.index(1000.0)


def response(of: str, gains: Complexes) -> Response:
    """`gains`: complex gain at THIRD_OCTAVES_HZ, not zero at 1 kHz; `of` names what is followed."""
    reference = abs(gains[_REFERENCE])
    level_db = np.array([floored_db(abs(gain) / reference) for gain in gains])
    return Response(
        of=of,
        frequencies_hz=THIRD_OCTAVES_HZ,
        level_db=tuple(round(float(level), 4) for level in level_db),
        low_3db_hz=_crossing(level_db[_REFERENCE::-1], np.array(THIRD_OCTAVES_HZ)[_REFERENCE::-1]),
        high_3db_hz=_crossing(level_db[_REFERENCE:], np.array(THIRD_OCTAVES_HZ)[_REFERENCE:]),
        loss_10k_db=-float(level_db[THIRD_OCTAVES_HZ.index(10_000.0)]),
        loss_20k_db=-float(level_db[THIRD_OCTAVES_HZ.index(20_000.0)]),
    )


def _crossing(level_db: Floats, frequencies_hz: Floats) -> float | None:
    """First frequency, walking outwards from 1 kHz, at which the level falls through -3 dB; log interpolation."""
    below = np.flatnonzero(level_db < -3.0)
    if len(below) == 0:
        return None
    outer, inner = int(below[0]), int(below[0]) - 1
    share = (-3.0 - level_db[inner]) / (level_db[outer] - level_db[inner])
    log_hz = np.log(frequencies_hz[inner]) + share * np.log(frequencies_hz[outer] / frequencies_hz[inner])
    return float(np.exp(log_hz))
