"""Phantom, a supply and a run's number by a line: "phantom on choir 1", "laptop on battery", "vocal is number 11"."""

from ruvak.core.entry.alter_named import Change, Named
from ruvak.core.entry.cannot_change import CannotChange
from ruvak.core.entry.described import supply_of
from ruvak.core.entry.phantom import switch_phantom
from ruvak.core.rig.controls import phantom_settings
from ruvak.core.rig.edits import SetField, set_setting
from ruvak.core.rig.part import ChoiceSetting
from ruvak.core.rig.rig import Gear, Rig

MOST_NUMBER = 9999


def set_phantom(rig: Rig, named: Named, what: str, on: bool) -> Change:
    """At the sockets named, or where the runs named end."""
    goals = named.goals(rig)
    switched = [goal for goal in goals if tuple(phantom_settings(rig.part_of(goal.owner), (goal.connector,)))]
    if not switched:
        raise CannotChange(f"No phantom can be switched where “{what}” goes in.")
    ops = tuple(switch_phantom(rig, switched, on=on))
    if not ops:
        how = "on already" if on else "off already, or its switch is for other inputs as well"
        raise CannotChange(f"Phantom for “{what}” is {how}.")
    return f"Phantom for {what} is switched {'on' if on else 'off'}.", ops


def set_supply(rig: Rig, gear: Gear, words: str) -> Change | None:
    """What a device runs on; None where the words name no supply."""
    supply = supply_of(words.removeprefix("on ").removeprefix("a ").removeprefix("an "))
    if supply is None:
        return None
    part = rig.part_of(gear.id)
    setting = next((each for each in part.settings if each.id == part.earthing_setting), None)
    if not isinstance(setting, ChoiceSetting):
        raise CannotChange(f"{gear.name} has one way to be supplied: change the device for another.")
    position = next((option for option in setting.options if option == supply[0]), None)
    if position is None:
        raise CannotChange(f"{gear.name} may be on {' or '.join(setting.options)}.")
    if gear.settings.get(setting.id, setting.default) == position:
        raise CannotChange(f"{gear.name} is on {position} already.")
    return f"{gear.name} is on {position}.", (set_setting(gear.id, setting.id, position),)


def set_number(named: Named, what: str, number: int) -> Change:
    """Of one run."""
    if len(named.runs) != 1:
        raise CannotChange(f"“{what}” is not one run: name the run that gets the number.")
    if not 1 <= number <= MOST_NUMBER:
        raise CannotChange(f"A run's number is 1 to {MOST_NUMBER}.")
    run = named.runs[0]
    if run.number == number:
        raise CannotChange(f"{run.name} is number {number} already.")
    return f"{run.name} is number {number}.", (SetField(kind="runs", id=run.id, field="number", value=number),)
