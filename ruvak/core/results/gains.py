"""From solved unknowns to what receivers make of them, and from adjoints to what each unknown may add.

First order in each unknown: dv = -y.(dA x) for an element, y.db for an emf. The unknowns are a few per cent
of their element, so the second order is some 40 dB below the first.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ruvak.core.circuit.circuit import Circuit, Receiver, Unknown
from ruvak.core.results.solving import Solved
from ruvak.core.solve.network import Complexes, Floats, Ints

REFERENCE_HZ = 1000.0
ABSENT_OHM = 1e9
"""A load above this is no load."""


@dataclass(frozen=True)
class Gains:
    """The programme at REFERENCE_HZ: volts per volt of emf, complex."""

    circuit: Circuit
    solved: Solved

    def nominal(self, receivers: Sequence[int], drives: Sequence[int]) -> Complexes:
        """(receivers, drives)."""
        found: Complexes = received(self.circuit, self.solved, receivers, drives)[0]
        return found

    def effects(self, unknowns: Sequence[Unknown], receivers: Sequence[int], drives: Sequence[int]) -> Complexes:
        """(unknowns, receivers, drives): change of each gain per unit of the unknown."""
        found: Complexes = effects_of(self.circuit, self.solved, unknowns, receivers, drives, programme=True)[0]
        return found

    def leg_ohm(self, number: int) -> Floats:
        """Impedance of hot and of cold to the input's reference, and between the two."""
        receiver = self.circuit.receivers[number]
        rows = np.array([receiver.hot, receiver.cold, receiver.reference], dtype=np.int64)
        hot, cold, reference = self.solved.adjoint_rows(rows, np.array([2 * number, 2 * number + 1]))[0]
        between = abs(self.between_ohm(number)[0])
        return np.array([abs(hot[0] - reference[0]), abs(cold[1] - reference[1]), between])

    def between_ohm(self, number: int) -> Complexes:
        """Impedance between an input's legs at every frequency solved, complex, the input's own included."""
        receiver = self.circuit.receivers[number]
        rows = np.array([receiver.hot, receiver.cold], dtype=np.int64)
        both = self.solved.adjoint_rows(rows, np.array([2 * number, 2 * number + 1]))
        across = both[:, :, 0] - both[:, :, 1]
        found: Complexes = across[:, 0] - across[:, 1]
        return found

    def load_ohm(self, number: int) -> float:
        """What is left of a drive's emf over current once its own impedance is taken off, its worst leg, as loop."""
        drive = self.circuit.drives[number]
        nodes = [self.circuit.node_of[f"{drive.gear}.{channel.hot}"] for channel in drive.output.channels]
        if len(set(nodes)) < len(nodes):
            # A left/mono socket adds its own two sides; what they make of each other is how it is built.
            return ABSENT_OHM
        legs = 2.0 if drive.output.type == "balanced" and drive.output.topology != "impedance" else 1.0
        found = [ABSENT_OHM]
        for ampere, (branch, gain) in zip(self._drive_amperes(number), drive.branch_gains, strict=True):
            if gain and abs(ampere) > abs(gain) / ABSENT_OHM:
                found.append(legs * float(abs(gain / ampere - self.circuit.network.branch_ohms[branch])))
        return min(found)

    def terminal_gain(self, number: int) -> float:
        """What is left of a drive's emf at its own contacts, as it is loaded; volts per volt."""
        drive = self.circuit.drives[number]
        ohms = np.array([self.circuit.network.branch_ohms[branch] for branch, _ in drive.branch_gains])
        own = np.array([gain for _, gain in drive.branch_gains])
        return float(np.abs(own - self._drive_amperes(number) * ohms).sum())

    def _drive_amperes(self, number: int) -> Complexes:
        """Current in each branch a drive drives, at the first frequency."""
        branches = [branch for branch, _ in self.circuit.drives[number].branch_gains]
        rows = self.circuit.network.node_count + np.array(branches, dtype=np.int64)
        found: Complexes = self.solved.rows(rows, np.array([number]))[0, :, 0]
        return found


def received(circuit: Circuit, solved: Solved, receivers: Sequence[int], columns: Sequence[int]) -> Complexes:
    """What receivers make of the solved voltages: (frequencies, receivers, columns), volts."""
    which = np.array(columns, dtype=np.int64)
    out = np.zeros((len(solved.frequencies_hz), len(receivers), len(columns)), dtype=np.complex128)
    for index, number in enumerate(receivers):
        receiver = circuit.receivers[number]
        legs = _leg_volts(_Rows(solved, which, leg_rows(circuit, receiver)), circuit, receiver)
        common = receiver.stated_rejection * rejection_fall(receiver, solved.frequencies_hz)
        out[:, index] = legs[0] - legs[1] + 0.5 * (legs[0] + legs[1]) * common[:, None]
    return out


def rejection_fall(receiver: Receiver, frequencies_hz: Floats) -> Floats:
    """By how much the rejection's ratio grows with frequency: 6 dB an octave above its corner."""
    return np.maximum(1.0, frequencies_hz / receiver.rejection_corner_hz)


class _Rows:
    """Rows of a solution by their number, fetched together."""

    def __init__(self, solved: Solved, columns: Ints, rows: set[int]) -> None:
        self._order = {row: index for index, row in enumerate(sorted(rows))}
        self._values = solved.rows(np.array(sorted(rows), dtype=np.int64), columns)

    def __getitem__(self, row: int) -> Complexes:
        found: Complexes = self._values[:, self._order[row]]
        return found


def leg_rows(circuit: Circuit, receiver: Receiver) -> set[int]:
    """The unknowns of the network that an input reads."""
    branches = {circuit.network.node_count + branch for branch, _ in receiver.pin1}
    return {receiver.hot, receiver.cold, receiver.reference} | branches


def _leg_volts(rows: _Rows, circuit: Circuit, receiver: Receiver) -> tuple[Complexes, Complexes]:
    reference = rows[receiver.reference]
    hot, cold = rows[receiver.hot] - reference, rows[receiver.cold] - reference
    for branch, ohm in receiver.pin1:
        current = rows[circuit.network.node_count + branch]
        hot, cold = hot + 0.5 * ohm * current, cold - 0.5 * ohm * current
    return hot, cold


def effects_of(
    circuit: Circuit,
    solved: Solved,
    unknowns: Sequence[Unknown],
    receivers: Sequence[int],
    columns: Sequence[int],
    programme: bool = False,
) -> Complexes:
    """What a unit of each unknown adds at each of these receivers: (frequencies, unknowns, receivers, columns).

    `programme`: the columns are the drives, so that unknown emfs count.
    """
    shape = (len(solved.frequencies_hz), len(unknowns), len(receivers), len(columns))
    found = np.zeros(shape, dtype=np.complex128)
    if not receivers or not unknowns:
        return found
    rows = {row for unknown in unknowns for row in rows_of(circuit, unknown)}
    for number in receivers:
        rows |= leg_rows(circuit, circuit.receivers[number])
    order = np.array(sorted(rows), dtype=np.int64)
    x = _Rows(solved, np.array(columns, dtype=np.int64), rows)
    fall = np.array([rejection_fall(circuit.receivers[number], solved.frequencies_hz) for number in receivers]).T
    stated = np.array([circuit.receivers[number].stated_rejection for number in receivers])
    legs = np.array(receivers, dtype=np.int64) * 2
    hot, cold = solved.adjoint_rows(order, legs), solved.adjoint_rows(order, legs + 1)
    folded = hot - cold + 0.5 * (stated * fall)[:, None, :] * (hot + cold)
    y = {row: folded[:, index] for index, row in enumerate(order.tolist())}
    for index, unknown in enumerate(unknowns):
        found[:, index] = _element_effect(circuit, solved, unknown, x, y)
        if programme:
            for branch, relative in unknown.emfs:
                own = np.array([dict(circuit.drives[column].branch_gains).get(branch, 0.0) for column in columns])
                found[:, index] -= relative * y[circuit.network.node_count + branch][:, :, None] * own
        if unknown.receiver is not None and unknown.receiver in receivers:
            at = list(receivers).index(unknown.receiver)
            if unknown.currents:
                for branch, ohm in unknown.currents:
                    found[:, index, at] += ohm * x[circuit.network.node_count + branch]
            else:
                hot_v, cold_v = _leg_volts(x, circuit, circuit.receivers[unknown.receiver])
                found[:, index, at] += 0.5 * fall[:, at, None] * (hot_v + cold_v)
    return found


def rows_of(circuit: Circuit, unknown: Unknown) -> set[int]:
    """The unknowns of the network that an uncertain element touches."""
    network, first = circuit.network, circuit.network.node_count
    nodes = {node for number, _ in unknown.conductances for node in network.conductances[number][:2]}
    nodes |= {node for number, _ in unknown.capacitances for node in network.capacitances[number][:2]}
    branches = {branch for branch, _ in (*unknown.branch_ohms, *unknown.emfs, *unknown.currents)}
    pairs = (*unknown.branch_henries, *unknown.transresistances)
    branches |= {branch for one, other, _ in pairs for branch in (one, other)}
    return nodes | {first + branch for branch in branches}


def _element_effect(
    circuit: Circuit, solved: Solved, unknown: Unknown, x: _Rows, y: dict[int, Complexes]
) -> Complexes | float:
    network, first = circuit.network, circuit.network.node_count
    omega = 2j * np.pi * solved.frequencies_hz[:, None, None]
    change: Complexes | float = 0.0

    def product(one: Complexes, other: Complexes) -> Complexes:
        outer: Complexes = one[:, :, None] * other[:, None, :]
        return outer

    for number, siemens in unknown.conductances:
        a, b, _ = network.conductances[number]
        change = change - siemens * product(y[a] - y[b], x[a] - x[b])
    for number, farad in unknown.capacitances:
        a, b, _ = network.capacitances[number]
        change = change - omega * farad * product(y[a] - y[b], x[a] - x[b])
    for branch, ohm in unknown.branch_ohms:
        change = change + ohm * product(y[first + branch], x[first + branch])
    for one, other, henry in unknown.branch_henries:
        i, j = first + one, first + other
        change = change + omega * henry * (product(y[i], x[j]) + product(y[j], x[i]))
    for driven, sensed, ohm in unknown.transresistances:
        change = change - ohm * product(y[first + driven], x[first + sensed])
    return change
