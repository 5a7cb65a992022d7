"""Wirings with what a line names on the way, in the order in which it was typed.

A named piece is kept, whatever it does to the sound: it may be plugged either way round, and into whatever it fits,
since people do that too. Between named pieces stand as few others as the connectors ask for.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from heapq import nsmallest
from itertools import pairwise, permutations

from ruvak.core.pieces.chains import Step, fill_chain, kinds
from ruvak.core.pieces.pool import Pool, Socket, Way
from ruvak.core.pieces.practice import PANEL_FAMILIES, has_panel_xlr
from ruvak.core.pieces.route import Route
from ruvak.core.rig.connectors import SHAPES, Form, fits, made_for
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import Join
from ruvak.core.trace.trace import connector_at

FOLLOWED, TRIED = 20, 60
"""How many beginnings of a wiring are followed from one named piece to the next, and how many whole ones are tried."""
MANY = 24
"""A word that may mean more ways through parts than this ("lead") is taken for those that plug in directly."""
MOST_BETWEEN = 2
"""Unnamed pieces between two that are named, where their connectors do not fit."""
FEW_BETWEEN = 8
"""How many kinds of such pieces are looked at in each place."""


@dataclass(frozen=True)
class NamedPiece:
    """Something a line names on the way: the parts it may be, and the item where it was named by its tag."""

    parts: tuple[str, ...]
    item: str | None = None
    length_m: float | None = None
    """How long it is, where that is said of it alone."""
    behind: int = 0
    """How many of the built-in lines that the run passes stand before it."""


_Question = tuple[frozenset[str], frozenset[Way], bool, tuple[NamedPiece, ...], Form, Form]
_Ranked = tuple[tuple[tuple[float, ...], tuple[Step, ...]], ...]
Orders = dict[_Question, _Ranked]
"""Between two forms of socket, with what is owned: the kinds of pieces in the order in which they are tried."""


def named_routes(
    pool: Pool,
    named: tuple[NamedPiece, ...],
    source: Endpoint,
    goal: Endpoint,
    need_m: float,
    goal_form: Form | None = None,
    orders: Orders | None = None,
) -> Iterator[Route]:
    """Ways to wire one socket to another through these pieces, reaching `need_m` with as few others as possible.

    `goal_form`: what the goal is, where it is no socket of the rig. `orders`: what earlier calls of the same search,
    with pools of the same rig, have put in order; this call adds to it.
    """
    start, end = pool.form_at(source), goal_form or pool.form_at(goal)
    orders = {} if orders is None else orders
    question = (pool.owned, pool.single, pool.twice, named, start, end)
    if question not in orders:
        orders[question] = _ranked(pool, named, start, end)
    items = {piece.item for piece in named if piece.item is not None}
    least: tuple[float, ...] | None = None
    for additions, steps in orders[question]:
        if least is not None and additions > least:
            # What needs more, or a piece turned round, is not what was meant.
            return
        for chosen in _long_enough(pool, named, steps, (start, end), need_m):
            chain = fill_chain(pool, chosen, source, goal, need_m, lengths_m=_lengths(named, chosen))
            if chain is not None and items <= {item.id for item in chain.items}:
                least = additions
                yield Route(chain.items, chain.joins, chain.misfits)
                break


def _ranked(pool: Pool, named: tuple[NamedPiece, ...], start: Form, end: Form) -> _Ranked:
    """The kinds of pieces that are tried, nearest to what was typed first, each with what was added, see _additions."""
    boxes = _boxes(pool, named)
    every = list(_sequences(pool, named, start, end))
    ranked = nsmallest(
        TRIED, ((_additions(pool, len(named), boxes, steps), place) for place, steps in enumerate(every))
    )
    return tuple((additions[:3], every[place]) for additions, place in ranked)


def _lengths(named: tuple[NamedPiece, ...], steps: tuple[Step, ...]) -> tuple[float | None, ...]:
    """By step: how long somebody said that it is."""
    left = list(named)
    result: list[float | None] = []
    for step in steps:
        mine = bool(left) and step.way.part in left[0].parts
        result.append(left.pop(0).length_m if mine else None)
    return tuple(result)


def named_forks(
    pool: Pool, named: tuple[NamedPiece, ...], source: Endpoint, goals: tuple[Endpoint, ...], need_m: float
) -> Iterator[Route]:
    """From one socket through these pieces into a lead with two ends: "phone > headset splitter > mixer 5/6"."""
    forms = [connector_at(pool.rig, goal).form for goal in goals]
    for way in pool.ways:
        if not way.cabled or len(way.entries) != 1 or len(way.exits) != len(goals):
            continue
        if not all(made_for(exit_.form, form) for exit_, form in zip(way.exits, forms, strict=True)):
            continue
        for fork in pool.items(way.part, frozenset())[:2]:
            entry = Endpoint(fork.id, way.entries[0].id)
            left_m = max(0.0, need_m - (fork.length_m or 0.0))
            for route in named_routes(pool, named, source, entry, left_m, way.entries[0].form):
                onward = (
                    Join(a=Endpoint(fork.id, exit_.id), b=goal) for exit_, goal in zip(way.exits, goals, strict=True)
                )
                if fork.id not in {item.id for item in route.items}:
                    yield Route((*route.items, fork), (*route.joins, *onward), route.misfits)


def _long_enough(
    pool: Pool, named: tuple[NamedPiece, ...], steps: tuple[Step, ...], ends: tuple[Form, Form], need_m: float
) -> Iterator[tuple[Step, ...]]:
    """As they are where a lead among them may reach, and with one lead more. Farther than an unbalanced line should go
    a box stands near the player: there the lead behind it is tried first, unless the line names a lead itself; and so
    it is where the box's XLR would stand in the device's own."""
    boxes = [place for place, step in enumerate(steps) if pool.parts[step.way.part].kind == "box"]
    behind = steps[boxes[-1] + 1 :] if boxes else ()
    lead_named = any(pool.parts[part].cables for piece in named for part in piece.parts)
    limit_m = pool.rig.venue.house.unbalanced_limit_m.value
    near_the_player = need_m > limit_m and boxes and not lead_named and not any(step.way.cabled for step in behind)
    in_a_panel = (
        bool(steps) and SHAPES[ends[1]].family in PANEL_FAMILIES and pool.holds(has_panel_xlr, steps[-1].way.part)
    )
    longer = list(_with_a_lead(pool, steps, *ends)) if need_m else []
    has_length = not need_m or any(step.way.cabled for step in steps)
    as_they_are = [steps] if has_length else []
    yield from (*longer, *as_they_are) if near_the_player or in_a_panel else (*as_they_are, *longer)


def _sequences(pool: Pool, named: tuple[NamedPiece, ...], start: Form, end: Form) -> Iterator[tuple[Step, ...]]:
    """The named pieces in order, each by one of its parts and one way through it, with what joins them. Piece by piece
    only the nearest to what was typed are followed, so that a long line costs no more than its length."""
    known: dict[tuple[Form, Form], list[tuple[Step, ...]]] = {}

    def between(form: Form, other: Form) -> list[tuple[Step, ...]]:
        if (form, other) not in known:
            known[form, other] = _between(pool, form, other)
        return known[form, other]

    partial: list[tuple[Step, ...]] = [()]
    for count, piece in enumerate(named, 1):
        every = [step for part in piece.parts for step in _steps_through(pool.parts[part])]
        grown = []
        for steps in partial:
            form = steps[-1].exit.form if steps else start
            fitting = [step for step in every if fits(form, step.entry.form)] if len(every) > MANY else []
            grown += [
                (*steps, *joining, step) for step in fitting or every for joining in between(form, step.entry.form)
            ]
        boxes = _boxes(pool, named[:count])
        ranked = [(_additions(pool, count, boxes, steps), place) for place, steps in enumerate(grown)]
        partial = [grown[place] for _, place in nsmallest(FOLLOWED, ranked)]
    for steps in partial:
        for joining in between(steps[-1].exit.form if steps else start, end):
            yield (*steps, *joining)


def _between(pool: Pool, form: Form, other: Form) -> list[tuple[Step, ...]]:
    """Nothing where the two fit; else the kinds of pieces that join them, the fewest first."""
    if fits(form, other):
        return [()]
    result = kinds(pool, form, other, MOST_BETWEEN)
    least = min((len(steps) for steps in result), default=0)
    return [steps for steps in result if len(steps) == least][:FEW_BETWEEN]


def _with_a_lead(pool: Pool, steps: tuple[Step, ...], start: Form, end: Form) -> Iterator[tuple[Step, ...]]:
    """With one lead more, since none of these has any length: last of all, else in front."""
    leaving = [start, *(step.exit.form for step in steps)]
    entering = [*(step.entry.form for step in steps), end]
    for place in range(len(steps), -1, -1):
        for lead in kinds(pool, leaving[place], entering[place], 1):
            if lead and lead[0].way.cabled:
                yield (*steps[:place], *lead, *steps[place:])
                break


def _boxes(pool: Pool, named: tuple[NamedPiece, ...]) -> int:
    """How many of the named pieces can be nothing but boxes."""
    return sum(all(pool.parts[part].kind == "box" for part in piece.parts) for piece in named)


def _additions(pool: Pool, named: int, named_boxes: int, steps: tuple[Step, ...]) -> tuple[float, ...]:
    """Smaller is nearer to what was typed: boxes in their own direction, little added (a box counts as two), other
    pieces in their direction, plugs in what they are made for, no box of two lines for one, things that are owned."""
    turned = [step for step in steps if step.way.entries[0] != step.entry]
    boxes = sum(pool.parts[step.way.part].kind == "box" for step in steps)
    unsure = sum(not made_for(step.exit.form, following.entry.form) for step, following in pairwise(steps))
    half_used = sum(pool.holds(_has_two_ways, step.way.part) for step in steps)
    return (
        sum(pool.parts[step.way.part].kind == "box" for step in turned),
        len(steps) - named + max(0, boxes - named_boxes),
        len(turned),
        unsure,
        half_used,
        sum(not pool.owns(step.way.part) for step in steps),
    )


def _has_two_ways(part: Part) -> bool:
    """Whether it is a box with several outputs, of which a single line uses but the first."""
    return part.kind == "box" and sum(connector.side == "out" for connector in part.connectors) > 1


def _steps_through(part: Part) -> Iterator[Step]:
    """From each connector of a part to each other: in its own direction first."""
    sockets = {connector.id: Socket(connector.id, connector.form) for connector in part.connectors}
    side = {connector.id: connector.side for connector in part.connectors}
    entries = tuple(sockets[name] for name in sockets if side[name] != "out")
    for near, far in permutations(sockets, 2):
        if side[near] == side[far] != "both":
            continue
        # The way is as the part is meant; a step whose entry is none of its entries is a piece turned round.
        as_meant = side[near] != "out" and side[far] != "in"
        way = Way(part.id, (sockets[near],) if as_meant else entries[:1], (sockets[far],), bool(part.cables))
        yield Step(way, sockets[near], sockets[far])
