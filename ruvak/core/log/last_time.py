"""What a run had the last time: what was wrong then is worth a look today."""

from collections.abc import Iterable
from datetime import date

from ruvak.core.log.entry import Entry, effective
from ruvak.core.log.words import say
from ruvak.core.rig.values import Id, Record, Words


class LastTime(Record):
    """What was wrong with a run at an earlier occasion, or with a lead that it uses."""

    run: Id
    """The run."""
    on: date
    """When."""
    words: Words
    """What, in words."""
    mended: bool
    """Whether it was answered as good afterwards on the same occasion."""


def last_time(earlier: Iterable[tuple[Entry, ...]]) -> dict[str, LastTime]:
    """By run. `earlier`: the entries of each rig that this one was copied from, the latest first, with the runs' ids as
    they are in this one. Only the latest rig in which a run was checked counts for it."""
    result: dict[str, LastTime] = {}
    seen: set[str] = set()
    for entries in earlier:
        by_run: dict[str, list[Entry]] = {}
        for entry in effective(entries):
            if entry.kind == "check" and entry.run is not None and entry.answer in ("good", "wrong"):
                by_run.setdefault(entry.run, []).append(entry)
        for run, checks in by_run.items():
            wrong = [check for check in checks if check.answer == "wrong"]
            if wrong and run not in seen:
                result[run] = LastTime(
                    run=run,
                    on=wrong[-1].at.date(),
                    words=say(wrong[-1], wrong[-1].thing_names)[:600],
                    mended=checks[-1].answer == "good",
                )
            seen.add(run)
    return result
