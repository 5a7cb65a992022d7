"""Rig files with something wrong in them over HTTP: refused with the fields at fault, never a fault of the server."""

import json

from tests.support.mutants import mutant
from tests.support.web import WebTest

SAMPLE = 60


class BadFiles(WebTest):
    def test_no_file_brings_the_server_down(self) -> None:
        for seed in range(1000, 1000 + SAMPLE):
            given, done = mutant(seed)
            answer = self.post("/api/rigs", data=json.dumps(given).encode())
            self.assertIn(answer.status_code, (201, 422), f"seed {seed}: {done}")
            if answer.status_code == 422:
                self.assertTrue(all(fault["where"] and fault["sentence"] for fault in answer.get_json()["faults"]))
