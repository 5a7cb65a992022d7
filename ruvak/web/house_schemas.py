"""Bodies and answers about the cupboard and the occasions of the house."""

from typing import Annotated, Any

from pydantic import Field, RootModel, StringConstraints

from ruvak.core.cupboard.item import MOST_ALIKE
from ruvak.core.rig.rig import Condition
from ruvak.core.rig.values import Id, Label, Moment, Record, Words
from ruvak.service.cupboard_records import Changeable, CupboardChange
from ruvak.service.find import Match
from ruvak.service.occasions import Occasion


class ItemPath(Record):
    """A thing of the cupboard."""

    item_id: Id
    """Its id."""


class RigItemPath(Record):
    """A thing of the cupboard for a rig."""

    rig_id: Id
    """The rig."""
    item_id: Id
    """The thing."""


class ChangeItemBody(Record):
    """One field of a thing gets another value."""

    field: Changeable
    """The field."""
    value: Any
    """The new value."""
    was: Any
    """What was on screen: where somebody has changed it to something else meanwhile, nothing is changed."""


class ConditionBody(Record):
    """How a thing was found to be."""

    condition: Condition
    """Whether it can be relied on."""
    was: Condition
    """What was on screen."""
    remark: Words = ""
    """What is the matter with it."""
    number: Annotated[int, Field(strict=True, ge=1, le=MOST_ALIKE)] | None = None
    """Which of several alike, which then becomes a thing of its own; left out, all of them."""


class CupboardChangeList(RootModel[tuple[CupboardChange, ...]]):
    """What was done, the newest first."""


class AddedBody(Record):
    """How many things an import added."""

    added: int
    """Things."""


class OccasionPath(Record):
    """An occasion."""

    occasion_id: Id
    """Its id."""


class OccasionRigPath(Record):
    """A rig of an occasion."""

    occasion_id: Id
    """The occasion."""
    rig_id: Id
    """The rig."""


class NotePath(Record):
    """A note."""

    note_id: Id
    """Its id."""


class OccasionBody(Record):
    """A name and hours."""

    name: Label
    """What it is."""
    starts_at: Moment
    """From when things are needed."""
    ends_at: Moment
    """Until when."""


class NewOccasionBody(OccasionBody):
    """A new occasion."""

    rigs: tuple[Id, ...] = Field(default=(), max_length=12)
    """Rigs that are for it."""


class ChangeOccasionBody(OccasionBody):
    """Another name, or other hours."""

    replace: Annotated[bool, Field(strict=True)] = False
    """Whether things that are taken then are replaced by others; otherwise nothing is changed where some are."""


class DoorsBody(Record):
    """When people are let in."""

    doors_at: Moment | None
    """The time; null where nobody knows yet."""


class ReplaceBody(Record):
    """How a rig comes to an occasion."""

    replace: Annotated[bool, Field(strict=True)] = False
    """Whether things that are taken then are replaced by others."""


class NoteBody(Record):
    """Something to remember."""

    words: Annotated[Label, Field(max_length=300)]
    """What."""


class DoneBody(Record):
    """Whether a note is seen to."""

    done: Annotated[bool, Field(strict=True)]
    """True once it is."""


class OccasionList(RootModel[tuple[Occasion, ...]]):
    """Occasions, the latest first."""


class FindQuery(Record):
    """What is looked for."""

    q: Annotated[str, StringConstraints(min_length=1, max_length=120)]
    """Words, all of which must stand in a name or a sentence."""


class MatchList(RootModel[tuple[Match, ...]]):
    """What was found, the best first."""
