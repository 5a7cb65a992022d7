"""Flux through the loop that a conductor closes with the straight lines from the main bar to both its ends.

Counted so, every loop of the network gets the flux through it whatever its parts are, for the straight lines cancel;
and moving or turning the whole plan, bar included, changes nothing.
"""

import math
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from ruvak.core.rig.earth import Position

Path = tuple[Position, ...]

MU0_OVER_4PI = 1e-7
"""H/m (CODATA 2018: exact to 1e-9)."""
PANEL_M = 0.25
"""Straight pieces are integrated in panels at most this long, six points each."""
_NODES, _WEIGHTS = np.polynomial.legendre.leggauss(6)


def loop_area_m2(bar: Position, path: Path) -> float:
    """Signed area between the path and the bar, seen from above, anticlockwise positive: half the cross products."""
    return 0.5 * sum(
        (a.x_m - bar.x_m) * (b.y_m - bar.y_m) - (b.x_m - bar.x_m) * (a.y_m - bar.y_m) for a, b in pairwise(path)
    )


def pair_flux_wb(bar: Position, path: Path, mains: Path, spacing_m: float) -> float:
    """Per ampere in two conductors `spacing_m` apart, there and back, lying on either side of `mains`."""
    sides = [_shift(mains, 0.5 * sign * spacing_m) for sign in (1.0, -1.0)]
    return sum(sign * _flux_wb(bar, path, side, spacing_m) for sign, side in zip((1.0, -1.0), sides, strict=True))


def wire_flux_wb(bar: Position, path: Path, mains: Path, nearest_m: float) -> float:
    """Per ampere along `mains` that returns elsewhere; never nearer than `nearest_m`."""
    wire = [(np.array([a.x_m, a.y_m]), np.array([b.x_m, b.y_m])) for a, b in pairwise(mains)]
    return _flux_wb(bar, path, wire, nearest_m)


_Wire = list[tuple[NDArray[np.float64], NDArray[np.float64]]]


def _shift(mains: Path, aside_m: float) -> _Wire:
    """The wire beside its middle line."""
    result: _Wire = []
    for a, b in pairwise(mains):
        along = np.array([b.x_m - a.x_m, b.y_m - a.y_m])
        length = float(np.hypot(*along))
        if length:
            aside = aside_m * np.array([-along[1], along[0]]) / length
            result.append((np.array([a.x_m, a.y_m]) + aside, np.array([b.x_m, b.y_m]) + aside))
    return result


def _flux_wb(bar: Position, path: Path, wire: _Wire, nearest_m: float) -> float:
    """The vector potential along the path, back to the bar and out again."""
    loop = [np.array([entry.x_m, entry.y_m]) for entry in (bar, *path, bar)]
    return sum(_along(a, b, wire, nearest_m) for a, b in pairwise(loop))


def _along(a: NDArray[np.float64], b: NDArray[np.float64], wire: _Wire, nearest_m: float) -> float:
    """Integral of the vector potential along a straight piece, per ampere.

    A straight wire's potential lies along it: (mu0 I / 4 pi)(asinh(s / d) + asinh((l - s) / d)), s being how far along
    the wire the point is, d how far from it (Biot and Savart, integrated; any textbook of electromagnetism).
    """
    step, length = b - a, float(np.hypot(*(b - a)))
    if not length:
        return 0.0
    count = max(1, math.ceil(length / PANEL_M))
    starts = (np.arange(count)[:, None] + 0.5 * (_NODES[None, :] + 1.0)) / count
    points = a + starts.reshape(-1, 1) * step
    weights = np.tile(0.5 * _WEIGHTS / count, count)
    total = 0.0
    for start, end in wire:
        direction = (end - start) / float(np.hypot(*(end - start)))
        s = (points - start) @ direction
        rest = float(np.hypot(*(end - start))) - s
        away = points - start - s[:, None] * direction
        d = np.maximum(np.hypot(away[:, 0], away[:, 1]), nearest_m)
        potential = MU0_OVER_4PI * (np.arcsinh(s / d) + np.arcsinh(rest / d))
        total += float(weights @ potential) * float(step @ direction)
    return total
