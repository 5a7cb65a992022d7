"""Ends of a line that do not fit each other, by their number or their sockets: refused, with lines that would do."""

from dataclasses import replace

from ruvak.core.entry.context import LineContext
from ruvak.core.entry.free_places import from_outputs, has_free_usb, other_outputs
from ruvak.core.entry.line_ends import Side, families_of, is_stereo, links_of, takes_stereo
from ruvak.core.entry.lists import split_list
from ruvak.core.entry.wanted import problem
from ruvak.core.rig.part import Part, is_computer
from ruvak.core.rig.ports import family_of
from ruvak.core.rig.rig import connectors_in_use


def from_as_many(context: LineContext, first: Side, count: int) -> tuple[str, ...]:
    """The line from as many free outputs of its one source as there are places to go to."""
    gear, part, _ = first.devices[0]
    if len(first.devices) > 1:
        return ()
    outputs = other_outputs(gear.id, part, set(connectors_in_use(context.rig)), count)
    return from_outputs(context.line, first.piece, gear.name, [each for each in outputs if each[-1].isdigit()])


def refuse_half_each(context: LineContext, first: Side, goal: Side, mono: bool) -> None:
    """Recorders and computers hear both sides: "desk main > recorder and stream pc" does not mean the left for one and
    the right for the other. Raises Refused."""
    gear, part, named = first.devices[0]
    names_each = bool(named.positions) and not named.implied
    if len(first.devices) > 1 or len(goal.devices) < 2 or names_each or not is_stereo(part, named, mono):
        return
    if not all(
        len(places.positions) == 2 if places.positions else _hears_both(target) for _, target, places in goal.devices
    ):
        return
    lines = from_as_many(context, first, 2 * len(goal.devices))
    names = split_list(goal.piece.text, "goal")
    if len(names) == 2:
        outputs = other_outputs(gear.id, part, set(connectors_in_use(context.rig)), 2)
        others = from_outputs(first.piece.text, replace(first.piece, start=0), gear.name, outputs)
        lines = (*(f"{first.piece.text} > {names[0]}; {other} > {names[1]}" for other in others), *lines)
    each = f"Each of {' and '.join(names)} takes a left and a right"
    count = 2 * len(goal.devices)
    sentence = (
        f"{each}: name {count} outputs of {gear.name}, two for each."
        if lines
        else f"{each}, and {gear.name} has not {count} outputs: write one destination, and go on from there."
    )
    raise problem("counts_differ", goal.piece, sentence, *lines)


def refuse_without_sound_input(context: LineContext, first: Side, goal: Side) -> None:
    """A computer with a headphone socket alone takes sound by USB: from what has USB itself, or through an interface.
    Raises Refused."""
    gear, part, named = first.devices[0]
    other, target, places = goal.devices[0]
    takes_sound = any(family_of(entry.signal) == "sound" for entry in target.inputs)
    if places.positions or takes_sound or not is_computer(target) or "sound" not in families_of(part, named):
        return
    free = has_free_usb(gear.id, part, set(connectors_in_use(context.rig)))
    lines = from_outputs(context.line, first.piece, gear.name, ["USB"]) if free else ()
    at = goal.piece.start
    lines = (*lines, f"{context.line[:at]}interface > {context.line[at:]}")
    sentence = f"{other.name} has no socket that takes sound in: go there by USB, or through an interface."
    raise problem("unknown_socket", goal.piece, sentence, *lines)


def _hears_both(part: Part) -> bool:
    """Whether one side alone is half of what it is for; of amplifiers each may well be for one side."""
    drives = any(output.signal == "loudspeaker" for output in part.outputs)
    return takes_stereo(part) and not links_of(part) and not drives
