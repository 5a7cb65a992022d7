"""Pieces for the runs a line asks for: searched by what plugs into what, ranked by what they do when solved."""

from collections.abc import Iterator
from dataclasses import replace

from ruvak.core.entry.built import Built, OtherWiring, RunLabel
from ruvak.core.entry.hosts import hosts_for, lead_in_place_of_bond, may_go_by_usb, plugged_by_usb
from ruvak.core.entry.input_switches import set_level_switches
from ruvak.core.entry.phantom import switch_phantom, wants_phantom
from ruvak.core.entry.rewording import NO_PHANTOM
from ruvak.core.entry.search import MOST_SOLVED, Tried, search
from ruvak.core.entry.solve_runs import SubRigResult, solve_runs
from ruvak.core.entry.wanted import Wanted
from ruvak.core.entry.wirings import Kinds, Wiring, Wirings, kinds_of
from ruvak.core.parts.library import embed, library
from ruvak.core.pieces.pool import Pool, Ways, data_of, pool_for
from ruvak.core.pieces.route import Route, put_ops
from ruvak.core.rig.edits import Edit, Op, PutThing, replay
from ruvak.core.rig.rig import Gear, Rig, Run


class Proposer:
    """Builds on a rig run after run: what one takes, the next cannot have."""

    def __init__(self, rig: Rig, most: int = MOST_SOLVED) -> None:
        """`most`: how many wirings of a run are solved; of these one is kept for the USB lead beside another one."""
        self._most = most
        self.solved = 0
        """How many have been."""
        self.rig = embed(rig)
        self.users = {end: run.name for run in rig.runs for end in run.ends}
        """Which run uses a socket; those built here included."""
        self._known: Ways | None = None
        self._kinds_before: Kinds | None = None

    def build(self, wanted: Wanted, label: RunLabel) -> Built | None:
        """The best wiring, and the rig goes on with it; None where nothing leads from one to the other."""
        # What an earlier run of this line has brought is there already, with its switches as that run set them.
        known = self.rig.owners_by_id
        ends = [end for end in (*wanted.sources, *wanted.goals) if end.is_new]
        new: dict[str, Gear] = {end.gear.id: end.gear for end in ends if end.gear.id not in known}
        base = self.rig
        brought = {through.item.id: through.item for through in wanted.through}
        if any(known.get(id_) != item for id_, item in brought.items()):
            # Multicores that the line brings, or makes larger.
            kept = tuple(brought.pop(item.id, item) for item in base.kit)
            base = embed(base.with_fields(kit=(*kept, *brought.values())))
        plugged = plugged_by_usb(wanted)
        if new:
            new, bonds = hosts_for(self.rig, new.values(), plugged)
            base = embed(base.with_fields(gear=(*base.gear, *new.values()), bonds=(*base.bonds, *bonds)))
        by_run = tuple(
            lead_in_place_of_bond(
                base, plugged, {end.gear.id: end.gear.name for end in (*wanted.sources, *wanted.goals)}
            )
        )
        if by_run:
            base = replay(base, Edit(label="USB lead", ops=by_run))
        # What the line names by its tag is preferred to what would do as well.
        asked = frozenset(part for options in wanted.parts for part in options)
        pool = replace(self._pool(base, wanted), first=frozenset(wanted.items), asked=asked)
        wirings = Wirings(pool, wanted, self.users)
        built: list[Built] = []

        def solve(wiring: Wiring) -> SubRigResult:
            built.append(self._build(base, new, wanted, label, wiring, by_run))
            self.solved += 1
            return solve_runs(built[-1].rig, (label.id,))[0]

        like_before = wirings.like(self._kinds_before) if self._kinds_before is not None else None
        if like_before is not None:
            chosen = self._build(base, new, wanted, label, like_before, by_run)
        else:
            most = min(self._most, MOST_SOLVED - 1) if may_go_by_usb(wanted) else self._most
            tried = search(wirings, solve, most)
            if not tried:
                return None
            best = next(entry for entry in built if entry.route is tried[0].wiring.route)
            chosen = replace(best, solved=tried[0].solved, others=_others(tried))
        self.rig, self._known = chosen.rig, pool.through
        self._kinds_before = kinds_of(chosen.route)
        self.users |= dict.fromkeys(chosen.run.ends, chosen.run.name)
        return chosen

    def can_build(self, wanted: Wanted) -> bool:
        """Whether anything leads from one to the other; nothing is solved and nothing is kept."""
        new = {end.gear.id: end.gear for end in (*wanted.sources, *wanted.goals) if end.is_new}
        base = self.rig.with_fields(
            gear=(*self.rig.gear, *(g for g in new.values() if g.id not in self.rig.owners_by_id))
        )
        brought = [t.item for t in wanted.through if t.item.id not in self.rig.owners_by_id]
        base = embed(base.with_fields(kit=(*base.kit, *dict.fromkeys(brought))))
        return Wirings(self._pool(base, wanted), wanted, self.users).are_any()

    def _pool(self, base: Rig, wanted: Wanted) -> Pool:
        signal = data_of(base, (socket for end in wanted.sources for choice in end.choices[:1] for socket in choice))
        return pool_for(base, known=self._known, signal=signal)

    def _build(
        self,
        base: Rig,
        new: dict[str, Gear],
        wanted: Wanted,
        label: RunLabel,
        wiring: Wiring,
        by_run: tuple[Op, ...],
    ) -> Built:
        note = "; ".join([*(["phantom"] if "phantom" in wanted.options else []), *([label.note] if label.note else [])])
        route = _with_shared(wanted, wiring.route)
        pieces = tuple(dict.fromkeys(item.id for item in route.items))
        run = Run(
            id=label.id,
            number=label.number,
            name=label.name,
            pieces=pieces,
            joins=route.joins,
            note=note,
            way_m=wanted.length_m,
        )
        wants = NO_PHANTOM not in wanted.options and wants_phantom(base, wiring.sources)
        phantom = "phantom" in wanted.options or wants
        on_the_way = (base.parts_by_id.get(part) or library()[part] for part in wiring.parts)
        switches = (
            *(switch_phantom(base, wiring.goals, on=True) if phantom else ()),
            *set_level_switches(base, wiring.sources, wiring.goals, on_the_way),
        )
        ops: tuple[Op, ...] = (
            *self._gear_ops(base, new),
            *(PutThing(kind="bonds", thing=bond) for bond in base.bonds if bond not in self.rig.bonds),
            *by_run,
            *self._enlarged(wanted),
            *put_ops(self.rig, wiring.route.items),
            *switches,
            PutThing(kind="runs", thing=run),
        )
        rig = _with(base, wiring.route, run)
        if switches:
            rig = replay(rig, Edit(label="switches", ops=switches))
        return Built(wanted, run, wiring.route, ops, rig)

    def _enlarged(self, wanted: Wanted) -> Iterator[Op]:
        """What makes a multicore of the rig a larger one."""
        for item in dict.fromkeys(through.item for through in wanted.through):
            if self.rig.owners_by_id.get(item.id, item) != item:
                if item.part not in self.rig.parts_by_id:
                    yield PutThing(kind="parts", thing=library()[item.part])
                yield PutThing(kind="kit", thing=item)

    def _gear_ops(self, base: Rig, new: dict[str, Gear]) -> Iterator[Op]:
        known = set(self.rig.parts_by_id)
        for gear in new.values():
            if gear.part not in known:
                known.add(gear.part)
                yield PutThing(kind="parts", thing=base.parts_by_id[gear.part])
            yield PutThing(kind="gear", thing=gear)


def _with_shared(wanted: Wanted, route: Route) -> Route:
    """The route with the two-way pieces of other runs that it begins or ends with."""
    for item, join in wanted.shared:
        first = join.b.owner == route.joins[0].a.owner
        pieces, joins = ((item,), (join,)), (route.items, route.joins)
        (near, near_joins), (far, far_joins) = (pieces, joins) if first else (joins, pieces)
        route = replace(route, items=(*near, *far), joins=(*near_joins, *far_joins))
    return route


def _with(rig: Rig, route: Route, run: Run) -> Rig:
    """The rig with the run in it; nothing is checked, the route was built from what fits."""
    have = set(rig.owners_by_id)
    items = tuple(dict.fromkeys(item for item in route.items if item.id not in have))
    return embed(rig.with_fields(kit=(*rig.kit, *items), runs=(*rig.runs, run)))


def _others(tried: list[Tried]) -> tuple[OtherWiring, ...]:
    """What was solved and not chosen, best first."""
    usual = min(tried, key=lambda each: each.wiring.cost)
    return tuple(
        OtherWiring(
            each.wiring.route.items,
            each.solved.findings[0],
            each is usual,
            each.wiring.goals != tried[0].wiring.goals,
        )
        for each in tried[1:]
    )
