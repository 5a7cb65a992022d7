"""A whole house as one archive, out and in."""

from flask import Response, request
from flask_openapi3 import RawModel

from ruvak.formats.house import house_from_zip, house_to_zip
from ruvak.service.house import Imported
from ruvak.web.answers import answer, use_cases
from ruvak.web.api.blueprint import ARCHIVE, blueprint, file_of
from ruvak.web.who import person

api = blueprint("house", "A whole house as one archive")


class Archive(RawModel):
    """An exported house."""

    mimetypes = [ARCHIVE]  # noqa: RUF012


@api.get("/house", responses={"200": file_of(ARCHIVE)})
def export_house() -> Response:
    """Everything but secrets and the history of rigs: people, venues, cupboard, dates, rigs, as JSON and CSV."""
    response = Response(house_to_zip(use_cases().house.export()), content_type=ARCHIVE)
    response.headers["Content-Disposition"] = 'attachment; filename="house.ruvak-house.zip"'
    return response


@api.post("/house", responses={"200": Imported})
def import_house(raw: Archive) -> Response:
    """Adds what an exported house has and this one does not."""
    return answer(use_cases().house.import_house(house_from_zip(request.get_data()), person()))
