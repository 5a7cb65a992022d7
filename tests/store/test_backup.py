"""Backups: of every former schema, checked before they are trusted, brought back beside readers, all or nothing."""

import tempfile
import threading
import unittest
from pathlib import Path
from unittest import mock

import psycopg
from alembic import command
from alembic.script import ScriptDirectory
from sqlalchemy import create_engine, inspect, text
from sqlalchemy.engine import make_url

from ruvak.core.errors import RuvakError
from ruvak.service.links import Links
from ruvak.service.problems import NotFound
from ruvak.service.sign_ins import SignIns
from ruvak.service.states import Person
from ruvak.service.upkeep import back_up, bring_back, migrate, people_at, rigs_at
from ruvak.store import backup
from ruvak.store.backup import BackupProblem
from ruvak.store.database import engine_for, migrations, sessions_for
from tests.support.database import length, new_database, process_at
from tests.support.people import BROWSER, signed_in
from tests.support.rigs import demo_rig
from tests.support.saved_before import fill_0001, insert_as_of_0006

PERSON = Person(id="a", name="A")


class Backups(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.file = Path(folder.name) / "all.backup"
        self.url = new_database()

    def test_every_former_schema_is_brought_back_and_up_to_date(self) -> None:
        """From the first on, as dumps of that time were: without a manifest."""
        revisions = [
            each.revision for each in ScriptDirectory.from_config(migrations("postgresql://")).walk_revisions()
        ]
        first, later = new_database(), new_database()
        command.upgrade(migrations(first), "0001")
        fill_0001(first)
        command.upgrade(migrations(later), "0006")
        insert_as_of_0006(later, demo_rig())
        for revision in reversed(revisions):
            with self.subTest(revision):
                old = first if revision < "0006" else later
                command.upgrade(migrations(old), revision)
                dump = self.file.with_name(f"{revision}.dump")
                backup._run("pg_dump", make_url(old), ["--format=custom", "--no-owner", f"--file={dump}"])
                bring_back(self.url, dump)
                if old is later:
                    self.assertEqual(rigs_at(self.url).export("lantern-evening"), demo_rig())
                else:
                    self.assertEqual([rig.id for rig in rigs_at(self.url).list_all()], ["r"])

    def test_a_table_newer_than_the_backup_does_not_survive_it(self) -> None:
        migrate(self.url)
        back_up(self.url, self.file)
        with create_engine(self.url).begin() as connection:
            connection.execute(text("CREATE TABLE newer (n integer)"))
        bring_back(self.url, self.file)
        self.assertNotIn("newer", inspect(create_engine(self.url)).get_table_names())

    def test_a_backup_with_any_byte_changed_is_refused_and_changes_nothing(self) -> None:
        migrate(self.url)
        saved = rigs_at(self.url).import_rig(demo_rig(), PERSON).rig
        back_up(self.url, self.file)
        whole = self.file.read_bytes()
        for place in (*range(300, len(whole) - 400, len(whole) // 9), 40, len(whole) - 30):
            damaged = bytearray(whole)
            damaged[place] ^= 0x04
            self.file.write_bytes(damaged)
            with self.subTest(place):
                try:
                    bring_back(self.url, self.file)
                except BackupProblem as refused:
                    self.assertIn("Nothing was changed", str(refused))
                # A byte that says nothing (the hour a file was put in) may differ.
                self.assertEqual(rigs_at(self.url).export(saved.id), saved)
        self.file.write_bytes(whole[: len(whole) // 2])
        with self.assertRaises(BackupProblem):
            bring_back(self.url, self.file)

    def test_no_text_of_the_database_is_shown(self) -> None:
        migrate(self.url)
        self.file.write_bytes(b"PGDMP and nothing that follows")
        with self.assertRaises(BackupProblem) as refused, self.assertLogs("ruvak.backup"):
            bring_back(self.url, self.file)
        for words in ("pg_restore", "error:", "relation"):
            self.assertNotIn(words, str(refused.exception))

    def test_it_is_brought_back_while_others_read_and_they_read_on(self) -> None:
        migrate(self.url)
        saved = rigs_at(self.url).import_rig(demo_rig(), PERSON).rig
        back_up(self.url, self.file)
        rigs, stop, problems = rigs_at(self.url), threading.Event(), list[str]()

        def read() -> None:
            while not stop.is_set():
                try:
                    rigs.export(saved.id)
                except RuvakError as problem:
                    problems.append(str(problem))
                except Exception as problem:
                    problems.append(type(problem).__name__)

        readers = [threading.Thread(target=read) for _ in range(3)]
        for reader in readers:
            reader.start()
        try:
            for _ in range(3):
                bring_back(self.url, self.file)
        finally:
            stop.set()
            for reader in readers:
                reader.join()
        self.assertEqual(rigs.export(saved.id), saved)
        self.assertLessEqual(set(problems), {"OperationalError", "AdminShutdown"})

    def test_people_come_back_but_nobody_is_signed_in_and_no_link_opens(self) -> None:
        """What was signed out or revoked after the backup must not open again by it."""
        migrate(self.url)
        sessions = sessions_for(engine_for(self.url))
        rig = rigs_at(self.url).import_rig(demo_rig(), PERSON).rig.id
        token = signed_in(sessions, "Hanne Brook", "technician")
        link = Links(sessions).add(rig, "Stage tablet", "read", 4, "Hanne Brook")
        self.assertIsNotNone(SignIns(sessions).access(token))
        back_up(self.url, self.file)
        bring_back(self.url, self.file)
        sign_ins = SignIns(sessions_for(engine_for(self.url)))
        self.assertIsNone(sign_ins.access(token))
        with self.assertRaises(NotFound):
            sign_ins.with_link(link.token, BROWSER, has_account=False)
        self.assertEqual([person.name for person in people_at(self.url).list_all()], ["Hanne Brook"])

    def test_a_process_does_not_take_what_it_keeps_for_what_was_brought_back(self) -> None:
        migrate(self.url)
        rigs, edits = process_at(self.url)
        saved = rigs.import_rig(demo_rig(), PERSON).rig
        back_up(self.url, self.file)
        edits.make(saved.id, "0.0", length(20.0), PERSON)
        bring_back(self.url, self.file)
        other, other_edits = process_at(self.url)
        other_edits.make(saved.id, "0.0", length(7.0), PERSON)
        self.assertEqual(rigs.export(saved.id), other.export(saved.id))

    def test_what_goes_wrong_at_the_last_step_leaves_the_old_database(self) -> None:
        migrate(self.url)
        saved = rigs_at(self.url).import_rig(demo_rig(), PERSON).rig
        back_up(self.url, self.file)
        rigs_at(self.url).delete(saved.id)
        with (
            mock.patch.object(backup, "_put_in_place", side_effect=KeyboardInterrupt),
            self.assertRaises(KeyboardInterrupt),
        ):
            bring_back(self.url, self.file)
        self.assertEqual(list(rigs_at(self.url).list_all()), [])
        bring_back(self.url, self.file)
        self.assertEqual(rigs_at(self.url).export(saved.id), saved)
        self.assertEqual(self._databases_left(), [])

    def test_a_stop_while_the_two_change_places_leaves_the_old_one_open(self) -> None:
        migrate(self.url)
        saved = rigs_at(self.url).import_rig(demo_rig(), PERSON).rig
        back_up(self.url, self.file)
        stopped = mock.patch.object(psycopg.Connection, "transaction", side_effect=KeyboardInterrupt)
        with stopped, self.assertRaises(KeyboardInterrupt):
            bring_back(self.url, self.file)
        self.assertEqual(rigs_at(self.url).export(saved.id), saved)

    def _databases_left(self) -> list[str]:
        name = make_url(self.url).database
        with create_engine(make_url(self.url).set(database="postgres")).connect() as connection:
            rows = connection.execute(
                text("SELECT datname FROM pg_database WHERE datname LIKE :like"), {"like": f"{name}_%"}
            )
            return [row[0] for row in rows]
