"""The whole rig solved once: programme at every frequency asked for, every disturbance, phantom."""

from dataclasses import dataclass
from functools import cached_property
from typing import Literal

import numpy as np

from ruvak.core.circuit.circuit import Circuit
from ruvak.core.parts.library import assumptions_of
from ruvak.core.results.gains import REFERENCE_HZ
from ruvak.core.results.hum import Disturbed
from ruvak.core.results.hum_records import CaseVoltage, LeadCurrent
from ruvak.core.results.kept_results import digest
from ruvak.core.results.meters import floating_cases
from ruvak.core.results.norton import NortonEquivalent
from ruvak.core.results.phantom import Phantom
from ruvak.core.results.response import FULL_SWEEP_HZ
from ruvak.core.results.run_ports import by_owner
from ruvak.core.results.solving import RigSolver, drive_emfs
from ruvak.core.rig.rig import Rig
from ruvak.core.solve.block_cache import BlockCache
from ruvak.core.trace.trace import Trace
from ruvak.core.units import volts_from_dbu

HIGH_HZ = 10_000.0
"""Where crosstalk is told too: capacitances let more through there."""
NOISE_HZ = (20.0, 200.0, 2000.0, 3150.0, 5000.0, 8000.0, 14_000.0, 20_000.0)
"""With the two above: dense where a pickup's coil rings."""
CROSSTALK_HZ = 2
"""How many of the frequencies solved crosstalk is told at: the first, REFERENCE_HZ and HIGH_HZ."""


@dataclass(frozen=True)
class Options:
    """What is asked of a rig's results.

    `sweep_hz`: frequencies of the responses. `hum`: none, "brief" with totals and the largest cause alone, or "full"
    with causes, tones, noise, crosstalk and meters' readings. `detailed_run`: the only run whose full hum is told by
    cause and tone. `norton`: what the rig is a part of. `block_cache`: blocks solved before.
    """

    sweep_hz: tuple[float, ...] = FULL_SWEEP_HZ
    hum: Literal["none", "brief", "full"] = "full"
    detailed_run: str | None = None
    norton: NortonEquivalent | None = None
    block_cache: BlockCache | None = None


class SolvedRig:
    """A rig's network solved for everything that its runs' results are made from."""

    def __init__(self, rig: Rig, traced: Trace, circuit: Circuit, options: Options) -> None:
        self.rig, self.traced, self.circuit = rig, traced, circuit
        self.detailed_run, self.sweep_hz = options.detailed_run, options.sweep_hz
        self.full, self.brief = options.hum == "full", options.hum == "brief"
        cases = floating_cases(circuit) if self.full else ()
        ports = [node for _, node in cases]
        solver = RigSolver(circuit, block_cache=options.block_cache, ports=ports, whole=options.norton is not None)
        emfs = drive_emfs(circuit)
        self.nominal_v = np.array([volts_from_dbu(drive.nominal_dbu) for drive in circuit.drives])
        spots_hz = (REFERENCE_HZ, HIGH_HZ, *NOISE_HZ) if self.full else (REFERENCE_HZ,)
        every_hz = list(dict.fromkeys((*spots_hz, *self.sweep_hz)))
        solved = solver.solve(np.array(every_hz), emfs, adjoints=len(spots_hz))
        self.reference, self.spots = solved.at(np.arange(1)), solved.at(np.arange(len(spots_hz)))
        self.across = solved.at(np.arange(CROSSTALK_HZ)) if self.full else None
        self.swept = solved.at(np.array([every_hz.index(hz) for hz in self.sweep_hz], dtype=np.int64))
        self.disturbed = Disturbed(circuit, solver, norton=options.norton) if options.hum != "none" else None
        self.figures = len(circuit.causes) * len(self.disturbed.frequencies_hz) if self.disturbed is not None else 0
        # By lead and by device, with the place in the circuit's order.
        self.current_of: dict[str, tuple[int, LeadCurrent]] = {}
        self.case_of: dict[str, tuple[int, CaseVoltage]] = {}
        if self.full and self.disturbed is not None:
            readings = self.disturbed.case_voltages(cases, first_functional=2 * len(circuit.receivers))
            self.current_of = {reading.item: (at, reading) for at, reading in enumerate(self.disturbed.lead_currents())}
            self.case_of = {reading.gear: (at, reading) for at, reading in enumerate(readings)}
        self.phantom = Phantom(circuit) if options.hum != "none" else None
        self.audio_of = by_owner(circuit.tolerances)
        self.hum_of = by_owner((*circuit.tolerances, *circuit.hum_tolerances))

    @cached_property
    def content(self) -> bytes:
        """A name for what all runs' results are made from besides their own; only kept results ask for it."""
        causes = [(cause.code, cause.owner, cause.likely, cause.worst) for cause in self.circuit.causes]
        drives = [
            (drive.gear, drive.output.id, drive.channel, drive.nominal_dbu, drive.peak_dbu, drive.mono)
            for drive in self.circuit.drives
        ]
        hertz = (self.sweep_hz, self.disturbed.frequencies_hz.tolist() if self.disturbed is not None else None)
        stated = assumptions_of(self.rig).model_dump_json(), self.rig.alignment.model_dump_json()
        return digest(*stated, repr((causes, drives, hertz, self.full, self.brief)))
