"""What the log says over the weeks: how long each check took, measured hum beside computed, and what fails again."""

from collections.abc import Iterable, Mapping
from datetime import date, datetime

from ruvak.core.log.entry import Entry, effective
from ruvak.core.log.words import say
from ruvak.core.rig.values import Decibels, Id, Record

MOST_POINTS = 60
"""Of a curve, the latest: more than a year of weeks."""
AGAIN = 2
"""On how many days something has to fail to be named."""


class Point(Record):
    """A level that was measured."""

    at: datetime
    """When."""
    value_dbu: Decibels
    """What was read, in dBu."""
    predicted_dbu: Decibels | None
    """What was computed at the time."""


class HumCurve(Record):
    """Hum of runs of one name in one venue."""

    run_name: str
    """What the run is called, week after week."""
    points: tuple[Point, ...]
    """In time order."""


class Recurring(Record):
    """A lead or device that failed on several days."""

    name: str
    """What is written on it."""
    days: tuple[date, ...]
    """On which, the latest first."""
    words: str
    """What it was the last time."""


class WorkDay(Record):
    """The check of a rig on a day."""

    rig: Id
    """The rig."""
    rig_name: str
    """What it was called."""
    began_at: datetime
    """The first answer or step."""
    ended_at: datetime
    """The last."""
    good: int
    """Runs and steps whose last answer was good."""
    wrong: int
    """Those whose last answer was wrong."""
    found: tuple[str, ...]
    """What was wrong in between, a sentence each."""
    doors_at: datetime | None
    """When people were let in."""


class Trends(Record):
    """Over the weeks."""

    days: tuple[WorkDay, ...]
    """The latest first."""
    hum: tuple[HumCurve, ...]
    """Those with the most points first."""
    again: tuple[Recurring, ...]
    """Those that failed most often first."""


def trends(entries: Iterable[Entry], doors: Mapping[str, datetime]) -> Trends:
    """From entries of any rigs. `doors`: by rig, where that is known."""
    counting = effective(tuple(entries))
    return Trends(days=_days(counting, doors), hum=_hum(counting), again=_again(counting))


def _days(entries: tuple[Entry, ...], doors: Mapping[str, datetime]) -> tuple[WorkDay, ...]:
    by_day: dict[tuple[str, date], list[Entry]] = {}
    for entry in entries:
        if entry.kind in ("check", "step") and entry.answer is not None and entry.rig is not None:
            by_day.setdefault((entry.rig, entry.at.date()), []).append(entry)
    result = []
    for (rig, _), own in by_day.items():
        last = {entry.step or entry.run: entry.answer for entry in own}
        result.append(
            WorkDay(
                rig=rig,
                rig_name=own[-1].rig_name,
                began_at=own[0].at,
                ended_at=own[-1].at,
                good=sum(answer == "good" for answer in last.values()),
                wrong=sum(answer == "wrong" for answer in last.values()),
                found=tuple(_found(entry) for entry in own if entry.answer == "wrong"),
                doors_at=doors.get(rig),
            )
        )
    return tuple(sorted(result, key=lambda day: day.began_at, reverse=True))


def _found(entry: Entry) -> str:
    said = say(entry, entry.thing_names)
    return f"{entry.run_name}: {said}" if entry.run_name else said


def _hum(entries: tuple[Entry, ...]) -> tuple[HumCurve, ...]:
    curves: dict[str, list[Point]] = {}
    for entry in entries:
        level = entry.measured
        if level is not None and level.quantity == "hum_dbu" and entry.run_name:
            point = Point(at=entry.at, value_dbu=level.value, predicted_dbu=level.predicted)
            curves.setdefault(entry.run_name, []).append(point)
    made = [HumCurve(run_name=name, points=tuple(points[-MOST_POINTS:])) for name, points in curves.items()]
    return tuple(sorted(made, key=lambda curve: (-len(curve.points), curve.run_name)))


def _again(entries: tuple[Entry, ...]) -> tuple[Recurring, ...]:
    failed: dict[str, list[Entry]] = {}
    for entry in entries:
        is_wrong = entry.answer == "wrong" or (entry.tested is not None and bool(entry.tested.faults))
        for name in entry.thing_names if is_wrong else ():
            failed.setdefault(name, []).append(entry)
    made = []
    for name, own in failed.items():
        days = tuple(sorted({entry.at.date() for entry in own}, reverse=True))
        if len(days) >= AGAIN:
            made.append(Recurring(name=name, days=days, words=say(own[-1])))
    return tuple(sorted(made, key=lambda thing: (-len(thing.days), thing.name)))
