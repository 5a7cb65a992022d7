"""A lead with one of its conductors broken at a plug, as a rig that can be solved."""

from collections.abc import Iterator
from dataclasses import dataclass

from ruvak.core.rig.connectors import CONTACT_WORDS
from ruvak.core.rig.part import Conductor, Part
from ruvak.core.rig.points import Contact, Endpoint
from ruvak.core.rig.rig import KitItem, Rig, Run

SUFFIX = "broken"


@dataclass(frozen=True)
class BrokenLead:
    """One piece of a run with a conductor that goes nowhere. `contact`: as a technician says it, "pin 2"."""

    item: KitItem
    contact: str
    rig: Rig


def broken_leads(rig: Rig, run: Run) -> Iterator[BrokenLead]:
    """Each conductor that a run uses of each of its pieces, broken by itself. The rig is prepared."""
    used = set(run.ends)
    for item in (item for item in rig.kit if item.id in run.pieces):
        part = rig.parts_by_id[item.part]
        for at, cable in enumerate(part.cables):
            for number, conductor in enumerate(cable.conductors):
                if _is_used(item, conductor, used):
                    yield BrokenLead(item, _contact(conductor), _with_broken(rig, item, part, at, number))


def _is_used(item: KitItem, conductor: Conductor, used: set[Endpoint]) -> bool:
    """Whether both of its ends are at plugs of the run: a multicore's other lines are not."""
    ends = (conductor.a, conductor.b)
    return all(isinstance(end, Contact) and Endpoint(item.id, end.connector) in used for end in ends)


def _with_broken(rig: Rig, item: KitItem, part: Part, at: int, number: int) -> Rig:
    cable = part.cables[at]
    conductors = tuple(
        conductor.model_copy(update={"b": None}) if index == number else conductor
        for index, conductor in enumerate(cable.conductors)
    )
    cables = tuple(
        each.model_copy(update={"conductors": conductors}) if index == at else each
        for index, each in enumerate(part.cables)
    )
    broken = part.model_copy(update={"id": f"{part.id[:50]}-{SUFFIX}", "cables": cables})
    kit = tuple(each.model_copy(update={"part": broken.id}) if each.id == item.id else each for each in rig.kit)
    return rig.with_fields(parts=(*rig.parts, broken), kit=kit)


def _contact(conductor: Conductor) -> str:
    """What it is soldered to at its far plug."""
    if conductor.kind == "screen":
        return "screen"
    contact = conductor.b.contact if isinstance(conductor.b, Contact) else ""
    return CONTACT_WORDS.get(contact, f"contact {contact}")
