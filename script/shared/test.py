"""Runs the static checks, the interface's tests and the Python suites, and counts them together."""

import os
import re
import subprocess
import sys
import time
import unittest
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path

from script.shared import postgres

CHECKOUT = Path(__file__).resolve().parents[2]
GROUPS = (
    ("browser/runs",),
    ("browser/typing",),
    ("browser/house", "browser/stage"),
    ("store", "service", "web", "cli", "script"),
    ("core", "outside", "formats", "standins"),
)
"""Suites that run one after the other; the groups run beside each other, since those with a browser mostly wait."""
SUITES = tuple(suite for group in reversed(GROUPS) for suite in group)
NEEDS_DATABASE = {"store", "service", "web", "cli", "browser/runs", "browser/typing", "browser/house", "browser/stage"}
PYTHON = str(CHECKOUT / ".venv/bin/python")
TOOLS = CHECKOUT / ".venv/bin"


@dataclass(frozen=True)
class Check:
    """A command that must succeed."""

    name: str
    command: tuple[str, ...]
    folder: str = "."


CHECKS = (
    Check("python format", (str(TOOLS / "ruff"), "format", "--check", ".")),
    Check("python lint", (str(TOOLS / "ruff"), "check", ".")),
    Check("python types", (str(TOOLS / "mypy"),)),
    Check("layers", (str(TOOLS / "lint-imports"),)),
    Check("interface lint and format", ("npm", "run", "--silent", "lint"), "frontend"),
    Check("interface types", ("npm", "run", "--silent", "check"), "frontend"),
)


def main() -> int:
    """0 when everything passed."""
    os.chdir(CHECKOUT)
    asked = tuple(sys.argv[1:])
    suites = tuple(suite for suite in SUITES if not asked or {suite, suite.split("/")[0]} & set(asked))
    if unknown := set(asked) - {name for suite in SUITES for name in (suite, suite.split("/")[0])}:
        print(f"There is no suite {', '.join(sorted(unknown))}; there are {', '.join(SUITES)}.", file=sys.stderr)
        return 2
    with ThreadPoolExecutor(max_workers=1) as pool:
        # Beside the suites, of which those with a browser wait now and then.
        others = [pool.submit(count) for count in (() if asked else (_static, _interface))]
        counts = [_python(suites), *(other.result() for other in others)]
    passed, failed = (sum(column) for column in zip(*counts, strict=True))
    print(f"{passed} passed, {failed} failed")
    return 1 if failed else 0


def _static() -> tuple[int, int]:
    outcomes = [_run(check) for check in CHECKS]
    return outcomes.count(True), outcomes.count(False)


def _run(check: Check) -> bool:
    began = time.monotonic()
    done = subprocess.run(check.command, cwd=check.folder, check=False, text=True, capture_output=True)
    print(f"{'ok  ' if done.returncode == 0 else 'FAIL'} {check.name} ({time.monotonic() - began:.0f} s)", flush=True)
    if done.returncode != 0:
        print(done.stdout + done.stderr, flush=True)
    return done.returncode == 0


def _interface() -> tuple[int, int]:
    """vitest; its own count goes into ours."""
    done = subprocess.run(
        ("npx", "--no-install", "vitest", "run", "--reporter=default"),
        cwd="frontend",
        check=False,
        text=True,
        capture_output=True,
        env={**os.environ, "NO_COLOR": "1"},
    )
    line = re.search(r"^\s*Tests\s+(.*)$", done.stdout, re.MULTILINE)
    counts = {word: int(number) for number, word in re.findall(r"(\d+) (passed|failed)", line[1] if line else "")}
    passed, failed = counts.get("passed", 0), counts.get("failed", 0)
    print(
        f"{'ok  ' if done.returncode == 0 else 'FAIL'} interface tests ({passed} passed, {failed} failed)", flush=True
    )
    if done.returncode != 0:
        print(done.stdout + done.stderr, flush=True)
    return passed, failed or int(done.returncode != 0)


def _python(suites: tuple[str, ...]) -> tuple[int, int]:
    """The groups beside each other, the first of them here."""
    here, *beside = [group for group in (tuple(s for s in group if s in suites) for group in GROUPS) if group]
    with ThreadPoolExecutor(max_workers=len(GROUPS)) as pool:
        outcomes = [pool.submit(_python_beside, group) for group in beside]
        counts = [_group(here), *(outcome.result() for outcome in outcomes)]
    return sum(good for good, _ in counts), sum(bad for _, bad in counts)


def _python_beside(suites: tuple[str, ...]) -> tuple[int, int]:
    """A group in a process of its own, which counts itself; what it said is shown when it is done."""
    command = (PYTHON, "-m", "script.shared.test", *suites)
    said = subprocess.run(command, check=False, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True).stdout
    print(said, flush=True)
    counted = re.search(r"^(\d+) passed, (\d+) failed$", said, re.MULTILINE)
    return (int(counted[1]), int(counted[2])) if counted else (0, 1)


def _group(suites: tuple[str, ...]) -> tuple[int, int]:
    return _run_with_database(suites) if NEEDS_DATABASE & set(suites) else _unittest(suites)


def _run_with_database(suites: tuple[str, ...]) -> tuple[int, int]:
    """With a database server, always a new one: a test must not lean on what an earlier run left."""
    folder = postgres.folder_for(CHECKOUT, f"test-{suites[0].replace('/', '-')}-database")
    postgres.remove(folder)
    try:
        os.environ["RUVAK_TEST_SERVER"] = postgres.start(folder).url("postgres")
        return _unittest(suites)
    finally:
        postgres.remove(folder)


def _unittest(suites: tuple[str, ...]) -> tuple[int, int]:
    loader = unittest.defaultTestLoader
    tests = unittest.TestSuite(
        loader.discover(f"tests/{suite}", top_level_dir=".", pattern="test_*.py") for suite in suites
    )
    result = unittest.TextTestRunner(verbosity=1, stream=sys.stdout).run(tests)
    failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
    return result.testsRun - failed - len(result.skipped), failed


if __name__ == "__main__":
    sys.exit(main())
