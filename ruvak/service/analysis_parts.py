"""An analysis in parts, each kept by what it was computed from."""

import hashlib
import re
from collections import OrderedDict

from ruvak import __version__
from ruvak.core.analyse import Analysis, RunAnalysis
from ruvak.core.log.as_checked import key_as_checked
from ruvak.core.rig.content import content_hash
from ruvak.core.rig.rig import Rig, Run
from ruvak.service.states import DestinationList, Overview, RunSummary
from ruvak.store.solved import SolvedParts, StoredPart, part_of

SHAPE = 2
"""Counts up where a kept part has other fields than before, so that none of another shape is read."""


def key_of(rig: Rig, part: str) -> str:
    """By what a part of a rig's analysis is kept: the rig's content, the program's version, the part's name."""
    return f"{part}:{__version__}.{SHAPE}:{content_hash(rig)}"


def run_key(etag: str) -> str:
    """By what a run's details are kept: their own content, since an edit leaves most runs as they are."""
    return f"run:{etag}"


def card_key(etag: str, run: Run, rig: Rig) -> str:
    """By what a run's card is kept: its details, what it is called, and how the house sets its levels."""
    venue = f"{rig.venue.house.model_dump_json()} {rig.venue.programme_db_spl} {rig.alignment.model_dump_json()}"
    called = hashlib.sha256(f"{run.number} {run.name} {venue}".encode()).hexdigest()[:16]
    return f"card:{__version__}.{SHAPE}:{etag}:{called}"


def remedies_key(rig: Rig, beside: Rig, run_id: str, first: bool) -> str:
    """By what a run's remedies are kept: the rig, the same with what is within reach, and whether all were sought."""
    return (
        f"{'remedy' if first else 'remedies'}:{__version__}.{SHAPE}:{content_hash(rig)}:{content_hash(beside)}:{run_id}"
    )


class RunParts:
    """Parts of runs as they were written last: what an edit leaves as it is need not be written again."""

    def __init__(self, most: int = 8192) -> None:
        self._most = most
        self._written: OrderedDict[tuple[str, str], tuple[RunAnalysis, StoredPart]] = OrderedDict()

    def part(self, rig_id: str, run: RunAnalysis) -> StoredPart:
        """A run's details as they are sent."""
        known = self._written.get((rig_id, run.run))
        if known is None or known[0] != run:
            known = run, part_of(sent(run.model_dump_json().encode()))
            self._written[rig_id, run.run] = known
            if len(self._written) > self._most:
                self._written.popitem(last=False)
        return known[1]


def keep(parts: SolvedParts, rig: Rig, analysis: Analysis, written: RunParts) -> StoredPart:
    """Keeps an analysis in parts; returns the overview, as it is kept where another process was first."""
    runs = [(run, written.part(rig.id, run)) for run in analysis.runs]
    overview = part_of(overview_of(rig, analysis, [part.etag for _, part in runs]).model_dump_json().encode())
    destinations = part_of(DestinationList(analysis.destinations).model_dump_json().encode())
    missing = parts.missing([run_key(part.etag) for _, part in runs])
    details = {run_key(part.etag): part for _, part in runs}
    parts.keep(
        [
            *((key, details[key]) for key in missing),
            (key_of(rig, "destinations"), destinations),
            # Last, since whoever finds it relies on the others.
            (key_of(rig, "overview"), overview),
        ]
    )
    return parts.find(key_of(rig, "overview")) or overview


def sent(text: bytes) -> bytes:
    """JSON as it is sent: figures to a thousandth, or four digits where they are smaller than one.

    Everything in a rig hangs together by the building's earth, so an edit moves each figure by a billionth; sent so, a
    run that it does not concern stays the same to the letter and is not sent again.
    """
    return _FIGURE.sub(_shorter, text)


def _shorter(result: re.Match[bytes]) -> bytes:
    if (figure := result["figure"]) is None:
        return result[0]
    value = float(figure)
    return repr(round(value, 3)).encode() if abs(value) >= 1.0 else b"%.4g" % value


_FIGURE = re.compile(
    rb'(?:"[^"\\]*(?:\\.[^"\\]*)*"[^-"0-9]*)+|(?P<figure>-?\d+\.\d{4,}(?:e[+-]?\d+)?|-?\d+(?:\.\d+)?e[+-]?\d+)'
)
"""Texts are passed over whole, so that a name with a figure in it stays as somebody wrote it."""


def overview_of(rig: Rig, analysis: Analysis, keys: list[str]) -> Overview:
    """At a glance; `keys`: of the runs' details, in order."""
    checked = [
        key_as_checked(rig, run, own.findings, [(control.gear, control.setting) for control in own.controls])
        for run, own in zip(rig.runs, analysis.runs, strict=True)
    ]
    return Overview(
        rig=analysis.rig,
        verdict=analysis.verdict,
        findings=analysis.findings,
        assumed=analysis.assumed,
        runs=tuple(summary_of(*of_run) for of_run in zip(analysis.runs, keys, checked, strict=True)),
    )


def summary_of(run: RunAnalysis, key: str, checked: str) -> RunSummary:
    """A run in the overview: its worst finding speaks for it."""
    worst = run.findings[0]
    inputs = run.result.inputs
    into = inputs[0].gear if inputs else None
    return RunSummary(run=run.run, key=key, checked=checked, grade=worst.grade, sentence=worst.sentence, into=into)
