"""The open rig format: JSON, versioned, lossless. Old versions pass through UPGRADERS, oldest first."""

from collections.abc import Callable
from typing import Any

from pydantic import ValidationError
from pydantic_core import ErrorDetails, from_json

from ruvak.core.errors import Fault, RigFault
from ruvak.core.rig.points import BOND_END_PATTERN, CONTACT_PATTERN, END_PATTERN, POINT_PATTERN
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.values import ID_PATTERN

FORMAT = "ruvak-rig"
VERSION = 2


def _from_1_to_2(document: dict[str, Any]) -> dict[str, Any]:
    """A run's `legs` are its `pieces`; everything else that is new has a default. What is not as it should be is left
    for validation to name."""
    runs = document.get("runs", [])
    if isinstance(runs, list):
        renamed = [
            {"pieces" if name == "legs" else name: value for name, value in run.items()}
            if isinstance(run, dict)
            else run
            for run in runs
        ]
        document = {**document, "runs": renamed}
    return {**document, "version": 2}


UPGRADERS: dict[int, Callable[[dict[str, Any]], dict[str, Any]]] = {1: _from_1_to_2}
"""version -> function giving the same rig in the next version."""


def parse_json(text: str | bytes) -> Any:
    """The document behind a file's text. Raises RigFault."""
    try:
        return from_json(text)
    except ValueError as problem:
        sentence = f"This is not JSON: {problem}. Check for a missing bracket, comma or quote there."
        raise RigFault((Fault("broken_json", "file", sentence),)) from problem


def upgrade(document: Any) -> dict[str, Any]:
    """The document in this program's version of the format. Raises RigFault for what is no rig file."""
    if not isinstance(document, dict) or document.get("format") != FORMAT:
        sentence = f'This is not a rig file: it should be an object with "format": "{FORMAT}".'
        raise RigFault((Fault("not_a_rig", "format", sentence),))
    version = document.get("version")
    if isinstance(version, bool) or not isinstance(version, int) or not 1 <= version <= VERSION:
        sentence = f"Version {version!r} cannot be read here; this program knows 1 to {VERSION}."
        raise RigFault((Fault("unknown_version", "version", sentence),))
    upgraded: dict[str, Any] = document
    while upgraded["version"] < VERSION:
        upgraded = UPGRADERS[upgraded["version"]](upgraded)
    return upgraded


def validate(document: dict[str, Any]) -> Rig:
    """A rig from a document in today's version; names are not looked up yet (rig.check does). Raises RigFault naming
    each field that is wrong."""
    try:
        return Rig.model_validate(document)
    except ValidationError as problem:
        raise RigFault(faults_of(problem)) from problem


def rig_to_json(rig: Rig) -> str:
    """The rig's JSON text, two-space indented, ending in a newline."""
    return rig.model_dump_json(indent=2, exclude_none=True) + "\n"


def faults_of(problem: ValidationError) -> tuple[Fault, ...]:
    """Each of pydantic's complaints as a Fault with a path and a sentence; what was entered is not echoed."""
    return tuple(
        Fault(f"field_{error['type']}", path_of(error["loc"]), _sentence(error))
        for error in problem.errors(include_url=False, include_input=False)[:20]
    )


def path_of(location: tuple[int | str, ...]) -> str:
    """('gear', 0, 'name') as gear[0].name."""
    path = ""
    for step in location:
        if isinstance(step, int):
            path += f"[{step}]"
        elif step.isidentifier() or "-" in step:
            path += f".{step}" if path else step
    return path or "file"


_A_MOMENT = "should be a date and time with its zone, as in 2026-11-29T18:00+01:00."
_SENTENCES = {
    "missing": "is missing; add it.",
    "extra_forbidden": "is not a field of this format; check its spelling or take it out.",
    "float_type": "should be a number, written without quotes.",
    "int_type": "should be a whole number, written without quotes.",
    "finite_number": "should be an ordinary finite number.",
    "bool_type": "should be true or false, without quotes.",
    "string_type": "should be text in quotes.",
    "json_invalid": "is not JSON.",
    "too_long": "has too many entries.",
    "too_short": "should not be empty.",
    "string_too_long": "is too long.",
    "string_too_short": "should not be empty.",
    "union_tag_invalid": "is of a kind this program does not know.",
    "union_tag_not_found": "does not say of which kind it is.",
    "datetime_parsing": _A_MOMENT,
    "datetime_from_date_parsing": _A_MOMENT,
    "datetime_type": _A_MOMENT,
    "timezone_aware": _A_MOMENT,
}

_PATTERNS = {
    ID_PATTERN: "should be small letters, digits and hyphens, at most 64, starting with a letter or digit.",
    END_PATTERN: "should be an end: the gear's or kit item's id, a dot, and its connector, as in laptop.phones.",
    CONTACT_PATTERN: "should be a contact: connector.contact, as in out.S.",
    POINT_PATTERN: "should be a point: connector.contact, as in in.T, or the bare name of an inner node.",
    BOND_END_PATTERN: "should be a device, a point of one, as in laptop.g or desk.usb.shell, or an earth point.",
}


def _limit(value: object) -> str:
    """A number as people write it; a moment by its day."""
    return f"{value:g}" if isinstance(value, int | float) else str(value)[:10]


def _sentence(error: ErrorDetails) -> str:
    context = error.get("ctx", {})
    match error["type"]:
        case "greater_than":
            return f"must be above {_limit(context['gt'])}."
        case "greater_than_equal":
            return f"must be at least {_limit(context['ge'])}."
        case "less_than":
            return f"must be below {_limit(context['lt'])}."
        case "less_than_equal":
            return f"can be at most {_limit(context['le'])}."
        case "string_pattern_mismatch":
            return _PATTERNS.get(context["pattern"], "holds characters it may not.")
        case "enum" | "literal_error":
            return f"should be one of {context['expected']}."
        case other:
            return _SENTENCES.get(other, error["msg"] + ".")
