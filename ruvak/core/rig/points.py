"""Points as values: a socket or plug of a device or lead, and the contacts and inner nodes behind it.

In JSON each is one text, parsed here and nowhere else: "laptop.phones" is an Endpoint, "laptop.phones.T" a ContactRef,
"laptop.g" a NodeRef. Inside a part, where the owner is understood, "phones.T" is a Contact and "g" an InnerNode. The
types are tuples so that they hash quickly; two that may stand in one collection differ in length.
"""

import re
from collections.abc import Callable
from typing import Annotated, Any, NamedTuple

from pydantic import GetCoreSchemaHandler, GetJsonSchemaHandler
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import CoreSchema, PydanticCustomError, core_schema

END_PATTERN = r"^[a-z0-9][a-z0-9-]{0,63}\.[a-z0-9][a-z0-9-]{0,63}$"
CONTACT_PATTERN = r"^[a-z0-9][a-z0-9-]{0,63}\.[A-Za-z0-9]+$"
POINT_PATTERN = r"^[A-Za-z0-9][A-Za-z0-9-]*(\.[A-Za-z0-9]+)?$"
BOND_END_PATTERN = r"^[a-z0-9][a-z0-9-]{0,63}(\.[A-Za-z0-9][A-Za-z0-9-]*(\.[A-Za-z0-9]+)?)?$"
POINT_REF_PATTERN = r"^[a-z0-9][a-z0-9-]{0,63}\.[A-Za-z0-9][A-Za-z0-9-]*(\.[A-Za-z0-9]+)?$"


class Contact(NamedTuple):
    """One contact of a part's connector."""

    connector: str
    contact: str

    def __str__(self) -> str:
        return f"{self.connector}.{self.contact}"

    def of(self, owner: str) -> "ContactRef":
        """This contact of one device or lead."""
        return ContactRef(owner, self.connector, self.contact)


class InnerNode(NamedTuple):
    """A node inside a part that no connector shows: "g" is the signal reference, "chassis" the metalwork."""

    name: str

    def __str__(self) -> str:
        return self.name

    def of(self, owner: str) -> "NodeRef":
        """This node of one device or lead."""
        return NodeRef(owner, self.name)


class Endpoint(NamedTuple):
    """A connector of a device or lead."""

    owner: str
    connector: str

    def __str__(self) -> str:
        return f"{self.owner}.{self.connector}"

    def contact(self, name: str) -> "ContactRef":
        """One of its contacts."""
        return ContactRef(self.owner, self.connector, name)


class ContactRef(NamedTuple):
    """A contact of a device's or lead's connector."""

    owner: str
    connector: str
    contact: str

    def __str__(self) -> str:
        return f"{self.owner}.{self.connector}.{self.contact}"

    @property
    def endpoint(self) -> Endpoint:
        """The connector it belongs to."""
        return Endpoint(self.owner, self.connector)

    @property
    def in_part(self) -> Contact:
        """The same within its part."""
        return Contact(self.connector, self.contact)


class NodeRef(NamedTuple):
    """An inner node of a device or lead."""

    owner: str
    node: str

    def __str__(self) -> str:
        return f"{self.owner}.{self.node}"

    @property
    def in_part(self) -> InnerNode:
        """The same within its part."""
        return InnerNode(self.node)


class BondTarget(NamedTuple):
    """Where a bond ends: a device (its chassis), a point of one, or an earth point."""

    owner: str
    point: Contact | InnerNode | None = None

    def __str__(self) -> str:
        return self.owner if self.point is None else f"{self.owner}.{self.point}"


SIGNAL_REFERENCE = InnerNode("g")
CHASSIS = InnerNode("chassis")


def parse_endpoint(text: str) -> Endpoint:
    """ "laptop.phones". Precondition: END_PATTERN."""
    owner, _, connector = text.partition(".")
    return Endpoint(owner, connector)


def parse_point(text: str) -> Contact | InnerNode:
    """ "in.T" or "g". Precondition: POINT_PATTERN."""
    first, _, contact = text.partition(".")
    return Contact(first, contact) if contact else InnerNode(first)


def parse_point_ref(text: str) -> ContactRef | NodeRef:
    """ "laptop.phones.T" or "laptop.g". Precondition: POINT_REF_PATTERN."""
    owner, _, point = text.partition(".")
    return parse_point(point).of(owner)


def parse_bond_target(text: str) -> BondTarget:
    """ "laptop", "laptop.g", "desk.usb.shell" or an earth point's id. Precondition: BOND_END_PATTERN."""
    owner, _, point = text.partition(".")
    return BondTarget(owner, parse_point(point) if point else None)


class _Text:
    """Tells pydantic that a value type is one text in JSON: its pattern and how it is parsed."""

    def __init__(self, pattern: str, parse: Callable[[str], Any], *types: type, max_length: int | None = None) -> None:
        self._schema = core_schema.str_schema(pattern=pattern, max_length=max_length)
        self._pattern = re.compile(pattern)
        self._parse, self._types = parse, types

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        def read(value: Any, text: core_schema.ValidatorFunctionWrapHandler) -> Any:
            if isinstance(value, self._types):
                if not self._pattern.match(str(value)):
                    raise PydanticCustomError("point", "holds characters it may not")
                return value
            return self._parse(text(value))

        written = core_schema.to_string_ser_schema(when_used="json")
        return core_schema.no_info_wrap_validator_function(read, self._schema, serialization=written)

    def __get_pydantic_json_schema__(self, schema: CoreSchema, handler: GetJsonSchemaHandler) -> JsonSchemaValue:
        return handler(self._schema)


End = Annotated[Endpoint, _Text(END_PATTERN, parse_endpoint, Endpoint)]
Point = Annotated[Contact | InnerNode, _Text(POINT_PATTERN, parse_point, Contact, InnerNode, max_length=80)]
PointRef = Annotated[ContactRef | NodeRef, _Text(POINT_REF_PATTERN, parse_point_ref, ContactRef, NodeRef)]
BondEnd = Annotated[BondTarget, _Text(BOND_END_PATTERN, parse_bond_target, BondTarget)]
