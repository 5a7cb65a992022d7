"""How devices meet the building: earth cords, interference capacitors, bonds beside the runs, computers' noise."""

import math
from dataclasses import dataclass, field

from ruvak.core.circuit.circuit import Cause, CauseLine
from ruvak.core.circuit.elements import EARTH_POINT, CircuitPoint, Collector, EarthNode, Internal
from ruvak.core.circuit.spectra import preset
from ruvak.core.circuit.tree import EarthTree
from ruvak.core.rig.earth import Bond, Disturbances
from ruvak.core.rig.part import Earthing
from ruvak.core.rig.points import CHASSIS, SIGNAL_REFERENCE, BondTarget, NodeRef
from ruvak.core.rig.rig import Gear, Rig, earthing_of, leak_of
from ruvak.core.rig.values import Deviation, sizes

HALF_MAINS = 0.5
"""Two equal interference capacitors from live and neutral hold a class 2 chassis at half the mains voltage."""


@dataclass
class Earthings:
    """Adds what earths each device, and every bond; the causes that come with them go into `causes`."""

    elements: Collector
    rig: Rig
    disturbances: Disturbances
    tree: EarthTree
    causes: list[Cause]
    cords: dict[str, int] = field(default_factory=dict)
    """Branches of the cords' earth conductors, by gear."""
    bonds: dict[str, int] = field(default_factory=dict)
    """Branches of bonds beside the runs, by id."""

    def add(self, gear: Gear) -> None:
        """One device: its reference to its chassis, its chassis to the building."""
        reference, chassis = SIGNAL_REFERENCE.of(gear.id), CHASSIS.of(gear.id)
        earthing = earthing_of(gear, self.rig.part_of(gear.id))
        if earthing is None:
            self.elements.merge((reference, chassis))
            return
        self._reference(gear, earthing, reference, chassis)
        if earthing.type == "class-1" and earthing.cord_ohm is not None and not gear.earth_open:
            cord_h = self.disturbances.cord_m.value * self.disturbances.henry_per_m.value
            henry = earthing.cord_h.value if earthing.cord_h is not None else cord_h
            ends: tuple[list[CircuitPoint], list[CircuitPoint]] = [self.tree.outlet(gear)], [chassis]
            self.cords[gear.id] = self.elements.bundle(*ends, [earthing.cord_ohm.value], [[henry]])

    def touch(self) -> None:
        """Interference capacitors of class 2 devices, and of class 1 ones whose earth no longer takes that current; and
        whatever capacitance to live mains somebody stated."""
        for gear in self.rig.gear:
            earthing = earthing_of(gear, self.rig.part_of(gear.id))
            leak = leak_of(self.rig, gear, self.disturbances)
            if leak is not None and earthing is not None and (earthing.type == "class-2" or gear.earth_open):
                self._touch(gear, leak)
            if gear.mains_f is not None and gear.mains_f.value:
                self._live_beside(gear, gear.mains_f.value)

    def bond(self, bond: Bond) -> int:
        """Metal between two devices, or a device and the building; its branch."""
        ohm = bond.ohm or self.disturbances.bond_ohm[bond.kind]
        henry_per_m = self.disturbances.henry_per_m.value
        henry = bond.henry.value if bond.henry is not None else self.disturbances.bond_m.value * henry_per_m
        branch = self.elements.bundle([self._end(bond.a)], [self._end(bond.b)], [ohm.value], [[henry]])
        self.bonds[bond.id] = branch
        return branch

    def mains_volts(self) -> float:
        """Phase to neutral, rms."""
        venue = self.rig.venue
        stated = venue.mains_v or self.disturbances.mains_v["50" if venue.mains_hz == 50 else "60"]
        return stated.value

    def mains_lines(self, branch: int, volts: float) -> tuple[CauseLine, ...]:
        """The mains voltage with its harmonics as an emf."""
        mains_hz = float(self.rig.venue.mains_hz)
        shape = preset(self.disturbances, self.disturbances.mains_spectrum)
        return tuple(CauseLine(order * mains_hz, ((branch, size * volts),)) for order, size in shape)

    def _reference(self, gear: Gear, earthing: Earthing, reference: NodeRef, chassis: NodeRef) -> None:
        ohm = earthing.reference_to_chassis_ohm.value
        noise = earthing.computer_v or (self.disturbances.computer_v if earthing.computer else None)
        likely, worst = sizes(noise) if noise else (0.0, 0.0)
        if worst:
            branch = self.elements.branch(chassis, reference, ohm)
            lines = tuple(CauseLine(hz, ((branch, 1.0 + 0j),)) for hz in self.disturbances.computer_hz)
            self.causes.append(Cause("computer", gear.id, likely, worst, lines))
        else:
            self.elements.resistor(reference, chassis, ohm)
        self.elements.capacitor(reference, chassis, earthing.reference_to_chassis_f.value)

    def _touch(self, gear: Gear, current_a: Deviation) -> None:
        """A capacitor that lets the likely current through at the fundamental; harmonics follow from it by order."""
        likely, worst = sizes(current_a)
        if not likely:
            return
        half_v = HALF_MAINS * self.mains_volts()
        inner = Internal(gear.id, "interference", 0)
        branch = self.elements.branch(EARTH_POINT, inner, 0.0)
        omega = 2.0 * math.pi * self.rig.venue.mains_hz
        self.elements.capacitor(inner, CHASSIS.of(gear.id), likely / (omega * half_v))
        self.causes.append(Cause("touch", gear.id, 1.0, worst / likely, self.mains_lines(branch, half_v)))

    def _live_beside(self, gear: Gear, farad: float) -> None:
        """Live mains reaches the case through a stated capacitance, at the full voltage."""
        inner = Internal(gear.id, "live", 0)
        branch = self.elements.branch(EARTH_POINT, inner, 0.0)
        self.elements.capacitor(inner, CHASSIS.of(gear.id), farad)
        lines = self.mains_lines(branch, self.mains_volts())
        self.causes.append(Cause("electric", gear.id, 1.0, 1.0, lines))

    def _end(self, end: BondTarget) -> CircuitPoint:
        if end.point is not None:
            return end.point.of(end.owner)
        return CHASSIS.of(end.owner) if end.owner in self.rig.owners_by_id else EarthNode(end.owner)
