"""Rigs as documents: list, open, import, export, delete."""

from flask import Response, request
from flask_openapi3 import RawModel

from ruvak.core.compare import RigComparison
from ruvak.core.parts.reading import rig_from_json
from ruvak.core.rig.files import rig_to_json
from ruvak.core.rig.rig import Rig
from ruvak.formats.spice import netlists, zip_files
from ruvak.service.access import Right
from ruvak.service.states import RigState, RigVersion
from ruvak.web.answers import add_etag, answer, answer_computed, download, use_cases
from ruvak.web.api.blueprint import blueprint, file_of, or_later
from ruvak.web.schemas import ComparePath, CopyBody, RigList, RigPath, ShelfBody
from ruvak.web.who import person, signed_in

api = blueprint("rigs", "Rigs as documents")


class RigFile(RawModel):
    """A rig file; read by the core's own reader, so its faults are told field by field."""

    mimetypes = ["application/json"]  # noqa: RUF012


@api.get("/rigs", responses={"200": RigList})
def list_rigs() -> Response:
    """All rigs, or the one that a link opens; the last saved first."""
    return answer(RigList(tuple(use_cases().rigs.list_all(signed_in().rig))))


@api.post("/rigs", responses={"201": RigState})
def import_rig(raw: RigFile) -> Response:
    """Imports a rig file; a taken id gets a number behind it."""
    return answer(use_cases().rigs.import_rig(rig_from_json(request.get_data()), person()), 201)


@api.get("/rigs/<rig_id>", responses={"200": RigState})
def open_rig(path: RigPath) -> Response:
    """A rig as it stands; its analysis has addresses of its own."""
    return answer(use_cases().rigs.open(path.rig_id, person()))


@api.get("/rigs/<rig_id>/version", responses={"200": RigVersion})
def read_version(path: RigPath) -> Response:
    """Where a rig stands; 304 where that is what the client has. Made to be asked every second."""
    result = use_cases().rigs.version(path.rig_id)
    return add_etag(answer(result), f"{result.version}-{result.saved_at.timestamp():.6f}")


@api.post("/rigs/<rig_id>/copies", responses={"201": RigState})
def copy_rig(path: RigPath, body: CopyBody) -> Response:
    """Copies a rig for another occasion: everything but its history."""
    return answer(use_cases().rigs.copy(path.rig_id, body.name, body.occasion, person()), 201)


@api.get("/rigs/<rig_id>/compare/<other_id>", responses=or_later(RigComparison))
def compare_rigs(path: ComparePath) -> Response:
    """What another rig has otherwise than this one: runs, devices, settings, findings that came and went."""
    signed_in().require(Right.READ, path.other_id)
    return answer_computed(path.rig_id, "compare", path.other_id)


@api.put("/rigs/<rig_id>/shelf", responses={"204": None})
def shelve_rig(path: RigPath, body: ShelfBody) -> Response:
    """Puts a rig among the plans, the templates, or into the archive."""
    use_cases().rigs.shelve(path.rig_id, body.shelf)
    return Response(status=204)


@api.delete("/rigs/<rig_id>", responses={"204": None})
def delete_rig(path: RigPath) -> Response:
    """Deletes a rig and its history."""
    use_cases().rigs.delete(path.rig_id)
    return Response(status=204)


@api.get("/rigs/<rig_id>/file", responses={"200": Rig})
def export_rig(path: RigPath) -> Response:
    """The rig file, as a download."""
    return download(rig_to_json(use_cases().rigs.export(path.rig_id)), "application/json", f"{path.rig_id}.ruvak.json")


@api.get("/rigs/<rig_id>/netlists", responses={"200": file_of("application/zip")})
def export_netlists(path: RigPath) -> Response:
    """SPICE netlists of the rig, one for each disturbance and programme channel, as a ZIP archive."""
    return download(
        zip_files(netlists(use_cases().rigs.export(path.rig_id))), "application/zip", f"{path.rig_id}-netlists.zip"
    )
