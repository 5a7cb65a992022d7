"""Rows of a solution fetched once for many runs, since putting a block's unknowns together row by row takes longest."""

from collections.abc import Iterable

import numpy as np

from ruvak.core.results.solving import Solved
from ruvak.core.solve.network import EARTH, Complexes, Floats, Ints
from ruvak.core.solve.solver import Solution


def fetched(base: Solved, size: int, rows: Iterable[int], columns: Iterable[int], functionals: Iterable[int]) -> Solved:
    """What a whole solution holds need not be fetched."""
    return base if isinstance(base, Solution) else Fetched(base, size, rows, columns, functionals)


class Fetched:
    """The rows, columns and functionals given, of `base`; asked for others it answers wrongly, so give them all."""

    def __init__(
        self, base: Solved, size: int, rows: Iterable[int], columns: Iterable[int], functionals: Iterable[int]
    ) -> None:
        wanted, across, read = (np.array(sorted(set(one)), dtype=np.int64) for one in (rows, columns, functionals))
        wanted = wanted[wanted != EARTH]
        self._base = base
        # EARTH is -1, so counted from the end it is the row of zeros behind the last.
        self._row = np.full(size + 1, len(wanted), dtype=np.int64)
        self._row[wanted] = np.arange(len(wanted))
        self._across, self._read = across, read
        self._x = _with_earth(base.rows(wanted, across))
        self._y = _with_earth(base.adjoint_rows(wanted, read)) if len(read) else self._x[:, :, :0]

    @property
    def frequencies_hz(self) -> Floats:
        """The base's."""
        return self._base.frequencies_hz

    def rows(self, rows: Ints, columns: Ints) -> Complexes:
        """(frequencies, rows, columns) of the unknowns; EARTH reads as zero."""
        return _picked(self._x, self._row[rows], np.searchsorted(self._across, columns))

    def adjoint_rows(self, rows: Ints, functionals: Ints) -> Complexes:
        """(frequencies, rows, functionals) of the adjoints; EARTH reads as zero."""
        return _picked(self._y, self._row[rows], np.searchsorted(self._read, functionals))


def _with_earth(values: Complexes) -> Complexes:
    found: Complexes = np.concatenate([values, np.zeros_like(values[:, :1])], axis=1)
    if not values.shape[1]:
        found = np.zeros((values.shape[0], 1, values.shape[2]), dtype=np.complex128)
    return found


def _picked(values: Complexes, rows: Ints, columns: Ints) -> Complexes:
    found: Complexes = values[:, rows[:, None], columns[None, :]]
    return found
