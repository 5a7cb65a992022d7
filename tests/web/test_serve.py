"""Serving for a house: what the settings must say, HTTPS of the server's own, proxies, figures for whoever runs it."""

import os
import ssl
import subprocess
import sys
import tempfile
import time
import unittest
import urllib.error
import urllib.request
from contextlib import suppress
from pathlib import Path
from unittest import mock

from flask import request

from ruvak.service.certificates import house_certificate
from ruvak.web.app import create_app
from ruvak.web.serve import BadSetting, Serving, serving_from_environment
from ruvak.web.settings import Settings
from script.shared import lan
from script.shared.postgres import free_port
from tests.support.database import DatabaseTest
from tests.support.web import WebTest

SAFE = Settings("postgresql+psycopg://x:y@127.0.0.1:9/none", "s", secure_cookies=True)


class WhatMustBeSaid(unittest.TestCase):
    def serving(self, settings: Settings = SAFE, **environment: str) -> Serving:
        names = {f"RUVAK_{name.upper()}": value for name, value in environment.items()}
        with mock.patch.dict(os.environ, names):
            return serving_from_environment(settings)

    def refused(self, words: str, settings: Settings = SAFE, **environment: str) -> None:
        with self.assertRaisesRegex(BadSetting, words):
            self.serving(settings, **environment)

    def test_passphrases_never_travel_unprotected(self) -> None:
        for bind in ("0.0.0.0:8140", "192.168.7.20:8140", "[::]:8140", ":8140", "booth:8140"):
            self.refused("unprotected", bind=bind)
        for bind in ("127.0.0.1:8140", "localhost:8140", "[::1]:8140", "unix:/run/ruvak.sock"):
            self.assertEqual(self.serving(bind=bind).bind, bind)
        behind = Settings(SAFE.database_url, "s", secure_cookies=True, proxies=1)
        self.assertEqual(self.serving(behind, bind="0.0.0.0:8140").bind, "0.0.0.0:8140")
        self.refused("RUVAK_SECURE_COOKIES", Settings(SAFE.database_url, "s", proxies=1))

    def test_a_certificate_has_a_key_and_both_are_there(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            made = house_certificate(Path(folder), ("localhost",))
            self.refused("belong together", certificate=str(made.chain))
            self.refused("there is no file", certificate=str(made.chain), certificate_key="/nowhere")
            serving = self.serving(bind="0.0.0.0:8140", certificate=str(made.chain), certificate_key=str(made.key))
            self.assertIn("--certfile", serving.arguments())

    def test_the_demonstration_is_not_served(self) -> None:
        self.refused("script/demo alone", Settings(SAFE.database_url, "s", demo=True))

    def test_a_number_of_workers(self) -> None:
        self.assertIn("3", self.serving(workers="3").arguments())
        for wrong in ("0", "-1", "many", "99"):
            self.refused("1 to 32", workers=wrong)


class Proxies(WebTest):
    def test_a_proxys_word_counts_only_where_one_is_said_to_be_there(self) -> None:
        headers = {"X-Forwarded-For": "192.0.2.9", "X-Forwarded-Proto": "https"}
        for proxies, address, scheme in ((0, "127.0.0.1", "http"), (1, "192.0.2.9", "https")):
            app = create_app(Settings(self.url, "test-secret", proxies=proxies))
            seen: dict[str, str] = {}

            def look(seen: dict[str, str] = seen) -> None:
                seen.update(address=request.remote_addr or "", scheme=request.scheme)

            app.before_request(look)
            app.test_client().get("/api/health", headers=headers)
            self.assertEqual((seen["address"], seen["scheme"]), (address, scheme))


class ServedForReal(DatabaseTest):
    """script/serve's program on loopback with HTTPS of its own, two workers, and figures."""

    def test_https_workers_and_figures(self) -> None:
        with tempfile.TemporaryDirectory() as folder, tempfile.TemporaryFile() as said:
            made = house_certificate(Path(folder), ("127.0.0.1", "localhost"))
            port, figures = free_port(), free_port()
            environment = {
                **os.environ,
                "RUVAK_DATABASE_URL": self.url,
                "RUVAK_SECRET_KEY": "test-secret",
                "RUVAK_BIND": f"127.0.0.1:{port}",
                "RUVAK_CERTIFICATE": str(made.chain),
                "RUVAK_CERTIFICATE_KEY": str(made.key),
                "RUVAK_SECURE_COOKIES": "1",
                "RUVAK_AUTHORITY": str(made.authority),
                "RUVAK_WORKERS": "2",
                "RUVAK_COMPUTE_PROCESSES": "1",
                "RUVAK_METRICS_PORT": str(figures),
            }
            environment.pop("RUVAK_DEMO", None)
            server = subprocess.Popen(
                [sys.executable, "-m", "ruvak.web.serve"], env=environment, stdout=said, stderr=said
            )
            self.addCleanup(server.wait, 60)
            self.addCleanup(server.terminate)
            context = ssl.create_default_context(cafile=made.authority)
            address = f"https://127.0.0.1:{port}"

            def get(path: str) -> bytes:
                with urllib.request.urlopen(f"{address}{path}", timeout=10, context=context) as answered:
                    return bytes(answered.read())

            for _ in range(1500):
                with suppress(OSError):
                    get("/api/ready")
                    break
                time.sleep(0.2)
            self.assertIn(b'"nobody_yet":true', get("/api/session"))
            self.assertEqual(get("/house-authority.crt"), made.authority.read_bytes())
            with self.assertRaises(urllib.error.HTTPError) as refused:
                get("/api/rigs")
            self.assertEqual(refused.exception.code, 401)
            refused.exception.close()
            with urllib.request.urlopen(f"http://127.0.0.1:{figures}/metrics", timeout=10) as answered:
                shown = answered.read().decode()
            self.assertIn('endpoint="rigs.list_rigs",method="GET",status="401"', shown)
            self.assertIn("ruvak_request_seconds_bucket", shown)


class OnTheNetwork(unittest.TestCase):
    def test_the_words_for_phones_name_address_certificate_and_what_goes_wrong(self) -> None:
        with tempfile.TemporaryDirectory() as folder, mock.patch.object(lan, "address_here", return_value="10.0.0.9"):
            network = lan.lan_of(Path(folder), 8140)
        words = network.words()
        for said in ("https://10.0.0.9:8140/", "ask whether to go on", "#/phones", "Guest networks"):
            self.assertIn(said, words)
        self.assertIn("10.0.0.9", network.environment()["RUVAK_HOSTS"].split(","))
        self.assertIn("0.0.0.0:8140", network.arguments())

    def test_this_machine_has_an_address(self) -> None:
        self.assertRegex(lan.address_here(), r"^\d+\.\d+\.\d+\.\d+$")
