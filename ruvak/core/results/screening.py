"""Which inputs opening a connection can change at all: a bound from above, far cheaper than the change itself.

Opening a branch adds z (x_b / z_b) to every voltage and the like to every adjoint (opening.py). The triangle inequality
over the elements of unknown sign bounds what that adds to an input's likely and worst hum; most connections touch a few
inputs of a rig, and only those are solved exactly.
"""

from dataclasses import dataclass

import numpy as np

from ruvak.core.circuit.circuit import Circuit
from ruvak.core.results.sensitivities import Sensitivities, receive
from ruvak.core.results.solving import Solved
from ruvak.core.solve.network import EARTH, Complexes, Floats, Ints

HELD = 3_000_000
"""Figures held at once."""
TINY = 1e-30


@dataclass(frozen=True)
class Sizes:
    """Of the causes, (causes,), and of the tones by A-weighting, (frequencies,)."""

    likely: Floats
    worst: Floats
    weights: Floats


@dataclass(frozen=True)
class _Norms:
    """Over all causes, (frequencies, n): root of squares with the likely sizes, sum with the worst."""

    likely: Floats
    worst: Floats


class Screening:
    """Bounds for every removable connection of a circuit at every input of `effects`."""

    def __init__(self, circuit: Circuit, solved: Solved, effects: Sensitivities, sizes: Sizes) -> None:
        self._circuit, self._solved, self._effects, self._sizes = circuit, solved, effects, sizes
        self._causes = np.arange(len(circuit.causes), dtype=np.int64)
        self._elements = self._norms_between(effects.sensed)
        self._weights = np.abs(effects.weights(solved))
        self._driving = np.abs(effects.driving(solved))

    def changes(self) -> tuple[Floats, Floats]:
        """Upper bounds, (connections, inputs), volts A-weighted: of the likely hum's change and of the worst's."""
        count = len(self._circuit.openable_connections)
        each = max(1, len(self._solved.frequencies_hz) * max(1, self._effects.element_count))
        step = max(1, HELD // each)
        parts = [self._some(np.arange(first, min(count, first + step))) for first in range(0, count, step)]
        return np.concatenate([part[0] for part in parts]), np.concatenate([part[1] for part in parts])

    def _some(self, numbers: Ints) -> tuple[Floats, Floats]:
        circuit, solved, effects = self._circuit, self._solved, self._effects
        branches = np.array([circuit.openable_connections[number].branch for number in numbers], dtype=np.int64)
        rows, columns = circuit.network.node_count + branches, len(self._causes) + numbers
        functionals = 2 * len(circuit.receivers) + numbers
        diagonal = np.arange(len(numbers))
        answer = np.maximum(np.abs(solved.rows(rows, columns)[:, diagonal, diagonal]), TINY)
        back = np.maximum(np.abs(solved.adjoint_at(rows, functionals)), TINY)
        flowing = self._norms(solved.rows(rows, self._causes))
        heard = np.abs(receive(circuit, solved, effects.receivers, columns.tolist()))
        moved = np.abs(self._between(effects.sensed, columns))
        receivers = np.array(effects.receivers, dtype=np.int64)
        pairs = np.broadcast_arrays(rows[None, :], receivers[:, None])
        own = np.abs(effects.adjoints(solved, *pairs)) / back[:, None, :]
        read = self._adjoints_between(effects.driven, functionals)
        turned = self._driving[:, :, None] * read * own[:, effects.input_of_element]
        result = []
        for norm, flows, together in (
            (self._elements.likely, flowing.likely / answer, effects.bound_likely),
            (self._elements.worst, flowing.worst / answer, effects.bound_worst),
        ):
            carried = moved * flows[:, None, :]
            elements = turned * (norm[:, :, None] + carried) + self._weights[:, :, None] * carried
            change = heard * flows[:, None, :] + together(elements)
            result.append(np.linalg.norm(self._sizes.weights[:, None, None] * change, axis=0).T)
        return result[0], result[1]

    def _norms_between(self, ends: Ints) -> _Norms:
        """Of the causes' volts between two rows each, some at a time."""
        each = max(1, len(self._solved.frequencies_hz) * max(1, len(self._causes)))
        step = max(1, HELD // each)
        parts = [
            self._norms(self._between(ends[:, first : first + step], self._causes))
            for first in range(0, max(1, ends.shape[1]), step)
        ]
        return _Norms(
            *(np.concatenate([getattr(part, name) for part in parts], axis=1) for name in ("likely", "worst"))
        )

    def _norms(self, volts: Complexes) -> _Norms:
        sizes = np.abs(volts)
        return _Norms(np.linalg.norm(sizes * self._sizes.likely, axis=2), sizes @ self._sizes.worst)

    def _between(self, ends: Ints, columns: Ints) -> Complexes:
        """(frequencies, pairs, columns) of the solution."""
        rows, at = np.unique(ends, return_inverse=True)
        first, second = at.reshape(ends.shape)
        values = self._solved.rows(rows, columns)
        result: Complexes = values[:, first] - values[:, second]
        return result

    def _adjoints_between(self, ends: Ints, functionals: Ints) -> Floats:
        """(frequencies, pairs, functionals): sizes."""
        rows, at = np.unique(ends, return_inverse=True)
        first, second = at.reshape(ends.shape)
        row, functional = np.broadcast_arrays(rows[:, None], functionals[None, :])
        count = len(self._solved.frequencies_hz)
        values = self._solved.adjoint_at(row.ravel(), functional.ravel()).reshape(count, *row.shape)
        values[:, rows == EARTH] = 0.0
        return np.abs(values[:, first] - values[:, second])
