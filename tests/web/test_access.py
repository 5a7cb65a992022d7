"""Who may do what over HTTP: every address of the API, asked as each role, by a link, and by nobody."""

from collections.abc import Iterator
from itertools import pairwise
from pathlib import Path
from typing import Any

from flask.testing import FlaskClient

from ruvak.core.rig.edits import PutThing, SetField, set_setting
from ruvak.service.access import RIGHTS, Right, Role
from ruvak.service.links import Gives
from ruvak.web import rights
from ruvak.web.app import create_app
from ruvak.web.settings import Settings
from tests.support.people import PASSPHRASE, with_passphrase
from tests.support.web import WebTest

ROLES: tuple[Role, ...] = ("viewer", "helper", "technician", "owner")
PLACES = {
    "rig_id": "lantern-evening",
    "other_id": "lantern-evening",
    "run_id": "slides",
    "version": "0.0",
    "part_id": "pad-20",
    "edit_id": "1",
}


class EveryAddress(WebTest):
    """A request without a body, or with an empty one, ends before anything is done; only the refusal is looked at."""

    def endpoints(self) -> Iterator[tuple[str, str, str]]:
        for rule in self.app.url_map.iter_rules():
            if rule.rule.startswith("/api/"):
                names = {name: PLACES.get(name, "none") for name in rule.arguments}
                path = rule.rule.replace("<int:", "<")
                for name, value in names.items():
                    path = path.replace(f"<{name}>", value)
                for method in (rule.methods or set()) - {"HEAD", "OPTIONS"}:
                    yield rule.endpoint, method, path

    def ask(self, method: str, path: str) -> tuple[int, str | None]:
        body: Any = None if method in ("GET", "DELETE") else {}
        headers = {"X-CSRF-Token": self.token}
        answered = self.client.open(path, method=method, json=body, headers=headers)
        problem = answered.get_json(silent=True)
        return answered.status_code, problem.get("code") if isinstance(problem, dict) else None

    def test_each_address_asks_for_a_right_and_the_table_names_no_other_address(self) -> None:
        there = {endpoint for endpoint, _, _ in self.endpoints()}
        self.assertEqual(there, rights.OPEN | self.needed().keys())
        self.assertNotIn(None, self.needed().values())
        self.assertLessEqual(rights.RIGHTS.keys(), self.needed().keys())

    def test_what_changes_something_needs_a_line_in_the_table(self) -> None:
        with self.app.app_context():
            for method, right in (("GET", Right.READ), ("POST", None), ("DELETE", None)):
                self.assertEqual(rights.right_for("analyses.not_listed", method), right)
            self.assertIsNone(rights.right_for("people.not_listed", "GET"))
            self.assertIsNone(rights.right_for("not_there.at_all", "GET"))

    def test_nobody_gets_anywhere_but_to_what_is_open(self) -> None:
        app = create_app(Settings(self.url, "test-secret"))
        self.client = app.test_client()
        self.token = self.client.get("/api/session").get_json()["csrf_token"]
        for endpoint, method, path in self.endpoints():
            if endpoint == "session.sign_out":
                # It takes the token with it.
                continue
            refused = self.ask(method, path) == (401, "signed_out")
            self.assertEqual(refused, endpoint not in rights.OPEN, endpoint)

    def test_each_role_gets_what_it_has_a_right_to_and_nothing_else(self) -> None:
        for role in ROLES:
            self.become(f"A {role}", role)
            for endpoint, method, path in self.endpoints():
                if endpoint in ("session.sign_out", "rigs.delete_rig"):
                    continue
                refused = self.ask(method, path) == (403, "not_allowed")
                allowed = self.may(endpoint, role)
                if allowed and endpoint.startswith("me."):
                    continue
                self.assertEqual(refused, not allowed, f"{endpoint} as {role}")

    def test_more_rights_never_take_one_away(self) -> None:
        for less, more in pairwise(ROLES):
            self.assertLess(RIGHTS[less], RIGHTS[more])
        self.assertEqual(RIGHTS["owner"], frozenset(Right))


class Demonstration(WebTest):
    def test_only_a_visitor_from_this_computer_is_its_technician(self) -> None:
        for environ, headers, role in (
            ({}, {}, "technician"),
            ({"REMOTE_ADDR": "::1"}, {}, "technician"),
            ({"REMOTE_ADDR": "127.9.8.7"}, {}, "technician"),
            ({"REMOTE_ADDR": "192.0.2.7"}, {}, None),
            ({"REMOTE_ADDR": ""}, {}, None),
            ({}, {"X-Forwarded-For": "127.0.0.1"}, None),
            ({}, {"Forwarded": "for=127.0.0.1"}, None),
        ):
            client = self.app.test_client()
            found = client.get("/api/session", environ_overrides=environ, headers=headers).get_json()
            self.assertEqual((found["role"], found["demo"]), (role, role is not None), (environ, headers))
            listed = client.get("/api/rigs", environ_overrides=environ, headers=headers)
            self.assertEqual(listed.status_code, 200 if role else 401)

    def test_no_other_name_of_this_computer_will_do(self) -> None:
        """A page elsewhere can give its own name this address; the allow-list refuses it before that."""
        app = create_app(Settings(self.url, "test-secret", demo=True, hosts=("127.0.0.1", "booth.example")))
        found = app.test_client().get("/api/session", headers={"Host": "booth.example"}).get_json()
        self.assertIsNone(found["role"])

    def test_without_the_setting_it_signs_nobody_in(self) -> None:
        found = create_app(Settings(self.url, "test-secret")).test_client().get("/api/session").get_json()
        self.assertEqual((found["role"], found["demo"], found["rights"]), (None, False, []))


class SigningIn(WebTest):
    def setUp(self) -> None:
        super().setUp()
        self.app = create_app(Settings(self.url, "test-secret"))
        self.client = self.app.test_client()
        self.renew_token()
        if not any(person.name == "Tom" for person in self.app.extensions["ruvak"].people.list_all()):
            with_passphrase(self.sessions, "Tom", "technician")

    def renew_token(self) -> None:
        self.token = self.client.get("/api/session").get_json()["csrf_token"]

    def test_in_and_out(self) -> None:
        wrong = self.post("/api/sign-in", {"name": "Tom", "passphrase": "velvet tractor"})
        self.assertEqual((wrong.status_code, wrong.get_json()["code"]), (401, "wrong_passphrase"))
        self.assertNotIn(b"velvet", wrong.get_data())
        before = self.token
        answered = self.post("/api/sign-in", {"name": "tom", "passphrase": PASSPHRASE})
        self.assertEqual(answered.status_code, 204)
        cookies = answered.headers.getlist("Set-Cookie")
        (own,) = [cookie for cookie in cookies if cookie.startswith("ruvak_sign_in=") and "Max-Age=0" not in cookie]
        self.assertIn("HttpOnly", own)
        self.assertIn("SameSite=Lax", own)
        self.renew_token()
        self.assertNotEqual(self.token, before)
        found = self.client.get("/api/session").get_json()
        self.assertEqual((found["person_name"], found["role"], found["account"]), ("Tom", "technician", True))
        carried = self.client.get_cookie("ruvak_sign_in")
        assert carried is not None
        self.assertEqual(self.post("/api/sign-out").status_code, 204)
        self.assertIsNone(self.client.get("/api/session").get_json()["role"])
        stolen = self.app.test_client()
        stolen.set_cookie("ruvak_sign_in", carried.value)
        self.assertEqual(stolen.get("/api/rigs").status_code, 401)

    def test_behind_https_cookies_are_for_this_host_and_https_alone(self) -> None:
        client = create_app(Settings(self.url, "test-secret", secure_cookies=True)).test_client()
        https = {"wsgi.url_scheme": "https"}
        token = client.get("/api/session", environ_overrides=https).get_json()["csrf_token"]
        answered = client.post(
            "/api/sign-in",
            json={"name": "Tom", "passphrase": PASSPHRASE},
            headers={"X-CSRF-Token": token, "Referer": "https://localhost/"},
            environ_overrides=https,
        )
        self.assertEqual(answered.status_code, 204, answered.get_data())
        (own,) = [
            cookie
            for cookie in answered.headers.getlist("Set-Cookie")
            if cookie.startswith("__Host-ruvak_sign_in=") and "Max-Age=0" not in cookie
        ]
        self.assertIn("Secure", own)
        self.assertNotIn("Strict-Transport-Security", answered.headers)

    def test_browsers_come_by_https_alone_where_the_name_and_the_certificate_are_known_outside(self) -> None:
        for authority, host, told in (
            (None, "booth.example", True),
            (None, "localhost", False),
            (Path("authority.crt"), "booth.example", False),
        ):
            settings = Settings(
                self.url, "s", secure_cookies=True, hosts=("booth.example", "localhost"), authority=authority
            )
            answered = create_app(settings).test_client().get("/api/health", headers={"Host": host})
            self.assertEqual("Strict-Transport-Security" in answered.headers, told, (authority, host))

    def test_many_wrong_passphrases_are_answered_with_the_time_to_wait(self) -> None:
        for _ in range(10):
            self.post("/api/sign-in", {"name": "Nobody", "passphrase": "x"})
        refused = self.post("/api/sign-in", {"name": "Nobody", "passphrase": "x"})
        self.assertEqual((refused.status_code, refused.get_json()["code"]), (429, "too_many_attempts"))
        self.assertGreater(int(refused.headers["Retry-After"]), 0)

    def test_signing_in_takes_the_token_of_this_browser(self) -> None:
        refused = self.client.post("/api/sign-in", json={"name": "Tom", "passphrase": PASSPHRASE})
        self.assertEqual((refused.status_code, refused.get_json()["code"]), (403, "csrf"))


class Owners(WebTest):
    def setUp(self) -> None:
        super().setUp()
        self.become(f"Owner {self.id()}", "owner")

    def put(self, path: str, body: object) -> int:
        return self.client.put(path, json=body, headers={"X-CSRF-Token": self.token}).status_code

    def delete(self, path: str) -> int:
        return self.client.delete(path, headers={"X-CSRF-Token": self.token}).status_code

    def person(self, name: str) -> dict[str, object]:
        return next(one for one in self.client.get("/api/people").get_json() if one["name"] == name)

    def test_somebody_new_chooses_a_passphrase_by_the_link_and_is_signed_in(self) -> None:
        made = self.post("/api/people", {"name": "Newcomer", "role": "helper"})
        self.assertEqual(made.status_code, 201)
        address = made.get_json()["address"]
        self.assertTrue(address.startswith("http://localhost/#/link/"), address)
        self.assertTrue(made.get_json()["qr"].startswith("data:image/svg+xml"))
        token = address.rpartition("/")[2]
        self.assertEqual(self.post("/api/people", {"name": "newcomer", "role": "owner"}).status_code, 409)
        owner, owners_token = self.client, self.token
        self.client = create_app(Settings(self.url, "test-secret")).test_client()
        self.token = self.client.get("/api/session").get_json()["csrf_token"]
        opened = self.post("/api/links/open", {"token": token}).get_json()
        self.assertEqual(opened, {"gives": "passphrase", "name": "Newcomer", "rig": None})
        weak = self.post("/api/links/passphrase", {"token": token, "passphrase": "password1234"})
        self.assertEqual((weak.status_code, weak.get_json()["code"]), (422, "weak_passphrase"))
        self.assertEqual(
            self.post("/api/links/passphrase", {"token": token, "passphrase": PASSPHRASE}).status_code, 204
        )
        found = self.client.get("/api/session").get_json()
        self.assertEqual((found["person_name"], found["role"]), ("Newcomer", "helper"))
        self.client, self.token = owner, owners_token
        self.assertEqual(self.person("Newcomer")["has_passphrase"], True)

    def test_people_are_renamed_given_another_role_signed_out_and_removed(self) -> None:
        self.post("/api/people", {"name": "Somebody", "role": "viewer"})
        somebody = self.person("Somebody")["id"]
        self.assertEqual(self.put(f"/api/people/{somebody}", {"name": "Somebody else", "role": "technician"}), 204)
        self.assertEqual(self.person("Somebody else")["role"], "technician")
        self.assertEqual(self.client.get(f"/api/people/{somebody}/sign-ins").get_json(), [])
        self.assertEqual(self.delete(f"/api/people/{somebody}/sign-ins/none"), 404)
        self.assertEqual(self.post(f"/api/people/{somebody}/passphrase-link").status_code, 201)
        self.assertEqual(self.delete(f"/api/people/{somebody}"), 204)
        self.assertEqual(self.delete(f"/api/people/{somebody}"), 404)

    def test_at_a_trusted_computer_names_are_picked(self) -> None:
        self.post("/api/people", {"name": "On duty", "role": "helper"})
        on_duty = self.person("On duty")["id"]
        self.assertEqual(self.post("/api/computers", {"name": "Booth"}).status_code, 204)
        self.post("/api/sign-out")
        self.app = create_app(Settings(self.url, "test-secret"))
        carried = self.client.get_cookie("ruvak_computer")
        assert carried is not None
        self.client = self.app.test_client()
        self.client.set_cookie("ruvak_computer", carried.value)
        found = self.client.get("/api/session").get_json()
        self.token = found["csrf_token"]
        self.assertEqual((found["role"], found["here"]["name"]), (None, "Booth"))
        self.assertIn("On duty", [one["name"] for one in found["here"]["on_duty"]])
        self.assertEqual(self.post("/api/sign-in/here", {"person_id": on_duty}).status_code, 204)
        self.assertEqual(self.client.get("/api/session").get_json()["role"], "helper")

    def test_nobody_picks_a_name_elsewhere(self) -> None:
        on_duty = self.person(f"Owner {self.id()}")["id"]
        self.assertEqual(self.post("/api/sign-in/here", {"person_id": on_duty}).status_code, 404)


class LinksOverHttp(WebTest):
    def opened(self, gives: Gives) -> FlaskClient:
        made = self.post(f"/api/rigs/{self.rig_id}/links", {"name": "Stage tablet", "gives": gives, "hours": 4})
        self.assertEqual(made.status_code, 201)
        token = made.get_json()["address"].rpartition("/")[2]
        self.client = create_app(Settings(self.url, "test-secret")).test_client()
        self.token = self.client.get("/api/session").get_json()["csrf_token"]
        opened = self.post("/api/links/open", {"token": token})
        self.assertEqual(opened.get_json(), {"gives": gives, "name": "Stage tablet", "rig": self.rig_id})
        self.token = self.client.get("/api/session").get_json()["csrf_token"]
        return self.client

    def test_a_link_shows_its_rig_and_no_other(self) -> None:
        other = self.post("/api/rigs", self.state()["rig"]).get_json()["rig"]["id"]
        client = self.opened("read")
        self.assertEqual([rig["id"] for rig in client.get("/api/rigs").get_json()], [self.rig_id])
        self.assertEqual(client.get(f"/api/rigs/{self.rig_id}").status_code, 200)
        self.assertEqual(client.get(f"/api/rigs/{other}").status_code, 403)
        self.assertEqual(client.get(f"/api/rigs/{other}/kit.csv").status_code, 403)
        self.assertEqual(self.edit(set_setting("mixer", "gain_db", 3).model_dump()).status_code, 403)

    def test_beside_its_rig_it_opens_what_belongs_to_no_rig_and_to_no_venue(self) -> None:
        client = self.opened("record")
        answered = set()
        for rule in self.app.url_map.iter_rules():
            if rule.rule.startswith("/api/") and "rig_id" not in rule.arguments and rule.endpoint not in rights.OPEN:
                path = rule.rule.replace("<part_id>", "pad-20").replace("<", "").replace(">", "")
                if "GET" in (rule.methods or ()) and client.get(path).status_code != 403:
                    answered.add(rule.endpoint)
        library = {"entry.list_contacts", "entry.list_formulas", "kit.list_parts", "kit.read_part"}
        self.assertEqual(answered, {*library, "me.list_sign_ins", "me.offer_codes", "rigs.list_rigs"})
        self.assertEqual(client.get("/api/me/sign-ins").get_json(), [])
        self.assertEqual(client.get(f"/api/rigs/{self.rig_id}/venue").get_json()["others"], [])

    def test_revoked_it_is_dead_with_the_next_request(self) -> None:
        desk, desk_token = self.client, self.token
        tablet = self.opened("read")
        self.assertEqual(tablet.get(f"/api/rigs/{self.rig_id}").status_code, 200)
        self.client, self.token = desk, desk_token
        (link,) = desk.get(f"/api/rigs/{self.rig_id}/links").get_json()
        self.assertEqual((link["browsers"], link["made_by"], link["gives"]), (1, "Demo technician", "read"))
        gone = desk.delete(f"/api/rigs/{self.rig_id}/links/{link['id']}", headers={"X-CSRF-Token": desk_token})
        self.assertEqual(gone.status_code, 204)
        self.assertEqual(tablet.get(f"/api/rigs/{self.rig_id}").status_code, 401)

    def test_a_link_leads_to_where_phones_reach_the_server(self) -> None:
        for address, start in (
            (None, "http://localhost/#/link/"),
            ("https://10.0.0.9:8140/", "https://10.0.0.9:8140/#/link/"),
        ):
            self.client = create_app(Settings(self.url, "test-secret", demo=True, address=address)).test_client()
            self.token = self.client.get("/api/session").get_json()["csrf_token"]
            made = self.post(f"/api/rigs/{self.rig_id}/links", {"name": "Tablet", "gives": "read", "hours": 4})
            self.assertTrue(made.get_json()["address"].startswith(start))

    def test_a_link_that_is_none_is_refused_in_words(self) -> None:
        refused = self.post("/api/links/open", {"token": "x" * 43})
        self.assertEqual((refused.status_code, refused.get_json()["code"]), (404, "not_found"))


class AsBuilt(WebTest):
    """What a helper records, and what a technician makes of it."""

    def setUp(self) -> None:
        super().setUp()
        self.desk, self.desk_token = self.client, self.token
        self.become(f"Helper {self.id()}", "helper")

    def history(self) -> list[dict[str, object]]:
        found: list[dict[str, object]] = self.client.get(f"/api/rigs/{self.rig_id}/history").get_json()
        return found

    def record(self) -> int:
        """A run's lead unplugged, as built; the number of the edit."""
        run = self.state()["rig"]["runs"][0]
        joins = run["joins"][:-1]
        saved = self.edit(SetField(kind="runs", id=run["id"], field="joins", value=joins).model_dump(mode="json"))
        self.assertEqual(saved.status_code, 200, saved.get_data())
        first = self.history()[0]
        self.assertEqual(first["as_built"], "open")
        return int(str(first["id"]))

    def test_a_helper_cannot_change_the_plan_otherwise(self) -> None:
        lead = self.thing("kit", "lead-31")
        for op in (
            SetField(kind="kit", id="lead-31", field="length_m", value=20),
            SetField(kind="rig", field="name", value="Mine"),
            PutThing(kind="kit", thing=lead),
        ):
            refused = self.edit(op.model_dump(mode="json"))
            self.assertEqual((refused.status_code, refused.get_json()["code"]), (403, "not_allowed"))
        self.assertEqual(self.history(), [])

    def test_a_technician_keeps_it_once(self) -> None:
        edit = self.record()
        self.assertEqual(self.post(f"/api/rigs/{self.rig_id}/history/{edit}/keep").status_code, 403)
        self.client, self.token = self.desk, self.desk_token
        self.assertEqual(self.post(f"/api/rigs/{self.rig_id}/history/{edit}/keep").status_code, 204)
        self.assertEqual(self.history()[0]["as_built"], "kept")
        self.assertEqual(self.post(f"/api/rigs/{self.rig_id}/history/{edit}/keep").status_code, 404)
        self.assertEqual(self.post(f"/api/rigs/{self.rig_id}/history/{edit}/restore").status_code, 404)

    def test_or_restores_the_plan_which_the_helper_does_not_redo(self) -> None:
        before = self.state()["rig"]
        edit = self.record()
        helper, helper_token = self.client, self.token
        self.client, self.token = self.desk, self.desk_token
        self.assertEqual(self.post(f"/api/rigs/{self.rig_id}/history/{edit}/restore").status_code, 200)
        self.assertEqual(self.state()["rig"], before)
        states = {one["id"]: one["as_built"] for one in self.history()}
        self.assertEqual(states[edit], "restored")
        self.client, self.token = helper, helper_token
        self.assertEqual(self.post(f"/api/rigs/{self.rig_id}/redo", {}).status_code, 409)

    def test_what_the_helper_took_back_is_not_open_any_longer(self) -> None:
        edit = self.record()
        self.assertEqual(self.post(f"/api/rigs/{self.rig_id}/undo", {}).status_code, 200)
        self.assertEqual({one["as_built"] for one in self.history()}, {None})
        self.client, self.token = self.desk, self.desk_token
        self.assertEqual(self.post(f"/api/rigs/{self.rig_id}/history/{edit}/keep").status_code, 404)

    def test_a_technicians_own_edit_is_the_plan(self) -> None:
        self.client, self.token = self.desk, self.desk_token
        run = self.state()["rig"]["runs"][0]
        self.edit(SetField(kind="runs", id=run["id"], field="joins", value=run["joins"][:-1]).model_dump(mode="json"))
        self.assertIsNone(self.history()[0]["as_built"])
