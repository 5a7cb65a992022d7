"""Residual-current devices: what everything plugged in behind one leaks adds up in it."""

from collections.abc import Iterator

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Grade, RigFinding
from ruvak.core.judge.rule import rig_finding
from ruvak.core.parts.library import disturbances_of
from ruvak.core.rig.earth import EarthPoint
from ruvak.core.rig.rig import Gear, Rig, leak_of
from ruvak.core.rig.values import sizes

PLANNED = 0.3
"""Share of the rated residual current that standing leakage may use up: IEC 60364-5-53, 531.3.2 (from memory)."""
MAY_OPEN = 0.5
"""From this share on the device may open: IEC 61008-1 (from memory). At the whole it must."""


def leakage(rig: Rig) -> Iterator[RigFinding]:
    """Per earth point with such a device; leakage is nearly all capacitive, so sizes are added."""
    behind, disturbances = _behind(rig), disturbances_of(rig)
    for point in rig.venue.earth:
        if point.residual_a is None or point.id not in behind:
            continue
        leaks = [sizes(leak) for gear in behind[point.id] if (leak := leak_of(rig, gear, disturbances))]
        likely_a, worst_a = (sum(leak[i] for leak in leaks) for i in (0, 1))
        rated_a = point.residual_a.value
        if likely_a <= PLANNED * rated_a:
            continue
        params: dict[str, float | str] = {
            "point": point.name,
            "rated_ma": f"{1000.0 * rated_a:g}",
            "likely_ma": 1000.0 * likely_a,
            "worst_ma": 1000.0 * worst_a,
            "planned_ma": f"{1000.0 * PLANNED * rated_a:g}",
            "open_ma": f"{1000.0 * MAY_OPEN * rated_a:g}",
            "who": "one device leaks" if len(leaks) == 1 else f"{len(leaks)} devices together leak",
        }
        code, grade = (
            (FindingCode.LEAK_TRIPS, Grade.FIX)
            if likely_a > MAY_OPEN * rated_a
            else (FindingCode.LEAK_HIGH, Grade.WATCH)
        )
        yield rig_finding(code, grade, rig, tuple(gear.id for gear in behind[point.id]), point.id, params)


def _behind(rig: Rig) -> dict[str, list[Gear]]:
    """Devices by each earth point that their mains passes."""
    points = {point.id: point for point in rig.venue.earth}
    result: dict[str, list[Gear]] = {}
    for gear in rig.gear:
        for point in _way(points, gear.outlet):
            result.setdefault(point.id, []).append(gear)
    return result


def _way(points: dict[str, EarthPoint], start: str | None) -> Iterator[EarthPoint]:
    here = points.get(start or "")
    while here is not None:
        yield here
        here = points.get(here.parent or "")
