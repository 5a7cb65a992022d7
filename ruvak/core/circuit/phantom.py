"""Who feeds phantom, and whose legs it may reach."""

from collections.abc import Iterable, Iterator

from ruvak.core.circuit.circuit import Drive, Feed, Receiver, Sink
from ruvak.core.circuit.elements import CircuitPoint
from ruvak.core.rig.points import SIGNAL_REFERENCE
from ruvak.core.rig.ports import BalancedChannel
from ruvak.core.rig.rig import Gear, Rig, setting_of


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
        channel = next(one for one in drive.output.channels if one.id == drive.channel)
        reference = SIGNAL_REFERENCE.of(drive.gear)
        cold = channel.cold.of(drive.gear) if isinstance(channel, BalancedChannel) else reference
        need = drive.output.phantom
        yield Sink(
            drive.gear,
            drive.output.id,
            drive.channel,
            node_of[channel.hot.of(drive.gear)],
            node_of[cold],
            node_of[reference],
            need.ampere.value if need is not None else 0.0,
            need.min_v.value if need is not None else 0.0,
            need.leg_ohm.value if need is not None else 0.0,
        )
