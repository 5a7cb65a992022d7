"""Outputs as emfs behind impedances: what each stands on is what makes it unbalanced, active, impedance-balanced, …"""

from dataclasses import dataclass

from ruvak.core.circuit.circuit import Drive, Mates, Tolerance
from ruvak.core.circuit.elements import CircuitPoint, Collector, Internal
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import SIGNAL_REFERENCE
from ruvak.core.rig.ports import BalancedOutput, Output, UnbalancedOutput
from ruvak.core.rig.rig import Alignment, Gear, setting_of
from ruvak.core.rig.values import Deviation, Spread, Value
from ruvak.core.units import ratio_from_db

Legs = list[tuple[int, float]]
"""(branch, gain) of one channel's emfs."""


@dataclass
class Outputs:
    """Adds a device's outputs to the network, collecting their drives and what is unknown about them."""

    elements: Collector
    alignment: Alignment
    drives: list[Drive]
    tolerances: list[Tolerance]
    hum_tolerances: list[Tolerance]
    mates: Mates

    def add(self, gear: Gear, part: Part, output: Output) -> None:
        """One output of one device."""
        legs = self._unbalanced(gear, output) if output.type == "unbalanced" else self._balanced(gear, output)
        self._add_channel_tolerance(gear, output, legs)
        self._pin1(gear, output, [channel[0][0] for channel in legs])
        mono = output.mono_setting is not None and setting_of(gear, part, output.mono_setting) is True
        peak_dbu, nominal_dbu = self._levels(gear, part, output)
        shared = [leg for channel in legs for leg in channel]
        names = [channel.id for channel in output.channels]
        for name, own in zip(names, legs, strict=True):
            both = mono and len(legs) > 1
            driven = tuple((branch, gain / len(legs)) for branch, gain in shared) if both else tuple(own)
            self.drives.append(Drive(gear.id, output, name, driven, peak_dbu, nominal_dbu, mono=both))

    def _levels(self, gear: Gear, part: Part, output: Output) -> tuple[float, float]:
        volume_db = setting_of(gear, part, output.level_setting) if output.level_setting else 0.0
        assert isinstance(volume_db, float | int), "rig.check: a level setting holds a number"
        full_dbu = output.peak_dbu.value + volume_db
        peak_dbu = full_dbu - output.kept_free_db.value
        if output.nominal_dbu is not None:
            return peak_dbu, output.nominal_dbu.value + volume_db
        return peak_dbu, full_dbu - self.alignment.headroom_db

    def _unbalanced(self, gear: Gear, output: UnbalancedOutput) -> list[Legs]:
        reference = SIGNAL_REFERENCE.of(gear.id)
        returning = output.common.of(gear.id)
        if output.return_ohm.value == 0.0:
            self.elements.merge((reference, returning))
        else:
            self.elements.branch(reference, returning, output.return_ohm.value)
        signs = (0.5, -0.5) if len(output.channels) == 2 else (0.0,)
        stated = stated_part(output.z_mismatch)
        branches = [
            self.elements.branch(
                reference, (channel.inner or channel.hot).of(gear.id), output.z_ohm.value * (1.0 + sign * stated)
            )
            for channel, sign in zip(output.channels, signs, strict=True)
        ]
        legs = output.z_mismatch
        if isinstance(legs, Spread) and len(branches) == 2:
            self._add_leg_tolerance(gear, legs, output.z_ohm.value, (branches[0], branches[1]))
        return [[(branch, 1.0)] for branch in branches]

    def _balanced(self, gear: Gear, output: BalancedOutput) -> list[Legs]:
        reference = SIGNAL_REFERENCE.of(gear.id)
        channel_legs: list[Legs] = []
        stated = stated_part(output.leg_mismatch)
        for number, channel in enumerate(output.channels):
            hot, cold = channel.hot.of(gear.id), channel.cold.of(gear.id)
            standing: CircuitPoint = reference
            if output.topology in ("cross-coupled", "floating"):
                standing = Internal(gear.id, f"{output.id}-middle", number)
                if output.common_ohm is not None:
                    self.elements.resistor(standing, reference, output.common_ohm.value)
                for leg in (hot, cold):
                    self.elements.capacitor(leg, reference, 0.5 * output.winding_f.value)
            ohm = output.leg_ohm.value
            legs = (
                self.elements.branch(standing, hot, ohm * (1.0 + 0.5 * stated)),
                self.elements.branch(standing, cold, ohm * (1.0 - 0.5 * stated)),
            )
            if isinstance(output.leg_mismatch, Spread):
                self._add_leg_tolerance(gear, output.leg_mismatch, ohm, legs)
            gains = (1.0, 0.0) if output.topology == "impedance" else (0.5, -0.5)
            channel_legs.append(list(zip(legs, gains, strict=True)))
        return channel_legs

    def _pin1(self, gear: Gear, output: Output, hot: list[int]) -> None:
        """Current into the screen contact lifts what the output's hot legs stand on."""
        contact = output.common if output.type == "unbalanced" else output.screen
        currents = self.mates.get(contact.of(gear.id), ()) if contact else ()
        ohm = output.pin1_ohm
        if isinstance(ohm, Value):
            for leg in hot:
                for branch, sign in currents:
                    self.elements.transresistance(leg, branch, sign * ohm.value)
        elif currents:
            pairs = tuple((leg, branch, sign) for leg in hot for branch, sign in currents)
            self.hum_tolerances.append(
                Tolerance("pin1", gear.id, ohm.likely, ohm.worst, ohm.source, transresistances=pairs)
            )

    def _add_leg_tolerance(self, gear: Gear, legs: Spread, ohm: float, branches: tuple[int, int]) -> None:
        half = 0.5 * ohm
        ohms = ((branches[0], half), (branches[1], -half))
        self.tolerances.append(
            Tolerance("source_leg_mismatch", gear.id, legs.likely, legs.worst, legs.source, branch_ohms=ohms)
        )

    def _add_channel_tolerance(self, gear: Gear, output: Output, legs: list[Legs]) -> None:
        """Two channels' level difference: half to each, stated or of unknown sign."""
        if len(legs) != 2:
            return
        match = output.channel_match_db
        stated = stated_part(match)
        for channel, sign in zip(legs, (0.5, -0.5), strict=True):
            channel[:] = [(branch, gain * ratio_from_db(sign * stated)) for branch, gain in channel]
        if isinstance(match, Spread):
            likely, worst = ratio_from_db(match.likely) - 1.0, ratio_from_db(match.worst) - 1.0
            halves = tuple((leg[0], sign) for channel, sign in zip(legs, (0.5, -0.5), strict=True) for leg in channel)
            self.tolerances.append(Tolerance("channel_match", gear.id, likely, worst, match.source, emfs=halves))


def stated_part(deviation: Deviation) -> float:
    """The signed figure somebody stated; 0 where only its size is known."""
    return deviation.value if isinstance(deviation, Value) else 0.0
