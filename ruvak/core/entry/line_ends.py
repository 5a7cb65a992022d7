"""Devices at the ends of a line, and the sockets that a run may use of each."""

import re
from collections.abc import Collection
from dataclasses import dataclass
from itertools import zip_longest

from ruvak.core.entry.grammar import Piece
from ruvak.core.entry.meaning import Meaning
from ruvak.core.entry.sockets import Role, Sockets, has_many_channels, tokens
from ruvak.core.rig.connectors import SHAPES, Family, Form
from ruvak.core.rig.part import Part, belongs_to_computer, is_computer, usb_ends
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.ports import Input, Mix, Output, family_of
from ruvak.core.rig.rig import Gear

MOST_PAIRS = 4
"""A mix of more stereo inputs than this has its inputs named."""


@dataclass(frozen=True)
class End:
    """One device at one end of one run, and the choices of sockets: each choice is one socket a line."""

    gear: Gear
    part: Part
    choices: tuple[tuple[Endpoint, ...], ...]
    """Several when the line leaves open which, best first."""
    is_new: bool = False
    channels: tuple[int, ...] = ()
    """Of one socket with several channels those that are used, where the line names them."""
    is_named: bool = False
    """Whether the line names the sockets."""

    def free_choices(self, users: Collection[Endpoint]) -> tuple[tuple[Endpoint, ...], ...]:
        """Those of which nothing is in use. A channel's microphone and line sockets are one channel: where either is in
        use, so is the channel."""
        channels = [tuple(re.sub(r"\D", "", socket.connector) for socket in choice) for choice in self.choices]
        pairs = list(zip(channels, self.choices, strict=True))
        used = {channel for channel, choice in pairs if any(socket in users for socket in choice)}
        return tuple(choice for channel, choice in pairs if channel not in used)


@dataclass(frozen=True)
class Side:
    """One end of the line before the other is known: devices with their named positions."""

    devices: tuple[tuple[Gear, Part, Sockets], ...]
    piece: Piece
    meaning: Meaning
    new: frozenset[str]
    """Those of the devices that the rig does not have yet."""


def links_of(part: Part) -> tuple[str, ...]:
    """Sockets that lead on what comes in at an input: a loudspeaker's link, a subwoofer's through, a lantern's next."""
    listening = {name for receiver in part.inputs for name in receiver.connectors}
    sending = {name for output in part.outputs for name in output.connectors}
    return tuple(
        connector.id
        for connector in part.connectors
        if connector.side == "both" and connector.id in listening - sending
    )


def speaks(part: Part, role: Role) -> bool:
    """Whether it sends, or listens, at all."""
    return bool(part.outputs or links_of(part)) if role == "source" else bool(part.inputs)


def has_one_place(part: Part) -> bool:
    """Whether a destination needs no number: one input, or one mix that everything goes to."""
    pictures = [receiver for receiver in part.inputs if receiver.signal != "computer-data"] or part.inputs
    sound = [receiver for receiver in pictures if family_of(receiver.signal) == "sound"] or pictures
    if len(part.mixes) == 1 and all(len(receiver.connectors) == 1 for receiver in sound):
        # A disc mixer's players: whichever pair is free; its microphone is asked for by name.
        mix = part.mixes[0]
        pairs = bool(mix.right) and len(mix.left) == len(mix.right) <= MOST_PAIRS
        players = {receiver.id for receiver in sound if receiver.signal != "microphone"}
        if pairs and {*mix.left, *mix.right} == players:
            return True
    return len(sound) == 1 or (bool(part.mixes) and len(sound) <= 4)


def has_one_socket(part: Part) -> bool:
    """Whether all sound that it takes comes in by one socket: a camera's microphone input."""
    return len({name for entry in part.inputs if family_of(entry.signal) == "sound" for name in entry.connectors}) == 1


def meet_by_kind(part: Part, named: Sockets, target: Part, places: Sockets) -> tuple[Sockets, Sockets]:
    """The sockets of both ends where what leaves is no sound, or where no sound can arrive: HDMI goes to HDMI; and
    headphones go into a headphone socket.

    As they are where the line names them, or where the usual ones are of one kind.
    """
    if not named.positions and not places.positions and are_joined_by_usb(part, target):
        return Sockets((usb_sockets_of(part),)), Sockets((usb_sockets_of(target),))
    phones = tuple(name for output in part.outputs if output.signal == "headphone" for name in output.connectors)
    if phones and not named.positions and {entry.signal for entry in target.inputs} == {"headphone"}:
        return Sockets((phones,)), places
    kinds = _families(target.inputs, places)
    if named.positions or not part.outputs:
        leaving = next(iter(_families(part.outputs, named)), "sound")
    else:
        usual = family_of(main_output(part).signal)
        others = [family_of(output.signal) for output in part.outputs]
        leaving = usual if usual in kinds else next((other for other in others if other in kinds), usual)
        if leaving != usual or (leaving != "sound" and leaving in kinds):
            ids = [name for port in target.inputs if family_of(port.signal) == leaving for name in port.connectors]
            facing = places if places.positions else Sockets((tuple(ids),))
            named = _sockets_that_carry(leaving, part, part.outputs, target, facing)
    if leaving != "sound" and leaving in kinds and not places.positions:
        places = _sockets_that_carry(leaving, target, target.inputs, part, named)
    return named, places


def _sockets_that_carry(
    family: str, part: Part, ports: tuple[Output | Input, ...], other: Part, facing: Sockets
) -> Sockets:
    """A device's sockets for one kind of signal, as one place; those alone that take the lead of the other device's
    sockets, where any does."""
    ids = [name for port in ports if family_of(port.signal) == family for name in port.connectors]
    leads = {_lead_of(other, name) for position in facing.positions for name in position}
    return Sockets((tuple([name for name in ids if _lead_of(part, name) in leads] or ids),))


def _lead_of(part: Part, socket: str) -> Family:
    """The kind of plugs that the lead at a socket has; a USB lead's two ends differ in shape."""
    family = SHAPES[next(connector.form for connector in part.connectors if connector.id == socket)].family
    return "usb" if family == "usb-device" else family


def are_joined_by_usb(part: Part, target: Part) -> bool:
    """A computer and what works with a computer alone, whatever else they have; but a picture goes to what captures it
    as video."""
    if is_computer(part) == is_computer(target):
        return False
    captures = any(entry.signal == "video" for entry in target.inputs)
    return belongs_to_computer(part) or (belongs_to_computer(target) and not captures)


def usb_sockets_of(part: Part) -> tuple[str, ...]:
    """Its USB sockets, or its plug."""
    ends = usb_ends(part)
    return ends or tuple(connector.id for connector in part.connectors if connector.form is Form.USB_SOCKET)


def families_of(part: Part, sending: Sockets | None = None) -> set[str]:
    """Kinds of signal that it takes; with sockets named, those that it sends by them, or by its usual output."""
    if sending is None:
        return set(_families(part.inputs, Sockets(())))
    if sending.positions:
        return set(_families((*part.outputs, *part.inputs), sending))
    return {family_of(main_output(part).signal)} if part.outputs else set(_families(part.inputs, Sockets(())))


def families_at(part: Part, places: Sockets) -> set[str]:
    """Kinds of signal that its inputs take at these places, or at any where none is named."""
    return set(_families(part.inputs, places))


def _families(ports: tuple[Output | Input, ...], named: Sockets) -> dict[str, None]:
    """The kinds of signal of the sockets named, or of all."""
    ids = {name for position in named.positions for name in position}
    return dict.fromkeys(family_of(port.signal) for port in ports if not ids or ids & set(port.connectors))


def takes_stereo(part: Part) -> bool:
    """Whether it hears a left and a right at sockets of their own, or leads two signals on."""
    if len(links_of(part)) == 2:
        return True
    return any(mix.right for mix in part.mixes) and len({c for i in part.inputs for c in i.connectors}) > 1


def is_stereo(part: Part, named: Sockets, mono: bool) -> bool:
    """Whether what the line names of it has two sides."""
    if mono:
        return False
    if len(named.positions) == 2:
        return True
    ids = {name for position in named.positions for name in position}
    outputs = [output for output in part.outputs if not ids or ids & set(output.connectors)]
    if outputs and not ids:
        outputs = [main_output(part)]
    return bool(outputs) and (
        any(len(output.channels) == 2 for output in outputs[:1])
        and len(named.positions) <= 1
        and _whole(outputs[0].connectors, ids)
    )


def two_outputs(part: Part) -> tuple[tuple[str, ...], ...]:
    """The sockets of a device whose only outputs are two of one channel each; none of another."""
    alone = len(part.outputs) == 2 and all(len(out.channels) == len(out.connectors) == 1 for out in part.outputs)
    forms = {c.form for c in part.connectors for out in part.outputs if c.id in out.connectors}
    return tuple(out.connectors for out in part.outputs) if alone and len(forms) == 1 else ()


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


def main_sockets(part: Part) -> tuple[str, ...]:
    """The sockets of the output meant when none is named; of what has no output of its own, those that lead on."""
    return main_output(part).connectors if part.outputs else links_of(part)


def split_up(side: Side, role: Role, count: int) -> list[End]:
    """One end a run: each device, or each named place of one device."""
    if len(side.devices) > 1:
        return [end_of(*device, 1, role, device[0].id in side.new) for device in side.devices]
    gear, part, named = side.devices[0]
    new = gear.id in side.new
    positions = named.positions or tuple((name,) for name in main_sockets(part))[:count]
    return [End(gear, part, tuple((Endpoint(gear.id, name),) for name in position), new) for position in positions]


def all_by_one_socket(first: Side, goal: Side, mono: bool) -> tuple[tuple[End, ...], End] | None:
    """The ends of one run where either end is one socket with a channel for each of what is at the other: a D-type."""
    near, far = _socket_of_many(first, "source"), _socket_of_many(goal, "goal")
    if (near is None and far is None) or "sound" not in families_of(*first.devices[0][1:]):
        return None
    starts, ends = ([near] if near else None), ([far] if far else None)
    count = len(far.channels) if far is not None else 0
    if starts is None:
        gear, part, named = first.devices[0]
        lines = len(named.positions) or count or (2 if is_stereo(part, named, mono) else 1)
        starts = (
            [end_of(*device, 1, "source", device[0].id in first.new) for device in first.devices]
            if len(first.devices) > 1
            else [end_of(gear, part, named, lines, "source", gear.id in first.new)]
        )
    if ends is None:
        if len(goal.devices) > 1 or not goal.devices[0][2].positions:
            return None
        gear, part, named = goal.devices[0]
        ends = [end_of(gear, part, named, len(named.positions), "goal", gear.id in goal.new)]
    return tuple(starts), ends[0]


def _socket_of_many(side: Side, role: Role) -> End | None:
    """Its one socket with several channels: the one that the line names, or the only one there is."""
    if len(side.devices) > 1:
        return None
    gear, part, named = side.devices[0]
    ports = part.outputs if role == "source" else part.inputs
    sound = {name for port in ports if family_of(port.signal) == "sound" for name in port.connectors}
    ids = {name for position in named.positions for name in position} or sound
    if len(ids) != 1 or not has_many_channels(part, next(iter(ids))):
        return None
    choices = ((Endpoint(gear.id, next(iter(ids))),),)
    return End(gear, part, choices, gear.id in side.new, named.channels)


def are_meant_alone(part: Part, connectors: list[str], is_source: bool) -> bool:
    """Whether a device's name alone means these sockets at one end of a line: its usual output, or all that it has."""
    usual = is_source and bool(part.outputs) and connectors == list(main_output(part).connectors)
    others = [connector for connector in part.connectors if connector.side != ("in" if is_source else "out")]
    return usual or len(others) == 1


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
        return End(gear, part, tuple(dict.fromkeys(choices)), new, is_named=True)
    names = _default(part, role, lines)
    return End(gear, part, tuple(tuple(Endpoint(gear.id, name) for name in choice) for choice in names), new)


def _pairs_of(mix: Mix, sockets: dict[str, tuple[str, ...]]) -> list[tuple[str, ...]]:
    """The left and right sockets of a mix, one pair of each kind: of a disc mixer a deck's and a player's."""
    kinds: dict[str, list[tuple[str, ...]]] = {}
    for left, right in zip(mix.left, mix.right, strict=False):
        pair = tuple(dict.fromkeys((sockets[left][0], sockets[right][0])))
        kinds.setdefault(re.sub(r"\d", "", pair[0]), []).append(pair)
    return [pair for pairs in zip_longest(*kinds.values()) for pair in pairs if pair is not None]


def _default(part: Part, role: Role, lines: int) -> list[tuple[str, ...]]:
    """The sockets meant when none is named: the main output, or the inputs of the first mix."""
    if role == "source":
        return [main_sockets(part)[:lines]]
    by_id = {receiver.id: receiver.connectors for receiver in part.inputs}
    if lines == 2:
        if len(links_of(part)) == 2:
            return [tuple(receiver.connectors[0] for receiver in part.inputs[:2])]
        for mix in part.mixes:
            if mix.right:
                return _pairs_of(mix, by_id)
    return [(next(iter(by_id.values()))[0],)]
