"""An assignment as edits: each rig has the leads that were chosen for it, plugged where the planned ones lay."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from itertools import pairwise

from ruvak.core.cupboard.item import CupboardItem
from ruvak.core.parts.library import library
from ruvak.core.pull.assign import Filled, is_same
from ruvak.core.pull.supply import Lead
from ruvak.core.rig.edits import Edit, Op, PutThing, RemoveThing, SetField, changes
from ruvak.core.rig.ids import free_id
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import Join, KitItem, Rig, Run


def take(rig: Rig, filled: Sequence[Filled], items: Mapping[str, CupboardItem]) -> Edit | None:
    """What makes a rig's runs of the chosen leads; None where they are already. `items`: the cupboard by id."""
    draft = _Draft(rig, items)
    for stretch in filled:
        draft.fill(stretch)
    ops = draft.ops()
    return Edit(label="Take the leads of the pull list", ops=ops) if ops else None


@dataclass
class _Draft:
    rig: Rig
    items: Mapping[str, CupboardItem]
    added: dict[str, KitItem] = field(default_factory=dict)
    parts: dict[str, Part] = field(default_factory=dict)
    lengths: dict[str, float] = field(default_factory=dict)
    runs: dict[str, Run] = field(default_factory=dict)

    def fill(self, filled: Filled) -> None:
        """Every run with this stretch gets its leads."""
        planned = filled.need.planned
        new = [self._piece(lead) for lead in filled.leads] or [self._to_get(filled)]
        if [item.id for item in new] == [item.id for item in planned]:
            return
        for run in self.rig.runs:
            now = self.runs.get(run.id, run)
            if all(item.id in run.pieces for item in planned):
                self.runs[run.id] = self._with(now, planned, new)

    def ops(self) -> tuple[Op, ...]:
        """Parts and pieces first, then runs, then what is no longer used."""
        result: list[Op] = [PutThing(kind="parts", thing=part) for part in self.parts.values()]
        result += [PutThing(kind="kit", thing=item) for item in self.added.values()]
        result += [SetField(kind="kit", id=id_, field="length_m", value=m) for id_, m in self.lengths.items()]
        for run in self.rig.runs:
            if run.id in self.runs:
                result += changes("runs", run, self.runs[run.id])
        used = {piece for run in self.rig.runs for piece in self.runs.get(run.id, run).pieces}
        for item in self.rig.kit:
            was_used = any(item.id in run.pieces for run in self.rig.runs)
            if was_used and item.id not in used and not item.installed and (item.drawn is not None or not item.owned):
                result.append(RemoveThing(kind="kit", id=item.id))
        return tuple(result)

    def _piece(self, lead: Lead) -> KitItem:
        """The rig's record of a lead: the one that it has, or a new one."""
        known = next((item for item in (*self.rig.kit, *self.added.values()) if is_same(self.rig.id, item, lead)), None)
        if known is not None:
            return known
        item = self.items[lead.item or ""]
        made = item.in_rig(lead.number)
        if not isinstance(made, KitItem):
            raise TypeError(f"{item.name} is no lead.")
        if item.part.id not in self.rig.parts_by_id:
            self.parts[item.part.id] = item.part
        return self._add(made)

    def _to_get(self, filled: Filled) -> KitItem:
        """One lead that has to be got, in place of those that are planned."""
        first, length_m = filled.need.planned[0], filled.get_m or filled.need.length_m
        if not first.owned and len(filled.need.planned) == 1:
            if first.length_m != length_m:
                self.lengths[first.id] = length_m
            return first
        part = self.rig.parts_by_id.get(first.part) or library()[first.part]
        made = KitItem(id=f"get-{part.id}"[:60], tag=part.name, part=part.id, length_m=length_m, owned=False)
        return self._add(made)

    def _add(self, item: KitItem) -> KitItem:
        item = item.model_copy(update={"id": free_id(item.id, {*self.rig.owners_by_id, *self.added})})
        self.added[item.id] = item
        return item

    def _with(self, run: Run, planned: Sequence[KitItem], new: Sequence[KitItem]) -> Run:
        """The run with other leads in the stretch: into the first, out of the last, each into the next."""
        old = {item.id for item in planned}
        joins: list[Join] = []
        for join in run.joins:
            if join.a.owner in old and join.b.owner in old:
                continue
            if join.b.owner in old:
                joins.append(join.model_copy(update={"b": self._end(join.b, new[0])}))
                joins += [
                    Join(a=self._plug(before, last=True), b=self._plug(after, last=False))
                    for before, after in pairwise(new)
                ]
            elif join.a.owner in old:
                joins.append(join.model_copy(update={"a": self._end(join.a, new[-1])}))
            else:
                joins.append(join)
        at = min(run.pieces.index(item.id) for item in planned)
        pieces = [piece for piece in run.pieces if piece not in old]
        pieces[at:at] = [item.id for item in new]
        return run.model_copy(update={"pieces": tuple(pieces), "joins": tuple(joins)})

    def _end(self, end: Endpoint, item: KitItem) -> Endpoint:
        """The same plug of another lead."""
        before = self.rig.part_of(end.owner).connectors
        place = next(place for place, connector in enumerate(before) if connector.id == end.connector)
        return Endpoint(item.id, self._part(item).connectors[place].id)

    def _plug(self, item: KitItem, last: bool) -> Endpoint:
        return Endpoint(item.id, self._part(item).connectors[-1 if last else 0].id)

    def _part(self, item: KitItem) -> Part:
        return self.parts.get(item.part) or self.rig.parts_by_id[item.part]


def of_rig(filled: Iterable[Filled], rig_id: str) -> list[Filled]:
    """The stretches of one rig."""
    return [each for each in filled if each.need.rig == rig_id]
