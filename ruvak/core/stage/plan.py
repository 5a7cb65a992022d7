"""Where everything of a rig is on its plan: devices, outlets, and leads along their runs' routes."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise
from math import hypot

import networkx as nx

from ruvak.core.rig.earth import EarthPoint, Position
from ruvak.core.rig.points import BondTarget, Endpoint
from ruvak.core.rig.rig import Gear, KitItem, Rig, Run
from ruvak.core.stage.flux import Path

ORIGIN = Position(x_m=0.0, y_m=0.0)


@dataclass(frozen=True)
class _Spot:
    """A connector on its run's way: how far along, and the way itself."""

    share: float
    way: Path

    @property
    def place(self) -> Position:
        """On the way."""
        return _at_share(self.way, self.share)


@dataclass(frozen=True)
class Plan:
    """Places of a rig whose devices have any; what nobody put down is where its nearest neighbour is."""

    rig: Rig

    @property
    def bar(self) -> Position:
        """The main earth bar."""
        return self.rig.venue.bar_at or ORIGIN

    @cached_property
    def drawn(self) -> bool:
        """Whether any device or outlet has a place: otherwise everything is where the bar is."""
        return any(device.at for device in self.rig.gear) or any(point.at for point in self.rig.venue.earth)

    def is_placed(self, gear_id: str) -> bool:
        """Whether somebody put the device, or the outlet it is at, on the plan."""
        return self._own(self._gear[gear_id]) is not None

    def gear(self, gear_id: str) -> Position:
        """Its own place, its outlet's, its nearest neighbour's along runs and bonds, or the bar's."""
        own = self._own(self._gear[gear_id])
        if own is not None:
            return own
        if gear_id in self._neighbours:
            reached = nx.single_source_shortest_path_length(self._neighbours, gear_id)
            for other in sorted(reached, key=lambda gear: (reached[gear], gear)):
                if (place := self._own(self._gear[other])) is not None:
                    return place
        return self.bar

    def point(self, point_id: str) -> Position:
        """An earth point's own place, that of the first placed device there, else its parent's."""
        if point_id not in self._points:
            return self.bar
        point = self._points[point_id]
        here = (device.at for device in self.rig.gear if device.outlet == point_id and device.at is not None)
        place = point.at or next(here, None)
        if place is not None:
            return place
        return self.point(point.parent) if point.parent else self.bar

    def end(self, end: BondTarget) -> Position:
        """Where a bond's end is: a device, a point of one, or an earth point."""
        return self.gear(end.owner) if end.owner in self._gear else self.point(end.owner)

    def lead(self, item: KitItem, connectors: Sequence[str]) -> Path:
        """The way of a conductor between two of an item's connectors; an end that is cut lies at the other."""
        spots = [self._spots.get(Endpoint(item.id, name)) for name in connectors]
        result = [spot for spot in spots if spot is not None]
        if not result:
            return (self.bar, self.bar)
        first, last = result[0], result[-1]
        if first.way != last.way:
            return (first.place, last.place)
        low, high = sorted((first.share, last.share))
        bends = [entry for share, entry in _shares(first.way) if low < share < high]
        return (first.place, *(bends if first.share <= last.share else reversed(bends)), last.place)

    def is_drawn(self, item: KitItem) -> bool:
        """Whether both ends of the runs that use it are on the plan."""
        return item.id in self._drawn_items

    @cached_property
    def _gear(self) -> dict[str, Gear]:
        return {device.id: device for device in self.rig.gear}

    @cached_property
    def _points(self) -> dict[str, EarthPoint]:
        return {point.id: point for point in self.rig.venue.earth}

    def _own(self, gear: Gear) -> Position | None:
        if gear.at is not None:
            return gear.at
        return self._points[gear.outlet].at if gear.outlet else None

    @cached_property
    def _neighbours(self) -> "nx.Graph[str]":
        graph: nx.Graph[str] = nx.Graph()
        for run in self.rig.runs:
            ends = [owner for owner in run.owners if owner in self._gear]
            graph.add_edges_from(pairwise(ends))
        for bond in self.rig.bonds:
            ends = [bond.a.owner, bond.b.owner]
            if all(owner in self._gear for owner in ends):
                graph.add_edge(*ends)
        return graph

    @cached_property
    def _drawn_items(self) -> set[str]:
        names: set[str] = set()
        for run in self.rig.runs:
            gear = [owner for owner in run.owners if owner in self._gear]
            if gear and all(self.is_placed(owner) for owner in gear):
                names |= set(run.pieces)
        return names

    @cached_property
    def _spots(self) -> dict[Endpoint, _Spot]:
        result: dict[Endpoint, _Spot] = {}
        for run in self.rig.runs if self.drawn else ():
            for end, spot in self._of_run(run).items():
                result.setdefault(end, spot)
        return result

    def _of_run(self, run: Run) -> dict[Endpoint, _Spot]:
        """Every connector of the run's pieces, by how far it is from the nearest device on either side."""
        graph = self._graph(run)
        gear = [end for end in graph if end.owner in self._gear]
        sources = [end for end in gear if any(join.a == end for join in run.joins)]
        goals = [end for end in gear if end not in sources]
        if not sources or not goals:
            return {}
        back, ways_back = nx.multi_source_dijkstra(graph, set(sources))
        ahead, ways_ahead = nx.multi_source_dijkstra(graph, set(goals))
        result = {}
        for end in graph:
            if end in gear or (end not in back and end not in ahead):
                continue
            if end in back and end in ahead:
                total = back[end] + ahead[end]
                share = back[end] / total if total else 0.0
                first, last = ways_back[end][0], ways_ahead[end][0]
            else:
                share = 0.0
                first = last = (ways_back if end in back else ways_ahead)[end][0]
            way = (self.gear(first.owner), *run.route, self.gear(last.owner))
            result[end] = _Spot(share, way)
        return result

    def _graph(self, run: Run) -> "nx.Graph[Endpoint]":
        graph: nx.Graph[Endpoint] = nx.Graph()
        for join in run.joins:
            graph.add_edge(join.a, join.b, weight=0.0)
        for piece in run.pieces:
            item = self.rig.owners_by_id[piece]
            own = [end for end in graph if end.owner == piece]
            length_m = (item.length_m or 0.0) if isinstance(item, KitItem) else 0.0
            inward = [end for end in own if any(join.b == end for join in run.joins)]
            graph.add_edges_from(
                (entry, other, {"weight": length_m}) for entry in inward for other in own if other not in inward
            )
        return graph


def _lengths(way: Path) -> list[float]:
    return [hypot(b.x_m - a.x_m, b.y_m - a.y_m) for a, b in pairwise(way)]


def _shares(way: Path) -> list[tuple[float, Position]]:
    """The way's points with how far along it they are."""
    lengths = _lengths(way)
    total, so_far = sum(lengths), 0.0
    result = [(0.0, way[0])]
    for length, place in zip(lengths, way[1:], strict=True):
        so_far += length
        result.append((so_far / total if total else 1.0, place))
    return result


def _at_share(way: Path, share: float) -> Position:
    marks = _shares(way)
    for (low, a), (high, b) in pairwise(marks):
        if share <= high:
            within = (share - low) / (high - low) if high > low else 0.0
            return Position(x_m=a.x_m + within * (b.x_m - a.x_m), y_m=a.y_m + within * (b.y_m - a.y_m))
    return way[-1]
