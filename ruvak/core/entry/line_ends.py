"""Devices at the ends of a line, and the sockets that a run may use of each."""

from dataclasses import dataclass

from ruvak.core.entry.grammar import Piece
from ruvak.core.entry.names import Meaning
from ruvak.core.entry.sockets import Role, Sockets, tokens
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.ports import Output
from ruvak.core.rig.rig import Gear


@dataclass(frozen=True)
class End:
    """One device at one end of one run, and the choices of sockets: each choice is one socket a line."""

    gear: Gear
    part: Part
    choices: tuple[tuple[Endpoint, ...], ...]
    """Several when the line leaves open which, best first."""
    is_new: bool = False


@dataclass(frozen=True)
class Side:
    """One end of the line before the other is known: devices with their named positions."""

    devices: tuple[tuple[Gear, Part, Sockets], ...]
    piece: Piece
    meaning: Meaning
    new: frozenset[str]
    """Those of the devices that the rig does not have yet."""


def speaks(part: Part, role: Role) -> bool:
    """Whether it sends, or listens, at all."""
    return bool(part.outputs if role == "source" else part.inputs)


def has_one_place(part: Part) -> bool:
    """Whether a destination needs no number: one input, or one mix that everything goes to."""
    return len(part.inputs) == 1 or (bool(part.mixes) and len(part.inputs) <= 4)


def takes_stereo(part: Part) -> bool:
    """Whether it hears a left and a right at sockets of their own."""
    return any(mix.right for mix in part.mixes) and len({c for i in part.inputs for c in i.connectors}) > 1


def is_stereo(part: Part, named: Sockets, mono: bool) -> bool:
    """Whether what the line names of it has two sides."""
    if mono:
        return False
    if len(named.positions) == 2:
        return True
    ids = {name for position in named.positions for name in position}
    outputs = [output for output in part.outputs if ids & set(output.connectors)] if ids else [main_output(part)]
    return (
        any(len(output.channels) == 2 for output in outputs[:1])
        and len(named.positions) <= 1
        and _whole(outputs[0].connectors, ids)
    )


def needs_both(part: Part, named: Sockets) -> bool:
    """Whether one side alone would be half the sound: two sockets, and no left that is mono by itself."""
    if named.positions or not part.outputs:
        return False
    ids = main_output(part).connectors
    own = [connector for connector in part.connectors if connector.id in ids]
    return len(own) == 2 and len(main_output(part).channels) == 2 and not any("mono" in tokens(entry) for entry in own)


def _whole(connectors: tuple[str, ...], ids: set[str]) -> bool:
    """Whether the sockets named carry both sides: none named, or one socket with both."""
    return not ids or len(connectors) == 1


def one_each(side: Side, role: Role, mono: bool) -> list[End]:
    """An end for each device."""
    result = []
    for gear, part, named in side.devices:
        lines = len(named.positions) or (2 if role == "source" and _two_sockets(part) and not mono else 1)
        result.append(end_of(gear, part, named, lines, role, gear.id in side.new))
    return result


def _two_sockets(part: Part) -> bool:
    return bool(part.outputs) and len(main_output(part).connectors) == 2


def split_up(side: Side, role: Role, count: int) -> list[End]:
    """One end a run: each device, or each named place of one device."""
    if len(side.devices) > 1:
        return [end_of(*device, 1, role, device[0].id in side.new) for device in side.devices]
    gear, part, named = side.devices[0]
    new = gear.id in side.new
    positions = named.positions or tuple((name,) for name in main_output(part).connectors)[:count]
    return [End(gear, part, tuple((Endpoint(gear.id, name),) for name in position), new) for position in positions]


def main_output(part: Part) -> Output:
    """The one meant when none is named."""
    return next((output for output in part.outputs if output.id == "main"), part.outputs[0])


def end_of(gear: Gear, part: Part, named: Sockets, lines: int, role: Role, new: bool) -> End:
    """The choices of sockets for so many lines."""
    if named.positions:
        alternatives = max(len(position) for position in named.positions)
        choices = [
            tuple(Endpoint(gear.id, position[min(i, len(position) - 1)]) for position in named.positions)
            for i in range(alternatives)
        ]
        return End(gear, part, tuple(dict.fromkeys(choices)), new)
    names = _default(part, role, lines)
    return End(gear, part, tuple(tuple(Endpoint(gear.id, name) for name in choice) for choice in names), new)


def _default(part: Part, role: Role, lines: int) -> list[tuple[str, ...]]:
    """The sockets meant when none is named: the main output, or the inputs of the first mix."""
    if role == "source":
        output = main_output(part)
        return [output.connectors[:lines] if len(output.connectors) > 1 else output.connectors]
    by_id = {receiver.id: receiver.connectors for receiver in part.inputs}
    if lines == 2:
        for mix in part.mixes:
            if mix.right:
                return [tuple(dict.fromkeys((by_id[mix.left[0]][0], by_id[mix.right[0]][0])))]
    return [(next(iter(by_id.values()))[0],)]
