"""Leads to stretches of runs at provably least cost: a mixed-integer program over groups of alike leads, solved by
HiGHS, and then each lead by name."""

from collections import defaultdict
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from functools import partial
from math import ceil, inf

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import coo_array

from ruvak.core.pull.need import Need
from ruvak.core.pull.supply import STEP_M, Group, Lead
from ruvak.core.pull.wiring import Wiring, stock_lengths_m
from ruvak.core.rig.rig import KitItem

SHORT, SUSPECT, JOIN = 1e5, 1e3, 3e2
"""What a lead that has to be got costs, a suspect one, and a join, in metres of lead too long: more than any one run
could save by it."""
TIME_LIMIT_S = 10.0
EPS = 1e-6


@dataclass(frozen=True)
class Filled:
    """A stretch and the leads that go there, nearest the source first; none where one has to be got."""

    need: Need
    leads: tuple[Lead, ...]
    get_m: float | None = None
    """Of a stretch for which there is nothing: the length of the lead to be borrowed or bought."""


@dataclass(frozen=True)
class Assignment:
    """`cost` in metres of lead too long; `bound`: nothing can be cheaper; `proven`: the two are the same."""

    filled: tuple[Filled, ...]
    cost: float
    bound: float
    proven: bool

    @property
    def gap(self) -> float:
        """The share of the cost that might still be saved."""
        return 0.0 if self.proven or self.cost <= 0.0 else max(0.0, (self.cost - self.bound) / self.cost)


Demand = tuple[Wiring, float, tuple[float, float], str, bool]
"""Needs that are the same: wiring, length rounded up to half a metre, hours, rig, whether leads may be joined."""


@dataclass(frozen=True)
class _Choice:
    """A way to fill one need of a demand: one group, two, or what has to be got."""

    demand: int
    groups: tuple[int, ...]
    cost: float


@dataclass
class _Model:
    demands: list[Demand]
    groups: list[Group]
    counts: list[int]
    choices: list[_Choice] = field(default_factory=list)


def assign(needs: Sequence[Need], leads: Sequence[Lead], time_limit_s: float = TIME_LIMIT_S) -> Assignment:
    """The cheapest way to fill all needs: none short where that is possible, suspect leads last, fewest joins, then
    least lead left lying about. Where the time runs out, the best so far with how far it may be from the best."""
    if not needs:
        return Assignment((), 0.0, 0.0, True)
    by_demand: dict[Demand, list[Need]] = defaultdict(list)
    for need in needs:
        by_demand[_demand(need)].append(need)
    by_group: dict[Group, list[Lead]] = defaultdict(list)
    for lead in leads:
        by_group[lead.group].append(lead)
    model = _Model(list(by_demand), list(by_group), [len(own) for own in by_group.values()])
    _add_choices(model)
    counts, cost, bound, proven = _solve(model, [len(own) for own in by_demand.values()], time_limit_s)
    return Assignment(_by_name(model, counts, by_demand, by_group), cost, bound, proven)


def length_to_get_m(wiring: Wiring, length_m: float) -> float:
    """The shortest length in which such a lead is usually made that reaches; where none does, rounded up."""
    stock = [made_m for made_m in stock_lengths_m(wiring) if made_m >= length_m - EPS]
    return stock[0] if stock else ceil(length_m - EPS)


def _demand(need: Need) -> Demand:
    length_m = ceil(need.length_m / STEP_M - EPS) * STEP_M
    return need.wiring, length_m, need.hours, need.rig, need.may_join


def _add_choices(model: _Model) -> None:
    at_wiring: dict[Wiring, list[int]] = defaultdict(list)
    for place, group in enumerate(model.groups):
        at_wiring[group.wiring].append(place)
    for place, (wiring, length_m, _, rig, may_join) in enumerate(model.demands):
        mine = [g for g in at_wiring[wiring] if model.groups[g].rig in (None, rig)]
        lengths = np.array([model.groups[g].length_m for g in mine])
        suspect = np.array([model.groups[g].suspect for g in mine], dtype=float)
        for index in np.flatnonzero(lengths >= length_m - EPS):
            cost = lengths[index] - length_m + SUSPECT * suspect[index]
            model.choices.append(_Choice(place, (mine[index],), float(cost)))
        if may_join and len(mine):
            # Two that reach together and neither alone; a third join is no better than a lead that is got.
            together = lengths[:, None] + lengths[None, :]
            too_short = lengths < length_m - EPS
            is_pair = np.triu(together >= length_m - EPS) & too_short[:, None] & too_short[None, :]
            for first, second in np.argwhere(is_pair):
                cost = together[first, second] - length_m + JOIN + SUSPECT * (suspect[first] + suspect[second])
                model.choices.append(_Choice(place, (mine[first], mine[second]), float(cost)))
        model.choices.append(_Choice(place, (), SHORT + length_to_get_m(wiring, length_m)))


def _solve(
    model: _Model, wanted: Sequence[int], time_limit_s: float
) -> tuple[np.ndarray[tuple[int], np.dtype[np.int64]], float, float, bool]:
    """How often each choice is taken."""
    choices = model.choices
    every = np.arange(len(choices))
    demand_of = np.array([choice.demand for choice in choices])
    filled = coo_array((np.ones(len(choices)), (demand_of, every)), shape=(len(model.demands), len(choices)))
    rows: list[int] = []
    columns: list[int] = []
    limits: list[int] = []
    for group, moment in _moments(model):
        here = [
            (place, choice.groups.count(group))
            for place, choice in enumerate(choices)
            if group in choice.groups and _is_at(model.demands[choice.demand][2], moment)
        ]
        if here:
            rows += [len(limits)] * sum(times for _, times in here)
            columns += [place for place, times in here for _ in range(times)]
            limits.append(model.counts[group])
    constraints = [LinearConstraint(filled.tocsr(), np.array(wanted), np.array(wanted))]
    if limits:
        used = coo_array((np.ones(len(rows)), (rows, columns)), shape=(len(limits), len(choices)))
        constraints.append(LinearConstraint(used.tocsr(), -inf, np.array(limits)))
    cost = np.array([choice.cost for choice in choices])
    result = milp(
        cost,
        integrality=np.ones(len(choices), dtype=np.int64),
        bounds=Bounds(0, np.array(wanted)[demand_of]),
        constraints=constraints,
        options={"time_limit": time_limit_s, "mip_rel_gap": 0.0},
    )
    if result.x is None:
        # Not even a first answer in the time: everything has to be got, which is always possible.
        taken = np.array([wanted[choice.demand] if not choice.groups else 0 for choice in choices])
        return taken, float(cost @ taken), 0.0, False
    taken = np.rint(result.x).astype(np.int64)
    total = float(cost @ taken)
    bound = float(result.mip_dual_bound) if result.mip_dual_bound is not None else 0.0
    return taken, total, min(bound, total), result.status == 0


def _moments(model: _Model) -> Iterable[tuple[int, float]]:
    """Each group at each moment at which somebody begins to need it: when most are needed at once is one of them."""
    starts = sorted({hours[0] for _, _, hours, _, _ in model.demands})
    return ((group, start) for group in range(len(model.groups)) for start in starts)


def _is_at(hours: tuple[float, float], moment: float) -> bool:
    return hours[0] <= moment < hours[1]


def _by_name(
    model: _Model,
    counts: np.ndarray[tuple[int], np.dtype[np.int64]],
    by_demand: dict[Demand, list[Need]],
    by_group: dict[Group, list[Lead]],
) -> tuple[Filled, ...]:
    """Each need's own leads: those that lie there already where they are among the chosen ones. Needs in the order of
    their hours, so that as many leads are enough as are needed at once."""
    left = {demand: list(needs) for demand, needs in by_demand.items()}
    jobs: list[tuple[Need, tuple[int, ...]]] = []
    for choice, count in zip(model.choices, counts, strict=True):
        for _ in range(int(count)):
            waiting = left[model.demands[choice.demand]]
            best = max(waiting, key=lambda need: _lies_there(need, choice.groups, model.groups))
            waiting.remove(best)
            jobs.append((best, choice.groups))
    free_from: dict[Lead, float] = {}
    lies_at = {lead: need.key for need, groups in jobs for lead in _planned(need, groups, model, by_group)}
    result = []
    for need, groups in sorted(jobs, key=lambda job: (job[0].hours, -len(job[1]), job[0].key)):
        leads: list[Lead] = []
        for group in groups:
            own = [
                lead
                for lead in by_group[model.groups[group]]
                if free_from.get(lead, -inf) <= need.hours[0] and lead not in leads
            ]
            lead = min(own, key=partial(_liking, need, lies_at, free_from))
            free_from[lead] = need.hours[1]
            leads.append(lead)
        leads.sort(key=lambda lead: -lead.length_m)
        result.append(Filled(need, tuple(leads), None if leads else length_to_get_m(need.wiring, need.length_m)))
    order = {need.key: place for place, need in enumerate(need for needs in by_demand.values() for need in needs)}
    return tuple(sorted(result, key=lambda filled: order[filled.need.key]))


Key = tuple[str, str, str]


def _planned(need: Need, groups: tuple[int, ...], model: _Model, by_group: dict[Group, list[Lead]]) -> Iterator[Lead]:
    """The leads that lie at a need already and are among those it may get."""
    for group in dict.fromkeys(groups):
        for lead in by_group[model.groups[group]]:
            if any(is_same(need.rig, item, lead) for item in need.planned):
                yield lead


def _liking(
    need: Need, lies_at: dict[Lead, Key], free_from: dict[Lead, float], lead: Lead
) -> tuple[bool, bool, bool, str]:
    """The lead that lies there already, then one that lies nowhere else, then one that is out anyway."""
    at = lies_at.get(lead)
    return at != need.key, at is not None and at != need.key, lead not in free_from, lead.tag


def is_same(rig: str, item: KitItem, lead: Lead) -> bool:
    """Whether a rig's piece is this lead."""
    if item.drawn is not None:
        return (item.drawn.item, item.drawn.number) == (lead.item, lead.number)
    return (rig, item.id) == (lead.rig, lead.piece)


def _lies_there(need: Need, groups: tuple[int, ...], all_groups: list[Group]) -> int:
    lengths = {round(all_groups[group].length_m, 3) for group in groups}
    return sum(round(item.length_m or 0.0, 3) in lengths for item in need.planned)
