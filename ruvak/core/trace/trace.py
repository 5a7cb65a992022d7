"""The metal: which contact is joined to which, over the whole rig.

Wires have no resistance worth counting and merge points into nodes; cores, screens and mated contacts are metal too,
but elements of their own.
"""

from collections.abc import Hashable, Iterable, Iterator
from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal, TypeVar

from networkx.utils import UnionFind

from ruvak.core.rig.connectors import SHAPES, touching, uncertain
from ruvak.core.rig.element import Element, ends_of_element
from ruvak.core.rig.part import Connector, Part, contacts_in
from ruvak.core.rig.points import Contact, ContactRef, Endpoint, InnerNode, NodeRef
from ruvak.core.rig.rig import Join, Rig, connectors_in_use

Metal = Literal["wire", "core", "screen", "mate"]


Node = TypeVar("Node", bound=Hashable)


@dataclass(frozen=True)
class Link:
    """One piece of metal between two points. `owner`: the gear or piece it belongs to, or the run's id for a mate."""

    kind: Metal
    a: ContactRef | NodeRef
    b: ContactRef | NodeRef
    owner: str


@dataclass(frozen=True)
class InnerLink:
    """One piece of metal, or a component, between two points of a part."""

    kind: Metal
    a: Contact | InnerNode
    b: Contact | InnerNode


Roles = dict[str, dict[str, None]]
"""By node: what leaves or arrives there, in words, in order."""


@dataclass(frozen=True)
class DrawingCache:
    """What drawings found out about large parts, filled as they ask: each of a multicore's or desk's runs does.

    By part: `signals`, its points by what they are joined to, shared screens aside; `metal`, what joins two of them.
    By device: `leaving` and `entering`, what its outputs and inputs are at its nodes; `own`, its points by its wires.
    """

    signals: dict[str, dict[Contact | InnerNode, str]] = field(default_factory=dict)
    metal: dict[str, list[InnerLink]] = field(default_factory=dict)
    leaving: dict[str, Roles] = field(default_factory=dict)
    entering: dict[str, Roles] = field(default_factory=dict)
    own: dict[str, dict[ContactRef | NodeRef, str]] = field(default_factory=dict)
    keys: dict[str, bytes] = field(default_factory=dict)


@dataclass(frozen=True)
class Trace:
    """`node_of`: points merged over wires. `conductor_of`: points merged over all metal; ids are stable names."""

    owners: tuple[str, ...]
    links: tuple[Link, ...]
    node_of: dict[ContactRef | NodeRef, str]
    conductor_of: dict[ContactRef | NodeRef, str]
    drawing_cache: DrawingCache = field(default_factory=DrawingCache, compare=False)

    @cached_property
    def inside(self) -> dict[str, list[Link]]:
        """By gear or piece: its own metal."""
        return _group(link for link in self.links if link.kind != "mate")

    @cached_property
    def mated(self) -> dict[str, list[Link]]:
        """By run: contacts pushed onto each other. A run may be called as a piece of its gear is."""
        return _group(link for link in self.links if link.kind == "mate")


def _group(links: Iterable[Link]) -> dict[str, list[Link]]:
    result: dict[str, list[Link]] = {}
    for link in links:
        result.setdefault(link.owner, []).append(link)
    return result


def trace(rig: Rig) -> Trace:
    """Traces everything in use: all gear, and the kit that some run's pieces name. The rig is checked and embedded."""
    pieces = (piece for run in rig.runs for piece in run.pieces)
    owners = tuple(dict.fromkeys([*(gear.id for gear in rig.gear), *pieces]))
    used = connectors_in_use(rig)
    points: list[ContactRef | NodeRef] = []
    links: list[Link] = []
    for owner in owners:
        part = rig.part_of(owner)
        points += [point.of(owner) for point in points_of(part)]
        links += _inside(owner, part, used)
    for run in rig.runs:
        for join in run.joins:
            links += mates(rig, join, run.id)
    return Trace(
        owners=owners,
        links=tuple(links),
        node_of=merge_groups(points, pairs_of(link for link in links if link.kind == "wire")),
        conductor_of=merge_groups(points, pairs_of(links)),
    )


def points_of(part: Part) -> tuple[Contact | InnerNode, ...]:
    """Every contact and inner node of a part, contacts first, each once."""
    named: list[Contact | InnerNode | None] = [point for wire in part.wires for point in (wire.a, wire.b)]
    named += [point for switch in part.switches for point in (switch.a, switch.b)]
    named += [point for cable in part.cables for conductor in cable.conductors for point in (conductor.a, conductor.b)]
    for element in part.elements:
        named += element_points(element)
    return tuple(dict.fromkeys([*contacts_in(part), *(point for point in named if point is not None)]))


def element_points(element: Element) -> list[Contact | InnerNode]:
    """The points an element of a box stands between, in the order it names them."""
    return [point for _, point in ends_of_element(element)]


def contacts_of(connector: Connector) -> tuple[str, ...]:
    """A connector's contacts in drawing order."""
    return SHAPES[connector.form].contacts


def connector_at(rig: Rig, end: Endpoint) -> Connector:
    """The connector at an end. KeyError where its owner has no such connector."""
    for connector in rig.part_of(end.owner).connectors:
        if connector.id == end.connector:
            return connector
    raise KeyError(end)


def mates(rig: Rig, join: Join, run_id: str) -> list[Link]:
    """The contacts that touch in one join."""
    near, far = connector_at(rig, join.a), connector_at(rig, join.b)
    ring = near.ring if near.ring != "open" else far.ring
    pairs = touching(near.form, far.form, join.sleeve or "both", ring)
    return [Link("mate", join.a.contact(near), join.b.contact(far), run_id) for near, far in pairs]


def uncertain_joins(rig: Rig) -> Iterator[tuple[int, int]]:
    """(run, join) places where what touches depends on the socket's build, and nobody has looked."""
    for i, run in enumerate(rig.runs):
        for j, join in enumerate(run.joins):
            if join.sleeve is None and uncertain(connector_at(rig, join.a).form, connector_at(rig, join.b).form):
                yield i, j


def merge_groups(points: Iterable[Node], links: Iterable[tuple[Node, Node]]) -> dict[Node, str]:
    """Each point's group, named after its first member in the alphabet. `links`: what joins two points."""
    joined: UnionFind[Node] = UnionFind(points)
    for a, b in links:
        joined.union(a, b)
    names: dict[Node, str] = {}
    for group in joined.to_sets():
        first = min(str(point) for point in group)
        names.update((point, first) for point in group)
    return names


def pairs_of(links: Iterable[Link]) -> Iterator[tuple[ContactRef | NodeRef, ContactRef | NodeRef]]:
    """The two points of each link."""
    return ((link.a, link.b) for link in links)


def _inside(owner: str, part: Part, used: set[Endpoint]) -> Iterable[Link]:
    for wire in part.wires:
        yield Link("wire", wire.a.of(owner), wire.b.of(owner), owner)
    for switch in part.switches:
        if (Endpoint(owner, switch.connector) in used) == (switch.closed == "plugged"):
            yield Link("wire", switch.a.of(owner), switch.b.of(owner), owner)
    for cable in part.cables:
        for conductor in cable.conductors:
            if conductor.a is not None and conductor.b is not None:
                yield Link(conductor.kind, conductor.a.of(owner), conductor.b.of(owner), owner)
