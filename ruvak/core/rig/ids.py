"""Ids for new things: made of what somebody called them, and free."""

import re
from collections.abc import Container
from itertools import count

MOST_LETTERS = 64
_LETTERS_OF_A_NAME = 56


def id_of(name: str, otherwise: str) -> str:
    """A name in the letters of an id; `otherwise` where it has none of these."""
    return re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:_LETTERS_OF_A_NAME] or otherwise


def free_id(stem: str, taken: Container[str]) -> str:
    """The stem, or with the first number behind it that makes it free."""
    if stem not in taken:
        return stem
    numbered = (f"{stem[: MOST_LETTERS - 6]}-{number}" for number in count(2))
    return next(id_ for id_ in numbered if id_ not in taken)
