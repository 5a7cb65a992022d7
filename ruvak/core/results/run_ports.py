"""Which outputs a run starts from and which inputs it reaches, by the metal at its end sockets."""

from collections.abc import Iterable
from dataclasses import dataclass

from ruvak.core.circuit.circuit import Circuit, Drive, Receiver, Tolerance, cable_owner
from ruvak.core.rig.connectors import SHAPES, carries_many_channels
from ruvak.core.rig.part import Connector
from ruvak.core.rig.points import Contact, ContactRef, Endpoint, InnerNode, NodeRef
from ruvak.core.rig.ports import BalancedChannel, BalancedInput, Channel
from ruvak.core.rig.rig import Rig, Run
from ruvak.core.trace.run_ends import ends_of
from ruvak.core.trace.trace import Trace, connector_at


@dataclass(frozen=True)
class RunPorts:
    """What a run joins: drives grouped by output, receivers, and whose tolerances matter to it."""

    groups: tuple[tuple[int, ...], ...]
    receivers: tuple[int, ...]
    owners: tuple[str, ...]


def ports_of_run(rig: Rig, traced: Trace, circuit: Circuit, run: Run) -> RunPorts:
    """Unknowns belong to pieces, to source devices, and to inputs by gear.input."""
    groups = sources_of(rig, traced, circuit, run)
    receivers = inputs_of(rig, traced, circuit, run, groups)
    sources = [circuit.drives[number].gear for group in groups for number in group]
    inputs = [f"{circuit.receivers[number].gear}.{circuit.receivers[number].input.id}" for number in receivers]
    cables = [cable_owner(piece, index) for piece in run.pieces for index in _cables_in_use(rig, run, piece)]
    return RunPorts(groups, receivers, tuple(dict.fromkeys([*run.pieces, *cables, *sources, *inputs])))


def _cables_in_use(rig: Rig, run: Run, piece: str) -> list[int]:
    """Of a piece's cables those at a connector that this run plugs in, and those that end inside."""
    used = {end.connector for end in run.ends if end.owner == piece}
    result = []
    for index, cable in enumerate(rig.part_of(piece).cables):
        points = [point for conductor in cable.conductors for point in (conductor.a, conductor.b) if point is not None]
        if any(isinstance(point, InnerNode) or point.connector in used for point in points):
            result.append(index)
    return result


def by_owner(tolerances: Iterable[Tolerance]) -> dict[str, list[Tolerance]]:
    """Unknowns by what they belong to."""
    result: dict[str, list[Tolerance]] = {}
    for tolerance in tolerances:
        result.setdefault(tolerance.owner, []).append(tolerance)
    return result


def sources_of(rig: Rig, traced: Trace, circuit: Circuit, run: Run) -> tuple[tuple[int, ...], ...]:
    """Numbers of the drives whose channel leaves by one of the run's source sockets, grouped by output.

    A channel counts where its hot or cold is on a contact of such a socket, inside the device too: the right of a
    left/mono pair that leaves by the left socket counts. Where none does, the sockets may only lead on what comes in
    at others (a loudspeaker's link): then what drives that metal counts.
    """
    leaving = ends_of(rig, run, "out")
    nodes, plugged_on = _nodes(traced, leaving), _PluggedOn(rig, traced, run, leaving)
    groups: dict[tuple[str, str], list[int]] = {}
    here = (number for gear in nodes for number in circuit.drives_of.get(gear, ()))
    for number in here:
        drive = circuit.drives[number]
        points = channel_points(drive)
        if any(traced.node_of[point] in nodes.get(drive.gear, ()) for point in points) and plugged_on.has(points):
            groups.setdefault((drive.gear, drive.output.id), []).append(number)
    if groups:
        return tuple(tuple(group) for group in groups.values())
    ends = ends_of(rig, run, "out")
    return tuple(tuple(group) for group in _led_on(traced, circuit, ends).values()) or _fed_by(
        rig, traced, circuit, run, {end.owner for end in ends}
    )


def _fed_by(rig: Rig, traced: Trace, circuit: Circuit, run: Run, owners: set[str]) -> tuple[tuple[int, ...], ...]:
    """The sources of runs that end at the device this one leads on from, where resistors or a box stand between."""
    result: list[tuple[int, ...]] = []
    for other in rig.runs:
        into = ends_of(rig, other, "in") if other.id != run.id else {}
        if any(end.owner in owners for end in into) and not any(
            end.owner in owners for end in ends_of(rig, other, "out")
        ):
            result += sources_of(
                rig.with_fields(runs=tuple(r for r in rig.runs if r.id != run.id)), traced, circuit, other
            )
    return tuple(dict.fromkeys(result))


def _led_on(traced: Trace, circuit: Circuit, ends: dict[Endpoint, Connector]) -> dict[tuple[str, str], list[int]]:
    """Drives of other devices whose hot is the same conductor as a contact of these sockets."""
    owners = {end.owner for end in ends}
    points = [end.contact(name) for end, connector in ends.items() for name in SHAPES[connector.form].contacts]
    here = {traced.conductor_of[point] for point in points}
    groups: dict[tuple[str, str], list[int]] = {}
    for number, drive in enumerate(circuit.drives if here else ()):
        if drive.gear not in owners and traced.conductor_of[channel_points(drive)[0]] in here:
            groups.setdefault((drive.gear, drive.output.id), []).append(number)
    return groups


def channel_points(drive: Drive) -> tuple[ContactRef | NodeRef, ...]:
    """Where a drive's channel leaves: its hot, and of a balanced output its cold."""
    channel = next(channel for channel in drive.output.channels if channel.id == drive.channel)
    return tuple(point.of(drive.gear) for point in points_of_channel(channel))


def points_of_channel(channel: Channel | BalancedChannel) -> tuple[Contact | InnerNode, ...]:
    """Hot, and of a balanced channel cold."""
    return (channel.hot, channel.cold) if isinstance(channel, BalancedChannel) else (channel.hot,)


def inputs_of(
    rig: Rig, traced: Trace, circuit: Circuit, run: Run, sources: tuple[tuple[int, ...], ...]
) -> tuple[int, ...]:
    """Numbers of the receivers that listen at one of the run's destination sockets.

    A socket with both directions (an insert) that the run starts from counts too, where its device sends something and
    another device of the run sends something back to it.
    """
    arriving = ends_of(rig, run, "in")
    nodes, plugged_on = _nodes(traced, arriving), _PluggedOn(rig, traced, run, arriving)
    result = [
        number
        for gear in nodes
        for number in circuit.receivers_of.get(gear, ())
        if traced.node_of[circuit.receivers[number].input.hot.of(gear)] in nodes[gear]
        and plugged_on.has(_input_points(circuit.receivers[number]))
    ]
    both = {end: entry for end, entry in ends_of(rig, run, "out").items() if entry.side == "both"}
    returning = _nodes(traced, both)
    senders = {circuit.drives[member].gear for group in sources for member in group}
    for number, receiver in enumerate(circuit.receivers if returning else ()):
        hot = receiver.input.hot.of(receiver.gear)
        here = traced.node_of[hot] in returning.get(receiver.gear, ())
        sends = here and receiver.gear in senders
        if number not in result and sends and _sent_from_elsewhere(traced, circuit, sources, receiver):
            result.append(number)
    return tuple(result)


def _input_points(receiver: Receiver) -> tuple[ContactRef | NodeRef, ...]:
    """Hot, and of a balanced input cold."""
    cold = receiver.input.cold if isinstance(receiver.input, BalancedInput) else None
    return tuple(point.of(receiver.gear) for point in (receiver.input.hot, cold) if point is not None)


class _PluggedOn:
    """Of a socket with many channels (a D-type) those whose plugs, farther on along the run, are plugged in: a loom may
    have plugs that hang free. A channel counts where either of its legs still leads there."""

    def __init__(self, rig: Rig, traced: Trace, run: Run, ends: dict[Endpoint, Connector]) -> None:
        self._traced = traced
        self._sockets = {end for end, entry in ends.items() if carries_many_channels(entry.form)}
        self._in_use: set[str] = set()
        if self._sockets:
            mates = {end for join in run.joins if self._sockets & set(join.ends) for end in join.ends}
            farther = [end for end in run.ends if end not in mates]
            self._in_use = {
                traced.conductor_of[end.contact(name)]
                for end in farther
                for name in SHAPES[connector_at(rig, end).form].contacts
            }

    def has(self, points: tuple[ContactRef | NodeRef, ...]) -> bool:
        """Whether one of these contacts is in use; of any other socket every contact is."""
        if not any(isinstance(point, ContactRef) and point.endpoint in self._sockets for point in points):
            return True
        return any(self._traced.conductor_of[point] in self._in_use for point in points)


def _sent_from_elsewhere(
    traced: Trace, circuit: Circuit, sources: tuple[tuple[int, ...], ...], receiver: Receiver
) -> bool:
    hot = traced.conductor_of[receiver.input.hot.of(receiver.gear)]
    for group in sources:
        for number in group:
            drive = circuit.drives[number]
            if drive.gear != receiver.gear and traced.conductor_of[channel_points(drive)[0]] == hot:
                return True
    return False


def _nodes(traced: Trace, ends: dict[Endpoint, Connector]) -> dict[str, set[str]]:
    """Owner to the nodes of all contacts of these sockets."""
    nodes: dict[str, set[str]] = {}
    for end, connector in ends.items():
        for contact in SHAPES[connector.form].contacts:
            nodes.setdefault(end.owner, set()).add(traced.node_of[end.contact(contact)])
    return nodes
