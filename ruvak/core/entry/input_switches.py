"""Level switches of the inputs that a new run goes into: to the position made for what arrives."""

from collections.abc import Iterable, Iterator
from math import log10

from ruvak.core.pieces.cures import pad_loss_db
from ruvak.core.rig.edits import SetField, is_setting, set_setting
from ruvak.core.rig.part import ChoiceSetting, Part
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.ports import Output, family_of
from ruvak.core.rig.rig import Gear, Rig

PEAK_ABOVE_NOMINAL_DB = 20.0
"""How far full level lies above the usual one where a part does not say: common practice."""
APART_DB = 20.0
"""A switch whose positions are made for levels as far apart as this is one between microphone and line."""


def set_level_switches(
    rig: Rig, sources: Iterable[Endpoint], goals: Iterable[Endpoint], parts: Iterable[Part]
) -> Iterator[SetField]:
    """What sets the switches of these inputs to the position whose usual level is nearest to what the sources send less
    what the `parts` on the way take, where that is too little for the usual position. A switch that somebody has set
    stays as it is."""
    arriving_dbu = min(map(_nominal_dbu, _outputs_at(rig, sources)), default=None)
    if arriving_dbu is None:
        return
    arriving_dbu -= sum(_loss_db(part) for part in parts)
    for goal in goals:
        gear = rig.owners_by_id[goal.owner]
        if not isinstance(gear, Gear):
            continue
        part = rig.part_of(gear.id)
        for entry in part.inputs:
            setting = entry.mode_setting
            if goal.connector not in entry.connectors or setting is None or setting in gear.settings:
                continue
            modes = {mode.when: mode for mode in entry.modes if mode.when is not None}
            levels_dbu = {name: mode.nominal_dbu.value for name, mode in modes.items()}
            if family_of(entry.signal) != "sound" or max(levels_dbu.values()) - min(levels_dbu.values()) < APART_DB:
                continue
            switch = next(each for each in part.settings if each.id == setting)
            usual = modes.get(switch.default) if isinstance(switch, ChoiceSetting) else None
            if usual is None or arriving_dbu >= usual.nominal_dbu.value - usual.boost_db.value:
                # Its own control has enough for that.
                continue
            yield set_setting(gear.id, setting, min(levels_dbu, key=lambda name: abs(levels_dbu[name] - arriving_dbu)))


def _outputs_at(rig: Rig, sources: Iterable[Endpoint]) -> Iterator[Output]:
    for source in sources:
        yield from (output for output in rig.part_of(source.owner).outputs if source.connector in output.connectors)


def _nominal_dbu(output: Output) -> float:
    if output.nominal_dbu is not None:
        return output.nominal_dbu.value
    return output.peak_dbu.value - PEAK_ABOVE_NOMINAL_DB


def _loss_db(part: Part) -> float:
    """What a pad takes, or a transformer that steps down: roughly, without loads."""
    ratios = [element.turns_ratio.value for element in part.elements if element.type == "transformer"]
    return pad_loss_db(part) + 20.0 * log10(max(1.0, *ratios, 1.0))


def words_of_switches(rig: Rig, ops: Iterable[object]) -> tuple[str, ...]:
    """What the edits set, as it is said of the device: "Camera, Input 1 switch: mic"; switches for phantom left out."""
    result = []
    for op in ops:
        if not (isinstance(op, SetField) and is_setting(op) and isinstance(op.value, str)):
            continue
        gear = rig.owners_by_id[op.id or ""]
        if isinstance(gear, Gear):
            label = next(each.label for each in rig.part_of(gear.id).settings if each.id == op.key)
            result.append(f"{gear.name}, {label}: {op.value}")
    return tuple(result)
