"""A device whose protective earth is interrupted: whatever it sounds like, it is a hazard."""

from collections.abc import Iterator

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Grade, RigFinding
from ruvak.core.judge.rule import rig_finding
from ruvak.core.rig.rig import Rig


def lost_earth(rig: Rig) -> Iterator[RigFinding]:
    """Once a device, plugged into a run or not."""
    for gear in rig.gear:
        if gear.earth_open:
            yield rig_finding(FindingCode.EARTH_LOST, Grade.STOP, rig, (gear.id,), gear.id, {"source": gear.name})
