"""A test client that carries its token, as the page does."""

from typing import Any

from flask.testing import FlaskClient
from flask_openapi3 import OpenAPI
from werkzeug.test import TestResponse

from ruvak.service.access import RIGHTS, Right, Role
from ruvak.web import rights
from ruvak.web.app import create_app
from ruvak.web.settings import Settings
from ruvak.web.who import SIGN_IN
from tests.support.database import DatabaseTest
from tests.support.people import signed_in
from tests.support.rigs import demo_rig


class WebTest(DatabaseTest):
    """`client` on a fresh copy of the demo rig, whose id is `rig_id`."""

    client: FlaskClient
    rig_id: str

    def setUp(self) -> None:
        self.app = self.another_app()
        self.client = self.app.test_client()
        self.token = self.client.get("/api/session").get_json()["csrf_token"]
        self.rig_id = self.post("/api/rigs", demo_rig().model_dump(mode="json")).get_json()["rig"]["id"]

    def another_app(self) -> OpenAPI:
        """On the same database, with nothing kept."""
        return create_app(Settings(self.url, "test-secret", demo=True))

    def needed(self) -> dict[str, Right | None]:
        """The right that each address of the API asks for, by endpoint; None where nobody gets in."""
        result: dict[str, Right | None] = {}
        with self.app.app_context():
            for rule in self.app.url_map.iter_rules():
                if rule.rule.startswith("/api/") and rule.endpoint not in rights.OPEN:
                    methods = (rule.methods or set()) - rights.SAFE or {"GET"}
                    result[rule.endpoint] = rights.right_for(rule.endpoint, min(methods))
        return result

    def may(self, endpoint: str, role: Role | None) -> bool:
        """Whether somebody of a role, or nobody in particular, is let in there."""
        if endpoint in rights.OPEN:
            return True
        return role is not None and self.needed()[endpoint] in RIGHTS[role]

    def become(self, name: str, role: Role = "technician") -> None:
        """Goes on as a new person at another browser."""
        self.client = self.app.test_client()
        self.client.set_cookie(SIGN_IN, signed_in(self.sessions, name, role))
        self.token = self.client.get("/api/session").get_json()["csrf_token"]

    def post(self, path: str, body: Any = None, data: bytes | None = None) -> TestResponse:
        headers = {"X-CSRF-Token": self.token}
        if data is not None:
            return self.client.post(path, data=data, headers=headers, content_type="application/json")
        return self.client.post(path, json=body, headers=headers)

    def state(self) -> Any:
        return self.client.get(f"/api/rigs/{self.rig_id}").get_json()

    def edit(self, *ops: dict[str, Any], base_version: Any = None) -> TestResponse:
        return self.save({"label": "test", "ops": list(ops)}, base_version)

    def save(self, edit: Any, base_version: Any = None) -> TestResponse:
        """An edit on the version that is current, unless another is given."""
        version = self.version() if base_version is None else base_version
        return self.post(f"/api/rigs/{self.rig_id}/edits", {"base_version": version, "edit": edit})

    def version(self) -> Any:
        return self.client.get(f"/api/rigs/{self.rig_id}/version").get_json()["version"]

    def analysis(self, part: str, **more: Any) -> TestResponse:
        """A part of the current version's analysis."""
        return self.client.get(f"/api/rigs/{self.rig_id}/versions/{self.version()}/{part}", **more)

    def codes(self, run_id: str) -> list[str]:
        """Of a run's findings as the rig stands."""
        return [finding["code"] for finding in self.analysis(f"runs/{run_id}").get_json()["findings"]]

    def thing(self, kind: str, id_: str) -> Any:
        """A gear, kit item, run or part of the rig as it stands."""
        return next(one for one in self.state()["rig"][kind] if one["id"] == id_)
