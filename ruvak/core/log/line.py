"""A line of the log as it is read: whatever happened, in words."""

from datetime import datetime
from typing import Literal

from ruvak.core.log.entry import Answer, Entry, EntryId
from ruvak.core.log.words import say
from ruvak.core.rig.values import Record

LineKind = Literal["check", "reading", "note", "test", "step", "working", "change"]


class LogLine(Record):
    """Something that happened, in words."""

    id: str
    """Its own id, of its kind."""
    at: datetime
    """When."""
    kind: LineKind
    """A checked run, a level, a note, a tested lead, a step, somebody at work, or a change of rig or cupboard."""
    words: str
    """What."""
    answer: Answer | None = None
    """Of a check."""
    rig: str | None
    """The rig; null for what concerns the house."""
    rig_name: str
    """What the rig or the date was called."""
    venue: str
    """Where."""
    run: str | None
    """The run."""
    run_name: str
    """What the run was called."""
    things: tuple[str, ...]
    """Devices and pieces by name."""
    person: str
    """Who."""
    corrected: bool
    """Whether a later entry stands in its place."""
    photos: tuple[EntryId, ...] = ()
    """Pictures that were taken."""


def line_of(entry: Entry, venue: str, corrected: bool) -> LogLine:
    """An entry in words."""
    return LogLine(
        id=entry.id,
        at=entry.at,
        kind=entry.kind,
        words=say(entry),
        answer=entry.answer,
        rig=entry.rig,
        rig_name=entry.rig_name,
        venue=venue,
        run=entry.run,
        run_name=entry.run_name,
        things=entry.thing_names,
        person=entry.person,
        corrected=corrected,
        photos=entry.photos,
    )
