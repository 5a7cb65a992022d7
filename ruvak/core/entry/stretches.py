"""Runs that pass what is built in: a wiring to it, through it, and on from there, with what the line names on each
stretch.
"""

from collections.abc import Iterator
from itertools import islice

from ruvak.core.entry.wanted import Through
from ruvak.core.pieces.named import NamedPiece, Orders, named_routes
from ruvak.core.pieces.pool import Pool
from ruvak.core.pieces.route import Route
from ruvak.core.pieces.routes import routes
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Contact, Endpoint
from ruvak.core.trace.layout import inside_links
from ruvak.core.trace.trace import merge_groups, points_of

LOOKED_AT = 120
ONWARD_LOOKED_AT = 8
"""How many wirings to a built-in line are looked at, and how many onward from it for each."""


def through_routes(
    pool: Pool,
    through: tuple[Through, ...],
    sources: tuple[Endpoint, ...],
    goals: tuple[Endpoint, ...],
    need_m: float,
    named: tuple[NamedPiece, ...],
    orders: Orders,
    passed: int = 0,
) -> Iterator[Route]:
    """Wirings through all of these; `need_m` is the length of the first stretch, those after it are as short as they
    can be or as long as the line says. `orders`: see named_routes. `passed`: how many built-in lines lie behind
    already.
    """
    first, *rest = through
    if len(sources) != len(first.entries) and len(sources) != 1:
        return
    exits = tuple(exit_of(pool.rig.part_of(first.item.id), entry) for entry in first.entries)
    here = tuple(piece for piece in named if piece.behind == passed)
    for before in islice(_stretch(pool, sources, first.entries, need_m, here, orders), LOOKED_AT):
        taken = pool.without(frozenset(item.id for item in before.items))
        onward = _onward(taken, tuple(rest), exits, goals, named, orders, passed + 1)
        for after in islice(onward, ONWARD_LOOKED_AT):
            yield Route((*before.items, first.item, *after.items), (*before.joins, *after.joins))


def _onward(
    pool: Pool,
    rest: tuple[Through, ...],
    exits: tuple[Endpoint, ...],
    goals: tuple[Endpoint, ...],
    named: tuple[NamedPiece, ...],
    orders: Orders,
    passed: int,
) -> Iterator[Route]:
    here = tuple(piece for piece in named if piece.behind == passed)
    need_m = sum(piece.length_m or 0.0 for piece in here)
    if rest:
        yield from through_routes(pool, rest, exits, goals, need_m, named, orders, passed)
    elif not goals:
        yield Route((), ())
    else:
        yield from _stretch(pool, exits, goals, need_m, here, orders)


def _stretch(
    pool: Pool,
    sources: tuple[Endpoint, ...],
    goals: tuple[Endpoint, ...],
    need_m: float,
    named: tuple[NamedPiece, ...],
    orders: Orders,
) -> Iterator[Route]:
    """Between two built-in lines, or one and a device; what is named stands in its order where the run is one line."""
    if named and len(sources) == len(goals) == 1:
        yield from named_routes(pool, named, sources[0], goals[0], need_m, orders=orders)
    else:
        parts = tuple(frozenset(piece.parts) for piece in named)
        naming = pool.naming(parts) if parts else pool
        yield from (route for route in routes(naming, sources, goals, need_m) if route.has_one_of_each(parts))


def exit_of(part: Part, entry: Endpoint) -> Endpoint:
    """Where signal that enters a built-in part comes out again; the entry itself if nowhere."""
    joined = merge_groups(points_of(part), ((link.a, link.b) for link in inside_links(part, screens=False)))
    groups: dict[str, set[str]] = {}
    for point, group in joined.items():
        if isinstance(point, Contact) and (point.connector != entry.connector or point.contact not in ("1", "shell")):
            groups.setdefault(point.connector, set()).add(group)
    signal = groups.get(entry.connector, set())
    for connector in part.connectors:
        if connector.id != entry.connector and groups.get(connector.id, set()) & signal:
            return Endpoint(entry.owner, connector.id)
    return entry
