"""Loads the library and gives a rig its own copies of what it uses."""

import json
from functools import cache
from importlib.resources import files
from typing import Any

from pydantic import TypeAdapter

from ruvak.core.parts.data_files import Shared, written_out
from ruvak.core.rig.earth import Disturbances
from ruvak.core.rig.part import Part
from ruvak.core.rig.rig import Assumptions, Rig

_FILES = ("gear.json", "leads.json", "adapters.json", "boxes.json")


def _text(name: str) -> str:
    return files("ruvak.core.parts").joinpath("data", name).read_text(encoding="utf-8")


@cache
def library() -> dict[str, Part]:
    """Every generic part by id, in the order of the data files."""
    shared: Shared = json.loads(_text("values.json"))
    parts = TypeAdapter(tuple[Part, ...])
    documents = [written_out(json.loads(_text(name)), shared) for name in _FILES]
    return {part.id: part for document in documents for part in parts.validate_python(document)}


@cache
def _source_names() -> dict[str, tuple[str, ...]]:
    return {part: tuple(words) for part, words in json.loads(_text("source-names.json")).items()}


def words_for(part: Part) -> tuple[str, ...]:
    """What people call it: its own words, and for a microphone who or what stands before it."""
    return (*part.called, *_source_names().get(part.id, ()))


@cache
def library_assumptions() -> dict[str, Any]:
    """Starting values for what nobody has measured, as they stand in the data files."""
    return {**json.loads(_text("assumptions.json")), "disturbances": json.loads(_text("disturbances.json"))}


@cache
def default_assumptions() -> Assumptions:
    """Starting values for what nobody has measured."""
    return Assumptions.model_validate(library_assumptions())


def default_disturbances() -> Disturbances:
    """What disturbs where nobody has measured."""
    return default_assumptions().disturbances


def assumptions_of(rig: Rig) -> Assumptions:
    """The rig's own; embed() gives every rig some."""
    return rig.assumptions or default_assumptions()


def disturbances_of(rig: Rig) -> Disturbances:
    """The rig's own, or the library's."""
    return assumptions_of(rig).disturbances


def embed(rig: Rig) -> Rig:
    """The rig with a copy of each library part it names but does not carry, and of the assumptions.

    A part the rig already carries stays as it is, whatever revision the library has by now.
    """
    used = dict.fromkeys([*(gear.part for gear in rig.gear), *(item.part for item in rig.kit)])
    have = rig.parts_by_id
    missing = tuple(library()[name] for name in used if name not in have and name in library())
    if not missing and rig.assumptions is not None:
        return rig
    return rig.with_fields(parts=rig.parts + missing, assumptions=rig.assumptions or default_assumptions())
