"""What the interface's forms show of a rig's fields, out of its JSON Schema: labels, units, limits, choices."""

import json
import sys
from pathlib import Path
from typing import Any

SCHEMA = Path("docs/formats/rig.schema.json")


def form_fields(schema: dict[str, Any]) -> dict[str, dict[str, Any]]:
    """By record and field, "HouseRules.screens"."""
    records = {**schema["$defs"], "Rig": schema}
    return {
        f"{record}.{field}": _shown(given)
        for record, described in sorted(records.items())
        for field, given in described.get("properties", {}).items()
        if "form" in given
    }


def _shown(given: dict[str, Any]) -> dict[str, Any]:
    limits: dict[str, Any] = next(
        (kind for kind in (given, *given.get("anyOf", [])) if "maximum" in kind or "maxLength" in kind), {}
    )
    default = given.get("default")
    known = {
        "label": given["title"],
        **given["form"],
        "minimum": limits.get("minimum"),
        "maximum": limits.get("maximum"),
        "longest": limits.get("maxLength"),
        "needed": limits.get("minLength", 0) > 0 or None,
        "fallback": default.get("value") if isinstance(default, dict) else default,
    }
    return {name: value for name, value in known.items() if value is not None}


if __name__ == "__main__":
    json.dump(form_fields(json.loads(SCHEMA.read_text(encoding="utf-8"))), sys.stdout, indent="\t")
    print()
