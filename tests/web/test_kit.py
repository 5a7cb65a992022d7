"""Kit and parts over HTTP."""

from tests.support.web import WebTest


class Kit(WebTest):
    def test_typed_kit_is_said_back_with_an_edit_that_saves(self) -> None:
        got = self.post(
            f"/api/rigs/{self.rig_id}/kit-lines", {"text": "six 10 m microphone leads\nfiddlesticks"}
        ).get_json()
        self.assertEqual([len(line["items"]) for line in got["lines"]], [6, 0])
        self.assertIn("Nothing here is called", got["lines"][1]["problem"])
        before = len(self.state()["rig"]["kit"])
        saved = self.save(got["edit"])
        self.assertEqual(saved.status_code, 200, saved.get_json())
        self.assertEqual(len(self.state()["rig"]["kit"]), before + 6)

    def test_a_list_goes_out_and_comes_in(self) -> None:
        got = self.client.get(f"/api/rigs/{self.rig_id}/kit.csv")
        self.assertIn("text/csv", got.headers["Content-Type"])
        table = got.get_data(as_text=True)
        self.assertTrue(table.startswith("tag,what,length_m,owned,installed"))
        again = self.post(f"/api/rigs/{self.rig_id}/kit-list", {"csv": table}).get_json()
        self.assertTrue(all("in the kit already" in line["problem"] for line in again["lines"]))
        bad = self.post(f"/api/rigs/{self.rig_id}/kit-list", {"csv": "colour\nred\n"})
        self.assertEqual((bad.status_code, bad.get_json()["code"]), (422, "bad_kit_list"))
        self.assertIn("Call the right one 'what'", bad.get_json()["faults"][0]["sentence"])

    def test_own_parts_begin_with_one_of_the_library(self) -> None:
        listed = self.client.get("/api/parts").get_json()
        self.assertGreaterEqual(len(listed), 100)
        part = self.client.get("/api/parts/mic-lead").get_json()
        own = {**part, "id": "own-one", "name": "Our own", "called": ["our own lead"]}
        edit = {"label": "Part", "ops": [{"op": "put", "kind": "parts", "thing": own}]}
        saved = self.save(edit)
        self.assertEqual(saved.status_code, 200, saved.get_json())
        line = self.post(f"/api/rigs/{self.rig_id}/kit-lines", {"text": "2 our own leads 4 m"}).get_json()["lines"][0]
        self.assertEqual({item["part"] for item in line["items"]}, {"own-one"}, line)
        self.assertEqual(self.client.get("/api/parts/ghost").status_code, 404)

    def test_a_faulty_part_is_refused_field_by_field(self) -> None:
        edit = {
            "label": "Part",
            "ops": [{"op": "put", "kind": "parts", "thing": {"id": "own", "name": "x", "kind": "lead"}}],
        }
        got = self.save(edit)
        self.assertEqual(got.status_code, 422)
        self.assertIn("connectors", got.get_json()["message"])
