"""Runs as they would be built, with what else was solved before they were chosen."""

from dataclasses import dataclass

from ruvak.core.entry.solve_runs import SubRigResult, solve_runs
from ruvak.core.entry.wanted import Wanted
from ruvak.core.judge.finding import Finding
from ruvak.core.pieces.route import Route
from ruvak.core.rig.edits import Op
from ruvak.core.rig.rig import KitItem, Rig, Run


@dataclass(frozen=True)
class RunLabel:
    """What a run is called in the rig and on its tape."""

    id: str
    number: int
    name: str
    note: str


@dataclass(frozen=True)
class OtherWiring:
    """A wiring that was solved and not chosen. `is_usual`: it is what practice would take, were nothing computed."""

    items: tuple[KitItem, ...]
    finding: Finding
    """Its worst."""
    is_usual: bool
    has_other_sockets: bool
    """Whether it goes into another socket of the channel than the chosen one."""


@dataclass(frozen=True)
class Built:
    """One run as it would be built, and the whole rig with it; of a series only the first was solved, to choose it."""

    wanted: Wanted
    run: Run
    route: Route
    ops: tuple[Op, ...]
    rig: Rig
    solved: SubRigResult | None = None
    others: tuple[OtherWiring, ...] = ()
    """Best first."""


@dataclass(frozen=True)
class Proposal:
    """One run as it would be built, solved."""

    wanted: Wanted
    run: Run
    route: Route
    ops: tuple[Op, ...]
    solved: SubRigResult


def solve_together(built: list[Built]) -> list[Proposal]:
    """Several runs are solved together, since one may hum only once the next is there: while the first was chosen, the
    others were not."""
    alone = built[0].solved if len(built) == 1 else None
    solved = [alone] if alone is not None else solve_runs(built[-1].rig, tuple(entry.run.id for entry in built))
    return [
        Proposal(entry.wanted, entry.run, entry.route, entry.ops, result)
        for entry, result in zip(built, solved, strict=True)
    ]
