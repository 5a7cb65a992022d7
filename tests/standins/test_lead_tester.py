"""The simulated lead tester over its own protocol, and each of its leads' faults as the app reads it."""

import json
import threading
import unittest
import urllib.error
import urllib.request
from http.server import ThreadingHTTPServer

from ruvak.core.errors import BadEdit
from ruvak.core.parts.library import library
from ruvak.core.tester.diagnosis import diagnose
from ruvak.service.tester import NoTester, Tester
from ruvak.standins import lead_tester

MIC = library()["mic-lead"]


class Served(unittest.TestCase):
    server: ThreadingHTTPServer
    address: str
    tester: Tester

    @classmethod
    def setUpClass(cls) -> None:
        cls.server = lead_tester.listen()
        threading.Thread(target=cls.server.serve_forever, daemon=True).start()
        cls.address = f"http://127.0.0.1:{cls.server.server_port}"
        cls.tester = Tester(cls.address)

    @classmethod
    def tearDownClass(cls) -> None:
        cls.server.shutdown()
        cls.server.server_close()

    def get(self, path: str) -> tuple[int, dict[str, object]]:
        try:
            with urllib.request.urlopen(f"{self.address}/{path}") as answered:
                return answered.status, json.loads(answered.read())
        except urllib.error.HTTPError as refused:
            return refused.code, json.loads(refused.read())

    def test_it_says_what_it_is_and_refuses_the_rest(self) -> None:
        status, about = self.get("tester")
        self.assertEqual((status, about["protocol"], about["version"]), (200, "lead-tester", 1))
        for path, code in (("readings?lead=none", 404), ("readings?lead=V1&moved=up", 400), ("nothing", 404)):
            status, said = self.get(path)
            self.assertEqual((status, bool(said["message"])), (code, True))

    def test_its_leads_faults_are_recognised(self) -> None:
        for tag, words in (
            ("V1", "Every contact reads as it should."),
            ("V2", "Pin 2 and pin 3 are exchanged, or it is made as: Microphone lead, pins 2 and 3 crossed."),
            ("V3", "The screen is broken, or it is made as: Microphone lead, screen open at the male end."),
            ("V4", "Every contact reads as it should."),
            ("V5", "Pin 3 and pin 1 touch."),
            ("G2", "Pin 3 is broken."),
        ):
            with self.subTest(tag):
                self.assertTrue(diagnose(MIC, self.tester.read(MIC, tag, None)).words.startswith(words))
        moved = diagnose(MIC, self.tester.read(MIC, "V4", "far"))
        self.assertEqual(moved.words, "Pin 2 breaks when it is moved at XLR male.")

    def test_another_lead_than_was_said_is_noticed(self) -> None:
        with self.assertRaisesRegex(BadEdit, "Is it the right lead"):
            self.tester.read(library()["lead-ts-ts"], "V1", None)
        with self.assertRaisesRegex(NoTester, "No lead M99"):
            self.tester.read(MIC, "M99", None)

    def test_what_is_no_tester_is_said_to_be_none(self) -> None:
        self.assertIsNone(Tester(None).describe().name)
        for tester in (Tester(None), Tester("http://127.0.0.1:9"), Tester("nonsense"), Tester(f"{self.address}/x")):
            with self.assertRaises(NoTester):
                tester.read(MIC, "V1", None)
