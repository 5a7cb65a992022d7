"""The API: what it answers, what it refuses and how, and that refusals change nothing."""

import contextlib
import io
import json
import logging
import subprocess
import sys
import zipfile
from pathlib import Path
from typing import Any

from ruvak.web.settings import MAX_BODY_BYTES
from tests.support.rigs import demo_rig
from tests.support.rigs import document as rig_document
from tests.support.web import WebTest

LENGTH = {"op": "set", "kind": "kit", "id": "lead-31", "field": "length_m", "value": 20}


class BlockSolution(WebTest):
    def test_connections_are_ranked(self) -> None:
        got = self.analysis("connections")
        self.assertEqual(got.status_code, 200)
        self.assertIsInstance(got.get_json(), list)

    def test_netlists_come_as_an_archive(self) -> None:
        got = self.client.get(f"/api/rigs/{self.rig_id}/netlists")
        self.assertEqual((got.status_code, got.content_type), (200, "application/zip"))
        with zipfile.ZipFile(io.BytesIO(got.data)) as archive:
            texts = [archive.read(name).decode("ascii") for name in archive.namelist()]
        self.assertTrue(all(text.startswith("* Lantern Evening") and text.endswith(".end\n") for text in texts))
        self.assertEqual(self.client.get("/api/rigs/ghost/netlists").status_code, 404)

    def test_a_rig_has_an_analysis(self) -> None:
        self.assertEqual(self.analysis("overview").get_json()["verdict"]["stop"], 1)
        self.assertEqual(self.codes("slides")[0], "centre_cancels")

    def test_edit_undo_redo(self) -> None:
        outcome = self.edit(LENGTH).get_json()
        self.assertEqual((outcome["base"], outcome["version"]), ("0.0", "1.0"))
        self.assertEqual([one["thing"]["length_m"] for one in outcome["changed"]], [20])
        undone = self.post(f"/api/rigs/{self.rig_id}/undo", {}).get_json()
        self.assertEqual(undone["changed"][0]["thing"]["length_m"], 15)
        self.assertEqual(undone["redo_label"], "test")
        self.assertEqual(self.thing("kit", "lead-31")["length_m"], 15)
        redone = self.post(f"/api/rigs/{self.rig_id}/redo", {"id": "redo-once"}).get_json()
        self.assertEqual(redone["changed"][0]["thing"]["length_m"], 20)
        self.assertEqual(self.post(f"/api/rigs/{self.rig_id}/redo", {"id": "redo-once"}).status_code, 200)

    def test_a_copy_has_everything_but_the_history(self) -> None:
        self.edit(LENGTH)
        made = self.post(f"/api/rigs/{self.rig_id}/copies", {"name": "Second Evening", "occasion": "Sunday"})
        self.assertEqual(made.status_code, 201)
        copy, old = made.get_json(), self.state()
        said = {"id": copy["rig"]["id"], "name": "Second Evening", "occasion": "Sunday"}
        self.assertEqual(copy["rig"], {**old["rig"], **said})
        self.assertNotEqual(copy["rig"]["id"], self.rig_id)
        self.assertEqual((copy["version"], copy["undo_label"]), ("0.0", None))
        self.post(
            f"/api/rigs/{said['id']}/edits",
            {"base_version": "0.0", "edit": {"label": "x", "ops": [{**LENGTH, "value": 3}]}},
        )
        self.assertEqual(self.state()["rig"]["kit"][4]["length_m"], 20)
        self.assertEqual(self.client.get("/api/rigs").get_json()[0]["id"], said["id"])

    def test_a_copy_of_nothing_or_without_a_name_is_refused(self) -> None:
        before = self.client.get("/api/rigs").get_json()
        self.assertEqual(self.post("/api/rigs/ghost/copies", {"name": "x"}).status_code, 404)
        refused = self.post(f"/api/rigs/{self.rig_id}/copies", {"name": ""})
        self.assertEqual((refused.status_code, refused.get_json()["faults"][0]["where"]), (422, "name"))
        self.assertEqual(self.client.get("/api/rigs").get_json(), before)

    def test_a_preview_saves_nothing(self) -> None:
        flip = {"op": "set", "kind": "gear", "id": "laptop", "field": "settings", "key": "mono", "value": True}
        body = {"edit": {"label": "x", "ops": [flip]}}
        preview = self.post(f"/api/rigs/{self.rig_id}/preview", body).get_json()
        self.assertEqual(preview["analysis"]["runs"][0]["findings"][0]["code"], "silent")
        self.assertEqual(self.version(), "0.0")

    def test_remedies(self) -> None:
        remedies = self.client.get(f"/api/rigs/{self.rig_id}/runs/slides/remedies").get_json()
        self.assertTrue(remedies[0]["helps"])
        self.assertFalse(remedies[-1]["helps"])
        first = self.client.get(f"/api/rigs/{self.rig_id}/runs/slides/remedies?first=true").get_json()
        self.assertEqual([one["id"] in {other["id"] for other in remedies} for one in first], [True])

    def test_the_file_goes_out_and_comes_in_again(self) -> None:
        answer = self.client.get(f"/api/rigs/{self.rig_id}/file")
        self.assertIn("attachment", answer.headers["Content-Disposition"])
        again = self.post("/api/rigs", data=answer.get_data()).get_json()["rig"]
        self.assertEqual({**again, "id": ""}, {**self.state()["rig"], "id": ""})

    def test_a_person_can_have_a_name(self) -> None:
        self.become("Somebody new")
        put = self.client.put("/api/me/name", json={"name": "Desk two"}, headers={"X-CSRF-Token": self.token})
        self.assertEqual(put.status_code, 204)
        self.edit(LENGTH)
        history = self.client.get(f"/api/rigs/{self.rig_id}/history").get_json()
        self.assertEqual((history[0]["person"], history[0]["own"]), ("Desk two", True))

    def test_a_change_shows_its_runs_before_and_after(self) -> None:
        self.edit(LENGTH)
        self.edit({**LENGTH, "value": 3})
        address = f"/api/rigs/{self.rig_id}/history"
        newest, older = (line["id"] for line in self.client.get(address).get_json())

        def lengths(line: int) -> list[float]:
            (change,) = self.client.get(f"{address}/{line}/runs").get_json()
            self.assertEqual(change["run"], "slides")
            return [
                piece["length_m"]
                for side in (change["before"], change["after"])
                for piece in side["drawing"]["pieces"]
                if piece["owner"] == "lead-31"
            ]

        self.assertEqual((lengths(older), lengths(newest)), ([15, 20], [20, 3]))
        self.post(f"/api/rigs/{self.rig_id}/undo", {})
        undone = self.client.get(address).get_json()[0]["id"]
        self.assertEqual((lengths(undone), lengths(older)), ([3, 20], [15, 20]))
        for nothing, status in ((older - 1_000, 422), (newest + 1_000, 404), (0, 422), (10**30, 422)):
            self.assertEqual(self.client.get(f"{address}/{nothing}/runs").status_code, status)

    def test_health_and_the_request_id(self) -> None:
        answer = self.client.get("/api/health")
        self.assertEqual(answer.get_json()["status"], "ok")
        self.assertRegex(answer.headers["X-Request-Id"], "^[0-9a-f]{16}$")

    def test_deleting(self) -> None:
        self.assertEqual(self.client.delete(f"/api/rigs/{self.rig_id}").status_code, 403)
        gone = self.client.delete(f"/api/rigs/{self.rig_id}", headers={"X-CSRF-Token": self.token})
        self.assertEqual(gone.status_code, 204)
        self.assertEqual(self.client.get(f"/api/rigs/{self.rig_id}").status_code, 404)


class Refusals(WebTest):
    def refused(self, answer: Any, status: int, code: str) -> dict[str, Any]:
        problem: dict[str, Any] = answer.get_json()
        self.assertEqual((answer.status_code, problem["code"]), (status, code), problem)
        self.assertTrue(problem["message"].endswith("."), problem["message"])
        self.assertNotIn("Traceback", problem["message"])
        return problem

    def tearDown(self) -> None:
        self.assertEqual(self.state()["rig"], {**demo_rig().model_dump(mode="json"), "id": self.rig_id})
        self.assertEqual(self.version(), "0.0")

    def test_bad_edits_name_the_field(self) -> None:
        for op, where in (
            ({**LENGTH, "value": -3}, "value"),
            ({**LENGTH, "value": 1e12}, "value"),
            ({**LENGTH, "value": "20"}, "value"),
            ({**LENGTH, "value": True}, "value"),
            ({**LENGTH, "field": "colour"}, "field"),
            ({**LENGTH, "id": "ghost"}, "id"),
        ):
            problem = self.refused(self.edit(op), 422, "bad_edit")
            self.assertEqual(problem["faults"][0]["where"], where)
        laptop = {"op": "set", "kind": "gear", "id": "laptop", "field": "settings"}
        for key, value in (("volume", 40), ("bass", 0)):
            problem = self.refused(self.edit({**laptop, "key": key, "value": value}), 422, "bad_rig")
            self.assertEqual(problem["faults"][0]["where"], f"gear[0].settings.{key}")

    def test_edits_that_would_spoil_the_rig(self) -> None:
        run = demo_rig().runs[0].model_dump(mode="json")
        for thing, code in (
            ({**run, "id": "two", "joins": []}, "lead_used_twice"),
            ({**run, "pieces": ["ghost"], "joins": []}, "unknown_piece"),
            ({**run, "joins": [{"a": "laptop.phones", "b": "lead-31.in"}]}, "does_not_fit"),
        ):
            problem = self.refused(self.edit({"op": "put", "kind": "runs", "thing": thing}), 422, "bad_rig")
            self.assertIn(code, [fault["code"] for fault in problem["faults"]])

    def test_bodies_of_the_wrong_shape(self) -> None:
        self.refused(self.edit({"op": "sing"}), 422, "bad_request")
        self.refused(self.edit({**LENGTH, "kind": "furniture"}), 422, "bad_request")
        self.refused(self.edit(LENGTH, base_version="-1"), 422, "bad_request")
        self.refused(self.post(f"/api/rigs/{self.rig_id}/edits", data=b"{"), 400, "broken_json")
        self.refused(self.post(f"/api/rigs/{self.rig_id}/edits", data=b"[" * 50_000), 400, "broken_json")
        self.refused(self.post(f"/api/rigs/{self.rig_id}/edits", data=b"\xff\x00"), 400, "broken_json")

    def test_what_was_sent_is_not_echoed(self) -> None:
        answer = self.edit({"op": "set_length", "item": "lead-31", "length_m": "s3cret-words"})
        self.assertNotIn("s3cret", answer.get_data(as_text=True))

    def test_bad_rig_files(self) -> None:
        for given, code in (
            (rig_document(gear=[{"id": "a", "name": "A", "part": "no-such-part"}], runs=[]), "unknown_part"),
            (
                rig_document(kit=[{"id": "l", "tag": "L", "part": "mic-lead", "length_m": -1}]),
                "field_greater_than_equal",
            ),
            ({"format": "something else"}, "not_a_rig"),
        ):
            problem = self.refused(self.post("/api/rigs", given), 422, "bad_rig")
            self.assertIn(code, [fault["code"] for fault in problem["faults"]])

    def test_fifty_megabytes(self) -> None:
        self.refused(self.post("/api/rigs", data=b" " * 50_000_000), 413, "too_large")
        self.assertLess(MAX_BODY_BYTES, 50_000_000)

    def test_control_characters_in_names(self) -> None:
        problem = self.post("/api/rigs", rig_document(name="Nul\u0000name"))
        self.refused(problem, 422, "bad_rig")

    def test_without_the_token_nothing_changes(self) -> None:
        body = {"base_version": "0.0", "edit": {"label": "x", "ops": [LENGTH]}}
        self.refused(self.client.post(f"/api/rigs/{self.rig_id}/edits", json=body), 403, "csrf")

    def test_addresses_that_are_not_there(self) -> None:
        self.refused(self.client.get("/api/nothing"), 404, "not_found")
        self.refused(self.client.get("/api/rigs/nothing"), 404, "not_found")
        self.refused(self.client.get(f"/api/rigs/{self.rig_id}/runs/nothing/remedies"), 404, "not_found")
        self.refused(self.client.get("/api/rigs/Not%20An%20Id"), 422, "bad_request")
        self.refused(self.client.patch("/api/rigs"), 405, "method_not_allowed")

    def test_nothing_to_undo(self) -> None:
        self.refused(self.post(f"/api/rigs/{self.rig_id}/undo", {}), 409, "nothing_to_undo")

    def test_a_database_that_is_gone(self) -> None:
        from ruvak.web.app import create_app
        from ruvak.web.settings import Settings

        client = create_app(Settings("postgresql+psycopg://x:y@127.0.0.1:9/none", "s", demo=True)).test_client()
        with self.assertLogs("ruvak.web", level="ERROR"):
            self.refused(client.get("/api/rigs"), 503, "database_down")
        with self.assertLogs("ruvak.web", level="ERROR"):
            self.assertEqual(client.get("/api/health").status_code, 200)
            self.assertEqual(client.get("/api/ready").status_code, 503)


class Conflicts(WebTest):
    def test_the_second_of_two_is_told_the_version_it_met(self) -> None:
        self.edit(LENGTH, base_version="0.0")
        self.become("Another technician")
        answer = self.edit({**LENGTH, "value": 30}, base_version="0.0")
        self.assertEqual(answer.status_code, 409)
        self.assertEqual(answer.get_json()["current_version"], "1.0")
        (meeting,) = answer.get_json()["meetings"]
        self.assertEqual((meeting["kind"], meeting["id"], meeting["field"]), ("kit", "lead-31", "length_m"))
        self.assertEqual((meeting["yours"], meeting["theirs"]), (30, 20))
        self.assertEqual(self.state()["rig"]["kit"][4]["length_m"], 20)


class Safety(WebTest):
    def test_every_answer_carries_the_headers(self) -> None:
        for path in ("/", "/api/rigs", "/api/nothing"):
            headers = self.client.get(path).headers
            policy = headers["Content-Security-Policy"]
            self.assertIn("script-src 'self';", policy)
            self.assertNotIn("unsafe-inline", policy)
            self.assertEqual(headers["X-Content-Type-Options"], "nosniff")
            self.assertEqual(headers["X-Frame-Options"], "DENY")

    def test_files_outside_the_interface_are_not_served(self) -> None:
        for path in ("/../settings.py", "/assets/../../app.py", "/%2e%2e/app.py"):
            self.assertNotIn(b"create_app", self.client.get(path).get_data())

    def test_no_debug_mode_and_careful_cookies(self) -> None:
        self.assertFalse(self.app.debug)
        cookie = self.app.test_client().get("/api/session").headers.get("Set-Cookie", "")
        self.assertIn("HttpOnly", cookie)
        self.assertIn("SameSite=Lax", cookie)


class Logs(WebTest):
    def test_each_request_is_one_json_line_with_its_id(self) -> None:
        from ruvak.web import logs

        logger = logging.getLogger("ruvak")
        before = (logger.handlers[:], logger.propagate)
        try:
            with contextlib.redirect_stderr(io.StringIO()) as said:
                logs.configure()
                answer = self.client.get("/api/nothing")
        finally:
            logger.handlers[:], logger.propagate = before
        line = json.loads(said.getvalue().splitlines()[-1])
        self.assertEqual(line["request_id"], answer.headers["X-Request-Id"])
        self.assertEqual(line["request_id"], answer.get_json()["request_id"])
        self.assertEqual((line["method"], line["path"], line["status"]), ("GET", "/api/nothing", 404))


class Description(WebTest):
    def test_the_committed_document_is_current(self) -> None:
        committed = json.loads(Path("docs/formats/openapi.json").read_text(encoding="utf-8"))
        command = [sys.executable, "-m", "ruvak.cli.main", "openapi"]
        made = subprocess.run(command, check=True, capture_output=True, text=True)
        self.assertEqual(committed, json.loads(made.stdout))
        self.assertEqual(committed, self.client.get("/api/openapi.json").get_json())

    def test_the_interface_types_are_current(self) -> None:
        command = ["npx", "--no-install", "openapi-typescript", "../docs/formats/openapi.json"]
        made = subprocess.run(command, cwd="frontend", check=True, capture_output=True, text=True)
        self.assertEqual(made.stdout, Path("frontend/src/lib/api/schema.d.ts").read_text(encoding="utf-8"))
