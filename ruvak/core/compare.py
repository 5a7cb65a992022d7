"""Two rigs side by side: which runs, devices and settings differ, and which findings came and went."""

from collections.abc import Callable, Iterator, Sequence
from typing import Literal, TypeVar

from ruvak.core.analyse import Analysis, RunAnalysis
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.sentences import write_signed
from ruvak.core.rig.part import SettingValue
from ruvak.core.rig.rig import Gear, KitItem, Rig, Run, name_of, setting_of
from ruvak.core.rig.values import Identified, Record
from ruvak.core.run_changes import RunChange, RunThen
from ruvak.core.trace.run_ends import ends_of

T = TypeVar("T", bound=Identified)
MOST_RUNS = 40
"""So many runs that differ are shown; the others are counted."""


class RunDifference(Record):
    """A run that is in only one of two rigs, or differs between them."""

    number: int
    """Its line in the input list."""
    change: RunChange
    """The run in both rigs: drawn, with its worst finding."""
    before_id: str | None
    """Its id in the first rig; null where it is not there."""
    after_id: str | None
    """Its id in the second; null where it is not there."""
    words: tuple[str, ...]
    """What differs."""
    came: tuple[Finding, ...]
    """Findings that only the second has."""
    went: tuple[Finding, ...]
    """Findings that only the first has."""


class GearDifference(Record):
    """A device that is in only one of two rigs, or is set otherwise."""

    name: str
    """What it is called."""
    what: Literal["added", "removed", "changed"]
    """Whether it came, went, or differs."""
    words: tuple[str, ...]
    """What differs, or what it is."""


class RigComparison(Record):
    """What a second rig has otherwise than a first."""

    before: str
    """What the first is called."""
    after: str
    """What the second is called."""
    runs: tuple[RunDifference, ...]
    """Runs that differ, by their numbers."""
    more_runs: int
    """How many more runs differ than are shown."""
    same_runs: int
    """How many runs are the same."""
    gear: tuple[GearDifference, ...]
    """Devices that differ."""


def compare(before: Rig, then: Analysis, after: Rig, now: Analysis) -> RigComparison:
    """Both rigs are prepared, with their analyses. Runs and devices belong together by their ids, as in a copy; else by
    their names."""
    solved_then = {run.run: run for run in then.runs}
    solved_now = {run.run: run for run in now.runs}
    pairs = list(_matched(before.runs, after.runs, lambda run: run.name))
    differ: list[RunDifference] = []
    for old, new in pairs:
        if (run := new or old) is None:
            continue
        was = solved_then[old.id] if old is not None else None
        came_to = solved_now[new.id] if new is not None else None
        words = tuple(_run_words(before, old, after, new))
        gone, come = _findings(was), _findings(came_to)
        went = tuple(finding for sentence, finding in gone.items() if sentence not in come)
        came = tuple(finding for sentence, finding in come.items() if sentence not in gone)
        if not words and not went and not came:
            continue
        differ.append(
            RunDifference(
                change=RunChange(run=run.id, name=run.name, before=_seen(was), after=_seen(came_to)),
                number=run.number,
                before_id=old.id if old is not None else None,
                after_id=new.id if new is not None else None,
                words=words,
                came=came,
                went=went,
            )
        )
    differ.sort(key=lambda entry: entry.number)
    return RigComparison(
        before=before.name,
        after=after.name,
        runs=tuple(differ[:MOST_RUNS]),
        more_runs=len(differ[MOST_RUNS:]),
        same_runs=len(pairs) - len(differ),
        gear=tuple(_gear(before, after)),
    )


def _matched(before: Sequence[T], after: Sequence[T], name: Callable[[T], str]) -> Iterator[tuple[T | None, T | None]]:
    """Things that belong together by their ids or names, and those of one side alone."""
    by_id = {thing.id: thing for thing in after}
    ids = {thing.id for thing in before}
    by_name = {name(thing).lower(): thing for thing in reversed(after) if thing.id not in ids}
    for thing in before:
        other = by_id.pop(thing.id, None) or by_name.pop(name(thing).lower(), None)
        if other is not None:
            by_id.pop(other.id, None)
        yield thing, other
    for thing in by_id.values():
        yield None, thing


def _findings(run: RunAnalysis | None) -> dict[str, Finding]:
    if run is None:
        return {}
    return {finding.sentence: finding for finding in run.findings if finding.grade is not Grade.CLEAR}


def _seen(run: RunAnalysis | None) -> RunThen | None:
    return RunThen(finding=run.findings[0], drawing=run.drawing) if run is not None else None


def _run_words(before: Rig, old: Run | None, after: Rig, new: Run | None) -> Iterator[str]:
    if old is None or new is None:
        yield "added" if old is None else "removed"
        return
    if old.number != new.number:
        yield f"number {old.number} is {new.number}"
    if old.name != new.name:
        yield f"renamed from {old.name}"
    sides: tuple[tuple[Literal["in", "out"], str], ...] = (("out", "from"), ("in", "into"))
    for side, word in sides:
        was, now = _sockets(before, old, side), _sockets(after, new, side)
        if was != now:
            yield f"{word} {now or 'nothing'} (before: {was or 'nothing'})"
    pieces, others = _pieces(after, new), _pieces(before, old)
    if pieces != others:
        yield f"{' + '.join(pieces) or 'no pieces'} in place of {' + '.join(others) or 'no pieces'}"
    if old.note != new.note:
        yield f"noted: {new.note}" if new.note else "note removed"


def _sockets(rig: Rig, run: Run, side: Literal["in", "out"]) -> str:
    labels: dict[str, list[str]] = {}
    for end, connector in ends_of(rig, run, side).items():
        labels.setdefault(end.owner, []).append(connector.label)
    return "; ".join(f"{name_of(rig, owner)}: {' and '.join(own)}" for owner, own in labels.items())


def _pieces(rig: Rig, run: Run) -> list[str]:
    result = []
    for piece in run.pieces:
        item = rig.owners_by_id[piece]
        if isinstance(item, KitItem):
            # What is still to be got bears no tag that anybody could read.
            name = item.tag if item.owned else rig.part_of(piece).name
            result.append(f"{name}{f' ({item.length_m:g} m)' if item.length_m else ''}")
    return result


def _gear(before: Rig, after: Rig) -> Iterator[GearDifference]:
    for old, new in _matched(before.gear, after.gear, lambda device: device.name):
        if old is None and new is not None:
            yield GearDifference(name=new.name, what="added", words=(after.part_of(new.id).name,))
        elif new is None and old is not None:
            yield GearDifference(name=old.name, what="removed", words=(before.part_of(old.id).name,))
        elif old is not None and new is not None and (words := tuple(_device_words(before, old, after, new))):
            yield GearDifference(name=new.name, what="changed", words=words)


def _device_words(before: Rig, old: Gear, after: Rig, new: Gear) -> Iterator[str]:
    part, was_part = after.part_of(new.id), before.part_of(old.id)
    if part.id != was_part.id:
        yield f"{part.name} in place of {was_part.name}"
        return
    if old.name != new.name:
        yield f"renamed from {old.name}"
    for setting in part.settings:
        was, now = setting_of(old, part, setting.id), setting_of(new, part, setting.id)
        if was != now:
            yield f"{setting.label}: {_value(now)} (was {_value(was)})"
    if (was_at := _outlet(before, old)) != (at := _outlet(after, new)):
        yield f"at {at} (was at {was_at})"
    if old.faders_db != new.faders_db:
        yield "faders"
    if old.condition != new.condition:
        yield f"{new.condition}{f', {new.remark}' if new.remark else ''} (was {old.condition})"


def _outlet(rig: Rig, device: Gear) -> str:
    points = {point.id: point.name for point in rig.venue.earth}
    return points.get(device.outlet or "", "an outlet not known yet")


def _value(value: SettingValue) -> str:
    if isinstance(value, bool):
        return "on" if value else "off"
    return f"{write_signed(value)} dB" if isinstance(value, float | int) else str(value)
