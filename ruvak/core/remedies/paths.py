"""Other ways to get from a run's source to its destination gear: a search over what plugs into what."""

from collections.abc import Iterator
from dataclasses import dataclass, field, replace

from ruvak.core.parts.library import library
from ruvak.core.rig.connectors import fits
from ruvak.core.rig.edits import Edit, Op, PutKit, PutPart, PutRun
from ruvak.core.rig.part import Connector, Part
from ruvak.core.rig.rig import Join, KitItem, Rig, Run
from ruvak.core.trace.drawing import ends_of

MAX_LEGS = 5
MAX_LEGS_IN_LINE = 3


@dataclass(frozen=True)
class _OpenEnd:
    end: str
    connector: Connector
    length_m: float
    legs: int


@dataclass(frozen=True)
class Path:
    """A complete rewiring of one run: the legs in order of use, and the joins."""

    items: tuple[KitItem, ...] = ()
    joins: tuple[Join, ...] = ()
    taken: frozenset[str] = field(default_factory=frozenset)


@dataclass(frozen=True)
class _Search:
    rig: Rig
    run: Run
    pool: tuple[KitItem, ...]
    parts: dict[str, Part]
    sockets: tuple[tuple[str, Connector], ...]
    need_m: float


def paths(rig: Rig, run: Run) -> Iterator[Path]:
    """Every way that reaches: free kit first, then library parts that would have to be borrowed or bought.

    Only a run with one source socket and one destination gear is searched.
    """
    sources, targets = ends_of(rig, run, "out"), ends_of(rig, run, "in")
    gear = {end.split(".")[0] for end, _ in targets}
    if len(sources) != 1 or len(gear) != 1:
        return
    search = _Search(rig, run, _pool(rig, run), _all_parts(rig), _free_sockets(rig, run, gear.pop()), _need_m(rig, run))
    end, connector = sources[0]
    yield from _extended(search, Path(), (_OpenEnd(end, connector, 0.0, 0),))


def edit_for(rig: Rig, run: Run, path: Path, label: str) -> Edit:
    """The edit that rewires the run so, adding to the kit what is not owned."""
    ops: list[Op] = []
    known, have = set(rig.parts_by_id), set(rig.owners_by_id)
    for item in path.items:
        if item.part not in known:
            ops.append(PutPart(thing=library()[item.part]))
            known.add(item.part)
        if item.id not in have:
            ops.append(PutKit(thing=item))
    legs = tuple(item.id for item in path.items)
    ops.append(PutRun(thing=run.model_copy(update={"legs": legs, "joins": path.joins})))
    return Edit(label=label, ops=tuple(ops))


def _all_parts(rig: Rig) -> dict[str, Part]:
    return {**library(), **rig.parts_by_id}


def _pool(rig: Rig, run: Run) -> tuple[KitItem, ...]:
    """This run's own legs, then kit that no run uses, owned before still to be got."""
    used = {leg for other in rig.runs for leg in other.legs}
    own = [item for item in rig.kit if item.id in run.legs]
    free = [item for item in rig.kit if item.id not in used]
    return (*own, *sorted(free, key=lambda item: not item.owned))


def _free_sockets(rig: Rig, run: Run, gear: str) -> tuple[tuple[str, Connector], ...]:
    taken = {end for other in rig.runs if other.id != run.id for join in other.joins for end in (join.a, join.b)}
    connectors = rig.part_of(gear).connectors
    ends = ((f"{gear}.{connector.id}", connector) for connector in connectors if connector.side == "in")
    return tuple((end, connector) for end, connector in ends if end not in taken)


def _need_m(rig: Rig, run: Run) -> float:
    """The longest lead of today's run: a rewiring has to reach as far."""
    return max((item.length_m or 0.0 for item in rig.kit if item.id in run.legs), default=0.0)


def _extended(search: _Search, path: Path, open_ends: tuple[_OpenEnd, ...]) -> Iterator[Path]:
    if not open_ends:
        yield path
        return
    here, rest = open_ends[0], open_ends[1:]
    if here.length_m >= search.need_m and here.legs > 0:
        for end, connector in search.sockets:
            if end not in path.taken and fits(here.connector.form, connector.form):
                joined = replace(path, joins=(*path.joins, Join(a=here.end, b=end)), taken=path.taken | {end})
                yield from _extended(search, joined, rest)
    if here.legs < MAX_LEGS_IN_LINE and len(path.items) < MAX_LEGS:
        for item in _fitting(search, path, here):
            part = search.parts[item.part]
            entry = next(c for c in part.connectors if c.side == "in" and fits(here.connector.form, c.form))
            length_m = here.length_m + (item.length_m or 0.0)
            onward = tuple(
                _OpenEnd(f"{item.id}.{c.id}", c, length_m, here.legs + 1) for c in part.connectors if c.side == "out"
            )
            joined = replace(
                path,
                items=(*path.items, item),
                joins=(*path.joins, Join(a=here.end, b=f"{item.id}.{entry.id}")),
            )
            yield from _extended(search, joined, onward + rest)


def _fitting(search: _Search, path: Path, here: _OpenEnd) -> Iterator[KitItem]:
    """One item of each part that fits: the best of the pool, else one to be got."""
    used = {item.id for item in path.items}
    for part in search.parts.values():
        entries = [c for c in part.connectors if c.side == "in" and fits(here.connector.form, c.form)]
        if part.kind == "gear" or not entries or not any(c.side == "out" for c in part.connectors):
            continue
        if path.items and path.items[-1].part == part.id and here.end.startswith(f"{path.items[-1].id}."):
            continue
        yield from _choices(search, part, used, search.need_m - here.length_m)


def _choices(search: _Search, part: Part, used: set[str], need_m: float) -> Iterator[KitItem]:
    """The best that reaches by itself and the shortest there is: of the pool, or else to be got."""
    pool = [item for item in search.pool if item.part == part.id and item.id not in used] or _to_get(search, part, used)
    if not part.cables:
        yield pool[0]
        return
    reaching = [item for item in pool if (item.length_m or 0.0) >= need_m]

    def preference(item: KitItem) -> tuple[bool, bool, float]:
        return item.id not in search.run.legs, not item.owned, item.length_m or 0.0

    picked = [min(reaching, key=preference)] if reaching else []
    shortest = min(pool, key=lambda item: (item.length_m or 0.0, item.id))
    yield from picked
    if shortest not in picked:
        yield shortest


def _to_get(search: _Search, part: Part, used: set[str]) -> list[KitItem]:
    taken = used | set(search.rig.owners_by_id)
    number = next(n for n in range(1, 10_000) if f"get-{part.id}-{n}"[:64] not in taken)
    made = KitItem(id=f"get-{part.id}-{number}"[:64], tag=f"new {number}", part=part.id, owned=False)
    if not part.cables:
        return [made]
    return [made.model_copy(update={"length_m": length_m}) for length_m in part.stock_lengths_m]
