"""Levels, ratios and lengths.

0 dBu is the voltage that puts 1 mW into 600 ohm, sqrt(0.6) V; 0 dBV is 1 V.
Source: IEC 60268-2 / AES2id usage; the same references stand in ITU-R BS.645.
"""

import math

DBU_REFERENCE_V = math.sqrt(0.6)
FLOOR_DB = -130.0
"""Ratios at or below this are reported as this figure and flagged: no analogue path is cleaner."""
QUIETEST_DBU = -200.0
"""Volts below this (0.1 nV) are not told apart; what is quieter is reported as this figure."""

METRES_PER_FOOT = 0.3048
METRES_PER_UNIT = {"m": 1.0, "ft": METRES_PER_FOOT}
"""By the unit that a rig states lengths in."""


def ratio_db(ratio: float) -> float:
    """Amplitude ratio (no unit, > 0) in dB: 20 log10 of it."""
    return 20.0 * math.log10(ratio)


def ratio_from_db(level_db: float) -> float:
    """Amplitude ratio of a level difference in dB."""
    return float(10.0 ** (level_db / 20.0))


def floored_db(ratio: float) -> float:
    """Amplitude ratio in dB, never below FLOOR_DB, so that zero is a figure and not infinity."""
    if ratio <= ratio_from_db(FLOOR_DB):
        return FLOOR_DB
    return ratio_db(ratio)


def dbu_from_volts(volts: float) -> float:
    """Rms volts (> 0) as a level in dBu."""
    return ratio_db(volts / DBU_REFERENCE_V)


def volts_from_dbu(level_dbu: float) -> float:
    """A level in dBu as rms volts."""
    return DBU_REFERENCE_V * ratio_from_db(level_dbu)


def dbu_from_dbv(level_dbv: float) -> float:
    """A level in dBV as dBu; the two scales lie 2.218 dB apart."""
    return level_dbv + ratio_db(1.0 / DBU_REFERENCE_V)


def engineering(value: float, unit: str) -> str:
    """A positive value with a prefix that keeps it between 1 and 1000: 1000, "ohm" gives "1 kohm"."""
    prefixes = {-12: "p", -9: "n", -6: "\N{MICRO SIGN}", -3: "m", 0: "", 3: "k", 6: "M", 9: "G"}
    exponent = min(9, max(-12, 3 * math.floor(math.log10(value) / 3.0 + 1e-9)))
    return f"{value / 10.0**exponent:.3g} {prefixes[exponent]}{unit}"


def say_dbu(level_dbu: float, decimals: int) -> str:
    """A level with its sign and unit, as it is read."""
    sign = "\N{MINUS SIGN}" if level_dbu < 0 else "+"
    return f"{sign}{abs(level_dbu):.{decimals}f} dBu"
