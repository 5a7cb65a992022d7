"""Whole-database backups with PostgreSQL's own tools: a ZIP archive of its dump and a manifest that vouches for it.

A backup is brought back into a new database, which takes the old one's name only when it is complete: readers see the
old one until then, and what does not succeed changes nothing.
"""

import hashlib
import json
import logging
import os
import shutil
import subprocess
import tempfile
import zipfile
from collections.abc import Callable
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

import psycopg
from psycopg import sql
from sqlalchemy.engine import URL, make_url
from sqlalchemy.exc import SQLAlchemyError

from ruvak import __version__
from ruvak.core.errors import RuvakError

DUMP, MANIFEST = "database.dump", "manifest.json"
FORMAT = 1
_DUMP_BEGINS = b"PGDMP"
"""Of a backup from before there were archives: the dump alone, without anything that vouches for it."""
_CHUNK = 1024 * 1024
log = logging.getLogger("ruvak.backup")


class BackupProblem(RuvakError):
    """A backup cannot be made or brought back; nothing was changed."""

    code = "backup"


def backup(url: str, file: Path) -> None:
    """Writes every rig with its history into `file`; an existing one is never overwritten. Raises BackupProblem."""
    if file.exists():
        raise BackupProblem(f"{file} exists already; name another file, so that no backup is lost.")
    partial = file.with_name(file.name + ".partial")
    try:
        with tempfile.TemporaryDirectory(dir=file.parent) as folder:
            dump = Path(folder) / DUMP
            _run("pg_dump", make_url(url), ["--format=custom", "--no-owner", f"--file={dump}"])
            manifest = {
                "format": FORMAT,
                "ruvak": __version__,
                "created": datetime.now(UTC).isoformat(timespec="seconds"),
                "bytes": dump.stat().st_size,
                "sha256": _sha256(dump),
            }
            # Stored, not packed: the dump is packed already.
            with zipfile.ZipFile(partial, "w", zipfile.ZIP_STORED) as archive:
                archive.writestr(MANIFEST, json.dumps(manifest, indent=2) + "\n")
                archive.write(dump, DUMP)
            partial.replace(file)
    except OSError as problem:
        raise BackupProblem(f"{file} cannot be written: {problem.strerror}.") from problem
    finally:
        partial.unlink(missing_ok=True)


def restore(url: str, file: Path, finish: Callable[[str], None]) -> None:
    """Replaces everything in the database by a backup, all or nothing. Raises BackupProblem.

    `finish`: brings the new database's schema up to date, by its address, before it takes the old one's place.
    """
    address = make_url(url)
    name = address.database or ""
    coming = f"{name[:40]}_restored_{os.getpid()}"
    with tempfile.TemporaryDirectory() as folder:
        dump = _taken_out(file, Path(folder))
        try:
            with _maintenance(address) as server:
                server.execute(sql.SQL("CREATE DATABASE {}").format(sql.Identifier(coming)))
                try:
                    there = address.set(database=coming)
                    _run("pg_restore", there, ["--no-owner", "--exit-on-error", "--single-transaction", str(dump)])
                    finish(there.render_as_string(hide_password=False))
                    _put_in_place(server, name, coming)
                finally:
                    server.execute(sql.SQL("DROP DATABASE IF EXISTS {} WITH (FORCE)").format(sql.Identifier(coming)))
        except (psycopg.Error, SQLAlchemyError) as problem:
            log.error("restore", exc_info=problem)
            sentence = "The database server refused to bring this backup back, or it does not fit this Ruvak."
            raise BackupProblem(f"{sentence} Nothing was changed.") from problem


def _put_in_place(server: psycopg.Connection[Any], name: str, coming: str) -> None:
    """The new database under the old one's name, between two requests; whoever reads the old one is cut off then."""
    old, new, gone = (sql.Identifier(each) for each in (name, coming, f"{coming}_old"))
    server.execute(sql.SQL("ALTER DATABASE {} ALLOW_CONNECTIONS false").format(old))
    try:
        server.execute("SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = %s", (name,))
        server.execute("SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = %s", (coming,))
        with server.transaction():
            server.execute(sql.SQL("ALTER DATABASE {} RENAME TO {}").format(old, gone))
            server.execute(sql.SQL("ALTER DATABASE {} RENAME TO {}").format(new, old))
    except BaseException:
        # Ctrl-C included: the old one must not stay closed.
        server.execute(sql.SQL("ALTER DATABASE {} ALLOW_CONNECTIONS true").format(old))
        raise
    server.execute(sql.SQL("DROP DATABASE {} WITH (FORCE)").format(gone))


def _maintenance(address: URL) -> psycopg.Connection[Any]:
    """A connection to the same server from which databases are made and renamed."""
    plain = address.set(drivername="postgresql", database="postgres").render_as_string(hide_password=False)
    return psycopg.connect(plain, autocommit=True, connect_timeout=10)


def _taken_out(file: Path, folder: Path) -> Path:
    """The dump in a backup, checked against its manifest. Raises BackupProblem."""
    if not file.is_file():
        raise BackupProblem(f"There is no file {file}.")
    with file.open("rb") as opened:
        if opened.read(len(_DUMP_BEGINS)) == _DUMP_BEGINS:
            return file
    damaged = f"{file} is damaged or no backup of Ruvak's: take another one. Nothing was changed."
    try:
        with zipfile.ZipFile(file) as archive:
            manifest = json.loads(archive.read(MANIFEST))
            with archive.open(DUMP) as packed, (folder / DUMP).open("wb") as out:
                shutil.copyfileobj(packed, out, _CHUNK)
    except (zipfile.BadZipFile, KeyError, ValueError, EOFError, NotImplementedError) as problem:
        raise BackupProblem(damaged) from problem
    if not isinstance(manifest, dict) or manifest.get("sha256") != _sha256(folder / DUMP):
        raise BackupProblem(damaged)
    if manifest.get("format") != FORMAT:
        raise BackupProblem(f"{file} was made by a newer Ruvak ({manifest.get('ruvak')}): bring it back with that one.")
    return folder / DUMP


def _sha256(file: Path) -> str:
    with file.open("rb") as opened:
        return hashlib.file_digest(opened, "sha256").hexdigest()


def _run(tool: str, address: URL, arguments: list[str]) -> None:
    where = [f"--host={address.host}", f"--port={address.port}", f"--username={address.username}"]
    environment = {**os.environ, "PGPASSWORD": address.password or ""}
    command = [_path(tool), *where, f"--dbname={address.database}", *arguments]
    done = subprocess.run(command, env=environment, check=False, text=True, capture_output=True)  # noqa: S603
    if done.returncode != 0:
        log.error("%s stopped: %s", tool, done.stderr.strip())
        words = {
            "pg_dump": "The database could not be read; is its server running?",
            "pg_restore": "This backup is damaged or made by a newer PostgreSQL: take another one.",
        }
        raise BackupProblem(f"{words[tool]} Nothing was changed.")


def _path(tool: str) -> str:
    """The newest installed one: it reads every older server's data."""
    result = sorted(Path("/usr/lib/postgresql").glob(f"*/bin/{tool}"), key=lambda path: int(path.parts[-3]))
    path = str(result[-1]) if result else shutil.which(tool)
    if path is None:
        raise BackupProblem(f"{tool} is not installed; it comes with PostgreSQL.")
    return path
