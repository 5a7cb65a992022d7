"""One fuzz case by its number: a random rig against ngspice or through random edits, or a file with faults in it."""

from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass, field
from random import Random
from statistics import median

import numpy as np

from ruvak.core.analyse import analyse, ground_loops_of
from ruvak.core.errors import RuvakError
from ruvak.core.rig.edits import Edit, PutThing, apply
from ruvak.core.rig.rig import Rig
from tests.support.agreement import circuit_of, disagreements, some_points
from tests.support.changes import fault_of
from tests.support.figures import unfinite
from tests.support.mutants import mutant, verdict_of
from tests.support.random_lines import fault_of_line
from tests.support.random_rigs import random_rig

EDITS_EACH = 4
SPICE_DIGITS = 5e-10
"""Share of the largest voltage below which ngspice tells nothing: seen on floating devices (seeds 5007, 5181)."""


@dataclass(frozen=True)
class Case:
    """One rig: what was found, and what it is made of."""

    faults: list[str]
    runs: int
    floating: bool
    causes: tuple[str, ...]
    """Of the points looked at; "programme" for channels."""


@dataclass
class MakeUp:
    """What many rigs are made of."""

    runs: list[int] = field(default_factory=list)
    floating: int = 0
    causes: Counter[str] = field(default_factory=Counter)

    def add(self, runs: int, floating: bool, causes: Iterable[str]) -> None:
        """One rig more."""
        self.runs.append(runs)
        self.floating += floating
        self.causes.update(causes)

    def __str__(self) -> str:
        many = f"{len(self.runs)} random rigs: median {median(self.runs):g} runs"
        return f"{many}, {self.floating} floating somewhere, {dict(self.causes)}"


def agree(seed: int) -> Case:
    """What differs from ngspice on this rig at a few points of its causes and channels, as many as in the tests."""
    rig, circuit = circuit_of(random_rig(seed))
    names, several = some_points(rig, circuit)
    found = [f"seed {seed}: {one}" for one in disagreements(rig, circuit, [several], SPICE_DIGITS)]
    return Case(found, len(rig.runs), bool(circuit.floating), tuple(names))


def agree_throughout(seed: int) -> Case:
    """The same with every cause and every channel at every frequency."""
    rig, circuit = circuit_of(random_rig(seed))
    found = [f"seed {seed}: {one}" for one in disagreements(rig, circuit, digits=SPICE_DIGITS)]
    causes = ["programme"] * len(circuit.drives) + [cause.code for cause in circuit.causes]
    return Case(found, len(rig.runs), bool(circuit.floating), tuple(causes))


def survive(seed: int) -> Case:
    """Figures that are not finite, or likely ones above the worst, on this rig and after each of some edits.

    A division by zero on the way is a fault too.
    """
    rig = random_rig(seed, 12)
    _, circuit = circuit_of(rig)
    with np.errstate(divide="raise", invalid="raise"):
        found = _survive(seed, rig)
    return Case(found, len(rig.runs), bool(circuit.floating), tuple(cause.code for cause in circuit.causes))


def read(seed: int) -> Case:
    """A rig file with something wrong in it that ends neither in an analysis nor in a RigFault."""
    document, done = mutant(seed)
    problem = verdict_of(document)
    return Case([f"seed {seed}: {problem} after {done}"] if problem else [], 0, False, ())


def change(seed: int) -> Case:
    """A random line that changes a rig and is neither done nor refused."""
    problem = fault_of(seed)
    return Case([f"seed {seed}: {problem}"] if problem else [], 0, False, ())


def read_line(seed: int) -> Case:
    """A line of random words that raises, or is neither read nor refused."""
    problem = fault_of_line(seed)
    return Case([f"seed {seed}: {problem}"] if problem else [], 0, False, ())


def _survive(seed: int, rig: Rig) -> list[str]:
    pick = Random(seed)
    found = faults(rig, seed)
    for _ in range(EDITS_EACH):
        try:
            rig = apply(rig, Edit(label="fuzz", ops=(edited(pick, rig),)))
        except RuvakError as refused:
            # Refused in words is as good as done; anything else is a crash.
            assert str(refused), "a refusal says why"
            continue
        found += faults(rig, seed)
    return found


def faults(rig: Rig, seed: int) -> list[str]:
    analysis = analyse(rig)
    found = [f"seed {seed}: {path} is not finite" for path in unfinite(analysis.model_dump())]
    for run in analysis.runs:
        for one in run.result.inputs:
            for share in one.hum.causes if one.hum else ():
                if share.likely_dbu > share.worst_dbu + 1e-9:
                    found.append(f"seed {seed}: {run.run} {share.code} {share.owner}: likely above worst")
    owners = {item.id for item in rig.kit} | {bond.id for bond in rig.bonds}
    connections = ground_loops_of(rig)
    found += [
        f"seed {seed}: connection{path} is not finite" for path in unfinite([one.model_dump() for one in connections])
    ]
    found += [f"seed {seed}: {one.owner} is no lead and no bond" for one in connections if one.owner not in owners]
    return found


def edited(pick: Random, rig: Rig) -> PutThing:
    """A lead of another length or part, a device at another outlet, a run that lost a join or got another's piece."""
    run, item, gear = pick.choice(rig.runs), pick.choice(rig.kit), pick.choice(rig.gear)
    outlets = [point.id for point in rig.venue.earth] + [None]
    match pick.randrange(5):
        case 0:
            length_m = pick.uniform(0.1, 300.0) if item.length_m else None
            return PutThing(kind="kit", thing=item.model_copy(update={"length_m": length_m}))
        case 1:
            return PutThing(kind="kit", thing=item.model_copy(update={"part": pick.choice(rig.kit).part}))
        case 2:
            return PutThing(kind="gear", thing=gear.model_copy(update={"outlet": pick.choice(outlets)}))
        case 3:
            joins = tuple(join for join in run.joins if pick.random() < 0.7)
            return PutThing(kind="runs", thing=run.model_copy(update={"joins": joins}))
        case _:
            return PutThing(
                kind="runs", thing=run.model_copy(update={"pieces": (*run.pieces, pick.choice(rig.kit).id)})
            )
