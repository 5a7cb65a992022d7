"""Parts of analyses over HTTP: each with a tag, kept in the database, computed again when emptied."""

import gzip
import json
from typing import Any

from sqlalchemy import create_engine, text

from ruvak.core.analyse import analyse
from ruvak.service.analysis_parts import RunParts, keep
from ruvak.store.database import engine_for, sessions_for
from ruvak.store.solved import SolvedParts
from tests.support.database import process_at
from tests.support.rigs import demo_rig
from tests.support.web import WebTest

LENGTH = {"op": "set", "kind": "kit", "id": "lead-31", "field": "length_m", "value": 20}


class Parts(WebTest):
    def keys(self) -> dict[str, str]:
        return {one["run"]: one["key"] for one in self.analysis("overview").get_json()["runs"]}

    def details(self, *keys: str) -> Any:
        return self.analysis(f"runs?keys={','.join(keys)}").get_json()

    def test_the_overview_has_a_line_for_each_run(self) -> None:
        quick_findings = self.analysis("overview").get_json()
        self.assertEqual([one["run"] for one in quick_findings["runs"]], [run.id for run in demo_rig().runs])
        self.assertEqual((quick_findings["runs"][0]["grade"], quick_findings["verdict"]["stop"]), ("stop", 1))

    def test_a_run_is_found_by_its_key_and_by_its_name(self) -> None:
        key = self.keys()["slides"]
        by_key = self.details(key)[key]
        self.assertEqual(by_key, self.analysis("runs/slides").get_json())
        self.assertEqual(by_key["findings"][0]["code"], "centre_cancels")
        self.assertEqual(self.analysis("runs/ghost").status_code, 404)

    def test_a_runs_drawing_is_there_before_anything_is_solved(self) -> None:
        before = self.analysis("runs/slides/drawing").get_json()
        self.assertEqual(before, self.analysis("runs/slides").get_json()["drawing"])
        version = self.version()
        self.edit(LENGTH)
        after = self.analysis("runs/slides/drawing").get_json()
        self.assertNotEqual(after, before)
        self.assertEqual(after, self.analysis("runs/slides").get_json()["drawing"])
        self.assertEqual(self.analysis("runs/ghost/drawing").status_code, 404)
        old = self.client.get(f"/api/rigs/{self.rig_id}/versions/{version}/runs/slides/drawing")
        self.assertEqual(old.status_code, 410)

    def test_keys_that_are_none_are_refused_or_left_out(self) -> None:
        self.assertEqual(self.analysis("runs?keys=slides").status_code, 422)
        self.assertEqual(self.details("0" * 32), {})

    def test_what_the_client_has_is_not_sent_again(self) -> None:
        for part in ("overview", "destinations", "connections", "runs/slides"):
            first = self.analysis(part)
            again = self.analysis(part, headers={"If-None-Match": first.headers["ETag"]})
            self.assertEqual((first.status_code, again.status_code, again.get_data()), (200, 304, b""), part)

    def test_a_part_comes_compressed_where_that_is_understood(self) -> None:
        plain = self.analysis("overview")
        packed = self.analysis("overview", headers={"Accept-Encoding": "gzip"})
        self.assertEqual(packed.headers["Content-Encoding"], "gzip")
        self.assertEqual(json.loads(gzip.decompress(packed.get_data())), plain.get_json())

    def test_the_version_is_asked_for_at_little_cost(self) -> None:
        address = f"/api/rigs/{self.rig_id}/version"
        first = self.client.get(address)
        tag = {"If-None-Match": first.headers["ETag"]}
        self.assertEqual(self.client.get(address, headers=tag).status_code, 304)
        self.edit(LENGTH)
        self.assertEqual(self.client.get(address, headers=tag).status_code, 200)

    def test_an_analysis_of_an_old_version_is_gone(self) -> None:
        old = self.version()
        self.edit(LENGTH)
        answer = self.client.get(f"/api/rigs/{self.rig_id}/versions/{old}/overview")
        self.assertEqual((answer.status_code, answer.get_json()["code"]), (410, "not_current"))
        self.assertEqual(answer.get_json()["current_version"], self.version())

    def test_back_at_the_same_content_nothing_is_new(self) -> None:
        tag = self.analysis("overview").headers["ETag"]
        self.edit(LENGTH)
        self.assertNotEqual(self.analysis("overview").headers["ETag"], tag)
        self.post(f"/api/rigs/{self.rig_id}/undo", {})
        self.assertEqual(self.analysis("overview").headers["ETag"], tag)

    def test_a_changed_lead_leaves_other_runs_keys_alone(self) -> None:
        self.rig_id = self.post("/api/rigs", demo_rig("midwinter-concert").model_dump(mode="json")).get_json()["rig"][
            "id"
        ]
        before = self.keys()
        lead = demo_rig("midwinter-concert").runs[0].pieces[0]
        self.edit({**LENGTH, "id": lead, "value": 9})
        after = self.keys()
        changed = {run for run, key in after.items() if before[run] != key}
        self.assertIn(demo_rig("midwinter-concert").runs[0].id, changed)
        self.assertLess(len(changed), len(after))

    def test_two_processes_that_solve_at_once_both_answer_what_was_kept_first(self) -> None:
        rig = demo_rig("lantern-evening")
        parts, analysis = SolvedParts(sessions_for(engine_for(self.url))), analyse(rig)
        verdict = analysis.verdict.model_copy(update={"watch": 99})
        first = keep(parts, rig, analysis.model_copy(update={"verdict": verdict}), RunParts())
        self.assertEqual(keep(parts, rig, analysis, RunParts()), first)

    def test_remedies_are_sought_once_for_a_rig_and_what_is_within_reach(self) -> None:
        address = f"/api/rigs/{self.rig_id}/runs/slides/remedies"

        def kept() -> int:
            with create_engine(self.url).connect() as connection:
                found = connection.execute(text("SELECT key FROM solved_part WHERE key LIKE 'remed%'"))
                return len(found.all())

        first = self.client.get(address).get_json()
        before = kept()
        self.assertEqual(self.another_app().test_client().get(address).get_json(), first)
        self.assertEqual(kept(), before)
        self.edit(LENGTH)
        self.assertTrue(self.client.get(address).get_json()[0]["helps"])
        self.assertEqual(kept(), before + 1)

    def test_emptied_nothing_is_lost(self) -> None:
        keys = self.keys()
        first = self.details(*keys.values())
        with create_engine(self.url).begin() as connection:
            self.assertGreater(connection.execute(text("DELETE FROM solved_part")).rowcount, 0)
        self.assertEqual(self.details(*keys.values()), first)
        self.assertEqual(self.keys(), keys)

    def test_what_another_process_solved_is_found(self) -> None:
        self.analysis("overview")
        with create_engine(self.url).connect() as connection:
            before = connection.execute(text("SELECT count(*) FROM solved_part")).scalar()
        other = process_at(self.url)[0]
        self.assertEqual(other.version(self.rig_id).version, self.version())
        self.app = self.another_app()
        self.client = self.app.test_client()
        self.analysis("overview")
        with create_engine(self.url).connect() as connection:
            self.assertEqual(connection.execute(text("SELECT count(*) FROM solved_part")).scalar(), before)
