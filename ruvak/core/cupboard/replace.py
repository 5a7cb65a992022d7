"""What a rig has drawn and cannot have: others of the house in its place, or pieces that have to be got."""

from collections.abc import Collection, Iterable, Iterator

from ruvak.core.cupboard.draw import Taken, drawn_by
from ruvak.core.cupboard.item import CupboardItem
from ruvak.core.rig.edits import Edit, Op, SetField
from ruvak.core.rig.rig import Gear, KitItem, Rig, name_of

_FOLLOWED = ("condition", "remark", "contacts")
_OF_DEVICES = ("touch_a", "earth_open", "supply_fault_v", "mains_f", "earth_f")


def replace_drawn(
    rig: Rig, items: Iterable[CupboardItem], taken: Collection[Taken]
) -> tuple[Edit | None, tuple[str, ...]]:
    """The edit by which everything drawn can be had, and a sentence for each thing that changed; None where all is.

    A piece keeps its place in the runs and becomes another thing of the same part: for a lead the shortest that is
    long enough. Where there is none it has to be got; a device then is no longer the house's.
    """
    by_id = {item.id: item for item in items}
    drawn = drawn_by(rig)
    spoken_for = {*taken, *drawn}
    ops: list[Op] = []
    said: list[str] = []
    for (item_id, number), thing in drawn.items():
        item = by_id.get(item_id)
        if item is not None and item.is_usable and (item_id, number) not in taken and number <= item.count:
            ops += _up_to_date(thing, item)
            continue
        why = "is gone" if item is None else item.condition if not item.is_usable else "is taken"
        other = _equal(thing, rig, by_id.values(), spoken_for)
        if other is None:
            ops += _to_get(thing)
            said.append(f"{name_of(rig, thing.id)} {_is(why)} and there is no other: to be got.")
            continue
        spoken_for.add((other[0].id, other[1]))
        new = other[0].in_rig(other[1])
        ops += _become(thing, new)
        name = new.tag if isinstance(new, KitItem) else new.name
        said.append(f"{name_of(rig, thing.id)} {_is(why)}: {name} in its place.")
    return (Edit(label="What is not to be had replaced", ops=tuple(ops)) if ops else None), tuple(said)


def _is(why: str) -> str:
    return why if why.startswith("is ") else f"is {why}"


def _equal(
    thing: KitItem | Gear, rig: Rig, items: Iterable[CupboardItem], spoken_for: Collection[Taken]
) -> tuple[CupboardItem, int] | None:
    """Another of the same part that is free; good before suspect, then the shortest that is long enough."""
    part = rig.part_of(thing.id)
    least = thing.length_m or 0.0 if isinstance(thing, KitItem) else 0.0
    fit = [item for item in items if item.part == part and item.is_usable and (item.length_m or 0.0) >= least]
    for item in sorted(fit, key=lambda item: (item.condition != "good", item.length_m or 0.0, item.name)):
        for number in range(1, item.count + 1):
            if (item.id, number) not in spoken_for:
                return item, number
    return None


def _become(thing: KitItem | Gear, new: KitItem | Gear) -> Iterator[Op]:
    kind, name = ("kit", "tag") if isinstance(thing, KitItem) else ("gear", "name")
    fields = [name, "drawn", *_FOLLOWED, *(["length_m"] if isinstance(thing, KitItem) else _OF_DEVICES)]
    for field in fields:
        if getattr(thing, field) != getattr(new, field):
            yield SetField(kind="kit" if kind == "kit" else "gear", id=thing.id, field=field, value=getattr(new, field))


def _up_to_date(thing: KitItem | Gear, item: CupboardItem) -> Iterator[Op]:
    """What the cupboard knows of it by now: its condition, and what was measured."""
    kind = "kit" if isinstance(thing, KitItem) else "gear"
    now = item.in_rig(thing.drawn.number if thing.drawn else 1)
    for field in (*_FOLLOWED, *(["length_m"] if kind == "kit" else _OF_DEVICES)):
        if getattr(thing, field) != getattr(now, field):
            yield SetField(kind="kit" if kind == "kit" else "gear", id=thing.id, field=field, value=getattr(now, field))


def _to_get(thing: KitItem | Gear) -> Iterator[Op]:
    kind = "kit" if isinstance(thing, KitItem) else "gear"
    values: dict[str, object] = {"drawn": None, "condition": "good", "remark": ""}
    if isinstance(thing, KitItem):
        values["owned"] = False
    for field, value in values.items():
        if getattr(thing, field) != value:
            yield SetField(kind="kit" if kind == "kit" else "gear", id=thing.id, field=field, value=value)
