"""What a rig has drawn and cannot have: others of the house in its place, or pieces that have to be got."""

from collections.abc import Collection, Iterable, Iterator, Mapping

from ruvak.core.cupboard.draw import Taken, drawn_by
from ruvak.core.cupboard.item import DEVICE_FIGURES, FIGURES, CupboardItem
from ruvak.core.rig.edits import Edit, Op, SetField
from ruvak.core.rig.rig import Gear, KitItem, Rig, collection_of, name_of, written_on


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
            ops += _set(thing, _fields_of(item.in_rig(number), _known_of(thing)))
            continue
        why = "is gone" if item is None else item.condition if not item.is_usable else "is taken"
        other = _equal(thing, rig, by_id.values(), spoken_for)
        if other is None:
            ops += _set(thing, _to_get(thing))
            said.append(f"{name_of(rig, thing.id)} {_is(why)} and there is no other: to be got.")
            continue
        spoken_for.add((other[0].id, other[1]))
        new = other[0].in_rig(other[1])
        name = "tag" if isinstance(new, KitItem) else "name"
        ops += _set(thing, _fields_of(new, (name, "drawn", *_known_of(thing))))
        said.append(f"{name_of(rig, thing.id)} {_is(why)}: {written_on(new)} in its place.")
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


def _fields_of(thing: KitItem | Gear, fields: Iterable[str]) -> dict[str, object]:
    return {field: getattr(thing, field) for field in fields}


def _known_of(thing: KitItem | Gear) -> tuple[str, ...]:
    """What the cupboard knows of such a thing."""
    return (*FIGURES, "length_m") if isinstance(thing, KitItem) else (*FIGURES, *DEVICE_FIGURES)


def _to_get(thing: KitItem | Gear) -> dict[str, object]:
    """What a thing is that is no longer the house's; a piece has to be got."""
    values: dict[str, object] = {"drawn": None, "condition": "good", "remark": ""}
    return {**values, "owned": False} if isinstance(thing, KitItem) else values


def _set(thing: KitItem | Gear, values: Mapping[str, object]) -> Iterator[Op]:
    """What gives a thing of a rig these values, where it has others."""
    for field, value in values.items():
        if getattr(thing, field) != value:
            yield SetField(kind=collection_of(thing), id=thing.id, field=field, value=value)
