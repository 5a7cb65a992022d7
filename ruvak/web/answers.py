"""Records as JSON responses, and the use cases of the current app."""

from typing import cast

from flask import Response, current_app, make_response
from pydantic import BaseModel

from ruvak.service.entry import Entry
from ruvak.service.rigs import Rigs

EXTENSION = "ruvak"
ENTRY = "ruvak_entry"


def answer(model: BaseModel, status: int = 200) -> Response:
    """A record as the body of a response."""
    return make_response(model.model_dump_json(), status, {"Content-Type": "application/json"})


def rigs() -> Rigs:
    """The use cases bound to this app's database."""
    return cast(Rigs, current_app.extensions[EXTENSION])


def entry() -> Entry:
    """The use cases of entering runs, on the same database."""
    return cast(Entry, current_app.extensions[ENTRY])
