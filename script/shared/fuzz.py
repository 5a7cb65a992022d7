"""Long fuzzing: random rigs against ngspice or edited, faulty files, lines that change a rig, lines of any words; what
it finds becomes a fixture."""

import sys
import time
from collections.abc import Callable
from concurrent.futures import ProcessPoolExecutor
from os import cpu_count

from tests.support.fuzzing import Case, MakeUp, agree, agree_throughout, change, read, read_line, survive

KINDS: dict[str, Callable[[int], Case]] = {
    "ngspice": agree,
    "ngspice-throughout": agree_throughout,
    "edits": survive,
    "files": read,
    "changes": change,
    "lines": read_line,
}
CASES = 10_000
TELL_EVERY = 200


def main() -> int:
    """0 when nothing was found: script/fuzz KIND [HOW-MANY [FIRST-SEED]]."""
    arguments = sys.argv[1:]
    if not arguments or arguments[0] not in KINDS:
        print(f"Say what to fuzz: {' or '.join(KINDS)}, then how many and from which seed.", file=sys.stderr)
        return 2
    many = int(arguments[1]) if len(arguments) > 1 else CASES
    first = int(arguments[2]) if len(arguments) > 2 else 1000
    began, found, of_all = time.monotonic(), 0, MakeUp()
    with ProcessPoolExecutor(max_workers=cpu_count()) as pool:
        seeds = range(first, first + many)
        for done, case in enumerate(pool.map(KINDS[arguments[0]], seeds, chunksize=4), 1):
            for fault in case.faults:
                print(fault, flush=True)
            found += len(case.faults)
            of_all.add(case.runs, case.floating, case.causes)
            if done % TELL_EVERY == 0:
                print(f"{done} of {many}, {found} found, {time.monotonic() - began:.0f} s", flush=True)
    print(of_all)
    print(f"{many} cases from seed {first}: {found} found")
    return 1 if found else 0


if __name__ == "__main__":
    sys.exit(main())
