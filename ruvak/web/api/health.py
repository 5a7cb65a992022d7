"""For load balancers and programs: health, and the API's own description."""

import json
from typing import cast

from flask import Response, current_app
from flask_openapi3 import OpenAPI

from ruvak import __version__
from ruvak.store.database import reachable
from ruvak.web.answers import answer
from ruvak.web.api.blueprint import blueprint
from ruvak.web.openapi import document
from ruvak.web.schemas import Health

api = blueprint("health", "Whether everything answers")
ENGINE = "ruvak_engine"


@api.get("/health", responses={"200": Health})
def health() -> Response:
    """200 when the application and its database answer; 503 otherwise."""
    reachable(current_app.extensions[ENGINE])
    return answer(Health(status="ok", version=__version__))


@api.get("/openapi.json")
def openapi() -> Response:
    """This document."""
    app = cast(OpenAPI, current_app._get_current_object())  # type: ignore[attr-defined]
    return Response(json.dumps(document(app)), content_type="application/json")
