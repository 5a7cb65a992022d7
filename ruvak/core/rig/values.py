"""Numbers that say where they come from."""

import hashlib
from collections.abc import Mapping
from datetime import datetime
from functools import cached_property
from typing import Annotated, Any, Self

from pydantic import (
    AfterValidator,
    AwareDatetime,
    BaseModel,
    BeforeValidator,
    ConfigDict,
    Field,
    JsonValue,
    StringConstraints,
)
from pydantic_core import PydanticCustomError

SMALLEST = 1e-18
"""A millionth of a picofarad, a nano-nanoohm: below it a figure is none, and its reciprocal overflows."""
MAX_DB = 400.0
"""No level or ratio is larger: twenty powers of ten."""
Number = Annotated[float, Field(strict=True, allow_inf_nan=False, ge=-1e15, le=1e15)]
ID_PATTERN = r"^[a-z0-9][a-z0-9-]{0,63}$"
Id = Annotated[str, StringConstraints(pattern=ID_PATTERN)]
_UNSEEN = dict.fromkeys((0x200B, 0x200E, 0x200F, *range(0x202A, 0x202F), *range(0x2060, 0x206A), 0xFEFF))
"""Letters without width, and those that turn the direction of what follows: two names would look the same, or a name
would be read backwards. Those that join letters stay: some scripts need them."""


def _without_unseen(given: Any) -> Any:
    return given.translate(_UNSEEN) if isinstance(given, str) and not given.isascii() else given


Label = Annotated[
    str,
    StringConstraints(min_length=1, max_length=120, pattern=r"^[^\x00-\x1f\x7f]*$"),
    BeforeValidator(_without_unseen),
]
Decibels = Annotated[float, Field(strict=True, allow_inf_nan=False, ge=-MAX_DB, le=MAX_DB)]
Words = Annotated[
    str,
    StringConstraints(max_length=600, pattern=r"^[^\x00-\x08\x0b\x0c\x0e-\x1f\x7f]*$"),
    BeforeValidator(_without_unseen),
]
"""Free text; control characters are refused, PostgreSQL cannot keep NUL."""


Moment = Annotated[
    AwareDatetime,
    Field(ge=datetime.fromisoformat("2000-01-01T00:00Z"), le=datetime.fromisoformat("2200-01-01T00:00Z")),
]
"""A time with its zone, in years that a calendar and a database can hold."""


class Record(BaseModel):
    """Base of every record: frozen, and unknown fields are refused by name."""

    model_config = ConfigDict(frozen=True, extra="forbid", use_attribute_docstrings=True)

    def model_copy(self, *, update: Mapping[str, Any] | None = None, deep: bool = False) -> Self:
        """A copy with some fields exchanged, and nothing of what was computed from the old ones."""
        copied = super().model_copy(update=update, deep=deep)
        for name in copied.__dict__.keys() - type(self).model_fields.keys():
            del copied.__dict__[name]
        return copied


class Identified(Record):
    """Something with a stable id, unique among its kind."""

    id: Id
    """Its name in the file: small letters, digits and hyphens, unique among its kind; never shown on labels."""

    @cached_property
    def content_digest(self) -> bytes:
        """SHA-256 of all its fields, computed once."""
        return hashlib.sha256(self.model_dump_json().encode()).digest()


class Value(Record):
    """A figure with its likely range and provenance. A bare number in a file means: stated by a person."""

    value: Number
    """The figure, in the unit its field's name ends in."""
    low: Number | None = None
    """Lower end of the likely range, in the same unit."""
    high: Number | None = None
    """Upper end of the likely range, in the same unit."""
    source: Words = "stated"
    """Where the figure is from: a standard, a measurement, common practice, or stated."""


class Spread(Record):
    """A deviation whose sign nobody knows: the likely size and the worst, in the unit of its field's name."""

    likely: Number
    """Likely size, in the unit its field's name ends in."""
    worst: Number
    """Worst size, in the same unit."""
    source: Words = "stated"
    """Where the figures are from."""


def on_form(label: str, unit: str | None = None, words: Mapping[str, str] | None = None) -> Any:
    """How a form shows a field, in the JSON Schema: its label, its unit, its choices in words."""
    shown: dict[str, JsonValue] = {}
    if unit is not None:
        shown["unit"] = unit
    if words is not None:
        shown["words"] = dict(words)
    return Field(title=label, json_schema_extra={"form": shown})


def sizes(given: "Deviation") -> tuple[float, float]:
    """Likely and worst size; of a stated figure both are its size."""
    if isinstance(given, Spread):
        return abs(given.likely), abs(given.worst)
    return abs(given.value), abs(given.value)


def _number_as_value(given: Any) -> Any:
    if isinstance(given, int | float) and not isinstance(given, bool):
        return {"value": given}
    return given


def _above_zero(given: Value) -> Value:
    if given.value <= 0:
        raise PydanticCustomError("not_above_zero", "must be above zero, but it is {value}", {"value": given.value})
    return _not_negative(given)


def _not_negative(given: Value) -> Value:
    if given.value < 0:
        raise PydanticCustomError("negative", "cannot be negative, but it is {value}", {"value": given.value})
    if 0 < given.value < SMALLEST:
        raise PydanticCustomError("too_small", "is smaller than any real figure ({value})", {"value": given.value})
    return given


def _share(given: Value) -> Value:
    if not 0.0 <= given.value <= 1.0:
        raise PydanticCustomError("not_a_share", "must lie between 0 and 1, but it is {value}", {"value": given.value})
    return given


def _audible_range(given: Value) -> Value:
    if abs(given.value) > MAX_DB:
        raise PydanticCustomError(
            "no_level", "lies between -{most} and {most} dB, but it is {value}", {"most": MAX_DB, "value": given.value}
        )
    return given


Quantity = Annotated[Value, BeforeValidator(_number_as_value, json_schema_input_type=Value | float)]
"""A Value, or in a file simply its number."""

AboveZero = Annotated[Quantity, AfterValidator(_above_zero)]
NotNegative = Annotated[Quantity, AfterValidator(_not_negative)]
Share = Annotated[Quantity, AfterValidator(_share)]
Level = Annotated[Quantity, AfterValidator(_audible_range)]
"""A level or ratio in dB."""
LevelNotNegative = Annotated[NotNegative, AfterValidator(_audible_range)]

Deviation = Annotated[Value | Spread, BeforeValidator(_number_as_value, json_schema_input_type=Value | Spread | float)]
"""Either a stated, signed figure (Value) or one of unknown sign (Spread)."""


def _level_deviation(given: Value | Spread) -> Value | Spread:
    if max(sizes(given)) > MAX_DB:
        raise PydanticCustomError("no_level", "lies between -{most} and {most} dB", {"most": MAX_DB})
    return given


LevelDeviation = Annotated[Deviation, AfterValidator(_level_deviation)]
"""A Deviation in dB."""
