"""What every cause leaves at many inputs at once, in the components that add up to its level.

The first component is what arrives with a known sign; each tolerance's share is another. Components add as powers, and
so do different causes, whose phase to each other nobody knows.
"""

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ruvak.core.results.sensitivities import Sensitivities
from ruvak.core.solve.network import Complexes, Floats, Ints


@dataclass(frozen=True)
class Sizes:
    """Of the causes, (causes,), likely and worst; of the tones by A-weighting, (frequencies,)."""

    likely: Floats
    worst: Floats
    weights: Floats


@dataclass(frozen=True)
class InputHum:
    """At every input of `effects`, per unit of each cause."""

    effects: Sensitivities
    nominal: Complexes
    """(frequencies, inputs, causes): with its sign."""
    per_unit: Complexes
    """(frequencies, tolerances, causes): what a unit of each tolerance adds; tolerances in the order of `effects`."""
    sizes: Sizes

    def weighted_v(self) -> Floats:
        """(2, inputs): A-weighted hum, likely and worst."""
        return np.stack([np.sqrt(self.powers.sum(axis=1)), self.worst_v()])

    @cached_property
    def powers(self) -> Floats:
        """(inputs, causes): A-weighted likely volts squared, over all frequencies."""
        square = np.square(self.sizes.weights)
        known = np.tensordot(square, np.square(self._volts[0]), axes=1)
        uncertain = np.tensordot(square, np.square(self._volts[1]), axes=1) * np.square(self.effects.likely)[:, None]
        values: Floats = (known + self.effects.sum_tolerances(uncertain[None])[0]) * np.square(self.sizes.likely)
        return values

    @cached_property
    def _volts(self) -> tuple[Floats, Floats]:
        """Magnitudes of what is nominal, and of what each tolerance adds."""
        # numpy takes a magnitude in less time than the sum of two squares.
        return np.abs(self.nominal), np.abs(self.per_unit)

    def worst_v(self) -> Floats:
        """(inputs,): A-weighted worst volts, causes and tolerances as sizes, frequencies as powers."""
        known, uncertain = (volts @ self.sizes.worst for volts in self._volts)
        uncertain *= self.effects.worst
        each = known + self.effects.sum_tolerances(uncertain[:, :, None])[:, :, 0]
        values: Floats = np.linalg.norm(self.sizes.weights[:, None] * each, axis=0)
        return values

    def cross_powers(self, inputs: Ints, first: Ints, second: Ints) -> Complexes:
        """(n,): what two causes have in common at each of these inputs, likely volts A-weighted: twice its real part,
        turned by the phase between them, is what they add to or take from the sum of their powers."""
        square = np.square(self.sizes.weights)[:, None]
        known = (square * _common(self.nominal, inputs, first, second)).sum(axis=0)
        tolerances, own = self.effects.tolerances_of(inputs), self.effects.counts[inputs]
        common = _common(self.per_unit, tolerances, np.repeat(first, own), np.repeat(second, own))
        shares = (square * common).sum(axis=0) * np.square(self.effects.likely[tolerances])
        inside = np.concatenate([[0.0], np.cumsum(shares)])
        ends = np.cumsum(own)
        size = self.sizes.likely
        values: Complexes = (known + inside[ends] - inside[ends - own]) * size[first] * size[second]
        return values


def _common(volts: Complexes, rows: Ints, first: Ints, second: Ints) -> Complexes:
    """(frequencies, n): conjugate of each row's `first` column times its `second`."""
    values: Complexes = volts[:, rows, first].conj() * volts[:, rows, second]
    return values
