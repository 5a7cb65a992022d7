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

COARSE_HZ = (20.0, 40.0, 100.0, 1000.0, 10_000.0, 20_000.0)
"""Enough to tell dull and thin from whole when many wirings are compared."""


def response(
    of: str, gains: Complexes, frequencies_hz: tuple[float, ...] = THIRD_OCTAVES_HZ, own: Complexes | None = None
) -> Response:
    """`gains`: complex gain at the frequencies (1, 10 and 20 kHz among them), not zero at 1 kHz; `of` names what is
    followed. `own`: the source's gain by itself; losses and corners are then what the run adds to it."""
    level_db = _relative_db(gains, frequencies_hz)
    changed_db = level_db if own is None else level_db - _relative_db(own, frequencies_hz)
    low_hz, high_hz = _crossings(changed_db, frequencies_hz)
    return Response(
        of=of,
        frequencies_hz=frequencies_hz,
        level_db=tuple(round(float(level), 4) for level in level_db),
        own_db=None if own is None else tuple(round(float(x), 4) for x in _relative_db(own, frequencies_hz)),
        low_3db_hz=low_hz,
        high_3db_hz=high_hz,
        loss_10k_db=-float(changed_db[frequencies_hz.index(10_000.0)]),
        loss_20k_db=-float(changed_db[frequencies_hz.index(20_000.0)]),
    )


def _relative_db(gains: Complexes, frequencies_hz: tuple[float, ...]) -> Floats:
    reference = abs(gains[frequencies_hz.index(1000.0)])
    return np.array([floored_db(abs(gain) / reference) for gain in gains])


def _crossings(level_db: Floats, frequencies_hz: tuple[float, ...]) -> tuple[float | None, float | None]:
    """Half-power frequencies below and above 1 kHz, nearest first; monotone cubic through the solved points."""
    if level_db.min() > HALF_POWER_DB:
        return None, None
    curve = PchipInterpolator(np.log(frequencies_hz), level_db)
    roots = np.exp(curve.solve(HALF_POWER_DB, discontinuity=False, extrapolate=False))
    below, above = roots[roots < 1000.0], roots[roots > 1000.0]
    return (float(below[-1]) if len(below) else None), (float(above[0]) if len(above) else None)
