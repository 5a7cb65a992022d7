"""Looks through figures."""

import math
from typing import Any


def unfinite(value: Any, path: str = "") -> list[str]:
    """Where a document holds a figure that is not finite."""
    if isinstance(value, float):
        return [] if math.isfinite(value) else [path]
    if isinstance(value, dict):
        return [found for key, one in value.items() for found in unfinite(one, f"{path}.{key}")]
    if isinstance(value, list | tuple):
        return [found for number, one in enumerate(value) for found in unfinite(one, f"{path}[{number}]")]
    return []
