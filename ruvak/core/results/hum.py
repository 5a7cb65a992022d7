"""What disturbances leave at each input: per cause and frequency, likely and worst.

A cause's emfs add as phasors; different causes have no common phase, so likely adds them as powers and worst as
sizes. What is of unknown sign (mismatches, rejection, pin 1, a screen's coupling) widens each cause the same way,
to first order. Frequencies always add as powers: they are different tones.
"""

import math
from collections.abc import Iterator, Sequence
from copy import copy
from dataclasses import dataclass

import numpy as np

from ruvak.core.circuit.circuit import Circuit
from ruvak.core.results.connection_openings import ConnectionOpenings
from ruvak.core.results.hum_records import (
    CaseVoltage,
    CauseShare,
    Hum,
    LeadCurrent,
    MechanismCode,
    MechanismShare,
    Tones,
)
from ruvak.core.results.input_hum import Sizes
from ruvak.core.results.mechanisms import MECHANISMS, mechanism_numbers, nominal_by_mechanism
from ruvak.core.results.meters import case_voltages, lead_currents, total_rms
from ruvak.core.results.norton import NortonEquivalent
from ruvak.core.results.prefetched import prefetch
from ruvak.core.results.sensitivities import Sensitivities, receive
from ruvak.core.results.solving import NetworkSolution, RigSolver, cause_emfs
from ruvak.core.results.weighting import a_weighting_db
from ruvak.core.solve.network import Complexes, Floats
from ruvak.core.units import QUIETEST_DBU, dbu_from_volts, volts_from_dbu

NO_TONES = Tones()
TOLD_WITHIN_DB = 40.0
TOLD_AT_MOST = 12
"""Causes told one by one: those within so many dB of the largest, and how many; the others add up to a rest."""


@dataclass(frozen=True)
class HumVolts:
    """One input: (frequencies, causes), volts rms, the causes' own sizes counted in."""

    frequencies_hz: Floats
    likely_v: Floats
    worst_v: Floats


@dataclass(frozen=True)
class Phasors:
    """(frequencies, causes), per unit of each cause: what is known with its sign, and what is not."""

    nominal: Complexes
    likely_squares: Floats
    worst: Floats
    mechanisms: tuple[tuple[MechanismCode, "Phasors"], ...] = ()
    """The same by the way it enters, of a single input where it was asked for."""

    def times(self, gain: float) -> "Phasors":
        """At another gain."""
        return Phasors(gain * self.nominal, gain**2 * self.likely_squares, gain * self.worst)

    def arrays(self) -> tuple[Complexes, Floats, Floats]:
        """All its figures, those of each kind together."""
        every = (self, *(part for _, part in self.mechanisms))
        return (
            np.stack([entry.nominal for entry in every]),
            np.stack([entry.likely_squares for entry in every]),
            np.stack([entry.worst for entry in every]),
        )

    def plus(self, other: "Phasors") -> "Phasors":
        """Another input added; unknown signs of two inputs have nothing to do with each other."""
        squares = self.likely_squares + other.likely_squares
        return Phasors(self.nominal + other.nominal, squares, self.worst + other.worst)


class Disturbed:
    """The network under every cause, at every frequency some cause has."""

    def __init__(
        self, circuit: Circuit, solver: RigSolver, bonds: bool = False, norton: NortonEquivalent | None = None
    ) -> None:
        """`bonds`: each removable connection can be opened; `norton`: what the circuit is a part of."""
        around, at = None, list[float]()
        if norton is not None and (joined := norton.join(circuit)) is not None:
            (circuit, around), at = joined, norton.frequencies_hz.tolist()
        self.circuit = circuit
        frequencies_hz, emfs = cause_emfs(circuit, bonds, at)
        self.frequencies_hz = frequencies_hz
        self._solved: NetworkSolution | None = None
        if len(frequencies_hz):
            self._solved = solver.solve(frequencies_hz, emfs, len(frequencies_hz), around)
        self._weights = np.array([10.0 ** (a_weighting_db(float(hz)) / 20.0) for hz in frequencies_hz])
        self._likely = np.array([cause.likely for cause in circuit.causes])
        self._worst = np.array([cause.worst for cause in circuit.causes])

    def prefetch(self, rows: set[int], connections: int) -> "Disturbed":
        """The same, with these rows read from the solution at once.

        `connections`: how many removable connections' volts are columns behind the causes.
        """
        if self._solved is None:
            return self
        other = copy(self)
        other._solved = prefetch(
            self._solved, self.circuit.network.size, rows, range(len(self.circuit.causes) + connections)
        )
        return other

    def openings(self, effects: Sensitivities) -> ConnectionOpenings | None:
        """What opening each connection does; None where there is no disturbance."""
        if self._solved is None:
            return None
        return ConnectionOpenings(self.circuit, self._solved, effects, Sizes(self._likely, self._worst, self._weights))

    def currents_a(self, number: int) -> tuple[float, float]:
        """Likely and worst current in a removable connection, over all tones, causes as powers and as sizes."""
        if self._solved is None:
            return 0.0, 0.0
        row = np.array([self.circuit.network.node_count + self.circuit.openable_connections[number].branch])
        causes = np.arange(len(self.circuit.causes))
        return total_rms(self._solved.rows(row, causes)[:, 0], self._likely, self._worst)

    def lead_currents(self) -> tuple[LeadCurrent, ...]:
        """What a clamp meter would read round each lead."""
        if self._solved is None:
            return ()
        return lead_currents(self.circuit, self._solved, self._likely, self._worst)

    def case_voltages(self, cases: Sequence[tuple[str, int]], first_functional: int) -> tuple[CaseVoltage, ...]:
        """What a voltmeter would read on each floating case; `cases` were the solver's ports, in this order, the first
        of them its functional number `first_functional`."""
        if self._solved is None:
            return ()
        numbers = range(first_functional, first_functional + len(cases))
        return case_voltages(self.circuit, self._solved, cases, numbers, self._likely, self._worst)

    def volts(self, phasors: "Phasors") -> HumVolts:
        """With the causes' own sizes."""
        likely_v = np.sqrt(np.abs(phasors.nominal) ** 2 + phasors.likely_squares)
        worst_v = np.abs(phasors.nominal) + phasors.worst
        return HumVolts(self.frequencies_hz, likely_v * self._likely, worst_v * self._worst)

    def phasors(self, effects: Sensitivities, by_mechanism: bool = False) -> list["Phasors"]:
        """Of a unit of each cause at each of these inputs; `by_mechanism`: with what each mechanism has of it."""
        every = self._every_phasor(effects, by_mechanism)
        return [
            Phasors(
                every.nominal[:, at],
                every.likely_squares[:, at],
                every.worst[:, at],
                tuple(
                    (code, Phasors(part.nominal[:, at], part.likely_squares[:, at], part.worst[:, at]))
                    for code, part in every.mechanisms
                ),
            )
            for at in range(len(effects.receivers))
        ]

    def _every_phasor(self, effects: Sensitivities, by_mechanism: bool = False) -> "Phasors":
        """The same in one record, (frequencies, inputs, causes)."""
        causes = range(len(self.circuit.causes))
        if self._solved is None:
            nothing = np.zeros((0, len(effects.receivers), len(causes)))
            return Phasors(nothing.astype(np.complex128), nothing, nothing)
        nominal = receive(self.circuit, self._solved, effects.receivers, causes)
        per_unit = effects.of(self._solved, causes)
        squares = effects.likely[:, None] ** 2 * (per_unit.real**2 + per_unit.imag**2)
        sizes = effects.worst[:, None] * np.abs(per_unit)
        mechanisms: list[tuple[MechanismCode, Phasors]] = []
        if by_mechanism:
            known = nominal_by_mechanism(self.circuit, self._solved, effects.receivers, np.array(causes))
            group = mechanism_numbers(effects.codes)
            uncertain = (effects.sum_by_group(values, group, len(MECHANISMS)) for values in (squares, sizes))
            parts = zip(known, *uncertain, strict=True)
            mechanisms += [(code, Phasors(*part)) for code, part in zip(MECHANISMS, parts, strict=True)]
        return Phasors(nominal, effects.sum_tolerances(squares), effects.sum_tolerances(sizes), tuple(mechanisms))

    def together(self, added: "Phasors") -> tuple[float, float]:
        """A-weighted ratio, likely and worst, of inputs already added up."""
        volts = self.volts(added)
        likely = float(np.linalg.norm(self._weights[:, None] * volts.likely_v))
        return likely, float(np.linalg.norm(self._weights * volts.worst_v.sum(axis=1)))

    def hum(self, phasors: "Phasors", programme_dbu: float | None, brief: bool = False) -> Hum:
        """`programme_dbu`: what arrives there on average; `brief`: totals and the largest cause, without tones."""
        volts = self.volts(phasors)
        totals = self._totals(volts)
        weighted, weighted_worst = totals["weighted_dbu"], totals["weighted_worst_dbu"]
        return Hum(
            **totals,
            below_programme_db=programme_dbu - weighted if programme_dbu is not None else None,
            below_programme_worst_db=programme_dbu - weighted_worst if programme_dbu is not None else None,
            tones=NO_TONES if brief else self._tones(*(each_v[:, None] for each_v in _over_causes(volts)))[0],
            mechanisms=() if brief else tuple(self._mechanism_shares(phasors)),
            **self._shares(volts, brief),
        )

    def _totals(self, volts: HumVolts) -> dict[str, float]:
        """Levels over all causes and frequencies, likely and worst, as they are and A-weighted."""
        likely_v, worst_v = _over_causes(volts)
        return {
            "likely_dbu": _level(likely_v),
            "worst_dbu": _level(worst_v),
            "weighted_dbu": _level(self._weights * likely_v),
            "weighted_worst_dbu": _level(self._weights * worst_v),
        }

    def _mechanism_shares(self, phasors: "Phasors") -> Iterator[MechanismShare]:
        """What each mechanism leaves by itself, largest first; those that leave nothing at all are left out."""
        shares = []
        for code, part in phasors.mechanisms:
            share = MechanismShare(code=code, **self._totals(self.volts(part)))
            if share.worst_dbu > QUIETEST_DBU:
                shares.append(share)
        yield from sorted(shares, key=lambda share: -share.weighted_dbu)

    def _shares(self, volts: HumVolts, brief: bool) -> dict[str, object]:
        """The causes that count, largest first by their A-weighted likely size, and what the others add up to."""
        sizes = np.linalg.norm(self._weights[:, None] * volts.likely_v, axis=0)
        worst = np.linalg.norm(self._weights[:, None] * volts.worst_v, axis=0)
        order = np.argsort(-sizes, kind="stable")
        floor = max(sizes.max(initial=0.0), worst.max(initial=0.0)) * 10.0 ** (-TOLD_WITHIN_DB / 20.0)
        first = order[: 1 if brief else TOLD_AT_MOST]
        shown = first[(sizes[first] > 0.0) & (np.maximum(sizes[first], worst[first]) >= floor)]
        likely_v, worst_v = volts.likely_v[:, shown], volts.worst_v[:, shown]
        whole = levels_dbu(np.stack([*(np.linalg.norm(entry, axis=0) for entry in (likely_v, worst_v)), sizes[shown]]))
        tones = [NO_TONES] * len(shown) if brief else self._tones(likely_v, worst_v)
        return {
            "causes": tuple(
                CauseShare(
                    code=self.circuit.causes[column].code,
                    owner=self.circuit.causes[column].owner,
                    likely_dbu=likely_dbu,
                    worst_dbu=worst_dbu,
                    weighted_dbu=weighted_dbu,
                    tones=own,
                )
                for column, (likely_dbu, worst_dbu, weighted_dbu), own in zip(
                    shown, whole.T.tolist(), tones, strict=True
                )
            ),
            "rest_dbu": _level(np.delete(volts.likely_v, shown, axis=1)),
        }

    def _tones(self, likely_v: Floats, worst_v: Floats) -> list[Tones]:
        """(frequencies, parts), of each part where there is anything at all."""
        levels = levels_dbu(np.stack([likely_v.T, worst_v.T]))
        result = []
        for likely_dbu, worst_dbu, there in zip(*levels, worst_v.T > 0.0, strict=True):
            # Nothing to validate: these are floats of our own, many of them on a large rig.
            hertz, likely, worst = (
                tuple(entry[there].tolist()) for entry in (self.frequencies_hz, likely_dbu, worst_dbu)
            )
            result.append(Tones.model_construct(frequencies_hz=hertz, likely_dbu=likely, worst_dbu=worst))
        return result


def _over_causes(volts: HumVolts) -> tuple[Floats, Floats]:
    """(frequencies,): all causes together, likely as powers and worst as sizes."""
    return np.sqrt((volts.likely_v**2).sum(axis=1)), volts.worst_v.sum(axis=1)


def levels_dbu(volts: Floats) -> Floats:
    """dBu of each, not below QUIETEST_DBU."""
    zero_v = volts_from_dbu(0.0)
    values: Floats = 20.0 * np.log10(np.maximum(volts / zero_v, 10.0 ** (QUIETEST_DBU / 20.0)))
    return values


def _level(volts: Floats | np.float64) -> float:
    """dBu of volts rms added as powers, not below QUIETEST_DBU."""
    size = math.sqrt(float(np.square(volts).sum()))
    return max(QUIETEST_DBU, dbu_from_volts(size)) if size > 0.0 else QUIETEST_DBU
