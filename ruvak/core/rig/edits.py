"""Edits: small, invertible changes to a rig. Every change anyone makes is one of these, so undo is exact."""

from typing import Annotated, Literal, TypeVar

from pydantic import Field, ValidationError

from ruvak.core.errors import BadEdit
from ruvak.core.rig.check import check
from ruvak.core.rig.check_part import setting_fault
from ruvak.core.rig.earth import Bond, EarthPoint
from ruvak.core.rig.part import Part, SettingValue
from ruvak.core.rig.rig import (
    ALIGNMENTS,
    MAX_LENGTH_M,
    MIN_LENGTH_M,
    Alignment,
    Gear,
    HouseRules,
    KitItem,
    Loudness,
    Rig,
    Run,
    Venue,
)
from ruvak.core.rig.values import Id, Identified, Label, Number, Record, Value, Words

Thing = TypeVar("Thing", bound=Identified)
At = Annotated[int, Field(strict=True, ge=0, le=10_000)] | None
"""Position in its list; None keeps the place, or appends."""


class SetSetting(Record):
    """A switch or control of a piece of gear. None goes back to the part's default."""

    op: Literal["set_setting"] = "set_setting"
    gear: Id
    setting: Id
    value: SettingValue | None


class SetLength(Record):
    """The length of a lead, in metres."""

    op: Literal["set_length"] = "set_length"
    item: Id
    length_m: Number


class PutGear(Record):
    """Adds gear, or replaces the one with the same id."""

    op: Literal["put_gear"] = "put_gear"
    thing: Gear
    at: At = None


class PutKit(Record):
    """Adds a kit item, or replaces the one with the same id."""

    op: Literal["put_kit"] = "put_kit"
    thing: KitItem
    at: At = None


class PutRun(Record):
    """Adds a run, or replaces the one with the same id."""

    op: Literal["put_run"] = "put_run"
    thing: Run
    at: At = None


class PutPart(Record):
    """Adds a part, or replaces the one with the same id."""

    op: Literal["put_part"] = "put_part"
    thing: Part
    at: At = None


class PutEarth(Record):
    """Adds a point of the building's earth, or replaces the one with the same id."""

    op: Literal["put_earth"] = "put_earth"
    thing: EarthPoint
    at: At = None


class PutBond(Record):
    """Adds a bond beside the runs, or replaces the one with the same id."""

    op: Literal["put_bond"] = "put_bond"
    thing: Bond
    at: At = None


class SetHouse(Record):
    """One thing the house says of itself: a rule where the trade disagrees, how loud it plays, how quiet the room is.

    None goes back to the default rule, or to nobody having said.
    """

    op: Literal["set_house"] = "set_house"
    field: Literal["unbalanced_limit_m", "screens", "passive_y", "programme_db_spl", "noise_dba"]
    value: Value | Number | Label | None


class SetRig(Record):
    """One thing about the rig as a whole: what it and its venue are called, what it is measured in, its mains."""

    op: Literal["set_rig"] = "set_rig"
    field: Literal["name", "occasion", "venue_name", "length_unit", "mains_hz", "alignment"]
    value: Alignment | Number | Words
    """An alignment by its name in ALIGNMENTS, or as it stands."""


ListName = Literal["gear", "kit", "runs", "parts", "earth", "bonds"]
"""The rig's lists; earth is the venue's."""


class Remove(Record):
    """Takes something out of one of the rig's lists."""

    op: Literal["remove"] = "remove"
    kind: ListName
    id: Id


Op = Annotated[
    SetSetting | SetLength | PutGear | PutKit | PutRun | PutPart | PutEarth | PutBond | SetHouse | SetRig | Remove,
    Field(discriminator="op"),
]
HOUSE_WORDS = {
    "unbalanced_limit_m": "The longest unbalanced run is a length above 0 m",
    "screens": "Screens are joined at both-ends, lifted-at-receiver, or joined through-capacitor",
    "passive_y": "Two outputs share an input never, or with-resistors",
    "programme_db_spl": "Programme at the listener is a level from 0 to 140 dB SPL",
    "noise_dba": "An empty room has from -10 to 120 dBA",
}
RIG_WORDS = {
    "name": "A rig's name has 1 to 120 letters",
    "occasion": "An occasion has up to 600 letters",
    "venue_name": "A venue's name has 1 to 120 letters",
    "length_unit": "Lengths are in m or ft",
    "mains_hz": "Mains has 50 or 60 Hz",
    "alignment": f"An alignment is one of {', '.join(ALIGNMENTS)}",
}
Listed = Gear | KitItem | Run | Part | EarthPoint | Bond


class Edit(Record):
    """One thing a person did: its words and the operations, in order."""

    label: Label
    ops: tuple[Op, ...] = Field(min_length=1, max_length=5000)


def apply(rig: Rig, edit: Edit) -> Rig:
    """The edited rig, checked as a whole; the given one is checked already. Raises BadEdit or RigFault and leaves
    the given rig as it is."""
    return check(_applied(rig, edit), rig.parts)


def inverse(rig: Rig, edit: Edit) -> Edit:
    """The edit that takes `edit`, applied to `rig`, back exactly."""
    undoing: list[Op] = []
    for op in edit.ops:
        undoing.append(_inverse_of(rig, op))
        rig = _apply_op(rig, op)
    return Edit(label=edit.label, ops=tuple(reversed(undoing)))


def _applied(rig: Rig, edit: Edit) -> Rig:
    for op in edit.ops:
        rig = _apply_op(rig, op)
    return rig


def _apply_op(rig: Rig, op: Op) -> Rig:
    match op:
        case SetSetting():
            return with_setting(rig, op)
        case SetLength():
            item = _find(rig.kit, op.item, "lead")
            if not MIN_LENGTH_M <= op.length_m <= MAX_LENGTH_M:
                sentence = f"A length is {MIN_LENGTH_M:g} to {MAX_LENGTH_M:g} m; {op.length_m:g} m is not."
                raise BadEdit("length_m", sentence)
            changed = item.model_copy(update={"length_m": op.length_m})
            return rig.replaced(kit=_put(rig.kit, changed, None))
        case PutGear():
            return rig.replaced(gear=_put(rig.gear, op.thing, op.at))
        case PutKit():
            return rig.replaced(kit=_put(rig.kit, op.thing, op.at))
        case PutRun():
            return rig.replaced(runs=_put(rig.runs, op.thing, op.at))
        case PutPart():
            return rig.replaced(parts=_put(rig.parts, op.thing, op.at))
        case PutEarth():
            return _with_list(rig, "earth", _put(rig.venue.earth, op.thing, op.at))
        case PutBond():
            return rig.replaced(bonds=_put(rig.bonds, op.thing, op.at))
        case SetHouse():
            return rig.replaced(venue=_with_house(rig.venue, op))
        case SetRig():
            return _with_said(rig, op)
        case Remove():
            things = _list_of(rig, op.kind)
            _find(things, op.id, op.kind)
            return _with_list(rig, op.kind, tuple(thing for thing in things if thing.id != op.id))


def _inverse_of(rig: Rig, op: Op) -> Op:
    match op:
        case SetSetting():
            gear = _find(rig.gear, op.gear, "gear")
            return SetSetting(gear=op.gear, setting=op.setting, value=gear.settings.get(op.setting))
        case SetLength():
            length_m = _find(rig.kit, op.item, "lead").length_m
            if length_m is None:
                raise BadEdit("item", f"'{op.item}' has no length to change.")
            return SetLength(item=op.item, length_m=length_m)
        case PutGear():
            return _unput(rig.gear, op.thing, "gear")
        case PutKit():
            return _unput(rig.kit, op.thing, "kit")
        case PutRun():
            return _unput(rig.runs, op.thing, "runs")
        case PutPart():
            return _unput(rig.parts, op.thing, "parts")
        case PutEarth():
            return _unput(rig.venue.earth, op.thing, "earth")
        case PutBond():
            return _unput(rig.bonds, op.thing, "bonds")
        case SetHouse():
            return SetHouse(field=op.field, value=getattr(_house_of(rig.venue, op.field), op.field))
        case SetRig():
            holder, name = _holder_of(rig, op.field)
            return SetRig(field=op.field, value=getattr(holder, name))
        case Remove():
            things = _list_of(rig, op.kind)
            thing = _find(things, op.id, op.kind)
            return _put_op(thing, things.index(thing))


def _house_of(venue: Venue, field: str) -> HouseRules | Venue:
    """What holds that field."""
    return venue.house if field in HouseRules.model_fields else venue


def _with_house(venue: Venue, op: SetHouse) -> Venue:
    holder = _house_of(venue, op.field)
    # Only the field itself is checked; everything beside it is sound already.
    given = {} if op.value is None else {op.field: op.value}
    try:
        said = HouseRules.model_validate(given) if isinstance(holder, HouseRules) else Loudness.model_validate(given)
    except ValidationError as problem:
        raise BadEdit("value", f"{HOUSE_WORDS[op.field]}; {op.value} is not.") from problem
    changed = holder.model_copy(update={op.field: getattr(said, op.field)})
    return venue.model_copy(update={"house": changed}) if isinstance(changed, HouseRules) else changed


def _holder_of(rig: Rig, field: str) -> tuple[Rig | Venue, str]:
    """What has that field, and what it is called there."""
    if field in ("venue_name", "mains_hz"):
        return rig.venue, field.removeprefix("venue_")
    return rig, field


def _with_said(rig: Rig, op: SetRig) -> Rig:
    holder, name = _holder_of(rig, op.field)
    value = ALIGNMENTS.get(op.value, op.value) if op.field == "alignment" and isinstance(op.value, str) else op.value
    # What stands beside it is sound already and passes as it is.
    fields = {one: getattr(holder, one) for one in type(holder).model_fields}
    try:
        said = getattr(type(holder).model_validate({**fields, name: value}), name)
    except ValidationError as problem:
        raise BadEdit("value", f"{RIG_WORDS[op.field]}; '{op.value}' is not.") from problem
    if isinstance(holder, Rig):
        return holder.replaced(**{name: said})
    return rig.replaced(venue=holder.model_copy(update={name: said}))


def _list_of(rig: Rig, kind: ListName) -> tuple[Listed, ...]:
    things: tuple[Listed, ...] = rig.venue.earth if kind == "earth" else getattr(rig, kind)
    return things


def _with_list(rig: Rig, kind: ListName, things: tuple[Listed, ...]) -> Rig:
    if kind == "earth":
        return rig.replaced(venue=rig.venue.model_copy(update={"earth": things}))
    return rig.replaced(**{kind: things})


def with_setting(rig: Rig, op: SetSetting) -> Rig:
    """One switch or control set; the rig is not checked again. Raises BadEdit for a setting or value that is none."""
    gear = _find(rig.gear, op.gear, "gear")
    part = rig.parts_by_id[gear.part]
    setting = next((one for one in part.settings if one.id == op.setting), None)
    if setting is None:
        have = ", ".join(one.id for one in part.settings) or "none"
        raise BadEdit("setting", f"'{gear.name}' has no setting '{op.setting}'; it has {have}.")
    settings = {name: value for name, value in gear.settings.items() if name != op.setting}
    if op.value is not None:
        if sentence := setting_fault(setting, op.value):
            raise BadEdit("value", sentence)
        settings[op.setting] = op.value
    return rig.replaced(gear=_put(rig.gear, gear.model_copy(update={"settings": settings}), None))


def _find(things: tuple[Thing, ...], id_: str, kind: str) -> Thing:
    for thing in things:
        if thing.id == id_:
            return thing
    raise BadEdit("id", f"There is no '{id_}' among the rig's {kind}.")


def _put(things: tuple[Thing, ...], thing: Thing, at: int | None) -> tuple[Thing, ...]:
    place = next((i for i, other in enumerate(things) if other.id == thing.id), None)
    if place is not None:
        return (*things[:place], thing, *things[place + 1 :])
    at = len(things) if at is None else at
    return (*things[:at], thing, *things[at:])


def _unput(things: tuple[Listed, ...], put: Listed, kind: ListName) -> Op:
    for thing in things:
        if thing.id == put.id:
            return _put_op(thing, None)
    return Remove(kind=kind, id=put.id)


def _put_op(thing: Listed, at: int | None) -> Op:
    match thing:
        case Gear():
            return PutGear(thing=thing, at=at)
        case KitItem():
            return PutKit(thing=thing, at=at)
        case Run():
            return PutRun(thing=thing, at=at)
        case EarthPoint():
            return PutEarth(thing=thing, at=at)
        case Bond():
            return PutBond(thing=thing, at=at)
        case Part():
            return PutPart(thing=thing, at=at)
