"""Runs that share a two-way piece: what a headset splitter sends to a phone and what comes back are two runs by one
plug."""

from collections.abc import Collection
from dataclasses import replace

from ruvak.core.entry.line_ends import End
from ruvak.core.entry.wanted import Wanted
from ruvak.core.pieces.named import NamedPiece
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import Join, KitItem, Rig, is_two_way


def with_shared_pieces(rig: Rig, users: Collection[Endpoint], wanted: Wanted) -> Wanted:
    """The same run by the free socket of a two-way piece that is plugged in already where the line would plug in.

    Where nothing such is, or the line names another piece next to that end, it is returned as it is.
    """
    for at_goal, end in ((True, wanted.goal), (False, wanted.sources[0])):
        if end is None or len(wanted.sources) > 1:
            continue
        for choice in end.choices:
            if len(choice) == 1 and choice[0] in users:
                shared = _shared_at(rig, users, choice[0], at_goal)
                if shared is not None:
                    wanted = _by_shared(rig, wanted, end, shared, at_goal)
                    break
    return wanted


def _shared_at(
    rig: Rig, users: Collection[Endpoint], socket: Endpoint, at_goal: bool
) -> tuple[KitItem, Endpoint, Join] | None:
    """The piece plugged in there, its free socket for the other way, and the join of the two."""
    join = next((join for run in rig.runs for join in run.joins if socket in join.ends), None)
    if join is None:
        return None
    plug = next(end for end in join.ends if end != socket)
    item = rig.owners_by_id[plug.owner]
    if not isinstance(item, KitItem) or not is_two_way(part := rig.part_of(item.id)):
        return None
    side = "in" if at_goal else "out"
    free = [c.id for c in part.connectors if c.side == side and Endpoint(item.id, c.id) not in users]
    if not free:
        return None
    return item, Endpoint(item.id, free[0]), Join(a=plug, b=socket) if at_goal else Join(a=socket, b=plug)


def _by_shared(rig: Rig, wanted: Wanted, end: End, shared: tuple[KitItem, Endpoint, Join], at_goal: bool) -> Wanted:
    item, socket, join = shared
    named = _without(wanted.named, item, at_goal)
    if named is None:
        return wanted
    dropped = [thing for thing in wanted.named if thing not in named]
    parts = list(wanted.parts)
    for thing in dropped:
        if thing.parts in parts:
            parts.remove(thing.parts)
    items = tuple(id_ for id_ in wanted.items if id_ not in {thing.item for thing in dropped})
    there = replace(end, choices=((socket,),), part=rig.part_of(item.id))
    changed = replace(wanted, named=named, parts=tuple(parts), items=items, shared=(*wanted.shared, (item, join)))
    return replace(changed, goal=there) if at_goal else replace(changed, sources=(there,))


def _without(named: tuple[NamedPiece, ...], item: KitItem, at_goal: bool) -> tuple[NamedPiece, ...] | None:
    """What the line names without the shared piece, which stands next to that end; None where another piece stands
    there."""
    if not named:
        return named
    nearest = named[-1] if at_goal else named[0]
    if nearest.item != item.id and (nearest.item is not None or item.part not in nearest.parts):
        return None
    return named[:-1] if at_goal else named[1:]
