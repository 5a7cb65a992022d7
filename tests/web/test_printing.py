"""Printed sheets over HTTP: files of the right kind, and nothing of the house for whoever comes by a link."""

import unittest

from werkzeug.test import TestResponse

from tests.support.web import WebTest


class Printing(WebTest):
    def get(self, path: str) -> TestResponse:
        return self.client.get(f"/api/rigs/{self.rig_id}/{path}")

    def test_chosen_sheets_come_as_one_file(self) -> None:
        made = self.get("print?sheets=inputs&sheets=labels&sheets=pull&paper=letter&labels=30&skip=2")
        self.assertEqual((made.status_code, made.content_type), (200, "application/pdf"))
        self.assertTrue(made.data.startswith(b"%PDF-"))
        self.assertIn("attachment", made.headers["Content-Disposition"])

    def test_what_is_asked_for_wrongly_is_refused_in_words(self) -> None:
        for query in ("", "sheets=poster", "sheets=labels&labels=7", "sheets=labels&skip=-1", "sheets=pull&paper=a0"):
            refused = self.get(f"print?{query}")
            self.assertEqual(refused.status_code, 422, query)
            self.assertTrue(refused.get_json()["message"])

    def test_tables_and_drawings(self) -> None:
        self.assertTrue(self.get("labels").get_data(as_text=True).startswith("code,run,lead,"))
        self.assertTrue(self.get("inputs").get_data(as_text=True).startswith("area,number,who,"))
        rig = self.state()["rig"]
        drawn = [self.get(f"wiring/{part['id']}") for part in rig["parts"]]
        self.assertEqual({each.status_code for each in drawn}, {200, 404})
        self.assertTrue(any(b"<svg" in each.data for each in drawn))
        self.assertEqual(self.get("wiring/no-such-part").status_code, 404)
        listed = {part["id"] for part in self.get("wiring").get_json()}
        self.assertEqual(
            listed, {part["id"] for part, each in zip(rig["parts"], drawn, strict=True) if each.status_code == 200}
        )

    def test_a_label_s_code_leads_to_the_run_s_card(self) -> None:
        self.assertIn(f"/#/rigs/{self.rig_id}/check/", self.get("labels").get_data(as_text=True))

    def test_a_link_prints_its_rig_without_the_house(self) -> None:
        made = self.post(f"/api/rigs/{self.rig_id}/links", {"name": "Stage tablet", "gives": "read", "hours": 4})
        token = made.get_json()["address"].rpartition("/")[2]
        self.client = self.app.test_client()
        self.token = self.client.get("/api/session").get_json()["csrf_token"]
        self.assertEqual(self.post("/api/links/open", {"token": token}).status_code, 200)
        self.assertEqual(self.get("print?sheets=check").status_code, 200)
        self.assertEqual(self.get("print?sheets=pull").status_code, 403)


if __name__ == "__main__":
    unittest.main()
