"""What goes wrong when people start things, and whether they are told what and how to mend it."""

import os
import shutil
import signal
import socket
import subprocess
import sys
import tempfile
import unittest
from functools import partial
from pathlib import Path
from unittest import mock

from script.shared import demo, postgres

CHECKOUT = Path(__file__).resolve().parents[2]


def shell(script: str, **environment: str) -> subprocess.CompletedProcess[str]:
    """Runs lines after sourcing the set-up, in a folder of its own."""
    with tempfile.TemporaryDirectory() as folder:
        lines = f"set -euo pipefail; cd {folder}; . {CHECKOUT}/script/shared/setup.sh; {script}"
        return subprocess.run(
            ["/bin/bash", "-c", lines], check=False, text=True, capture_output=True, env={**os.environ, **environment}
        )


class SetUp(unittest.TestCase):
    def test_a_full_disk(self) -> None:
        done = shell("check_place", RUVAK_NEEDED_KB="999999999999")
        self.assertEqual(done.returncode, 1)
        self.assertIn("ruvak: the disk is nearly full", done.stderr)

    def test_enough_room(self) -> None:
        self.assertEqual(shell("check_place").returncode, 0)

    def test_a_place_that_cannot_be_written(self) -> None:
        # A file where the folder should be refuses even root, as a read-only disk would.
        done = shell("touch .ruvak; check_place")
        self.assertEqual(done.returncode, 1)
        self.assertIn("cannot be written", done.stderr)

    def test_no_sudo_and_a_package_missing(self) -> None:
        done = shell("id() { echo 1000; }; command() { return 1; }; as_root apt-get install -y postgresql")
        self.assertEqual(done.returncode, 1)
        self.assertIn("there is no sudo. As root, run: apt-get install postgresql", done.stderr)

    def test_an_old_node(self) -> None:
        done = shell("node() { [ $1 = -e ] && return 1; echo v18.0.0; }; need_programs run")
        self.assertEqual(done.returncode, 1)
        self.assertIn("Node.js 20.19 or newer is needed to build the interface; this is v18.0.0.", done.stderr)

    def test_a_step_is_done_once_for_the_same_inputs(self) -> None:
        done = shell(
            "echo a >in; done_already s $(hash_of in) || hash_of in >s; done_already s $(hash_of in) && echo yes"
        )
        self.assertEqual(done.stdout.strip(), "yes")

    def test_an_interface_that_cannot_be_built_beside_the_python_packages_ends_it(self) -> None:
        done = shell(
            "check_place() { :; }; need_programs() { :; }; python_packages() { :; }; compile_used() { :; };"
            " interface() { fail 'the interface did not build'; }; set_up run; echo went on"
        )
        self.assertEqual((done.returncode, done.stdout), (1, ""))
        self.assertIn("ruvak: the interface did not build", done.stderr)


class Database(unittest.TestCase):
    def setUp(self) -> None:
        self.folder = postgres.folder_for(CHECKOUT, f"setup-{os.getpid()}")
        self.addCleanup(postgres.remove, self.folder)

    def test_data_of_another_major_version(self) -> None:
        self.folder.mkdir(parents=True)
        (self.folder / "PG_VERSION").write_text("9\n", encoding="utf-8")
        with self.assertRaises(postgres.ServerProblem) as caught:
            postgres.start(self.folder)
        self.assertIn("belongs to PostgreSQL 9", str(caught.exception))
        self.assertIn("Install postgresql-9", str(caught.exception))
        self.assertTrue((self.folder / "PG_VERSION").exists())

    def test_no_server_installed(self) -> None:
        with mock.patch.object(postgres, "major_versions", dict), self.assertRaises(postgres.ServerProblem) as caught:
            postgres.start(self.folder)
        self.assertIn("apt-get install postgresql", str(caught.exception))

    def test_full_and_read_only_disks(self) -> None:
        for number, words in ((28, "The disk is full"), (30, "cannot be written"), (13, "cannot be written")):
            problem = OSError(number, os.strerror(number))
            failing = mock.patch.object(postgres, "_create", side_effect=problem)
            with failing, self.assertRaises(postgres.ServerProblem) as caught:
                postgres.start(self.folder)
            self.assertIn(words, str(caught.exception))

    def test_it_listens_on_loopback_with_a_password_and_comes_back_with_its_data(self) -> None:
        import psycopg

        server = postgres.start(self.folder)
        address = server.url("postgres").replace("+psycopg", "")
        with psycopg.connect(address, autocommit=True) as connection:
            connection.execute("CREATE TABLE kept (n integer)")
            shown = connection.execute("SHOW listen_addresses").fetchone()
            self.assertEqual(shown, ("127.0.0.1",))
        with self.assertRaises(psycopg.OperationalError):
            psycopg.connect(address.replace(server.password, "wrong"))
        again = postgres.start(self.folder)
        with psycopg.connect(again.url("postgres").replace("+psycopg", "")) as connection:
            self.assertEqual(connection.execute("SELECT count(*) FROM kept").fetchone(), (0,))

    def test_a_killed_server_is_started_again_on_its_port_with_its_data_and_that_is_said(self) -> None:
        import psycopg

        server = postgres.start(self.folder)
        address = server.url("postgres").replace("+psycopg", "")
        with psycopg.connect(address, autocommit=True) as connection:
            connection.execute("CREATE TABLE kept (n integer)")
        with mock.patch("builtins.print") as said:
            demo.revive(server)
            self.assertEqual(said.call_count, 0)
            os.kill(int((self.folder / "postmaster.pid").read_text().split()[0]), signal.SIGKILL)
            self.assertTrue(demo._until(lambda: not postgres.answers(server), 10))
            demo.revive(server)
        self.assertIn("stopped by itself; starting it again", said.call_args_list[0].args[0])
        with psycopg.connect(address) as connection:
            self.assertEqual(connection.execute("SELECT count(*) FROM kept").fetchone(), (0,))


class Demo(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.state = Path(folder.name)
        patch = mock.patch.object(demo, "STATE", self.state)
        patch.start()
        self.addCleanup(patch.stop)

    def test_a_taken_port(self) -> None:
        with socket.socket() as taken:
            taken.bind(("127.0.0.1", 0))
            taken.listen()
            port = taken.getsockname()[1]
            with self.assertRaises(demo.Stop) as caught:
                demo._port_is_free(port)
        self.assertIn(f"already listens on port {port}", str(caught.exception))
        self.assertIn(f"--port {port + 1}", str(caught.exception))

    def test_started_twice(self) -> None:
        (self.state / "demo.pid").write_text("4242 8140\n", encoding="utf-8")
        alive = mock.patch.object(demo, "_is_demo", return_value=True)
        with alive, self.assertRaises(demo.Stop) as caught, demo._only_one(9000):
            pass
        self.assertIn("already runs from this checkout at http://127.0.0.1:8140", str(caught.exception))
        self.assertIn("kill 4242", str(caught.exception))

    def test_a_server_that_was_killed(self) -> None:
        (self.state / "demo.pid").write_text("999999999 8140 999999998\n", encoding="utf-8")
        with mock.patch("builtins.print") as said, demo._only_one(9000):
            self.assertEqual((self.state / "demo.pid").read_text(encoding="utf-8"), f"{os.getpid()} 9000\n")
        self.assertIn("did not stop properly", said.call_args.args[0])
        self.assertFalse((self.state / "demo.pid").exists())

    def test_the_secret_is_made_once_and_kept_private(self) -> None:
        first = demo._secret().read_text(encoding="utf-8")
        self.assertEqual(demo._secret().read_text(encoding="utf-8"), first)
        self.assertEqual((self.state / "secret").stat().st_mode & 0o077, 0)


def _says(file: Path, words: str) -> bool:
    return words in file.read_text(encoding="utf-8")


class WholeDemo(unittest.TestCase):
    """script/demo itself, in a copy of the checkout that shares what is installed."""

    def test_it_serves_stops_keeps_and_starts_fresh_with_a_backup(self) -> None:
        with tempfile.TemporaryDirectory(dir=CHECKOUT / ".ruvak") as name:
            copy = Path(name)
            copy.chmod(0o755)
            shutil.copytree(CHECKOUT / "script", copy / "script")
            shutil.copytree(CHECKOUT / "ruvak", copy / "ruvak", ignore=shutil.ignore_patterns("static"))
            (copy / ".ruvak").mkdir()
            for arguments in ((), ("--fresh",)):
                port = postgres.free_port()
                command = [sys.executable, "-m", "script.shared.demo", "--port", str(port), *arguments]
                said = copy / "said.txt"
                with said.open("w") as out:
                    process = subprocess.Popen(command, cwd=copy, stdout=out, stderr=out)
                announced = partial(_says, said, f"http://127.0.0.1:{port}")
                self.assertTrue(demo._until(announced, 60), said.read_text())
                self.assertTrue(demo._answers(f"http://127.0.0.1:{port}"))
                process.terminate()
                self.assertEqual(process.wait(timeout=300), 0, said.read_text())
                self.assertIn("everything is kept", said.read_text())
                self.assertFalse(demo._answers(f"http://127.0.0.1:{port}"))
                self.assertFalse((copy / ".ruvak" / "database" / "postmaster.pid").exists())
            self.assertEqual(len(list((copy / ".ruvak" / "backups").glob("*.backup"))), 1)
