"""Every operation of the published description, asked with what it allows and with what it does not, as each role.

What comes back is described, no right is exceeded, and nothing is a server error. Seeded: the same requests each time.
"""

import logging
from collections.abc import Iterator
from typing import Any, ClassVar

from hypothesis import Phase, given, settings
from hypothesis import strategies as st
from schemathesis import APIOperation, Case, GenerationMode, SerializationContext, openapi, serializer
from schemathesis.checks import content_type_conformance, not_a_server_error, status_code_conformance
from schemathesis.core.result import Ok

from ruvak.service.access import Role
from ruvak.web import rights
from ruvak.web.app import create_app
from ruvak.web.settings import Settings
from ruvak.web.who import SIGN_IN
from tests.support.people import signed_in
from tests.support.rigs import demo_rig
from tests.support.web import WebTest

EXAMPLES = 2
"""Of each kind, for each operation and role; script/fuzz makes more."""
CHECKS = [not_a_server_error, status_code_conformance, content_type_conformance]
LEFT_OUT = frozenset({"session.sign_out", "rigs.delete_rig", "health.openapi"})
"""Two would take away what the others are asked about, the third is the description itself; tests of their own look at
them."""
ROLES: tuple[Role, ...] = ("viewer", "helper", "technician", "owner")
REFUSED = {"signed_out": 401, "not_allowed": 403}


@serializer("application/zip", "image/jpeg", "image/png", "image/webp")
def as_file(_: SerializationContext, value: Any) -> bytes:
    """Whatever is sent as a file: bytes that are none."""
    return value if isinstance(value, bytes) else str(value).encode()


class WholeApi(WebTest):
    cases: ClassVar[dict[str, list[tuple[Case[Any], bool]]]] = {}

    def setUp(self) -> None:
        super().setUp()
        self.app = create_app(Settings(self.url, "test-secret"))
        self.schema = openapi.from_wsgi("/api/openapi.json", self.app)
        logging.getLogger("ruvak").setLevel(logging.CRITICAL)
        self.addCleanup(logging.getLogger("ruvak").setLevel, logging.NOTSET)

    def test_as_nobody(self) -> None:
        self.as_role(None)

    def test_as_a_viewer(self) -> None:
        self.as_role("viewer")

    def test_as_a_helper(self) -> None:
        self.as_role("helper")

    def test_as_a_technician(self) -> None:
        self.as_role("technician")

    def test_as_an_owner(self) -> None:
        self.as_role("owner")

    def as_role(self, role: Role | None) -> None:
        self.client = self.app.test_client()
        if role is not None:
            self.client.set_cookie(SIGN_IN, signed_in(self.sessions, f"Asking as {role}", role))
        self.token = self.client.get("/api/session").get_json()["csrf_token"]
        asked = set()
        for operation in self.operations():
            endpoint = self.endpoint_of(operation)
            asked.add(endpoint)
            if endpoint not in LEFT_OUT and not self.is_asked_as_another(endpoint, role):
                with self.subTest(f"{operation.label} as {role}"):
                    self.ask(operation, endpoint, role)
        self.assertEqual(asked | LEFT_OUT, rights.OPEN | self.needed().keys())

    def is_asked_as_another(self, endpoint: str, role: Role | None) -> bool:
        """What a role may as the one below it may is asked as that one: the same program answers."""
        if role is None or role == ROLES[0]:
            return False
        return self.may(endpoint, ROLES[ROLES.index(role) - 1])

    def operations(self) -> Iterator[APIOperation[Any, Any, Any, Any]]:
        for result in self.schema.get_all_operations():
            assert isinstance(result, Ok)
            yield result.ok()

    def endpoint_of(self, operation: APIOperation[Any, Any, Any, Any]) -> str:
        path = operation.full_path.replace("{", "").replace("}", "").replace("edit_id", "1")
        endpoint, _ = self.app.url_map.bind("localhost").match(path, method=operation.method.upper())
        return str(endpoint)

    def ask(self, operation: APIOperation[Any, Any, Any, Any], endpoint: str, role: Role | None) -> None:
        allowed = self.may(endpoint, role)
        for case, real in self.cases_of(operation):
            if real and "rig_id" in case.path_parameters:
                case.path_parameters["rig_id"] = self.rig_id
            response = self.call(case)
            case.validate_response(response, checks=CHECKS)
            code = (response.get_json(silent=True) or {}) if response.is_json else {}
            refused = isinstance(code, dict) and REFUSED.get(str(code.get("code"))) == response.status_code
            # What no address takes, or whose host or token is wrong, is refused before anybody looks at rights.
            if response.status_code not in (400, 404, 405):
                self.assertTrue(refused or allowed, f"{case.formatted_path} {response.get_data()!r}")

    def cases_of(self, operation: APIOperation[Any, Any, Any, Any]) -> list[tuple[Case[Any], bool]]:
        """The same for every role, and made once: making them takes most of the time."""
        if operation.label not in WholeApi.cases:
            WholeApi.cases[operation.label] = made = []
            modes = [operation.as_strategy(generation_mode=mode) for mode in GenerationMode]

            @settings(max_examples=EXAMPLES * len(modes), database=None, phases=[Phase.generate])
            @given(case=st.one_of(modes), real=st.booleans())
            def make(case: Case[Any], real: bool) -> None:
                made.append((case, real))

            make()
        return WholeApi.cases[operation.label]

    def call(self, case: Case[Any]) -> Any:
        """By the client that carries the sign-in; the token as the page sends it."""
        arguments = case.as_transport_kwargs()
        arguments = {name: value for name, value in arguments.items() if name in ("json", "data", "headers", "params")}
        headers = {"X-CSRF-Token": self.token, **(arguments.get("headers") or {})}
        headers.pop("Cookie", None)
        headers["X-CSRF-Token"] = self.token
        return self.client.open(
            case.formatted_path,
            method=case.method,
            query_string=arguments.get("params"),
            headers=headers,
            json=arguments.get("json"),
            data=arguments.get("data"),
        )

    def tearDown(self) -> None:
        self.assertEqual(self.rigs.export(self.rig_id).parts, demo_rig().parts)
