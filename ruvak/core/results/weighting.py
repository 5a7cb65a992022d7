"""Frequency weighting A (IEC 61672-1:2013, annex E): how loud a steady tone is at a low level, in dB re 1 kHz."""

import math

_POLES_HZ = (20.598997, 107.65265, 737.86223, 12194.217)


def a_weighting_db(frequency_hz: float) -> float:
    """0 at 1 kHz; -30.3 at 50 Hz."""
    return 20.0 * math.log10(_response(frequency_hz) / _response(1000.0))


def _response(frequency_hz: float) -> float:
    low, second, third, high = (pole**2 for pole in _POLES_HZ)
    square = frequency_hz**2
    return high * square**2 / ((square + low) * math.sqrt((square + second) * (square + third)) * (square + high))
