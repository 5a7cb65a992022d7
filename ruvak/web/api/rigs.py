"""Rigs as documents: list, open, import, export, delete; remedies of a run."""

from flask import Response, request
from flask_openapi3 import RawModel

from ruvak.core.analyse import bonds_of
from ruvak.core.parts.reading import rig_from_json
from ruvak.core.rig.files import rig_to_json
from ruvak.core.rig.rig import Rig
from ruvak.formats.spice import netlists, zipped
from ruvak.service.states import RigState
from ruvak.web.answers import answer, rigs
from ruvak.web.api.blueprint import blueprint
from ruvak.web.schemas import BondList, CopyBody, FirstQuery, RemedyList, RigList, RigPath, RunPath
from ruvak.web.security import person, visitor

api = blueprint("rigs", "Rigs as documents")


class RigFile(RawModel):
    """A rig file; read by the core's own reader, so its faults are told field by field."""

    mimetypes = ["application/json"]  # noqa: RUF012


@api.get("/rigs", responses={"200": RigList})
def list_rigs() -> Response:
    """All rigs, the last saved first."""
    return answer(RigList(tuple(rigs().listed())))


@api.post("/rigs", responses={"201": RigState})
def import_rig(raw: RigFile) -> Response:
    """Imports a rig file; a taken id gets a number behind it."""
    return answer(rigs().imported(rig_from_json(request.get_data()), person()), 201)


@api.get("/rigs/<rig_id>", responses={"200": RigState})
def open_rig(path: RigPath) -> Response:
    """A rig with its analysis."""
    return answer(rigs().opened(path.rig_id, visitor()))


@api.post("/rigs/<rig_id>/copies", responses={"201": RigState})
def copy_rig(path: RigPath, body: CopyBody) -> Response:
    """Copies a rig for another occasion: everything but its history."""
    return answer(rigs().copied(path.rig_id, body.name, body.occasion, person()), 201)


@api.delete("/rigs/<rig_id>", responses={"204": None})
def delete_rig(path: RigPath) -> Response:
    """Deletes a rig and its history."""
    rigs().deleted(path.rig_id)
    return Response(status=204)


@api.get("/rigs/<rig_id>/file", responses={"200": Rig})
def export_rig(path: RigPath) -> Response:
    """The rig file, as a download."""
    response = Response(rig_to_json(rigs().exported(path.rig_id)), content_type="application/json")
    response.headers["Content-Disposition"] = f'attachment; filename="{path.rig_id}.ruvak.json"'
    return response


@api.get("/rigs/<rig_id>/bonds", responses={"200": BondList})
def list_bonds(path: RigPath) -> Response:
    """Every joint that closes a loop, its current, and what opening it would do to every input.

    Opening a protective earth is never among them.
    """
    return answer(BondList(bonds_of(rigs().exported(path.rig_id))))


@api.get("/rigs/<rig_id>/netlists")
def export_netlists(path: RigPath) -> Response:
    """SPICE netlists of the rig, one for each disturbance and programme channel, as a ZIP archive."""
    response = Response(zipped(netlists(rigs().exported(path.rig_id))), content_type="application/zip")
    response.headers["Content-Disposition"] = f'attachment; filename="{path.rig_id}-netlists.zip"'
    return response


@api.get("/rigs/<rig_id>/runs/<run_id>/remedies", responses={"200": RemedyList})
def list_remedies(path: RunPath, query: FirstQuery) -> Response:
    """Solved remedies for one run, best first; then what is often tried and does not help.

    With `first` the search ends at the first that clears the run, which is soonest.
    """
    return answer(RemedyList(rigs().remedies(path.rig_id, path.run_id, query.first)))
