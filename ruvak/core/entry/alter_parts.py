"""A device that becomes another kind of device and keeps its runs, which are wired anew where its sockets differ."""

from dataclasses import replace

from ruvak.core.entry.alter_moves import moved_join
from ruvak.core.entry.built import Built, RunLabel
from ruvak.core.entry.line_ends import End, end_of, speaks
from ruvak.core.entry.new_gear import has_many_sockets
from ruvak.core.entry.phantom import switch_phantom, wants_phantom
from ruvak.core.entry.propose import Proposer
from ruvak.core.entry.sockets import Sockets, sockets, tokens
from ruvak.core.entry.wanted import Wanted
from ruvak.core.parts.library import embed
from ruvak.core.pieces.route import put_ops
from ruvak.core.rig.edits import Edit, Op, PutThing, RemoveThing, apply, changes
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import Gear, Rig, Run, connectors_in_use
from ruvak.core.trace.run_ends import ends_of


def with_other_part(rig: Rig, gear: Gear, part: Part) -> tuple[Op, ...] | None:
    """The operations; None where some run of it leads nowhere then, or would have to be wired anew through what is
    built in.

    Pieces that were to be got for a run alone, and that its new wiring does not use, go with it.
    """
    if (ops_alone := _with_all_sockets(rig, gear, part)) is not None:
        return ops_alone
    mine = [run for run in rig.runs if gear.id in {end.owner for end in run.ends}]
    alike = _with_like_plugs(rig, gear, part, mine)
    is_built_in = any(item.installed for run in mine for item in rig.kit if item.id in run.pieces)
    if is_built_in or (alike is not None and _signals(rig.part_of(gear.id)) & _signals(part)):
        return alike
    if not all(_can_be_wired_anew(rig, run, gear, part) for run in mine):
        return None
    after = gear.model_copy(update={"part": part.id, "settings": {}})
    parts = rig.parts if part.id in rig.parts_by_id else (*rig.parts, part)
    bare = rig.with_fields(
        gear=tuple(after if device.id == gear.id else device for device in rig.gear),
        parts=parts,
        runs=tuple(run for run in rig.runs if run not in mine),
    )
    ops = _put_part(rig, part)
    ops += changes("gear", gear, after)
    here = embed(bare)
    built: list[Built] = []
    for run in mine:
        proposer = Proposer(here)
        made = proposer.build(_wanted(rig, here, run, after, part), RunLabel(run.id, run.number, run.name, run.note))
        if made is None:
            return None
        built.append(made)
        here = proposer.rig
    # The runs first let go of their old sockets, then take their new ones.
    ops += [RemoveThing(kind="runs", id=run.id) for run in mine]
    used = {piece for run in here.runs for piece in run.pieces}
    ops += [
        RemoveThing(kind="kit", id=item.id)
        for item in rig.kit
        if not item.owned and item.id not in used and any(item.id in run.pieces for run in mine)
    ]
    for made, run in zip(built, mine, strict=True):
        ops += put_ops(rig, made.route.items)
        ops += [op for op in made.ops if not isinstance(op, PutThing)]
        ops.append(PutThing(kind="runs", thing=made.run.model_copy(update={"note": run.note}), at=rig.runs.index(run)))
    return tuple(ops)


def _can_be_wired_anew(rig: Rig, run: Run, gear: Gear, part: Part) -> bool:
    """Whether a run has one device at each end, and the part can stand at the end where the device stands."""
    sources, goals = ({end.owner for end in ends_of(rig, run, side)} for side in ("out", "in"))
    return len(sources) == len(goals) == 1 and speaks(part, "source" if gear.id in sources else "goal")


def _with_like_plugs(rig: Rig, gear: Gear, part: Part, mine: list[Run]) -> tuple[Op, ...] | None:
    """One whose sockets take the plugs as they are: a microphone for a microphone, on the same lead and stage box."""
    used = {end.connector for end in connectors_in_use(rig) if end.owner == gear.id}
    to: dict[Endpoint, Endpoint] = {}
    for connector in rig.part_of(gear.id).connectors:
        if connector.id not in used:
            continue
        free = [other.id for other in part.connectors if (other.form, other.side) == (connector.form, connector.side)]
        best = next((name for name in free if Endpoint(gear.id, name) not in to.values()), None)
        if best is None:
            return None
        to[Endpoint(gear.id, connector.id)] = Endpoint(gear.id, best)
    ops = _put_part(rig, part)
    known = {setting.id for setting in part.settings}
    settings = {name: value for name, value in gear.settings.items() if name in known}
    ops += changes("gear", gear, gear.model_copy(update={"part": part.id, "settings": settings}))
    for run in mine:
        ops += changes("runs", run, run.model_copy(update={"joins": tuple(moved_join(join, to) for join in run.joins)}))
    after = apply(rig, Edit(label="other device", ops=tuple(ops)))
    by_id = {run.id: run for run in after.runs}
    for before, run in ((run, by_id[run.id]) for run in mine):
        wants = wants_phantom(after, ends_of(after, run, "out"))
        if wants or wants_phantom(rig, ends_of(rig, before, "out")):
            ops += switch_phantom(after, ends_of(after, run, "in"), on=wants)
    return tuple(ops)


def _put_part(rig: Rig, part: Part) -> list[Op]:
    """What brings the part into the rig, where it is not there yet."""
    return [] if part.id in rig.parts_by_id else [PutThing(kind="parts", thing=part)]


def _signals(part: Part) -> set[str | None]:
    return {output.signal for output in part.outputs}


def _with_all_sockets(rig: Rig, gear: Gear, part: Part) -> tuple[Op, ...] | None:
    """A larger one of its kind, which has every socket in use and every switch: then nothing else changes."""
    forms = {connector.id: connector.form for connector in part.connectors}
    before = {connector.id: connector.form for connector in rig.part_of(gear.id).connectors}
    used = {end.connector for end in connectors_in_use(rig) if end.owner == gear.id}
    settings = {setting.id for setting in part.settings}
    if not has_many_sockets(part) or not set(gear.settings) <= settings:
        return None
    if not all(forms.get(name) == before[name] for name in used):
        return None
    return (*_put_part(rig, part), *changes("gear", gear, gear.model_copy(update={"part": part.id})))


def _wanted(rig: Rig, after: Rig, run: Run, gear: Gear, part: Part) -> Wanted:
    """What the run asks for with the other device: the same destination, and a channel's other input where it fits."""
    sources, goals = (tuple(ends_of(rig, run, side)) for side in ("out", "in"))
    length_m = max((item.length_m or 0.0 for item in rig.kit if item.id in run.pieces), default=0.0)
    any_socket = Sockets(())
    if sources and sources[0].owner == gear.id:
        start = end_of(gear, part, any_socket, len(sources), "source", new=False)
        goal = _same_channels(after, goals[0].owner, tuple(end.connector for end in goals)) if goals else None
        if goal is not None and len(goals) == 1:
            start = replace(start, choices=tuple(choice[:1] for choice in start.choices))
    else:
        owner = next(device for device in after.gear if device.id == sources[0].owner)
        start = End(owner, after.part_of(owner.id), (sources,))
        goal = end_of(gear, part, any_socket, len(goals), "goal", new=False)
    return Wanted((start,), (), goal, (), (), length_m or None, ())


def _same_channels(rig: Rig, owner: str, connectors: tuple[str, ...]) -> End:
    """The sockets themselves, and those of the same numbers."""
    device = next(device for device in rig.gear if device.id == owner)
    part = rig.part_of(owner)
    by_id = {connector.id: connector for connector in part.connectors}
    numbers = [next((word for word in tokens(by_id[name]) if word.isdigit()), None) for name in connectors]
    if None not in numbers:
        named = sockets(part, tuple(number for number in numbers if number is not None), "goal")
        if len(named.positions) == len(connectors):
            return end_of(device, part, named, len(connectors), "goal", new=False)
    return end_of(device, part, Sockets(tuple((name,) for name in connectors)), len(connectors), "goal", new=False)
