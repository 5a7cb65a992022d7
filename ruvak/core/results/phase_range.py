"""By how much a change of the wiring changes an input's hum, over the phase that nobody knows.

Different causes have no common phase, and a likely level adds them as powers. The change that will really be heard
depends on how they happen to stand to each other: where the two largest nearly cancel before, taking one of them away
makes it worse. So the change is given as a range over the phase between the two largest causes.
"""

import numpy as np

from ruvak.core.solve.network import Complexes, Floats
from ruvak.core.units import QUIETEST_DBU, volts_from_dbu

STEPS = 360
"""Phases tried, evenly over a full turn."""


def change_range_db(before: Complexes, after: Complexes, weights: Floats) -> tuple[float, float]:
    """Least and greatest change of one input's weighted level in dB, after over before.

    `before`, `after`: volts of each cause, (frequencies, components, causes). Components are what arrives with a known
    sign, and each tolerance's share: they add as powers, causes within a component by their phase. One phase between
    the two largest causes is taken to hold for all frequencies.
    """
    weighted = [weights[:, None, None] * volts for volts in (before, after)]
    sizes = sum(np.linalg.norm(volts, axis=(0, 1)) for volts in weighted)
    powers = [np.square(np.abs(volts)).sum() for volts in weighted]
    if len(sizes) < 2:
        least = greatest = _db(powers[1]) - _db(powers[0])
        return float(least), float(greatest)
    first, second = np.argsort(-sizes, kind="stable")[:2]
    turn = np.exp(2j * np.pi * np.arange(STEPS) / STEPS)
    levels_db = [
        _db(power + 2.0 * np.real(np.vdot(volts[:, :, first], volts[:, :, second]) * turn))
        for power, volts in zip(powers, weighted, strict=True)
    ]
    change = levels_db[1] - levels_db[0]
    return float(change.min()), float(change.max())


def _db(power: Floats) -> Floats:
    values: Floats = 10.0 * np.log10(np.maximum(power, volts_from_dbu(QUIETEST_DBU) ** 2))
    return values
