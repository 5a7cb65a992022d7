"""What opening one bond does to every input, from the factorised system: a rank-one update, not another solution.

A bond is open when its branch carries nothing. Driving the branch with the emf that makes it so gives the opened
network's voltages: x' = x - z (x_b / z_b), z being the answer to one volt in the branch; adjoints the same. How far
z_b can be trusted shows in the adjoint, which gives it a second time from the transposed factors.
"""

from dataclasses import dataclass

import numpy as np

from ruvak.core.circuit.circuit import OpenableConnection
from ruvak.core.results.solving import Solved
from ruvak.core.solve.network import Complexes, Floats, Ints

OPEN_ALREADY_S = 1e-9
"""A volt in a branch that drives less current than this finds no loop: opening it changes nothing."""

RESIDUAL = 1e-3
"""Forwards and backwards z_b may differ by this share: a hundredth of a decibel. Seen: 1e-15 in loops, 1e-5 among
devices that float."""


@dataclass(frozen=True)
class OpenBranch:
    """A solution with one branch open. `row`: its current; `column` and `functional`: its volt and its reading."""

    base: Solved
    row: int
    column: int
    functional: int

    @property
    def frequencies_hz(self) -> Floats:
        """The base's."""
        return self.base.frequencies_hz

    def rows(self, rows: Ints, columns: Ints) -> Complexes:
        """(frequencies, rows, columns) of the unknowns; EARTH reads as zero."""
        own, answer = self.base.rows(np.array([self.row]), columns), self._answer()
        driven = self.base.rows(rows, np.array([self.column]))
        values: Complexes = self.base.rows(rows, columns) - driven * (own / answer)
        return values

    def adjoint_at(self, rows: Ints, functionals: Ints) -> Complexes:
        """(frequencies, pairs): of each functional's adjoint the row beside it; EARTH reads as zero."""
        connection, row = np.full_like(rows, self.functional), np.full_like(rows, self.row)
        read, own = self.base.adjoint_at(rows, connection), self.base.adjoint_at(row, functionals)
        values: Complexes = self.base.adjoint_at(rows, functionals) - read * (own / self._backwards())
        return values

    def closes_a_loop(self) -> bool:
        """Whether anything at all flows when a volt stands in the branch, and more than rounding makes of it."""
        answer = self._answer()
        return bool(np.abs(answer).max(initial=0.0) > OPEN_ALREADY_S and self.residual() < RESIDUAL)

    def residual(self) -> float:
        """Largest difference of the branch's answer to a volt from what the adjoint says it is, as a share of it."""
        answer = self._answer()
        share = np.abs(answer[:, 0] + self._backwards()) / np.maximum(np.abs(answer[:, 0]), OPEN_ALREADY_S)
        return float(share.max(initial=0.0))

    def _answer(self) -> Complexes:
        """Current in the branch for a volt in it."""
        return self.base.rows(np.array([self.row]), np.array([self.column]))

    def _backwards(self) -> Complexes:
        """The same from the adjoint, (frequencies, 1), with its sign turned."""
        return self.base.adjoint_at(np.array([self.row]), np.array([self.functional]))


def open_branch(
    base: Solved, node_count: int, removable: OpenableConnection, number: int, columns: int, legs: int
) -> OpenBranch:
    """`number`: of the removable among all; `columns`, `legs`: how many causes and leg functionals come before."""
    return OpenBranch(base, node_count + removable.branch, columns + number, legs + number)
