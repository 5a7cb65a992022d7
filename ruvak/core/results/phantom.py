"""Phantom supply at direct current: what reaches microphones, and what it does to everything else it reaches.

Capacitors are open, coils are their wire; what hangs on capacitances alone gets 1 Gohm to earth. A microphone's
electronics draw their current whatever the voltage, equally from both legs: through a resistor from each, or through
the halves of the output transformer's winding. Where nobody knows which, both are solved and give a range.
"""

from dataclasses import replace

import numpy as np
from scipy import sparse
from scipy.sparse.linalg import splu

from ruvak.core.circuit.circuit import Circuit, Sink
from ruvak.core.results.records import PhantomAt
from ruvak.core.solve.islands import islands
from ruvak.core.solve.network import EARTH, Bundle, Floats, Network
from ruvak.core.solve.solver import entries_of

FLOATING_OHM = 1e9


class Phantom:
    """The rig's direct voltages, solved once. Without any feed there is only what is wanted and missing to tell."""

    def __init__(self, circuit: Circuit) -> None:
        self.circuit = circuit
        self._volts, self._drawing = _settle(circuit)
        self._otherwise = self._volts, self._drawing
        if any(sink.other_leg_ohm != sink.leg_ohm for sink in circuit.sinks):
            sinks = tuple(replace(sink, leg_ohm=sink.other_leg_ohm) for sink in circuit.sinks)
            self._otherwise = _settle(replace(circuit, sinks=sinks))

    def at(self, numbers: list[int]) -> tuple[PhantomAt, ...]:
        """For these drives' outputs: what stands there and flows."""
        return tuple(self._at(number) for number in numbers if self.circuit.feeds or self.circuit.sinks[number].ampere)

    def _at(self, number: int) -> PhantomAt:
        sink, drive = self.circuit.sinks[number], self.circuit.drives[number]
        hot, cold = self._leg_volts(number, self._volts, self._drawing)
        middles = (0.5 * (hot + cold), 0.5 * sum(self._leg_volts(number, *self._otherwise)))
        first = self.circuit.network.node_count
        legs = [float(self._volts[first + branch]) for branch, _ in drive.branch_gains]
        return PhantomAt(
            gear=sink.gear,
            output=sink.output,
            channel=sink.channel,
            wanted_a=sink.ampere or None,
            wanted_v=sink.min_v or None,
            volt=middles[0],
            volt_low=min(middles),
            volt_high=max(middles),
            across_v=hot - cold,
            leg_a=max((abs(ampere) for ampere in legs), default=0.0),
        )

    def _leg_volts(self, number: int, volts: Floats, drawing: list[bool]) -> tuple[float, float]:
        """Hot and cold against the reference; of an unbalanced output both are its hot."""
        sink = self.circuit.sinks[number]
        if sink.ampere and not drawing[number]:
            # What stands on a line that can feed nothing goes as soon as anything wants current.
            return 0.0, 0.0
        reference = _of(volts, sink.reference)
        hot, cold = _of(volts, sink.hot) - reference, _of(volts, sink.cold) - reference
        return hot, cold if len(sink.legs) > 1 else hot


def _of(volts: Floats, node: int) -> float:
    return 0.0 if node == EARTH else float(volts[node])


def _settle(circuit: Circuit) -> tuple[Floats, list[bool]]:
    """NetworkSolution again without those that get nothing: a microphone draws no current out of an empty line."""
    if not circuit.feeds:
        return np.zeros(circuit.network.size), [False] * len(circuit.sinks)
    drawing = [bool(sink.ampere) for sink in circuit.sinks]
    while True:
        volts = _solve(circuit, drawing)
        still = [on and _middle(volts, sink) > 0.0 for on, sink in zip(drawing, circuit.sinks, strict=True)]
        if still == drawing:
            return volts, drawing
        drawing = still


def _middle(volts: Floats, sink: Sink) -> float:
    return sum(_of(volts, leg) for leg in sink.legs) / len(sink.legs) - _of(volts, sink.reference)


def _solve(circuit: Circuit, drawing: list[bool]) -> Floats:
    """Node voltages and branch currents at direct current."""
    fed = {
        branch
        for drive, sink in zip(circuit.drives, circuit.sinks, strict=True)
        if sink.ampere
        for branch, _ in drive.branch_gains
    }
    network = _at_dc(circuit.network, fed, {index for receiver in circuit.receivers for index in receiver.coupled})
    loose = islands(network)
    ties = tuple((min(group), EARTH, 1.0 / FLOATING_OHM) for group in loose)
    supply = tuple((leg, feed.reference, 1.0 / feed.ohm) for feed in circuit.feeds for leg in feed.legs)
    fed_by = [sink for sink, on in zip(circuit.sinks, drawing, strict=True) if on]
    entries = entries_of(replace(network, conductances=(*network.conductances, *ties, *supply)))
    size = network.size + len(fed_by)
    rows, columns, values = [entries.rows], [entries.columns], [entries.values.real]
    right = np.zeros(size)

    def inject(node: int, ampere: float) -> None:
        if node != EARTH:
            right[node] += ampere

    for feed in circuit.feeds:
        for leg in feed.legs:
            inject(leg, feed.volt / feed.ohm)
            inject(feed.reference, -feed.volt / feed.ohm)
    for inner, sink in enumerate(fed_by, network.size):
        # The electronics hang on a node of their own, between the two legs.
        inject(inner, -sink.ampere)
        inject(sink.reference, sink.ampere)
        for leg in (leg for leg in sink.legs if leg != EARTH):
            rows.append(np.array([leg, inner, leg, inner]))
            columns.append(np.array([leg, inner, inner, leg]))
            values.append(np.array([1.0, 1.0, -1.0, -1.0]) / sink.leg_ohm)
    where = (np.concatenate(rows), np.concatenate(columns))
    matrix = sparse.csc_matrix((np.concatenate(values), where), shape=(size, size))
    result: Floats = splu(matrix).solve(right)
    return result


def _at_dc(network: Network, blocked: set[int], coupled: set[int]) -> Network:
    """Capacitors open, coils their wire alone.

    `blocked`: legs of microphones that phantom feeds, which pass no DC; `coupled`: conductances behind capacitors.
    Millivolts across a screen contact do not matter here.
    """
    bundles, first = [], 0
    for bundle in network.bundles:
        nothing = tuple(tuple(0.0 for _ in row) for row in bundle.henry)
        if any(first + k in blocked for k in range(len(bundle.a))):
            # A branch from a node to itself carries nothing.
            b = tuple(a if first + k in blocked else b for k, (a, b) in enumerate(zip(bundle.a, bundle.b, strict=True)))
            ohm = tuple(1.0 if first + k in blocked else ohm for k, ohm in enumerate(bundle.ohm))
            bundles.append(Bundle(bundle.a, b, ohm, nothing))
        else:
            bundles.append(Bundle(bundle.a, bundle.b, bundle.ohm, nothing))
        first += len(bundle.a)
    kept = tuple(conductance for number, conductance in enumerate(network.conductances) if number not in coupled)
    return replace(network, conductances=kept, capacitances=(), bundles=tuple(bundles), transresistances=())
