"""What leads catch on their way: the magnetic field in the loop beside them, a mains cable, the electric field."""

import math
from dataclasses import dataclass

from ruvak.core.circuit.circuit import Cause, CauseLine
from ruvak.core.circuit.earthing import Earthings
from ruvak.core.circuit.elements import EARTH_POINT, Collector
from ruvak.core.circuit.spectra import preset
from ruvak.core.circuit.tree import sizes
from ruvak.core.rig.earth import Beside, Disturbances
from ruvak.core.rig.part import Cable
from ruvak.core.rig.rig import KitItem, Rig

MU0_OVER_2PI = 2e-7
"""H/m: flux per metre around a wire, mu0 / 2 pi (CODATA 2018: 4 pi 1e-7 to 1e-9)."""
LIVE = "mains:live"


@dataclass(frozen=True)
class CableBranches:
    """One cable of a lead in the network: the branches of its conductors, the points at both their ends."""

    item: KitItem
    cable: Cable
    branches: tuple[int, ...]
    ends: tuple[tuple[str, str], ...]

    @property
    def screens(self) -> tuple[int, ...]:
        """Branches of screens that are joined at both ends."""
        pairs = zip(self.cable.conductors, self.branches, strict=True)
        return tuple(branch for one, branch in pairs if one.kind == "screen" and one.a and one.b)

    @property
    def length_m(self) -> float:
        """The lead's."""
        return self.item.length_m or 0.0


@dataclass
class Exposure:
    """Adds the emfs along every cable and the capacitances to live mains."""

    elements: Collector
    rig: Rig
    disturbances: Disturbances
    earthings: Earthings
    causes: list[Cause]

    def add(self, cables: list[CableBranches]) -> None:
        """All cables of the rig."""
        self._field(cables)
        for one in cables:
            if one.item.beside is not None:
                self._beside(one, one.item.beside)
        self._electric(cables)

    def _width_m(self, item: KitItem) -> float:
        return (item.loop_width_m or self.disturbances.loop_width_m).value

    def _field(self, cables: list[CableBranches]) -> None:
        """One field goes through every loop; along a lead stands j w B length width, in every conductor alike."""
        likely, worst = sizes(self.disturbances.field_t)
        areas = [(branch, one.length_m * self._width_m(one.item)) for one in cables for branch in one.branches]
        areas = [(branch, area) for branch, area in areas if area]
        if worst and areas:
            self.causes.append(Cause("field", "venue", likely, worst, self._induced(areas)))

    def _induced(self, flux: list[tuple[int, float]]) -> tuple[CauseLine, ...]:
        """Emfs from flux per unit of the cause, with the harmonics of mains currents, each times its order."""
        omega = 2.0 * math.pi * self.rig.venue.mains_hz
        return tuple(
            CauseLine(
                float(order * self.rig.venue.mains_hz),
                tuple((branch, 1j * omega * order * size * weber) for branch, weber in flux),
            )
            for order, size in preset(self.disturbances, self.disturbances.mains_spectrum)
        )

    def _beside(self, one: CableBranches, beside: Beside) -> None:
        """The pair's flux between the lead and the earth path behind it, and that of its residual current."""
        disturbances = self.disturbances
        near, far = beside.distance_m.value, beside.distance_m.value + self._width_m(one.item)
        spacing = (beside.spacing_m or disturbances.pair_spacing_m).value
        twist = 10.0 ** (-(beside.twist_db if beside.twist_db is not None else disturbances.pair_twist_db).value / 20.0)
        pair = math.log((near + spacing) / near) - math.log((far + spacing) / far)
        residual_a = beside.residual_a.value if beside.residual_a is not None else 0.0
        per_m = MU0_OVER_2PI * (beside.current_a.value * pair * twist + residual_a * math.log(far / near))
        if not per_m:
            return
        shape = preset(disturbances, beside.spectrum or disturbances.mains_spectrum)
        omega, mains_hz = 2.0 * math.pi * self.rig.venue.mains_hz, float(self.rig.venue.mains_hz)
        weber = per_m * beside.length_m.value
        lines = tuple(
            CauseLine(order * mains_hz, tuple((b, 1j * omega * order * size * weber) for b in one.branches))
            for order, size in shape
        )
        self.causes.append(Cause("mains_pair", one.item.id, 1.0, 1.0, lines))

    def _electric(self, cables: list[CableBranches]) -> None:
        """Live mains reaches the outermost conductors: screens, or bare cores."""
        likely, worst = sizes(self.disturbances.electric_f_per_m)
        if not likely or not cables:
            return
        branch = self.elements.branch(EARTH_POINT, LIVE, 0.0)
        for one in cables:
            outer = [i for i, conductor in enumerate(one.cable.conductors) if conductor.kind == "screen"]
            outer = outer or list(range(len(one.ends)))
            for i in outer:
                for end in one.ends[i]:
                    self.elements.capacitor(LIVE, end, 0.5 * likely * one.length_m / len(outer))
        volts = self.earthings.mains_volts()
        lines = self.earthings.mains_lines(branch, volts)
        self.causes.append(Cause("electric", "venue", 1.0, worst / likely, lines))
