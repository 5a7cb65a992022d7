"""Voltages whose phase to each other somebody has measured: they are one cause."""

import cmath
import math
from collections.abc import Sequence
from dataclasses import replace

from ruvak.core.circuit.circuit import Cause, CauseLine

INDUCED = ("field", "mains_pair")


def join_known_phase(causes: Sequence[Cause], mains_hz: float, phase_deg: float) -> list[Cause]:
    """The causes with stated induced voltages added to the measured earth voltages, turned by a phase.

    `phase_deg` at the mains frequency; a shift in time, so harmonic h is turned h times as far. Induced voltages whose
    size is not stated stay causes of their own, since nobody can have measured a phase to them. Without measured earth
    voltages nothing changes.
    """
    measured = next((cause for cause in causes if cause.code == "earth_measured"), None)
    joined = [cause for cause in causes if cause.code in INDUCED and cause.likely == cause.worst]
    if measured is None or not joined:
        return list(causes)
    emfs: dict[float, dict[int, complex]] = {}
    for cause in (measured, *joined):
        for line in cause.lines:
            order = line.frequency_hz / mains_hz
            turn = 1.0 if cause is measured else cmath.exp(1j * math.radians(phase_deg) * order)
            at = emfs.setdefault(line.frequency_hz, {})
            for branch, volts in line.emfs:
                at[branch] = at.get(branch, 0.0) + cause.likely * turn * volts
    lines = tuple(CauseLine(hz, tuple(at.items())) for hz, at in sorted(emfs.items()))
    whole = replace(measured, likely=1.0, worst=1.0, lines=lines)
    return [whole if cause is measured else cause for cause in causes if cause not in joined]
