"""What the figures rest on that nobody has said: gathered once, as the plain questions that would settle it."""

from typing import Literal

from ruvak.core.judge.rules.hosts import hostless
from ruvak.core.rig.rig import Gear, Rig, earthing_of
from ruvak.core.rig.values import Id, Record

AssumptionCode = Literal["host", "plug", "supply", "between"]


class Assumed(Record):
    """One question. `gear`: the devices it is about; empty where it is about the building."""

    code: AssumptionCode
    """Which question it is."""
    gear: tuple[Id, ...]
    """The devices it is about."""
    question: str
    """What to ask, in a sentence."""
    why: str
    """What depends on it."""


def list_assumptions(rig: Rig) -> tuple[Assumed, ...]:
    """In the order in which answers help most. The rig is in use: devices that no run touches matter to nothing."""
    result = []
    lonely = tuple(dict.fromkeys(device.id for run in rig.runs for device in hostless(rig, run)))
    if lonely:
        result.append(
            Assumed(
                code="host",
                gear=lonely,
                question="Which computer is it plugged into, and how is that powered?",
                why="Until somebody says, it floats; a computer on an earthed supply closes a loop through it.",
            )
        )
    unplugged = tuple(device.id for device in rig.gear if _is_earthed(rig, device) and device.outlet is None)
    if unplugged:
        result.append(
            Assumed(
                code="plug",
                gear=unplugged,
                question="Which strip or outlet is its mains plug in?",
                why="Until somebody says, each is taken to stand on a circuit of its own, and that is most of the hum.",
            )
        )
    unsaid = tuple(device.id for device in rig.gear if _supply_open(rig, device))
    if unsaid:
        result.append(
            Assumed(
                code="supply",
                gear=unsaid,
                question="Is it on battery, on a two-pin plug, or on an earthed one?",
                why="An earthed supply closes a loop, a two-pin one leaks a little current, a battery does neither.",
            )
        )
    here = {device.outlet for device in rig.gear if device.outlet is not None and _is_earthed(rig, device)}
    points = {point.id: point for point in rig.venue.earth}
    if len(here) > 1 and not all(points[id_].voltage is not None for id_ in here):
        result.append(
            Assumed(
                code="between",
                gear=(),
                question=f"What stands between the {len(here)} outlets in use?",
                why="It is taken from where their earths join. Moving plugs to one strip settles it; measuring is for "
                "people trained and allowed to do it.",
            )
        )
    return tuple(result)


def _is_earthed(rig: Rig, gear: Gear) -> bool:
    earthing = earthing_of(gear, rig.part_of(gear.id))
    return earthing is not None and earthing.type == "class-1"


def _supply_open(rig: Rig, gear: Gear) -> bool:
    setting = rig.part_of(gear.id).earthing_setting
    return setting is not None and setting not in gear.settings
