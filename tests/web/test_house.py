"""Cupboard, occasions, comparing and finding over HTTP."""

from datetime import UTC, datetime, timedelta
from typing import Any

from icalendar import Calendar

from ruvak.service.links import Links
from tests.support.web import WebTest

TOMORROW = datetime.now(UTC) + timedelta(days=1)


def hours(after: int = 0) -> dict[str, str]:
    start = TOMORROW + timedelta(hours=after)
    return {"starts_at": start.isoformat(), "ends_at": (start + timedelta(hours=3)).isoformat()}


class House(WebTest):
    def ask(self, method: str, path: str, body: Any = None) -> Any:
        return self.client.open(f"/api{path}", method=method, json=body, headers={"X-CSRF-Token": self.token})

    def test_the_cupboard_is_filled_listed_exported_and_imported(self) -> None:
        text = "T1: 10 m mic lead, suspect: =1+1\n3 passive DIs, van\nnonsense"
        read = self.post("/api/cupboard/lines", {"text": text}).get_json()
        self.assertEqual(
            (read["things"], [line["problem"] is None for line in read["lines"]]), (4, [True, True, False])
        )
        before = self.client.get("/api/cupboard").get_json()
        self.post("/api/cupboard/items", {"text": text})
        after = self.client.get("/api/cupboard").get_json()
        self.assertEqual(len(after["entries"]), len(before["entries"]) + 2)
        table = self.client.get("/api/cupboard/table").get_data(as_text=True)
        self.assertIn("'=1+1", table)
        document = self.client.get("/api/cupboard/file").get_json()
        self.assertEqual(document["format"], "ruvak-cupboard")
        self.assertEqual(self.post("/api/cupboard", document).get_json(), {"added": 0})
        csv = "tag,what,length,where,condition,notes\nT2,mic lead,5 m,van,faulty,cold open\n"
        self.assertEqual(self.post("/api/cupboard/list", {"csv": csv}).get_json()["things"], 1)
        last = self.client.get("/api/cupboard").get_json()["entries"][-1]
        self.assertEqual(
            [last[name] for name in ("name", "length_m", "store", "condition", "remark")],
            ["T2", 5.0, "van", "faulty", "cold open"],
        )

    def test_a_change_that_does_not_fit_says_why(self) -> None:
        self.post("/api/cupboard/items", {"text": "U1: 10 m mic lead"})
        path = "/cupboard/items/u1"
        for field, value, was, status in (
            ("store", "van", "cupboard", 204),
            ("store", "rack", "cupboard", 409),
            ("length_m", "long", 10.0, 422),
            ("count", 3.5, 1, 422),
            ("part", "x", "y", 422),
            ("name", "\u202e", "U1", 422),
        ):
            answered = self.ask("PATCH", path, {"field": field, "value": value, "was": was})
            self.assertEqual(answered.status_code, status, (field, answered.get_data()))
        self.assertEqual(self.ask("DELETE", path).status_code, 204)
        self.assertEqual(self.ask("DELETE", path).status_code, 404)

    def test_a_rig_takes_for_its_hours_and_the_other_is_told_who_has_it(self) -> None:
        self.post("/api/cupboard/items", {"text": "V1: 10 m mic lead"})
        other = self.post(f"/api/rigs/{self.rig_id}/copies", {"name": "Chapel", "occasion": ""}).get_json()["rig"]["id"]
        made = self.post("/api/occasions", {"name": "Evening", "rigs": [self.rig_id, other], **hours()}).get_json()
        self.assertEqual([rig["name"] for rig in made["rigs"]], sorted(rig["name"] for rig in made["rigs"]))
        self.assertEqual(self.ask("PUT", f"/rigs/{self.rig_id}/cupboard/v1").status_code, 200)
        refused = self.ask("PUT", f"/rigs/{other}/cupboard/v1")
        self.assertEqual((refused.status_code, refused.get_json()["code"]), (409, "cupboard_conflict"))
        entry = next(e for e in self.client.get("/api/cupboard").get_json()["entries"] if e["id"] == "v1")
        self.assertEqual([held["rig"] for held in entry["holdings"]], [self.rig_id])
        self.assertEqual(self.ask("DELETE", f"/rigs/{self.rig_id}/cupboard").status_code, 200)
        self.assertEqual(self.ask("DELETE", f"/rigs/{self.rig_id}/cupboard").status_code, 204)
        self.assertEqual(self.ask("PUT", f"/rigs/{other}/cupboard/v1").status_code, 200)
        # Two occasions, the second of which begins before the first is over.
        self.ask("DELETE", f"/occasions/{made['id']}/rigs/{self.rig_id}")
        third = self.post(f"/api/rigs/{other}/copies", {"name": "Third", "occasion": ""}).get_json()["rig"]["id"]
        clash = self.post("/api/occasions", {"name": "Overlap", "rigs": [third], **hours(2)})
        self.assertEqual((clash.status_code, clash.get_json()["code"]), (409, "already_taken"))
        self.assertEqual(clash.get_json()["faults"][0]["where"], "own-v1")
        free = self.post("/api/occasions", {"name": "After", "rigs": [third], **hours(3)})
        self.assertEqual(free.status_code, 200)

    def test_notes_and_again(self) -> None:
        made = self.post("/api/occasions", {"name": "This week", "rigs": [self.rig_id], **hours()}).get_json()
        note = self.post(f"/api/occasions/{made['id']}/notes", {"words": "bring towels"}).get_json()
        again = self.post(f"/api/occasions/{made['id']}/again", {"name": "Next week", **hours(168)}).get_json()
        self.assertEqual([each["words"] for each in again["occasion"]["notes"]], ["bring towels"])
        self.assertEqual(self.ask("PUT", f"/notes/{note['id']}", {"done": True}).status_code, 204)
        listed = self.client.get("/api/occasions").get_json()
        names = [each["name"] for each in listed if each["name"].endswith("week")]
        self.assertEqual(names, ["Next week", "This week"])
        copy = again["occasion"]["rigs"][0]["id"]
        compared = self.client.get(f"/api/rigs/{self.rig_id}/compare/{copy}").get_json()
        self.assertEqual((compared["runs"], compared["gear"]), ([], []))
        self.assertEqual(self.ask("DELETE", f"/occasions/{made['id']}").status_code, 204)
        naive = {"starts_at": "2026-01-01T10:00:00", "ends_at": "2026-01-01T12:00:00"}
        for body in ({"name": "x", **naive}, {"name": "", **hours()}, {"name": "x", **hours(), "rigs": ["../x"]}):
            self.assertEqual(self.post("/api/occasions", body).status_code, 422)

    def test_the_doors_have_a_time_that_goes_along_into_the_next_week(self) -> None:
        made = self.post("/api/occasions", {"name": "Vespers", "rigs": [self.rig_id], **hours()}).get_json()
        self.assertIsNone(made["doors_at"])
        begins = datetime.fromisoformat(made["starts_at"])
        doors = (begins + timedelta(hours=2)).isoformat()
        changed = self.ask("PUT", f"/occasions/{made['id']}/doors", {"doors_at": doors}).get_json()
        self.assertEqual(datetime.fromisoformat(changed["doors_at"]), begins + timedelta(hours=2))
        week = {
            "starts_at": (begins + timedelta(days=7)).isoformat(),
            "ends_at": (begins + timedelta(days=7, hours=4)).isoformat(),
        }
        again = self.post(f"/api/occasions/{made['id']}/again", {"name": "Vespers", **week}).get_json()["occasion"]
        self.assertEqual(datetime.fromisoformat(again["doors_at"]), begins + timedelta(days=7, hours=2))
        self.assertIsNone(self.ask("PUT", f"/occasions/{made['id']}/doors", {"doors_at": None}).get_json()["doors_at"])

    def test_dates_go_out_as_a_calendar_with_what_is_open(self) -> None:
        made = self.post("/api/occasions", {"name": "Vigil", "rigs": [self.rig_id], **hours()}).get_json()
        self.post(f"/api/occasions/{made['id']}/notes", {"words": "mend M31"})
        file = self.client.get("/api/occasions/calendar")
        events = Calendar.from_ical(file.get_data(as_text=True)).walk("VEVENT")
        (event,) = (event for event in events if event["summary"] == "Vigil")
        self.assertEqual(file.mimetype, "text/calendar")
        self.assertIn("Open: mend M31", str(event["description"]))

    def test_a_rig_is_put_away_and_found_again(self) -> None:
        self.assertEqual(self.ask("PUT", f"/rigs/{self.rig_id}/shelf", {"shelf": "archive"}).status_code, 204)
        rig = next(each for each in self.client.get("/api/rigs").get_json() if each["id"] == self.rig_id)
        self.assertEqual(rig["shelf"], "archive")
        kinds = {match["kind"] for match in self.client.get("/api/find", query_string={"q": "lantern"}).get_json()}
        self.assertIn("rig", kinds)
        self.assertEqual(self.client.get("/api/find", query_string={"q": ""}).status_code, 422)

    def test_a_whole_house_and_ones_own_data_go_out_and_come_in(self) -> None:
        self.become("Olu the owner", "owner")
        archive = self.client.get("/api/house")
        self.assertEqual((archive.status_code, archive.content_type), (200, "application/zip"))
        headers = {"X-CSRF-Token": self.token}
        answered = self.client.post("/api/house", data=archive.data, headers=headers, content_type="application/zip")
        self.assertEqual((answered.status_code, answered.get_json()["rigs"]), (200, 0))
        wrong = self.client.post("/api/house", data=b"nonsense", headers=headers, content_type="application/zip")
        self.assertEqual((wrong.status_code, wrong.get_json()["code"]), (422, "bad_house"))
        large = self.client.post("/api/house", data=b"x" * 5_000_000, headers=headers, content_type="application/zip")
        self.assertEqual(large.get_json()["code"], "bad_house")
        own = self.client.get("/api/me/file").get_json()
        self.assertEqual((own["name"], own["role"]), ("Olu the owner", "owner"))
        self.assertNotIn("passphrase", own)

    def test_a_venue_s_file_becomes_a_venue_of_the_house(self) -> None:
        self.post(f"/api/rigs/{self.rig_id}/venue", {"words": "first"})
        venue = self.client.get("/api/venues").get_json()[0]
        document = self.client.get(f"/api/venues/{venue['id']}/file").get_json()
        self.assertEqual(self.post("/api/venues", document).status_code, 409)
        wrong = self.post("/api/venues", {"venue": {"name": 3}})
        self.assertEqual((wrong.status_code, wrong.get_json()["code"]), (422, "bad_venue"))
        document["venue"]["name"] = "Another hall"
        made = self.post("/api/venues", document)
        self.assertEqual((made.status_code, made.get_json()["revision"]), (201, 1))

    def test_a_link_to_one_rig_compares_it_with_no_other(self) -> None:
        other = self.post(f"/api/rigs/{self.rig_id}/copies", {"name": "Chapel", "occasion": ""}).get_json()["rig"]["id"]
        token = Links(self.sessions).add(self.rig_id, "Band", "read", 1, "Ada").token
        self.client = self.app.test_client()
        self.token = self.client.get("/api/session").get_json()["csrf_token"]
        self.post("/api/links/open", {"token": token})
        self.assertEqual(self.client.get(f"/api/rigs/{self.rig_id}").status_code, 200)
        for path in (f"/rigs/{self.rig_id}/compare/{other}", "/cupboard", "/occasions", "/find?q=a", "/cupboard/file"):
            self.assertEqual(self.client.get(f"/api{path}").status_code, 403, path)
