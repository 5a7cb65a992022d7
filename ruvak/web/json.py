"""Reads JSON with a parser that limits nesting, so that no body can exhaust the stack."""

from typing import Any

from flask.json.provider import DefaultJSONProvider
from pydantic_core import from_json


class BoundedJson(DefaultJSONProvider):
    """ValueError for anything that is not JSON, however deep, as Flask expects."""

    def loads(self, s: str | bytes, **kwargs: Any) -> Any:
        """The parsed document."""
        return from_json(s)
