"""Centre and sides of what arrives, with the tolerances that keep a cancellation from being perfect."""

import numpy as np

from ruvak.core.circuit.circuit import Tolerance
from ruvak.core.results.records import ChannelGain, NullReason, Residue, Sum
from ruvak.core.solve.network import Complexes
from ruvak.core.units import FLOOR_DB, floored_db, ratio_from_db

SILENT_BELOW_DB = -75.0
"""No pad or transformer loses this much on purpose; what is left is a shared contact's residue: common practice."""
LOST_BELOW_LOUDER_DB = 40.0
"""A channel this far below the other is a residue: polarity means nothing there."""


def likely_size(nominal: complex, effects: Complexes, tolerances: tuple[Tolerance, ...]) -> float:
    """Nominal and unknown parts added as powers."""
    sizes = np.abs(effects) * np.fromiter((tolerance.likely for tolerance in tolerances), np.float64, len(tolerances))
    return float(np.sqrt(abs(nominal) ** 2 + sizes @ sizes))


def worst_size(nominal: complex, effects: Complexes, tolerances: tuple[Tolerance, ...]) -> float:
    """Nominal and unknown parts added as magnitudes."""
    worst = np.fromiter((tolerance.worst for tolerance in tolerances), np.float64, len(tolerances))
    return float(abs(nominal) + np.abs(effects) @ worst)


def arrives(nominal: complex, effects: Complexes, tolerances: tuple[Tolerance, ...]) -> bool:
    """Whether more than a residue comes through: something to hear, and more than the tolerances would make."""
    residue = likely_size(0.0, effects, tolerances)
    return floored_db(abs(nominal)) > SILENT_BELOW_DB and abs(nominal) > residue


def channel_gains(
    channels: tuple[tuple[int, str], ...], nominal: Complexes, effects: Complexes, tolerances: tuple[Tolerance, ...]
) -> tuple[ChannelGain, ...]:
    """One record a channel, each (source, name). `nominal`: (channels,); `effects`: (tolerances, channels)."""
    sizes = [likely_size(complex(nominal[i]), effects[:, i], tolerances) for i in range(len(channels))]
    louder_db = max((floored_db(size) for size in sizes), default=FLOOR_DB)
    result = []
    for i, (source, name) in enumerate(channels):
        gain_db = floored_db(sizes[i])
        real = arrives(complex(nominal[i]), effects[:, i], tolerances) and gain_db > louder_db - LOST_BELOW_LOUDER_DB
        result.append(
            ChannelGain(
                source=source,
                channel=name,
                gain_db=gain_db,
                floored=gain_db <= FLOOR_DB,
                in_phase=bool(nominal[i].real > 0) if real else None,
            )
        )
    return tuple(result)


def centre_and_sides(
    nominal: Complexes, effects: Complexes, tolerances: tuple[Tolerance, ...]
) -> tuple[Sum | None, NullReason | None]:
    """For the two channels of a stereo source; None and the reason where there is nothing to compare."""
    if len(nominal) == 0:
        return None, "no_source"
    if len(nominal) != 2:
        return None, "one_channel"
    if not any(arrives(complex(nominal[i]), effects[:, i], tolerances) for i in (0, 1)):
        return None, "nothing_arrives"
    louder = float(np.max(np.abs(nominal)))
    centre, sides = complex(nominal[0] + nominal[1]), complex(nominal[0] - nominal[1])
    centre_effects, sides_effects = effects[:, 0] + effects[:, 1], effects[:, 0] - effects[:, 1]
    residues = tuple(
        Residue(
            code=tolerance.code,
            owner=tolerance.owner,
            likely_db=floored_db(abs(effect) * tolerance.likely / louder),
            worst_db=floored_db(abs(effect) * tolerance.worst / louder),
            source=tolerance.source,
        )
        for effect, tolerance in zip(centre_effects, tolerances, strict=True)
        if floored_db(abs(effect) * tolerance.worst / louder) > FLOOR_DB
    )
    ideal_db = floored_db(abs(centre) / louder)
    return (
        Sum(
            centre_db=floored_db(likely_size(centre, centre_effects, tolerances) / louder),
            centre_worst_db=floored_db(worst_size(centre, centre_effects, tolerances) / louder),
            centre_ideal_db=ideal_db,
            centre_ideal_floored=ideal_db <= FLOOR_DB,
            sides_db=floored_db(likely_size(sides, sides_effects, tolerances) / louder),
            sides_worst_db=floored_db(worst_size(sides, sides_effects, tolerances) / louder),
            residues=tuple(sorted(residues, key=lambda residue: -residue.likely_db)),
        ),
        None,
    )


def programme_gain(nominal: Complexes, effects: Complexes, tolerances: tuple[Tolerance, ...]) -> float:
    """Gain of what is common to the channels (a single channel: of it), likely size."""
    return likely_size(complex(nominal.sum()), effects.sum(axis=1), tolerances)


def peak_volts(nominal: Complexes, peaks_v: list[float]) -> float:
    """The loudest that all channels make at their peaks, magnitudes added; never below the floor of the loudest."""
    loudest = float(np.abs(nominal) @ np.array(peaks_v))
    return max(loudest, ratio_from_db(FLOOR_DB) * max(peaks_v))
