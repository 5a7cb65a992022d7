"""What may be otherwise around a run than it is planned, as edits that can be solved: a lost earth, a failing supply, a
lead along a mains cable."""

from collections.abc import Iterator
from dataclasses import dataclass

from pydantic import JsonValue

from ruvak.core.rig.edits import Edit, SetField
from ruvak.core.rig.rig import Gear, Rig, Run, earthing_of, runs_on_battery

FAILING_SUPPLY_V = 0.1
"""Ripple on the outputs of a device whose supply fails, in volts: common practice, no source."""
ALONG_MAINS: JsonValue = {"length_m": 3.0, "distance_m": 0.02, "current_a": 6.0}
"""A lead taped to a mains cable for a few metres, with some lamps on it: common practice, no source."""


@dataclass(frozen=True)
class Departure:
    """One thing otherwise than planned; `words`: in what, and what to do to find out."""

    words: str
    thing: str
    edit: Edit


def departures(rig: Rig, run: Run) -> Iterator[Departure]:
    """Of the devices at a run's ends and of its leads. The rig is prepared."""
    for gear in (each for each in rig.gear if each.id in run.owners):
        yield from _of_device(rig, gear)
    for item in (each for each in rig.kit if each.id in run.pieces):
        if item.length_m is not None and item.beside is None and not item.installed:
            words = f"{item.tag} lies along a mains cable: lift it away, cross mains squarely"
            yield _departure(words, SetField(kind="kit", id=item.id, field="beside", value=ALONG_MAINS))


def _of_device(rig: Rig, gear: Gear) -> Iterator[Departure]:
    part = rig.part_of(gear.id)
    earthing = earthing_of(gear, part)
    if earthing is None or earthing.type == "floating" or runs_on_battery(gear, part):
        return
    if gear.supply_fault_v is None:
        words = f"the supply of {gear.name} fails: try another one, or a battery where it has one"
        yield _departure(words, SetField(kind="gear", id=gear.id, field="supply_fault_v", value=FAILING_SUPPLY_V))
    if earthing.type == "class-1" and not gear.earth_open:
        words = f"the mains earth does not reach {gear.name}: switch it off, and leave it off until that is mended"
        yield _departure(words, SetField(kind="gear", id=gear.id, field="earth_open", value=True))


def _departure(words: str, op: SetField) -> Departure:
    return Departure(words, op.id or "", Edit(label="otherwise", ops=(op,)))
