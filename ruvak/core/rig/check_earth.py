"""That the earth's tree is a tree, that readings can be read, and that bonds and outlets are somewhere."""

from collections.abc import Iterator

from ruvak.core.errors import Fault
from ruvak.core.rig.connectors import SHAPES
from ruvak.core.rig.earth import EarthPoint
from ruvak.core.rig.points import CHASSIS, SIGNAL_REFERENCE, BondTarget, Contact
from ruvak.core.rig.rig import Gear, Rig

HIGHER = ("outlet", "strip", "circuit", "board", "building")


def earth_faults(rig: Rig) -> Iterator[Fault]:
    """Faults of venue.earth, of gear's outlets and of bonds."""
    points = {point.id: point for point in rig.venue.earth}
    for i, point in enumerate(rig.venue.earth):
        where = f"venue.earth[{i}]"
        if point.id in rig.owners_by_id:
            sentence = f"A device or lead is called '{point.id}' too; bonds could not tell the two apart."
            yield Fault("duplicate_id", f"{where}.id", sentence)
        if point.parent is not None and point.parent not in points:
            yield Fault("unknown_outlet", f"{where}.parent", f"There is no earth point '{point.parent}'.")
        elif point.parent is not None and HIGHER.index(points[point.parent].kind) < HIGHER.index(point.kind):
            sentence = f"A {point.kind} cannot hang on {points[point.parent].name}, a {points[point.parent].kind}."
            yield Fault("earth_order", f"{where}.parent", sentence)
        yield from _voltage(points, point, where)
    if loop := _loop(points):
        yield Fault("earth_loop", "venue.earth", f"{', '.join(loop)} hang on each other in a ring; a tree has no ring.")
    elif (deepest := _too_deep(points)) is not None:
        where = f"venue.earth[{list(points).index(deepest)}].parent"
        sentence = f"More than {MOST_DEEP} conductors lead one behind the other to {points[deepest].name}."
        yield Fault("earth_depth", where, f"{sentence} No installation has so many; check what it hangs on.")
    for i, gear in enumerate(rig.gear):
        if gear.outlet is not None and gear.outlet not in points:
            have = ", ".join(list(points)[:12]) or "none"
            sentence = f"There is no earth point '{gear.outlet}' in this venue; it has {have}."
            yield Fault("unknown_outlet", f"gear[{i}].outlet", sentence)
    for i, bond in enumerate(rig.bonds):
        for field in ("a", "b"):
            if not _stands(rig, points, getattr(bond, field)):
                sentence = f"'{getattr(bond, field)}' is no device, no point of one, and no earth point."
                yield Fault("unknown_owner", f"bonds[{i}].{field}", sentence)
        if bond.a == bond.b:
            yield Fault("bond_to_itself", f"bonds[{i}]", f"'{bond.name}' joins {bond.a} to itself.")


def _voltage(points: dict[str, EarthPoint], point: EarthPoint, where: str) -> Iterator[Fault]:
    voltage = point.voltage
    if voltage is None:
        return
    if bool(voltage.lines) == (voltage.reading_v is not None):
        sentence = f"{point.name}: give either lines, harmonic by harmonic, or reading_v, what the meter shows."
        yield Fault("earth_voltage", f"{where}.voltage", sentence)
    if len({line.h for line in voltage.lines}) != len(voltage.lines):
        yield Fault("earth_voltage", f"{where}.voltage.lines", f"{point.name}: a harmonic stands there twice.")
    if voltage.reading_v is not None and voltage.reading_v > MOST_EARTH_V:
        sentence = (
            f"{point.name}: {voltage.reading_v:g} V is no voltage between protective earths. On two-pin gear a meter "
            "shows tens of volts through its capacitor; at an outlet, stop and have the installation tested."
        )
        yield Fault("earth_voltage", f"{where}.voltage.reading_v", sentence)
    if voltage.against is not None and voltage.against not in points:
        yield Fault("unknown_outlet", f"{where}.voltage.against", f"There is no earth point '{voltage.against}'.")


MOST_DEEP = 40
"""Conductors one behind the other, from the main bar to an outlet; a large building has about seven."""
MOST_EARTH_V = 25.0
"""More than this between two protective earths is a fault of the installation, not a reading: common practice."""


def _loop(points: dict[str, EarthPoint]) -> list[str]:
    """Points that lead back to themselves, by parents or by what readings refer to."""

    done: set[str] = set()
    for start in points:
        path: list[str] = []
        stack: list[tuple[str, int]] = [(start, 0)]
        while stack:
            id_, step = stack.pop()
            path = path[: len(stack)]
            if id_ in path:
                return path[path.index(id_) :]
            if id_ in done and step == 0:
                continue
            following = _onward(points, points[id_])
            if step < len(following):
                stack.append((id_, step + 1))
                path.append(id_)
                stack.append((following[step], 0))
            else:
                done.add(id_)
    return []


def _stands(rig: Rig, points: dict[str, EarthPoint], end: BondTarget) -> bool:
    device = rig.owners_by_id.get(end.owner)
    if end.point is None:
        return isinstance(device, Gear) or end.owner in points
    if not isinstance(device, Gear):
        return False
    if not isinstance(end.point, Contact):
        return end.point in (SIGNAL_REFERENCE, CHASSIS)
    wanted, part = end.point, rig.part_of(end.owner)
    return any(
        connector.id == wanted.connector and wanted.contact in SHAPES[connector.form].contacts
        for connector in part.connectors
    )


def _too_deep(points: dict[str, EarthPoint]) -> str | None:
    """A point with more than MOST_DEEP others between it and the main bar, by parents or by what readings refer to;
    none leads back to itself."""
    left = dict(points)
    for _ in range(MOST_DEEP):
        # Those all of whose own are known; what remains in the end is deeper.
        known = [id_ for id_, point in left.items() if not any(other in left for other in _onward(points, point))]
        for id_ in known:
            del left[id_]
    return next(iter(left), None)


def _onward(points: dict[str, EarthPoint], point: EarthPoint) -> list[str]:
    against = point.voltage.against if point.voltage else None
    return [entry for entry in (point.parent, against) if entry in points]
