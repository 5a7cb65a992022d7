"""What a clamp meter round a lead says about the earths at its ends.

The net current in a lead follows the earth voltage that drives it (superposition): the network is solved with 1 V
between the two outlets, and the reading divided by what flows then.
"""

import math

import numpy as np

from ruvak.core.circuit.build import build
from ruvak.core.errors import BadEdit
from ruvak.core.results.solving import RigSolver, cause_emfs
from ruvak.core.rig.check_earth import MOST_EARTH_V
from ruvak.core.rig.earth import EarthPoint, EarthVoltage, Preset
from ruvak.core.rig.edits import Edit, SetField
from ruvak.core.rig.prune import prune
from ruvak.core.rig.rig import Gear, Rig
from ruvak.core.trace.trace import trace

LEAST_A_PER_V = 1e-4
"""Less than this is no loop of metal, only capacitances."""


def earth_from_current(rig: Rig, item_id: str, reading_a: float, spectrum: Preset = "switched-mode") -> Edit:
    """An edit that enters the earth voltage which drives `reading_a` (total rms) through a lead, as measured.

    The rig is prepared. Raises BadEdit where the reading cannot tell one voltage.
    """
    if not (math.isfinite(reading_a) and reading_a > 0.0):
        raise BadEdit("reading_a", "A clamp meter's reading is above 0 A; give it in amperes.")
    item = next((item for item in rig.kit if item.id == item_id), None)
    if item is None:
        raise BadEdit("item", f"There is no lead '{item_id}' in this rig.")
    here, there = _outlets(rig, item_id, item.tag)
    flowing_a = _current_a(rig, item_id, here, there, spectrum)
    if flowing_a < LEAST_A_PER_V:
        sentence = (
            f"No earth loop runs through '{item.tag}': its screen is open or isolated, so its current is no clue."
        )
        raise BadEdit("item", sentence)
    volt = reading_a / flowing_a
    if volt > MOST_EARTH_V:
        sentence = (
            f"{reading_a:g} A there would take {volt:.0f} V between '{here.name}' and '{there.name}': "
            "that is a fault for a licensed electrician, or the reading is not in amperes."
        )
        raise BadEdit("reading_a", sentence)
    measured = _measured_point(here, there, spectrum, volt)
    label = f"{item.tag}: {1000 * reading_a:.3g} mA by clamp, {1000 * volt:.3g} mV between outlets"
    return Edit(label=label[:120], ops=(SetField(kind="earth", id=here.id, field="voltage", value=measured.voltage),))


def _outlets(rig: Rig, item_id: str, tag: str) -> tuple[EarthPoint, EarthPoint]:
    """Those of the two earthed devices at the ends of the lead's run."""
    run = next((run for run in rig.runs if item_id in run.pieces), None)
    if run is None:
        raise BadEdit("item", f"No run uses '{tag}', so no current in it can be told.")
    owners = run.owners
    devices = [device for owner in owners if isinstance(device := rig.owners_by_id[owner], Gear)]
    by_id = {point.id: point for point in rig.venue.earth}
    outlets = list(dict.fromkeys(device.outlet for device in devices if device.outlet is not None))
    if len(outlets) != 2:
        without_outlet = ", ".join(f"'{device.name}'" for device in devices if device.outlet is None)
        sentence = (
            f"say first which outlets {without_outlet} use" if without_outlet else "it needs two devices on two outlets"
        )
        raise BadEdit("item", f"The current in '{tag}' tells the voltage between two outlets; {sentence}.")
    here, there = by_id[outlets[0]], by_id[outlets[1]]
    if there.voltage is not None and there.voltage.against == here.id:
        # The other way round it would refer to itself.
        return there, here
    return here, there


def _current_a(rig: Rig, item_id: str, here: EarthPoint, there: EarthPoint, spectrum: Preset) -> float:
    """Total rms in all conductors of the lead together, at 1 V of total rms between the outlets."""
    alone = {point.id: point.model_copy(update={"voltage": None}) for point in rig.venue.earth}
    alone[here.id] = _measured_point(here, there, spectrum, 1.0)
    driven = prune(rig.with_fields(venue=rig.venue.model_copy(update={"earth": tuple(alone.values())})))
    circuit = build(driven, trace(driven))
    numbers = [number for number, cause in enumerate(circuit.causes) if cause.code == "earth_measured"]
    branches = [branch for owner, of_cable in circuit.cables if owner == item_id for branch in of_cable]
    if not numbers or not branches:
        return 0.0
    frequencies_hz, emfs = cause_emfs(circuit)
    solved = RigSolver(circuit).solve(frequencies_hz, emfs, adjoints=0)
    rows = circuit.network.node_count + np.array(branches, dtype=np.int64)
    amperes = solved.rows(rows, np.array(numbers, dtype=np.int64)).sum(axis=1)
    return float(np.linalg.norm(amperes))


def _measured_point(here: EarthPoint, there: EarthPoint, spectrum: Preset, volt: float) -> EarthPoint:
    """`volt`: total rms, as a meter between the two would show it."""
    return here.model_copy(update={"voltage": EarthVoltage(against=there.id, reading_v=volt, spectrum=spectrum)})
