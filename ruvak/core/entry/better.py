"""What would do better than the pieces a line names: it stands beside the plan, never in its place."""

from collections.abc import Callable

from ruvak.core.entry.grammar import parse
from ruvak.core.entry.plan import option_of
from ruvak.core.entry.reading import Better, Reading
from ruvak.core.judge.finding import SEVERITY, Grade
from ruvak.core.rig.rig import Rig
from ruvak.core.units import METRES_PER_UNIT


def find_better(rig: Rig, reading: Reading, read: Callable[[str], Reading]) -> Better | None:
    """The same ends without the named pieces, where their worst grade is milder.

    None where nothing was named, something built in is passed through, or it is no better.
    """
    if not reading.runs or any(run.through for run in reading.runs):
        return None
    grade = _worst(reading)
    line = _without_pieces(reading.line, METRES_PER_UNIT[rig.length_unit])
    if line is None or grade is Grade.CLEAR:
        return None
    other = read(line)
    # Without a device that the line passes, or its USB box, it is another plan, not a better wiring of this one.
    if _devices(other) != _devices(reading) or SEVERITY[_worst(other)] <= SEVERITY[grade]:
        return None
    pieces = tuple(piece.words for run in other.runs for piece in run.pieces)
    return Better(line=line, grade=_worst(other), pieces=pieces)


def _devices(reading: Reading) -> list[set[str]]:
    """The devices at the ends of each run."""
    return [{end.owner for end in (*run.sources, *run.goals)} for run in reading.runs]


def _worst(reading: Reading) -> Grade:
    return min((run.grade for run in reading.runs), key=lambda grade: SEVERITY[grade])


def _without_pieces(line: str, metres_per_unit: float) -> str | None:
    """Source, destination, length and options of a line; None where it has nothing else."""
    sentence = parse(line, metres_per_unit)
    kept = [extra.text for extra in sentence.extras if option_of(extra) is not None]
    if len(sentence.pieces) <= 2 and len(kept) == len(sentence.extras):
        return None
    result = f"{sentence.pieces[0].text} > {sentence.pieces[-1].text}"
    if sentence.length is not None:
        result += f", {line[sentence.length.start : sentence.length.end].strip()}"
    elif sentence.bare_m is not None:
        result += f", {sentence.bare_m:g} m"
    return ", ".join([result, *kept])
