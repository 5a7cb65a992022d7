"""Photos of the log."""

from flask import Response, make_response, request
from flask_openapi3 import RawModel

from ruvak.formats.photo import cleaned
from ruvak.service.access import Right
from ruvak.web.answers import use_cases
from ruvak.web.api.blueprint import PHOTOS, blueprint, file_of
from ruvak.web.log_schemas import PhotoPath
from ruvak.web.who import person

JPEG = "image/jpeg"
A_DAY_S = 24 * 60 * 60
api = blueprint("photos", "Photos of the log", reads_need=Right.READ)


class Photo(RawModel):
    """A picture as a phone takes it."""

    mimetypes = list(PHOTOS)  # noqa: RUF012


@api.put("/rigs/<rig_id>/photos/<photo_id>", responses={"204": None})
def add_photo(path: PhotoPath, raw: Photo) -> Response:
    """Keeps a photo that an entry of the log names; made smaller, and without where it was taken."""
    use_cases().photos.add(path.rig_id, path.photo_id, cleaned(request.get_data()), person())
    return make_response("", 204)


@api.get("/rigs/<rig_id>/photos/<photo_id>", responses={"200": file_of(JPEG)})
def read_photo(path: PhotoPath) -> Response:
    """A photo; it never changes."""
    response = Response(use_cases().photos.read(path.rig_id, path.photo_id), content_type=JPEG)
    response.headers["Cache-Control"] = f"private, max-age={A_DAY_S}, immutable"
    return response
