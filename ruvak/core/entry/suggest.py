"""Whole lines near to one that was not understood: the unknown name exchanged for those most like it."""

import re
from collections.abc import Callable

from rapidfuzz import fuzz, process

from ruvak.core.entry.names import Directory
from ruvak.core.entry.reading import ReadProblem
from ruvak.core.entry.words import plain
from ruvak.core.parts.library import library
from ruvak.core.rig.rig import Rig

MOST = 3
LOOKED_AT = 6
SLIP = 80.0
"""A name as like to a known one as this is mistyped: that one is offered first."""
NEAR = 70.0
"""Likeness below this, out of 100, is none."""
UNKNOWN_NAMES = ("unknown_source", "unknown_destination", "unknown_way")


def suggest_lines(
    rig: Rig, line: str, problem: ReadProblem, problem_of: Callable[[str], ReadProblem | None]
) -> tuple[str, ...]:
    """At most three lines that can be read, the nearest first; none for other problems than unknown names.

    `problem_of`: what is wrong with another line. Where something else is wrong too, lines that mend this much.
    """
    if problem.code not in UNKNOWN_NAMES:
        return ()
    name, places = _split(line[problem.start : problem.end])
    if problem.code == "unknown_source" and problem_of(mic := _as_microphone(line, problem, name, places)) is None:
        near = _near_lines(rig, line, problem, problem_of)
        is_slip = process.extractOne(plain(name), _devices(rig), scorer=fuzz.ratio, score_cutoff=SLIP) is not None
        return (*near[: MOST - 1], mic) if is_slip else (mic, *near[: MOST - 1])
    return _near_lines(rig, line, problem, problem_of)


def _as_microphone(line: str, problem: ReadProblem, name: str, places: str) -> str:
    """What nobody knows may be what a microphone stands before: "tabla mic"."""
    return f"{line[: problem.start]}{name} mic{places}{line[problem.end :]}"


def _near_lines(
    rig: Rig, line: str, problem: ReadProblem, problem_of: Callable[[str], ReadProblem | None]
) -> tuple[str, ...]:
    typed = line[problem.start : problem.end]
    name, places = _split(typed)
    words = _pieces() if problem.code == "unknown_way" else _devices(rig)
    near = process.extract(plain(name), words, scorer=fuzz.WRatio, score_cutoff=NEAR, limit=LOOKED_AT)
    result: list[str] = []
    partly: list[str] = []
    for word, _, _ in near:
        other = f"{line[: problem.start]}{word}{places}{line[problem.end :]}"
        left = problem_of(other) if len(result) < MOST else problem
        if left is None:
            result.append(other)
        elif left.code in UNKNOWN_NAMES and left.start > problem.start:
            partly.append(other)
    return tuple(result or partly[:MOST])


def _split(typed: str) -> tuple[str, str]:
    """The name, and the numbers and sides behind it."""
    places = re.search(r"(\s+(?:\d|[lr]\b|left\b|right\b).*)$", typed, re.IGNORECASE)
    return (typed[: places.start()], places[1]) if places else (typed, "")


def _devices(rig: Rig) -> list[str]:
    """Names of the rig's gear first, then what the library calls gear."""
    directory = Directory(rig)
    return list(dict.fromkeys([*(gear.name for gear in rig.gear), *directory.new.by_name]))


def _pieces() -> list[str]:
    parts = (part for part in library().values() if part.kind != "gear")
    return list(dict.fromkeys(word for part in parts for word in part.called))
