"""Entries of the log. They are made on any device, with or without a network, and come in any order."""

from typing import Annotated, Literal, Self

from pydantic import Field, StringConstraints, model_validator

from ruvak.core.rig.values import Decibels, Id, Label, Moment, Record, Words

EntryId = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9-]{8,64}$")]
"""Made by the device, so that an entry that is sent twice is there once."""
RunKey = Annotated[str, StringConstraints(pattern=r"^[0-9a-f]{8,64}$")]
Answer = Literal["good", "wrong", "skipped"]
Heard = Literal["silent", "one_side", "thin", "hum", "crackle", "weak", "distorted"]
HEARD_IN_WORDS: dict[Heard, str] = {
    "silent": "silent",
    "one_side": "one side only",
    "thin": "thin and hollow",
    "hum": "hum or buzz",
    "crackle": "crackle",
    "weak": "weak",
    "distorted": "distorted",
}
ANSWER_IN_WORDS: dict[Answer, str] = {"good": "good", "wrong": "wrong", "skipped": "skipped"}
EntryKind = Literal["check", "reading", "note"]
MOST_THINGS = 20


class Measured(Record):
    """A level that somebody measured."""

    quantity: Literal["hum_dbu", "level_dbu"]
    """Of what, with its unit: hum with the source muted, or programme."""
    value: Decibels
    """What was read."""
    predicted: Decibels | None = None
    """What was computed for the same run at the time, where that was known."""


class NewEntry(Record):
    """What a device adds."""

    id: EntryId
    """Its own id, made by the device."""
    at: Moment
    """When it happened, by that device's clock."""
    kind: EntryKind
    """A checked run, a measured level, or a note."""
    run: Id | None = None
    """The run it is about."""
    things: tuple[Id, ...] = Field(default=(), max_length=MOST_THINGS)
    """Devices and pieces of the rig it is about."""
    words: Words = ""
    """What somebody wrote."""
    answer: Answer | None = None
    """Of a check."""
    heard: Heard | None = None
    """What was wrong."""
    checked: RunKey | None = None
    """Of a check: the key of the run's details, which tells whether the run was changed since."""
    measured: Measured | None = None
    """Of a measured level."""
    corrects: EntryId | None = None
    """The entry in whose place this one stands; without an answer, words or figure the other is taken back."""

    @model_validator(mode="after")
    def _says_something(self) -> Self:
        if self.corrects is not None:
            return self
        if self.kind == "check" and (self.run is None or self.answer is None):
            raise ValueError("A check names its run and an answer: good, wrong or skipped.")
        if self.kind == "reading" and self.measured is None:
            raise ValueError("A reading gives a figure.")
        if self.kind == "note" and not self.words.strip():
            raise ValueError("A note has words.")
        return self


class Entry(NewEntry):
    """As it stands in the log: with the names that things had then, so that it can be read when they are gone."""

    number: int
    """Counts up in the order in which entries came in."""
    rig: Id
    """The rig it is about."""
    rig_name: Label
    """What that was called."""
    run_name: Words
    """What the run was called; empty without one."""
    thing_names: tuple[Words, ...]
    """What devices and pieces were called."""
    person: Words
    """Who made it."""
    received_at: Moment
    """When it came in; later than it happened where there was no network."""


def effective(entries: tuple[Entry, ...]) -> tuple[Entry, ...]:
    """Those that still count, in the order in which they happened: without corrected ones, and without corrections that
    only take something back."""
    corrected = {entry.corrects for entry in entries if entry.corrects is not None}
    counting = (entry for entry in entries if entry.id not in corrected and not _only_takes_back(entry))
    return tuple(sorted(counting, key=lambda entry: (entry.at, entry.number)))


def _only_takes_back(entry: Entry) -> bool:
    return entry.corrects is not None and entry.answer is None and entry.measured is None and not entry.words.strip()
