"""What all blueprints share: the error shape, and a clear word about bodies that are not JSON."""

from http import HTTPStatus
from typing import Any

from flask import Response, request
from flask_openapi3 import Tag
from pydantic import BaseModel
from werkzeug.exceptions import BadRequest

from ruvak.service.access import Right
from ruvak.web.errors import reply
from ruvak.web.rights import GuardedBlueprint, admit
from ruvak.web.schemas import Problem

_ANYWHERE = ("400", "401", "403", "404", "405", "409", "413", "415", "422", "503")
"""Statuses of errors that any address may answer with."""


LATER = {
    "description": "Computed through the queue: ask the address in Location how far it is, then ask here again.",
    "headers": {"Location": {"schema": {"type": "string"}}},
}
"""Of what may take longer than a moment in a large rig."""
ARCHIVE = "application/zip"
PHOTOS = ("image/jpeg", "image/png", "image/webp")
OF_FILES = {"house.import_house": (ARCHIVE,), "photos.add_photo": PHOTOS}
"""What takes a file and no JSON, and of which kinds."""


def blueprint(name: str, words: str, *also: str, reads_need: Right | None = None) -> GuardedBlueprint:
    """A blueprint under /api whose error responses are all Problems; `also`: statuses that only it answers with;
    `reads_need`: the right for its addresses that only read, where the table of rights has no line for them."""
    made = GuardedBlueprint(
        name,
        name,
        url_prefix="/api",
        abp_tags=[Tag(name=name, description=words)],
        abp_responses={status: _problem(status) for status in (*_ANYWHERE, *also)},
        doc_ui=GuardedBlueprint.describes,
    )
    made.reads_need = reads_need
    made.before_request(admit)
    made.before_request(_readable)
    return made


def _problem(status: str) -> dict[Any, Any]:
    """An error's response, by reference: described anew for each of a thousand, it would take seconds."""
    schema = {"$ref": f"#/components/schemas/{Problem.__name__}"}
    return {"description": HTTPStatus(int(status)).phrase, "content": {"application/json": {"schema": schema}}}


def or_later(model: type[BaseModel]) -> dict[str | int, type[BaseModel] | dict[Any, Any] | None]:
    """The responses of what may take longer than a moment in a large rig."""
    return {"200": model, "202": LATER}


def file_of(kind: str) -> dict[str, Any]:
    """What a response that is a file is described as, by its content type."""
    return {"description": "OK", "content": {kind: {"schema": {"type": "string", "format": "binary"}}}}


def _readable() -> Response | None:
    if request.method in ("GET", "HEAD", "OPTIONS", "DELETE") or not request.content_length:
        return None
    if request.mimetype in OF_FILES.get(request.endpoint or "", ()):
        return None
    try:
        request.get_json()
    except BadRequest:
        sentence = "The body is not JSON. Check for a missing bracket, comma or quote."
        return reply(Problem(code="broken_json", message=sentence), 400)
    return None
