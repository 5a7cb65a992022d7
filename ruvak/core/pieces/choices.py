"""What could stand at a place in a run: pieces that fit what comes before and what follows, owned ones first."""

from typing import Literal

from ruvak.core.pieces.pool import Pool, pool_for
from ruvak.core.rig.connectors import Form, fits
from ruvak.core.rig.rig import KitItem, Rig, Run
from ruvak.core.rig.values import Id, Label, Record
from ruvak.core.trace.run_ends import ends_of
from ruvak.core.trace.trace import connector_at

MOST = 40


class PieceChoice(Record):
    """One item of the kit, or one part that would have to be got."""

    item: Id
    """The kit item it is or would become."""
    tag: Label
    """What is written on it."""
    part: Id
    """The part it is."""
    words: str
    """What it is, in words."""
    kind: Literal["gear", "lead", "adapter", "box"]
    """Lead, adapter or box."""
    length_m: float | None
    """Length of a lead in metres; null where it has none."""
    in_kit: bool
    """Whether it is owned."""
    fits: bool
    """Whether it plugs into both neighbours as they are."""


def choices(rig: Rig, run: Run, at: int, replace: bool) -> tuple[PieceChoice, ...]:
    """For place `at` among the pieces, in front of what stands there or instead of it. Fitting and owned ones first."""
    pool = pool_for(rig, run.id)
    before, after = _neighbours(rig, run, at, at + 1 if replace else at)
    # Some parts have two ways through them, since they may stand either way round.
    fitting: dict[str, bool] = {}
    for way in pool.ways:
        good = any(before is None or fits(before, entry.form) for entry in way.entries) and any(
            after is None or fits(after, exit_.form) for exit_ in way.exits
        )
        fitting[way.part] = fitting.get(way.part, False) or good
    piece_choices = [
        _choice(pool, item, good) for part, good in fitting.items() for item in pool.items(part, frozenset(run.pieces))
    ]
    piece_choices.sort(key=lambda choice: (not choice.fits, not choice.in_kit, choice.part, choice.length_m or 0.0))
    return tuple(piece_choices[:MOST])


def _choice(pool: Pool, item: KitItem, good: bool) -> PieceChoice:
    part = pool.parts[item.part]
    length = f", {item.length_m:g} m" if item.length_m is not None else ""
    tag = f"{item.tag} " if item.owned else ""
    return PieceChoice(
        item=item.id,
        tag=item.tag,
        part=item.part,
        words=f"{tag}{part.name}{length}",
        kind=part.kind,
        length_m=item.length_m,
        in_kit=item.owned,
        fits=good,
    )


def _neighbours(rig: Rig, run: Run, at: int, following: int) -> tuple[Form | None, Form | None]:
    """Forms of the open connector before the place and of the one after it; None where there is none."""
    return _last_form(rig, run, at), _next_form(rig, run, following)


def _last_form(rig: Rig, run: Run, at: int) -> Form | None:
    if at == 0:
        sources = list(ends_of(rig, run, "out").values())
        return sources[0].form if sources else None
    piece = run.pieces[at - 1]
    used = [join.a for join in run.joins if join.a.owner == piece]
    exits = [connector for connector in rig.part_of(piece).connectors if connector.side != "in"]
    return connector_at(rig, used[0]).form if used else exits[0].form if exits else None


def _next_form(rig: Rig, run: Run, following: int) -> Form | None:
    if following >= len(run.pieces):
        goals = list(ends_of(rig, run, "in").values())
        return goals[0].form if goals else None
    piece = run.pieces[following]
    used = [join.b for join in run.joins if join.b.owner == piece]
    entries = [connector for connector in rig.part_of(piece).connectors if connector.side != "out"]
    return connector_at(rig, used[0]).form if used else entries[0].form if entries else None
