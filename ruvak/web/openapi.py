"""The OpenAPI document, from which the interface's types are generated."""

import json
from typing import Any

from flask_openapi3 import OpenAPI

from ruvak.core.rig.rig import Rig


def document(app: OpenAPI) -> dict[str, Any]:
    """The whole document. The body of an import is a rig file as its published schema describes it."""
    with app.app_context():
        made: dict[str, Any] = json.loads(json.dumps(app.api_doc))
    body = made["paths"]["/api/rigs"]["post"]["requestBody"]
    body["content"]["application/json"]["schema"] = {"type": "object", "title": Rig.__name__}
    return made
