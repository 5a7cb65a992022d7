"""Two sources and two places that belong together: pairs of microphones, both inputs of a recorder, inserts."""

import re
from dataclasses import replace

from ruvak.core.entry.line_ends import Side, has_one_place, takes_stereo
from ruvak.core.rig.part import Connector
from ruvak.core.rig.ports import family_of


def with_both_inputs(first: Side, goal: Side) -> Side:
    """Two microphones, or a pair of them, into a device with two sound inputs, of which the line names none: into both,
    as "ambient mic pair > field recorder"."""
    gear, part, named = goal.devices[0]
    pair = len(first.devices) == 2 or (len(first.devices) == 1 and without_sides(first.piece.text) is not None)
    one_channel = all(output.channels[1:] == () for _, each, _ in first.devices for output in each.outputs[:1])
    if not pair or not one_channel or len(goal.devices) > 1 or named.positions:
        return goal
    inputs = {name: None for entry in part.inputs if family_of(entry.signal) == "sound" for name in entry.connectors}
    if len(inputs) != 2 or not takes_stereo(part):
        return goal
    return replace(goal, devices=((gear, part, replace(named, positions=tuple((name,) for name in inputs))),))


def is_one_place(side: Side) -> bool:
    """Whether a destination is one place: the line names one, or it has no more."""
    _, part, named = side.devices[0]
    return len(named.positions) == 1 or has_one_place(part)


def is_insert(side: Side) -> bool:
    """Whether the line names an insert, whose one socket sends and takes back."""
    _, part, named = side.devices[0]
    ids = {name for position in named.positions for name in position}
    own = [connector for connector in part.connectors if connector.id in ids]
    return len(side.devices) == 1 and bool(own) and all(map(sends_and_returns, own))


def sends_and_returns(socket: Connector) -> bool:
    """Whether it is an insert: one socket that sends and takes back."""
    return socket.side == "both" and socket.id.startswith("insert")


def without_sides(text: str) -> str | None:
    """The singular name of two microphones typed as a pair: "audience mics L/R", "overhead pair", "grand piano"."""
    if pair := re.fullmatch(
        r"(.+?)s?\s+pair|(stereo pair|main pair|(?:grand|upright|baby grand) piano)", text.strip(), re.I
    ):
        return pair[1] or pair[2]
    both = re.fullmatch(r"(.+?)s?[\s,]+(?:l|left)\s*(?:/|&|\+|and|\s)\s*(?:r|right)", text.strip(), re.IGNORECASE)
    return both[1] if both else None
