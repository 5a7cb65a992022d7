"""What all blueprints share: the error shape, and a clear word about bodies that are not JSON."""

from typing import Any

from flask import Response, request
from flask_openapi3 import Tag
from werkzeug.exceptions import BadRequest

from ruvak.service.access import Right
from ruvak.web.errors import reply
from ruvak.web.rights import GuardedBlueprint, admit
from ruvak.web.schemas import Problem

_ANYWHERE = ("400", "401", "403", "404", "405", "409", "413", "415", "422", "503")
"""Statuses of errors that any address may answer with."""


ARCHIVE = "application/zip"
OF_ARCHIVES = frozenset({"house.import_house"})
"""What takes an archive and no JSON."""


def blueprint(name: str, words: str, *also: str, reads_need: Right | None = None) -> GuardedBlueprint:
    """A blueprint under /api whose error responses are all Problems; `also`: statuses that only it answers with;
    `reads_need`: the right for its addresses that only read, where the table of rights has no line for them."""
    made = GuardedBlueprint(
        name,
        name,
        url_prefix="/api",
        abp_tags=[Tag(name=name, description=words)],
        abp_responses=dict.fromkeys((*_ANYWHERE, *also), Problem),
    )
    made.reads_need = reads_need
    made.before_request(admit)
    made.before_request(_readable)
    return made


def file_of(kind: str) -> dict[str, Any]:
    """What a response that is a file is described as, by its content type."""
    return {"description": "OK", "content": {kind: {"schema": {"type": "string", "format": "binary"}}}}


def _readable() -> Response | None:
    if request.method in ("GET", "HEAD", "OPTIONS", "DELETE") or not request.content_length:
        return None
    if request.mimetype == ARCHIVE and request.endpoint in OF_ARCHIVES:
        return None
    try:
        request.get_json()
    except BadRequest:
        sentence = "The body is not JSON. Check for a missing bracket, comma or quote."
        return reply(Problem(code="broken_json", message=sentence), 400)
    return None
