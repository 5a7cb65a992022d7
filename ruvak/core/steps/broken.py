"""A lead with one of its conductors broken at a plug, as a rig that can be solved."""

from collections.abc import Iterator
from dataclasses import dataclass

from ruvak.core.rig.part import Conductor
from ruvak.core.rig.points import Contact, Endpoint
from ruvak.core.rig.rig import KitItem, Rig, Run
from ruvak.core.rig.wiring_fault import WiringFault, contact_words


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
        for cable in rig.parts_by_id[item.part].cables:
            for conductor in cable.conductors:
                if _is_used(item, conductor, used):
                    yield BrokenLead(item, _contact(conductor), _with_broken(rig, item, conductor))


def _is_used(item: KitItem, conductor: Conductor, used: set[Endpoint]) -> bool:
    """Whether both of its ends are at plugs of the run: a multicore's other lines are not."""
    ends = (conductor.a, conductor.b)
    return all(isinstance(end, Contact) and Endpoint(item.id, end.connector) in used for end in ends)


def _with_broken(rig: Rig, item: KitItem, conductor: Conductor) -> Rig:
    fault = WiringFault.model_validate({"kind": "open", "a": conductor.a, "b": conductor.b})
    broken = item.model_copy(update={"faults": (*item.faults, fault)})
    return rig.with_fields(kit=tuple(broken if each.id == item.id else each for each in rig.kit))


def _contact(conductor: Conductor) -> str:
    """What it is soldered to at its far plug."""
    if conductor.kind == "screen":
        return "screen"
    return contact_words(conductor.b) if conductor.b is not None else ""
