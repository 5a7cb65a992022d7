"""A device whose protective earth is interrupted: whatever it sounds like, it is a hazard."""

from collections.abc import Iterator

from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import finding, gear_name
from ruvak.core.results.records import RunResult
from ruvak.core.rig.rig import Gear, Rig


def lost_earth(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Once a device at either end of the run."""
    for owner in dict.fromkeys([*(one.gear for one in result.sources), *(one.gear for one in result.inputs)]):
        gear = rig.owners_by_id[owner]
        if isinstance(gear, Gear) and gear.earth_open:
            yield finding("earth_lost", Grade.STOP, result, owner, "earth", {"source": gear_name(rig, owner)})
