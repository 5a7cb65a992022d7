"""Of several parts of one name the one that goes with what stands at the other end of the line."""

import re
from dataclasses import replace

from ruvak.core.entry.line_ends import (
    Side,
    are_joined_by_usb,
    families_at,
    families_of,
    has_one_place,
    main_output,
    usb_sockets_of,
)
from ruvak.core.entry.lists import split_list
from ruvak.core.entry.names import Directory
from ruvak.core.entry.sockets import Sockets, sockets
from ruvak.core.entry.wanted import problem
from ruvak.core.rig.connectors import SHAPES, Family
from ruvak.core.rig.part import Part
from ruvak.core.rig.ports import SignalClass, family_of
from ruvak.core.rig.rig import Gear

Device = tuple[Gear, Part, Sockets]
_CHOOSE_THE_INPUT: frozenset[SignalClass | None] = frozenset(("instrument", "microphone"))
"""What no line input is made for."""


def with_usb_sockets(directory: Directory, first: Side, goal: Side) -> tuple[Side, Side]:
    """Both ends, those that are new made of a part with a USB socket where they meet by USB: before a headphone adapter
    with a USB plug a phone is one without headphone socket. Raises Refused where a device has none."""
    if not are_joined_by_usb(first.devices[0][1], goal.devices[0][1]):
        return first, goal
    return _with_usb(directory, first), _with_usb(directory, goal)


def _with_usb(directory: Directory, side: Side) -> Side:
    gear, part, named = side.devices[0]
    if named.positions or usb_sockets_of(part):
        return side
    other = next((each for each in directory.kinds_called(gear.name) if usb_sockets_of(each)), None)
    if other is None or gear.id not in side.new:
        sentence = f"{gear.name} has no USB socket, and what is at the other end works by USB."
        raise problem("unknown_socket", side.piece, sentence)
    return _made_of(side, other)


def taking_the_signal(directory: Directory, first: Side, goal: Side) -> Side:
    """The destinations, new ones made of a part with an input for what is plugged in: a violin's "preamp" is none for
    microphones, and a "recorder" behind a microphone is none for line level alone."""
    outputs = first.devices[0][1].outputs
    signal = main_output(first.devices[0][1]).signal if outputs else None
    if signal not in _CHOOSE_THE_INPUT or first.devices[0][2].positions:
        return goal
    devices = tuple(
        _taking(directory, signal, device) if device[0].id in goal.new else device for device in goal.devices
    )
    return replace(goal, devices=devices)


def meeting_the_input(directory: Directory, first: Side, goal: Side) -> Side:
    """New microphones of a kind whose plug is that of the destination's sockets, where their name has such a kind: a
    "lapel" into a desk is a radio receiver, into a camera a wired one."""
    inputs = {family for _, other, places in goal.devices for family in _families_in(other, places)}
    devices = tuple(
        _meeting(directory, inputs, device) if device[0].id in first.new else device for device in first.devices
    )
    return replace(first, devices=devices)


def _meeting(directory: Directory, inputs: set[Family], device: Device) -> Device:
    gear, part, named = device
    if named.positions or not part.outputs or main_output(part).signal != "microphone" or inputs & _families_out(part):
        return device
    others = directory.kinds_called(re.sub(r"\s*\d+$", "", gear.name))
    other = next((each for each in others if each.outputs and inputs & _families_out(each)), None)
    return device if other is None else (gear.model_copy(update={"part": other.id}), other, named)


def _families_out(part: Part) -> set[Family]:
    return {SHAPES[c.form].family for c in part.connectors if c.id in main_output(part).connectors}


def _families_in(part: Part, places: Sockets) -> set[Family]:
    """Of the sockets that a line names, or of all that take sound."""
    named = {name for position in places.positions for name in position}
    taking = named or {name for entry in part.inputs for name in entry.connectors}
    return {SHAPES[connector.form].family for connector in part.connectors if connector.id in taking}


def of_kind(directory: Directory, first: Side, goal: Side) -> Side:
    """A new destination that takes what the source sends: behind a power amplifier "speaker" is one without."""
    part, named = first.devices[0][1:]
    kinds = families_of(part, named)
    if not named.positions and are_joined_by_usb(part, goal.devices[0][1]):
        return goal
    known = any(gear.id not in goal.new for gear, _, _ in goal.devices)
    # A player's usual output is of sound; a television that takes only its picture is meant all the same.
    sent = kinds if named.positions else kinds | ({"video"} & {family_of(output.signal) for output in part.outputs})
    suits = all(sent & families_of(other) and suits_the_line(part, other) for _, other, _ in goal.devices)
    if known or suits:
        return goal
    names = split_list(goal.piece.text, "goal")
    if len(names) == 1 < len(goal.devices) and goal.piece.text.strip().lower().endswith(("l/r", "left/right")):
        # "Mains L/R" are two.
        names = [gear.name for gear, _, _ in goal.devices]
    each = [_device_of_kind(directory, part, kinds, name) for name in (names if len(names) > 1 else [goal.piece.text])]
    devices = tuple(device for some in each for device in some)
    if not all(each) or len(devices) != len(goal.devices):
        return goal
    return replace(goal, devices=devices, new=frozenset(gear.id for gear, _, _ in devices))


def _device_of_kind(directory: Directory, part: Part, kinds: set[str], name: str) -> tuple[Device, ...]:
    """What a name would add that takes such signals; empty where nothing of that name does."""
    for meaning in directory.counted_meanings(name):
        other = meaning.new
        if other is not None:
            places = sockets(other, meaning.rest, "goal")
            if places.unknown is None and kinds & families_at(other, places) and suits_the_line(part, other):
                return tuple((gear, other, places) for gear in meaning.gear)
    return ()


def suits_the_line(part: Part, other: Part) -> bool:
    """Whether a loudspeaker is made for the amplifier that drives it: one with taps for a 100 V line, any other for
    none."""
    high_voltage = any(output.type == "unbalanced" and output.line_v is not None for output in part.outputs)
    loudspeakers = [entry for entry in other.inputs if entry.signal == "loudspeaker"]
    drives = any(output.signal == "loudspeaker" for output in part.outputs)
    return not drives or all((len(entry.modes) > 1) == high_voltage for entry in loudspeakers)


def at_its_microphone_input(first: Side, goal: Side) -> Side:
    """A microphone into a device with one input for microphones among others, of which the line names none: there."""
    gear, part, named = goal.devices[0]
    outputs = first.devices[0][1].outputs
    if len(goal.devices) > 1 or named.positions or not outputs:
        return goal
    inputs = {entry.connectors for entry in part.inputs if entry.signal == "microphone"}
    is_microphone = main_output(first.devices[0][1]).signal == "microphone"
    if not is_microphone or len(inputs) != 1 or len(part.inputs) < 2 or not has_one_place(part):
        return goal
    return replace(goal, devices=((gear, part, replace(named, positions=tuple(inputs))),))


def _taking(directory: Directory, signal: SignalClass | None, device: Device) -> Device:
    gear, part, named = device
    if _takes(part, signal):
        return device
    for other in directory.kinds_called(re.sub(r"\s*\d+$", "", gear.name)):
        # The words behind the name mean sockets of that part, too.
        ids = {connector.id for connector in other.connectors}
        if _takes(other, signal) and all(name in ids for position in named.positions for name in position):
            return gear.model_copy(update={"part": other.id}), other, named
    return device


def _takes(part: Part, signal: SignalClass | None) -> bool:
    return any(entry.signal == signal for entry in part.inputs)


def _made_of(side: Side, part: Part) -> Side:
    """The same with its one device of another part."""
    gear, _, named = side.devices[0]
    return replace(side, devices=((gear.model_copy(update={"part": part.id}), part, named),))
