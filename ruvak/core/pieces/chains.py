"""Chains of pieces from one connector to another: first the kinds of pieces that fit, then the items that reach."""

from collections.abc import Collection, Iterator
from dataclasses import dataclass
from functools import lru_cache
from itertools import zip_longest

from ruvak.core.pieces.pool import Pool, Socket, Way
from ruvak.core.rig.connectors import SHAPES, Form, made_for
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import Join, KitItem

MAX_LEGS_IN_LINE = 3


@dataclass(frozen=True)
class Step:
    """A way through a part by one of its entries and one of its exits."""

    way: Way
    entry: Socket
    exit: Socket


@dataclass(frozen=True)
class Chain:
    """Items in order and their joins, both ends included."""

    items: tuple[KitItem, ...]
    joins: tuple[Join, ...]
    misfits: int

    @property
    def length_m(self) -> float:
        """All leads together."""
        return sum(item.length_m or 0.0 for item in self.items)


def kinds(pool: Pool, start: Form, goal: Form, most: int = MAX_LEGS_IN_LINE) -> tuple[tuple[Step, ...], ...]:
    """Sequences of one-in, one-out parts that lead from a connector of form `start` to one of form `goal`.

    Those with least to get first, then the shortest, then those that begin with a plug made for the socket.
    """
    single = pool.single
    return _in_order(single, pool.missing, start, goal, most, pool.twice)


def kinds_with(pool: Pool, start: Form, goal: Form, parts: Collection[str]) -> Iterator[tuple[Step, ...]]:
    """The same sequences, each with one of these parts put in besides wherever that fits: a pad in a long line that
    takes three pieces already."""
    boxes = sorted((way for way in pool.single if way.part in parts), key=_by_name)
    for steps in kinds(pool, start, goal):
        forms = [(start, steps[0].entry.form if steps else goal)]
        forms += [
            (step.exit.form, after.entry.form if after else goal)
            for step, after in zip_longest(steps, steps[1:])
            if step is not None
        ]
        for place, (before, after) in enumerate(forms):
            for box in boxes:
                if made_for(before, box.entries[0].form) and made_for(box.exits[0].form, after):
                    yield (*steps[:place], Step(box, box.entries[0], box.exits[0]), *steps[place:])


@lru_cache(maxsize=512)
def _in_order(
    ways: frozenset[Way], missing: frozenset[str], start: Form, goal: Form, most: int, twice: bool
) -> tuple[tuple[Step, ...], ...]:
    result = _sequences(ways, start, goal, most, twice)

    def simplicity(steps: tuple[Step, ...]) -> tuple[int, int, int]:
        fits_badly = misfit(start, steps[0].entry.form) if steps and not SHAPES[start].plug else 0
        return sum(step.way.part in missing for step in steps), len(steps), fits_badly

    return tuple(sorted(result, key=simplicity))


@lru_cache(maxsize=512)
def _sequences(ways: frozenset[Way], start: Form, goal: Form, most: int, twice: bool) -> tuple[tuple[Step, ...], ...]:
    """Every sequence without a part twice in it, where `twice` but for a lead on either side of a box.

    Of three pieces in a row at least one of the last two is a lead.
    """
    in_order = sorted(ways, key=_by_name)
    layer: list[tuple[Form, tuple[Step, ...]]] = [(start, ())]
    result: list[tuple[Step, ...]] = [()] if made_for(start, goal) else []
    for _ in range(most):
        following: list[tuple[Form, tuple[Step, ...]]] = []
        for form, steps in layer:
            for way in in_order:
                if not made_for(form, way.entries[0].form):
                    continue
                if any(way == step.way for step in steps) and not (twice and way.cabled and steps[-1].way.boxed):
                    continue
                if len(steps) > 1 and not (way.cabled or steps[-1].way.cabled):
                    continue
                if steps and _goes_back(steps[-1], way):
                    continue
                grown = (*steps, Step(way, way.entries[0], way.exits[0]))
                if made_for(way.exits[0].form, goal):
                    result.append(grown)
                following.append((way.exits[0].form, grown))
        layer = following
    return tuple(result)


def _by_name(way: Way) -> tuple[str, str, str]:
    """An order that is the same in every process; of a lead that is the same either way round, its own direction."""
    return way.part, way.entries[0].id, way.exits[0].id


def _goes_back(before: Step, way: Way) -> bool:
    """Whether a lead or adapter only undoes what the one in front of it does: RCA to XLR, then XLR to RCA."""
    return not (before.way.boxed or way.boxed) and way.exits[0].form == before.entry.form


def fill_chain(
    pool: Pool,
    steps: tuple[Step, ...],
    start: Endpoint,
    goal: Endpoint,
    need_m: float,
    used: frozenset[str] = frozenset(),
    lengths_m: tuple[float | None, ...] = (),
) -> Chain | None:
    """The kinds as items that reach together, or None where nothing is long enough. A lead may be lengthened by
    another of its kind where the two plug into each other. `lengths_m`: by step, how long somebody said that it is."""
    cabled = [index for index, step in enumerate(steps) if step.way.cabled]
    if not cabled and need_m > 0.0:
        return None
    picked: list[list[KitItem]] = []
    choices: list[tuple[KitItem, ...]] = []
    taken = used
    for place, step in enumerate(steps):
        options = pool.items(step.way.part, taken)
        if not options:
            return None
        said_m = lengths_m[place] if place < len(lengths_m) else None
        choices.append(options)
        picked.append([_shortest(options, said_m)] if step.way.cabled else [options[0]])
        taken |= {picked[-1][0].id}
    cabled = [index for index in cabled if index >= len(lengths_m) or lengths_m[index] is None] or cabled
    if cabled and not _reach(pool, steps, picked, choices, cabled, need_m, used):
        return None
    return _join(pool, steps, picked, start, goal)


def _shortest(options: tuple[KitItem, ...], least_m: float | None) -> KitItem:
    """The shortest that is as long as somebody said, or the longest there is."""
    if least_m is None:
        return min(options, key=lambda item: (item.is_suspect, _length_m(item))) if options[0].owned else options[0]
    reaching = [item for item in options if _length_m(item) >= least_m - 1e-9]
    return min(reaching or options, key=lambda item: (item.is_suspect, _length_m(item) * (1 if reaching else -1)))


def _length_m(item: KitItem) -> float:
    return item.length_m or 0.0


def _reach(
    pool: Pool,
    steps: tuple[Step, ...],
    picked: list[list[KitItem]],
    choices: list[tuple[KitItem, ...]],
    cabled: list[int],
    need_m: float,
    used: frozenset[str],
) -> bool:
    """Exchanges the lead that can grow most for one that reaches, or for two of its kind. `choices`: by step what it
    was picked from."""
    main = cabled[0] if len(cabled) == 1 else max(cabled, key=lambda index: max(map(_length_m, choices[index])))
    others = sum(_length_m(items[0]) for index, items in enumerate(picked) if index != main)
    step = steps[main]
    taken = used | {items[0].id for index, items in enumerate(picked) if index != main}
    occurs_twice = sum(other.way.part == step.way.part for other in steps) > 1
    options = pool.items(step.way.part, taken) if occurs_twice else choices[main]
    reaching = [item for item in options if _length_m(item) + others >= need_m - 1e-9]
    if reaching and not reaching[0].owned:
        # Of what would have to be got the shortest stands first.
        picked[main] = reaching[:1]
        return True
    if reaching:
        best = min(reaching, key=pool.order_of)
        picked[main] = [best]
        return True
    if not made_for(step.exit.form, step.entry.form):
        return False
    picked[main] = _several(pool, step.way.part, options, need_m - others, taken)
    return bool(picked[main])


def _several(
    pool: Pool, part: str, options: tuple[KitItem, ...], need_m: float, taken: frozenset[str]
) -> list[KitItem]:
    """The fewest, longest first, that reach together; made up ones where the kit runs out. Empty if three do not."""
    chosen: list[KitItem] = []
    left = sorted(options, key=lambda item: (item.is_suspect, -_length_m(item)))
    while len(chosen) < 3 and sum(map(_length_m, chosen)) < need_m:
        if not left:
            more = pool.items(part, taken | {item.id for item in (*options, *chosen)})
            left = sorted((i for i in more if not i.owned), key=lambda item: -_length_m(item))
            if not left:
                return []
        chosen.append(left.pop(0))
        left = [item for item in left if item.id != chosen[-1].id]
    return chosen if sum(map(_length_m, chosen)) >= need_m - 1e-9 else []


@lru_cache(maxsize=16_384)
def join_of(a: Endpoint, b: Endpoint) -> Join:
    """A join of the two, without validation: thousands of wirings are put together, and both are endpoints already."""
    return Join.model_construct(a=a, b=b)


@lru_cache(maxsize=1024)
def misfit(form: Form, other: Form) -> int:
    """How far two mated phone connectors are from made for each other: 0 when they are, 1 for a plug with fewer
    contacts than the socket (its sleeve joins them), 2 for one with more (a ring is left open)."""
    plug, socket = (form, other) if SHAPES[form].plug else (other, form)
    more = len(SHAPES[plug].contacts) - len(SHAPES[socket].contacts)
    return 0 if more == 0 or socket is Form.COMBO_SOCKET else 2 if more > 0 else 1


def _misfits(pool: Pool, steps: tuple[Step, ...], start: Endpoint, goal: Endpoint) -> int:
    left = [_form_at(pool, start), *(step.exit.form for step in steps)]
    right = [*(step.entry.form for step in steps), _form_at(pool, goal)]
    return sum(misfit(entry, other) for entry, other in zip(left, right, strict=True) if entry and other)


def _form_at(pool: Pool, end: Endpoint) -> Form | None:
    """None for an end of a piece that is not in the rig yet; its own search counts that mating."""
    return pool.form_at(end) if end.owner in pool.rig.owners_by_id else None


def _join(pool: Pool, steps: tuple[Step, ...], picked: list[list[KitItem]], start: Endpoint, goal: Endpoint) -> Chain:
    items: list[KitItem] = []
    joins: list[Join] = []
    here = start
    for step, chosen in zip(steps, picked, strict=True):
        for item in chosen:
            joins.append(join_of(here, Endpoint(item.id, step.entry.id)))
            here = Endpoint(item.id, step.exit.id)
            items.append(item)
    joins.append(join_of(here, goal))
    return Chain(tuple(items), tuple(joins), _misfits(pool, steps, start, goal))
