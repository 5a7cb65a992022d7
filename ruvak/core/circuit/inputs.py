"""Inputs as impedances and listening points."""

from dataclasses import dataclass, field

from ruvak.core.circuit.circuit import Mates, Receiver, Tolerance
from ruvak.core.circuit.elements import CircuitPoint, Collector
from ruvak.core.circuit.outputs import stated_part
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import SIGNAL_REFERENCE, Contact, InnerNode
from ruvak.core.rig.ports import BalancedInput, Input, InputMode, Sensitivity, UnbalancedInput
from ruvak.core.rig.rig import Gear, setting_of
from ruvak.core.rig.values import Spread, Value
from ruvak.core.units import ratio_from_db


@dataclass(frozen=True)
class _Pending:
    """A receiver whose nodes have no numbers yet."""

    gear: str
    input: Input
    mode: Sensitivity
    cold: Contact | InnerNode
    own_ohm: float
    stated_rejection: float = 0.0
    rejection_corner_hz: float = float("inf")
    pin1: tuple[tuple[int, float], ...] = ()
    coupled: tuple[int, ...] = ()
    leg_siemens: tuple[float, float] = (0.0, 0.0)


@dataclass
class Inputs:
    """Adds a device's inputs to the network; receivers() gives them once the nodes are numbered."""

    elements: Collector
    tolerances: list[Tolerance]
    hum_tolerances: list[Tolerance]
    mates: Mates
    pending: list[_Pending] = field(default_factory=list)

    def add(self, gear: Gear, part: Part, receiver: Input) -> None:
        """One input of one device, with its switch as it stands."""
        chosen = setting_of(gear, part, receiver.mode_setting) if receiver.mode_setting else None
        if receiver.type == "unbalanced":
            self._unbalanced(gear, receiver, chosen)
        else:
            self._balanced(gear, receiver, chosen)

    def receivers(self, node_of: dict[CircuitPoint, int]) -> tuple[Receiver, ...]:
        """In the order they were added."""
        return tuple(
            Receiver(
                gear=pending.gear,
                input=pending.input,
                mode=pending.mode,
                hot=node_of[pending.input.hot.of(pending.gear)],
                cold=node_of[pending.cold.of(pending.gear)],
                reference=node_of[SIGNAL_REFERENCE.of(pending.gear)],
                own_ohm=pending.own_ohm,
                stated_rejection=pending.stated_rejection,
                rejection_corner_hz=pending.rejection_corner_hz,
                pin1=pending.pin1,
                coupled=pending.coupled,
                leg_siemens=pending.leg_siemens,
            )
            for pending in self.pending
        )

    def _unbalanced(self, gear: Gear, receiver: UnbalancedInput, chosen: object) -> None:
        mode = next(mode for mode in receiver.modes if receiver.mode_setting is None or mode.when == chosen)
        ohm = mode.z_ohm.value
        load = self.elements.resistor(receiver.hot.of(gear.id), SIGNAL_REFERENCE.of(gear.id), ohm)
        coupled = (load,) if receiver.phantom and load is not None else ()
        pin1 = self._pin1(gear, receiver, receiver.common)
        self.pending.append(_Pending(gear.id, receiver, mode, SIGNAL_REFERENCE, ohm, pin1=pin1, coupled=coupled))

    def _balanced(self, gear: Gear, receiver: BalancedInput, chosen: object) -> None:
        mode = next(mode for mode in receiver.modes if receiver.mode_setting is None or mode.when == chosen)
        reference = SIGNAL_REFERENCE.of(gear.id)
        hot, cold = receiver.hot.of(gear.id), receiver.cold.of(gear.id)
        mismatch, stated = mode.z_common_mismatch, stated_part(mode.z_common_mismatch)
        z_common_ohm = mode.z_common_ohm.value
        across = self.elements.resistor(hot, cold, mode.z_differential_ohm.value)
        leg_ohms = (z_common_ohm * (1.0 + 0.5 * stated), z_common_ohm * (1.0 - 0.5 * stated))
        legs = [
            self.elements.resistor(hot, reference, leg_ohms[0]),
            self.elements.resistor(cold, reference, leg_ohms[1]),
        ]
        owner = f"{gear.id}.{receiver.id}"
        if isinstance(mismatch, Spread):
            self._add_leg_tolerance(owner, mismatch, legs, 0.5 / z_common_ohm)
        self.pending.append(
            _Pending(
                gear.id,
                receiver,
                mode,
                receiver.cold,
                own_ohm=1.0 / (1.0 / mode.z_differential_ohm.value + 0.5 / z_common_ohm),
                stated_rejection=self._rejection(owner, mode),
                rejection_corner_hz=mode.rejection_corner_hz.value,
                pin1=self._pin1(gear, receiver, receiver.screen),
                coupled=tuple(entry for entry in (across, *legs) if entry is not None) if receiver.phantom else (),
                leg_siemens=(1.0 / leg_ohms[0], 1.0 / leg_ohms[1]),
            )
        )

    def _pin1(self, gear: Gear, receiver: Input, contact: Contact | InnerNode) -> tuple[tuple[int, float], ...]:
        """Current through the screen contact times its transfer impedance, where stated; else among the tolerances."""
        currents = tuple(self.mates.get(contact.of(gear.id), ()))
        ohm = receiver.pin1_ohm
        if isinstance(ohm, Value):
            return tuple((branch, sign * ohm.value) for branch, sign in currents) if ohm.value else ()
        if currents:
            owner, number = f"{gear.id}.{receiver.id}", len(self.pending)
            self.hum_tolerances.append(
                Tolerance("pin1", owner, ohm.likely, ohm.worst, ohm.source, receiver=number, currents=currents)
            )
        return ()

    def _add_leg_tolerance(self, owner: str, mismatch: Spread, legs: list[int | None], half: float) -> None:
        changes = tuple((index, change) for index, change in zip(legs, (-half, half), strict=True) if index is not None)
        self.tolerances.append(
            Tolerance(
                "input_leg_mismatch", owner, mismatch.likely, mismatch.worst, mismatch.source, conductances=changes
            )
        )

    def _rejection(self, owner: str, mode: InputMode) -> float:
        """As a common-mode gain where it is stated; of unknown sign it goes among the tolerances."""
        rejection = mode.rejection_db
        if isinstance(rejection, Value):
            return ratio_from_db(-rejection.value)
        likely, worst = ratio_from_db(-rejection.likely), ratio_from_db(-rejection.worst)
        number = len(self.pending)
        self.tolerances.append(Tolerance("receiver_rejection", owner, likely, worst, rejection.source, receiver=number))
        return 0.0
