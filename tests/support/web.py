"""A test client that carries its token, as the page does."""

from typing import Any

from flask.testing import FlaskClient
from werkzeug.test import TestResponse

from ruvak.web.app import create_app
from ruvak.web.settings import Settings
from tests.support.database import DatabaseTest
from tests.support.rigs import demo_rig


class WebTest(DatabaseTest):
    """`client` on a fresh copy of the demo rig, whose id is `rig_id`."""

    client: FlaskClient
    rig_id: str

    def setUp(self) -> None:
        self.app = create_app(Settings(self.url, "test-secret"))
        self.client = self.app.test_client()
        self.token = self.client.get("/api/session").get_json()["csrf_token"]
        self.rig_id = self.post("/api/rigs", demo_rig().model_dump(mode="json")).get_json()["rig"]["id"]

    def post(self, path: str, body: Any = None, data: bytes | None = None) -> TestResponse:
        headers = {"X-CSRF-Token": self.token}
        if data is not None:
            return self.client.post(path, data=data, headers=headers, content_type="application/json")
        return self.client.post(path, json=body, headers=headers)

    def state(self) -> Any:
        return self.client.get(f"/api/rigs/{self.rig_id}").get_json()

    def edit(self, *ops: dict[str, Any], base_version: Any = None) -> TestResponse:
        version = self.state()["version"] if base_version is None else base_version
        body = {"base_version": version, "edit": {"label": "test", "ops": list(ops)}}
        return self.post(f"/api/rigs/{self.rig_id}/edits", body)
