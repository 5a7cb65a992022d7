"""A run that is there planned anew between the same sockets: "vocal 20 m", "keys through a stereo DI", "bass without
DI"."""

from ruvak.core.entry.alter_named import Change, Named, Read
from ruvak.core.entry.alternatives import name_of_piece
from ruvak.core.entry.cannot_change import CannotChange
from ruvak.core.entry.line_ends import are_meant_alone
from ruvak.core.entry.names import Directory
from ruvak.core.entry.new_gear import has_many_sockets
from ruvak.core.entry.words import plain
from ruvak.core.rig.edits import Edit, Op, PutThing, RemoveThing, apply
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import KitItem, Rig, Run, longest_way_m
from ruvak.core.trace.run_ends import ends_of
from ruvak.core.trace.trace import connector_at

_EITHER = ("Mic", "Line")
"""A channel's two inputs, of which either may be taken."""


def with_length(rig: Rig, named: Named, what: str, length_m: float, read: Read) -> Change:
    """The run with its boxes, as long as is said."""
    run = named.one_run(what)
    return _plan_again(rig, run, _boxes(rig, run), length_m, f"{run.name} is {length_m:g} m long.", read)


def with_lengths(rig: Rig, named: Named, what: str, length_m: float, read: Read) -> Change:
    """Each of the runs as long as is said."""
    if len(named.runs) < 2 or named.gear is not None:
        return with_length(rig, named, what, length_m, read)
    after, ops = rig, list[Op]()
    for run in named.runs:
        _, own = with_length(after, Named(None, (run,), None), run.name, length_m, read)
        after = apply(after, Edit(label="length", ops=own))
        ops += own
    names = " and ".join(run.name for run in named.runs)
    return f"{names} are {length_m:g} m long.", tuple(ops)


def with_piece(rig: Rig, named: Named, what: str, piece: str, read: Read, in_place: bool = False) -> Change:
    """The run through what is named, besides the boxes it has; as long as it is. `in_place`: instead of a box of the
    same kind, as its last word says it."""
    run = named.one_run(what)
    length_m = longest_way_m(rig, run) or None
    kind = {part.id for part in Directory(rig).kit.find_parts(plain(piece).split()[-1])} if in_place else set[str]()
    leaving = frozenset(item.id for item in rig.kit if item.id in run.pieces and item.part in kind)
    return _plan_again(
        rig, run, [*_boxes(rig, run, leaving), piece], length_m, f"{run.name} goes through {piece}.", read
    )


def without_piece(rig: Rig, named: Named, what: str, piece: str, read: Read) -> Change:
    """The run without the boxes that are called so; as long as it is."""
    run = named.one_run(what)
    kinds = {part.id for part in Directory(rig).kit.find_parts(piece)}
    on_the_way = [item for item in rig.kit if item.id in run.pieces]
    leaving = [item for item in on_the_way if item.part in kinds or plain(item.tag) == plain(piece)]
    if not leaving:
        names = ", ".join(dict.fromkeys(rig.part_of(item.id).name for item in on_the_way)) or "no piece on the way"
        raise CannotChange(f"{run.name} has no “{piece}”; it has {names}.")
    staying = {rig.part_of(item.id).name for item in leaving if rig.part_of(item.id).kind != "box"}
    if staying:
        raise CannotChange(
            f"{run.name} cannot do without {' and '.join(sorted(staying))}: open the run to change its pieces."
        )
    boxes = _boxes(rig, run, frozenset(item.id for item in leaving)) or ["lead"]
    change = _plan_again(rig, run, boxes, longest_way_m(rig, run) or None, f"{run.name} goes without {piece}.", read)
    put = {op.thing.part for op in change[1] if isinstance(op, PutThing) and isinstance(op.thing, KitItem)}
    pieces = next(op.thing.pieces for op in change[1] if isinstance(op, PutThing) and isinstance(op.thing, Run))
    if kinds & (put | {item.part for item in rig.kit if item.id in pieces}):
        raise CannotChange(f"Without {piece} no plan was made for {run.name}: type the leads it is to have.")
    return change


def _boxes(rig: Rig, run: Run, leaving: frozenset[str] = frozenset()) -> list[str]:
    """What to type for its boxes that stay, in order; of leads and adapters others may be needed."""
    directory = Directory(rig)
    result = []
    for item in (item for piece in run.pieces if piece not in leaving for item in rig.kit if item.id == piece):
        part = rig.part_of(item.id)
        if item.installed or has_many_sockets(part):
            raise CannotChange(f"{run.name} goes through {item.tag}: change it where it is opened.")
        if part.kind == "box":
            words = name_of_piece(directory, part, item.model_copy(update={"owned": False}))
            result.append(words or part.name)
    return list(dict.fromkeys(result))


def _plan_again(rig: Rig, run: Run, pieces: list[str], length_m: float | None, sentence: str, read: Read) -> Change:
    sources, goals = (tuple(ends_of(rig, run, side)) for side in ("out", "in"))
    line = " > ".join((_end_words(rig, sources, is_source=True), *pieces, _end_words(rig, goals, is_source=False)))
    line += f", {length_m:g} m" if length_m else ""
    others = {piece for other in rig.runs if other.id != run.id for piece in other.pieces}
    going = [item for item in rig.kit if item.id in run.pieces and not item.owned and item.id not in others]
    leaving: tuple[Op, ...] = (
        RemoveThing(kind="runs", id=run.id),
        *(RemoveThing(kind="kit", id=item.id) for item in going),
    )
    reading = read(apply(rig, Edit(label="without it", ops=leaving)), line)
    same = len(reading.runs) == 1 and _owners(reading.runs[0].sources, reading.runs[0].goals) == _owners(sources, goals)
    if reading.edit is None or not same:
        raise CannotChange(f"{run.name} cannot be planned so: {reading.sentence}", line)
    ops: list[Op] = list(leaving)
    for op in reading.edit.ops:
        if isinstance(op, PutThing) and isinstance(op.thing, Run):
            known = {"id": run.id, "number": run.number, "name": run.name, "note": run.note}
            op = PutThing(kind="runs", thing=op.thing.model_copy(update=known), at=rig.runs.index(run))
        ops.append(op)
    return sentence, tuple(ops)


def _owners(sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...]) -> tuple[set[str], set[str]]:
    return {end.owner for end in sources}, {end.owner for end in goals}


def _end_words(rig: Rig, ends: tuple[Endpoint, ...], is_source: bool) -> str:
    """What to type for one end of a run."""
    by_owner: dict[str, list[Endpoint]] = {}
    for end in ends:
        by_owner.setdefault(end.owner, []).append(end)
    return ", ".join(_device_words(rig, owner, some, is_source) for owner, some in by_owner.items())


def _device_words(rig: Rig, owner: str, ends: list[Endpoint], is_source: bool) -> str:
    gear = next(device for device in rig.gear if device.id == owner)
    part = rig.part_of(owner)
    labels = [connector_at(rig, end).label.split(",")[0] for end in ends]
    if not has_many_sockets(part) and are_meant_alone(part, [end.connector for end in ends], is_source):
        return gear.name
    stems = [label.rstrip("0123456789").strip() for label in labels]
    numbers = [label[len(stem) :].strip() for label, stem in zip(labels, stems, strict=True)]
    if all(numbers) and len(set(stems)) == 1:
        kind = "" if stems[0] in _EITHER else f"{stems[0]} "
        return f"{gear.name} {kind}{'/'.join(numbers)}"
    return f"{gear.name} {'/'.join(labels)}"
