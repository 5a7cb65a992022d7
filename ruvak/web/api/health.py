"""For load balancers and programs: health, readiness, and the API's own description."""

from flask import Response, current_app

from ruvak import __version__
from ruvak.store.database import is_current
from ruvak.web.answers import answer
from ruvak.web.api.blueprint import blueprint
from ruvak.web.errors import reply
from ruvak.web.openapi import FILE
from ruvak.web.schemas import Health, Problem

api = blueprint("health", "Whether everything answers")
ENGINE = "ruvak_engine"


@api.get("/health", responses={"200": Health})
def read_health() -> Response:
    """200 while the application answers at all; whether it can do its work is asked at /ready."""
    return answer(Health(status="ok", version=__version__))


@api.get("/ready", responses={"200": Health})
def read_readiness() -> Response:
    """200 when the database answers too and has the schema of this version; 503 otherwise."""
    if not is_current(current_app.extensions[ENGINE]):
        sentence = "The database has the schema of another version: bring it up to date with ruvak migrate."
        return reply(Problem(code="not_migrated", message=sentence), 503)
    return answer(Health(status="ok", version=__version__))


@api.get("/openapi.json")
def openapi() -> Response:
    """This document."""
    return Response(FILE.read_bytes(), content_type="application/json")
