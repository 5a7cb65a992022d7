"""Spectra of the mains: presets relative to the fundamental, and what a meter's reading makes of them."""

import math

from ruvak.core.rig.earth import Disturbances, EarthVoltage, Preset

Harmonic = tuple[int, complex]
"""Order, and amplitude: relative, or volts rms."""


def preset(disturbances: Disturbances, name: Preset) -> list[Harmonic]:
    """(order, amplitude relative to the fundamental)."""
    return [(int(order), complex(size)) for order, size in disturbances.presets[name].lines.items() if size]


def harmonics_of(disturbances: Disturbances, voltage: EarthVoltage) -> list[Harmonic]:
    """(order, volts rms): lines as they stand; a reading is total rms, so it is divided by the root sum of squares."""
    if voltage.reading_v is None:
        return [(line.h, line.v * _phasor(line.phase_deg)) for line in voltage.lines if line.v]
    shape = preset(disturbances, voltage.spectrum)
    total = math.sqrt(sum(abs(size) ** 2 for _, size in shape))
    return [(order, size * voltage.reading_v / total) for order, size in shape if voltage.reading_v]


def _phasor(degrees: float) -> complex:
    angle = math.radians(degrees)
    return complex(math.cos(angle), math.sin(angle))
