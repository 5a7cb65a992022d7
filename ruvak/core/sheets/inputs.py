"""The input list, by the area of the stage that a run leaves from: what goes through which box or plate."""

from collections.abc import Iterable

from ruvak.core.entry.phantom import wants_phantom
from ruvak.core.rig.part import MIXER_INPUTS, Part
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import KitItem, Rig, Run, name_of
from ruvak.core.rig.values import Id, Record
from ruvak.core.trace.run_ends import ends_of, say_ends
from ruvak.core.trace.trace import connector_at

STRAIGHT, RETURNS = "Straight to its device", ", returns"
"""Areas of what passes no box, and of what comes back from a mixer."""
_PLUGS_OF_A_LEAD = 2


class InputLine(Record):
    """A line of the list."""

    area: str
    """The box, plate or multicore that it goes through first, by name."""
    number: int
    """Its line."""
    name: str
    """Who or what."""
    device: str
    """What kind of microphone, instrument or device that is."""
    socket: str
    """The socket of the box or plate; empty without one."""
    into: str
    """Where it arrives."""
    leads: str
    """What is pulled for it, as it is written on the leads."""
    phantom: bool
    """Whether its source needs phantom power."""
    note: str
    """What was said about it: who, stand."""
    run: Id
    """The run."""


def input_list(rig: Rig) -> tuple[InputLine, ...]:
    """By area, the areas in the order of their first line; within one by number. The rig is prepared."""
    lines = [_line(rig, run) for run in sorted(rig.runs, key=lambda each: each.number)]
    areas = dict.fromkeys(line.area for line in lines)
    return tuple(line for area in areas for line in lines if line.area == area)


def _line(rig: Rig, run: Run) -> InputLine:
    box = next((piece for piece in run.pieces if _is_an_area(rig, piece)), None)
    sources = ends_of(rig, run, "out")
    leads = [rig.owners_by_id[piece] for piece in run.pieces if rig.part_of(piece).kind == "lead"]
    return InputLine(
        area=f"{name_of(rig, box) if box is not None else STRAIGHT}{RETURNS if _comes_back(rig, sources) else ''}",
        number=run.number,
        name=run.name,
        device=", ".join(dict.fromkeys(rig.part_of(end.owner).name for end in sources)),
        socket=_socket_of_box(rig, run, box) if box is not None else "",
        into=say_ends(rig, run, "in"),
        leads=", ".join(lead.tag for lead in leads if isinstance(lead, KitItem) and not lead.installed),
        phantom=wants_phantom(rig, sources),
        note=run.note,
        run=run.id,
    )


def _is_an_area(rig: Rig, piece: str) -> bool:
    """A wall plate, a tie line, a multicore or a stage box: something with a place, where several runs may go in."""
    item, part = rig.owners_by_id[piece], rig.part_of(piece)
    return (isinstance(item, KitItem) and item.installed) or (_has_a_side(part) and part.kind in ("lead", "box"))


def _comes_back(rig: Rig, sources: Iterable[Endpoint]) -> bool:
    """From a device that takes several inputs itself: an output of a mixer."""
    return any(len(rig.part_of(end.owner).inputs) >= MIXER_INPUTS for end in sources)


def _has_a_side(part: Part) -> bool:
    into = [connector for connector in part.connectors if connector.side == "in"]
    return len(into) > _PLUGS_OF_A_LEAD


def _socket_of_box(rig: Rig, run: Run, box: str) -> str:
    ends = (join.b for join in run.joins if join.b.owner == box)
    return ", ".join(connector_at(rig, end).label for end in ends)
