"""Runs the benches by name; all of them without one."""

import sys

from bench import analysis, busy, editing, pull, reading, remedies, scale, scrolling, seen

BENCHES = {
    "reading": reading.main,
    "editing": editing.main,
    "analysis": analysis.main,
    "remedies": remedies.main,
    "scrolling": scrolling.main,
    "busy": busy.main,
    "pull": pull.main,
    "scale": scale.main,
    "seen": seen.main,
}


def main() -> int:
    """0 when every named bench ran."""
    names = sys.argv[1:] or list(BENCHES)
    if unknown := set(names) - set(BENCHES):
        print(f"There is no bench {', '.join(sorted(unknown))}; there are {', '.join(BENCHES)}.", file=sys.stderr)
        return 2
    for name in names:
        BENCHES[name]()
    return 0


if __name__ == "__main__":
    sys.exit(main())
