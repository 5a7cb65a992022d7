"""What opening connections does to the hum of inputs, for all pairs of a connection and an input together.

A connection is open when its branch carries nothing. Driving the branch with the emf that makes it so gives the opened
network's voltages: x' = x - z (x_b / z_b), z being the answer to one volt in the branch; adjoints the same. So nothing
is solved again. How far z_b can be trusted shows in the adjoint, which gives it a second time from the transposed
factors. Most connections touch a few inputs: a bound from above, by the triangle inequality over the elements of
unknown sign, says which, and only those pairs are looked at exactly.
"""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from scipy import sparse

from ruvak.core.circuit.circuit import Circuit
from ruvak.core.results.input_hum import InputHum, Sizes
from ruvak.core.results.sensitivities import Sensitivities, receive
from ruvak.core.results.solving import NetworkSolution
from ruvak.core.solve.network import EARTH, Bools, Complexes, Floats, Ints

HELD = 2_000_000
"""Figures held at once."""
OPEN_ALREADY_S = 1e-9
"""A volt in a branch that drives less current than this finds no loop: opening it changes nothing."""
RESIDUAL = 1e-3
"""Forwards and backwards z_b may differ by this share: a hundredth of a decibel. Seen: 1e-15 in loops, 1e-5 among
devices that float."""
TINY = 1e-30


@dataclass(frozen=True)
class Answers:
    """What a volt in each of some connections' branches drives through it, (frequencies, connections), in siemens."""

    forwards: Complexes
    backwards: Complexes
    """The same from the adjoint, with its sign turned."""

    def residuals(self) -> Floats:
        """(connections,): largest difference of the two, as a share."""
        share = np.abs(self.forwards + self.backwards) / np.maximum(np.abs(self.forwards), OPEN_ALREADY_S)
        values: Floats = share.max(axis=0, initial=0.0)
        return values

    def close_loops(self) -> Bools:
        """(connections,): whether anything at all flows when a volt stands in the branch, and more than rounding."""
        values: Bools = (np.abs(self.forwards).max(axis=0, initial=0.0) > OPEN_ALREADY_S) & (
            self.residuals() < RESIDUAL
        )
        return values


@dataclass(frozen=True)
class _Opened:
    """Some connections, by number: all that opening them is made of."""

    numbers: Ints
    answers: Answers
    flow: Complexes
    """(frequencies, connections, causes): the current in it over its answer to a volt."""
    heard: Complexes
    """(frequencies, inputs, connections): what a volt in it leaves at an input."""
    moved: Complexes
    """(frequencies, elements, connections): and across an element."""
    read: Complexes
    """(frequencies, elements, connections): of its adjoint, between the rows where an element drives."""
    own: Complexes
    """(frequencies, inputs, connections): of an input's adjoint, at its branch, over its answer backwards."""


@dataclass(frozen=True)
class _Inputs:
    """Some inputs as they are, by their places among all, and where their elements stand among all."""

    elements: Ints
    across: Complexes
    """(frequencies, elements, causes): of the solution."""
    before: InputHum


@dataclass(frozen=True)
class Change:
    """Pairs of a connection, by number, and an input, by place: the hum of each with the connection open, `after`.

    `at`: the input's place in `before`.
    """

    connections: Ints
    inputs: Ints
    before: InputHum
    at: Ints
    after: InputHum


class ConnectionOpenings:
    """Of a solution whose columns behind the causes are a volt in each openable connection, and whose functionals
    behind the legs' are their currents."""

    def __init__(self, circuit: Circuit, solved: NetworkSolution, effects: Sensitivities, sizes: Sizes) -> None:
        self._circuit, self._solved, self._effects, self._sizes = circuit, solved, effects, sizes
        self._causes = np.arange(len(circuit.causes), dtype=np.int64)
        self._weights, self._driving = effects.weights(solved), effects.driving(solved)
        self._norms = self._norms_across()

    def before_v(self) -> Floats:
        """(2, inputs): A-weighted hum as the rig is, likely and worst."""
        parts = [
            self._inputs(some).before for some in self._portions_of_inputs(np.arange(len(self._effects.receivers)))
        ]
        return np.concatenate([part.weighted_v() for part in parts], axis=1)

    def answers(self, numbers: Ints) -> Answers:
        """Of some connections."""
        rows, columns, functionals = self._places(numbers)
        each = np.arange(len(numbers))
        return Answers(self._solved.rows(rows, columns)[:, each, each], self._solved.adjoint_at(rows, functionals))

    def bounds(self, numbers: Ints) -> tuple[Floats, Floats]:
        """Upper bounds, (connections, inputs), volts A-weighted: of the likely hum's change and of the worst's."""
        return self._bounds(self._open(numbers))

    def changes(self, least: Floats) -> Iterator[Change]:
        """Pairs of which the likely or the worst hum may change by as much as `least`, (2, inputs)."""
        for numbers in _portions(len(self._circuit.openable_connections), self._held(self._effects.element_count)):
            opened = self._open(numbers)
            concerned = np.any(np.stack(self._bounds(opened)) >= least[:, None], axis=0)
            concerned &= opened.answers.close_loops()[:, None]
            inputs, own = np.nonzero(concerned.T)
            for part in self._portions_of_inputs(inputs):
                some, at = np.unique(inputs[part], return_inverse=True)
                here = self._inputs(some)
                after = self._after(opened, own[part], here, at, inputs[part])
                yield Change(numbers[own[part]], inputs[part], here.before, at, after)

    def _portions_of_inputs(self, inputs: Ints) -> Iterator[Ints]:
        """Which of these can be looked at together."""
        most = int(np.bincount(self._effects.input_of_element, minlength=1).max(initial=1))
        return _portions(len(inputs), self._held(max(1, most) * max(1, len(self._causes))))

    def _inputs(self, some: Ints) -> _Inputs:
        effects, elements = self._effects.only(some), self._effects.elements_of(some)
        across = self._between(effects.sensed, self._causes)
        nominal = receive(self._circuit, self._solved, effects.receivers, self._causes.tolist())
        per_unit = effects.across(self._weights[:, elements], across)
        return _Inputs(elements, across, InputHum(effects, nominal, per_unit, self._sizes))

    def _norms_across(self) -> tuple[Floats, Floats]:
        """(frequencies, elements): over all causes, root of squares with the likely sizes, sum with the worst."""
        likely, worst = [], []
        for part in _portions(max(1, self._effects.element_count), self._held(max(1, len(self._causes)))):
            across = np.abs(
                self._between(self._effects.sensed[:, part[part < self._effects.element_count]], self._causes)
            )
            likely.append(np.linalg.norm(across * self._sizes.likely, axis=2))
            worst.append(across @ self._sizes.worst)
        return np.concatenate(likely, axis=1), np.concatenate(worst, axis=1)

    def _held(self, each: int) -> int:
        """How many things of `each` figures a frequency are held at once."""
        return max(1, HELD // max(1, len(self._solved.frequencies_hz) * each))

    def _places(self, numbers: Ints) -> tuple[Ints, Ints, Ints]:
        """Rows of their currents, columns of their volts and their functionals."""
        circuit = self._circuit
        branches = np.array([circuit.openable_connections[number].branch for number in numbers], dtype=np.int64)
        return circuit.network.node_count + branches, len(self._causes) + numbers, 2 * len(circuit.receivers) + numbers

    def _open(self, numbers: Ints) -> _Opened:
        circuit, solved, effects = self._circuit, self._solved, self._effects
        rows, columns, functionals = self._places(numbers)
        answers = self.answers(numbers)
        flow = solved.rows(rows, self._causes) / _not_zero(answers.forwards)[:, :, None]
        receivers = np.array(effects.receivers, dtype=np.int64)
        adjoints = effects.adjoints(solved, *np.broadcast_arrays(rows[None, :], receivers[:, None]))
        return _Opened(
            numbers,
            answers,
            flow,
            receive(circuit, solved, effects.receivers, columns.tolist()),
            self._between(effects.sensed, columns),
            self._adjoints_between(effects.driven, functionals),
            adjoints / _not_zero(answers.backwards)[:, None, :],
        )

    def _bounds(self, opened: _Opened) -> tuple[Floats, Floats]:
        effects, sizes = self._effects, self._sizes
        flowing = np.abs(opened.flow)
        flows = np.linalg.norm(flowing * sizes.likely, axis=2), flowing @ sizes.worst
        heard, moved = np.abs(opened.heard), np.abs(opened.moved)
        turned = np.abs(opened.read) * np.abs(self._driving)[:, :, None]
        turned *= np.abs(opened.own)[:, effects.input_of_element]
        carrying = turned + np.abs(self._weights)[:, :, None]
        carrying *= moved
        result = []
        for flow, norm, together in zip(flows, self._norms, (effects.bound_likely, effects.bound_worst), strict=True):
            # Turned adjoints at what the causes leave there; at what opening moves, the adjoints as they were too.
            elements = turned * norm[:, :, None]
            elements += carrying * flow[:, None, :]
            change = heard * flow[:, None, :] + together(elements)
            result.append(np.linalg.norm(sizes.weights[:, None, None] * change, axis=0).T)
        return result[0], result[1]

    def _after(self, opened: _Opened, own: Ints, here: _Inputs, at: Ints, inputs: Ints) -> InputHum:
        """With connection `own` (its place among the opened) open, at the input beside it."""
        effects, elements = here.before.effects.only(at), here.before.effects.elements_of(at)
        pair, among_all = effects.input_of_element, here.elements[elements]
        connection = own[pair]
        read = opened.read[:, among_all, connection] * opened.own[:, inputs[pair], connection]
        weights = self._weights[:, among_all] - self._driving[:, among_all] * read
        per_unit = effects.across(weights, here.across, elements)
        moved = effects.sum_elements(weights * opened.moved[:, among_all, connection])
        _subtract_scaled(per_unit, moved, opened.flow, np.repeat(own, effects.counts))
        nominal = here.before.nominal[:, at] - opened.heard[:, inputs, own][:, :, None] * opened.flow[:, own]
        return InputHum(effects, nominal, per_unit, self._sizes)

    def _between(self, ends: Ints, columns: Ints) -> Complexes:
        """(frequencies, elements, columns) of the solution."""
        rows, at = np.unique(ends, return_inverse=True)
        first, second = at.reshape(ends.shape)
        values = self._solved.rows(rows, columns)
        result: Complexes = values[:, first] - values[:, second]
        return result

    def _adjoints_between(self, ends: Ints, functionals: Ints) -> Complexes:
        """(frequencies, elements, functionals)."""
        rows, at = np.unique(ends, return_inverse=True)
        first, second = at.reshape(ends.shape)
        row, functional = np.broadcast_arrays(rows[:, None], functionals[None, :])
        count = len(self._solved.frequencies_hz)
        values = self._solved.adjoint_at(row.ravel(), functional.ravel()).reshape(count, *row.shape)
        values[:, rows == EARTH] = 0.0
        result: Complexes = values[:, first] - values[:, second]
        return result


def _subtract_scaled(result: Complexes, scale: Complexes, values: Complexes, rows: Ints) -> None:
    """From `result`, (frequencies, n, columns), takes the rows of `values`, each times its scale, (frequencies, n)."""
    # A sparse product needs no copy of the rows.
    ends, shape = np.arange(len(rows) + 1), (len(rows), values.shape[1])
    for here, own, at in zip(result, scale, values, strict=True):
        here -= sparse.csr_matrix((own, rows, ends), shape=shape) @ at


def _not_zero(values: Complexes) -> Complexes:
    return np.where(np.abs(values) < TINY, TINY, values)


def _portions(count: int, step: int) -> Iterator[Ints]:
    for first in range(0, count, step):
        yield np.arange(first, min(count, first + step))
