"""What a request may ask for and what every answer carries: hosts, methods, caching, files, limits."""

import json
from io import BytesIO

from alembic import command

from ruvak.core.entry.reader import MOST_LINES
from ruvak.core.kit.lines import MOST_LINES as MOST_KIT_LINES
from ruvak.formats.input_list import MOST_ROWS
from ruvak.store.database import migrations
from ruvak.web.app import create_app
from ruvak.web.settings import Settings
from tests.support.database import new_database
from tests.support.web import WebTest


class Hosts(WebTest):
    def test_a_name_that_is_not_this_servers_is_refused(self) -> None:
        """Else a page elsewhere whose name is made to point here could read and delete rigs."""
        for method in (self.client.get, self.client.post, self.client.delete):
            refused = method(f"/api/rigs/{self.rig_id}", headers={"Host": "elsewhere.example"})
            self.assertEqual((refused.status_code, refused.get_json()["code"]), (400, "unknown_host"))
        self.assertEqual(self.client.get("/", headers={"Host": "elsewhere.example"}).status_code, 400)

    def test_loopback_and_the_names_in_the_settings_are_answered(self) -> None:
        for host in ("127.0.0.1:8140", "localhost:8140"):
            self.assertEqual(self.client.get("/api/health", headers={"Host": host}).status_code, 200, host)
        own = create_app(Settings(self.url, "test-secret", hosts=("booth.example",))).test_client()
        self.assertEqual(own.get("/api/health", headers={"Host": "booth.example"}).status_code, 200)
        self.assertEqual(own.get("/api/health", headers={"Host": "127.0.0.1"}).status_code, 400)


class Readiness(WebTest):
    def test_a_database_of_another_version_is_not_ready_though_the_application_answers(self) -> None:
        self.assertEqual(self.client.get("/api/ready").status_code, 200)
        old = new_database()
        command.upgrade(migrations(old), "0008")
        client = create_app(Settings(old, "test-secret")).test_client()
        answered = client.get("/api/ready")
        self.assertEqual((answered.status_code, answered.get_json()["code"]), (503, "not_migrated"))
        self.assertEqual(client.get("/api/health").status_code, 200)


class Headers(WebTest):
    def test_answers_of_the_api_are_kept_by_nobody_but_where_they_have_a_tag(self) -> None:
        self.assertEqual(self.client.get("/api/rigs").headers["Cache-Control"], "no-store")
        self.assertEqual(self.client.get(f"/api/rigs/{self.rig_id}/version").headers["Cache-Control"], "no-cache")

    def test_a_method_that_an_address_does_not_take_is_told_which_it_takes(self) -> None:
        refused = self.client.delete("/api/rigs")
        self.assertEqual((refused.status_code, refused.headers["Allow"]), (405, "GET, HEAD, OPTIONS, POST"))

    def test_the_page_itself_may_use_camera_and_microphone_and_show_what_they_take(self) -> None:
        headers = self.client.get("/api/health").headers
        self.assertEqual(headers["Permissions-Policy"], "camera=(self), microphone=(self), geolocation=()")
        self.assertIn("img-src 'self' data: blob:", headers["Content-Security-Policy"])


class Stopping(BytesIO):
    """A body of which the rest never comes, as the server gives it: reading it ends at the time limit."""

    asked = 0

    def read(self, *_: object) -> bytes:
        self.asked += 1
        raise BlockingIOError


class HalfSent(WebTest):
    def test_a_body_that_stops_coming_is_waited_for_once_and_answered(self) -> None:
        body = Stopping(b"{" + b" " * 999)
        answered = self.client.post(
            "/api/rigs", input_stream=body, content_type="application/json",
            headers={"X-CSRF-Token": self.token},
        )  # fmt: skip
        self.assertEqual((answered.status_code, answered.get_json()["code"]), (408, "request_timeout"))
        self.assertEqual(body.asked, 1)


class Files(WebTest):
    def test_what_is_not_there_is_not_found(self) -> None:
        for path in (
            "/nothing.js",
            "/deep/below/nothing",
            f"/{'a' * 300}",
            "/a\x00b",
            "/../../setup.py",
            "/assets/none.js",
        ):
            self.assertEqual(self.client.get(path).status_code, 404, path)

    def test_a_file_whose_name_stays_is_asked_for_again_each_time(self) -> None:
        with self.client.get("/index.html") as got:
            self.assertIn("no-cache", got.headers["Cache-Control"])


class Names(WebTest):
    def test_letters_that_nobody_sees_are_left_out_of_names(self) -> None:
        named = self.edit(
            {"op": "set", "kind": "gear", "id": "laptop", "field": "name", "value": "Lap\u200btop\u202e 1"}
        )
        self.assertEqual(named.status_code, 200)
        self.assertEqual(self.thing("gear", "laptop")["name"], "Laptop 1")
        only = self.edit({"op": "set", "kind": "gear", "id": "laptop", "field": "name", "value": "\u200b\u2066"})
        self.assertEqual(only.status_code, 422)
        self.assertEqual(self.thing("gear", "laptop")["name"], "Laptop 1")


class Limits(WebTest):
    """Nothing is cut silently: what is too much is named."""

    def test_typed_lines(self) -> None:
        text = "\n".join(f"nothing {number}" for number in range(MOST_LINES + 30))
        readings = self.post(f"/api/rigs/{self.rig_id}/lines", {"text": text}).get_json()["readings"]
        self.assertEqual((len(readings), readings[-1]["line"]), (MOST_LINES + 1, f"nothing {MOST_LINES}"))
        self.assertIn("30 more lines", readings[-1]["problems"][0]["sentence"])

    def test_input_lists(self) -> None:
        csv = "channel,who\n" + "\n".join(f"{number},Choir" for number in range(1, MOST_ROWS + 2))
        refused = self.post(f"/api/rigs/{self.rig_id}/input-list", {"csv": csv})
        self.assertEqual((refused.status_code, refused.get_json()["faults"][0]["where"]), (422, f"row {MOST_ROWS + 2}"))

    def test_kit_lines(self) -> None:
        text = "\n".join(f"Q{number}: XLR lead 5 m" for number in range(1, MOST_KIT_LINES + 4))
        lines = self.post(f"/api/rigs/{self.rig_id}/kit-lines", {"text": text[:20_000]}).get_json()["lines"]
        self.assertEqual(len(lines), MOST_KIT_LINES + 1)
        self.assertIn("more lines", lines[-1]["problem"])

    def test_a_quotation_mark_that_is_never_closed(self) -> None:
        for path, text in (("input-list", 'channel,who\n1,"Vocal'), ("kit-list", 'tag,what\nQ1,"XLR lead')):
            refused = self.post(f"/api/rigs/{self.rig_id}/{path}", {"csv": text})
            self.assertEqual((refused.status_code, refused.get_json()["faults"][0]["code"]), (422, "open_quote"))

    def test_odd_and_endless_input_ends_in_an_answer(self) -> None:
        nines = "9" * 5000
        for line in (
            f"{'a' * 130} mic > desk 3",
            "vocal 3 > desk \N{SUPERSCRIPT TWO}",
            f"vocal > desk {nines}",
            "a\x00b > desk 3",
        ):
            answered = self.post(f"/api/rigs/{self.rig_id}/lines", {"text": line})
            self.assertIn(answered.status_code, (200, 422), line[:40])
        op = {"op": "set", "kind": "kit", "id": "lead-31", "field": "length_m", "value": 0}
        body = json.dumps({"base_version": "0.0", "edit": {"label": "x", "ops": [op]}}).replace(": 0}", f": {nines}}}")
        self.assertIn(self.post(f"/api/rigs/{self.rig_id}/edits", data=body.encode()).status_code, (400, 422))

    def test_a_chain_of_two_thousand_boards_ends_in_an_answer(self) -> None:
        rig = self.state()["rig"]
        chain = [
            {
                "id": f"b{number}",
                "name": f"Board {number}",
                "kind": "board",
                "parent": f"b{number - 1}" if number else None,
            }
            for number in range(2000)
        ]
        rig["venue"]["earth"] = chain
        answered = self.client.post(
            "/api/rigs", input_stream=BytesIO(json.dumps(rig).encode()), content_type="application/json",
            headers={"X-CSRF-Token": self.token},
        )  # fmt: skip
        self.assertEqual((answered.status_code, answered.get_json()["faults"][0]["code"]), (422, "earth_depth"))
