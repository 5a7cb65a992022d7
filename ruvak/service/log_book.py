"""The log: entries of checks, readings and notes come in from any device; what they say about a rig by now."""

import gzip
import json
from collections.abc import Callable
from typing import Any, Literal

from sqlalchemy import select
from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.log.entry import Entry, NewEntry
from ruvak.core.log.last_time import LastTime, last_time
from ruvak.core.log.standing import Duration, Standing, duration, standings
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.values import Record
from ruvak.service.analysis_parts import key_of, run_key
from ruvak.service.kept import KeptRigs, read_current
from ruvak.service.states import Person
from ruvak.service.versions import version_of
from ruvak.store import log
from ruvak.store.solved import SolvedParts, StoredPart
from ruvak.store.tables import RigRow


class RigLog(Record):
    """A rig's log and what it says."""

    last: int
    """The number of its latest entry."""
    entries: tuple[Entry, ...]
    """In the order in which they came in."""
    standings: tuple[Standing, ...]
    """The last answer about each run that was checked."""
    duration: Duration | None
    """How long the check took so far."""
    last_time: tuple[LastTime, ...]
    """What runs had at earlier occasions."""


class LogNews(Record):
    """What came into a rig's log since."""

    count: int
    """How many entries the rig has now: whoever then has another number has missed one that came in late, and reads the
    whole log."""
    entries: tuple[Entry, ...]
    """Those with higher numbers, in the order in which they came in."""


class LogBook:
    """The use cases over one database and the rigs kept in this process."""

    def __init__(self, sessions: sessionmaker[Session], kept: KeptRigs) -> None:
        self._sessions, self._kept, self._parts = sessions, kept, SolvedParts(sessions)

    def add(self, rig_id: str, entries: tuple[NewEntry, ...], person: Person) -> int:
        """Adds what is not there yet; the number of the rig's latest entry. Raises NotFound."""
        rig = read_current(self._sessions, self._kept, rig_id)
        entries = self._with_predictions(rig, entries)
        with self._sessions.begin() as session:
            occasion = session.scalar(select(RigRow.occasion_id).where(RigRow.id == rig_id))
            log.add(session, [log.row_of(rig, occasion, entry, person.id, person.name) for entry in entries])
            return log.last_number(session, rig_id)

    def tag(self, rig_id: str) -> str:
        """Changes with what read() returns. Raises NotFound."""
        with self._sessions() as session:
            saved = self._kept.current(session, rig_id)
            last = log.last_number(session, rig_id)
        key = key_of(saved.rig, "overview")
        is_solved = not self._parts.missing([key])
        return f"{last}-{version_of(saved.holders)}-{is_solved:d}"

    def news(self, rig_id: str, after: int) -> LogNews:
        """What came in after the entry with a number. Raises NotFound."""
        with self._sessions() as session:
            self._kept.current(session, rig_id)
            return LogNews(count=log.count(session, rig_id), entries=log.of_rig_after(session, rig_id, after))

    def read(self, rig_id: str) -> RigLog:
        """A rig's log. Raises NotFound."""
        with self._sessions() as session:
            rig = self._kept.current(session, rig_id).rig
            entries = log.of_rig(session, rig_id)
            before = log.copied_from(session, rig_id)
            earlier = log.of_rigs(session, before) if before else {}
        standing = standings(entries, self._of_runs(rig, "checked") if entries else {})
        had = last_time(earlier[rig_id] for rig_id in before if rig_id in earlier)
        runs = tuple(run.id for run in rig.runs)
        return RigLog(
            last=max((entry.number for entry in entries), default=0),
            entries=entries,
            standings=tuple(standing[run] for run in runs if run in standing),
            duration=duration(entries, standing, runs),
            last_time=tuple(had[run] for run in runs if run in had),
        )

    def _with_predictions(self, rig: Rig, entries: tuple[NewEntry, ...]) -> tuple[NewEntry, ...]:
        """Readings beside what is computed for the same runs, where that is at hand."""
        runs = {entry.run for entry in entries if entry.measured is not None and entry.measured.predicted is None}
        keys = {run: key for run, key in self._of_runs(rig, "key").items() if run in runs} if runs else {}
        details = self._parts.find_all([run_key(key) for key in keys.values()]) if keys else {}
        inputs = {run: _inputs_of(details[run_key(key)]) for run, key in keys.items() if run_key(key) in details}
        return tuple(_beside_computed(entry, inputs.get(entry.run or "")) for entry in entries)

    def _of_runs(self, rig: Rig, field: Literal["key", "checked"]) -> dict[str, str]:
        """What the overview says of each run as it is now; nothing where that is not computed yet."""
        overview = self._parts.find(key_of(rig, "overview"))
        if overview is None:
            return {}
        return {run["run"]: run[field] for run in json.loads(gzip.decompress(overview.body))["runs"]}


def _inputs_of(details: StoredPart) -> list[dict[str, Any]]:
    result: list[dict[str, Any]] = json.loads(gzip.decompress(details.body))["result"]["inputs"]
    return result


def _beside_computed(entry: NewEntry, inputs: list[dict[str, Any]] | None) -> NewEntry:
    measured = entry.measured
    if measured is None or measured.predicted is not None or inputs is None:
        return entry
    predicted = _PREDICTED[measured.quantity](inputs)
    return entry.model_copy(update={"measured": measured.model_copy(update={"predicted": predicted})})


def _hum_dbu(inputs: list[dict[str, Any]]) -> float | None:
    """Likely hum at the input that has most, unweighted, as a level meter without a filter reads it."""
    return max((each["hum"]["likely_dbu"] for each in inputs if each["hum"] is not None), default=None)


def _level_dbu(inputs: list[dict[str, Any]]) -> float | None:
    """Average programme at the input where most arrives."""
    levels = [level["arriving_dbu"] for each in inputs for level in each["levels"] if level["active"]]
    return max(levels, default=None)


_PREDICTED: dict[str, Callable[[list[dict[str, Any]]], float | None]] = {"hum_dbu": _hum_dbu, "level_dbu": _level_dbu}
