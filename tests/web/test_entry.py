"""Entering runs over HTTP: lines, input lists, other pieces; all of it proposes, none of it saves."""

from typing import Any

from ruvak.core.rig.files import rig_to_json
from tests.support.rigs import demo_rig
from tests.support.web import WebTest

LIST = "ch,instrument,mic,stand,48V\n1,Kick,dynamic,short,\n2,Choir left,condenser,tall,yes\n"


class Lines(WebTest):
    def read(self, text: str) -> dict[str, Any]:
        got: dict[str, Any] = self.post(f"/api/rigs/{self.rig_id}/lines", {"text": text}).get_json()
        return got

    def test_a_line_is_read_with_legs_a_verdict_and_an_edit(self) -> None:
        got = self.read("lectern > desk 4, 10 m")
        run = got["readings"][0]["runs"][0]
        self.assertEqual((run["grade"], run["goals"]), ("clear", ["desk.mic4"]))
        self.assertEqual(self.version(), "0.0")
        saved = self.save(got["edit"])
        self.assertEqual(saved.status_code, 200, saved.get_json())
        self.assertEqual([one["run"] for one in self.analysis("overview").get_json()["runs"]], ["slides", "lectern"])
        self.post(f"/api/rigs/{self.rig_id}/undo", {})
        self.assertEqual(len(self.state()["rig"]["runs"]), 1)

    def test_half_a_line_has_a_problem_and_ways_to_go_on(self) -> None:
        got = self.read("Lectern")
        self.assertEqual(got["readings"][0]["problems"][0]["code"], "no_arrow")
        self.assertIn("Lectern > ", got["completions"])
        self.assertIsNone(got["edit"])
        self.assertEqual(self.read("")["readings"], [])

    def test_many_lines_make_one_edit_that_one_undo_takes_back(self) -> None:
        got = self.read("lectern > desk 4\nrubbish\nchoir 1-2 > desk 1-2")
        self.assertEqual([len(one["runs"]) for one in got["readings"]], [1, 0, 2])
        self.assertEqual(got["edit"]["label"], "Add 3 runs")
        self.save(got["edit"])
        self.assertEqual(len(self.state()["rig"]["runs"]), 4)
        self.post(f"/api/rigs/{self.rig_id}/undo", {})
        self.assertEqual(len(self.state()["rig"]["runs"]), 1)

    def test_contacts_of_every_form_a_part_may_have(self) -> None:
        contacts = self.client.get("/api/contacts").get_json()
        self.assertEqual(contacts["trs35-plug"], ["T", "R", "S"])
        used = {one["form"] for part in self.state()["rig"]["parts"] for one in part["connectors"]}
        self.assertLessEqual(used, set(contacts))

    def test_an_input_list(self) -> None:
        got = self.post(f"/api/rigs/{self.rig_id}/input-list", {"csv": LIST}).get_json()
        self.assertEqual([one["runs"][0]["goals"] for one in got["readings"]], [["desk.mic1"], ["desk.mic2"]])

    def test_a_clamp_reading_proposes_an_earth_voltage_or_says_why_not(self) -> None:
        body = {"item": "m1", "reading_a": 0.05}
        refused = self.post(f"/api/rigs/{self.rig_id}/screen-current", body)
        self.assertEqual((refused.status_code, refused.get_json()["code"]), (422, "bad_edit"))
        self.assertTrue(refused.get_json()["message"])
        self.assertEqual(self.post(f"/api/rigs/{self.rig_id}/screen-current", {"item": "m1"}).status_code, 422)
        concert = self.post("/api/rigs", data=rig_to_json(demo_rig("midwinter-concert")).encode()).get_json()["rig"][
            "id"
        ]
        got = self.post(f"/api/rigs/{concert}/screen-current", {"item": "r3", "reading_a": 0.02}).get_json()
        self.assertEqual([op["op"] for op in got["edit"]["ops"]], ["set"], got)
        self.assertEqual(len(got["analysis"]["runs"]), 31)

    def test_refusals(self) -> None:
        bad = self.post(f"/api/rigs/{self.rig_id}/input-list", {"csv": "a,b\n1,2\n"})
        self.assertEqual((bad.status_code, bad.get_json()["code"]), (422, "bad_input_list"))
        self.assertTrue(bad.get_json()["faults"][0]["sentence"])
        self.assertEqual(self.post("/api/rigs/ghost/lines", {"text": "a > b"}).status_code, 404)
        self.assertEqual(self.post(f"/api/rigs/{self.rig_id}/lines", {"text": "x" * 30_000}).status_code, 422)
        self.assertEqual(self.post(f"/api/rigs/{self.rig_id}/lines", {"text": 3}).status_code, 422)


class Legs(WebTest):
    def rewired(self, pieces: list[dict[str, Any]]) -> Any:
        return self.post(f"/api/rigs/{self.rig_id}/runs/slides/pieces", {"pieces": pieces})

    def test_another_adapter_is_solved_before_it_is_made(self) -> None:
        kit = {item["id"]: item for item in self.state()["rig"]["kit"]}
        got = self.rewired([kit["adapter-7"], kit["lead-31"]]).get_json()
        self.assertEqual(got["gaps"], [])
        self.assertEqual(got["preview"]["analysis"]["runs"][0]["findings"][0]["code"], "clear")
        self.assertEqual(got["preview"]["edit"]["label"], "Slides: A7 in place of A4")
        self.assertEqual(self.version(), "0.0")

    def test_a_gap_is_said_and_can_still_be_kept(self) -> None:
        kit = {item["id"]: item for item in self.state()["rig"]["kit"]}
        got = self.rewired([kit["lead-31"]]).get_json()
        self.assertEqual(len(got["gaps"]), 1)
        self.save(got["preview"]["edit"])
        self.assertEqual(self.codes("slides")[0], "not_connected")

    def test_what_is_not_owned_is_added_to_the_kit(self) -> None:
        choices = self.client.get(f"/api/rigs/{self.rig_id}/runs/slides/choices?at=1").get_json()
        pad = next(one for one in choices if one["part"] == "pad-20")
        self.assertEqual((pad["fits"], pad["in_kit"]), (True, False))
        kit = {item["id"]: item for item in self.state()["rig"]["kit"]}
        new = {"id": pad["item"], "tag": pad["tag"], "part": "pad-20", "owned": False}
        got = self.rewired([kit["adapter-4"], new, kit["lead-31"]]).get_json()
        self.assertEqual([op["op"] for op in got["preview"]["edit"]["ops"]], ["put", "put", "set", "set"])
        self.assertEqual(got["preview"]["edit"]["label"], "Slides: insert pad 1")

    def test_refusals(self) -> None:
        ghost = {"id": "ghost", "tag": "G", "part": "no-such-part", "owned": False}
        for pieces, status in (([ghost], 422), ([{"id": "lead-31"}], 422)):
            self.assertEqual(self.rewired(pieces).status_code, status)
        self.assertEqual(self.client.get(f"/api/rigs/{self.rig_id}/runs/slides/choices?at=9").status_code, 422)
        self.assertEqual(self.client.get(f"/api/rigs/{self.rig_id}/runs/ghost/choices?at=0").status_code, 404)


class Visitors(WebTest):
    def test_looking_gives_no_cookie_so_that_answers_cannot_cross(self) -> None:
        fresh = self.app.test_client()
        for address in (f"/api/rigs/{self.rig_id}", "/api/rigs", f"/api/rigs/{self.rig_id}/history"):
            self.assertNotIn("Set-Cookie", fresh.get(address).headers)
        self.assertIn("Set-Cookie", fresh.get("/api/session").headers)
