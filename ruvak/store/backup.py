"""Whole-database backup and restore with PostgreSQL's own tools."""

import os
import shutil
import subprocess
from pathlib import Path

from sqlalchemy.engine import make_url

from ruvak.core.errors import RuvakError


class BackupProblem(RuvakError):
    """pg_dump or pg_restore is missing or refused; the message carries its words."""

    code = "backup"


def backup(url: str, file: Path) -> None:
    """Writes every rig with its history into `file`; an existing one is never overwritten."""
    if file.exists():
        raise BackupProblem(f"{file} exists already; name another file, so that no backup is lost.")
    partial = file.with_name(file.name + ".partial")
    try:
        _run("pg_dump", url, ["--format=custom", "--no-owner", f"--file={partial}"])
        partial.replace(file)
    except OSError as problem:
        raise BackupProblem(f"{file} cannot be written: {problem.strerror}.") from problem
    finally:
        partial.unlink(missing_ok=True)


def restore(url: str, file: Path) -> None:
    """Replaces everything in the database by the backup, all or nothing."""
    if not file.is_file():
        raise BackupProblem(f"There is no file {file}.")
    _run("pg_restore", url, ["--clean", "--if-exists", "--no-owner", "--single-transaction", str(file)])


def _run(tool: str, url: str, arguments: list[str]) -> None:
    address = make_url(url)
    where = [f"--host={address.host}", f"--port={address.port}", f"--username={address.username}"]
    environment = {**os.environ, "PGPASSWORD": address.password or ""}
    command = [_path(tool), *where, f"--dbname={address.database}", *arguments]
    done = subprocess.run(command, env=environment, check=False, text=True, capture_output=True)  # noqa: S603
    if done.returncode != 0:
        raise BackupProblem(f"{tool} stopped: {done.stderr.strip()} Nothing was changed.")


def _path(tool: str) -> str:
    """The newest installed one: it reads every older server's data."""
    result = sorted(Path("/usr/lib/postgresql").glob(f"*/bin/{tool}"), key=lambda path: int(path.parts[-3]))
    path = str(result[-1]) if result else shutil.which(tool)
    if path is None:
        raise BackupProblem(f"{tool} is not installed; it comes with PostgreSQL.")
    return path
