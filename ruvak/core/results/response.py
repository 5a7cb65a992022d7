"""Level against frequency at an input."""

import math

import numpy as np
from scipy.interpolate import PchipInterpolator

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

HALF_POWER_DB = -10.0 * math.log10(2.0)

_REFERENCE = THIRD_OCTAVES_HZ.index(1000.0)


def response(of: str, gains: Complexes) -> Response:
    """`gains`: complex gain at THIRD_OCTAVES_HZ, not zero at 1 kHz; `of` names what is followed."""
    reference = abs(gains[_REFERENCE])
    level_db = np.array([floored_db(abs(gain) / reference) for gain in gains])
    low_hz, high_hz = _crossings(level_db)
    return Response(
        of=of,
        frequencies_hz=THIRD_OCTAVES_HZ,
        level_db=tuple(round(float(level), 4) for level in level_db),
        low_3db_hz=low_hz,
        high_3db_hz=high_hz,
        loss_10k_db=-float(level_db[THIRD_OCTAVES_HZ.index(10_000.0)]),
        loss_20k_db=-float(level_db[THIRD_OCTAVES_HZ.index(20_000.0)]),
    )


def _crossings(level_db: Floats) -> tuple[float | None, float | None]:
    """Half-power frequencies below and above 1 kHz, nearest first; monotone cubic through the solved points."""
    curve = PchipInterpolator(np.log(THIRD_OCTAVES_HZ), level_db)
    roots = np.exp(curve.solve(HALF_POWER_DB, discontinuity=False, extrapolate=False))
    below, above = roots[roots < 1000.0], roots[roots > 1000.0]
    return (float(below[-1]) if len(below) else None), (float(above[0]) if len(above) else None)
