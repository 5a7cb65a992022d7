"""What a compute process is asked for: a use case of the Computer with its arguments."""

from dataclasses import dataclass
from functools import lru_cache
from inspect import signature
from typing import Any, get_type_hints

from pydantic import BaseModel, TypeAdapter

from ruvak.service.computer import Computer


@dataclass(frozen=True)
class Task:
    """Called with a Computer it does the work. `is_json`: the record comes back as JSON, since a few hundred kilobytes
    of text travel between processes quicker than records."""

    use_case: str
    arguments: tuple[Any, ...]
    is_json: bool

    def __call__(self, computer: Computer) -> Any:
        """What the use case returns. Raises what it raises."""
        result = getattr(computer, self.use_case)(*self.arguments)
        return result.model_dump_json().encode() if self.is_json and isinstance(result, BaseModel) else result

    def dump(self) -> list[Any]:
        """The arguments as JSON."""
        return list(_arguments_of(self.use_case).dump_python(self.arguments, mode="json"))


def as_json(use_case: str, *arguments: Any) -> Task:
    """A task whose record comes back as JSON."""
    return Task(use_case, arguments, is_json=True)


def as_it_is(use_case: str, *arguments: Any) -> Task:
    """A task that comes back as the use case returns it."""
    return Task(use_case, arguments, is_json=False)


def load_task(use_case: str, arguments: list[Any], is_json: bool) -> Task:
    """A task from its arguments as dump() gave them. Raises ValidationError."""
    return Task(use_case, _arguments_of(use_case).validate_python(tuple(arguments)), is_json)


@lru_cache
def _arguments_of(use_case: str) -> TypeAdapter[tuple[Any, ...]]:
    """By the use case's own signature."""
    method = getattr(Computer, use_case)
    hints = get_type_hints(method)
    types = tuple(hints[name] for name in signature(method).parameters if name != "self")
    arguments: Any = tuple.__class_getitem__(types)
    return TypeAdapter(arguments)
