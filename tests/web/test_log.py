"""The log over HTTP: entries of several devices, corrections, the next week, and everything as lines and as CSV."""

import csv
import io
import uuid
from typing import Any

from sqlalchemy import text
from sqlalchemy.exc import DBAPIError
from werkzeug.test import TestResponse

from tests.support.rigs import demo_rig
from tests.support.web import WebTest

AT = "2026-11-29T16:{:02d}:00+01:00"


class LogTest(WebTest):
    """A rig whose log begins empty: the log is never emptied, so each test has a rig of its own."""

    def setUp(self) -> None:
        super().setUp()
        # Rigs of the same name come and go; ids of entries are never given twice.
        self.own = uuid.uuid4().hex

    def entry(self, name: str, minute: int = 0, **more: Any) -> dict[str, Any]:
        base = {"id": f"{self.own}-{name}", "at": AT.format(minute), "kind": "check"}
        return base | {"run": "slides", "answer": "good"} | more

    def add(self, *entries: dict[str, Any], rig: str | None = None) -> TestResponse:
        return self.post(f"/api/rigs/{rig or self.rig_id}/log", {"entries": list(entries)})

    def log(self, rig: str | None = None) -> Any:
        return self.client.get(f"/api/rigs/{rig or self.rig_id}/log").get_json()

    def lines(self, query: str = "") -> Any:
        return self.client.get(f"/api/log?{query}").get_json()


class Entries(LogTest):
    def test_what_is_sent_twice_and_in_another_order_is_there_once(self) -> None:
        early = self.entry("aaaaaaaa", 1, answer="wrong", heard="hum")
        late = self.entry("bbbbbbbb", 9)
        first = self.add(late).get_json()["last"]
        second = self.add(late, early).get_json()["last"]
        self.assertGreater(second, first)
        self.assertEqual(self.add(early, late).get_json()["last"], second)
        log = self.log()
        self.assertEqual([entry["id"] for entry in log["entries"]], [late["id"], early["id"]])
        (standing,) = log["standings"]
        self.assertEqual((standing["answer"], standing["person"]), ("good", "Demo technician"))
        self.assertEqual(log["duration"]["state"], "ready")

    def test_what_is_not_whole_is_refused_by_name_and_nothing_of_it_is_kept(self) -> None:
        for wrong, said in (
            (self.entry("aaaaaaaa", answer=None), "A check names its run and an answer"),
            (self.entry("aaaaaaaa", at="2026-11-29T16:00:00"), "timezone"),
            (self.entry("aaaaaaaa", at="0001-01-01T00:00:00+14:00"), "2000"),
            (self.entry("short", id="x"), "id"),
            (self.entry("aaaaaaaa", words="x" * 700), "too long"),
        ):
            with self.subTest(said):
                refused = self.add(self.entry("cccccccc"), wrong)
                self.assertEqual(refused.status_code, 422)
                self.assertIn(said, refused.get_data(as_text=True))
        self.assertEqual(self.log()["entries"], [])

    def test_a_correction_is_an_entry_of_its_own(self) -> None:
        wrong = self.entry("aaaaaaaa", 1, answer="wrong", heard="silent")
        self.add(wrong)
        self.add(self.entry("bbbbbbbb", 1, corrects=wrong["id"]))
        log = self.log()
        self.assertEqual(len(log["entries"]), 2)
        self.assertEqual(log["standings"][0]["answer"], "good")
        lines = self.lines(f"rig={self.rig_id}&kind=check")
        self.assertEqual([line["corrected"] for line in lines], [False, True])

    def test_the_database_refuses_to_change_or_delete_an_entry(self) -> None:
        self.add(self.entry("aaaaaaaa"))
        for change in ("UPDATE log_entry SET person_name = 'x'", "DELETE FROM log_entry"):
            with self.subTest(change), self.assertRaises(DBAPIError), self.sessions.begin() as session:
                session.execute(text(change))

    def test_names_are_kept_when_the_things_are_gone(self) -> None:
        self.add(self.entry("aaaaaaaa", things=["lead-31"], words="crackles"))
        self.client.delete(f"/api/rigs/{self.rig_id}", headers={"X-CSRF-Token": self.token})
        (line,) = self.lines(f"rig={self.rig_id}")
        self.assertEqual(line["things"], ["M31"])
        self.assertTrue(line["run_name"] and line["rig_name"] and line["venue"])

    def test_a_new_rig_of_the_same_name_begins_with_an_empty_log(self) -> None:
        self.add(self.entry("aaaaaaaa"))
        self.client.delete(f"/api/rigs/{self.rig_id}", headers={"X-CSRF-Token": self.token})
        again = demo_rig().with_fields(id=self.rig_id).model_dump(mode="json")
        self.assertEqual(self.post("/api/rigs", again).get_json()["rig"]["id"], self.rig_id)
        log = self.log()
        self.assertEqual((log["entries"], log["standings"], log["last"]), ([], [], 0))

    def test_nothing_is_sent_again_where_nothing_was_added(self) -> None:
        self.add(self.entry("aaaaaaaa"))
        address = f"/api/rigs/{self.rig_id}/log"
        tag = self.client.get(address).headers["ETag"]
        self.assertEqual(self.client.get(address, headers={"If-None-Match": tag}).status_code, 304)
        self.add(self.entry("bbbbbbbb", 2))
        self.assertEqual(self.client.get(address, headers={"If-None-Match": tag}).status_code, 200)

    def test_what_is_new_is_read_without_the_rest(self) -> None:
        def news(after: int) -> Any:
            return self.client.get(f"/api/rigs/{self.rig_id}/log/news?after={after}").get_json()

        self.assertEqual(news(0), {"count": 0, "entries": []})
        first = self.add(self.entry("aaaaaaaa")).get_json()["last"]
        last = self.add(self.entry("bbbbbbbb", 1)).get_json()["last"]
        self.assertEqual([entry["number"] for entry in news(first)["entries"]], [last])
        self.assertEqual((news(last)["count"], news(last)["entries"]), (2, []))
        self.assertEqual(news(0)["entries"], self.log()["entries"])
        self.assertEqual(self.client.get("/api/rigs/none/log/news").status_code, 404)

    def test_the_weeks_are_told_of_a_rig_and_as_a_calendar(self) -> None:
        wrong = self.entry("aaaaaaaa", answer="wrong", heard="hum")
        self.add(wrong, self.entry("bbbbbbbb", 20))
        told = self.client.get(f"/api/log/weeks?rig={self.rig_id}&days=4000").get_json()
        (day,) = told["days"]
        self.assertEqual((day["good"], day["wrong"], len(day["found"])), (1, 0, 1))
        file = self.client.get(f"/api/log/calendar?rig={self.rig_id}&days=4000")
        self.assertEqual(file.mimetype, "text/calendar")
        self.assertIn("hum", file.get_data(as_text=True))
        self.assertEqual(self.client.get("/api/log/weeks?days=0").status_code, 422)

    def test_who_is_where_and_the_steps_beside_the_runs_are_entries_too(self) -> None:
        there = self.entry("aaaaaaaa", kind="working", answer=None)
        step = self.entry("bbbbbbbb", 1, kind="step", run=None, step="destination:speaker", answer="wrong", heard="hum")
        photo = self.entry("cccccccc", 2, kind="note", answer=None, photos=["photo-1234"])
        self.assertEqual(self.add(there, step, photo).status_code, 200)
        words = {line["id"]: line["words"] for line in self.lines(f"rig={self.rig_id}")}
        self.assertEqual(words[there["id"]], "is there now")
        self.assertEqual(words[step["id"]], "destination, hum or buzz")
        self.assertEqual(words[photo["id"]], "1 photo")
        for wrong in (
            self.entry("dddddddd", kind="working", run=None, answer=None),
            self.entry("dddddddd", kind="step", run=None, answer="good"),
            self.entry("dddddddd", kind="note", answer=None),
        ):
            self.assertEqual(self.add(wrong).status_code, 422)

    def test_the_check_beside_the_runs_says_what_is_lost(self) -> None:
        whole = self.client.get(f"/api/rigs/{self.rig_id}/round").get_json()
        self.assertEqual([loss["run"] for loss in whole["losses"]], [run["id"] for run in self.state()["rig"]["runs"]])
        self.assertIn("walk", [step["phase"] for step in whole["after"]])

    def test_a_run_that_was_changed_since_is_to_be_checked_again(self) -> None:
        as_checked = self.analysis("overview").get_json()["runs"][0]["checked"]
        self.add(self.entry("aaaaaaaa", checked=as_checked))
        self.assertFalse(self.log()["standings"][0]["changed"])
        self.edit({"op": "set", "kind": "kit", "id": "lead-31", "field": "length_m", "value": 3.0})
        self.analysis("overview")
        self.assertTrue(self.log()["standings"][0]["changed"])

    def test_a_measured_level_stands_beside_what_is_computed(self) -> None:
        overview = self.analysis("overview").get_json()["runs"][0]
        details = self.analysis(f"runs/{overview['run']}").get_json()
        computed = max(each["hum"]["likely_dbu"] for each in details["result"]["inputs"])
        measured = {"quantity": "hum_dbu", "value": -62.0}
        self.add(self.entry("aaaaaaaa", kind="reading", answer=None, run=overview["run"], measured=measured))
        (entry,) = self.log()["entries"]
        self.assertEqual((entry["measured"]["value"], entry["measured"]["predicted"]), (-62.0, computed))
        (line,) = self.lines(f"rig={self.rig_id}&kind=reading")
        self.assertIn("hum \N{MINUS SIGN}62.0 dBu, computed", line["words"])

    def test_a_helper_adds_and_a_viewer_does_not(self) -> None:
        self.become("Helper", "helper")
        self.assertEqual(self.add(self.entry("aaaaaaaa")).status_code, 200)
        self.become("Viewer", "viewer")
        self.assertEqual(self.add(self.entry("bbbbbbbb")).status_code, 403)
        self.assertEqual([entry["person"] for entry in self.log()["entries"]], ["Helper"])


class NextWeek(LogTest):
    def test_what_was_wrong_is_on_the_run_of_the_copy_and_of_the_copys_copy(self) -> None:
        self.add(self.entry("aaaaaaaa", 1, answer="wrong", heard="crackle", things=["lead-31"]))
        copies: list[str] = []
        for rig in (self.rig_id, None):
            copied = self.post(f"/api/rigs/{rig or copies[-1]}/copies", {"name": "Next", "occasion": ""}).get_json()
            copies.append(copied["rig"]["id"])
        for rig in copies:
            (had,) = self.log(rig)["last_time"]
            self.assertEqual((had["words"], had["on"], had["mended"]), ("crackle, M31", "2026-11-29", False))
        self.assertEqual(self.log()["last_time"], [])


class Lines(LogTest):
    def test_everything_stands_in_one_order_and_is_narrowed_by_words(self) -> None:
        self.edit({"op": "set", "kind": "kit", "id": "lead-31", "field": "length_m", "value": 4.0})
        self.add(self.entry("aaaaaaaa", 3, answer="wrong", heard="hum", words="only with the projector"))
        self.add({"id": f"{self.own}-note", "at": AT.format(5), "kind": "note", "words": "mind the gap"})
        of_rig = self.lines(f"rig={self.rig_id}")
        self.assertEqual({line["kind"] for line in of_rig}, {"check", "note", "change"})
        self.assertEqual([line["at"] for line in of_rig], sorted((line["at"] for line in of_rig), reverse=True))
        for words, kinds in (("projector hum", ["check"]), ("GAP", ["note"]), ("gap projector", [])):
            found = [line["kind"] for line in self.lines(f"rig={self.rig_id}&words={words}")]
            self.assertEqual(found, kinds, words)
        self.assertEqual(self.lines(f"rig={self.rig_id}&before=2020-01-01T00:00:00Z"), [])

    def test_a_question_that_cannot_be_asked_is_refused(self) -> None:
        for query in ("before=0001-01-01T00:00:00%2B14:00", "before=2026-01-01", "rig=../x", "words=%00", "kind=all"):
            self.assertEqual(self.client.get(f"/api/log?{query}").status_code, 422, query)
            self.assertEqual(self.client.get(f"/api/log/file?{query}").status_code, 422, query)

    def test_as_a_file_no_cell_is_a_formula(self) -> None:
        self.add(self.entry("aaaaaaaa", words="=1+1"), self.entry("bbbbbbbb", kind="note", words="=cmd()", answer=None))
        file = self.client.get(f"/api/log/file?rig={self.rig_id}&kind=note")
        self.assertEqual(file.mimetype, "text/csv")
        rows = list(csv.DictReader(io.StringIO(file.get_data(as_text=True))))
        self.assertEqual([row["what"] for row in rows], ["'=cmd()"])
