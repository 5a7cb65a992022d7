"""The source's own response, against which a run is judged: a pickup is meant to sound as it does."""

import numpy as np

from ruvak.core.circuit.circuit import Drive
from ruvak.core.circuit.reference_load import source_into_reference_load
from ruvak.core.rig.rig import Gear, Rig
from ruvak.core.solve.network import Complexes
from ruvak.core.solve.solver import System


def own_gains(rig: Rig, drive: Drive, frequencies_hz: tuple[float, ...]) -> Complexes | None:
    """Gain from emf to contact at these frequencies; None for a source whose emf stands right behind its contact."""
    if drive.output.type != "unbalanced" or all(channel.inner is None for channel in drive.output.channels):
        return None
    gear = rig.owners_by_id[drive.gear]
    assert isinstance(gear, Gear), "drives belong to gear"
    network, branches, nodes = source_into_reference_load(rig, gear, drive.output.id)
    index = [channel.id for channel in drive.output.channels].index(drive.channel)
    emfs = np.zeros((network.branch_count, 1))
    emfs[list(branches[index]), 0] = 1.0
    solution = System(network).solve(np.array(frequencies_hz), emfs, np.zeros((network.size, 0)))
    values: Complexes = solution.unknowns[:, nodes[index], 0]
    return values
