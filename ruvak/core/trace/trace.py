"""The metal: which contact is joined to which, over the whole rig.

A point is owner.point ("laptop.phones.T", "speaker.chassis"). Wires have no resistance worth counting and
merge points into nodes; cores, screens and mated contacts are metal too, but elements of their own.
"""

from collections.abc import Hashable, Iterable
from dataclasses import dataclass
from typing import Literal

from networkx.utils import UnionFind

from ruvak.core.rig.connectors import SHAPES, touching
from ruvak.core.rig.part import Connector, Part
from ruvak.core.rig.rig import Join, Rig

Metal = Literal["wire", "core", "screen", "mate"]


@dataclass(frozen=True)
class Link:
    """One piece of metal between two points. `owner`: the gear or leg it belongs to, or the run's id for a mate."""

    kind: Metal
    a: str
    b: str
    owner: str


@dataclass(frozen=True)
class Trace:
    """`node_of`: points merged over wires. `conductor_of`: points merged over all metal; ids are stable names."""

    owners: tuple[str, ...]
    links: tuple[Link, ...]
    node_of: dict[str, str]
    conductor_of: dict[str, str]


def trace(rig: Rig) -> Trace:
    """Traces everything in use: all gear, and the kit that some run's legs name. The rig is checked and embedded."""
    owners = (*(gear.id for gear in rig.gear), *(leg for run in rig.runs for leg in run.legs))
    points: list[str] = []
    links: list[Link] = []
    for owner in owners:
        part = rig.part_of(owner)
        points += [f"{owner}.{point}" for point in points_of(part)]
        links += _inside(owner, part)
    for run in rig.runs:
        for join in run.joins:
            links += mates(rig, join, run.id)
    return Trace(
        owners=owners,
        links=tuple(links),
        node_of=_merged(points, (link for link in links if link.kind == "wire")),
        conductor_of=_merged(points, links),
    )


def points_of(part: Part) -> tuple[str, ...]:
    """Every contact and inner node of a part, contacts first, each once."""
    contacts = [f"{connector.id}.{contact}" for connector in part.connectors for contact in contacts_of(connector)]
    named: list[str | None] = [point for wire in part.wires for point in (wire.a, wire.b)]
    named += [point for cable in part.cables for conductor in cable.conductors for point in (conductor.a, conductor.b)]
    for element in part.elements:
        named += element_points(element)
    return tuple(dict.fromkeys([*contacts, *(point for point in named if point is not None)]))


def element_points(element: object) -> list[str]:
    """The points an element of a box stands between, in the order it names them."""
    fields = ("a", "b", "primary_a", "primary_b", "secondary_a", "secondary_b")
    return [getattr(element, field) for field in fields if hasattr(element, field)]


def contacts_of(connector: Connector) -> tuple[str, ...]:
    """A connector's contacts in drawing order."""
    return SHAPES[connector.form].contacts


def connector_at(rig: Rig, end: str) -> Connector:
    """The connector behind owner.connector."""
    owner, name = end.split(".")
    return next(connector for connector in rig.part_of(owner).connectors if connector.id == name)


def mates(rig: Rig, join: Join, run_id: str) -> list[Link]:
    """The contacts that touch in one join."""
    pairs = touching(connector_at(rig, join.a).form, connector_at(rig, join.b).form)
    return [Link("mate", f"{join.a}.{mine}", f"{join.b}.{theirs}", run_id) for mine, theirs in pairs]


def _inside(owner: str, part: Part) -> Iterable[Link]:
    for wire in part.wires:
        yield Link("wire", f"{owner}.{wire.a}", f"{owner}.{wire.b}", owner)
    for cable in part.cables:
        for conductor in cable.conductors:
            if conductor.a is not None and conductor.b is not None:
                yield Link(conductor.kind, f"{owner}.{conductor.a}", f"{owner}.{conductor.b}", owner)


def _merged(points: Iterable[str], links: Iterable[Link]) -> dict[str, str]:
    joined: UnionFind[Hashable] = UnionFind(points)
    for link in links:
        joined.union(link.a, link.b)
    names: dict[str, str] = {}
    for group in joined.to_sets():
        first = min(str(point) for point in group)
        names.update((str(point), first) for point in group)
    return names
