"""Rows of a solution fetched once for many runs, since putting a block's unknowns together row by row takes longest."""

from collections.abc import Iterable

import numpy as np

from ruvak.core.results.solving import NetworkSolution
from ruvak.core.solve.network import EARTH, Complexes, Floats, Ints
from ruvak.core.solve.solver import Solution


def prefetch(base: NetworkSolution, size: int, rows: Iterable[int], columns: Iterable[int]) -> NetworkSolution:
    """What a whole solution holds need not be fetched."""
    return base if isinstance(base, Solution) else PrefetchedRows(base, size, rows, columns)


class PrefetchedRows:
    """The rows and columns given, of `base`; asked for others it answers wrongly, so give them all."""

    def __init__(self, base: NetworkSolution, size: int, rows: Iterable[int], columns: Iterable[int]) -> None:
        wanted, self._across = (np.array(sorted(set(entry)), dtype=np.int64) for entry in (rows, columns))
        wanted = wanted[wanted != EARTH]
        self._base = base
        # EARTH is -1, so counted from the end it is the row of zeros behind the last.
        self._row = np.full(size + 1, len(wanted), dtype=np.int64)
        self._row[wanted] = np.arange(len(wanted))
        x = base.rows(wanted, self._across)
        self._x = np.concatenate([x, np.zeros((x.shape[0], 1, x.shape[2]), dtype=np.complex128)], axis=1)

    @property
    def frequencies_hz(self) -> Floats:
        """The base's."""
        return self._base.frequencies_hz

    def rows(self, rows: Ints, columns: Ints) -> Complexes:
        """(frequencies, rows, columns) of the unknowns; EARTH reads as zero."""
        values: Complexes = self._x[:, self._row[rows][:, None], np.searchsorted(self._across, columns)]
        return values

    def adjoint_at(self, rows: Ints, functionals: Ints) -> Complexes:
        """The base's."""
        return self._base.adjoint_at(rows, functionals)
