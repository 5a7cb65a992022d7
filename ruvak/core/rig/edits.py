"""Edits: small, invertible changes to a rig and what it uses. Every change anyone makes is one of these.

An operation names the thing and the field, so that two people who change different things never meet.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import TYPE_CHECKING, Annotated, Any, Literal, NamedTuple, TypeVar, Union

from pydantic import BeforeValidator, Field, ValidationError, ValidationInfo, field_validator
from pydantic_core import to_jsonable_python

from ruvak.core.errors import BadEdit
from ruvak.core.rig.check import check_touched
from ruvak.core.rig.collections import (
    COLLECTIONS,
    RECORDS,
    REGISTRY,
    CollectionName,
    HolderKind,
    holder_record,
    is_collection,
    own_fields,
    with_holder,
)
from ruvak.core.rig.files import faults_of
from ruvak.core.rig.rig import ALIGNMENTS, MAX_LENGTH_M, MIN_LENGTH_M, Rig
from ruvak.core.rig.values import Id, Identified, Label, Record

if TYPE_CHECKING:
    Listed = Identified
else:
    Listed = Union[tuple(collection.record for collection in REGISTRY)]  # noqa: UP007

Holding = TypeVar("Holding", bound=Record)
At = Annotated[int, Field(strict=True, ge=0, le=10_000)] | None
"""Position in its collection; None keeps the place, or appends."""
FieldName = Annotated[str, Field(pattern=r"^[a-z][a-z0-9_]{0,63}$")]
JsonValue = Annotated[Any, BeforeValidator(to_jsonable_python)]
"""As it stands in a rig file; records given in Python are written out."""


class SetField(Record):
    """One field of a thing, or of the rig or its venue itself, gets a value. None goes back to the default.

    `key` names one entry of a field that holds several: a device's setting, an input's fader, a house rule.
    """

    op: Literal["set"] = "set"
    """Which operation this is."""
    kind: CollectionName | HolderKind
    """The collection, or the rig or venue itself."""
    id: Id | None = None
    """Of the thing; left out where `kind` is the rig or its venue."""
    field: FieldName
    """The field."""
    key: FieldName | Id | None = None
    """The entry of the field, where it has several."""
    value: JsonValue
    """The new value; null goes back to the default."""


class PutThing(Record):
    """Adds a thing, or replaces the one with the same id."""

    op: Literal["put"] = "put"
    """Which operation this is."""
    kind: CollectionName
    """The collection."""
    thing: Listed
    """The whole thing."""
    at: At = None
    """Its position; left out, it keeps its place or is appended."""

    @field_validator("thing", mode="wrap")
    @classmethod
    def _by_kind(cls, thing: Any, handler: Any, info: ValidationInfo) -> Any:
        # By its kind and not by what it looks like, so that a fault is told of the record that was meant.
        collection = COLLECTIONS.get(info.data.get("kind", ""))
        return collection.record.model_validate(thing) if collection is not None else handler(thing)


class RemoveThing(Record):
    """Takes a thing out of its collection."""

    op: Literal["remove"] = "remove"
    """Which operation this is."""
    kind: CollectionName
    """The collection."""
    id: Id
    """The thing."""


Op = Annotated[SetField | PutThing | RemoveThing, Field(discriminator="op")]


class Edit(Record):
    """One thing a person did: its words and the operations, in order."""

    label: Label
    """What was done, in words."""
    ops: tuple[Op, ...] = Field(min_length=1, max_length=5000)
    """The operations, in order."""


class Touched(NamedTuple):
    """What an operation changes: a whole thing, one of its fields, or one entry of a field. Holders have no id."""

    kind: CollectionName | HolderKind
    id: str | None
    field: str | None = None
    key: str | None = None


@dataclass(frozen=True)
class Applied:
    """What came of an edit: the rig, checked; the edit that takes it back exactly; what it touched."""

    rig: Rig
    inverse: Edit
    touched: tuple[Touched, ...]


_WORDS: dict[tuple[str, str, str | None], str] = {
    ("kit", "length_m", None): f"A length is {MIN_LENGTH_M:g} to {MAX_LENGTH_M:g} m",
    ("venue", "house", "unbalanced_limit_m"): "The longest unbalanced run is a length above 0 m",
    ("venue", "house", "screens"): "Screens are joined at both-ends, lifted-at-receiver, or joined through-capacitor",
    ("venue", "house", "passive_y"): "Two outputs share an input never, or with-resistors",
    ("venue", "programme_db_spl", None): "Programme at the listener is a level from 0 to 140 dB SPL",
    ("venue", "noise_dba", None): "An empty room has from -10 to 120 dBA",
    ("venue", "name", None): "A venue's name has 1 to 120 letters",
    ("venue", "mains_hz", None): "Mains has 50 or 60 Hz",
    ("rig", "name", None): "A rig's name has 1 to 120 letters",
    ("rig", "occasion", None): "An occasion has up to 600 letters",
    ("rig", "length_unit", None): "Lengths are in m or ft",
    ("rig", "alignment", None): f"An alignment is one of {', '.join(ALIGNMENTS)}",
}
"""What a field takes, where people set it on screen; the format's own sentences answer for the others."""


def apply(rig: Rig, edit: Edit) -> Rig:
    """The edited rig. As apply_edit()."""
    return apply_edit(rig, edit).rig


def apply_edit(rig: Rig, edit: Edit) -> Applied:
    """The edited rig, checked where the edit touches it; the given one is checked already and stays as it is.

    Raises BadEdit for what the edit names, RigFault for what it would leave.
    """
    draft = _Draft(rig)
    backward: list[SetField | PutThing | RemoveThing] = []
    for op in edit.ops:
        backward.append(draft.change(op))
    touched = tuple(dict.fromkeys(touched_by(op) for op in edit.ops))
    after = check_touched(draft.rig(), {(touch.kind, touch.id) for touch in touched})
    return Applied(after, Edit(label=edit.label, ops=tuple(reversed(backward))), touched)


def replay(rig: Rig, edit: Edit) -> Rig:
    """The rig after an edit that was accepted before: nothing is checked again."""
    draft = _Draft(rig)
    for op in edit.ops:
        draft.change(op)
    return draft.rig()


def touched_by(op: SetField | PutThing | RemoveThing) -> Touched:
    """What one operation changes."""
    match op:
        case SetField():
            return Touched(op.kind, op.id, op.field, op.key)
        case PutThing():
            return Touched(op.kind, op.thing.id)
        case RemoveThing():
            return Touched(op.kind, op.id)


def value_at(rig: Rig, place: Touched) -> Any:
    """What stands there, as in a rig file: a thing, a field, an entry; None where there is nothing."""
    match: Any
    if is_collection(place.kind):
        match = next((thing for thing in COLLECTIONS[place.kind].things(rig) if thing.id == place.id), None)
    else:
        match = holder_record(rig, place.kind)
    for step in (place.field, place.key):
        if step is not None and match is not None:
            match = match.get(step) if isinstance(match, dict) else getattr(match, step, None)
    return to_jsonable_python(match)


def changes(kind: CollectionName, before: Identified, after: Identified) -> Iterator[SetField]:
    """An operation for each field in which two states of one thing differ."""
    for name in type(after).model_fields:
        if (value := getattr(after, name)) != getattr(before, name):
            yield SetField(kind=kind, id=after.id, field=name, value=value)


def set_setting(gear: str, setting: str, value: Any) -> SetField:
    """A switch or control of a device."""
    return SetField(kind="gear", id=gear, field="settings", key=setting, value=value)


def is_setting(op: object) -> bool:
    """Whether an operation moves a switch or control of a device."""
    return isinstance(op, SetField) and (op.kind, op.field) == ("gear", "settings")


class _Draft:
    """A rig while operations change it: touched collections as dictionaries, so that many operations cost little."""

    def __init__(self, rig: Rig) -> None:
        self._rig = rig
        self._open: dict[CollectionName, dict[str, Identified]] = {}

    def rig(self) -> Rig:
        """What has become of it."""
        rig = self._rig
        for name, things in self._open.items():
            rig = with_holder(rig, COLLECTIONS[name].holder, **{name: tuple(things.values())})
        return rig

    def change(self, op: SetField | PutThing | RemoveThing) -> SetField | PutThing | RemoveThing:
        """Carries an operation out; returns the one that takes it back. Raises BadEdit."""
        match op:
            case SetField():
                return self._set(op)
            case PutThing():
                return self._put(op)
            case RemoveThing():
                things = self._things(op.kind)
                old = self._find(op.kind, op.id)
                place = list(things).index(op.id)
                del things[op.id]
                return PutThing.model_construct(kind=op.kind, thing=old, at=place)

    def _things(self, name: CollectionName) -> dict[str, Identified]:
        if name not in self._open:
            self._open[name] = {thing.id: thing for thing in COLLECTIONS[name].things(self._rig)}
        return self._open[name]

    def _find(self, name: CollectionName, id_: str) -> Identified:
        things = self._things(name)
        if id_ not in things:
            raise BadEdit("id", f"There is no {COLLECTIONS[name].noun} '{id_}' here.")
        return things[id_]

    def _put(self, op: PutThing) -> PutThing | RemoveThing:
        things, thing = self._things(op.kind), op.thing
        old = things.get(thing.id)
        if old is not None or op.at is None or op.at >= len(things):
            things[thing.id] = thing
        else:
            entries = list(things.items())
            entries.insert(op.at, (thing.id, thing))
            self._open[op.kind] = dict(entries)
        if old is not None:
            return PutThing.model_construct(kind=op.kind, thing=old, at=None)
        return RemoveThing(kind=op.kind, id=thing.id)

    def _set(self, op: SetField) -> SetField:
        if is_collection(op.kind):
            if op.id is None:
                raise BadEdit("id", f"Say which {COLLECTIONS[op.kind].noun}: its id is missing.")
            old = self._find(op.kind, op.id)
            self._things(op.kind)[op.id] = _with_field(old, op)
            return _back(old, op)
        if op.id is not None or op.kind not in RECORDS or op.field not in own_fields(op.kind):
            raise BadEdit("field", f"'{op.field}' is no field of the {op.kind} that can be set.")
        holder = holder_record(self._rig, op.kind)
        changed = _with_field(holder, op)
        self._rig = with_holder(self._rig, op.kind, **{op.field: getattr(changed, op.field)})
        return _back(holder, op)


def _back(old: Record, op: SetField) -> SetField:
    value = getattr(old, op.field)
    if op.key is not None:
        value = value.get(op.key) if isinstance(value, dict) else getattr(value, op.key)
    return op.model_copy(update={"value": to_jsonable_python(value)})


def _with_field(record: Holding, op: SetField) -> Holding:
    """The record with one field set and checked; what stands beside it is sound already and passes as it is."""
    fields = {name: getattr(record, name) for name in type(record).model_fields}
    if op.field not in fields or op.field == "id":
        raise BadEdit("field", f"'{op.field}' is no field that can be set here.")
    try:
        fields[op.field] = _with_entry(fields[op.field], op) if op.key is not None else _given(record, op)
        return type(record).model_validate(fields)
    except ValidationError as problem:
        words = _WORDS.get((op.kind, op.field, op.key))
        fault = faults_of(problem)[0]
        sentence = f"{words}; {op.value!r} is not." if words else f"{fault.where} {fault.sentence}"
        raise BadEdit("value", sentence) from problem


def _given(record: Record, op: SetField) -> Any:
    """The value, or for None the default of a field that has one."""
    field = type(record).model_fields[op.field]
    if op.value is None and not field.is_required():
        return field.get_default(call_default_factory=True)
    return op.value


def _with_entry(now: Any, op: SetField) -> Any:
    if isinstance(now, dict):
        kept = {name: value for name, value in now.items() if name != op.key}
        return kept if op.value is None else {**kept, op.key: op.value}
    if isinstance(now, Record):
        return _with_field(now, op.model_copy(update={"field": op.key, "key": None}))
    raise BadEdit("key", f"'{op.field}' has no entries to set one by one.")
