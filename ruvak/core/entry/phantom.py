"""Phantom power that a line's microphones want, though nobody said so."""

from collections.abc import Iterable, Iterator

from ruvak.core.rig.controls import phantom_settings
from ruvak.core.rig.edits import SetField, set_setting
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import Gear, Rig, setting_of


def wants_phantom(rig: Rig, sources: Iterable[Endpoint]) -> bool:
    """Whether a microphone here cannot do without."""
    for source in sources:
        for output in rig.part_of(source.owner).outputs:
            if output.type == "balanced" and output.phantom is not None and source.connector in output.connectors:
                return True
    return False


def switch_phantom(rig: Rig, goals: Iterable[Endpoint], on: bool) -> Iterator[SetField]:
    """What switches phantom on at these sockets, or off where the switch is theirs alone."""
    for goal in goals:
        gear = rig.owners_by_id[goal.owner]
        if not isinstance(gear, Gear):
            continue
        part = rig.part_of(gear.id)
        everywhere = [name for connector in part.connectors for name in phantom_settings(part, (connector.id,))]
        for name in phantom_settings(part, (goal.connector,)):
            if (setting_of(gear, part, name) is True) != on and (on or everywhere.count(name) == 1):
                yield set_setting(gear.id, name, on)
