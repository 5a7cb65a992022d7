"""How long a level may be listened to.

NIOSH, Criteria for a recommended standard: occupational noise exposure, publication 98-126 (1998): 85 dBA for eight
hours and half the time for every 3 dB more.
"""

CRITERION_DBA, CRITERION_H, EXCHANGE_DB = 85.0, 8.0, 3.0
LONGEST_H = 24.0


def longest_h(level_dba: float) -> float:
    """Hours in a day at an A-weighted level, in dB re 20 micropascals, of at most a day."""
    times = 2.0 ** ((CRITERION_DBA - level_dba) / EXCHANGE_DB)
    return min(LONGEST_H, CRITERION_H * float(times))


def exposure_words(level_dba: float) -> str:
    """As somebody says it: 96 dBA: 38 min."""
    hours = longest_h(level_dba)
    if hours >= LONGEST_H:
        return f"{level_dba:.0f} dBA: all day"
    return f"{level_dba:.0f} dBA: {hours:.0f} h" if hours >= 2.0 else f"{level_dba:.0f} dBA: {hours * 60.0:.0f} min"
