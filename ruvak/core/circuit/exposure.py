"""What leads catch on their way: the magnetic field in the loop beside them, a mains cable, the electric field."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ruvak.core.circuit.circuit import Cause, CauseLine, Tolerance, cable_owner
from ruvak.core.circuit.earthing import Earthings
from ruvak.core.circuit.elements import EARTH_POINT, CircuitPoint, Collector, Internal
from ruvak.core.circuit.outputs import stated_part
from ruvak.core.circuit.spectra import Harmonic, preset
from ruvak.core.circuit.tree import gear_somewhere
from ruvak.core.rig.earth import Disturbances, Position
from ruvak.core.rig.part import Cable
from ruvak.core.rig.points import Contact
from ruvak.core.rig.rig import KitItem, Rig
from ruvak.core.rig.values import Spread, sizes
from ruvak.core.stage.flux import MU0_OVER_4PI, Path, loop_area_m2, pair_flux_wb, wire_flux_wb
from ruvak.core.stage.plan import Plan

LIVE = Internal("mains", "live", 0)

ExposedPath = tuple[int, Path, float]
"""A branch, the way on the plan of the conductor it belongs to, and the share of that conductor that it is."""


@dataclass(frozen=True)
class CableBranches:
    """One section of a lead's cable in the network: the branches of its conductors, the points at both their ends."""

    item: KitItem
    index: int
    """Among the item's cables."""
    cable: Cable
    branches: tuple[int, ...]
    ends: tuple[tuple[CircuitPoint, CircuitPoint], ...]
    section: int
    """Its number along the cable, from 0 at the end a; only long cables have several."""
    sections: int
    """How many the cable has."""

    @property
    def is_first(self) -> bool:
        """Whether it stands for the whole cable where that is counted once: opened, or read by a clamp meter."""
        return self.section == 0

    @property
    def screens(self) -> tuple[int, ...]:
        """Branches of screens that are joined at both ends of the cable."""
        pairs = zip(self.cable.conductors, self.branches, strict=True)
        return tuple(branch for pair, branch in pairs if pair.kind == "screen" and pair.a and pair.b)

    @property
    def length_m(self) -> float:
        """This section's."""
        return (self.item.length_m or 0.0) / self.sections


def pair_signs(cable: Cable) -> list[float]:
    """+1 for the first core of each pair, -1 for the second; 0 for screens and a core left over."""
    cores = [i for i, conductor in enumerate(cable.conductors) if conductor.kind == "core"]
    signs = [0.0] * len(cable.conductors)
    for core, other in zip(cores[0::2], cores[1::2], strict=False):
        signs[core], signs[other] = 1.0, -1.0
    return signs


@dataclass
class Exposure:
    """Adds the emfs along every cable and the capacitances to live mains."""

    elements: Collector
    rig: Rig
    disturbances: Disturbances
    earthings: Earthings
    causes: list[Cause]
    tolerances: list[Tolerance]
    plan: Plan

    def add(self, cables: list[CableBranches]) -> None:
        """All cables of the rig, light guides aside."""
        cables = [cable for cable in cables if not cable.cable.optical]
        paths = self._paths(cables)
        self._field(cables, paths)
        self._mains_on_the_plan(paths)
        beside: dict[str, list[CableBranches]] = {}
        for cable in cables:
            if cable.item.beside is not None:
                beside.setdefault(cable.item.id, []).append(cable)
        for of_item in beside.values():
            self._beside(of_item)
        self._electric(cables)

    def _width_m(self, item: KitItem) -> float:
        return (item.loop_width_m or self.disturbances.loop_width_m).value

    def _field(self, cables: list[CableBranches], paths: list[ExposedPath]) -> None:
        """One field goes through every loop: j w B times the area beside a conductor stands along it.

        Where the plan says how things lie, the areas are its own; else a lead's length times its stated width.
        """
        likely, worst = sizes(self.disturbances.field_t)
        areas = [
            (branch, cable.length_m * self._width_m(cable.item))
            for cable in cables
            if not self.plan.is_drawn(cable.item)
            for branch in cable.branches
        ]
        areas += [(branch, share * loop_area_m2(self.plan.bar, path)) for branch, path, share in paths]
        areas = [(branch, area) for branch, area in areas if area]
        if worst and areas:
            lines = self._induce(areas, preset(self.disturbances, self.disturbances.mains_spectrum))
            self.causes.append(Cause("field", "venue", likely, worst, lines))

    def _mains_on_the_plan(self, paths: list[ExposedPath]) -> None:
        """Every mains cable drawn on the plan: its load there and back, and what returns elsewhere."""
        for mains in self.rig.venue.mains:
            spacing_m = (mains.spacing_m or self.disturbances.pair_spacing_m).value
            twist_db = (mains.twist_db if mains.twist_db is not None else self.disturbances.pair_twist_db).value
            pair_a = mains.current_a.value * 10.0 ** (-twist_db / 20.0)
            residual_a = mains.residual_a.value if mains.residual_a is not None else 0.0
            flux = []
            for branch, path, share in paths:
                weber = pair_a * pair_flux_wb(self.plan.bar, path, mains.points, spacing_m) if pair_a else 0.0
                weber += residual_a * wire_flux_wb(self.plan.bar, path, mains.points, spacing_m) if residual_a else 0.0
                if weber:
                    flux.append((branch, share * weber))
            if flux:
                lines = self._induce(
                    flux, preset(self.disturbances, mains.spectrum or self.disturbances.mains_spectrum)
                )
                self.causes.append(Cause("mains_pair", mains.id, 1.0, 1.0, lines))

    def _paths(self, cables: list[CableBranches]) -> list[ExposedPath]:
        """Every conductor with a way of its own on the plan: leads, cords, bonds, the building's earth.

        The sections of a long lead have equal shares of what its whole way catches.
        """
        if not self.plan.drawn:
            return []
        exposed_paths: list[ExposedPath] = []
        for cable in cables:
            for branch, conductor in zip(cable.branches, cable.cable.conductors, strict=True):
                points = [point for point in (conductor.a, conductor.b) if isinstance(point, Contact)]
                way = self.plan.lead(cable.item, [point.connector for point in points])
                exposed_paths.append((branch, way, 1.0 / cable.sections))
        tree = self.earthings.tree
        for id_, branch in tree.branches.items():
            exposed_paths.append((branch, tuple(self._point(end) for end in (tree.upper(id_), id_)), 1.0))
        for gear, branch in self.earthings.cords.items():
            exposed_paths.append((branch, (self._point(tree.outlet_id(gear)), self.plan.gear(gear)), 1.0))
        for bond in self.rig.bonds:
            exposed_paths.append((self.earthings.bonds[bond.id], (self.plan.end(bond.a), self.plan.end(bond.b)), 1.0))
        return exposed_paths

    def _point(self, point: str | None) -> Position:
        """An earth point, or the outlet nobody named, which is where its device is."""
        if point is None:
            return self.plan.bar
        unnamed = gear_somewhere(point)
        return self.plan.gear(unnamed) if unnamed else self.plan.point(point)

    def _induce(self, flux: list[tuple[int, float]], shape: Sequence[Harmonic]) -> tuple[CauseLine, ...]:
        """Emfs from flux per unit of the cause, with the harmonics of mains currents, each times its order."""
        omega = 2.0 * math.pi * self.rig.venue.mains_hz
        return tuple(
            CauseLine(
                float(order * self.rig.venue.mains_hz),
                tuple((branch, 1j * omega * order * size * weber) for branch, weber in flux),
            )
            for order, size in shape
        )

    def _beside(self, cables: list[CableBranches]) -> None:
        """One lead along a mains cable, all its cables and sections: the pair's flux between the lead and the earth
        path behind it, and that of its residual current."""
        item = cables[0].item
        if item.beside is None:
            return
        beside, disturbances = item.beside, self.disturbances
        near, far = beside.distance_m.value, beside.distance_m.value + self._width_m(item)
        spacing = (beside.spacing_m or disturbances.pair_spacing_m).value
        twist = 10.0 ** (-(beside.twist_db if beside.twist_db is not None else disturbances.pair_twist_db).value / 20.0)
        pair = math.log((near + spacing) / near) - math.log((far + spacing) / far)
        residual_a = beside.residual_a.value if beside.residual_a is not None else 0.0
        per_m = 2.0 * MU0_OVER_4PI * (beside.current_a.value * pair * twist + residual_a * math.log(far / near))
        if not per_m:
            return
        shape = preset(disturbances, beside.spectrum or disturbances.mains_spectrum)
        weber = per_m * beside.length_m.value
        lines = self._induce([(branch, weber / cable.sections) for cable in cables for branch in cable.branches], shape)
        self.causes.append(Cause("mains_pair", item.id, 1.0, 1.0, lines))

    def _electric(self, cables: list[CableBranches]) -> None:
        """Live mains reaches the outermost conductors, screens or bare cores, and cores through a screen's holes."""
        likely, worst = sizes(self.disturbances.electric_f_per_m)
        if not likely or not cables:
            return
        branch = self.elements.branch(EARTH_POINT, LIVE, 0.0)
        unequal: dict[tuple[str, int], tuple[Spread, list[tuple[int, float]]]] = {}
        for cable in cables:
            mismatch = cable.cable.field_mismatch
            stated, signs = stated_part(mismatch), pair_signs(cable.cable)
            kinds = [conductor.kind for conductor in cable.cable.conductors]
            screens, cores = kinds.count("screen"), kinds.count("core")
            on_screens = cable.cable.screen_coverage.value if screens else 0.0
            for kind, ends, sign in zip(kinds, cable.ends, signs, strict=True):
                share = on_screens / screens if kind == "screen" else (1.0 - on_screens) / cores
                farad = 0.5 * likely * share * cable.length_m
                for end in ends:
                    index = self.elements.capacitor(LIVE, end, farad * (1.0 + 0.5 * sign * stated))
                    if index is not None and sign and isinstance(mismatch, Spread):
                        _, farads = unequal.setdefault((cable.item.id, cable.index), (mismatch, []))
                        farads.append((index, 0.5 * sign * farad))
        self.tolerances += [
            Tolerance(
                "field_mismatch", cable_owner(*key), size.likely, size.worst, size.source, capacitances=tuple(farads)
            )
            for key, (size, farads) in unequal.items()
        ]
        volts = self.earthings.mains_volts()
        lines = self.earthings.mains_lines(branch, volts)
        self.causes.append(Cause("electric", "venue", 1.0, worst / likely, lines))
