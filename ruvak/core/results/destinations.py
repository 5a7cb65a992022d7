"""All inputs of a device heard together: hum that reaches several of them adds up, with its sign."""

import math
from dataclasses import dataclass, field

from ruvak.core.results.hum import Disturbed, Phasors
from ruvak.core.results.missing_side import is_missing_side
from ruvak.core.results.records import DestinationResult, InputResult, RunResult
from ruvak.core.rig.rig import Gear, Rig
from ruvak.core.units import FLOOR_DB, floored_db, ratio_from_db, volts_from_dbu


@dataclass
class _Sum:
    """Against the programme's level: the inputs so far."""

    phasors: Phasors
    noise: float
    inputs: list[str]


@dataclass
class Destinations:
    """Gathers inputs run by run; an input that two runs reach counts once."""

    rig: Rig
    disturbed: Disturbed
    sums: dict[str, _Sum] = field(default_factory=dict)
    known: set[int] = field(default_factory=set)

    def add(self, number: int, input_result: InputResult, phasors: Phasors, result: RunResult) -> None:
        """One input of a run: brought to the programme's level where anything arrives at all, then by its fader."""
        level = next((level for level in input_result.levels if level.active), None)
        alive = any(channel.in_phase is not None for channel in input_result.channels)
        alive = alive and not is_missing_side(result.inputs, result.mixes, input_result)
        if number in self.known or level is None or not alive or input_result.noise is None:
            return
        self.known.add(number)
        gear = self.rig.owners_by_id[input_result.gear]
        fader_db = gear.faders_db.get(input_result.input, 0.0) if isinstance(gear, Gear) else 0.0
        gain = ratio_from_db(fader_db) / volts_from_dbu(level.arriving_dbu)
        noise = gain * volts_from_dbu(input_result.noise.total_dbu)
        before = self.sums.get(input_result.gear)
        if before is None:
            self.sums[input_result.gear] = _Sum(phasors.times(gain), noise, [input_result.input])
            return
        before.phasors = before.phasors.plus(phasors.times(gain))
        before.noise = math.hypot(before.noise, noise)
        before.inputs.append(input_result.input)

    def results(self) -> tuple[DestinationResult, ...]:
        """In the order in which runs reach them."""
        return tuple(self._result(gear, entry) for gear, entry in self.sums.items())

    def _result(self, gear: str, total: _Sum) -> DestinationResult:
        likely, worst = (min(-FLOOR_DB, -floored_db(ratio)) for ratio in self.disturbed.together(total.phasors))
        noise_below_db = -floored_db(total.noise)
        loud = self.rig.venue.programme_db_spl
        return DestinationResult(
            gear=gear,
            inputs=tuple(total.inputs),
            hum_below_db=likely,
            hum_below_worst_db=worst,
            noise_below_db=noise_below_db,
            hum_dba=loud - likely if loud is not None else None,
            noise_dba=loud - noise_below_db if loud is not None else None,
            room_dba=self.rig.venue.noise_dba,
        )
