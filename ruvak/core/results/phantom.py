"""Phantom supply at direct current: what reaches microphones, and what it does to everything else it reaches.

Capacitors are open, coils are their wire; what hangs on capacitances alone gets 1 Gohm to earth. A microphone's
electronics draw their current whatever the voltage, through equal resistors from both legs.
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
    """The rig's direct voltages, solved once; None of its answers where no input feeds phantom."""

    def __init__(self, circuit: Circuit) -> None:
        self.circuit = circuit
        self._volts: Floats | None = _solved(circuit) if circuit.feeds else None

    def at(self, numbers: list[int]) -> tuple[PhantomAt, ...]:
        """For these drives' outputs: what stands there and flows."""
        if self._volts is None:
            return ()
        return tuple(self._at(self.circuit.sinks[number], self._volts) for number in numbers)

    def _at(self, sink: Sink, volts: Floats) -> PhantomAt:
        reference = _of(volts, sink.reference)
        hot, cold = _of(volts, sink.hot) - reference, _of(volts, sink.cold) - reference
        drive = self.circuit.drives[self.circuit.sinks.index(sink)]
        first = self.circuit.network.node_count
        legs = [float(volts[first + branch]) for branch, _ in drive.branch_gains]
        return PhantomAt(
            gear=sink.gear,
            output=sink.output,
            channel=sink.channel,
            wanted_a=sink.ampere or None,
            wanted_v=sink.min_v or None,
            volt=0.5 * (hot + cold),
            across_v=hot - cold,
            leg_a=max((abs(ampere) for ampere in legs), default=0.0),
        )


def _of(volts: Floats, node: int) -> float:
    return 0.0 if node == EARTH else float(volts[node])


def _solved(circuit: Circuit) -> Floats:
    """Node voltages and branch currents at direct current."""
    fed = {
        branch
        for drive, sink in zip(circuit.drives, circuit.sinks, strict=True)
        if sink.ampere
        for branch, _ in drive.branch_gains
    }
    network = _at_dc(circuit.network, fed)
    loose = islands(network)
    ties = tuple((min(group), EARTH, 1.0 / FLOATING_OHM) for group in loose)
    supply = tuple((leg, feed.reference, 1.0 / feed.ohm) for feed in circuit.feeds for leg in (feed.hot, feed.cold))
    fed_by = [sink for sink in circuit.sinks if sink.ampere]
    entries = entries_of(replace(network, conductances=(*network.conductances, *ties, *supply)))
    size = network.size + len(fed_by)
    rows, columns, values = [entries.rows], [entries.columns], [entries.values.real]
    right = np.zeros(size)

    def inject(node: int, ampere: float) -> None:
        if node != EARTH:
            right[node] += ampere

    for feed in circuit.feeds:
        for leg in (feed.hot, feed.cold):
            inject(leg, feed.volt / feed.ohm)
            inject(feed.reference, -feed.volt / feed.ohm)
    for inner, sink in enumerate(fed_by, network.size):
        # The electronics hang on a node of their own, between the two legs.
        inject(inner, -sink.ampere)
        inject(sink.reference, sink.ampere)
        for leg in (one for one in (sink.hot, sink.cold) if one != EARTH):
            rows.append(np.array([leg, inner, leg, inner]))
            columns.append(np.array([leg, inner, inner, leg]))
            values.append(np.array([1.0, 1.0, -1.0, -1.0]) / sink.leg_ohm)
    where = (np.concatenate(rows), np.concatenate(columns))
    matrix = sparse.csc_matrix((np.concatenate(values), where), shape=(size, size))
    found: Floats = splu(matrix).solve(right)
    return found


def _at_dc(network: Network, blocked: set[int]) -> Network:
    """Capacitors open, coils their wire alone; `blocked`: legs of microphones that phantom feeds, which pass no DC."""
    bundles, first = [], 0
    for one in network.bundles:
        nothing = tuple(tuple(0.0 for _ in row) for row in one.henry)
        if any(first + k in blocked for k in range(len(one.a))):
            # A branch from a node to itself carries nothing.
            b = tuple(a if first + k in blocked else b for k, (a, b) in enumerate(zip(one.a, one.b, strict=True)))
            ohm = tuple(1.0 if first + k in blocked else ohm for k, ohm in enumerate(one.ohm))
            bundles.append(Bundle(one.a, b, ohm, nothing))
        else:
            bundles.append(Bundle(one.a, one.b, one.ohm, nothing))
        first += len(one.a)
    return replace(network, capacitances=(), bundles=tuple(bundles))
