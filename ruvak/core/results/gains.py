"""From node voltages to gains, and from adjoints to what each unknown may add to them.

First order in each unknown: dv = -y.(dA x) for an element, y.db for an emf. The unknowns are a few per cent
of their element, so the second order is some 40 dB below the first.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ruvak.core.circuit.circuit import Circuit, Receiver, Unknown
from ruvak.core.solve.network import EARTH, Complexes, Floats
from ruvak.core.solve.solver import Solution, System

REFERENCE_HZ = 1000.0
ABSENT_OHM = 1e9
"""A load above this is no load."""


@dataclass(frozen=True)
class Gains:
    """At REFERENCE_HZ. `nominal`: (receivers, drives), volts per volt of emf, complex.

    `effects`: (unknowns, receivers, drives): change of that gain per unit of the unknown.
    `leg_ohm`: (receivers, 3): impedance of hot and of cold to the input's reference, and between the two.
    """

    nominal: Complexes
    effects: Complexes
    leg_ohm: Floats
    load_ohm: Floats
    """(drives,): what each drive's output has to drive."""


def drive_emfs(circuit: Circuit) -> Floats:
    """Right-hand sides, one column a drive: (branches, drives)."""
    emfs = np.zeros((circuit.network.branch_count, len(circuit.drives)))
    for column, drive in enumerate(circuit.drives):
        for branch, gain in drive.branch_gains:
            emfs[branch, column] += gain
    return emfs


def gains(circuit: Circuit, system: System) -> Gains:
    """Solves the circuit's system at the reference frequency, with adjoints for every receiver's two legs."""
    emfs = drive_emfs(circuit)
    legs = leg_functionals(circuit)
    solution = system.solve(np.array([REFERENCE_HZ]), emfs, legs)
    nominal = received(circuit, solution)[0]
    everyone = list(range(len(circuit.receivers)))
    effects = effects_of(circuit, solution, circuit.unknowns, everyone, emfs)
    impedances = np.zeros((len(circuit.receivers), 3))
    for index in range(len(circuit.receivers)):
        hot, cold = solution.adjoints[0][:, 2 * index], solution.adjoints[0][:, 2 * index + 1]
        pick = legs[:, 2 * index], legs[:, 2 * index + 1]
        between = (pick[0] - pick[1]) @ (hot - cold)
        impedances[index] = abs(pick[0] @ hot), abs(pick[1] @ cold), abs(between)
    return Gains(nominal=nominal, effects=effects, leg_ohm=impedances, load_ohm=_loads(circuit, solution))


def leg_functionals(circuit: Circuit) -> Floats:
    """What to read of the unknowns: hot and cold of each receiver against its reference, (size, 2 receivers).

    A stated pin 1 impedance adds its current's volts to hot minus cold, and nothing to what both carry.
    """
    legs = np.zeros((circuit.network.size, 2 * len(circuit.receivers)))
    for index, receiver in enumerate(circuit.receivers):
        for column, node, half in ((2 * index, receiver.hot, 0.5), (2 * index + 1, receiver.cold, -0.5)):
            for at, weight in ((node, 1.0), (receiver.reference, -1.0)):
                if at != EARTH:
                    legs[at, column] += weight
            for branch, ohm in receiver.pin1:
                legs[circuit.network.node_count + branch, column] += half * ohm
    return legs


def _loads(circuit: Circuit, solution: Solution) -> Floats:
    """What is left of a drive's emf over current once its own impedance is taken off, its worst leg, as loop."""
    own_ohm = np.array([ohm for bundle in circuit.network.bundles for ohm in bundle.ohm])
    loads = np.zeros(len(circuit.drives))
    for column, drive in enumerate(circuit.drives):
        legs = 2.0 if drive.output.type == "balanced" and drive.output.topology != "impedance" else 1.0
        found = [ABSENT_OHM]
        nodes = [circuit.node_of[f"{drive.gear}.{channel.hot}"] for channel in drive.output.channels]
        if len(set(nodes)) < len(nodes):
            # A left/mono socket adds its own two sides; what they make of each other is how it is built.
            loads[column] = ABSENT_OHM
            continue
        for branch, gain in drive.branch_gains:
            ampere = solution.unknowns[0, circuit.network.node_count + branch, column]
            if gain and abs(ampere) > abs(gain) / ABSENT_OHM:
                found.append(legs * float(abs(gain / ampere - own_ohm[branch])))
        loads[column] = min(found)
    return loads


def received(circuit: Circuit, solution: Solution) -> Complexes:
    """What each receiver makes of the solved voltages: (frequencies, receivers, columns), volts."""
    out = np.zeros(
        (len(solution.frequencies_hz), len(circuit.receivers), solution.unknowns.shape[2]), dtype=np.complex128
    )
    for index, receiver in enumerate(circuit.receivers):
        hot, cold = _leg_volts(solution, receiver, circuit.network.node_count)
        common = receiver.stated_rejection * rejection_fall(receiver, solution.frequencies_hz)
        out[:, index] = hot - cold + 0.5 * (hot + cold) * common[:, None]
    return out


def rejection_fall(receiver: Receiver, frequencies_hz: Floats) -> Floats:
    """By how much the rejection's ratio grows with frequency: 6 dB an octave above its corner."""
    return np.maximum(1.0, frequencies_hz / receiver.rejection_corner_hz)


def _leg_volts(solution: Solution, receiver: Receiver, rows: int) -> tuple[Complexes, Complexes]:
    reference = _at(solution.unknowns, receiver.reference)
    hot, cold = _at(solution.unknowns, receiver.hot) - reference, _at(solution.unknowns, receiver.cold) - reference
    for branch, ohm in receiver.pin1:
        current = solution.unknowns[:, rows + branch]
        hot, cold = hot + 0.5 * ohm * current, cold - 0.5 * ohm * current
    return hot, cold


def _at(values: Complexes, node: int) -> Complexes:
    """(frequencies, columns) of one node; zeros for the reference."""
    if node == EARTH:
        return np.zeros((values.shape[0], values.shape[2]), dtype=np.complex128)
    picked: Complexes = values[:, node]
    return picked


def effects_of(
    circuit: Circuit, solution: Solution, unknowns: Sequence[Unknown], numbers: list[int], emfs: Complexes | Floats
) -> Complexes:
    """What a unit of each unknown adds at each of these receivers, at the solution's first frequency.

    (unknowns, receivers, columns of the solution).
    """
    receivers = [circuit.receivers[number] for number in numbers]
    frequency_hz = solution.frequencies_hz[:1]
    omega = 2j * np.pi * float(frequency_hz[0])
    fall = np.array([float(rejection_fall(one, frequency_hz)[0]) for one in receivers])
    stated = np.array([one.stated_rejection for one in receivers])
    columns = np.array(numbers, dtype=np.int64) * 2
    hot, cold = solution.adjoints[0][:, columns], solution.adjoints[0][:, columns + 1]
    # One more row of zeros, so that EARTH (-1) reads as zero.
    y = _grounded(hot - cold + 0.5 * (stated * fall) * (hot + cold))
    x = _grounded(solution.unknowns[0])
    network, rows = circuit.network, circuit.network.node_count
    effects = np.zeros((len(unknowns), len(receivers), x.shape[1]), dtype=np.complex128)
    for change, unknown in zip(effects, unknowns, strict=True):
        for number, siemens in unknown.conductances:
            a, b, _ = network.conductances[number]
            change -= siemens * np.outer(y[a] - y[b], x[a] - x[b])
        for number, farad in unknown.capacitances:
            a, b, _ = network.capacitances[number]
            change -= omega * farad * np.outer(y[a] - y[b], x[a] - x[b])
        for branch, ohm in unknown.branch_ohms:
            change += ohm * np.outer(y[rows + branch], x[rows + branch])
        for one, other, henry in unknown.branch_henries:
            i, j = rows + one, rows + other
            change += omega * henry * (np.outer(y[i], x[j]) + np.outer(y[j], x[i]))
        for branch, relative in unknown.emfs:
            change -= relative * np.outer(y[rows + branch], emfs[branch])
        if unknown.receiver is not None and unknown.receiver in numbers:
            at = numbers.index(unknown.receiver)
            if unknown.currents:
                for branch, ohm in unknown.currents:
                    change[at] += ohm * x[rows + branch]
            else:
                hot_v, cold_v = _leg_volts(solution, receivers[at], rows)
                change[at] += fall[at] * 0.5 * (hot_v + cold_v)[0]
    return effects


def _grounded(values: Complexes) -> Complexes:
    return np.vstack([values, np.zeros((1, values.shape[1]), dtype=values.dtype)])
