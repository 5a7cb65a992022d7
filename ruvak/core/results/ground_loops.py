"""Every connection that could be opened, ranked by what opening it would do to the inputs: what closes which loop."""

from itertools import pairwise

import networkx as nx
import numpy as np

from ruvak.core.circuit.circuit import Circuit
from ruvak.core.circuit.elements import EARTH_POINT, CircuitPoint, EarthNode
from ruvak.core.results.balance import balance
from ruvak.core.results.gains import REFERENCE_HZ, Gains
from ruvak.core.results.hum import Disturbed, levels_dbu
from ruvak.core.results.hum_records import GroundLoop, Opening
from ruvak.core.results.phase_range import change_ranges_db
from ruvak.core.results.run_ports import RunPorts, by_owner, ports_of_run
from ruvak.core.results.sensitivities import Sensitivities, leg_rows
from ruvak.core.results.solving import RigSolver, drive_emfs
from ruvak.core.rig.rig import Rig
from ruvak.core.solve.block_cache import BlockCache
from ruvak.core.solve.network import EARTH, Floats
from ruvak.core.trace.trace import Trace

TOLD_DB = 0.1
"""A change of hum below this is none."""
HELD = 8_000_000
"""Figures of a solution held at once: 128 MB."""
TOLD_A = 1e-6
"""A connection that carries less and changes nothing closes no loop worth a word."""


def rank_connections(
    rig: Rig, traced: Trace, circuit: Circuit, block_cache: BlockCache | None = None
) -> tuple[GroundLoop, ...]:
    """Largest improvement at any input first. Connections that close no loop are left out."""
    if not circuit.openable_connections or not circuit.causes:
        return ()
    solver = RigSolver(circuit, bonds=True, block_cache=block_cache)
    disturbed = Disturbed(circuit, solver, bonds=True)
    tolerances = by_owner((*circuit.tolerances, *circuit.hum_tolerances))
    ports_by_run = [(run.id, ports_of_run(rig, traced, circuit, run)) for run in rig.runs]
    places = [(run, number) for run, ports in ports_by_run for number in ports.receivers]
    own = {run: [entry for owner in ports.owners for entry in tolerances.get(owner, ())] for run, ports in ports_by_run}
    effects = Sensitivities(circuit, [(number, own[run]) for run, number in places])
    disturbed = _at_hand(circuit, disturbed, effects)
    openings = _openings(circuit, disturbed, effects, places)
    returning = _returning(traced, circuit, solver, ports_by_run)
    loops = Loops(circuit)
    result = []
    for index, connection in enumerate(circuit.openable_connections):
        if index not in openings:
            continue
        likely_a, worst_a = disturbed.currents_a(index)
        if not openings[index] and worst_a < TOLD_A:
            continue
        result.append(
            GroundLoop(
                kind=connection.kind,
                owner=connection.owner,
                likely_a=likely_a,
                worst_a=worst_a,
                loop=loops.through(connection.branch),
                is_return=connection.kind == "screen" and connection.owner in returning,
                openings=tuple(sorted(openings[index], key=_change_db)),
            )
        )
    return tuple(sorted(result, key=_gain_db))


def _openings(
    circuit: Circuit, disturbed: Disturbed, effects: Sensitivities, places: list[tuple[str, int]]
) -> dict[int, list[Opening]]:
    """Of each connection that closes a loop, by its number: the inputs whose hum opening it changes."""
    openings = disturbed.openings(effects)
    if openings is None:
        return {}
    numbers = np.arange(len(circuit.openable_connections))
    result: dict[int, list[Opening]] = {int(number): [] for number in numbers[openings.answers(numbers).close_loops()]}
    before_v = openings.before_v()
    before_dbu = levels_dbu(before_v)
    for change in openings.changes((1.0 - 10.0 ** (-TOLD_DB / 20.0)) * before_v):
        after_dbu = levels_dbu(change.after.weighted_v())
        differs = np.any(np.abs(after_dbu - before_dbu[:, change.inputs]) >= TOLD_DB, axis=0)
        changed = np.flatnonzero(differs)
        ranges_db = change_ranges_db(change.before, change.at[changed], change.after, changed)
        for pair, range_db in zip(changed.tolist(), ranges_db.tolist(), strict=True):
            place = int(change.inputs[pair])
            opening = _opening(circuit, places[place], before_dbu[:, place], after_dbu[:, pair], range_db)
            result[int(change.connections[pair])].append(opening)
    return result


def _opening(circuit: Circuit, place: tuple[str, int], before: Floats, after: Floats, range_db: list[float]) -> Opening:
    run, number = place
    receiver = circuit.receivers[number]
    return Opening(
        run=run,
        gear=receiver.gear,
        input=receiver.input.id,
        before_dbu=float(before[0]),
        after_dbu=float(after[0]),
        worst_before_dbu=float(before[1]),
        worst_after_dbu=float(after[1]),
        change_best_db=range_db[0],
        change_worst_db=range_db[1],
    )


def _at_hand(circuit: Circuit, disturbed: Disturbed, effects: Sensitivities) -> Disturbed:
    """With everything that is asked for below read at once, unless that would be too much to hold."""
    network, connections = circuit.network, len(circuit.openable_connections)
    rows = effects.rows | {row for number in effects.receivers for row in leg_rows(circuit, circuit.receivers[number])}
    rows |= {network.node_count + connection.branch for connection in circuit.openable_connections}
    if len(rows) * (len(circuit.causes) + connections) * len(disturbed.frequencies_hz) > HELD:
        return disturbed
    return disturbed.prefetch(rows, connections)


def _change_db(opening: Opening) -> float:
    # Rounded, so that two inputs alike stay in their order.
    return round(opening.after_dbu - opening.before_dbu, 6)


def _gain_db(loop: GroundLoop) -> float:
    return min((_change_db(opening) for opening in loop.openings), default=0.0)


def _returning(
    traced: Trace, circuit: Circuit, solver: RigSolver, ports_by_run: list[tuple[str, RunPorts]]
) -> set[str]:
    """Leads whose screen an unbalanced programme returns by: something on their run is not balanced."""
    solved = solver.solve(np.array([REFERENCE_HZ]), drive_emfs(circuit, bonds=True), adjoints=1)
    receivers = tuple(dict.fromkeys(number for _, ports in ports_by_run for number in ports.receivers))
    gains = Gains(circuit, solved, solved, receivers, tuple(range(len(circuit.drives))))
    names: set[str] = set()
    for _, ports in ports_by_run:
        drives = tuple(circuit.drives[number] for group in ports.groups for number in group)
        for number in ports.receivers:
            if balance(traced, drives, circuit.receivers[number], gains.leg_ohm(number)).verdict != "balanced":
                names |= set(ports.owners)
    return names


class Loops:
    """Finds the loop that a branch closes, on a graph of everything that conducts."""

    def __init__(self, circuit: Circuit) -> None:
        self._circuit = circuit
        self._ends: list[tuple[int, int]] = []
        self._weights: dict[frozenset[int], dict[int, float]] = {}
        for bundle in circuit.network.bundles:
            for k, (a, b, ohm) in enumerate(zip(bundle.a, bundle.b, bundle.ohm, strict=True)):
                between = self._weights.setdefault(frozenset((a, b)), {})
                between[len(self._ends)] = ohm + 314.0 * bundle.henry[k][k] + 1e-9
                self._ends.append((a, b))
        for number, (a, b, siemens) in enumerate(circuit.network.conductances):
            self._weights.setdefault(frozenset((a, b)), {})[-1 - number] = 1.0 / siemens
        self._graph = nx.Graph()
        for ends, weights in self._weights.items():
            self._graph.add_edge(min(ends), max(ends), weight=min(weights.values()))

    def through(self, branch: int) -> tuple[str, ...]:
        """By the way of least impedance: devices, leads, bonds and earth points in order; nothing where none is closed.

        Earth points are called "earth:id", the main bar "earth".
        """
        here, there = self._ends[branch]
        edge = self._graph.edges[here, there]
        beside = [weight for other, weight in self._weights[frozenset((here, there))].items() if other != branch]
        whole = edge["weight"]
        edge["weight"] = min(beside, default=None)
        try:
            way = nx.bidirectional_dijkstra(self._graph, there, here)[1]
        except nx.NetworkXNoPath:
            return ()
        finally:
            edge["weight"] = whole
        points = (EARTH_POINT if node == EARTH else self._circuit.point_of[node] for node in (here, *way))
        owners = [_owner(point) for point in points]
        loop = [entry for entry, other in pairwise([*owners, ""]) if entry != other]
        return tuple(loop[:-1] if len(loop) > 1 and loop[0] == loop[-1] else loop)


def _owner(point: CircuitPoint) -> str:
    return str(point) if isinstance(point, EarthNode) else point.owner
