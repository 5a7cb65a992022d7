"""What meters would read in the rig as it stands: a clamp meter round each lead, a voltmeter on each floating case.

All readings are true rms over every frequency of every disturbance. Different causes have no common phase: likely adds
them as powers, worst as sizes.
"""

from collections.abc import Sequence

import numpy as np

from ruvak.core.circuit.circuit import Circuit
from ruvak.core.results.hum_records import CaseVoltage, LeadCurrent
from ruvak.core.results.solving import NetworkSolution
from ruvak.core.rig.points import CHASSIS
from ruvak.core.solve.network import EARTH, Complexes, Floats

METER_OHM = 10e6
"""Input resistance of an ordinary digital voltmeter: common practice."""
BODY_OHM, SKIN_OHM, SKIN_F = 500.0, 1500.0, 0.22e-6
"""The body's network for measuring touch current, unweighted: IEC 60990, figure 3 (values from memory)."""

AT_ONCE = 64
"""Leads whose currents are read from the solution together: more save little and take memory."""


def floating_cases(circuit: Circuit) -> tuple[tuple[str, int], ...]:
    """(device, node of its chassis) of every device that nothing but capacitances ties to the building's earth."""
    nodes = ((gear, circuit.node_of.get(CHASSIS.of(gear), EARTH)) for gear in circuit.floating)
    return tuple((gear, node) for gear, node in nodes if node != EARTH)


def lead_currents(circuit: Circuit, solved: NetworkSolution, likely: Floats, worst: Floats) -> tuple[LeadCurrent, ...]:
    """Net current of all conductors of each lead, which is what a clamp closed round the whole lead reads.

    `likely`, `worst`: what the causes' unit solutions are multiplied by, (causes,).
    """
    branches_of: dict[str, list[int]] = {}
    for owner, of_cable in circuit.cables:
        branches_of.setdefault(owner, []).extend(of_cable)
    first, causes = circuit.network.node_count, np.arange(len(circuit.causes))
    leads, readings = list(branches_of.items()), list[LeadCurrent]()
    for start in range(0, len(leads), AT_ONCE):
        some = leads[start : start + AT_ONCE]
        rows = first + np.array([branch for _, branches in some for branch in branches], dtype=np.int64)
        starts = np.cumsum([0, *(len(branches) for _, branches in some)])[:-1]
        net = np.add.reduceat(solved.rows(rows, causes), starts, axis=1)
        for (owner, _), amperes in zip(some, net.transpose(1, 0, 2), strict=True):
            likely_a, worst_a = total_rms(amperes, likely, worst)
            readings.append(LeadCurrent(item=owner, likely_a=likely_a, worst_a=worst_a))
    return tuple(readings)


def case_voltages(
    circuit: Circuit,
    solved: NetworkSolution,
    cases: Sequence[tuple[str, int]],
    functionals: Sequence[int],
    likely: Floats,
    worst: Floats,
) -> tuple[CaseVoltage, ...]:
    """Each floating case against the building's earth with METER_OHM between, and with a person between.

    `functionals`: the number of each case's voltage among the solution's adjoints: its impedance to earth z loads what
    stands there to v Z / (z + Z) (Thevenin's theorem).
    """
    causes, result = np.arange(len(circuit.causes)), []
    body_ohm = BODY_OHM + SKIN_OHM / (1.0 + 2j * np.pi * solved.frequencies_hz * SKIN_OHM * SKIN_F)
    for (gear, node), functional in zip(cases, functionals, strict=True):
        row = np.array([node], dtype=np.int64)
        open_v = solved.rows(row, causes)[:, 0]
        ohm = solved.adjoint_at(row, np.array([functional], dtype=np.int64))[:, 0]
        likely_v, worst_v = total_rms(open_v * (METER_OHM / (ohm + METER_OHM))[:, None], likely, worst)
        touch_a, touch_worst_a = total_rms(open_v / (ohm + body_ohm)[:, None], likely, worst)
        result.append(
            CaseVoltage(
                gear=gear, likely_v=likely_v, worst_v=worst_v, touch_likely_a=touch_a, touch_worst_a=touch_worst_a
            )
        )
    return tuple(result)


def total_rms(per_unit: Complexes, likely: Floats, worst: Floats) -> tuple[float, float]:
    """Likely and worst reading over all frequencies, from (frequencies, causes) per unit of each cause."""
    sizes = np.abs(per_unit)
    return float(np.linalg.norm(sizes * likely)), float(np.linalg.norm((sizes * worst).sum(axis=1)))
