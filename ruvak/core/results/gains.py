"""From solved unknowns to what receivers make of the programme, and what its drives and inputs are loaded with."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ruvak.core.circuit.circuit import Circuit
from ruvak.core.results.sensitivities import leg_adjoints, receive
from ruvak.core.results.solving import NetworkSolution
from ruvak.core.solve.network import Complexes, Floats

REFERENCE_HZ = 1000.0
ABSENT_OHM = 1e9
"""A load above this is no load."""


@dataclass(frozen=True)
class Gains:
    """The programme at REFERENCE_HZ: volts per volt of emf, complex; of these receivers and drives.

    `solved` at REFERENCE_HZ alone; `spots`: there first, then at any others, with adjoints.
    """

    circuit: Circuit
    solved: NetworkSolution
    spots: NetworkSolution
    receivers: tuple[int, ...]
    drives: tuple[int, ...]

    def nominal(self, receivers: Sequence[int], drives: Sequence[int]) -> Complexes:
        """(receivers, drives)."""
        rows = [self.receivers.index(number) for number in receivers]
        columns = [self.drives.index(number) for number in drives]
        values: Complexes = self._nominal[np.ix_(rows, columns)]
        return values

    @cached_property
    def _nominal(self) -> Complexes:
        values: Complexes = receive(self.circuit, self.solved, self.receivers, self.drives)[0]
        return values

    def leg_ohm(self, number: int) -> Floats:
        """Impedance of hot and of cold to the input's reference, and between the two."""
        hot, cold, reference = self._legs[0, self.receivers.index(number)]
        between = abs(self.between_ohm(number)[0])
        return np.array([abs(hot[0] - reference[0]), abs(cold[1] - reference[1]), between])

    def between_ohm(self, number: int) -> Complexes:
        """Impedance between an input's legs at every spot, complex, the input's own included."""
        legs = self._legs[:, self.receivers.index(number)]
        across = legs[:, :, 0] - legs[:, :, 1]
        values: Complexes = across[:, 0] - across[:, 1]
        return values

    @cached_property
    def _legs(self) -> Complexes:
        return leg_adjoints(self.circuit, self.spots, self.receivers)

    def figures(self, receivers: Sequence[int], drives: Sequence[int]) -> list[Complexes]:
        """Everything that impedances at these inputs and loads of these drives are made from."""
        rows = [self.receivers.index(number) for number in receivers]
        return [self._legs[:, rows], *(self._drive_amperes(number) for number in drives)]

    def load_ohm(self, number: int) -> float:
        """What is left of a drive's emf over current once its own impedance is taken off, its worst leg, as loop."""
        drive = self.circuit.drives[number]
        nodes = [self.circuit.node_of[channel.hot.of(drive.gear)] for channel in drive.output.channels]
        if len(set(nodes)) < len(nodes):
            # A left/mono socket adds its own two sides; what they make of each other is how it is built.
            return ABSENT_OHM
        legs = 2.0 if drive.output.type == "balanced" and drive.output.topology != "impedance" else 1.0
        result = [ABSENT_OHM]
        for ampere, (branch, gain) in zip(self._drive_amperes(number), drive.branch_gains, strict=True):
            if gain and abs(ampere) > abs(gain) / ABSENT_OHM:
                result.append(legs * float(abs(gain / ampere - self.circuit.network.branch_ohms[branch])))
        return min(result)

    def terminal_gain(self, number: int) -> float:
        """What is left of a drive's emf at its own contacts, as it is loaded; volts per volt."""
        drive = self.circuit.drives[number]
        ohms = np.array([self.circuit.network.branch_ohms[branch] for branch, _ in drive.branch_gains])
        own = np.array([gain for _, gain in drive.branch_gains])
        return float(np.abs(own - self._drive_amperes(number) * ohms).sum())

    def _drive_amperes(self, number: int) -> Complexes:
        """Current in each branch a drive drives."""
        return self._amperes[self.drives.index(number)]

    @cached_property
    def _amperes(self) -> list[Complexes]:
        first = self.circuit.network.node_count
        rows = [[first + branch for branch, _ in self.circuit.drives[number].branch_gains] for number in self.drives]
        flat = np.array([row for entry in rows for row in entry], dtype=np.int64)
        every = self.solved.rows(flat, np.array(self.drives, dtype=np.int64))[0]
        column = np.repeat(np.arange(len(rows)), [len(row) for row in rows])
        own = every[np.arange(len(flat)), column]
        return np.split(own, np.cumsum([len(row) for row in rows])[:-1])
