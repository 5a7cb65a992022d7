"""By which mechanism hum enters an input: each has a cure of its own.

direct: it stands between the legs already, in series with the programme (an unbalanced line's screen, a loop between
the legs). leg_imbalance: what both legs carry drives current through unequal impedances. rejection: the receiver takes
some of what both legs carry for programme. pin1: current in the screen contact. screen_coupling: current in a lead's
screen induces more into one core than into the other. field_mismatch: an electric field that no screen keeps out
reaches one core more than the other.
"""

from typing import get_args

import numpy as np

from ruvak.core.circuit.circuit import Circuit, HumToleranceCode, ToleranceCode
from ruvak.core.results.hum_records import MechanismCode
from ruvak.core.results.sensitivities import leg_adjoints, rejection_fall
from ruvak.core.results.solving import NetworkSolution
from ruvak.core.solve.network import Complexes, Floats, Ints

MECHANISMS: tuple[MechanismCode, ...] = get_args(MechanismCode)
MECHANISM_OF: dict[ToleranceCode | HumToleranceCode, MechanismCode] = {
    "source_leg_mismatch": "leg_imbalance",
    "input_leg_mismatch": "leg_imbalance",
    "core_screen_mismatch": "leg_imbalance",
    "channel_match": "leg_imbalance",
    "receiver_rejection": "rejection",
    "pin1": "pin1",
    "screen_coupling": "screen_coupling",
    "field_mismatch": "field_mismatch",
}
"""Of which mechanism each tolerance is a part."""
REMAINING_SHARE = 1e-3
"""Of an input's legs' conductance what is left when asking what stands between the legs of an input that draws nothing:
not zero, because legs tied to nothing else would have no potential."""


def nominal_by_mechanism(circuit: Circuit, solved: NetworkSolution, receivers: list[int], columns: Ints) -> Complexes:
    """What is known with its sign, in volts: (mechanisms, frequencies, receivers, columns). Adds up to receive().

    What a stated pin 1 impedance or a stated rejection adds is known by itself. The rest stands between the legs; what
    of it would still stand there if the input's legs drew (nearly) no current is direct, the remainder leg imbalance.
    """
    chosen = [circuit.receivers[number] for number in receivers]
    result = np.zeros((len(MECHANISMS), len(solved.frequencies_hz), len(chosen), len(columns)), dtype=np.complex128)
    first = circuit.network.node_count
    for place, receiver in enumerate(chosen):
        for branch, ohm in receiver.pin1:
            result[MECHANISMS.index("pin1"), :, place] += ohm * solved.rows(np.array([first + branch]), columns)[:, 0]
    legs = _leg_volts(circuit, solved, receivers, columns)
    across = legs[:, :, 0] - legs[:, :, 1]
    stated = np.array([receiver.stated_rejection for receiver in chosen])
    corners = np.array([receiver.rejection_corner_hz for receiver in chosen])
    fall = rejection_fall(corners, solved.frequencies_hz)
    result[MECHANISMS.index("rejection")] = (0.5 * stated * fall)[:, :, None] * legs.sum(axis=2)
    unloaded = np.linalg.solve(_unloading(circuit, solved, receivers), legs)
    direct = unloaded[:, :, 0] - unloaded[:, :, 1]
    result[MECHANISMS.index("direct")] = direct
    result[MECHANISMS.index("leg_imbalance")] = across - direct
    return result


def _leg_volts(circuit: Circuit, solved: NetworkSolution, receivers: list[int], columns: Ints) -> Complexes:
    """(frequencies, receivers, hot and cold, columns): each leg against the input's reference."""
    chosen = [circuit.receivers[number] for number in receivers]
    nodes = np.array([(choice.hot, choice.cold, choice.reference) for choice in chosen], dtype=np.int64)
    rows, at = np.unique(nodes, return_inverse=True)
    volts = solved.rows(rows, columns)[:, at.reshape(nodes.shape)]
    legs: Complexes = volts[:, :, :2] - volts[:, :, 2:]
    return legs


def _unloading(circuit: Circuit, solved: NetworkSolution, receivers: list[int]) -> Complexes:
    """(frequencies, receivers, 2, 2): I - Z G, Z the impedance seen from the two legs, G what is taken off them.

    Woodbury's identity: solved with it, the legs' voltages become those with the conductances taken off.
    """
    seen = leg_adjoints(circuit, solved, receivers)
    ohms = (seen[:, :, :2] - seen[:, :, 2:]).swapaxes(2, 3)
    taken_off: Floats = (1.0 - REMAINING_SHARE) * np.array(
        [circuit.receivers[number].leg_siemens for number in receivers]
    )
    values: Complexes = np.eye(2) - ohms * taken_off[None, :, None, :]
    return values


def mechanism_numbers(codes: list[ToleranceCode | HumToleranceCode]) -> Ints:
    """Which of MECHANISMS each of these tolerances is a part of, by its place."""
    return np.array([MECHANISMS.index(MECHANISM_OF[code]) for code in codes], dtype=np.int64)
