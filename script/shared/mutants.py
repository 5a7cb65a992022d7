"""Plants faults in a copy of the computation's modules, one at a time, and runs tests on each until one fails.

A sample, drawn with a seed, of all mutants that cosmic-ray knows of these modules. What survives is printed with its
difference: it is either the same program in other words, or something that no test looks at (docs/mutants.md).
"""

import os
import random
import shutil
import subprocess
import sys
import time
from pathlib import Path

from cosmic_ray.commands.init import init
from cosmic_ray.mutating import mutate_and_test
from cosmic_ray.work_db import WorkDB
from cosmic_ray.work_item import MutationSpec, TestOutcome

CHECKOUT = Path(__file__).parents[2]
COPY = CHECKOUT / ".ruvak" / "mutants"
ROOMS = ("circuit", "solve", "results")
SKIPPED = "BitOr"
"""Operators that only rewrite annotations (int | None): every such mutant fails while it is imported."""
QUICK = {
    "circuit": (
        *("tests.core.circuit.test_ports", "tests.core.circuit.test_passive", "tests.core.circuit.test_disturbing"),
        *("tests.core.circuit.test_build", "tests.core.stage.test_flux", "tests.core.stage.test_plan"),
    ),
    "solve": ("tests.core.solve.test_solver", "tests.core.solve.test_condensed", "tests.core.solve.test_block_cache"),
    "results": (
        *("tests.core.results.test_formulas", "tests.core.results.test_phase_range", "tests.core.results.test_clamp"),
        *(
            "tests.core.results.test_results",
            "tests.core.results.test_connection_openings",
            "tests.core.results.test_norton",
        ),
        *("tests.core.results.test_ground_loops", "tests.outside.test_corners", "tests.outside.test_mechanisms"),
        *("tests.outside.test_meters", "tests.core.results.test_sources_and_options"),
        *("tests.core.results.test_destinations", "tests.core.trace.test_switching"),
    ),
}
"""A room's own tests are run first, since they catch most of its faults in a few seconds."""
THOROUGH = (
    *("tests.outside.test_circuits", "tests.outside.test_stated_fields", "tests.outside.test_earth_textbook"),
    *("tests.outside.test_known_wirings", "tests.outside.test_phantom", "tests.outside.test_noise"),
    *("tests.outside.test_passive", "tests.outside.test_pin1_and_cores", "tests.outside.test_lines"),
    *("tests.outside.test_loudspeakers", "tests.outside.test_cancellation", "tests.outside.test_earth_by_hand"),
    "tests.outside.test_programme_by_hand",
    *("tests.core.judge.test_rules", "tests.outside.test_library_rigs", "tests.core.test_analysis_cache"),
    *("tests.core.test_demo", "tests.core.test_directions", "tests.core.test_wild", "tests.core.test_any_wiring"),
)
"""After them the tests that look at whole rigs, the quickest first."""
LONGEST_S = 600.0


def main() -> None:
    """Prints each survivor as it is found, and the share that was caught."""
    numbers = [int(text) for text in sys.argv[1:]]
    how_many, seed, first = (*numbers, *(300, 1, 1)[len(numbers) :])[:3]
    copy_checkout()
    specs = sample(how_many, seed)
    os.environ["OMP_NUM_THREADS"] = "1"
    check_unchanged(command_for("circuit"))
    print(f"{len(specs)} mutants, seed {seed}")
    survivors, started = 0, time.monotonic()
    for number, spec in enumerate(specs[first - 1 :], first):
        result = mutate_and_test([spec], command_for(spec.module_path.parent.name), LONGEST_S)
        if result.test_outcome == TestOutcome.SURVIVED:
            survivors += 1
            print(f"\n{number}: survived: {spec.operator_name}, occurrence {spec.occurrence}\n{result.diff}")
        minutes = (time.monotonic() - started) / 60.0
        print(f"{number} tried, {survivors} survived, {minutes:.0f} min", flush=True)
    tried = len(specs) - first + 1
    print(f"caught {tried - survivors} of {tried}: {100.0 * (1 - survivors / tried):.1f} %")


def command_for(room: str) -> str:
    """Runs every test named here until one fails, those of a room first."""
    others = (test for name, tests in QUICK.items() if name != room for test in tests)
    return f"{CHECKOUT / '.venv/bin/python'} -B -m unittest -q -f {' '.join((*QUICK[room], *others, *THOROUGH))}"


def copy_checkout() -> None:
    """Everything committed or new, so that the checkout itself is never touched; makes the copy the working folder."""
    shutil.rmtree(COPY, ignore_errors=True)
    listed = subprocess.run(
        ["git", "ls-files", "-co", "--exclude-standard", "ruvak", "tests", "bench", "script"],
        cwd=CHECKOUT, check=True, capture_output=True, text=True,
    ).stdout  # fmt: skip
    for name in listed.splitlines():
        if (CHECKOUT / name).is_file():
            (COPY / name).parent.mkdir(parents=True, exist_ok=True)
            shutil.copy(CHECKOUT / name, COPY / name)
    os.chdir(COPY)


def sample(how_many: int, seed: int) -> list[MutationSpec]:
    """So many of all mutants of the rooms, in random order."""
    modules = [path for room in ROOMS for path in sorted(Path("ruvak/core", room).glob("*.py"))]
    database = WorkDB(":memory:", WorkDB.Mode.create)
    init(modules, database, {})
    every = [item.mutations[0] for item in database.work_items]
    every = [spec for spec in every if SKIPPED not in spec.operator_name]
    every.sort(key=lambda spec: (str(spec.module_path), spec.operator_name, spec.occurrence))
    return random.Random(seed).sample(every, min(how_many, len(every)))  # noqa: S311


def check_unchanged(command: str) -> None:
    """The tests pass on the copy as it is, or nothing could be said of what they catch."""
    if subprocess.run(command.split(), check=False).returncode != 0:
        sys.exit("The tests fail without any fault planted; mend that first.")


if __name__ == "__main__":
    main()
