"""The protective earth as a tree of conductors, and the voltages along them.

What an outlet's earth stands at, signal leads out, is a linear form of independent unknowns: one emf for each
conductor nobody measured, and one reading for each measured outlet. A reading covers the whole way to its reference,
so what stands along the conductors between never moves a measured outlet against that reference.
"""

import math
from dataclasses import dataclass, field

from ruvak.core.circuit.circuit import Cause, CauseLine
from ruvak.core.circuit.elements import EARTH_POINT, Collector, EarthNode
from ruvak.core.circuit.spectra import Harmonic, harmonics_of, preset
from ruvak.core.rig.earth import Disturbances, EarthPoint, JoinKind, PointKind
from ruvak.core.rig.rig import Gear, Rig, earthing_of
from ruvak.core.rig.values import sizes

ORDER: tuple[PointKind, ...] = ("outlet", "strip", "circuit", "board", "building")
JOINS_AT: dict[PointKind, JoinKind] = {
    "outlet": "strip",
    "strip": "circuit",
    "circuit": "board",
    "board": "building",
    "building": "site",
}
"""Where a point without a parent joins the rest."""

Form = dict[str, float]
"""Coefficients of independent voltages: a conductor's id for its emf, "read:" and the id for a reading."""


@dataclass(frozen=True)
class _Stretch:
    """One conductor of the tree as it is computed."""

    id: str
    upper: str | None
    ohm: float
    henry: float
    emf: tuple[float, float]
    """Likely and worst, fundamental, where nobody measured."""


@dataclass
class EarthTree:
    """Adds the conductors that lead to the outlets in use; `branches`: by earth point."""

    elements: Collector
    rig: Rig
    disturbances: Disturbances
    branches: dict[str, int] = field(default_factory=dict)

    def __post_init__(self) -> None:
        self._points = {point.id: point for point in self.rig.venue.earth}
        self._stretches: dict[str, _Stretch] = {}
        for gear in self.rig.gear:
            self._outlet_of(gear)
        for bond in self.rig.bonds:
            for end in (bond.a, bond.b):
                if end.point is None and end.owner in self._points:
                    self._need(end.owner)
        for point in list(self._stretches):
            self._need_references(point)
        for stretch in self._stretches.values():
            upper = EarthNode(stretch.upper) if stretch.upper else EARTH_POINT
            self.branches[stretch.id] = self.elements.bundle(
                [upper], [EarthNode(stretch.id)], [stretch.ohm], [[stretch.henry]]
            )

    def outlet(self, gear: Gear) -> EarthNode:
        """The node of the outlet a device is at, made up where nobody said."""
        return EarthNode(self.outlet_id(gear.id))

    def outlet_id(self, gear_id: str) -> str:
        """The earth point a device is at, made up where nobody said."""
        gear = self.rig.owners_by_id[gear_id]
        return (gear.outlet if isinstance(gear, Gear) else None) or _somewhere(gear_id)

    def upper(self, id_: str) -> str | None:
        """The point a conductor comes from; None is the main bar."""
        return self._stretches[id_].upper

    def causes(self) -> list[Cause]:
        """The measured voltages as one cause, each other conductor's emf as one of its own."""
        own = {id_: _minus(self._potential(id_), self._upper_potential(id_)) for id_ in self._stretches}
        return [*self._measured_causes(own), *self._unmeasured_causes(own)]

    def _outlet_of(self, gear: Gear) -> None:
        if gear.outlet is not None:
            self._need(gear.outlet)
            return
        earthing = earthing_of(gear, self.rig.part_of(gear.id))
        if earthing is not None and earthing.type == "class-1":
            # Nobody said where: a conductor of its own from where it is assumed to join the others.
            joins = self.disturbances.unknown_outlet
            kinds = [kind for kind in ORDER if _below(kind, joins)]
            ohm = sum(self.disturbances.segments[kind].ohm.value for kind in kinds)
            length_m = sum(self.disturbances.segments[kind].length_m.value for kind in kinds)
            henry = length_m * self.disturbances.henry_per_m.value
            id_ = _somewhere(gear.id)
            self._stretches[id_] = _Stretch(id_, None, ohm, henry, self._emf_between(None, joins))

    def _need(self, id_: str) -> None:
        """A point and everything above it."""
        while id_ not in self._stretches:
            point = self._points[id_]
            self._stretches[id_] = self._stretch(point)
            if point.parent is None:
                return
            id_ = point.parent

    def _need_references(self, id_: str) -> None:
        point = self._points.get(id_)
        while point is not None and point.voltage is not None and point.voltage.against is not None:
            self._need(point.voltage.against)
            point = self._points[point.voltage.against]

    def _stretch(self, point: EarthPoint) -> _Stretch:
        default = self.disturbances.segments[point.kind]
        henry = default.length_m.value * self.disturbances.henry_per_m.value
        parent = self._points[point.parent] if point.parent else None
        joins: JoinKind = JOINS_AT[point.kind] if parent is None or parent.kind == "outlet" else parent.kind
        # Two outlets beneath a strip join at the strip, and so on up.
        beneath = None if point.kind == "outlet" else point.kind
        emf = sizes(point.emf_v) if point.emf_v is not None else self._emf_between(beneath, joins)
        return _Stretch(
            point.id,
            point.parent,
            (point.ohm or default.ohm).value,
            point.henry.value if point.henry is not None else henry,
            emf,
        )

    def _emf_between(self, beneath: JoinKind | None, joins: JoinKind) -> tuple[float, float]:
        """A conductor's share of what stands between two outlets that join there: half the power, half the size."""
        likely, worst = sizes(self.disturbances.between_v[joins])
        under_likely, under_worst = sizes(self.disturbances.between_v[beneath]) if beneath else (0.0, 0.0)
        return math.sqrt(max(0.0, likely**2 - under_likely**2) / 2.0), max(0.0, worst - under_worst) / 2.0

    def _potential(self, id_: str) -> Form:
        point = self._points.get(id_)
        if point is not None and point.voltage is not None:
            against = point.voltage.against
            return _plus(self._potential(against) if against else {}, {f"read:{id_}": 1.0})
        return _plus(self._upper_potential(id_), {id_: 1.0})

    def _upper_potential(self, id_: str) -> Form:
        upper = self._stretches[id_].upper
        return self._potential(upper) if upper else {}

    def _measured_causes(self, own: dict[str, Form]) -> list[Cause]:
        emfs: dict[int, dict[int, complex]] = {}
        for id_, form in own.items():
            for name, weight in form.items():
                if name.startswith("read:"):
                    voltage = self._points[name.removeprefix("read:")].voltage
                    assert voltage is not None, "only readings are named so"
                    for order, volt in harmonics_of(self.disturbances, voltage):
                        at = emfs.setdefault(order, {})
                        at[self.branches[id_]] = at.get(self.branches[id_], 0.0) + weight * volt
        lines = self._lines([(order, list(at.items())) for order, at in sorted(emfs.items())])
        return [Cause("earth_measured", "venue", 1.0, 1.0, lines)] if lines else []

    def _unmeasured_causes(self, own: dict[str, Form]) -> list[Cause]:
        shape: list[Harmonic] = preset(self.disturbances, self.disturbances.earth_spectrum)
        result = []
        for stretch in self._stretches.values():
            likely, worst = stretch.emf
            where = [(self.branches[id_], form[stretch.id]) for id_, form in own.items() if form.get(stretch.id)]
            if where and worst:
                lines = self._lines([(order, [(b, size * weight) for b, weight in where]) for order, size in shape])
                result.append(Cause("earth", stretch.id, likely, worst, lines))
        return result

    def _lines(self, emfs: list[tuple[int, list[tuple[int, complex]]]]) -> tuple[CauseLine, ...]:
        mains_hz = float(self.rig.venue.mains_hz)
        return tuple(CauseLine(order * mains_hz, tuple(where)) for order, where in emfs if where)


SOMEWHERE = "somewhere:"


def gear_somewhere(point: str) -> str | None:
    """The device an outlet was made up for; None for a real one."""
    return point.removeprefix(SOMEWHERE) if point.startswith(SOMEWHERE) else None


def _somewhere(gear_id: str) -> str:
    return f"{SOMEWHERE}{gear_id}"


def _below(kind: PointKind, joins: JoinKind) -> bool:
    return ORDER.index(kind) <= ORDER.index(next(entry for entry, at in JOINS_AT.items() if at == joins))


def _plus(form: Form, other: Form) -> Form:
    return {name: form.get(name, 0.0) + other.get(name, 0.0) for name in {**form, **other}}


def _minus(form: Form, other: Form) -> Form:
    both = _plus(form, {name: -weight for name, weight in other.items()})
    return {name: weight for name, weight in both.items() if weight}
