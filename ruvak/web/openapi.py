"""The OpenAPI document, from which the interface's types are generated: made anew by a command, served as a file."""

import json
from pathlib import Path
from typing import Any

from ruvak.core.rig.rig import Rig

FILE = Path(__file__).parents[2] / "docs/formats/openapi.json"


def describe_api() -> dict[str, Any]:
    """The whole document, made from the addresses and their schemas. The body of an import is a rig file as its
    published schema describes it. For a process of its own: addresses are described while they are imported."""
    from ruvak.web.rights import GuardedBlueprint

    GuardedBlueprint.describes = True
    from ruvak.web.app import create_app
    from ruvak.web.settings import Settings

    # The document needs no database; the engine connects only when asked something.
    app = create_app(Settings("postgresql+psycopg://localhost/none", "unused", compute_processes=0))
    with app.app_context():
        made: dict[str, Any] = json.loads(json.dumps(app.api_doc))
    body = made["paths"]["/api/rigs"]["post"]["requestBody"]
    body["content"]["application/json"]["schema"] = {"type": "object", "title": Rig.__name__}
    return made
