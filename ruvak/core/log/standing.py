"""Where the check of each run stands, from what was answered."""

from collections.abc import Mapping
from datetime import datetime
from typing import Literal

from ruvak.core.judge.symptoms import Heard
from ruvak.core.log.entry import Answer, Entry, effective
from ruvak.core.rig.values import Id, Record


class Standing(Record):
    """The last answer about a run."""

    run: Id
    """The run."""
    answer: Answer
    """What it was."""
    heard: Heard | None
    """What was wrong."""
    words: str
    """What was written with it."""
    person: str
    """Who answered."""
    at: datetime
    """When."""
    entry: str
    """The entry, for a correction."""
    changed: bool
    """Whether the run is wired, set or judged otherwise since, so that it has to be checked again."""


def standings(entries: tuple[Entry, ...], keys: Mapping[str, str]) -> dict[str, Standing]:
    """By run, of those that were answered. `keys`: of the runs as they are now (`as_checked`); without a key of the
    run or of the answer, the run is not taken for changed."""
    result: dict[str, Standing] = {}
    for entry in effective(entries):
        if entry.kind == "check" and entry.run is not None and entry.answer is not None:
            now = keys.get(entry.run)
            result[entry.run] = Standing(
                run=entry.run,
                answer=entry.answer,
                heard=entry.heard,
                words=entry.words,
                person=entry.person,
                at=entry.at,
                entry=entry.id,
                changed=None not in (now, entry.checked) and now != entry.checked,
            )
    return result


class Duration(Record):
    """How long the check took."""

    began_at: datetime
    """The first answer."""
    ended_at: datetime
    """The last answer so far."""
    state: Literal["going on", "ready"]
    """Ready when every run was answered and none is wrong, skipped or changed since."""


def duration(entries: tuple[Entry, ...], standing: Mapping[str, Standing], runs: tuple[str, ...]) -> Duration | None:
    """From the first answer to the last; None before the first."""
    times = [entry.at for entry in effective(entries) if entry.kind == "check"]
    if not times:
        return None
    states = [standing.get(run) for run in runs]
    ready = bool(runs) and all(state is not None and state.answer == "good" and not state.changed for state in states)
    return Duration(began_at=times[0], ended_at=times[-1], state="ready" if ready else "going on")
