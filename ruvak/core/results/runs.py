"""Puts a run's results together: its inputs, and the mixes in which they are heard."""

from collections.abc import Sequence

import numpy as np

from ruvak.core.circuit.circuit import Circuit, Drive, Receiver
from ruvak.core.results.balance import balance
from ruvak.core.results.gains import Gains, drive_emfs, gains, received
from ruvak.core.results.records import InputResult, Levels, MixResult, Response, RunResult
from ruvak.core.results.response import THIRD_OCTAVES_HZ, response
from ruvak.core.results.sums import (
    arrives,
    centre_and_sides,
    channel_gains,
    largest_gain,
    likely_size,
    programme_gain,
)
from ruvak.core.rig.rig import Rig, Run
from ruvak.core.solve.network import Complexes
from ruvak.core.solve.solver import solve
from ruvak.core.trace.drawing import ends_of
from ruvak.core.trace.trace import Trace
from ruvak.core.units import floored_db


def run_results(rig: Rig, traced: Trace, circuit: Circuit) -> tuple[RunResult, ...]:
    """Every run of the rig, in its order, from one solved network."""
    if not rig.runs:
        return ()
    reader = _Reader(rig, traced, circuit)
    return tuple(reader.run(run) for run in rig.runs)


class _Reader:
    def __init__(self, rig: Rig, traced: Trace, circuit: Circuit) -> None:
        self.rig, self.traced, self.circuit = rig, traced, circuit
        self.gains: Gains = gains(circuit)
        none = np.zeros((circuit.network.size, 0))
        sweep = solve(circuit.network, np.array(THIRD_OCTAVES_HZ), drive_emfs(circuit), none)
        self.sweep: Complexes = received(circuit, sweep)

    def run(self, run: Run) -> RunResult:
        out_ends = {end for end, _ in ends_of(self.rig, run, "out")}
        in_ends = {end for end, _ in ends_of(self.rig, run, "in")}
        drives = [
            number
            for number, drive in enumerate(self.circuit.drives)
            if out_ends & {f"{drive.gear}.{name}" for name in drive.output.connectors}
        ]
        receivers = [
            number
            for number, receiver in enumerate(self.circuit.receivers)
            if in_ends & {f"{receiver.gear}.{name}" for name in receiver.input.connectors}
        ]
        first = self.circuit.drives[drives[0]] if drives else None
        return RunResult(
            run=run.id,
            source_gear=first.gear if first else None,
            source_channels=tuple(self.circuit.drives[number].channel for number in drives),
            source_peak_dbu=first.peak_dbu if first else None,
            source_nominal_dbu=first.nominal_dbu if first else None,
            mono=first is not None and len(first.branch_gains) == 2,
            inputs=tuple(self._input(drives, number) for number in receivers),
            mixes=self._mixes(drives, receivers),
            floating=tuple(owner for owner in self.circuit.floating if owner in self._owners(run)),
        )

    def _owners(self, run: Run) -> set[str]:
        return {*run.legs, *(end.split(".")[0] for join in run.joins for end in (join.a, join.b))}

    def _names(self, drives: Sequence[int]) -> tuple[str, ...]:
        return tuple(self.circuit.drives[number].channel for number in drives)

    def _input(self, drives: list[int], number: int) -> InputResult:
        receiver = self.circuit.receivers[number]
        nominal, effects = self.gains.nominal[number, drives], self.gains.effects[:, number, drives]
        found, reason = centre_and_sides(nominal, effects, self.circuit.unknowns)
        sources = tuple(self.circuit.drives[drive] for drive in drives)
        return InputResult(
            gear=receiver.gear,
            input=receiver.input.id,
            label=receiver.input.label,
            channels=channel_gains(self._names(drives), nominal, effects, self.circuit.unknowns),
            sum=found,
            sum_null=reason,
            levels=(self._levels(sources, receiver, nominal, effects),) if sources else (),
            response=self._response(drives, number, nominal, effects),
            balance=balance(self.traced, sources, receiver, self.gains.leg_ohm[number]),
        )

    def _levels(self, sources: tuple[Drive, ...], receiver: Receiver, nominal: Complexes, effects: Complexes) -> Levels:
        mode, unknowns = receiver.mode, self.circuit.unknowns
        source = sources[0]
        arriving_dbu = source.nominal_dbu + floored_db(programme_gain(nominal, effects, unknowns))
        sides = nominal[0] - nominal[-1] if len(nominal) == 2 else 0.0
        sides_effects = effects[:, 0] - effects[:, -1]
        peak_dbu = source.peak_dbu + floored_db(largest_gain(nominal))
        gap_db = mode.nominal_dbu.value - arriving_dbu
        return Levels(
            when=mode.when,
            active=True,
            arriving_dbu=arriving_dbu,
            sides_dbu=source.nominal_dbu + floored_db(likely_size(complex(sides), sides_effects, unknowns)),
            peak_dbu=peak_dbu,
            nominal_dbu=mode.nominal_dbu.value,
            clip_dbu=mode.clip_dbu.value,
            noise_dbu=mode.noise_dbu.value,
            headroom_db=mode.clip_dbu.value - peak_dbu,
            gap_db=gap_db,
            boost_db=mode.boost_db.value,
            short_db=max(0.0, gap_db - mode.boost_db.value),
        )

    def _response(self, drives: list[int], number: int, nominal: Complexes, effects: Complexes) -> Response | None:
        """Follows the centre where it survives, else the louder side."""
        if not any(arrives(complex(nominal[i]), effects[:, i], self.circuit.unknowns) for i in range(len(drives))):
            return None
        louder = int(np.argmax(np.abs(nominal)))
        if abs(nominal.sum()) > 0.5 * abs(nominal[louder]):
            of = "centre" if len(drives) == 2 else self._names(drives)[0]
            return response(of, self.sweep[:, number, drives].sum(axis=1))
        return response(self._names(drives)[louder], self.sweep[:, number, drives[louder]])

    def _mixes(self, drives: list[int], receivers: list[int]) -> tuple[MixResult, ...]:
        found = []
        for gear in dict.fromkeys(self.circuit.receivers[number].gear for number in receivers):
            by_input = {
                self.circuit.receivers[number].input.id: number
                for number in receivers
                if self.circuit.receivers[number].gear == gear
            }
            for mix in self.rig.part_of(gear).mixes:
                left = [by_input[name] for name in mix.left if name in by_input]
                right = [by_input[name] for name in mix.right if name in by_input]
                if left or right:
                    found.append(self._mix(drives, gear, mix.id, mix.label, left, right, bool(mix.right)))
        return tuple(found)

    def _mix(
        self, drives: list[int], gear: str, mix: str, label: str, left: list[int], right: list[int], stereo: bool
    ) -> MixResult:
        names, unknowns = self._names(drives), self.circuit.unknowns

        def summed(receivers: list[int]) -> tuple[Complexes, Complexes]:
            nominal: Complexes = self.gains.nominal[receivers][:, drives].sum(axis=0)
            return nominal, self.gains.effects[:, receivers][:, :, drives].sum(axis=1)

        nominal, effects = summed(left + right)
        total, reason = centre_and_sides(nominal, effects, unknowns)
        return MixResult(
            gear=gear,
            mix=mix,
            label=label,
            inputs=tuple(self.circuit.receivers[number].input.id for number in left + right),
            stereo=stereo,
            channels=channel_gains(names, nominal, effects, unknowns),
            sum=total,
            sum_null=reason,
            left=channel_gains(names, *summed(left), unknowns) if stereo else (),
            right=channel_gains(names, *summed(right), unknowns) if stereo else (),
        )
