"""What elements of unknown sign may add at inputs, many elements and inputs at once.

First order in each tolerance: dv = -y.(dA x) for an element, y.db for an emf. The tolerances are a few per cent
of their element, so the second order is some 40 dB below the first.
"""

from collections.abc import Iterator, Sequence
from copy import copy
from typing import TypeVar, cast

import numpy as np
from scipy import sparse

from ruvak.core.circuit.circuit import Circuit, HumToleranceCode, Receiver, Tolerance, ToleranceCode
from ruvak.core.results.solving import NetworkSolution
from ruvak.core.solve.network import EARTH, Complexes, Floats, Ints

Heard = tuple[int, Sequence[Tolerance]]
"""A receiver's number, and the tolerances that matter to it."""

_Element = tuple[int, int, int, int, float, float, float, float]
"""Rows between which the adjoint and the solution are taken (a, b, then p, q), what multiplies their product: constant
and by j w; and what multiplies the solution alone: constant, and growing as rejection falls."""

Figures = TypeVar("Figures", Floats, Complexes)

FEW = 400_000
"""Figures up to which it is quicker to take the difference across each element before the sparse product."""
_NONE: _Element = (EARTH, EARTH, EARTH, EARTH, 0.0, 0.0, 0.0, 0.0)


class Sensitivities:
    """Unknowns one after the other, receiver by receiver; `first` tells where each receiver's begin, and the end.

    `likely`, `worst`: the sizes of each.
    """

    def __init__(self, circuit: Circuit, heard: Sequence[Heard]) -> None:
        self._circuit, self._heard = circuit, heard
        self.receivers = [number for number, _ in heard]
        self.first: Ints = np.cumsum([0, *(len(tolerances) for _, tolerances in heard)])
        self.likely: Floats = np.array([tolerance.likely for _, tolerances in heard for tolerance in tolerances])
        self.worst: Floats = np.array([tolerance.worst for _, tolerances in heard for tolerance in tolerances])
        elements: list[_Element] = []
        starts: list[int] = []
        receivers: list[int] = []
        for number, tolerances in heard:
            for tolerance in tolerances:
                starts.append(len(elements))
                elements += list(_elements(circuit, tolerance, number)) or [_NONE]
                receivers += [number] * (len(elements) - starts[-1])
        self._starts: Ints = np.array(starts, dtype=np.int64)
        self._receiver: Ints = np.array(receivers, dtype=np.int64)
        table = np.array(elements, dtype=np.float64).reshape(-1, len(_NONE)).T
        self._rows: Ints = table[:4].astype(np.int64)
        self._factors: Floats = table[4:]

    @property
    def rows(self) -> set[int]:
        """The unknowns of the network that a solution is asked for."""
        return set(self._rows[2:].ravel().tolist()) - {EARTH}

    @property
    def codes(self) -> list[ToleranceCode | HumToleranceCode]:
        """Of every tolerance, receiver by receiver."""
        return [tolerance.code for _, tolerances in self._heard for tolerance in tolerances]

    @property
    def element_count(self) -> int:
        """Of all tolerances together."""
        return int(self._rows.shape[1])

    @property
    def driven(self) -> Ints:
        """(2, elements): the rows between which the adjoint is taken."""
        return self._rows[:2]

    @property
    def sensed(self) -> Ints:
        """(2, elements): the rows between which the solution is taken."""
        return self._rows[2:]

    @property
    def input_of_element(self) -> Ints:
        """(elements,): which of `receivers`, by its place, each element is counted at."""
        tolerances = np.repeat(np.arange(len(self.receivers)), np.diff(self.first))
        counts = np.diff([*self._starts, self.element_count]) if len(self._starts) else np.zeros(0, dtype=np.int64)
        values: Ints = np.repeat(tolerances, counts)
        return values

    @property
    def counts(self) -> Ints:
        """(receivers,): how many tolerances each has."""
        values: Ints = np.diff(self.first)
        return values

    def tolerances_of(self, chosen: Ints) -> Ints:
        """The tolerances of some receivers, by their places, one receiver after the other."""
        return _ranges(self.first[chosen], self.first[chosen + 1])

    def elements_of(self, chosen: Ints) -> Ints:
        """Their elements likewise."""
        ends, tolerances = np.append(self._starts, self.element_count), self.tolerances_of(chosen)
        return _ranges(ends[tolerances], ends[tolerances + 1])

    def only(self, chosen: Ints) -> "Sensitivities":
        """The same at some of the receivers, by their places; one may be there several times."""
        other = copy(self)
        other._heard = [self._heard[place] for place in chosen]
        other.receivers = [number for number, _ in other._heard]
        tolerances, elements = self.tolerances_of(chosen), self.elements_of(chosen)
        other.first = np.concatenate([[0], np.cumsum(self.counts[chosen])])
        other.likely, other.worst = self.likely[tolerances], self.worst[tolerances]
        counts = np.diff(np.append(self._starts, self.element_count))[tolerances]
        other._starts = np.cumsum(counts) - counts
        other._receiver = self._receiver[elements]
        other._rows, other._factors = self._rows[:, elements], self._factors[:, elements]
        return other

    def across(self, weights: Complexes, between: Complexes, elements: Ints | None = None) -> Complexes:
        """What a unit of each tolerance adds, (frequencies, tolerances, columns), from what each element adds by a volt
        or ampere, (frequencies, elements), and what stands across it, (frequencies, elements, columns).

        `elements`: which row of `between` each element's is, where they are not in this order.
        """
        rows = np.arange(self.element_count) if elements is None else elements
        ends, shape = np.append(self._starts, self.element_count), (len(self._starts), between.shape[1])
        result = np.empty((len(between), len(self._starts), between.shape[2]), dtype=np.complex128)
        for index, own in enumerate(weights):
            result[index] = sparse.csr_matrix((own, rows, ends), shape=shape) @ between[index]
        return result

    def sum_elements(self, values: Figures) -> Figures:
        """(frequencies, elements, ...) added up to (frequencies, tolerances, ...)."""
        if not len(self._starts):
            return values[:, :0]
        return cast(Figures, np.add.reduceat(values, self._starts, axis=1))

    def bound_likely(self, elements: Floats) -> Floats:
        """(frequencies, elements, n), sizes, to (frequencies, receivers, n): elements of one tolerance add as sizes,
        tolerances as powers."""
        return np.sqrt(self.sum_tolerances(self.likely[:, None] ** 2 * self.sum_elements(elements) ** 2))

    def bound_worst(self, elements: Floats) -> Floats:
        """The same, tolerances as sizes."""
        return self.sum_tolerances(self.worst[:, None] * self.sum_elements(elements))

    def of(self, solved: NetworkSolution, columns: Sequence[int], programme: bool = False) -> Complexes:
        """What a unit of each tolerance adds: (frequencies, tolerances, columns).

        `programme`: the columns are the drives, so that unknown emfs count.
        """
        which = np.array(columns, dtype=np.int64)
        if not len(self._starts):
            return np.zeros((len(solved.frequencies_hz), 0, len(which)), dtype=np.complex128)
        if len(solved.frequencies_hz) * self.element_count * len(which) <= FEW:
            result = self._of_few(solved, which)
        else:
            result = self._of_many(solved, which)
        if programme:
            self._add_emfs(result, solved, columns)
        return result

    def _of_few(self, solved: NetworkSolution, which: Ints) -> Complexes:
        rows, at = np.unique(self._rows[2:], return_inverse=True)
        first, second = at.reshape(2, -1)
        x = solved.rows(rows, which)
        return self.across(self.weights(solved), x[:, first] - x[:, second])

    def _of_many(self, solved: NetworkSolution, which: Ints) -> Complexes:
        """Rows of a sparse matrix, two entries an element: multiplied, it adds a tolerance's elements up by itself."""
        ends = self._rows[2:].T.ravel()
        there = ends != EARTH
        rows, at = np.unique(ends[there], return_inverse=True)
        x = solved.rows(rows, which)
        starts = np.concatenate([[0], np.cumsum(there)])[[*(2 * self._starts), len(ends)]]
        shape = (len(self._starts), len(rows))
        result = np.empty((len(x), len(self._starts), len(which)), dtype=np.complex128)
        for index, weights in enumerate(self.weights(solved)):
            both = np.stack([weights, -weights], axis=1).ravel()[there]
            result[index] = sparse.csr_matrix((both, at, starts), shape=shape) @ x[index]
        return result

    def sum_tolerances(self, values: Floats) -> Floats:
        """(frequencies, tolerances, columns) added up to (frequencies, receivers, columns)."""
        some = np.flatnonzero(np.diff(self.first))
        result = np.zeros((values.shape[0], len(self.receivers), values.shape[2]))
        if len(some):
            result[:, some] = np.add.reduceat(values, self.first[some], axis=1)
        return result

    def sum_by_group(self, values: Floats, group: Ints, count: int) -> Floats:
        """(frequencies, tolerances, columns) added up to (groups, frequencies, receivers, columns); `group`: which of
        `count` groups each tolerance belongs to."""
        receivers = len(self.receivers)
        place = np.repeat(np.arange(receivers), np.diff(self.first))
        ones = np.ones(len(group))
        where = (group * receivers + place, np.arange(len(group)))
        summing = sparse.csr_matrix((ones, where), shape=(count * receivers, len(group)))
        sums = np.stack([summing @ at_frequency for at_frequency in values])
        result: Floats = sums.reshape(len(values), count, receivers, values.shape[2]).transpose(1, 0, 2, 3)
        return result

    def driving(self, solved: NetworkSolution) -> Complexes:
        """(frequencies, elements): what multiplies the adjoint between an element's a and b."""
        constant, slope, *_ = self._factors
        values: Complexes = constant + 2j * np.pi * solved.frequencies_hz[:, None] * slope
        return values

    def weights(self, solved: NetworkSolution) -> Complexes:
        """(frequencies, elements): what a volt or ampere between an element's p and q adds at its input."""
        _, _, direct, falling = self._factors
        y = self.adjoints(solved, self._rows[:2], np.stack([self._receiver] * 2))
        fall = _falls(self._circuit, self._receiver, solved.frequencies_hz)
        values: Complexes = self.driving(solved) * (y[:, 0] - y[:, 1]) + direct + falling * fall
        return values

    def adjoints(self, solved: NetworkSolution, rows: Ints, receivers: Ints) -> Complexes:
        """(frequencies, ...): what a receiver makes of a unit in a row's equation, both legs and its rejection in."""
        width = len(self._circuit.receivers)
        keys, at = np.unique(rows * width + receivers, return_inverse=True)
        row, receiver = keys // width, keys % width
        both = solved.adjoint_at(np.concatenate([row, row]), np.concatenate([2 * receiver, 2 * receiver + 1]))
        hot, cold = both[:, : len(row)], both[:, len(row) :]
        stated = np.array([self._circuit.receivers[number].stated_rejection for number in receiver])
        folded: Complexes = hot - cold
        if stated.any():
            folded += 0.5 * stated * _falls(self._circuit, receiver, solved.frequencies_hz) * (hot + cold)
        values: Complexes = folded[:, at.reshape(rows.shape)]
        return values

    def _add_emfs(self, result: Complexes, solved: NetworkSolution, columns: Sequence[int]) -> None:
        """Of drives whose emf itself is uncertain."""
        gains: dict[int, list[tuple[int, float]]] = {}
        for column, number in enumerate(columns):
            for branch, gain in self._circuit.drives[number].branch_gains:
                gains.setdefault(branch, []).append((column, gain))
        entries = [
            (self.first[index] + place, number, self._circuit.network.node_count + branch, column, relative * gain)
            for index, (number, tolerances) in enumerate(self._heard)
            for place, tolerance in enumerate(tolerances)
            for branch, relative in tolerance.emfs
            for column, gain in gains.get(branch, ())
        ]
        if entries:
            place, receiver, row, column_of = np.array([entry[:4] for entry in entries], dtype=np.int64).T
            volts = np.array([entry[4] for entry in entries]) * self.adjoints(solved, row, receiver)
            np.subtract.at(result.transpose(1, 2, 0), (place, column_of), volts.T)


def _ranges(starts: Ints, ends: Ints) -> Ints:
    """Every whole number from each start to its end, one range after the other."""
    counts = ends - starts
    within = np.arange(counts.sum()) - np.repeat(np.cumsum(counts) - counts, counts)
    values: Ints = np.repeat(starts, counts) + within
    return values


def _elements(circuit: Circuit, tolerance: Tolerance, number: int) -> Iterator[_Element]:
    """What a unit of the tolerance is to one receiver."""
    network, first = circuit.network, circuit.network.node_count
    for index, siemens in tolerance.conductances:
        a, b, _ = network.conductances[index]
        yield a, b, a, b, -siemens, 0.0, 0.0, 0.0
    for index, farad in tolerance.capacitances:
        a, b, _ = network.capacitances[index]
        yield a, b, a, b, 0.0, -farad, 0.0, 0.0
    for branch, ohm in tolerance.branch_ohms:
        yield first + branch, EARTH, first + branch, EARTH, ohm, 0.0, 0.0, 0.0
    for entry, other, henry in tolerance.branch_henries:
        yield first + entry, EARTH, first + other, EARTH, 0.0, henry, 0.0, 0.0
        yield first + other, EARTH, first + entry, EARTH, 0.0, henry, 0.0, 0.0
    for driven, sensed, ohm in tolerance.transresistances:
        yield first + driven, EARTH, first + sensed, EARTH, -ohm, 0.0, 0.0, 0.0
    if tolerance.receiver == number:
        receiver = circuit.receivers[number]
        for branch, ohm in tolerance.currents:
            yield EARTH, EARTH, first + branch, EARTH, 0.0, 0.0, ohm, 0.0
        if not tolerance.currents:
            for leg in (receiver.hot, receiver.cold):
                yield EARTH, EARTH, leg, receiver.reference, 0.0, 0.0, 0.0, 0.5


def receive(circuit: Circuit, solved: NetworkSolution, receivers: Sequence[int], columns: Sequence[int]) -> Complexes:
    """What receivers make of the solved voltages: (frequencies, receivers, columns), volts."""
    first, chosen = circuit.network.node_count, [circuit.receivers[number] for number in receivers]
    carried = [(at, first + branch, ohm) for at, choice in enumerate(chosen) for branch, ohm in choice.pin1]
    legs = [(choice.hot, choice.cold, choice.reference) for choice in chosen]
    rows, at = np.unique([*(row for leg in legs for row in leg), *(row for _, row, _ in carried)], return_inverse=True)
    x = solved.rows(rows.astype(np.int64), np.array(columns, dtype=np.int64))
    hot, cold, reference = at[: 3 * len(chosen)].reshape(-1, 3).T
    values: Complexes = x[:, hot] - x[:, cold]
    stated = np.array([choice.stated_rejection for choice in chosen])
    if stated.any():
        fall = _falls(circuit, np.array(receivers, dtype=np.int64), solved.frequencies_hz)
        values += (0.5 * stated * fall)[:, :, None] * (x[:, hot] + x[:, cold] - 2.0 * x[:, reference])
    for (index, _, ohm), row in zip(carried, at[3 * len(chosen) :], strict=True):
        values[:, index] += ohm * x[:, row]
    return values


def _falls(circuit: Circuit, receivers: Ints, frequencies_hz: Floats) -> Floats:
    """(frequencies, receivers)."""
    return rejection_fall(
        np.array([circuit.receivers[number].rejection_corner_hz for number in receivers]), frequencies_hz
    )


def rejection_fall(corner_hz: Floats, frequencies_hz: Floats) -> Floats:
    """By how much a rejection's ratio grows with frequency: 6 dB an octave above its corner."""
    return np.maximum(1.0, frequencies_hz[:, None] / corner_hz)


def leg_adjoints(circuit: Circuit, solved: NetworkSolution, receivers: Sequence[int]) -> Complexes:
    """(frequencies, receivers, hot cold reference, hot's and cold's functional): volts that an ampere into one of an
    input's nodes leaves at one of its legs."""
    chosen = [circuit.receivers[number] for number in receivers]
    nodes = np.array(
        [(receiver.hot, receiver.cold, receiver.reference) for receiver in chosen], dtype=np.int64
    ).reshape(-1, 3, 1)
    legs = 2 * np.array(receivers, dtype=np.int64)[:, None, None] + np.array([0, 1])
    rows, functionals = np.broadcast_arrays(nodes, legs)
    values: Complexes = solved.adjoint_at(rows.ravel(), functionals.ravel())
    return values.reshape(len(solved.frequencies_hz), *rows.shape)


def leg_rows(circuit: Circuit, receiver: Receiver) -> set[int]:
    """The unknowns of the network that an input reads."""
    branches = {circuit.network.node_count + branch for branch, _ in receiver.pin1}
    return {receiver.hot, receiver.cold, receiver.reference} | branches
