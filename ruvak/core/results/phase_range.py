"""By how much a change of the wiring changes an input's hum, over the phase that nobody knows.

Different causes have no common phase, and a likely level adds them as powers. The change that will really be heard
depends on how they happen to stand to each other: where the two largest nearly cancel before, taking one of them away
makes it worse. So the change is given as a range over the phase between the two largest causes. One phase between them
is taken to hold for all frequencies.
"""

import numpy as np

from ruvak.core.results.input_hum import InputHum
from ruvak.core.solve.network import Floats, Ints
from ruvak.core.units import QUIETEST_DBU, volts_from_dbu

STEPS = 360
"""Phases tried, evenly over a full turn."""


def change_ranges_db(before: InputHum, inputs: Ints, after: InputHum, inputs_after: Ints) -> Floats:
    """(n, 2): least and greatest change of A-weighted likely level in dB, from an input of `before` to the input of
    `after` beside it."""
    powers = np.stack([before.powers[inputs], after.powers[inputs_after]])
    whole = powers.sum(axis=2)
    if powers.shape[2] < 2:
        change = np.diff(_db(whole), axis=0)[0]
        return np.stack([change, change], axis=1)
    order = np.argsort(-np.sqrt(powers).sum(axis=0), axis=1, kind="stable")
    first, second = order[:, 0], order[:, 1]
    cross = np.stack([before.cross_powers(inputs, first, second), after.cross_powers(inputs_after, first, second)])
    turn = np.exp(2j * np.pi * np.arange(STEPS) / STEPS)
    levels_db = _db(whole[:, :, None] + 2.0 * np.real(cross[:, :, None] * turn))
    change = levels_db[1] - levels_db[0]
    return np.stack([change.min(axis=1), change.max(axis=1)], axis=1)


def _db(power: Floats) -> Floats:
    values: Floats = 10.0 * np.log10(np.maximum(power, volts_from_dbu(QUIETEST_DBU) ** 2))
    return values
