"""Level against frequency at an input, and where it has fallen by half its power."""

import math
from functools import lru_cache

import numpy as np
from scipy.interpolate import CubicSpline

from ruvak.core.results.records import Response
from ruvak.core.solve.network import Bools, Complexes, Floats
from ruvak.core.units import FLOOR_DB, ratio_from_db

THIRD_OCTAVES_HZ = tuple(
    float(f)
    for f in (
        *(20, 25, 31.5, 40, 50, 63, 80, 100, 125, 160, 200, 250, 315, 400, 500, 630, 800, 1000, 1250, 1600, 2000),
        *(2500, 3150, 4000, 5000, 6300, 8000, 10000, 12500, 16000, 20000),
    )
)
"""Preferred frequencies of ISO 266, 20 Hz to 20 kHz."""

BELOW_HZ, ABOVE_HZ = (1.0, 2.0, 5.0, 10.0), (31_500.0, 50_000.0, 80_000.0, 125_000.0, 200_000.0)
"""Where else a response is solved, so that a corner outside the audible range has a figure as well."""
FULL_SWEEP_HZ = (*BELOW_HZ, *THIRD_OCTAVES_HZ, *ABOVE_HZ)

HALF_POWER_DB = -10.0 * math.log10(2.0)
BARELY_DB = -0.1
"""Above this a level says nothing about how steeply it falls."""

DENSE = 1.5
"""Neighbouring frequencies nearer than this ratio are dense enough for a spline through the levels."""

COARSE_HZ = (20.0, 40.0, 100.0, 1000.0, 10_000.0, 20_000.0)
"""Enough to tell dull and thin from whole when many wirings are compared."""


def response(
    of: str, gains: Complexes, frequencies_hz: tuple[float, ...] = FULL_SWEEP_HZ, own: Complexes | None = None
) -> Response:
    """`gains`: complex gain at the frequencies (1, 10 and 20 kHz among them), not zero at 1 kHz; `of` names what is
    followed. `own`: the source's gain by itself; losses and corners are then what the run adds to it."""
    hertz = np.array(frequencies_hz)
    level_db = _relative_db(gains, frequencies_hz)
    own_db = None if own is None else _relative_db(own, frequencies_hz)
    changed_db = level_db if own_db is None else level_db - own_db
    heard = (hertz >= THIRD_OCTAVES_HZ[0]) & (hertz <= THIRD_OCTAVES_HZ[-1])
    passband_db, first, last = _passband(changed_db, hertz, heard)
    at_1k, below_db = frequencies_hz.index(1000.0), changed_db - passband_db
    return Response(
        of=of,
        frequencies_hz=tuple(hertz[heard].tolist()),
        level_db=tuple(round(level, 4) for level in level_db[heard].tolist()),
        own_db=None if own_db is None else tuple(round(level, 4) for level in own_db[heard].tolist()),
        low_3db_hz=corner_hz(below_db, hertz, at_1k, -1, HALF_POWER_DB - passband_db),
        high_3db_hz=corner_hz(below_db, hertz, at_1k, 1, HALF_POWER_DB - passband_db),
        passband_db=passband_db,
        passband_low_hz=corner_hz(below_db, hertz, first, -1),
        passband_high_hz=corner_hz(below_db, hertz, last, 1),
        loss_10k_db=-float(changed_db[frequencies_hz.index(10_000.0)]),
        loss_20k_db=-float(changed_db[frequencies_hz.index(20_000.0)]),
    )


def _relative_db(gains: Complexes, frequencies_hz: tuple[float, ...]) -> Floats:
    ratios = np.abs(gains) / abs(gains[frequencies_hz.index(1000.0)])
    values: Floats = 20.0 * np.log10(np.maximum(ratios, ratio_from_db(FLOOR_DB)))
    return values


def _passband(level_db: Floats, hertz: Floats, heard: Bools) -> tuple[float, int, int]:
    """Mean level of the loudest octave of the audible range (by the least in it), and the places of that octave's ends.

    A resonance narrower than an octave is no passband. Of octaves that are equal within rounding, that nearest 1 kHz.
    """
    octaves = _octaves(tuple(hertz[heard].tolist()))
    skipped = int(np.argmax(heard))
    least_db = np.array([level_db[skipped + first : skipped + last + 1].min() for first, last, _ in octaves]).round(6)
    best = max(range(len(octaves)), key=lambda number: (least_db[number], octaves[number][2]))
    first, last = skipped + octaves[best][0], skipped + octaves[best][1]
    powers = 10.0 ** (level_db[first : last + 1] / 10.0)
    return 10.0 * math.log10(float(powers.mean())), first, last


@lru_cache(maxsize=8)
def _octaves(hertz: tuple[float, ...]) -> tuple[tuple[int, int, float], ...]:
    """First and last place of each octave among these frequencies, and how near its middle is to 1 kHz, nearest 0."""
    result = []
    for first, low_hz in enumerate(hertz):
        last = next((place for place, high_hz in enumerate(hertz) if high_hz >= 1.98 * low_hz), None)
        if last is not None:
            result.append((first, last, -abs(math.log(math.sqrt(low_hz * hertz[last]) / 1000.0))))
    return tuple(result)


def corner_hz(level_db: Floats, hertz: Floats, start: int, step: int, wanted_db: float = HALF_POWER_DB) -> float | None:
    """Where the level first falls to `wanted_db`, from `start` downwards (step -1) or upwards; None: not in the sweep.

    `level_db` is relative to the passband. Where the frequencies lie dense, a cubic spline goes through the levels.
    Where they lie an octave apart, outside the audible range, ln(10^(-L/10) - 1) is taken as linear in ln f, which it
    is exactly for any Butterworth slope, a first-order one included.
    """
    inside = start
    while level_db[inside] > wanted_db:
        inside += step
        if not 0 <= inside < len(hertz):
            return None
    if inside == start:
        return None
    pair = sorted((inside - step, inside))
    dense = hertz[pair[1]] < DENSE * hertz[pair[0]]
    if not dense and max(level_db[pair]) < BARELY_DB and wanted_db < BARELY_DB:
        before, after, wanted = (
            math.log(10.0 ** (-level / 10.0) - 1.0) for level in (level_db[inside - step], level_db[inside], wanted_db)
        )
        share = (wanted - before) / (after - before)
        return float(hertz[inside - step] * (hertz[inside] / hertz[inside - step]) ** share)
    around = slice(max(0, pair[0] - 3), pair[1] + 4)
    curve = CubicSpline(np.log(hertz[around]), level_db[around])
    roots = np.exp(curve.solve(wanted_db, discontinuity=False, extrapolate=False))
    between = roots[(roots >= hertz[pair[0]] * (1 - 1e-9)) & (roots <= hertz[pair[1]] * (1 + 1e-9))]
    # A level that is met exactly at a frequency solved need not count as a crossing.
    return float(between[0 if step > 0 else -1]) if len(between) else float(hertz[inside])
