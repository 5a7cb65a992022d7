"""Rigs that are typed: lines into an empty one."""

from functools import cache
from pathlib import Path

from ruvak.core.entry.reader import read_all
from ruvak.core.parts.reading import rig_from_document
from ruvak.core.prepare import prepare
from ruvak.core.rig.edits import apply
from ruvak.core.rig.rig import Rig

_CORPUS = Path(__file__).parents[1] / "core" / "entry" / "empty_rig.txt"


def corpus() -> list[tuple[str, ...]]:
    """Lines typed into an empty rig, and what is expected of each; see the head of the file."""
    lines = [line for line in _CORPUS.read_text(encoding="utf-8").splitlines() if line and not line.startswith("#")]
    return [tuple(field.strip() for field in line.split(" || ")) for line in lines]


@cache
def empty_rig() -> Rig:
    venue = {"name": "Hall", "mains_hz": 50}
    return prepare(rig_from_document({"format": "ruvak-rig", "version": 2, "id": "new", "name": "New", "venue": venue}))


def typed_rig(*lines: str) -> Rig:
    """What the lines make together, each built on those before it."""
    rig = empty_rig()
    for reading in read_all(rig, "\n".join(lines)):
        if reading.edit is None:
            raise AssertionError(f"{reading.line}: {reading.sentence}")
        rig = apply(rig, reading.edit)
    return rig
