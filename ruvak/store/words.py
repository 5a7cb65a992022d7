"""Looking for words in columns."""

from typing import Any

from sqlalchemy import ColumnElement, and_


def has_words(column: Any, words: list[str]) -> ColumnElement[bool]:
    """Whether each of the words stands somewhere in it, in any letters."""
    return and_(*(column.icontains(word, autoescape=True) for word in words))
