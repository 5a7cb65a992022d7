"""A run with something otherwise than planned, as rigs that can be solved: broken conductors, a lost earth, a failing
supply, a lead along a mains cable."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from ruvak.core.rig.earth import Beside
from ruvak.core.rig.rig import Gear, KitItem, Rig, Run, earthing_of, runs_on_battery

FAILING_SUPPLY_V = 0.1
"""Ripple on the outputs of a device whose supply fails, in volts: common practice, no source."""
ALONG_MAINS = Beside.model_validate({"length_m": 3.0, "distance_m": 0.02, "current_a": 6.0})
"""A lead taped to a mains cable for a few metres, with some lamps on it: common practice, no source."""


@dataclass(frozen=True)
class Departure:
    """A rig otherwise than planned in one place; `words`: in what, and what to do to find out."""

    words: str
    things: tuple[str, ...]
    rig: Rig


def departures(rig: Rig, run: Run) -> Iterator[Departure]:
    """Of the devices at a run's ends and of its leads. The rig is prepared."""
    for gear in (each for each in rig.gear if each.id in run.owners):
        yield from _of_device(rig, gear)
    for item in (each for each in rig.kit if each.id in run.pieces):
        if item.length_m is not None and item.beside is None and not item.installed:
            words = f"{item.tag} lies along a mains cable: lift it away, cross mains squarely"
            yield Departure(words, (item.id,), _with_kit(rig, item, {"beside": ALONG_MAINS}))


def _of_device(rig: Rig, gear: Gear) -> Iterator[Departure]:
    part = rig.part_of(gear.id)
    earthing = earthing_of(gear, part)
    if earthing is None or earthing.type == "floating" or runs_on_battery(gear, part):
        return
    if gear.supply_fault_v is None:
        words = f"the supply of {gear.name} fails: try another one, or a battery where it has one"
        yield Departure(words, (gear.id,), _with_gear(rig, gear, {"supply_fault_v": {"value": FAILING_SUPPLY_V}}))
    if earthing.type == "class-1" and not gear.earth_open:
        words = f"the mains earth does not reach {gear.name}: switch it off, and leave it off until that is mended"
        yield Departure(words, (gear.id,), _with_gear(rig, gear, {"earth_open": True}))


def _with_gear(rig: Rig, gear: Gear, changes: Mapping[str, object]) -> Rig:
    changed = Gear.model_validate({**gear.model_dump(), **changes})
    return rig.with_fields(gear=tuple(changed if each.id == gear.id else each for each in rig.gear))


def _with_kit(rig: Rig, item: KitItem, changes: Mapping[str, object]) -> Rig:
    changed = item.model_copy(update=changes)
    return rig.with_fields(kit=tuple(changed if each.id == item.id else each for each in rig.kit))
