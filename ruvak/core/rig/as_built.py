"""Which edits only record what was really done on the stage: leads swapped, sockets moved, switches set."""

from ruvak.core.rig.edits import Edit, PutThing, RemoveThing, SetField
from ruvak.core.rig.rig import Rig

FIELDS: dict[str, frozenset[str]] = {
    "runs": frozenset({"pieces", "joins"}),
    "gear": frozenset({"settings", "faders_db", "outlet"}),
}
"""Of runs, the pieces and where they are plugged; of devices, their switches, faders and outlets."""


def is_as_built(rig: Rig, edit: Edit) -> bool:
    """Whether every operation records work. A lead or box that was not planned may be added with its part."""
    return all(_is_work(rig, op) for op in edit.ops)


def _is_work(rig: Rig, op: SetField | PutThing | RemoveThing) -> bool:
    match op:
        case SetField():
            return op.field in FIELDS.get(op.kind, ())
        case PutThing(kind="kit"):
            return op.thing.id not in rig.owners_by_id
        case PutThing(kind="parts"):
            return op.thing.id not in rig.parts_by_id
        case _:
            return False
