"""The quietest pure tones that good ears hear in a silent room, free field: ISO 226:2003, table 1, column T_f."""

import math
from bisect import bisect_right
from itertools import pairwise

THRESHOLD_DB_SPL: tuple[tuple[float, float], ...] = (
    (20.0, 78.5),
    (25.0, 68.7),
    (31.5, 59.5),
    (40.0, 51.1),
    (50.0, 44.0),
    (63.0, 37.5),
    (80.0, 31.5),
    (100.0, 26.5),
    (125.0, 22.1),
    (160.0, 17.9),
    (200.0, 14.4),
    (250.0, 11.4),
    (315.0, 8.6),
    (400.0, 6.2),
    (500.0, 4.4),
    (630.0, 3.0),
    (800.0, 2.2),
    (1000.0, 2.4),
    (1250.0, 3.5),
    (1600.0, 1.7),
    (2000.0, -1.3),
    (2500.0, -4.2),
    (3150.0, -6.0),
    (4000.0, -5.4),
    (5000.0, -1.5),
    (6300.0, 6.0),
    (8000.0, 12.6),
    (10000.0, 13.9),
    (12500.0, 12.3),
)
"""From memory of the table; figures between its frequencies lie on straight lines over the logarithm."""


def threshold_db_spl(frequency_hz: float) -> float:
    """Outside the table its nearest end."""
    table = THRESHOLD_DB_SPL
    at = bisect_right([hz for hz, _ in table], frequency_hz)
    if at in (0, len(table)):
        return table[min(at, len(table) - 1)][1]
    (low_hz, low_db), (high_hz, high_db) = list(pairwise(table))[at - 1]
    return low_db + (high_db - low_db) * math.log(frequency_hz / low_hz) / math.log(high_hz / low_hz)
