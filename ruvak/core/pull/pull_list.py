"""The pull list of a day: which lead goes where, what is short, and what is packed from which store."""

from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from math import ceil
from typing import Literal

from ruvak.core.pull.assign import Assignment, Filled, is_same
from ruvak.core.pull.supply import Lead
from ruvak.core.rig.connectors import SHAPES
from ruvak.core.rig.part import Part, is_mixer
from ruvak.core.rig.ports import LINE
from ruvak.core.rig.rig import Gear, Rig, earthing_of, runs_on_battery, written_on
from ruvak.core.rig.values import Record

LEADS_PER_SPARE = 10
"""Of each kind of lead one more is packed for every ten that are used: common practice, no source."""
TOOLS = ("gaffer tape", "torch", "lead tester", "marker and white tape", "multi-tool", "ear plugs")
"""What nobody wants to go back for: common practice, no source."""
SIDES = 2
"""Left and right."""
_ANALOGUE = {"xlr3": "XLR", "6.35 mm": "6.35 mm jack", "rca": "RCA"}
"""What sockets built into halls are: common practice, no source."""


class PulledLead(Record):
    """A lead of the list."""

    tag: str
    """What is written on it."""
    part: str
    """What it is."""
    length_m: float
    """Metres."""
    store: str
    """Where it is."""
    suspect: bool
    """Whether it is to be tested first."""


class PullLine(Record):
    """A stretch of a run and what goes there."""

    rig: str
    """The rig."""
    rig_name: str
    """What that is called."""
    run: str
    """The run."""
    name: str
    """What that is called."""
    number: int
    """Its line in the input list."""
    part: str
    """What kind of lead is needed."""
    need_m: float
    """How long the way is."""
    leads: tuple[PulledLead, ...]
    """What goes there, nearest the source first; several are joined. None where one has to be got."""
    get_m: float | None
    """How long a lead has to be got."""
    changed: bool
    """Whether other leads are planned there now."""


class Shortage(Record):
    """What has to be borrowed or bought."""

    part: str
    """What."""
    length_m: float | None
    """Metres; null for what has no length."""
    count: int
    """How many."""
    runs: tuple[str, ...]
    """For which runs."""


PackKind = Literal["lead", "box", "device", "battery", "stand", "cover", "adapter", "spare", "tool"]


class PackLine(Record):
    """Something to be packed."""

    store: str
    """Where it is; empty for what is nowhere in the cupboard."""
    kind: PackKind
    """What kind of thing."""
    words: str
    """What, in words."""
    count: int
    """How many."""
    tags: tuple[str, ...] = ()
    """Which, where they bear tags."""


class PullList(Record):
    """What is pulled for a day."""

    lines: tuple[PullLine, ...]
    """By rig and run."""
    shortages: tuple[Shortage, ...]
    """The smallest loan or purchase that cures every shortage."""
    packing: tuple[PackLine, ...]
    """By store."""
    joins: int
    """How many joins of two leads there are."""
    left_over_m: float
    """Metres of lead beyond what is needed."""
    proven: bool
    """Whether nothing can be better."""
    gap: float
    """Where that is not proven in time: the share that might still be saved."""


def pull_list(rigs: Sequence[Rig], assignment: Assignment) -> PullList:
    """Of all rigs of a day together; the rigs are prepared."""
    by_id = {rig.id: rig for rig in rigs}
    lines = [_line(by_id[filled.need.rig], filled) for filled in assignment.filled]
    return PullList(
        lines=tuple(sorted(lines, key=lambda line: (line.rig, line.number, line.name))),
        shortages=tuple(_shortages(by_id, assignment.filled)),
        packing=tuple(_packing(rigs, assignment.filled)),
        joins=sum(max(0, len(filled.leads) - 1) for filled in assignment.filled),
        left_over_m=round(sum(_left_over_m(filled) for filled in assignment.filled), 1),
        proven=assignment.proven,
        gap=round(assignment.gap, 6),
    )


def _line(rig: Rig, filled: Filled) -> PullLine:
    run = next(run for run in rig.runs if run.id == filled.need.run)
    planned = filled.need.planned
    stays = len(planned) == len(filled.leads) and all(
        any(is_same(rig.id, item, lead) for item in planned) for lead in filled.leads
    )
    return PullLine(
        rig=rig.id,
        rig_name=rig.name,
        run=run.id,
        name=run.name,
        number=run.number,
        part=rig.parts_by_id[planned[0].part].name,
        need_m=filled.need.length_m,
        leads=tuple(_pulled(lead) for lead in filled.leads),
        get_m=filled.get_m,
        changed=not stays if filled.leads else any(item.owned for item in planned),
    )


def _pulled(lead: Lead) -> PulledLead:
    return PulledLead(tag=lead.tag, part=lead.part, length_m=lead.length_m, store=lead.store, suspect=lead.suspect)


def _left_over_m(filled: Filled) -> float:
    return max(0.0, sum(lead.length_m for lead in filled.leads) - filled.need.length_m) if filled.leads else 0.0


def _shortages(rigs: dict[str, Rig], filled: Iterable[Filled]) -> Iterator[Shortage]:
    wanted: dict[tuple[str, float | None], list[str]] = {}
    for each in filled:
        if not each.leads:
            rig = rigs[each.need.rig]
            run = next(run.name for run in rig.runs if run.id == each.need.run)
            part = rig.parts_by_id[each.need.planned[0].part].name
            wanted.setdefault((part, each.get_m), []).append(run)
    stretches = {item.id for each in filled for item in each.need.planned}
    for rig in rigs.values():
        for item in rig.kit:
            runs = [run.name for run in rig.runs if item.id in run.pieces]
            is_missing = not item.owned or not item.is_usable
            if runs and is_missing and not item.installed and item.id not in stretches:
                wanted.setdefault((rig.parts_by_id[item.part].name, item.length_m), []).append(runs[0])
    for (part, length_m), runs in sorted(wanted.items(), key=lambda entry: (entry[0][0], entry[0][1] or 0.0)):
        yield Shortage(part=part, length_m=length_m, count=len(runs), runs=tuple(runs))


def _packing(rigs: Sequence[Rig], filled: Sequence[Filled]) -> Iterator[PackLine]:
    kinds: dict[tuple[str, str, float], list[str]] = {}
    for lead in dict.fromkeys(lead for each in filled for lead in each.leads):
        kinds.setdefault((lead.store, lead.part, lead.length_m), []).append(lead.tag)
    for (store, name, length_m), tags in sorted(kinds.items()):
        words = f"{name}, {length_m:g} m"
        yield PackLine(store=store, kind="lead", words=words, count=len(tags), tags=tuple(sorted(tags)))
    for rig in rigs:
        yield from _boxes(rig, {item.id for each in filled for item in each.need.planned})
    yield from _beside(rigs)
    used = Counter(name for (_, name, _), tags in kinds.items() for _ in tags)
    for name, count in sorted(used.items()):
        words = f"{name}: spare, of the longest in use or longer"
        yield PackLine(store="", kind="spare", words=words, count=ceil(count / LEADS_PER_SPARE))
    for tool in TOOLS:
        yield PackLine(store="", kind="tool", words=tool, count=1)


def _boxes(rig: Rig, stretches: set[str]) -> Iterator[PackLine]:
    """Adapters, boxes and leads with more than two plugs, as they are planned."""
    used = {piece for run in rig.runs for piece in run.pieces}
    by_kind: dict[str, list[str]] = {}
    for item in rig.kit:
        if item.id in used and item.id not in stretches and item.owned and not item.installed and item.is_usable:
            by_kind.setdefault(rig.parts_by_id[item.part].name, []).append(item.tag)
    for name, tags in sorted(by_kind.items()):
        yield PackLine(store=f"kit of {rig.name}", kind="box", words=name, count=len(tags), tags=tuple(sorted(tags)))
    devices = [written_on(gear) for gear in rig.gear if gear.drawn is not None]
    if devices:
        yield PackLine(
            store=f"kit of {rig.name}", kind="device", words="devices of the house", count=len(devices),
            tags=tuple(sorted(devices)),
        )  # fmt: skip


def _beside(rigs: Sequence[Rig]) -> Iterator[PackLine]:
    """Batteries, stands, covers and adapters, from what the rigs have and where they play."""
    batteries = [written_on(gear) for rig in rigs for gear in rig.gear if runs_on_battery(gear, rig.part_of(gear.id))]
    if batteries:
        words = "batteries or a charged bank, and a set to change"
        yield PackLine(store="", kind="battery", words=words, count=len(batteries), tags=tuple(sorted(batteries)))
    microphones = [written_on(gear) for rig in rigs for gear in rig.gear if _is_microphone(rig, gear)]
    if microphones:
        words = "microphone stands, with clips"
        yield PackLine(store="", kind="stand", words=words, count=len(microphones), tags=tuple(sorted(microphones)))

    open_air = [rig for rig in rigs if rig.venue.weather == "open-air"]
    wet = [written_on(gear) for rig in open_air for gear in rig.gear if _has_mains(rig, gear)]
    if wet:
        words = "rain covers, for everything with mains, and bags for joins"
        yield PackLine(store="", kind="cover", words=words, count=len(wet), tags=tuple(sorted(wet)))
    for families, count in sorted(_unknown_sockets(rigs).items()):
        words = f"adapters, {families}: nobody has described this place's sockets"
        yield PackLine(store="", kind="adapter", words=words, count=count)


def _has_mains(rig: Rig, gear: Gear) -> bool:
    earthing = earthing_of(gear, rig.part_of(gear.id))
    return earthing is not None and earthing.type != "floating"


def _unknown_sockets(rigs: Sequence[Rig]) -> Counter[str]:
    """How many adapters, by what they are: for places of which nobody has described a socket or a line, one for each
    side from every kind of output of the mixers to each of the other kinds."""
    counted: Counter[str] = Counter()
    for rig in rigs:
        if rig.venue.earth or any(item.installed for item in rig.kit):
            continue
        mixers = (rig.part_of(gear.id) for gear in rig.gear if is_mixer(rig.part_of(gear.id)))
        families = {family for part in mixers for family in _families_out(part)}
        for own in families & _ANALOGUE.keys():
            for other in _ANALOGUE.keys() - {own}:
                counted[f"{_ANALOGUE[own]} to {_ANALOGUE[other]}"] += SIDES
    return counted


def _families_out(part: Part) -> set[str]:
    """The kinds of connector at which it gives sound for other gear."""
    forms = {connector.id: connector.form for connector in part.connectors}
    return {
        SHAPES[forms[name]].family for output in part.outputs if output.signal in LINE for name in output.connectors
    }


def _is_microphone(rig: Rig, gear: Gear) -> bool:
    """A source of microphone level that has no supply of its own: not a receiver with its pack on somebody's belt."""
    part = rig.part_of(gear.id)
    if part.inputs or not part.outputs or part.earthing is None or part.earthing.type != "floating":
        return False
    return all(output.signal == "microphone" for output in part.outputs)
