"""Who feeds phantom, and whose legs it may reach."""

from collections.abc import Iterable, Iterator

from ruvak.core.circuit.circuit import Drive, Feed, Receiver, Sink
from ruvak.core.circuit.elements import CircuitPoint
from ruvak.core.rig.points import SIGNAL_REFERENCE
from ruvak.core.rig.ports import BalancedChannel, Output, PhantomNeed
from ruvak.core.rig.rig import Gear, Rig, setting_of

LEAST_WINDING_OHM = 0.1


def feeds(rig: Rig, receivers: Iterable[Receiver]) -> Iterator[Feed]:
    """Inputs whose phantom is switched on."""
    for receiver in receivers:
        supply = receiver.input.phantom
        if supply is None:
            continue
        gear = rig.owners_by_id[receiver.gear]
        assert isinstance(gear, Gear), "receivers belong to gear"
        if supply.setting is None or setting_of(gear, rig.part_of(gear.id), supply.setting) is True:
            nodes = receiver.hot, receiver.cold, receiver.reference
            yield Feed(receiver.gear, receiver.input.id, *nodes, supply.volt.value, supply.feed_ohm.value)


def sinks(drives: Iterable[Drive], node_of: dict[CircuitPoint, int]) -> Iterator[Sink]:
    """Every channel of every output in use: what draws phantom, and what should not meet it."""
    for drive in drives:
        channel = next(channel for channel in drive.output.channels if channel.id == drive.channel)
        reference = SIGNAL_REFERENCE.of(drive.gear)
        cold = channel.cold.of(drive.gear) if isinstance(channel, BalancedChannel) else reference
        need = drive.output.phantom
        leg_ohm, other_leg_ohm = _leg_ohms(drive.output, need) if need is not None else (0.0, 0.0)
        yield Sink(
            drive.gear,
            drive.output.id,
            drive.channel,
            node_of[channel.hot.of(drive.gear)],
            node_of[cold],
            node_of[reference],
            need.ampere.value if need is not None else 0.0,
            need.min_v.value if need is not None else 0.0,
            leg_ohm,
            other_leg_ohm,
        )


def _leg_ohms(output: Output, need: PhantomNeed) -> tuple[float, float]:
    """From each leg to the electronics as the supply is wired inside, and as it may be wired instead."""
    winding = output.leg_ohm if output.type == "balanced" else output.z_ohm
    # An output without any impedance of its own still has a few centimetres of wire.
    through_winding = max(winding.value, LEAST_WINDING_OHM)
    match need.wiring:
        case "resistors":
            return need.leg_ohm.value, need.leg_ohm.value
        case "centre-tap":
            return through_winding, through_winding
        case "unknown":
            return need.leg_ohm.value, through_winding
