"""What might cure a run: switches and controls, other wirings, both together, the same on the runs beside it."""

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.pieces.cures import cures
from ruvak.core.pieces.route import simplicity
from ruvak.core.pieces.screens import opens_screen
from ruvak.core.remedies.lifts import may_open_screen
from ruvak.core.remedies.pairs import beside, same_way
from ruvak.core.remedies.paths import edit_for, paths
from ruvak.core.remedies.settings import settings_edits
from ruvak.core.remedies.trouble import Trouble, hums
from ruvak.core.remedies.wording import part_of_item, write_title
from ruvak.core.rig.edits import Edit, apply
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import Join, KitItem, Rig, Run

ENOUGH_CLEAR = 5
"""So many clear rewirings end the search, simplest first."""


@dataclass(frozen=True)
class Candidate:
    """An edit, and the quick findings of the run with it."""

    edit: Edit
    title: str
    items: tuple[KitItem, ...]
    changes: int
    detail: str
    findings: tuple[Finding, ...]
    simplicity: tuple[int, float, float] = (0, 0.0, 0.0)


def flips(trouble: Trouble) -> Iterator[Candidate]:
    """Switches and controls, each on its own."""
    for edit in settings_edits(trouble.rig, trouble.target):
        yield Candidate(edit, edit.label, (), len(edit.ops), "", trouble.quick_findings_with(edit))


def rewirings(trouble: Trouble) -> Iterator[Candidate]:
    """Other wirings the same way, simplest first.

    What only adds pieces to a wiring that is clear already is not looked at, and no more once enough are clear.
    """
    clear: list[tuple[tuple[Endpoint, ...], Counter[str]]] = []
    may_open = may_open_screen(trouble.rig, trouble.target)
    today = len(_goals_of(trouble.run.joins, trouble.run.pieces))
    # Two sides on two inputs are given up for one input only where nothing else is found.
    routes = paths(trouble.rig, trouble.run, cures(finding.code.cure for finding in trouble.target.findings))
    ends = [(_goals_of(route.joins, [item.id for item in route.items]), route) for route in routes]
    for goals, route in sorted(ends, key=lambda end: len(end[0]) < today):
        if clear and len(goals) < today:
            break
        if not may_open and opens_a_screen(trouble.rig, trouble.run, route.items):
            continue
        if {item.id for item in route.items} == set(trouble.run.pieces) and route.joins == trouble.run.joins:
            continue
        parts = Counter(item.part for item in route.items)
        if any(goals == others and fewer <= parts for others, fewer in clear):
            continue
        title, detail = write_title(trouble.rig, trouble.run, route)
        edit = edit_for(trouble.rig, trouble.run, route, title[:120])
        changes = len({item.id for item in route.items} ^ set(trouble.run.pieces))
        result = trouble.quick_findings_with(edit)
        if result[0].grade is Grade.CLEAR:
            clear.append((goals, parts))
        yield Candidate(edit, title, route.items, changes, detail, result, simplicity(route))
        if len(clear) == ENOUGH_CLEAR:
            break


def with_flips(trouble: Trouble, candidate: Candidate, flips: list[Candidate]) -> Iterator[Candidate]:
    """A rewiring that leaves something to watch, with a switch flipped besides."""
    for flip in flips:
        title = f"{candidate.title}; {flip.title}"
        edit = Edit(label=title[:120], ops=candidate.edit.ops + flip.edit.ops)
        result = trouble.quick_findings_with(edit)
        if result[0].grade is Grade.CLEAR:
            yield Candidate(
                edit, title, candidate.items, candidate.changes + 1, candidate.detail, result, candidate.simplicity
            )


def on_those_beside(trouble: Trouble, candidate: Candidate) -> Candidate | None:
    """With the same boxes in every run that hums between the same two devices; None where there is none."""
    boxes = Counter(
        item.part for item in candidate.items if item.id not in trouble.run.pieces and item.length_m is None
    )
    if not any(_has_coil(trouble.rig, item) for item in candidate.items if item.id not in trouble.run.pieces):
        return None
    humming = {entry.run for entry in trouble.before if hums(entry.findings)}
    rig, ops, items, names = apply(trouble.rig, candidate.edit), candidate.edit.ops, candidate.items, []
    for other in (run for run in beside(trouble.rig, trouble.run) if run.id in humming):
        route = same_way(rig, other, boxes)
        if route is None:
            return None
        edit = edit_for(rig, other, route, "the same")
        rig, ops = apply(rig, edit), (*ops, *edit.ops)
        items = (*items, *(item for item in route.items if item.id not in other.pieces))
        names.append(other.name)
    if not names:
        return None
    title = f"{candidate.title}, and the same on {' and '.join(names)}"
    edit = Edit(label=title[:120], ops=ops)
    changes = candidate.changes * (1 + len(names))
    return Candidate(edit, title, items, changes, candidate.detail, candidate.findings, candidate.simplicity)


def opens_a_screen(rig: Rig, run: Run, items: tuple[KitItem, ...]) -> bool:
    """Whether anything that is not there today opens a screen."""
    parts = rig.parts_by_id
    return any(opens_screen(part_of_item(parts, item)) for item in items if item.id not in run.pieces)


def _has_coil(rig: Rig, item: KitItem) -> bool:
    return any(element.type == "transformer" for element in part_of_item(rig.parts_by_id, item).elements)


def _goals_of(joins: Iterable[Join], pieces: Iterable[str]) -> tuple[Endpoint, ...]:
    """The sockets a wiring ends at."""
    own = set(pieces)
    return tuple(join.b for join in joins if join.b.owner not in own)
