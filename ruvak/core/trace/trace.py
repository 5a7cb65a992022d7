"""The metal: which contact is joined to which, over the whole rig.

A point is owner.point ("laptop.phones.T", "speaker.chassis"). Wires have no resistance worth counting and
merge points into nodes; cores, screens and mated contacts are metal too, but elements of their own.
"""

from collections.abc import Hashable, Iterable, Iterator
from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal

from networkx.utils import UnionFind

from ruvak.core.rig.connectors import SHAPES, touching, uncertain
from ruvak.core.rig.element import Element, ends_of_element
from ruvak.core.rig.part import Connector, Part
from ruvak.core.rig.rig import Join, Rig, plugged

Metal = Literal["wire", "core", "screen", "mate"]


@dataclass(frozen=True)
class Link:
    """One piece of metal between two points. `owner`: the gear or leg it belongs to, or the run's id for a mate."""

    kind: Metal
    a: str
    b: str
    owner: str


Roles = dict[str, dict[str, None]]
"""By node: what leaves or arrives there, in words, in order."""


@dataclass(frozen=True)
class Asked:
    """What drawings found out about large parts, filled as they ask: each of a multicore's or desk's runs does.

    By part: `signals`, its points by what they are joined to, shared screens aside; `metal`, what joins two of them.
    By device: `leaving` and `entering`, what its outputs and inputs are at its nodes; `own`, its points by its wires.
    """

    signals: dict[str, dict[str, str]] = field(default_factory=dict)
    metal: dict[str, list[Link]] = field(default_factory=dict)
    leaving: dict[str, Roles] = field(default_factory=dict)
    entering: dict[str, Roles] = field(default_factory=dict)
    own: dict[str, dict[str, str]] = field(default_factory=dict)


@dataclass(frozen=True)
class Trace:
    """`node_of`: points merged over wires. `conductor_of`: points merged over all metal; ids are stable names."""

    owners: tuple[str, ...]
    links: tuple[Link, ...]
    node_of: dict[str, str]
    conductor_of: dict[str, str]
    asked: Asked = field(default_factory=Asked, compare=False)

    @cached_property
    def inside(self) -> dict[str, list[Link]]:
        """By gear or leg: its own metal."""
        return _grouped(link for link in self.links if link.kind != "mate")

    @cached_property
    def mated(self) -> dict[str, list[Link]]:
        """By run: contacts pushed onto each other. A run may be called as a piece of its gear is."""
        return _grouped(link for link in self.links if link.kind == "mate")


def _grouped(links: Iterable[Link]) -> dict[str, list[Link]]:
    found: dict[str, list[Link]] = {}
    for link in links:
        found.setdefault(link.owner, []).append(link)
    return found


def trace(rig: Rig) -> Trace:
    """Traces everything in use: all gear, and the kit that some run's legs name. The rig is checked and embedded."""
    legs = (leg for run in rig.runs for leg in run.legs)
    owners = tuple(dict.fromkeys([*(gear.id for gear in rig.gear), *legs]))
    used = plugged(rig)
    points: list[str] = []
    links: list[Link] = []
    for owner in owners:
        part = rig.part_of(owner)
        points += [f"{owner}.{point}" for point in points_of(part)]
        links += _inside(owner, part, used)
    for run in rig.runs:
        for join in run.joins:
            links += mates(rig, join, run.id)
    return Trace(
        owners=owners,
        links=tuple(links),
        node_of=merged(points, (link for link in links if link.kind == "wire")),
        conductor_of=merged(points, links),
    )


def points_of(part: Part) -> tuple[str, ...]:
    """Every contact and inner node of a part, contacts first, each once."""
    contacts = [f"{connector.id}.{contact}" for connector in part.connectors for contact in contacts_of(connector)]
    named: list[str | None] = [point for wire in part.wires for point in (wire.a, wire.b)]
    named += [point for switch in part.switches for point in (switch.a, switch.b)]
    named += [point for cable in part.cables for conductor in cable.conductors for point in (conductor.a, conductor.b)]
    for element in part.elements:
        named += element_points(element)
    return tuple(dict.fromkeys([*contacts, *(point for point in named if point is not None)]))


def element_points(element: Element) -> list[str]:
    """The points an element of a box stands between, in the order it names them."""
    return [point for _, point in ends_of_element(element)]


def contacts_of(connector: Connector) -> tuple[str, ...]:
    """A connector's contacts in drawing order."""
    return SHAPES[connector.form].contacts


def connector_at(rig: Rig, end: str) -> Connector:
    """The connector behind owner.connector."""
    owner, name = end.split(".")
    for connector in rig.part_of(owner).connectors:
        if connector.id == name:
            return connector
    raise KeyError(end)


def mates(rig: Rig, join: Join, run_id: str) -> list[Link]:
    """The contacts that touch in one join."""
    one, other = connector_at(rig, join.a), connector_at(rig, join.b)
    ring = one.ring if one.ring != "open" else other.ring
    pairs = touching(one.form, other.form, join.sleeve or "both", ring)
    return [Link("mate", f"{join.a}.{mine}", f"{join.b}.{theirs}", run_id) for mine, theirs in pairs]


def uncertain_joins(rig: Rig) -> Iterator[tuple[int, int]]:
    """(run, join) places where what touches depends on the socket's build, and nobody has looked."""
    for i, run in enumerate(rig.runs):
        for j, join in enumerate(run.joins):
            if join.sleeve is None and uncertain(connector_at(rig, join.a).form, connector_at(rig, join.b).form):
                yield i, j


def merged(points: Iterable[str], links: Iterable[Link]) -> dict[str, str]:
    """Each point's group, named after its first member in the alphabet."""
    joined: UnionFind[Hashable] = UnionFind(points)
    for link in links:
        joined.union(link.a, link.b)
    names: dict[str, str] = {}
    for group in joined.to_sets():
        first = min(str(point) for point in group)
        names.update((str(point), first) for point in group)
    return names


def _inside(owner: str, part: Part, used: set[str]) -> Iterable[Link]:
    for wire in part.wires:
        yield Link("wire", f"{owner}.{wire.a}", f"{owner}.{wire.b}", owner)
    for switch in part.switches:
        if (f"{owner}.{switch.connector}" in used) == (switch.closed == "plugged"):
            yield Link("wire", f"{owner}.{switch.a}", f"{owner}.{switch.b}", owner)
    for cable in part.cables:
        for conductor in cable.conductors:
            if conductor.a is not None and conductor.b is not None:
                yield Link(conductor.kind, f"{owner}.{conductor.a}", f"{owner}.{conductor.b}", owner)
