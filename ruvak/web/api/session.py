"""Who is at this browser, and its token."""

from flask import Response
from flask_wtf.csrf import generate_csrf

from ruvak import __version__
from ruvak.web.answers import answer
from ruvak.web.api.blueprint import blueprint
from ruvak.web.schemas import PersonBody, SessionBody
from ruvak.web.security import person, rename

api = blueprint("session", "The person at this browser")


def _body() -> SessionBody:
    return SessionBody(person_name=person().name, csrf_token=generate_csrf(), app_version=__version__)


@api.get("/session", responses={"200": SessionBody})
def read_session() -> Response:
    """The person's name and the token for changes."""
    return answer(_body())


@api.put("/session", responses={"200": SessionBody})
def rename_person(body: PersonBody) -> Response:
    """Gives the person a name; it stands beside their edits."""
    rename(body.name)
    return answer(_body())
