"""Candidates for a run that a line asks for: free sockets at both ends and the pieces between, simplest first."""

import re
from collections.abc import Collection, Iterator
from dataclasses import dataclass, replace
from heapq import merge
from itertools import chain, islice, zip_longest

from ruvak.core.entry.line_ends import End
from ruvak.core.entry.stretches import through_routes
from ruvak.core.entry.wanted import Wanted
from ruvak.core.pieces.cures import is_pad
from ruvak.core.pieces.named import NamedPiece, Orders, named_forks, named_routes
from ruvak.core.pieces.pool import Pool
from ruvak.core.pieces.practice import feeds_line_by_di, misuses_di, practice_cost
from ruvak.core.pieces.route import Route, simplicity
from ruvak.core.pieces.routes import routes
from ruvak.core.rig.connectors import SHAPES, Form, fits
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import Join, Rig, is_two_way
from ruvak.core.trace.trace import connector_at

ASSUMED_REACH_M = 3.0
"""How far a lead has to reach where the line does not say: a lead beside the desk, common practice."""
LISTED, LISTED_OF_NAMED = 12, 3
"""How many of the simplest wirings of each choice of sockets are candidates; where the line names its pieces fewer, so
that little is added to them."""
LOOKED_AT, LOOKED_AT_FOR_PAIRS, LOOKED_AT_TO_CURE, LOOKED_AT_FOR_NAMED = 120, 72, 48, 400
"""How many wirings are put together for that; how many of a pair or a fork, whose two lines are alike; how many with a
cure; how many when one must contain what is named."""
MADE_FOR_BOTH = 8
"""Among how many one owned piece a line is looked for."""
WIDE_TO_CURE = 12
"""How many lines behind a fork are looked at where a pad stands anywhere behind it."""

Kinds = tuple[tuple[str, ...], tuple[str, ...]]
"""Parts in order and the sockets at both ends without their numbers: what runs of a series have in common."""


@dataclass(frozen=True)
class Wiring:
    """A candidate: sockets chosen, pieces chosen."""

    sources: tuple[Endpoint, ...]
    goals: tuple[Endpoint, ...]
    route: Route
    cost: tuple[float, float, float]
    """Smaller is tried first: what has to be got and what is against practice, then the number of pieces, then lead."""

    @property
    def parts(self) -> tuple[str, ...]:
        """The kinds of its pieces, in order."""
        return tuple(item.part for item in self.route.items)


class Wirings:
    """The candidates for one run. `users`: which run uses a socket."""

    def __init__(self, pool: Pool, wanted: Wanted, users: Collection[Endpoint]) -> None:
        self.pool, self.wanted, self._users = pool, wanted, users
        self._orders: Orders = {}
        named = tuple(map(frozenset, wanted.parts))
        self._naming = replace(pool, known=pool.through, named=named) if named else pool

    def are_any(self) -> bool:
        """Whether anything leads from one end to the other."""
        return any(next(self._find(*sockets), None) is not None for sockets in self._sockets())

    def simplest(self) -> Iterator[Wiring]:
        """The simplest ones, of each choice of sockets one first: a channel's two inputs are both looked at before a
        second wiring to one of them."""
        return chain(self._made_for_both(), self._listed())

    def with_cures(self, needed: tuple[tuple[str, ...], ...], wide: bool) -> Iterator[Wiring]:
        """Those with a part of each of these groups: the simplest of each number of pieces, then the next.

        `wide`: a pad stands anywhere behind a fork, so more lines are looked at there.
        """
        must = tuple(frozenset(parts) for parts in needed)
        pool = self.pool
        curing = Wirings(
            replace(pool, known=pool.through, must=must, wide=WIDE_TO_CURE if wide else pool.wide),
            self.wanted,
            self._users,
        )
        by_pieces: dict[int, list[Wiring]] = {}
        for sockets in self._sockets():
            having = (wiring for wiring in curing._find(*sockets) if wiring.route.has_one_of_each(needed))
            for wiring in islice(having, LOOKED_AT_TO_CURE):
                by_pieces.setdefault(len(wiring.route.items), []).append(wiring)
        columns = [sorted(by_pieces[count], key=lambda wiring: wiring.cost) for count in sorted(by_pieces)]
        for row in zip_longest(*columns):
            yield from sorted((wiring for wiring in row if wiring is not None), key=lambda wiring: wiring.cost)

    def like(self, kinds: Kinds) -> Wiring | None:
        """Of a series of runs: the wiring like that of the run before."""
        for sockets in self._sockets():
            for wiring in islice(self._find(*sockets), LOOKED_AT):
                if kinds == kinds_of(wiring.route):
                    return wiring
        return None

    def _sockets(self) -> Iterator[tuple[tuple[Endpoint, ...], tuple[Endpoint, ...]]]:
        """Each choice of sockets at the two ends of which none is in use."""
        for sources in _source_choices(self.wanted.sources, self._users):
            for goals in _goal_choices(self.wanted, self._users):
                if not any(end in self._users for end in (*sources, *goals)):
                    yield sources, goals

    def _made_for_both(self) -> Iterator[Wiring]:
        """One owned piece a line that is made for both sockets: where that is clear, nothing else need be sought."""
        if self.wanted.parts or self.wanted.items or self.wanted.through or not self.pool.owned:
            return
        for sources, goals in self._sockets():
            few = islice(self._find(sources, goals), MADE_FOR_BOTH)
            first = min(few, key=lambda wiring: wiring.cost, default=None)
            if first is not None and first.cost[0] == 0.0 and len(first.parts) == len(sources):
                yield first
                return

    def _listed(self) -> Iterator[Wiring]:
        most = LISTED_OF_NAMED if self.wanted.names_pieces else LISTED
        by_sockets: list[Iterator[Wiring]] = []
        for sources, goals in self._sockets():
            plain = not (self.wanted.through or self.wanted.parts or self.wanted.items)
            straight = plain and not self._by_headset(sources, goals) and _straight(self.pool.rig, sources, goals)
            if self.wanted.length_m is None and straight:
                yield self._wiring(sources, goals, Route((), (Join(a=sources[0], b=goals[0]),)))
                return
            by_sockets.append(islice(self._simplest_first(sources, goals), most))
        first = [wiring for wirings in by_sockets for wiring in islice(wirings, 1)]
        # Of each kind of socket one before another of the same: a disc mixer's deck and a player's input.
        kinds = [_kinds_of_ends(wiring.goals) for wiring in first]
        places = [kinds[:at].count(kind) for at, kind in enumerate(kinds)]
        for _, wiring in sorted(zip(places, first, strict=True), key=lambda entry: (entry[0], entry[1].cost)):
            yield wiring
        yield from islice(merge(*by_sockets, key=lambda wiring: wiring.cost), most)

    def _simplest_first(self, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...]) -> Iterator[Wiring]:
        """By their cost. Between two sockets those with the fewest kinds of pieces to get come first, so that a wiring
        that costs less than those that follow have to get is given before they are put together."""
        most = LOOKED_AT if len(sources) == len(goals) == 1 else LOOKED_AT_FOR_PAIRS
        few = islice(self._find(sources, goals), most)
        if len(sources) + len(goals) > 2 or self.wanted.named or self.wanted.through:
            yield from sorted(few, key=lambda wiring: wiring.cost)
            return
        waiting: list[Wiring] = []
        for wiring in few:
            to_get = len({item.part for item in wiring.route.items if not item.owned})
            waiting.sort(key=lambda other: other.cost)
            while waiting and waiting[0].cost[0] < to_get:
                yield waiting.pop(0)
            waiting.append(wiring)
        yield from sorted(waiting, key=lambda wiring: wiring.cost)

    def _find(self, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...]) -> Iterator[Wiring]:
        pool, wanted = self.pool, self.wanted
        need_m = wanted.length_m
        if need_m is None:
            need_m = 0.0 if _brings_its_lead(pool.rig, sources, goals) else ASSUMED_REACH_M
        if wanted.named and not wanted.through and len(sources) == len(goals) == 1:
            result = named_routes(pool, wanted.named, sources[0], goals[0], need_m, orders=self._orders)
        elif wanted.named and not wanted.through and len(sources) == 1 and len(goals) == 2:
            result = filter(self._has_what_is_named, routes(self._naming, sources, goals, need_m))
            first = next(result, None)
            if first is None:
                result = named_forks(pool, wanted.named, sources[0], goals, need_m)
            else:
                result = chain((first,), result)
        elif not (wanted.names_pieces or wanted.through) and self._by_headset(sources, goals):
            result = chain(self._by_splitter(sources[0], goals[0], need_m), routes(pool, sources, goals, need_m))
        elif wanted.through:
            result = through_routes(pool, wanted.through, sources, goals, need_m, wanted.named, self._orders)
        else:
            result = routes(self._naming, sources, goals, need_m, wanted.channels)
        for route in islice(result, LOOKED_AT_FOR_NAMED):
            if self._has_what_is_named(route) and not self._misuses_di(route, goals):
                yield self._wiring(sources, goals, route)

    def _by_headset(self, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...]) -> bool:
        """Whether a socket listens only by a headset's microphone contact, which a plug of three contacts joins to the
        ground."""
        forms = [self.pool.form_at(end) for end in (*sources, *goals)]
        return len(forms) == 2 and forms[1] is Form.TRRS35_SOCKET and forms[0] is not Form.TRRS35_PLUG

    def _by_splitter(self, source: Endpoint, goal: Endpoint, need_m: float) -> Iterator[Route]:
        """By the microphone side of a headset splitter, and with a pad in front of it, since the input is for
        millivolts."""
        parts = self.pool.parts.values()
        splitters = NamedPiece(tuple(part.id for part in parts if part.kind == "adapter" and is_two_way(part)))
        pads = NamedPiece(
            tuple(part.id for part in parts if is_pad(part) and SHAPES[part.connectors[0].form].family == "3.5 mm")
        )
        for named in ((splitters,), (pads, splitters)):
            if all(piece.parts for piece in named):
                yield from named_routes(self.pool, named, source, goal, need_m)

    def _misuses_di(self, route: Route, goals: tuple[Endpoint, ...]) -> bool:
        """Of a line that names its pieces only what it does not say: a DI into a line input where it may be another."""
        if not self.wanted.names_pieces:
            return misuses_di(self.pool, route, goals)
        open_goals = any(len(end.choices) > 1 for end in self.wanted.goals)
        return open_goals and feeds_line_by_di(self.pool, route, goals)

    def _wiring(self, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...], route: Route) -> Wiring:
        to_get, pieces, lead_m = simplicity(route)
        against = practice_cost(self.pool, route, sources, goals, chosen=self.wanted.names_pieces)
        return Wiring(sources, goals, route, (to_get + against, pieces, lead_m))

    def _has_what_is_named(self, route: Route) -> bool:
        items = {item.id for item in route.items}
        return route.has_one_of_each(self.wanted.parts) and items >= set(self.wanted.items)


def kinds_of(route: Route) -> Kinds:
    """See Kinds."""
    ends = (route.joins[0].a, route.joins[-1].b)
    return tuple(item.part for item in route.items), _kinds_of_ends(ends)


def _kinds_of_ends(ends: tuple[Endpoint, ...]) -> tuple[str, ...]:
    """The names of sockets without their numbers."""
    return tuple(re.sub(r"\d+", "", end.connector) for end in ends)


def _source_choices(sources: tuple[End, ...], users: Collection[Endpoint]) -> Iterator[tuple[Endpoint, ...]]:
    first, *rest = sources
    for choice in first.free_choices(users):
        yield (*choice, *(end for other in rest for end in other.choices[0]))


def _goal_choices(wanted: Wanted, users: Collection[Endpoint]) -> Iterator[tuple[Endpoint, ...]]:
    if wanted.goal is None:
        yield ()
    else:
        for choices in zip(*(end.free_choices(users) for end in wanted.goals), strict=False):
            yield tuple(socket for choice in choices for socket in choice)


def _brings_its_lead(rig: Rig, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...]) -> bool:
    """Whether everything at one end has a lead of its own, whose plug it is (not an XLR on a panel): that reaches."""
    sides = [[connector_at(rig, end).form for end in ends] for ends in (sources, goals) if ends]
    return any(all(SHAPES[form].plug and not form.startswith("xlr") for form in forms) for forms in sides)


def _straight(rig: Rig, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...]) -> bool:
    """Whether one of the two is the plug of a device's own lead (not an XLR on a panel) and goes right in."""
    if len(sources) != 1 or len(goals) != 1:
        return False
    near, far = connector_at(rig, sources[0]).form, connector_at(rig, goals[0]).form
    return fits(near, far) and not near.startswith("xlr")
