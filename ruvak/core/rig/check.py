"""What records alone cannot say: that every name in a rig points at something that is there, and fits.

Each check yields Faults that name the place and the mend; check() gathers all of them.
"""

from collections import Counter
from collections.abc import Iterable, Iterator

from ruvak.core.errors import Fault, RigFault
from ruvak.core.rig.check_earth import earth_faults
from ruvak.core.rig.connectors import SHAPES, fits, uncertain
from ruvak.core.rig.element import ends_of_element
from ruvak.core.rig.part import NO_PIN1, Part, Setting
from ruvak.core.rig.rig import Join, Rig, Run, SettingValue


def check(rig: Rig, sound: tuple[Part, ...] = ()) -> Rig:
    """The rig itself when sound; otherwise RigFault with everything found. `sound`: parts known to be."""
    faults = tuple(_duplicates(rig)) + tuple(_parts(rig, {id(part) for part in sound}))
    if not faults:
        faults = tuple(_owners(rig))
    if not faults:
        faults = tuple(_runs(rig)) + tuple(earth_faults(rig))
    if faults:
        raise RigFault(faults)
    return rig


def setting_fault(setting: Setting, value: SettingValue) -> str | None:
    """Why a setting cannot take a value, as a sentence, or None when it can."""
    if setting.type == "choice":
        if value not in setting.options:
            return f"{setting.label} is one of {', '.join(setting.options)}; {value!r} is none of them."
    elif setting.type == "level":
        if isinstance(value, bool | str) or not setting.min_db <= value <= setting.max_db:
            return f"{setting.label} goes from {setting.min_db:g} to {setting.max_db:g} dB; {value!r} is outside."
    elif not isinstance(value, bool):
        return f"{setting.label} is on or off: write true or false, not {value!r}."
    return None


def many_ways(part: Part) -> bool:
    """Whether several runs may share it: a multicore, a wall plate, a four-channel box has more than one way in."""
    return sum(connector.side == "in" for connector in part.connectors) > 1


def _duplicates(rig: Rig) -> Iterator[Fault]:
    groups: dict[str, Iterable[str]] = {
        "parts": (part.id for part in rig.parts),
        "gear and kit": [gear.id for gear in rig.gear] + [item.id for item in rig.kit],
        "runs": (run.id for run in rig.runs),
        "venue.earth": (point.id for point in rig.venue.earth),
        "bonds": (bond.id for bond in rig.bonds),
    }
    for where, ids in groups.items():
        for name, count in Counter(ids).items():
            if count > 1:
                yield Fault("duplicate_id", where, f"The id '{name}' stands {count} times; give each its own.")


def _parts(rig: Rig, sound: set[int]) -> Iterator[Fault]:
    for index, part in enumerate(rig.parts):
        if id(part) in sound:
            continue
        for fault in _inside(part):
            yield Fault(fault.code, f"parts[{index}].{fault.where}", f"In the part '{part.id}': {fault.sentence}")


def _points(part: Part) -> Iterator[tuple[str, str | None]]:
    for i, wire in enumerate(part.wires):
        yield from ((f"wires[{i}].a", wire.a), (f"wires[{i}].b", wire.b))
    for i, cable in enumerate(part.cables):
        for j, conductor in enumerate(cable.conductors):
            where = f"cables[{i}].conductors[{j}]"
            yield from ((f"{where}.a", conductor.a), (f"{where}.b", conductor.b))
    for i, element in enumerate(part.elements):
        for field, point in ends_of_element(element):
            yield f"elements[{i}].{field}", point
    for i, switch in enumerate(part.switches):
        yield from ((f"switches[{i}].a", switch.a), (f"switches[{i}].b", switch.b))
    for i, output in enumerate(part.outputs):
        for field in ("common", "screen"):
            yield f"outputs[{i}].{field}", getattr(output, field, None)
        for j, channel in enumerate(output.channels):
            for field in ("hot", "cold", "inner"):
                yield f"outputs[{i}].channels[{j}].{field}", getattr(channel, field, None)
    for i, receiver in enumerate(part.inputs):
        for field in ("hot", "cold", "screen", "common"):
            yield f"inputs[{i}].{field}", getattr(receiver, field, None)


def _inside(part: Part) -> Iterator[Fault]:
    contacts = {
        f"{connector.id}.{contact}" for connector in part.connectors for contact in SHAPES[connector.form].contacts
    }
    connectors = {connector.id for connector in part.connectors}
    for where, point in _points(part):
        if point is not None and "." in point and point not in contacts:
            have = ", ".join(sorted(contacts)[:12])
            yield Fault("unknown_contact", where, f"there is no contact '{point}'; it has {have}.")
    settings = {setting.id: setting for setting in part.settings}
    ports = [(f"outputs[{i}]", output.connectors) for i, output in enumerate(part.outputs)]
    ports += [(f"inputs[{i}]", receiver.connectors) for i, receiver in enumerate(part.inputs)]
    ports += [(f"switches[{i}]", (switch.connector,)) for i, switch in enumerate(part.switches)]
    for field, names in ports:
        for name in names:
            if name not in connectors:
                yield Fault("unknown_connector", f"{field}.connectors", f"there is no connector '{name}'.")
    for i, output in enumerate(part.outputs):
        for field, kind in (("level_setting", "level"), ("mono_setting", "switch")):
            name = getattr(output, field)
            if name is not None and (name not in settings or settings[name].type != kind):
                yield Fault("unknown_setting", f"outputs[{i}].{field}", f"'{name}' is not a {kind} setting.")
        if output.type == "balanced" and output.screen is None and output.pin1_ohm != NO_PIN1:
            sentence = "pin1_ohm is that of a screen contact; name it in screen."
            yield Fault("pin1", f"outputs[{i}].screen", sentence)
        if output.type == "balanced" and (output.topology == "cross-coupled") != (output.common_ohm is not None):
            sentence = "common_ohm ties a cross-coupled output's midpoint to g; give it there, and nowhere else."
            yield Fault("common_ohm", f"outputs[{i}].common_ohm", sentence)
    for i, receiver in enumerate(part.inputs):
        feed = receiver.phantom if receiver.type == "balanced" else None
        switch = settings.get(feed.setting) if feed is not None and feed.setting is not None else None
        if feed is not None and feed.setting is not None and (switch is None or switch.type != "switch"):
            yield Fault("unknown_setting", f"inputs[{i}].phantom.setting", f"'{feed.setting}' is not a switch.")
        setting = settings.get(receiver.mode_setting or "")
        if receiver.mode_setting is None:
            if len(receiver.modes) != 1:
                yield Fault("unknown_setting", f"inputs[{i}].modes", "several modes want a mode_setting to choose.")
        elif setting is None or setting.type != "choice":
            yield Fault("unknown_setting", f"inputs[{i}].mode_setting", f"'{receiver.mode_setting}' is not a choice.")
        elif {mode.when for mode in receiver.modes} != set(setting.options):
            yield Fault("modes", f"inputs[{i}].modes", f"wants one mode for each of {', '.join(setting.options)}.")
    supply = settings.get(part.earthing_setting or "")
    if part.earthing_setting is not None and (supply is None or supply.type != "choice"):
        yield Fault("unknown_setting", "earthing_setting", f"'{part.earthing_setting}' is not a choice.")
    elif set(part.earthings) != set(supply.options if supply is not None and supply.type == "choice" else ()):
        yield Fault("earthings", "earthings", "wants one earthing for each position of earthing_setting.")
    inputs = {receiver.id for receiver in part.inputs}
    for i, mix in enumerate(part.mixes):
        for name in (*mix.left, *mix.right):
            if name not in inputs:
                yield Fault("unknown_input", f"mixes[{i}]", f"there is no input '{name}'.")


def _owners(rig: Rig) -> Iterator[Fault]:
    for i, gear in enumerate(rig.gear):
        part = rig.parts_by_id.get(gear.part)
        if part is None or part.kind != "gear":
            yield Fault(
                "unknown_part", f"gear[{i}].part", f"There is no gear part '{gear.part}' here or in the library."
            )
            continue
        settings = {setting.id: setting for setting in part.settings}
        for name, value in gear.settings.items():
            where = f"gear[{i}].settings.{name}"
            if name not in settings:
                have = ", ".join(settings) or "none"
                yield Fault("unknown_setting", where, f"'{gear.name}' has no setting '{name}'; it has {have}.")
            elif sentence := setting_fault(settings[name], value):
                yield Fault("bad_setting", where, sentence)
        inputs = {one.id for one in part.inputs}
        for name in gear.faders_db:
            if name not in inputs:
                have = ", ".join(sorted(inputs)[:12]) or "none"
                sentence = f"'{gear.name}' has no input '{name}'; it has {have}."
                yield Fault("unknown_input", f"gear[{i}].faders_db", sentence)
    for i, item in enumerate(rig.kit):
        part = rig.parts_by_id.get(item.part)
        if part is None or part.kind == "gear":
            yield Fault(
                "unknown_part", f"kit[{i}].part", f"There is no lead or box '{item.part}' here or in the library."
            )
        elif bool(part.cables) != (item.length_m is not None):
            sentence = (
                "has cable in it and wants length_m." if part.cables else "has no cable in it; leave length_m out."
            )
            yield Fault("length", f"kit[{i}].length_m", f"'{item.tag}' {sentence}")


def _runs(rig: Rig) -> Iterator[Fault]:
    tags = {item.id: item.tag for item in rig.kit}
    leg_user: dict[str, str] = {}
    end_user: dict[str, str] = {}
    for i, run in enumerate(rig.runs):
        for j, leg in enumerate(run.legs):
            where = f"runs[{i}].legs[{j}]"
            if leg not in tags:
                yield Fault("unknown_leg", where, f"There is no kit item '{leg}'.")
            elif leg in run.legs[:j] or (leg in leg_user and not many_ways(rig.part_of(leg))):
                user = leg_user.get(leg, run.name)
                sentence = f"'{tags[leg]}' is already in the run '{user}'; one lead cannot be in two places."
                yield Fault("lead_used_twice", where, sentence)
            else:
                leg_user[leg] = run.name
        for j, join in enumerate(run.joins):
            yield from _join(rig, run, join, f"runs[{i}].joins[{j}]", end_user)


def _join(rig: Rig, run: Run, join: Join, where: str, end_user: dict[str, str]) -> Iterator[Fault]:
    forms = []
    for field in ("a", "b"):
        end = getattr(join, field)
        owner_id, connector_id = end.split(".")
        owner = rig.owners_by_id.get(owner_id)
        if owner is None or owner.part not in rig.parts_by_id:
            yield Fault("unknown_owner", f"{where}.{field}", f"There is no gear or kit item '{owner_id}'.")
            continue
        part = rig.parts_by_id[owner.part]
        connector = next((c for c in part.connectors if c.id == connector_id), None)
        if connector is None:
            have = ", ".join(c.id for c in part.connectors)
            yield Fault(
                "unknown_connector", f"{where}.{field}", f"'{owner_id}' has no '{connector_id}'; it has {have}."
            )
            continue
        if part.kind != "gear" and owner_id not in run.legs:
            yield Fault("not_a_leg", f"{where}.{field}", f"'{owner_id}' is not among this run's legs.")
        if end in end_user:
            sentence = f"Something is already plugged into '{end}' in the run '{end_user[end]}'."
            yield Fault("socket_taken", f"{where}.{field}", sentence)
        end_user[end] = run.name
        forms.append(connector.form)
    if len(forms) != 2:
        return
    if not fits(forms[0], forms[1]):
        words = (SHAPES[forms[0]].words, SHAPES[forms[1]].words)
        yield Fault("does_not_fit", where, f"{words[0]} does not go into {words[1]}; an adapter belongs between.")
    elif join.sleeve is not None and not uncertain(forms[0], forms[1]):
        sentence = "There is nothing uncertain about what these two join; leave sleeve out."
        yield Fault("sleeve", f"{where}.sleeve", sentence)
