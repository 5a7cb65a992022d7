"""Expands every traced part into elements: one network for the whole rig."""

from ruvak.core.circuit.circuit import Circuit, Drive, Receiver, Unknown
from ruvak.core.circuit.elements import EARTH_POINT, Collector
from ruvak.core.circuit.passive import add_leg
from ruvak.core.rig.connectors import SHAPES
from ruvak.core.rig.part import CHASSIS, SIGNAL_REFERENCE, BalancedInput, InputMode, Part, UnbalancedOutput
from ruvak.core.rig.rig import Assumptions, Gear, Rig, setting_of
from ruvak.core.rig.values import Spread, Value
from ruvak.core.solve.islands import islands
from ruvak.core.trace.trace import Trace, connector_at
from ruvak.core.units import ratio_from_db


def build(rig: Rig, traced: Trace) -> Circuit:
    """The circuit of a checked, embedded, traced rig."""
    assert rig.assumptions is not None, "embed() gives every rig its assumptions"
    return _Builder(rig, traced, rig.assumptions).circuit()


class _Builder:
    def __init__(self, rig: Rig, traced: Trace, assumptions: Assumptions) -> None:
        self.rig = rig
        self.assumptions = assumptions
        self.elements = Collector()
        self.elements.merge((EARTH_POINT,))
        self.drives: list[Drive] = []
        self.pending_inputs: list[tuple[Gear, BalancedInput, InputMode, float]] = []
        self.unknowns: list[Unknown] = []
        self.traced = traced
        groups: dict[str, list[str]] = {}
        for point, node in traced.node_of.items():
            groups.setdefault(node, []).append(point)
        for points in groups.values():
            self.elements.merge(points)

    def circuit(self) -> Circuit:
        for owner in self.traced.owners:
            thing, part = self.rig.owners_by_id[owner], self.rig.part_of(owner)
            if isinstance(thing, Gear):
                self._gear(thing, part)
            else:
                add_leg(self.elements, thing, part)
        for link in self.traced.links:
            if link.kind == "mate":
                self.elements.branch(link.a, link.b, self._contact_ohm(link.a, link.b))
        return self._numbered(self._tie_down())

    def _contact_ohm(self, a: str, b: str) -> float:
        """Of one mated contact: the worse of what the two connectors state, else the rig's assumption."""
        connectors = [connector_at(self.rig, point.rsplit(".", 1)[0]) for point in (a, b)]
        stated = [connector.contact_ohm.value for connector in connectors if connector.contact_ohm is not None]
        return max(stated) if stated else self.assumptions.contact_ohm[SHAPES[connectors[0].form].family].value

    def _tie_down(self) -> tuple[str, ...]:
        """Gives every island its stray capacitance to earth; returns the owners concerned."""
        network, number_of = self.elements.numbered()
        owners: dict[int, dict[str, None]] = {}
        for point, number in number_of.items():
            owners.setdefault(number, {})[point.split(".")[0]] = None
        floating: dict[str, None] = {}
        for group in islands(network):
            point = min(network.node_names[node] for node in group)
            self.elements.capacitor(point, EARTH_POINT, self.assumptions.stray_f.value)
            for node in group:
                floating |= owners.get(node, {})
        return tuple(floating)

    def _numbered(self, floating: tuple[str, ...]) -> Circuit:
        network, node_of = self.elements.numbered()
        receivers = tuple(
            Receiver(
                gear=gear.id,
                input=receiver,
                mode=mode,
                hot=node_of[f"{gear.id}.{receiver.hot}"],
                cold=node_of[f"{gear.id}.{receiver.cold}"],
                reference=node_of[f"{gear.id}.{SIGNAL_REFERENCE}"],
                stated_rejection=stated,
            )
            for gear, receiver, mode, stated in self.pending_inputs
        )
        return Circuit(network, node_of, tuple(self.drives), receivers, tuple(self.unknowns), floating)

    def _gear(self, gear: Gear, part: Part) -> None:
        reference, chassis = f"{gear.id}.{SIGNAL_REFERENCE}", f"{gear.id}.{CHASSIS}"
        earthing = part.earthing
        self.elements.resistor(reference, chassis, earthing.reference_to_chassis_ohm.value if earthing else 0.0)
        if earthing is not None and earthing.type == "class-1" and earthing.cord_ohm is not None:
            self.elements.resistor(chassis, EARTH_POINT, earthing.cord_ohm.value)
        for output in part.outputs:
            self._output(gear, part, output)
        for receiver in part.inputs:
            self._input(gear, part, receiver)

    def _output(self, gear: Gear, part: Part, output: UnbalancedOutput) -> None:
        reference = f"{gear.id}.{SIGNAL_REFERENCE}"
        returning = f"{gear.id}.{output.common}"
        if output.return_ohm.value == 0.0:
            self.elements.merge((reference, returning))
        else:
            self.elements.branch(reference, returning, output.return_ohm.value)
        signs = (0.5, -0.5) if len(output.channels) == 2 else (0.0, 0.0)
        z_stated = output.z_mismatch.value if isinstance(output.z_mismatch, Value) else 0.0
        match_stated = output.channel_match_db.value if isinstance(output.channel_match_db, Value) else 0.0
        branches: list[int] = []
        gains: list[float] = []
        for channel, sign in zip(output.channels, signs, strict=False):
            ohm = output.z_ohm.value * (1.0 + sign * z_stated)
            branches.append(self.elements.branch(reference, f"{gear.id}.{channel.hot}", ohm))
            gains.append(ratio_from_db(sign * match_stated))
        mono = output.mono_setting is not None and setting_of(gear, part, output.mono_setting) is True
        volume_db = setting_of(gear, part, output.level_setting) if output.level_setting else 0.0
        assert isinstance(volume_db, float | int), "rig.check: a level setting holds a number"
        peak_dbu = output.peak_dbu.value + volume_db
        if output.nominal_dbu is not None:
            nominal_dbu = output.nominal_dbu.value + volume_db
        else:
            nominal_dbu = peak_dbu - self.rig.alignment.headroom_db
        for index, channel in enumerate(output.channels):
            if mono and len(branches) == 2:
                driven = tuple((branch, 0.5 * gain) for branch, gain in zip(branches, gains, strict=True))
            else:
                driven = ((branches[index], gains[index]),)
            self.drives.append(Drive(gear.id, output, channel.id, driven, peak_dbu, nominal_dbu))
        if len(branches) == 2:
            self._stereo_unknowns(gear, output, branches)

    def _stereo_unknowns(self, gear: Gear, output: UnbalancedOutput, branches: list[int]) -> None:
        match = output.channel_match_db
        if isinstance(match, Spread):
            likely, worst = ratio_from_db(match.likely) - 1.0, ratio_from_db(match.worst) - 1.0
            halves = ((branches[0], 0.5), (branches[1], -0.5))
            self.unknowns.append(Unknown("channel_match", gear.id, likely, worst, match.source, emfs=halves))
        legs = output.z_mismatch
        if isinstance(legs, Spread):
            half = 0.5 * output.z_ohm.value
            ohms = ((branches[0], half), (branches[1], -half))
            self.unknowns.append(
                Unknown("source_leg_mismatch", gear.id, legs.likely, legs.worst, legs.source, branch_ohms=ohms)
            )

    def _input(self, gear: Gear, part: Part, receiver: BalancedInput) -> None:
        chosen = setting_of(gear, part, receiver.mode_setting) if receiver.mode_setting else None
        mode = next(mode for mode in receiver.modes if receiver.mode_setting is None or mode.when == chosen)
        owner = f"{gear.id}.{receiver.id}"
        reference = f"{gear.id}.{SIGNAL_REFERENCE}"
        hot, cold = f"{gear.id}.{receiver.hot}", f"{gear.id}.{receiver.cold}"
        mismatch = mode.z_common_mismatch
        stated = mismatch.value if isinstance(mismatch, Value) else 0.0
        z_common_ohm = mode.z_common_ohm.value
        self.elements.resistor(hot, cold, mode.z_differential_ohm.value)
        legs = [
            self.elements.resistor(hot, reference, z_common_ohm * (1.0 + 0.5 * stated)),
            self.elements.resistor(cold, reference, z_common_ohm * (1.0 - 0.5 * stated)),
        ]
        if isinstance(mismatch, Spread):
            half = 0.5 / z_common_ohm
            changes = tuple(
                (index, change) for index, change in zip(legs, (-half, half), strict=True) if index is not None
            )
            self.unknowns.append(
                Unknown(
                    "input_leg_mismatch", owner, mismatch.likely, mismatch.worst, mismatch.source, conductances=changes
                )
            )
        rejection = mode.rejection_db
        if isinstance(rejection, Spread):
            likely, worst = ratio_from_db(-rejection.likely), ratio_from_db(-rejection.worst)
            number = len(self.pending_inputs)
            self.unknowns.append(Unknown("receiver_rejection", owner, likely, worst, rejection.source, receiver=number))
        stated_rejection = ratio_from_db(-rejection.value) if isinstance(rejection, Value) else 0.0
        self.pending_inputs.append((gear, receiver, mode, stated_rejection))
