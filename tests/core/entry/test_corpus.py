"""Every line of the corpus is read as it says, and whatever is read can be made."""

import fnmatch
import unittest
from pathlib import Path

from ruvak.core.entry.reader import read
from ruvak.core.entry.reading import Reading, ReadRun
from ruvak.core.rig.edits import apply
from tests.support.entry import entry_rig

CORPUS = Path(__file__).with_name("corpus.txt")


def lines() -> list[tuple[str, str]]:
    found = []
    for row in CORPUS.read_text(encoding="utf-8").splitlines():
        if row and not row.startswith("#"):
            line, expected = row.split(" || ")
            found.append((line, expected.strip()))
    return found


def ends(wanted: str, got: tuple[str, ...], new: tuple[str, ...]) -> bool:
    patterns = wanted.split()
    if wanted.startswith("+"):
        return wanted[1:] in new
    return len(patterns) == len(got) and all(fnmatch.fnmatch(g, p) for g, p in zip(got, patterns, strict=True))


def matches(expected: str, run: ReadRun) -> str | None:
    """What differs, or None."""
    path, _, rest = expected.partition("|")
    length, _, option = rest.partition("|")
    stations = [one.strip() for one in path.split(" > ")]
    wanted = [(stations[0], run.sources, "source")]
    if run.goals or len(stations) > 2:
        wanted.append((stations[-1], run.goals, "goal"))
    through = stations[1:-1] if run.goals else stations[1:]
    for patterns, got, name in wanted:
        if not ends(patterns, tuple(map(str, got)), run.new_gear):
            return f"{name}: {got} is not {patterns}"
    if " ".join(through).split() != list(map(str, run.through)):
        return f"through: {run.through} is not {through}"
    if (float(length) if length.strip() else None) != run.length_m:
        return f"length: {run.length_m} is not {length}"
    if option.strip() in ("phantom", "mono"):
        return None if option.strip() in run.options else f"options: {run.options}"
    return None


class Corpus(unittest.TestCase):
    def test_it_is_large_enough(self) -> None:
        self.assertGreaterEqual(len(lines()), 150)

    def test_every_line_is_read_as_it_says(self) -> None:
        for line, expected in lines():
            with self.subTest(line):
                self.check(read(entry_rig(), line), expected)

    def check(self, reading: Reading, expected: str) -> None:
        if expected.startswith("?"):
            self.assertEqual([one.code for one in reading.problems], [expected.removeprefix("?").strip()])
            self.assertIsNone(reading.edit)
            return
        self.assertEqual(reading.problems, (), reading.sentence)
        wanted = [one.strip() for one in expected.split(" ; ")]
        self.assertEqual(len(reading.runs), len(wanted), reading.sentence)
        for one, run in zip(wanted, reading.runs, strict=True):
            self.assertIsNone(matches(one, run), matches(one, run))
            option = one.split("|")[2].strip() if one.count("|") == 2 else ""
            if option and option not in ("phantom", "mono"):
                parts = [apply_part(reading, piece.item) for piece in run.pieces]
                self.assertTrue(any(fnmatch.fnmatch(part, option) for part in parts), parts)
        assert reading.edit is not None
        apply(entry_rig(), reading.edit)


def apply_part(reading: Reading, item: str) -> str:
    assert reading.edit is not None
    return apply(entry_rig(), reading.edit).owners_by_id[item].part
