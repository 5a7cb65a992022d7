"""A whole house as one archive, out and in."""

from flask import Response, make_response, request
from flask_openapi3 import RawModel

from ruvak.formats.house import house_from_zip, house_to_zip
from ruvak.service.house_import import Imported
from ruvak.service.long_work import WorkState
from ruvak.web.answers import JSON, answer, download, queue, use_cases
from ruvak.web.api.blueprint import ARCHIVE, blueprint, file_of, or_later
from ruvak.web.schemas import HouseWorkPath
from ruvak.web.who import person

api = blueprint("house", "A whole house as one archive")


class Archive(RawModel):
    """An exported house."""

    mimetypes = [ARCHIVE]  # noqa: RUF012


@api.get("/house", responses={"200": file_of(ARCHIVE)})
def export_house() -> Response:
    """Everything but secrets and the history of rigs: people, venues, cupboard, dates, rigs, as JSON and CSV."""
    return download(house_to_zip(use_cases().house.export()), ARCHIVE, "house.ruvak-house.zip")


@api.post("/house", responses=or_later(Imported))
def import_house(raw: Archive) -> Response:
    """Adds what an exported house has and this one does not. An import that was cancelled or ended half way is gone on
    with by sending the same archive again."""
    archive, cases = request.get_data(), use_cases()
    if cases.long_work is not None:
        return make_response(cases.long_work.import_house(archive, person()), 200, JSON)
    return answer(cases.house_import.add(house_from_zip(archive), person()))


@api.get("/house/work/<work_id>", responses={"200": WorkState})
def read_work(path: HouseWorkPath) -> Response:
    """How far an import is. Its address came with the 202 of the request; that request sent again brings the answer."""
    return answer(queue().state(None, path.work_id))


@api.delete("/house/work/<work_id>", responses={"204": None})
def cancel_work(path: HouseWorkPath) -> Response:
    """Ends an import; what it added by then stays."""
    queue().cancel(None, path.work_id)
    return make_response("", 204)
