"""Complete wirings between a run's source sockets and destination sockets: one to one, pairs, forks and merges."""

from collections.abc import Iterable, Iterator
from itertools import islice, zip_longest

from ruvak.core.pieces.chains import Chain, Step, fill_chain, kinds, kinds_with
from ruvak.core.pieces.forks import fork
from ruvak.core.pieces.joints import CHAINS_EACH, has_each, put_together
from ruvak.core.pieces.merges import merge
from ruvak.core.pieces.pool import Groups, Pool
from ruvak.core.pieces.route import Route
from ruvak.core.pieces.twins import twin_routes, twins_in_line, twins_then_singles
from ruvak.core.rig.connectors import carries_many_channels, made_for
from ruvak.core.rig.points import Endpoint


def routes(
    pool: Pool,
    sources: tuple[Endpoint, ...],
    goals: tuple[Endpoint, ...],
    need_m: float,
    channels: tuple[int, ...] = (),
) -> Iterator[Route]:
    """Ways to wire these sockets, simplest first; need_m is how far each line has to reach.

    `channels`: where one end is a socket with several channels, those that the other end's sockets go to, from 1; left
    out, the first.
    """
    many = [_has_many_channels(pool, ends) for ends in (sources, goals)]
    if many == [True, False]:
        yield from fork(pool, sources[0], goals, need_m, channels)
    elif many == [False, True]:
        yield from merge(pool, sources, goals[0], need_m, channels)
    elif len(sources) == len(goals):
        if len(sources) == 2:
            # In turn, so that a few looked at are of each kind.
            rows = zip_longest(
                twin_routes(pool, sources, goals, need_m),
                _side_by_side(pool, sources, goals, need_m),
                twins_in_line(pool, sources, goals, need_m),
                twins_then_singles(pool, sources, goals, need_m),
            )
            yield from (route for row in rows for route in row if route is not None)
        else:
            yield from _side_by_side(pool, sources, goals, need_m)
    elif len(sources) == 1:
        yield from fork(pool, sources[0], goals, need_m)
    elif len(goals) == 1:
        yield from merge(pool, sources, goals[0], need_m)


def _has_many_channels(pool: Pool, ends: tuple[Endpoint, ...]) -> bool:
    return len(ends) == 1 and carries_many_channels(pool.form_at(ends[0]))


def _side_by_side(
    pool: Pool, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...], need_m: float
) -> Iterator[Route]:
    """The same kinds of pieces for each line; where none of the usual length has what it must, with that put in."""
    start, goal = pool.form_at(sources[0]), pool.form_at(goals[0])
    sequences: Iterable[tuple[Step, ...]] = kinds(pool, start, goal)
    if pool.must and next(_of_same_kinds(pool, sequences, sources, goals, need_m, pool.must), None) is None:
        sequences = (steps for parts in pool.must for steps in kinds_with(pool, start, goal, parts))
    yield from _of_same_kinds(pool, sequences, sources, goals, need_m, (*pool.must, *pool.named))


def _of_same_kinds(
    pool: Pool,
    sequences: Iterable[tuple[Step, ...]],
    sources: tuple[Endpoint, ...],
    goals: tuple[Endpoint, ...],
    need_m: float,
    must: Groups,
) -> Iterator[Route]:
    """Of the first so many sequences those that have a part of each of these groups and reach, on each line."""
    start, *rest = zip(sources, goals, strict=True)
    for steps in islice(sequences, 40 * CHAINS_EACH):
        if not has_each(steps, must):
            continue
        filled = fill_chain(pool, steps, *start, need_m)
        if filled is None:
            continue
        chains = [filled]
        for source, target in rest:
            used = frozenset(item.id for chain in chains for item in chain.items)
            more = _same_kinds(pool, steps, (source, target), need_m, used)
            if more is None:
                break
            chains.append(more)
        if len(chains) == len(sources):
            yield put_together(chains)


def _same_kinds(
    pool: Pool, steps: tuple[Step, ...], ends: tuple[Endpoint, Endpoint], need_m: float, used: frozenset[str]
) -> Chain | None:
    forms = [pool.form_at(ends[0]), *(step.exit.form for step in steps)]
    entries = [*(step.entry.form for step in steps), pool.form_at(ends[1])]
    if not all(made_for(form, other) for form, other in zip(forms, entries, strict=True)):
        return None
    return fill_chain(pool, steps, ends[0], ends[1], need_m, used)
