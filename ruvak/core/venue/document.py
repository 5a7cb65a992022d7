"""A venue by itself, as a house keeps it for its rigs; how a rig's own differs, and the edit that makes it the same.

Plugs of a rig's own devices are the rig's and no part of the venue.
"""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Literal

from pydantic import ValidationError

from ruvak.core.errors import FaultyDocument
from ruvak.core.rig.collections import own_fields
from ruvak.core.rig.earth import EarthPoint, MainsRun
from ruvak.core.rig.edits import Edit, Op, PutThing, RemoveThing, SetField, changes
from ruvak.core.rig.files import faults_of
from ruvak.core.rig.part import Part
from ruvak.core.rig.rig import KitItem, Rig, Venue
from ruvak.core.rig.values import Identified, Record

PLUG = "-plug"
"""How the id of a device's own plug ends (an outlet on a strip that only this device is at)."""
_NOT_COMPARED = frozenset({"revision"})


class VenueDocument(Record):
    """A venue with its installed lines and the parts they are made of."""

    venue: Venue
    """Earth, mains, house rules, loudness."""
    installed: tuple[KitItem, ...] = ()
    """Wall plates, tie lines and whatever else is built in."""
    parts: tuple[Part, ...] = ()
    """Of what is installed."""


class BadVenue(FaultyDocument):
    """A file that is no venue."""

    code = "bad_venue"


def venue_from_json(text: bytes) -> VenueDocument:
    """A venue's file. Raises BadVenue with the fields at fault."""
    try:
        return VenueDocument.model_validate_json(text)
    except ValidationError as problem:
        raise BadVenue(faults_of(problem)) from problem


@dataclass(frozen=True)
class VenueDifference:
    """From a rig's venue to a document: the edit (None where they are the same), and in sentences what is different and
    what stays because the rig uses it."""

    edit: Edit | None
    said: tuple[str, ...]
    kept: tuple[str, ...]


def document_of(rig: Rig) -> VenueDocument:
    """A rig's venue without what belongs to the rig alone."""
    installed = tuple(item for item in rig.kit if item.installed)
    parts = {item.part for item in installed}
    earth = tuple(point for point in rig.venue.earth if not _is_plug(point))
    return VenueDocument(
        venue=rig.venue.model_copy(update={"earth": earth}),
        installed=installed,
        parts=tuple(part for part in rig.parts if part.id in parts),
    )


def difference(rig: Rig, wanted: VenueDocument, label: str, revision: int | None = None) -> VenueDifference:
    """What would make the rig's venue as the document has it. `revision`: to be noted in the rig with it."""
    said: list[str] = []
    kept: list[str] = []
    ops: list[Op] = []
    now = document_of(rig)
    known = {part.id for part in rig.parts}
    ops += [PutThing(kind="parts", thing=part) for part in wanted.parts if part.id not in known]
    for field in own_fields("venue"):
        value = getattr(wanted.venue, field)
        if field not in _NOT_COMPARED and value != getattr(now.venue, field):
            ops.append(SetField(kind="venue", field=field, value=value))
            said.append(f"{_FIELDS.get(field, field)} changed")
    _compare(ops, said, kept, "earth", now.venue.earth, wanted.venue.earth, _earth_in_use(rig, wanted))
    _compare(ops, said, kept, "mains", now.venue.mains, wanted.venue.mains, {})
    used = {piece: run.name for run in rig.runs for piece in run.pieces}
    _compare(ops, said, kept, "kit", now.installed, wanted.installed, used)
    if revision is not None and revision != rig.venue.revision:
        ops.append(SetField(kind="venue", field="revision", value=revision))
    return VenueDifference(Edit(label=label[:120], ops=tuple(ops)) if ops else None, tuple(said), tuple(kept))


_FIELDS = {
    "name": "its name",
    "mains_hz": "the mains frequency",
    "mains_v": "the mains voltage",
    "bar_at": "where the main bar is",
    "house": "the house rules",
    "programme_db_spl": "the programme's level at the listener",
    "noise_dba": "the empty room's noise",
    "weather": "whether it is in the open air",
    "taken_mhz": "the frequencies that are taken",
    "induced_phase_deg": "the phase of induced voltages",
}


def _compare(
    ops: list[Op],
    said: list[str],
    kept: list[str],
    kind: Literal["earth", "mains", "kit"],
    before: Iterable[Identified],
    after: Iterable[Identified],
    in_use: dict[str, str],
) -> None:
    """Things of one kind: added, changed, gone; what is in use stays."""
    old, new = {thing.id: thing for thing in before}, {thing.id: thing for thing in after}
    for id_, thing in new.items():
        if id_ not in old:
            ops.append(PutThing(kind=kind, thing=thing))
            said.append(f"{_name(thing)} added")
        elif fields := list(changes(kind, old[id_], thing)):
            ops += fields
            said.append(f"{_name(thing)}: {', '.join(_words(op) for op in fields)}")
    for id_ in [id_ for id_ in reversed(old) if id_ not in new]:
        if id_ in in_use:
            kept.append(
                f"{_name(old[id_])} is no longer in the venue, but {in_use[id_]} is there; it stays in this rig."
            )
        else:
            ops.append(RemoveThing(kind=kind, id=id_))
            said.append(f"{_name(old[id_])} removed")


def _earth_in_use(rig: Rig, wanted: VenueDocument) -> dict[str, str]:
    """Points that a device of the rig is plugged into, with all that they hang on, by the device's name."""
    points = {point.id: point for point in (*wanted.venue.earth, *rig.venue.earth)}
    result: dict[str, str] = {}
    for device in rig.gear:
        for point in _up(points, device.outlet):
            result.setdefault(point.id, device.name)
    return result


def _up(points: dict[str, EarthPoint], start: str | None) -> Iterator[EarthPoint]:
    while start is not None and start in points:
        yield points[start]
        start = points[start].parent


def _is_plug(point: EarthPoint) -> bool:
    return point.kind == "outlet" and point.id.endswith(PLUG)


def _name(thing: Identified) -> str:
    match thing:
        case KitItem():
            return thing.tag
        case EarthPoint() | MainsRun():
            return thing.name
        case _:
            return thing.id


_OF_A_THING = {
    "name": "renamed",
    "tag": "renamed",
    "parent": "on another conductor",
    "voltage": "measured",
    "residual_a": "residual-current device",
    "breaker_a": "breaker",
    "ohm": "resistance",
    "length_m": "length",
    "emf_v": "voltage along it",
    "at": "place on the plan",
}


def _words(op: SetField) -> str:
    return _OF_A_THING.get(op.field, op.field.replace("_", " "))
