"""Every folder says what lives in it and what it may import: what it says is what it does, and the linter allows it."""

import ast
import re
import tomllib
import unittest
from pathlib import Path

CHECKOUT = Path(__file__).parents[2]
CORE = CHECKOUT / "ruvak" / "core"
ROOMS = sorted(folder.parent for folder in CORE.glob("*/__init__.py"))
MOST_LINES = 5


def may_import(room: Path) -> set[str]:
    """The rooms its README names between "May import:" and the full stop; what stands in brackets is explanation."""
    found = re.search(r"May import: ([^.]*)\.", (room / "README.md").read_text())
    named = re.sub(r"\s*\([^)]*\)", "", found[1]) if found else ""
    return set(re.split(r",\s*", named)) - {""}


def imported_by(room: Path) -> set[str]:
    """The rooms of core that its modules import."""
    modules = [
        node.module
        for file in room.rglob("*.py")
        for node in ast.walk(ast.parse(file.read_text()))
        if isinstance(node, ast.ImportFrom) and node.module is not None
    ]
    prefix = "ruvak.core."
    return {name.removeprefix(prefix).split(".")[0] for name in modules if name.startswith(prefix)} - {room.name}


def layers() -> list[set[str]]:
    """The linter's order of core's rooms, from the top."""
    contracts = tomllib.loads((CHECKOUT / "pyproject.toml").read_text())["tool"]["importlinter"]["contracts"]
    (rooms,) = (one["layers"] for one in contracts if one["name"].startswith("The core's rooms"))
    return [{name.strip().strip("()").removeprefix("ruvak.core.") for name in layer.split("|")} for layer in rooms]


class Readmes(unittest.TestCase):
    def test_every_folder_has_a_short_one(self) -> None:
        floors = [CHECKOUT / "ruvak" / name for name in ("cli", "formats", "service", "store", "web")]
        others = [CHECKOUT / name for name in ("bench", "frontend", "script", "tests")]
        for folder in (*ROOMS, *floors, *others):
            lines = (folder / "README.md").read_text().strip().splitlines()
            limit = MOST_LINES if folder.name != "bench" else 12
            self.assertLessEqual(len(lines), limit, folder.name)

    def test_a_room_imports_what_its_readme_names(self) -> None:
        self.assertGreater(len(ROOMS), 10)
        for room in ROOMS:
            self.assertLessEqual(imported_by(room), may_import(room), room.name)

    def test_the_linter_allows_what_a_readme_names(self) -> None:
        order = layers()
        place = {name: index for index, layer in enumerate(order) for name in layer}
        for room in ROOMS:
            self.assertIn(room.name, place, "its place among the layers in pyproject.toml is missing")
            for other in may_import(room):
                self.assertGreater(place[other], place[room.name], f"{room.name} may import {other}")

    def test_a_readme_says_where_its_tests_are(self) -> None:
        for room in ROOMS:
            text = (room / "README.md").read_text()
            if (CHECKOUT / "tests" / "core" / room.name).is_dir():
                self.assertIn(f"tests/core/{room.name}", text, room.name)


if __name__ == "__main__":
    unittest.main()
