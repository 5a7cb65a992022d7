"""Reads rig files: today's format from any version of it, with the library's assumptions where a file states none."""

from typing import Any

from ruvak.core.parts.library import library_assumptions
from ruvak.core.rig.files import parse_json, upgrade, validate
from ruvak.core.rig.rig import Rig

BY_KIND = frozenset({"contact_ohm", "between_v", "bond_ohm", "mains_v", "presets", "segments"})
"""Fields that hold a figure for each kind of something; a file may state some and leave the others to the library."""


def rig_from_json(text: str | bytes) -> Rig:
    """A rig from its JSON text; names are not looked up yet (rig.check does). Raises RigFault."""
    return rig_from_document(parse_json(text))


def rig_from_document(document: Any) -> Rig:
    """A rig from parsed JSON. Raises RigFault naming each field that is wrong."""
    document = upgrade(document)
    return validate({**document, "assumptions": complete(document.get("assumptions"))})


def file_schema() -> dict[str, Any]:
    """The JSON Schema of a rig file: of its assumptions, unlike the record's, everything may be left out."""
    schema = Rig.model_json_schema(mode="validation")
    for record in ("Assumptions", "Disturbances", "Segment"):
        schema["$defs"][record].pop("required", None)
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema}


def complete(stated: Any) -> Any:
    """Assumptions as a file states them, with the library's for everything left out.

    What is no object is given back as it is, for the record to refuse it by name.
    """
    if not isinstance(stated, dict):
        return stated
    known = library_assumptions()
    disturbances = stated.get("disturbances")
    return {
        **_merge(known, stated),
        "disturbances": known["disturbances"] if disturbances is None else _merge(known["disturbances"], disturbances),
    }


def _merge(known: dict[str, Any], stated: Any) -> Any:
    """What is stated over what is known; by kind where a field holds a figure for each kind."""
    if not isinstance(stated, dict):
        return stated
    result = {**known, **stated}
    for field in BY_KIND & stated.keys() & known.keys():
        if isinstance(stated[field], dict):
            result[field] = {**known[field], **stated[field]}
    if isinstance(result.get("segments"), dict):
        result["segments"] = {kind: _merge_segment(known, kind, entry) for kind, entry in result["segments"].items()}
    return result


def _merge_segment(known: dict[str, Any], kind: str, stated: Any) -> Any:
    return {**known["segments"].get(kind, {}), **stated} if isinstance(stated, dict) else stated
