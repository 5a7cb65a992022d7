"""What all blueprints share: the error shape, and a clear word about bodies that are not JSON."""

from flask import Response, request
from flask_openapi3 import APIBlueprint, Tag
from werkzeug.exceptions import BadRequest

from ruvak.web.errors import reply
from ruvak.web.rights import admit
from ruvak.web.schemas import Problem


def blueprint(name: str, words: str) -> APIBlueprint:
    """A blueprint under /api whose error responses are all Problems."""
    made = APIBlueprint(
        name,
        name,
        url_prefix="/api",
        abp_tags=[Tag(name=name, description=words)],
        abp_responses=dict.fromkeys(("401", "403", "404", "409", "413", "422", "503"), Problem),
    )
    made.before_request(admit)
    made.before_request(_readable)
    return made


def _readable() -> Response | None:
    if request.method in ("GET", "HEAD", "OPTIONS", "DELETE") or not request.content_length:
        return None
    try:
        request.get_json()
    except BadRequest:
        sentence = "The body is not JSON. Check for a missing bracket, comma or quote."
        return reply(Problem(code="broken_json", message=sentence), 400)
    return None
