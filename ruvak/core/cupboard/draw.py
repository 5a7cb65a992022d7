"""A rig with the house's free things within reach, and the edit that draws what a plan made with them uses.

A rig's own record holds only what it has drawn. While a line is read or a remedy is looked for, everything of the
cupboard that is free stands beside it.
"""

from collections.abc import Collection, Iterable, Iterator

from ruvak.core.cupboard.item import CupboardItem, thing_id
from ruvak.core.rig.earth import Bond
from ruvak.core.rig.edits import Edit, Op, PutThing, RemoveThing, SetField
from ruvak.core.rig.rig import Gear, KitItem, Rig, Run, collection_of, written_on

Taken = tuple[str, int]
"""A thing of the cupboard by item and number."""


def with_cupboard(rig: Rig, items: Iterable[CupboardItem], taken: Collection[Taken], devices: bool = False) -> Rig:
    """The rig with all that is usable and free beside its own things; `devices`: devices too.

    What bears the tag of a thing that the rig has already is left out: it is most likely the same.
    """
    items = tuple(items)
    free = tuple(_free(rig, items, taken))
    pieces = [thing for thing in free if isinstance(thing, KitItem)]
    gear = [thing for thing in free if devices and isinstance(thing, Gear)]
    parts = {item.part.id: item.part for item in items}
    wanted = dict.fromkeys([*(piece.part for piece in pieces), *(device.part for device in gear)])
    missing = tuple(parts[id_] for id_ in wanted if id_ not in rig.parts_by_id)
    if not pieces and not gear:
        return rig
    return rig.with_fields(kit=(*rig.kit, *pieces), gear=(*rig.gear, *gear), parts=(*rig.parts, *missing))


def _free(rig: Rig, items: Iterable[CupboardItem], taken: Collection[Taken]) -> Iterator[KitItem | Gear]:
    names = {written_on(thing).lower() for thing in rig.owners_by_id.values()}
    for item in items:
        own = rig.parts_by_id.get(item.part.id)
        # A rig that has another part by that id keeps its own.
        if not item.is_usable or (own is not None and own != item.part):
            continue
        for number in range(1, item.count + 1):
            if (item.id, number) in taken or thing_id(item.id, number) in rig.owners_by_id:
                continue
            thing = item.in_rig(number)
            if written_on(thing).lower() not in names:
                yield thing


def with_drawn(known: Collection[str], beside: Rig, edit: Edit) -> Edit:
    """An edit of the rig `beside`, which has the cupboard's things too, as an edit of a rig that has the devices and
    pieces `known`: what else its operations name is put into the rig first."""
    named = dict.fromkeys(owner for op in edit.ops for owner in _owners_in(op))
    used = [beside.owners_by_id[id_] for id_ in named if id_ not in known and id_ in beside.owners_by_id]
    if not used:
        return edit
    put = {op.thing.id for op in edit.ops if isinstance(op, PutThing) and op.kind == "parts"}
    parts = dict.fromkeys(thing.part for thing in used if thing.part not in put)
    ops: list[Op] = [PutThing(kind="parts", thing=beside.parts_by_id[part]) for part in parts]
    ops += [PutThing(kind=collection_of(thing), thing=thing) for thing in used]
    return edit.model_copy(update={"ops": (*ops, *edit.ops)})


def _owners_in(op: Op) -> Iterator[str]:
    """The devices and pieces that an operation names and does not put there itself."""
    match op:
        case PutThing(thing=Run() as run):
            yield from (*run.pieces, *run.owners)
        case PutThing(thing=Bond() as bond):
            yield from (bond.a.owner, bond.b.owner)
        case PutThing(thing=Gear() as device) if device.host is not None:
            yield device.host
        case SetField(kind="runs", field="pieces", value=list() as pieces):
            yield from pieces
        case SetField(kind="runs", field="joins", value=list() as joins):
            yield from (str(join[end]).split(".", 1)[0] for join in joins for end in ("a", "b"))
        case SetField(kind="gear" | "kit", id=str() as id_):
            yield id_
        case _:
            return


def drawn_by(rig: Rig) -> dict[Taken, KitItem | Gear]:
    """What a rig has drawn from the cupboard."""
    return {
        (thing.drawn.item, thing.drawn.number): thing for thing in rig.owners_by_id.values() if thing.drawn is not None
    }


def put_back_unused(rig: Rig) -> Edit | None:
    """Gives back what of the cupboard no run and no bond uses; None where everything is in use."""
    used = {owner for run in rig.runs for owner in (*run.pieces, *run.owners)}
    used |= {end.owner for bond in rig.bonds for end in (bond.a, bond.b)}
    used |= {device.host for device in rig.gear if device.host is not None}
    idle = [thing for thing in drawn_by(rig).values() if thing.id not in used]
    if not idle:
        return None
    ops = tuple(RemoveThing(kind=collection_of(thing), id=thing.id) for thing in idle)
    words = f"{len(idle)} pieces" if len(idle) > 1 else "1 piece"
    return Edit(label=f"Put {words} back into the cupboard", ops=ops)
