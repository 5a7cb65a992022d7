"""The one registry of listed things: what a rig, its venue and later a cupboard and a house hold many of.

Edits, their inverses and conflicts, checks, the file format and the store all run off it. A new listed thing takes its
record, a table of the same columns with a migration, and a line here.
"""

from dataclasses import dataclass
from typing import Any, Literal

from typing_extensions import TypeIs

from ruvak.core.rig.earth import Bond, EarthPoint, MainsRun
from ruvak.core.rig.part import Part
from ruvak.core.rig.rig import Gear, KitItem, Rig, Run, Venue
from ruvak.core.rig.values import Identified, Record

HolderKind = Literal["rig", "venue", "cupboard", "house"]
"""What holds listed things, has a version of its own, and fields that an edit can set."""
CollectionName = Literal["parts", "gear", "kit", "runs", "bonds", "earth", "mains"]


@dataclass(frozen=True)
class Collection:
    """One kind of listed thing."""

    name: CollectionName
    """Its field in the holder's record, and its name in edits."""
    record: type[Identified]
    holder: HolderKind
    noun: str
    """What people call one of it."""

    def things(self, rig: Rig) -> tuple[Any, ...]:
        """All of them, in the order in which people put them."""
        anies: tuple[Any, ...] = getattr(holder_record(rig, self.holder), self.name)
        return anies


REGISTRY: tuple[Collection, ...] = (
    Collection("parts", Part, "rig", "part"),
    Collection("gear", Gear, "rig", "device"),
    Collection("kit", KitItem, "rig", "lead, adapter or box"),
    Collection("runs", Run, "rig", "run"),
    Collection("bonds", Bond, "rig", "bond"),
    Collection("earth", EarthPoint, "venue", "earth point"),
    Collection("mains", MainsRun, "venue", "mains cable"),
)
"""Those that others refer to come first: the store writes in this order and removes in the opposite one."""
COLLECTIONS: dict[CollectionName, Collection] = {collection.name: collection for collection in REGISTRY}
RECORDS: dict[HolderKind, type[Record]] = {"rig": Rig, "venue": Venue}
"""Holders that a rig's document embeds; cupboards and houses have no record yet."""


def is_collection(kind: CollectionName | HolderKind) -> TypeIs[CollectionName]:
    """Whether it names listed things, and not what holds them."""
    return kind in COLLECTIONS


def holder_of(kind: CollectionName | HolderKind) -> HolderKind:
    """The kind of holder that things of a kind belong to; a holder belongs to itself."""
    return COLLECTIONS[kind].holder if is_collection(kind) else kind


def holder_record(rig: Rig, kind: HolderKind) -> Rig | Venue:
    """The record of the holder of that kind that a rig uses. KeyError for a kind without one."""
    holders: dict[HolderKind, Rig | Venue] = {"rig": rig, "venue": rig.venue}
    return holders[kind]


def with_holder(rig: Rig, kind: HolderKind, **changes: Any) -> Rig:
    """The rig with fields of one holder exchanged; the values are validated already."""
    if kind == "venue":
        return rig.with_fields(venue=rig.venue.model_copy(update=changes))
    return rig.with_fields(**changes)


def own_fields(kind: HolderKind) -> tuple[str, ...]:
    """Fields of a holder's record that are neither collections, other holders, nor what names the document."""
    aside = {collection.name for collection in REGISTRY} | {"venue", "format", "version", "id"}
    return tuple(name for name in RECORDS[kind].model_fields if name not in aside)
