"""A lead tester that is asked over HTTP, and its readings as those of a part of ours."""

import json
import urllib.error
import urllib.request
from itertools import combinations
from typing import Annotated, TypeVar
from urllib.parse import urlencode

from pydantic import Field, ValidationError

from ruvak.core.errors import BadEdit, RuvakError
from ruvak.core.rig.part import Part, contacts_in
from ruvak.core.rig.points import Contact
from ruvak.core.rig.values import Label, Number, Record
from ruvak.core.tester.reading import MOST_READINGS, ContactReading, LeadTest, Place, State

ANSWERS_WITHIN_S = 3.0
MOST_BYTES = 1_000_000
Model = TypeVar("Model", bound=Record)


class NoTester(RuvakError):
    """There is no tester, or it does not answer as one."""

    code = "no_tester"


class TesterState(Record):
    """The tester that readings are taken from."""

    name: Label | None
    """What it calls itself; null where none is set up."""
    leads: tuple[Label, ...] = ()
    """A simulated one's leads."""


class _About(Record):
    protocol: str
    version: int
    name: Label
    leads: tuple[Label, ...] = ()


class _Plug(Record):
    name: Annotated[str, Field(pattern=r"^[A-Za-z0-9]{1,20}$")]
    kind: str


class _Readings(Record):
    lead: Label
    plugs: tuple[_Plug, ...] = Field(max_length=64)
    joined: tuple[tuple[str, str, Number | None], ...] = Field(max_length=MOST_READINGS)
    comes_and_goes: tuple[tuple[str, str], ...] = Field(default=(), max_length=MOST_READINGS)


class Tester:
    """One tester by its address; None for a house without."""

    def __init__(self, address: str | None) -> None:
        self._address = address

    def describe(self) -> TesterState:
        """What it is. Raises NoTester where it does not answer."""
        if self._address is None:
            return TesterState(name=None)
        about = _read(_About, self._ask("tester"))
        if about.protocol != "lead-tester" or about.version != 1:
            raise NoTester(f"{self._address} speaks {about.protocol} {about.version} and not lead-tester 1.")
        return TesterState(name=about.name, leads=about.leads)

    def read(self, part: Part, tag: str, moved_at: Place | None) -> LeadTest:
        """Every pair of contacts of a piece. Raises NoTester, BadEdit where what is plugged in has other plugs."""
        if self._address is None:
            raise NoTester("No lead tester is set up; type what you read.")
        query = {"lead": tag, **({"moved": moved_at} if moved_at is not None else {})}
        answered = _read(_Readings, self._ask(f"readings?{urlencode(query)}"))
        return _as_test(part, answered, moved_at)

    def _ask(self, path: str) -> bytes:
        try:
            # The address is a setting of whoever runs the server.
            with urllib.request.urlopen(f"{self._address}/{path}", timeout=ANSWERS_WITHIN_S) as answer:  # noqa: S310
                return bytes(answer.read(MOST_BYTES))
        except urllib.error.HTTPError as refused:
            raise NoTester(_sentence_of(refused)) from refused
        except (OSError, ValueError) as problem:
            raise NoTester("The lead tester does not answer; is it on? Type what you read meanwhile.") from problem


def _sentence_of(refused: urllib.error.HTTPError) -> str:
    try:
        return str(json.loads(refused.read(MOST_BYTES))["message"])[:300]
    except (ValueError, KeyError, TypeError):
        return f"The lead tester answers with an error ({refused.code})."


def _read(model: type[Model], body: bytes) -> Model:
    try:
        return model.model_validate_json(body)
    except ValidationError as wrong:
        raise NoTester("What answers there is no lead tester, or one of another version.") from wrong


def _as_test(part: Part, answered: _Readings, moved_at: Place | None) -> LeadTest:
    """By the part's own names: its plugs are the tester's in the same order, or in the opposite one."""
    kinds, forms = [plug.kind for plug in answered.plugs], [str(connector.form) for connector in part.connectors]
    order = list(part.connectors)
    if kinds != forms:
        order.reverse()
    if kinds != [str(connector.form) for connector in order]:
        have, wants = " and ".join(kinds), " and ".join(forms)
        raise BadEdit("lead", f"What is plugged in has {have}; {part.name} has {wants}. Is it the right lead?")
    names = {plug.name: connector.id for plug, connector in zip(answered.plugs, order, strict=True)}

    def contact(text: str) -> Contact:
        plug, _, name = text.partition(".")
        return Contact(names.get(plug, plug), name)

    joined = {frozenset((contact(a), contact(b))): ohm for a, b, ohm in answered.joined}
    moving = {frozenset((contact(a), contact(b))) for a, b in answered.comes_and_goes}

    def state(pair: frozenset[Contact]) -> State:
        return "flickers" if pair in moving else "joined" if pair in joined else "open"

    pairs = list(combinations(contacts_in(part), 2))
    if len(pairs) > MOST_READINGS:
        raise BadEdit("lead", f"{part.name} has too many contacts for one test; test it line by line.")
    readings = tuple(
        ContactReading(a=a, b=b, state=state(frozenset((a, b))), ohm=joined.get(frozenset((a, b)))) for a, b in pairs
    )
    return LeadTest(readings=readings, moved_at=moved_at)
