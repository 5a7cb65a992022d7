"""What disturbances leave at each input: per cause and frequency, likely and worst.

A cause's emfs add as phasors; different causes have no common phase, so likely adds them as powers and worst as
sizes. What is of unknown sign (mismatches, rejection, pin 1, a screen's coupling) widens each cause the same way,
to first order. Frequencies always add as powers: they are different tones.
"""

import math
from dataclasses import dataclass

import numpy as np

from ruvak.core.circuit.circuit import Cause, Circuit
from ruvak.core.results.gains import effects_of, leg_functionals, received
from ruvak.core.results.records import CauseShare, Hum, Tone
from ruvak.core.results.weighting import a_weighting_db
from ruvak.core.solve.network import Complexes
from ruvak.core.solve.solver import Solution, System
from ruvak.core.units import dbu_from_volts

QUIETEST_DBU = -200.0
"""Below this nothing is told apart: 0.1 nV."""


@dataclass(frozen=True)
class Disturbed:
    """One frequency solved: `causes` number the circuit's, a column each of the solution."""

    frequency_hz: float
    causes: tuple[int, ...]
    emfs: Complexes
    solution: Solution


def disturbed(circuit: Circuit, system: System) -> tuple[Disturbed, ...]:
    """The network under every cause, frequency by frequency."""
    legs = leg_functionals(circuit)
    found = []
    for frequency_hz, causes, emfs in cause_emfs(circuit):
        solution = system.solve(np.array([frequency_hz]), emfs, legs)
        found.append(Disturbed(frequency_hz, causes, emfs, solution))
    return tuple(found)


def cause_emfs(circuit: Circuit) -> list[tuple[float, tuple[int, ...], Complexes]]:
    """By frequency: the causes that have a line there, and their emfs, (branches, causes), volts rms."""
    at: dict[float, dict[int, tuple[tuple[int, complex], ...]]] = {}
    for number, cause in enumerate(circuit.causes):
        for line in cause.lines:
            at.setdefault(line.frequency_hz, {})[number] = line.emfs
    found = []
    for frequency_hz, by_cause in sorted(at.items()):
        emfs = np.zeros((circuit.network.branch_count, len(by_cause)), dtype=np.complex128)
        for column, pattern in enumerate(by_cause.values()):
            for branch, volts in pattern:
                emfs[branch, column] += volts
        found.append((frequency_hz, tuple(by_cause), emfs))
    return found


def hum_at(
    circuit: Circuit, solved: tuple[Disturbed, ...], receiver: int, owners: set[str], programme_dbu: float | None
) -> Hum:
    """One input's hum. `owners`: what belongs to its run, whose unknowns matter; `programme_dbu`: what arrives."""
    unknowns = [one for one in (*circuit.unknowns, *circuit.hum_unknowns) if one.owner.split(".")[0] in owners]
    likely_of = np.array([one.likely for one in unknowns])
    worst_of = np.array([one.worst for one in unknowns])
    shares: dict[int, list[tuple[float, float, float]]] = {}
    for one in solved:
        nominal = received(circuit, one.solution)[0][receiver]
        effects = np.abs(effects_of(circuit, one.solution, unknowns, [receiver], one.emfs)[:, 0, :])
        likely_v = np.sqrt(np.abs(nominal) ** 2 + ((likely_of[:, None] * effects) ** 2).sum(axis=0))
        worst_v = np.abs(nominal) + (worst_of[:, None] * effects).sum(axis=0)
        for column, number in enumerate(one.causes):
            cause = circuit.causes[number]
            tone = one.frequency_hz, float(cause.likely * likely_v[column]), float(cause.worst * worst_v[column])
            shares.setdefault(number, []).append(tone)
    return _summed([(circuit.causes[number], tones) for number, tones in shares.items()], programme_dbu)


def _summed(shares: list[tuple[Cause, list[tuple[float, float, float]]]], programme_dbu: float | None) -> Hum:
    """Causes to tones to totals."""
    at: dict[float, list[tuple[float, float]]] = {}
    for _, tones in shares:
        for frequency_hz, likely_v, worst_v in tones:
            at.setdefault(frequency_hz, []).append((likely_v, worst_v))
    tones = [
        (hz, math.hypot(*(likely for likely, _ in pairs)), sum(worst for _, worst in pairs))
        for hz, pairs in sorted(at.items())
    ]
    weights = [10.0 ** (a_weighting_db(hz) / 20.0) for hz, _, _ in tones]
    weighted = _rms([weight * likely for weight, (_, likely, _) in zip(weights, tones, strict=True)])
    weighted_worst = _rms([weight * worst for weight, (_, _, worst) in zip(weights, tones, strict=True)])
    return Hum(
        likely_dbu=_rms([likely for _, likely, _ in tones]),
        worst_dbu=_rms([worst for _, _, worst in tones]),
        weighted_dbu=weighted,
        weighted_worst_dbu=weighted_worst,
        below_programme_db=programme_dbu - weighted if programme_dbu is not None else None,
        below_programme_worst_db=programme_dbu - weighted_worst if programme_dbu is not None else None,
        tones=tuple(_tone(*tone) for tone in tones),
        causes=tuple(sorted((_share(*share) for share in shares), key=lambda share: -share.weighted_dbu)),
    )


def _rms(volts: list[float]) -> float:
    return level(math.hypot(*volts))


def _tone(frequency_hz: float, likely_v: float, worst_v: float) -> Tone:
    return Tone(frequency_hz=frequency_hz, likely_dbu=level(likely_v), worst_dbu=level(worst_v))


def _share(cause: Cause, tones: list[tuple[float, float, float]]) -> CauseShare:
    weights = [10.0 ** (a_weighting_db(hz) / 20.0) for hz, _, _ in tones]
    return CauseShare(
        code=cause.code,
        owner=cause.owner,
        likely_dbu=_rms([likely for _, likely, _ in tones]),
        worst_dbu=_rms([worst for _, _, worst in tones]),
        weighted_dbu=_rms([w * likely for w, (_, likely, _) in zip(weights, tones, strict=True)]),
        tones=tuple(_tone(*tone) for tone in tones),
    )


def level(volts: float) -> float:
    """dBu, not below QUIETEST_DBU."""
    return max(QUIETEST_DBU, dbu_from_volts(volts)) if volts > 0.0 else QUIETEST_DBU
