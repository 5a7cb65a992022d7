"""Chains of legs from one connector to another: first the kinds of legs that fit, then the items that reach."""

from collections.abc import Iterator
from dataclasses import dataclass

from ruvak.core.legs.pool import Pool, Way
from ruvak.core.rig.connectors import Form, fits
from ruvak.core.rig.part import Connector
from ruvak.core.rig.rig import Join, KitItem

MAX_LEGS_IN_LINE = 3


@dataclass(frozen=True)
class Step:
    """A way through a part by one of its entries and one of its exits."""

    way: Way
    entry: Connector
    exit: Connector


@dataclass(frozen=True)
class Chain:
    """Items in order and their joins, both ends included; `start` and `end` are owner.connector."""

    items: tuple[KitItem, ...]
    joins: tuple[Join, ...]

    @property
    def length_m(self) -> float:
        """All leads together."""
        return sum(item.length_m or 0.0 for item in self.items)


def kinds(pool: Pool, start: Form, goal: Form, most: int = MAX_LEGS_IN_LINE) -> Iterator[tuple[Step, ...]]:
    """Sequences of one-in, one-out parts that lead from a connector of form `start` to one of form `goal`.

    Shortest first; no part twice running, no two joined adapters that only turn each other back.
    """
    layer: list[tuple[Form, tuple[Step, ...]]] = [(start, ())]
    if fits(start, goal):
        yield ()
    for _ in range(most):
        following: list[tuple[Form, tuple[Step, ...]]] = []
        for form, steps in layer:
            for way in pool.into(form):
                if len(way.entries) != 1 or len(way.exits) != 1 or way.part.id in {one.way.part.id for one in steps}:
                    continue
                step = Step(way, way.entries[0], way.exits[0])
                if len(steps) > 1 and not any(one.way.part.cables for one in (*steps[-1:], step)):
                    continue
                grown = (*steps, step)
                if fits(step.exit.form, goal):
                    yield grown
                following.append((step.exit.form, grown))
        layer = following


def filled(
    pool: Pool, steps: tuple[Step, ...], start: str, goal: str, need_m: float, used: frozenset[str] = frozenset()
) -> Chain | None:
    """The kinds as items that reach together, or None where nothing is long enough. A lead may be lengthened by
    another of its kind where the two plug into each other."""
    cabled = [index for index, step in enumerate(steps) if step.way.part.cables]
    if not cabled and need_m > 0.0:
        return None
    picked: list[list[KitItem]] = []
    taken = used
    for step in steps:
        options = pool.items(step.way.part, taken)
        if not options:
            return None
        picked.append([min(options, key=lambda item: (item.length_m or 0.0))] if step.way.part.cables else [options[0]])
        taken |= {picked[-1][0].id}
    if cabled and not _reach(pool, steps, picked, cabled, need_m, used):
        return None
    return _joined(steps, picked, start, goal)


def _reach(
    pool: Pool,
    steps: tuple[Step, ...],
    picked: list[list[KitItem]],
    cabled: list[int],
    need_m: float,
    used: frozenset[str],
) -> bool:
    """Exchanges the lead that can grow most for one that reaches, or for two of its kind."""
    main = max(cabled, key=lambda index: max(i.length_m or 0.0 for i in pool.items(steps[index].way.part, used)))
    others = sum(items[0].length_m or 0.0 for index, items in enumerate(picked) if index != main)
    taken = used | {items[0].id for index, items in enumerate(picked) if index != main}
    part = steps[main].way.part
    options = pool.items(part, taken)
    reaching = [item for item in options if (item.length_m or 0.0) + others >= need_m - 1e-9]
    if reaching:
        picked[main] = [min(reaching, key=lambda item: (item.id not in pool.first, not item.owned, item.length_m or 0.0))]
        return True
    step = steps[main]
    if not fits(step.exit.form, step.entry.form):
        return False
    picked[main] = _several(pool, part.id, options, need_m - others)
    return bool(picked[main])


def _several(pool: Pool, part_id: str, options: tuple[KitItem, ...], need_m: float) -> list[KitItem]:
    """The fewest, longest first, that reach together; made up ones where the kit runs out. Empty if three do not."""
    chosen: list[KitItem] = []
    left = sorted(options, key=lambda item: -(item.length_m or 0.0))
    while len(chosen) < 3 and sum(item.length_m or 0.0 for item in chosen) < need_m:
        if not left:
            more = pool.items(pool.parts[part_id], frozenset(i.id for i in (*options, *chosen)))
            left = sorted((i for i in more if not i.owned), key=lambda item: -(item.length_m or 0.0))
            if not left:
                return []
        chosen.append(left.pop(0))
        left = [item for item in left if item.id != chosen[-1].id]
    return chosen if sum(item.length_m or 0.0 for item in chosen) >= need_m - 1e-9 else []


def _joined(steps: tuple[Step, ...], picked: list[list[KitItem]], start: str, goal: str) -> Chain:
    items: list[KitItem] = []
    joins: list[Join] = []
    here = start
    for step, chosen in zip(steps, picked, strict=True):
        for item in chosen:
            joins.append(Join(a=here, b=f"{item.id}.{step.entry.id}"))
            here = f"{item.id}.{step.exit.id}"
            items.append(item)
    joins.append(Join(a=here, b=goal))
    return Chain(tuple(items), tuple(joins))
