"""How near the programme's peaks bring a transformer's core to saturation."""

import math
from collections.abc import Iterator, Sequence

import numpy as np

from ruvak.core.circuit.circuit import Circuit, Core
from ruvak.core.results.records import CoreResult
from ruvak.core.results.run_ports import RunPorts
from ruvak.core.results.solving import NetworkSolution
from ruvak.core.results.sums import peak_volts
from ruvak.core.units import FLOOR_DB, dbu_from_volts, ratio_from_db, volts_from_dbu

LOWEST_HZ = 20.0
"""No programme is expected below."""


def cores_of(circuit: Circuit, ports: RunPorts) -> tuple[Core, ...]:
    """Those of a run's pieces and of the devices at its ends."""
    owners = {*ports.owners, *(circuit.receivers[number].gear for number in ports.receivers)}
    return tuple(core for core in circuit.cores if core.owner in owners)


def core_results(
    circuit: Circuit, swept: NetworkSolution, cores: Sequence[Core], drives: Sequence[int]
) -> Iterator[CoreResult]:
    """Where any of these drives reaches them: at the swept frequency nearest to where each saturates.

    Flux is voltage over frequency (Faraday), so what the core bears grows in proportion to frequency.
    """
    peaks = [volts_from_dbu(circuit.drives[number].peak_dbu) for number in drives]
    for core in cores:
        away = np.abs(np.log(swept.frequencies_hz / core.saturates_hz))
        nearest = int(np.argmin(np.where(swept.frequencies_hz < LOWEST_HZ, np.inf, away)))
        at_hz = float(swept.frequencies_hz[nearest])
        volts = swept.rows(np.array([core.a, core.b]), np.array(drives, dtype=np.int64))[nearest]
        across = volts[0] - volts[1]
        if len(across) and np.abs(across).max() > ratio_from_db(FLOOR_DB):
            yield CoreResult(
                owner=core.owner,
                at_hz=at_hz,
                peak_dbu=dbu_from_volts(peak_volts(across, peaks)),
                saturates_dbu=core.saturates_dbu + 20.0 * math.log10(at_hz / core.saturates_hz),
            )
