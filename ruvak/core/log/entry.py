"""Entries of the log. They are made on any device, with or without a network, and come in any order."""

from typing import Annotated, Literal, Self

from pydantic import Field, StringConstraints, model_validator

from ruvak.core.judge.symptoms import Heard
from ruvak.core.rig.values import Decibels, Id, Moment, Record, Words
from ruvak.core.rig.wiring_fault import WiringFaults
from ruvak.core.tester.diagnosis import Verdict

EntryId = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9-]{8,64}$")]
"""Made by the device, so that an entry that is sent twice is there once."""
RunKey = Annotated[str, StringConstraints(pattern=r"^[0-9a-f]{8,64}$")]
Answer = Literal["good", "wrong", "skipped"]
ANSWER_IN_WORDS: dict[Answer, str] = {"good": "good", "wrong": "wrong", "skipped": "skipped"}
EntryKind = Literal["check", "reading", "note", "test", "step", "working"]
StepId = Annotated[str, StringConstraints(pattern=r"^[a-z]{1,16}:[a-z0-9-]{1,64}$")]
MOST_THINGS = 20
MOST_UNUSUAL = 40
MOST_PHOTOS = 4


class Measured(Record):
    """A level that somebody measured."""

    quantity: Literal["hum_dbu", "level_dbu"]
    """Of what, with its unit: hum with the source muted, or programme."""
    value: Decibels
    """What was read."""
    predicted: Decibels | None = None
    """What was computed for the same run at the time, where that was known."""


class Tested(Record):
    """What a lead tester showed."""

    verdict: Verdict
    """What the readings say."""
    words: Words
    """In a sentence."""
    faults: WiringFaults = ()
    """What was noted as the matter with it."""
    unusual: tuple[Words, ...] = Field(default=(), max_length=MOST_UNUSUAL)
    """Pairs that read otherwise than they should."""
    pairs: Annotated[int, Field(strict=True, ge=0)] = 0
    """How many pairs of contacts were read."""


class NewEntry(Record):
    """What a device adds."""

    id: EntryId
    """Its own id, made by the device."""
    at: Moment
    """When it happened, by that device's clock."""
    kind: EntryKind
    """A checked run, a measured level, a note, a tested lead, a step of the hook-up or of the check; or that somebody
    is at a run or step now, on stage playing it or mending it."""
    run: Id | None = None
    """The run it is about."""
    things: tuple[Id, ...] = Field(default=(), max_length=MOST_THINGS)
    """Devices and pieces of the rig it is about; without a rig, things of the cupboard."""
    words: Words = ""
    """What somebody wrote."""
    answer: Answer | None = None
    """Of a check or a step; of a step of the hook-up good where it is done."""
    step: StepId | None = None
    """Of the hook-up, or of the check beside its runs: which step."""
    heard: Heard | None = None
    """What was wrong."""
    checked: RunKey | None = None
    """Of a check: the run as it was then (`as_checked`), which tells whether it was changed since."""
    measured: Measured | None = None
    """Of a measured level."""
    tested: Tested | None = None
    """Of a tested lead."""
    photos: tuple[EntryId, ...] = Field(default=(), max_length=MOST_PHOTOS)
    """Pictures that were taken, by their ids; they may come later than the entry."""
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
        if self.kind == "step" and (self.step is None or self.answer is None):
            raise ValueError("A step is named, and has an answer: good, wrong or skipped.")
        if self.kind == "working" and self.run is None and self.step is None:
            raise ValueError("Who is at something says at which run or step.")
        if self.kind == "test" and self.tested is None:
            raise ValueError("A test says what it showed.")
        if self.kind == "note" and not self.words.strip() and not self.photos:
            raise ValueError("A note has words, or a photo.")
        return self

    @property
    def only_takes_back(self) -> bool:
        """Whether it corrects another and puts nothing in its place."""
        return self.corrects is not None and self.answer is None and self.measured is None and not self.words.strip()


class Entry(NewEntry):
    """As it stands in the log: with the names that things had then, so that it can be read when they are gone."""

    number: int
    """Counts up in the order in which entries came in."""
    rig: Id | None
    """The rig it is about; null for what was done to a thing of the cupboard by itself."""
    rig_name: Words
    """What that was called; empty without one."""
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
    counting = (entry for entry in entries if entry.id not in corrected and not entry.only_takes_back)
    return tuple(sorted(counting, key=lambda entry: (entry.at, entry.number)))
