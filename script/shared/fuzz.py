"""Long fuzzing: random rigs against ngspice or edited, faulty files, lines that change a rig, lines of any words, parts
of a served application killed; what it finds becomes a fixture."""

import sys
import time
from collections.abc import Callable
from concurrent.futures import ProcessPoolExecutor
from os import cpu_count
from statistics import median

from tests.support.fuzzing import Case, MakeUp, agree, agree_throughout, change, read, read_line, survive
from tests.support.kills import Killed, kill_again_and_again

KINDS: dict[str, Callable[[int], Case]] = {
    "ngspice": agree,
    "ngspice-throughout": agree_throughout,
    "edits": survive,
    "files": read,
    "changes": change,
    "lines": read_line,
}
KILLS = "kills"
CASES = 10_000
TELL_EVERY = 200
TELL_KILLS_EVERY = 50
BACK_AIM_S = 10.0
"""Everything shall be back by itself within this time of a kill."""


def main() -> int:
    """0 when nothing was found: script/fuzz KIND [HOW-MANY [FIRST-SEED]]."""
    arguments = sys.argv[1:]
    if not arguments or arguments[0] not in (*KINDS, KILLS):
        print(f"Say what to fuzz: {' or '.join((*KINDS, KILLS))}, then how many and from which seed.", file=sys.stderr)
        return 2
    if arguments[0] == KILLS:
        return _kill(*map(int, arguments[1:]))
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


def _kill(many: int = 1_000, seed: int = 1000) -> int:
    """Parts of a served application killed under four clients."""

    def tell(so_far: Killed) -> None:
        if so_far.kills % TELL_KILLS_EVERY == 0:
            print(_line(so_far, seed), flush=True)

    result = kill_again_and_again(many, seed, tell)
    for fault in result.faults:
        print(fault)
    print(f"{_line(result, seed)}, {len(result.faults)} found")
    return 1 if result.faults else 0


def _line(killed: Killed, seed: int) -> str:
    back_s = killed.back_s or [0.0]
    late = sum(each > BACK_AIM_S for each in back_s)
    return (
        f"{killed.kills} kills from seed {seed}: {killed.acknowledged} edits acknowledged, all clients went on after "
        f"{median(back_s):.1f} s in the middle, {max(back_s):.1f} s at most, {late} times later than {BACK_AIM_S:.0f} s"
    )


if __name__ == "__main__":
    sys.exit(main())
