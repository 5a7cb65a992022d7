"""Which connectors of a run are shown, in which column and lane: the run read from its source, piece by piece."""

from collections import deque
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field

from ruvak.core.rig.connectors import SHAPES, Form, carries_many_channels, half_in_use
from ruvak.core.rig.part import Connector, Part
from ruvak.core.rig.points import Contact, ContactRef, Endpoint, InnerNode, NodeRef
from ruvak.core.rig.rig import Rig, Run
from ruvak.core.trace.run_ends import ends_of
from ruvak.core.trace.trace import InnerLink, Trace, connector_at, element_points, merge_groups, points_of

GROUND_CONTACTS = frozenset({"1", "S", "sleeve", "shell", "screen", "G"})
"""Contacts that usually carry no signal; two ways that share only these are still two ways."""


@dataclass
class DrawnPlace:
    """A piece of the drawing while it is being laid out."""

    id: str
    owner: str
    column: int
    ins: list[Endpoint] = field(default_factory=list)
    outs: list[Endpoint] = field(default_factory=list)


class Layout:
    """`places` in order from the source; `lanes`: row of each shown end; `points`: every contact and node shown."""

    def __init__(self, rig: Rig, traced: Trace, run: Run) -> None:
        self.rig, self.run, self.traced = rig, run, traced
        self.lanes: dict[Endpoint, int] = {}
        self._partner = {join.a: join.b for join in run.joins} | {join.b: join.a for join in run.joins}
        self._pieces: dict[str, DrawnPlace] = {}
        self._shown_of = {piece: _shown_ends(rig, traced, run, piece) for piece in run.pieces}
        sources, targets = ends_of(rig, run, "out"), ends_of(rig, run, "in")
        self._from(list(sources))
        for piece in run.pieces:
            if piece not in self._pieces:
                self._loose(piece)
        self._complete()
        self._in_order()
        last = 1 + max((place.column for place in self._pieces.values()), default=0)
        starting, arriving = self._gear(sources, "source", 0), self._gear(targets, "destination", last)
        self.places: tuple[DrawnPlace, ...] = (*starting, *self._pieces.values(), *arriving)
        self._shell_matters = any(
            isinstance(point, Contact) and point.contact == "shell"
            for piece in run.pieces
            for link in _metal(traced, rig.part_of(piece))
            for point in (link.a, link.b)
        )
        self.points = self._points()

    def contacts(self, end: Endpoint) -> tuple[str, ...]:
        """Of one end, in drawing order; shells only where a piece joins one to something, of light its one way, of a
        D-type the channels whose other plugs are in use."""
        mate = self._partner.get(end)
        form = connector_at(self.rig, end).form
        if SHAPES[form].family == "optical":
            return SHAPES[form].contacts[:1]
        if carries_many_channels(form):
            used = self._channels_in_use(end) | (self._channels_in_use(mate) if mate else set())
            return tuple(name for name in SHAPES[form].contacts if name in used)
        other: Form | None = connector_at(self.rig, mate).form if mate else None
        names = half_in_use(connector_at(self.rig, end).form, other)
        return tuple(name for name in names if name != "shell" or self._shell_matters)

    def _channels_in_use(self, end: Endpoint) -> set[str]:
        """Of a lead's D-type plug the pins whose cables lead to a plug that the run uses; none of a device's socket."""
        in_use = {other.connector for other in self.run.ends if other.owner == end.owner and other != end}
        result: set[str] = set()
        for cable in self.rig.part_of(end.owner).cables:
            points = [point for each in cable.conductors for point in (each.a, each.b) if isinstance(point, Contact)]
            if any(point.connector in in_use for point in points):
                result |= {point.contact for point in points if point.connector == end.connector}
        return result

    def _new_lane(self) -> int:
        return 1 + max(self.lanes.values(), default=-1)

    def _from(self, sources: list[Endpoint]) -> None:
        queue = deque((end, 0) for end in sources)
        for end in sources:
            self.lanes[end] = self._new_lane()
        while queue:
            end, column = queue.popleft()
            other = self._partner.get(end)
            if other is None or other in self.lanes:
                continue
            owner = other.owner
            if owner not in self._shown_of:
                # A destination's socket; its place is made when all pieces have theirs.
                self.lanes[other] = self.lanes[end]
                continue
            queue.extend(self._enter(owner, other, self.lanes[end], column + 1))

    def _enter(self, owner: str, entry: Endpoint, lane: int, column: int) -> list[tuple[Endpoint, int]]:
        """Places a piece, or one more way into it; returns the ends where the run goes on."""
        place = self._pieces.setdefault(owner, DrawnPlace(owner, owner, column))
        place.column = max(place.column, column)
        if entry in place.outs:
            place.outs.remove(entry)
        place.ins.append(entry)
        self.lanes[entry] = lane
        fresh = [end for end in self._shown_of[owner] if end not in self.lanes and end not in place.ins]
        onward = [end for end in fresh if self._leads_on(entry, end)]
        # Of a twin lead each side goes on by itself; the other waits for its own entry.
        onward = [end for end in onward if _same_way(self.rig, self.traced, entry, end)] or onward
        for index, end in enumerate(onward):
            self.lanes[end] = lane if index == 0 and self._free(place, lane) else self._new_lane()
            place.outs.append(end)
        return [(end, place.column) for end in onward]

    def _leads_on(self, entry: Endpoint, end: Endpoint) -> bool:
        """Whether signal that came in at `entry` is expected at `end`: it is not another way in."""
        entered, other = connector_at(self.rig, entry), connector_at(self.rig, end)
        if other.side != entered.side or other.side == "both":
            return True
        mate = self._partner.get(end)
        return mate is None and end not in {join.b for join in self.run.joins}

    def _free(self, place: DrawnPlace, lane: int) -> bool:
        return all(self.lanes[end] != lane for end in place.outs)

    def _loose(self, piece: str) -> None:
        """A piece no source leads to: drawn where it stands in the list, on lanes of its own."""
        place = DrawnPlace(piece, piece, self.run.pieces.index(piece) + 1)
        self._pieces[piece] = place
        for side, ends in (("in", place.ins), ("out", place.outs)):
            for end in self._shown_of[piece]:
                own = connector_at(self.rig, end).side
                if own == side or (own == "both" and side == "in"):
                    ends.append(end)
        first = self._new_lane()
        for ends in (place.ins, place.outs):
            for index, end in enumerate(ends):
                if end not in self.lanes:
                    self.lanes[end] = first + index
        for end in (*place.ins, *place.outs):
            mate = self._partner.get(end)
            if mate is not None and mate not in self.lanes:
                self.lanes[mate] = self.lanes[end]

    def _complete(self) -> None:
        """Ends of a piece that only pieces without a source lead to stand on their own side, on a lane of their own."""
        for piece, place in self._pieces.items():
            for end in self._shown_of[piece]:
                if end not in place.ins and end not in place.outs:
                    side = place.outs if connector_at(self.rig, end).side == "out" else place.ins
                    lane = self.lanes.get(end)
                    if lane is None or any(self.lanes[other] == lane for other in side):
                        self.lanes[end] = self._new_lane()
                    side.append(end)

    def _in_order(self) -> None:
        """Each piece right of every piece that feeds it; pieces plugged in a circle stand as they are listed."""
        entering = {end: piece for piece, place in self._pieces.items() for end in place.ins}
        feeds = [
            (piece, entering[self._partner[end]])
            for piece, place in self._pieces.items()
            for end in place.outs
            if self._partner.get(end) in entering
        ]
        for _ in range(len(self._pieces) + 1):
            late = [
                (self._pieces[a], self._pieces[b]) for a, b in feeds if self._pieces[b].column <= self._pieces[a].column
            ]
            if not late:
                return
            for entry, other in late:
                other.column = entry.column + 1
        for index, piece in enumerate(self.run.pieces):
            self._pieces[piece].column = index + 1

    def _gear(self, ends: dict[Endpoint, Connector], role: str, column: int) -> list[DrawnPlace]:
        places: dict[str, DrawnPlace] = {}
        for end in ends:
            place = places.setdefault(end.owner, DrawnPlace(f"{end.owner}:{role}", end.owner, column))
            self.lanes.setdefault(end, self._new_lane())
            (place.outs if role == "source" else place.ins).append(end)
        return list(places.values())

    def _points(self) -> set[ContactRef | NodeRef]:
        shown: set[ContactRef | NodeRef] = {
            end.contact(contact)
            for place in self.places
            for end in (*place.ins, *place.outs)
            for contact in self.contacts(end)
        }
        for piece in self.run.pieces:
            shown |= _inner_nodes(_metal(self.traced, self.rig.part_of(piece)), piece, shown)
        return shown


def _signals(traced: Trace, part: Part) -> dict[Contact | InnerNode, str]:
    """Points by what they are joined to, shared screens aside; a large multicore is asked for by each of its runs."""
    known = traced.drawing_cache.signals
    if part.id not in known:
        known[part.id] = merge_groups(points_of(part), _pairs(inside_links(part, screens=False)))
    return known[part.id]


def _metal(traced: Trace, part: Part) -> list[InnerLink]:
    known = traced.drawing_cache.metal
    if part.id not in known:
        known[part.id] = inside_links(part)
    return known[part.id]


def _pairs(links: list[InnerLink]) -> Iterator[tuple[Contact | InnerNode, Contact | InnerNode]]:
    return ((link.a, link.b) for link in links)


def _signal_contacts(points: Iterable[Contact | InnerNode]) -> Iterator[Contact]:
    return (point for point in points if isinstance(point, Contact) and point.contact not in GROUND_CONTACTS)


def _same_way(rig: Rig, traced: Trace, endpoint: Endpoint, other: Endpoint) -> bool:
    """Whether a signal contact of one connector of a piece leads to one of another, screens aside."""
    joined = _signals(traced, rig.part_of(endpoint.owner))
    groups = [
        {joined[point] for point in _signal_contacts(joined) if point.connector == end.connector}
        for end in (endpoint, other)
    ]
    return bool(groups[0] & groups[1])


def _shown_ends(rig: Rig, traced: Trace, run: Run, piece: str) -> list[Endpoint]:
    """Ends of a piece that this run uses, and those their signal contacts lead to; all of them if it uses none."""
    part = rig.part_of(piece)
    used = {end.connector for end in run.ends if end.owner == piece}
    if not used:
        return [Endpoint(piece, connector.id) for connector in part.connectors]
    joined = _signals(traced, part)
    signals = list(_signal_contacts(joined))
    live = {joined[point] for point in signals if point.connector in used}
    shown = used | {point.connector for point in signals if joined[point] in live}
    shown |= _bridges(part, shown)
    return [Endpoint(piece, connector.id) for connector in part.connectors if connector.id in shown]


def _bridges(part: Part, shown: set[str]) -> set[str]:
    """Further connectors by way of which contacts of the shown ones are joined, that would look apart without them."""
    points, metal = points_of(part), inside_links(part, components=False)

    def seen(point: Contact | InnerNode) -> bool:
        return isinstance(point, InnerNode) or point.connector in shown

    if not any(seen(link.a) != seen(link.b) for link in metal):
        # Nothing leads from what is shown to what is not.
        return set()
    whole = merge_groups(points, _pairs(metal))
    partial = merge_groups(points, _pairs([link for link in metal if seen(link.a) and seen(link.b)]))
    groups: dict[str, set[str]] = {}
    for point in points:
        if isinstance(point, Contact) and seen(point):
            groups.setdefault(whole[point], set()).add(partial[point])
    torn = {name for name, pieces in groups.items() if len(pieces) > 1}
    return {point.connector for point in points if isinstance(point, Contact) and whole[point] in torn}


def inside_links(part: Part, screens: bool = True, components: bool = True) -> list[InnerLink]:
    """What joins two points of a part; a screen that all ways of a multicore share may be left out, and so may
    components, which join but are not metal."""
    links = [InnerLink("wire", wire.a, wire.b) for wire in part.wires]
    for cable in part.cables:
        for core in cable.conductors:
            if core.a is not None and core.b is not None and (screens or core.kind == "core"):
                links.append(InnerLink(core.kind, core.a, core.b))
    for element in part.elements if components else ():
        points = element_points(element)
        links += [InnerLink("wire", points[0], point) for point in points[1:]]
    return links


def _inner_nodes(metal: list[InnerLink], piece: str, shown: Iterable[ContactRef | NodeRef]) -> set[NodeRef]:
    """Inner nodes of a piece that something joins to a shown contact, or to such a node."""
    neighbours: dict[Contact | InnerNode, set[Contact | InnerNode]] = {}
    for link in metal:
        neighbours.setdefault(link.a, set()).add(link.b)
        neighbours.setdefault(link.b, set()).add(link.a)
    queue: list[Contact | InnerNode] = [point.in_part for point in shown if point.owner == piece]
    inner_nodes: set[InnerNode] = set()
    while queue:
        for point in neighbours.get(queue.pop(), ()):
            if isinstance(point, InnerNode) and point not in inner_nodes:
                inner_nodes.add(point)
                queue.append(point)
    return {point.of(piece) for point in inner_nodes}
