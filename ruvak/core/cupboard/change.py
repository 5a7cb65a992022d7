"""A thing of the cupboard changed, one of several set apart, and what a rig's own things become."""

from collections.abc import Collection
from itertools import count
from typing import Any

from pydantic import ValidationError

from ruvak.core.cupboard.item import CupboardItem, item_of
from ruvak.core.errors import BadEdit
from ruvak.core.rig.edits import Op, SetField
from ruvak.core.rig.files import faults_of
from ruvak.core.rig.ids import free_id, id_of
from ruvak.core.rig.rig import Condition, KitItem, Rig, collection_of, written_on


def changed(item: CupboardItem, values: dict[str, Any]) -> CupboardItem:
    """The record with other values. Raises BadEdit with what the fields take."""
    try:
        return CupboardItem.model_validate({**item.model_dump(), **values})
    except ValidationError as wrong:
        faults = faults_of(wrong)
        raise BadEdit(faults[0].where or next(iter(values)), " ".join(fault.sentence for fault in faults)) from wrong


def single_of(
    several: CupboardItem, number: int, condition: Condition, remark: str, items: Collection[CupboardItem]
) -> CupboardItem:
    """One of several alike as a thing of its own, under a name that no other has."""
    ids, names = {item.id for item in items}, {item.name.lower() for item in items}
    stem = several.name[:100]
    name = next(f"{stem} {n}" for n in count(number) if f"{stem} {n}".lower() not in names)
    id_ = free_id(id_of(name, "thing")[:50], ids)
    values = {"id": id_, "name": name, "count": 1, "condition": condition, "remark": remark}
    return changed(several, values)


def adopted(rig: Rig, items: Collection[CupboardItem]) -> tuple[list[CupboardItem], list[Op]]:
    """What the house would have of a rig's own things, and what says in the rig that they are drawn."""
    ids, names = {item.id for item in items}, {item.name.lower() for item in items if item.count == 1}
    result: list[CupboardItem] = []
    ops: list[Op] = []
    for thing in rig.owners_by_id.values():
        if isinstance(thing, KitItem) and (thing.installed or not thing.owned):
            continue
        name = written_on(thing)
        if thing.drawn is not None or name.lower() in names:
            continue
        id_ = free_id(id_of(name, "thing")[:50], ids)
        ids.add(id_)
        names.add(name.lower())
        result.append(item_of(thing, rig.part_of(thing.id), id_))
        ops.append(SetField(kind=collection_of(thing), id=thing.id, field="drawn", value={"item": id_, "number": 1}))
    return result, ops
