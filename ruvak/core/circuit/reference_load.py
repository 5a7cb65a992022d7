"""A source by itself into the load it is voiced for: what it sounds like before a run changes that."""

from ruvak.core.circuit.circuit import Drive, Tolerance
from ruvak.core.circuit.elements import EARTH_POINT, Collector
from ruvak.core.circuit.outputs import Outputs
from ruvak.core.circuit.passive import add_components
from ruvak.core.rig.points import SIGNAL_REFERENCE
from ruvak.core.rig.rig import Gear, Rig
from ruvak.core.solve.network import Network

VOICED_WITH_F, VOICED_WITH_OHM = 600e-12, 10e6
"""A pickup's sound is what comes through an ordinary 6 m lead of 100 pF/m into a high impedance: common practice."""


def source_into_reference_load(
    rig: Rig, gear: Gear, output_id: str
) -> tuple[Network, tuple[tuple[int, ...], ...], tuple[int, ...]]:
    """Network, the emf branches of each channel, and the node of each channel's contact."""
    part = rig.parts_by_id[gear.part]
    output = next(output for output in part.outputs if output.id == output_id)
    elements = Collector()
    elements.merge((EARTH_POINT, SIGNAL_REFERENCE.of(gear.id)))
    for wire in part.wires:
        elements.merge((wire.a.of(gear.id), wire.b.of(gear.id)))
    if output.type == "unbalanced":
        elements.merge((output.common.of(gear.id), EARTH_POINT))
    add_components(elements, gear.id, part)
    drives: list[Drive] = []
    tolerances: list[Tolerance] = []
    Outputs(elements, rig.alignment, drives, tolerances, [], {}).add(gear, part, output)
    contacts = [channel.hot.of(gear.id) for channel in output.channels]
    for contact in contacts:
        elements.capacitor(contact, EARTH_POINT, VOICED_WITH_F)
        elements.resistor(contact, EARTH_POINT, VOICED_WITH_OHM)
    network, node_of, _ = elements.number_nodes()
    branches = tuple(tuple(branch for branch, _ in drive.branch_gains) for drive in drives)
    return network, branches, tuple(node_of[contact] for contact in contacts)
