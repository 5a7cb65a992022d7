"""What may be used for a run: kit that is free, and library parts that would have to be borrowed or bought."""

from dataclasses import dataclass, field
from functools import cached_property

from ruvak.core.parts.library import library
from ruvak.core.rig.check import many_ways
from ruvak.core.rig.connectors import Form, fits
from ruvak.core.rig.part import Connector, Part
from ruvak.core.rig.rig import KitItem, Rig


@dataclass(frozen=True)
class Way:
    """One way through a part: the connector signal enters by and those it leaves by."""

    part: Part
    entries: tuple[Connector, ...]
    exits: tuple[Connector, ...]


@dataclass(frozen=True)
class Pool:
    """`free`: items nobody uses, own legs included; `first`: ids to prefer, today's legs of the run."""

    rig: Rig
    free: tuple[KitItem, ...]
    first: frozenset[str] = field(default_factory=frozenset)

    @cached_property
    def parts(self) -> dict[str, Part]:
        """The rig's own parts before the library's."""
        return {**library(), **self.rig.parts_by_id}

    @cached_property
    def ways(self) -> tuple[Way, ...]:
        """Through every lead, adapter and box that is taken along, not through what is built in; owned kinds first."""
        installed = {item.part for item in self.rig.kit if item.installed}
        found = []
        for part in self.parts.values():
            if part.kind == "gear" or part.id in installed:
                continue
            entries = tuple(one for one in part.connectors if one.side != "out")
            exits = tuple(one for one in part.connectors if one.side != "in")
            if 0 < len(entries) <= 2 and 0 < len(exits) <= 5:
                found.append(Way(part, entries, exits))
        return tuple(sorted(found, key=lambda way: way.part.id not in self._free_of))

    @cached_property
    def _by_form(self) -> dict[Form, tuple[Way, ...]]:
        return {
            form: tuple(way for way in self.ways if any(fits(form, entry.form) for entry in way.entries)) for form in Form
        }

    def into(self, form: Form) -> tuple[Way, ...]:
        """Ways one of whose entries a connector of this form fits."""
        return self._by_form[form]

    def items(self, part: Part, used: frozenset[str]) -> tuple[KitItem, ...]:
        """Free items of a part, own legs and owned ones first, shortest first; else made up ones, to be got."""
        mine = [item for item in self._free_of.get(part.id, ()) if item.id not in used]
        return tuple(mine) or self._to_get(part, used)

    @cached_property
    def _free_of(self) -> dict[str, list[KitItem]]:
        groups: dict[str, list[KitItem]] = {}
        for item in sorted(self.free, key=lambda i: (i.id not in self.first, not i.owned, i.length_m or 0.0, i.id)):
            groups.setdefault(item.part, []).append(item)
        return groups

    def _to_get(self, part: Part, used: frozenset[str]) -> tuple[KitItem, ...]:
        taken = used | set(self.rig.owners_by_id)
        number = next(n for n in range(1, 10_000) if f"get-{part.id}-{n}"[:64] not in taken)
        made = KitItem(id=f"get-{part.id}-{number}"[:64], tag=f"new {number}", part=part.id, owned=False)
        if not part.cables:
            return (made,)
        return tuple(made.model_copy(update={"length_m": length_m}) for length_m in part.stock_lengths_m)


def pool_for(rig: Rig, run_id: str | None = None, taken: frozenset[str] = frozenset()) -> Pool:
    """Kit that no other run uses and that is not built in; `taken` is spoken for already."""
    used = {leg for other in rig.runs if other.id != run_id for leg in other.legs} | taken
    own = {leg for run in rig.runs if run.id == run_id for leg in run.legs}
    free = tuple(
        item
        for item in rig.kit
        if item.id not in used and not item.installed and not (many_ways(rig.part_of(item.id)) and _is_multicore(rig, item))
    )
    return Pool(rig, free, frozenset(own))


def _is_multicore(rig: Rig, item: KitItem) -> bool:
    return len(rig.part_of(item.id).connectors) > 6
