"""Photos over HTTP: made smaller, without where they were taken, once however often they are sent."""

import io
import unittest
import uuid

from PIL import Image
from werkzeug.test import TestResponse

from tests.support.web import WebTest

GPS_TAG, MAKER_TAG = 0x8825, 0x010F


def photo(width: int = 3000, height: int = 1500, turned: int | None = None) -> bytes:
    """As a phone takes it: with its maker in it, and turned by a note instead of by its pixels."""
    out = io.BytesIO()
    picture = Image.new("RGB", (width, height), "teal")
    exif = picture.getexif()
    exif[MAKER_TAG] = "a maker of phones"
    exif.get_ifd(GPS_TAG)[1] = "N"
    if turned is not None:
        exif[0x0112] = turned
    picture.save(out, "JPEG", exif=exif)
    return out.getvalue()


class Photos(WebTest):
    def setUp(self) -> None:
        super().setUp()
        self.photo = uuid.uuid4().hex

    def put(self, data: bytes, kind: str = "image/jpeg", id_: str | None = None) -> TestResponse:
        address = f"/api/rigs/{self.rig_id}/photos/{id_ or self.photo}"
        return self.client.put(address, data=data, headers={"X-CSRF-Token": self.token}, content_type=kind)

    def get(self, id_: str | None = None) -> TestResponse:
        return self.client.get(f"/api/rigs/{self.rig_id}/photos/{id_ or self.photo}")

    def test_it_comes_back_smaller_upright_and_without_where_it_was_taken(self) -> None:
        self.assertEqual(self.put(photo(turned=6)).status_code, 204)
        answered = self.get()
        self.assertEqual(answered.content_type, "image/jpeg")
        self.assertIn("immutable", answered.headers["Cache-Control"])
        with Image.open(io.BytesIO(answered.data)) as kept:
            self.assertEqual((kept.size, dict(kept.getexif())), ((800, 1600), {}))
        self.assertNotIn(b"a maker of phones", answered.data)

    def test_sent_twice_it_stays_as_it_came_first(self) -> None:
        self.put(photo(40, 20))
        self.put(photo(90, 90))
        with Image.open(io.BytesIO(self.get().data)) as kept:
            self.assertEqual(kept.size, (40, 20))

    def test_what_is_no_photo_is_refused_in_words(self) -> None:
        gif = io.BytesIO()
        Image.new("RGB", (4, 4)).save(gif, "GIF")
        for data in (b"", b"nonsense", photo()[:200], b"\xff\xd8\xff" + b"\0" * 50, gif.getvalue()):
            refused = self.put(data)
            self.assertEqual((refused.status_code, refused.get_json()["code"]), (422, "bad_photo"))
            self.assertIn("no photo", refused.get_json()["message"])
        self.assertEqual(self.put(photo(), kind="text/html").status_code, 415)
        self.assertEqual(self.get().status_code, 404)

    def test_a_picture_of_too_many_pixels_is_not_opened(self) -> None:
        out = io.BytesIO()
        Image.new("1", (20_000, 4_000)).save(out, "PNG")
        refused = self.put(out.getvalue(), kind="image/png")
        self.assertIn("60 million pixels", refused.get_json()["message"])

    def test_another_rig_s_photo_is_not_there(self) -> None:
        self.put(photo(40, 20))
        other = self.post("/api/rigs", self.state()["rig"]).get_json()["rig"]["id"]
        self.assertEqual(self.client.get(f"/api/rigs/{other}/photos/{self.photo}").status_code, 404)

    def test_a_viewer_sees_and_takes_none(self) -> None:
        self.put(photo(40, 20))
        self.become(f"Vera {self.photo}", "viewer")
        self.assertEqual(self.get().status_code, 200)
        self.assertEqual(self.put(photo(40, 20), id_="another-photo").status_code, 403)


if __name__ == "__main__":
    unittest.main()
