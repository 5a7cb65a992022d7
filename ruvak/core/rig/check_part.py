"""That a part's inside hangs together: every contact, inner node, connector, setting and input it names is there."""

from collections import Counter
from collections.abc import Iterable, Iterator

from ruvak.core.errors import Fault
from ruvak.core.rig.connectors import SHAPES
from ruvak.core.rig.element import ends_of_element
from ruvak.core.rig.part import Part, Setting, SettingValue
from ruvak.core.rig.points import CHASSIS, SIGNAL_REFERENCE, Contact, InnerNode
from ruvak.core.rig.ports import NO_PIN1, Input, Output

Named = Iterator[tuple[str, Contact | InnerNode | None]]
"""Fields and the points they name."""
MOST_LISTED = 12


def part_faults(part: Part) -> Iterator[Fault]:
    """Faults within one part; `where` is a path inside it."""
    yield from _duplicates(part)
    yield from _unknown_points(part)
    yield from _unknown_connectors(part)
    settings = {setting.id: setting for setting in part.settings}
    for i, setting in enumerate(part.settings):
        yield from _setting(setting, f"settings[{i}]")
    for i, output in enumerate(part.outputs):
        yield from _output(output, settings, f"outputs[{i}]")
    for i, receiver in enumerate(part.inputs):
        yield from _input(receiver, settings, f"inputs[{i}]")
    yield from _earthings(part, settings)
    inputs = {receiver.id for receiver in part.inputs}
    for i, mix in enumerate(part.mixes):
        for name in (*mix.left, *mix.right):
            if name not in inputs:
                yield Fault("unknown_input", f"mixes[{i}]", f"there is no input '{name}'.")


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


def list_names(names: Iterable[object]) -> str:
    """The first few names, for a sentence that says what there is."""
    return ", ".join(sorted(map(str, names))[:MOST_LISTED]) or "none"


def _duplicates(part: Part) -> Iterator[Fault]:
    groups: dict[str, Iterable[str]] = {
        "connectors": (connector.id for connector in part.connectors),
        "settings": (setting.id for setting in part.settings),
        "outputs": (output.id for output in part.outputs),
        "inputs": (receiver.id for receiver in part.inputs),
        "mixes": (mix.id for mix in part.mixes),
    }
    groups |= {f"outputs[{i}].channels": (channel.id for channel in out.channels) for i, out in enumerate(part.outputs)}
    for where, ids in groups.items():
        for name, count in Counter(ids).items():
            if count > 1:
                yield Fault("duplicate_id", where, f"the id '{name}' stands {count} times; give each its own.")


def _unknown_points(part: Part) -> Iterator[Fault]:
    """A contact must be on a connector. An inner node is declared by the metal and components that lead to it; what
    sends and listens, and what a plug switches, must name a declared one, since nothing would reach it otherwise."""
    contacts = {
        Contact(connector.id, name) for connector in part.connectors for name in SHAPES[connector.form].contacts
    }
    declared = {SIGNAL_REFERENCE, CHASSIS}
    declared |= {point for _, point in _metal(part) if isinstance(point, InnerNode)}
    for where, point in (*_metal(part), *_ports(part)):
        if isinstance(point, Contact) and point not in contacts:
            yield Fault("unknown_contact", where, f"there is no contact '{point}'; it has {list_names(contacts)}.")
    for where, point in _ports(part):
        if isinstance(point, InnerNode) and point not in declared:
            sentence = f"no wire, cable or component leads to an inner node '{point}'; it has {list_names(declared)}."
            yield Fault("unknown_node", where, sentence)


def _metal(part: Part) -> Named:
    """Points that wires, switches, cables and components name."""
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


def _ports(part: Part) -> Named:
    """Points that outputs and inputs name."""
    for i, output in enumerate(part.outputs):
        for field in ("common", "screen"):
            yield f"outputs[{i}].{field}", getattr(output, field, None)
        for j, channel in enumerate(output.channels):
            for field in ("hot", "cold", "inner"):
                yield f"outputs[{i}].channels[{j}].{field}", getattr(channel, field, None)
    for i, receiver in enumerate(part.inputs):
        for field in ("hot", "cold", "screen", "common"):
            yield f"inputs[{i}].{field}", getattr(receiver, field, None)


def _unknown_connectors(part: Part) -> Iterator[Fault]:
    connectors = {connector.id for connector in part.connectors}
    named = [(f"outputs[{i}].connectors", output.connectors) for i, output in enumerate(part.outputs)]
    named += [(f"inputs[{i}].connectors", receiver.connectors) for i, receiver in enumerate(part.inputs)]
    named += [(f"switches[{i}].connector", (switch.connector,)) for i, switch in enumerate(part.switches)]
    for field, names in named:
        for name in names:
            if name not in connectors:
                yield Fault("unknown_connector", field, f"there is no connector '{name}'.")
    ports = {f"outputs[{i}]": output.connectors for i, output in enumerate(part.outputs)}
    ports |= {f"inputs[{i}]": receiver.connectors for i, receiver in enumerate(part.inputs)}
    for where, point in _ports(part):
        own = ports[where[: where.index("]") + 1]]
        if isinstance(point, Contact) and point.connector not in own and connectors.issuperset(own):
            sentence = f"'{point}' is not on its own connectors ({list_names(own)}); list {point.connector} among them."
            yield Fault("foreign_contact", where, sentence)


def _setting(setting: Setting, where: str) -> Iterator[Fault]:
    default = setting.default_db if setting.type == "level" else setting.default
    field = "default_db" if setting.type == "level" else "default"
    if sentence := setting_fault(setting, default):
        yield Fault("bad_setting", f"{where}.{field}", sentence)


def _output(output: Output, settings: dict[str, Setting], where: str) -> Iterator[Fault]:
    for field, kind in (("level_setting", "level"), ("mono_setting", "switch")):
        name = getattr(output, field)
        if name is not None and (name not in settings or settings[name].type != kind):
            yield Fault("unknown_setting", f"{where}.{field}", f"'{name}' is not a {kind} setting.")
    if output.type != "balanced":
        return
    if output.screen is None and output.pin1_ohm != NO_PIN1:
        yield Fault("pin1", f"{where}.screen", "pin1_ohm is that of a screen contact; name it in screen.")
    if (output.topology == "cross-coupled") != (output.common_ohm is not None):
        sentence = "common_ohm ties a cross-coupled output's midpoint to g; give it there, and nowhere else."
        yield Fault("common_ohm", f"{where}.common_ohm", sentence)


def _input(receiver: Input, settings: dict[str, Setting], where: str) -> Iterator[Fault]:
    name = receiver.phantom.setting if receiver.phantom is not None else None
    if name is not None and (name not in settings or settings[name].type != "switch"):
        yield Fault("unknown_setting", f"{where}.phantom.setting", f"'{name}' is not a switch.")
    setting = settings.get(receiver.mode_setting or "")
    if receiver.mode_setting is None:
        if len(receiver.modes) != 1:
            yield Fault("unknown_setting", f"{where}.modes", "several modes want a mode_setting to choose.")
    elif setting is None or setting.type != "choice":
        yield Fault("unknown_setting", f"{where}.mode_setting", f"'{receiver.mode_setting}' is not a choice.")
    elif Counter(mode.when for mode in receiver.modes) != Counter(setting.options):
        yield Fault("modes", f"{where}.modes", f"wants one mode for each of {', '.join(setting.options)}.")


def _earthings(part: Part, settings: dict[str, Setting]) -> Iterator[Fault]:
    supply = settings.get(part.earthing_setting or "")
    if part.earthing_setting is not None and (supply is None or supply.type != "choice"):
        yield Fault("unknown_setting", "earthing_setting", f"'{part.earthing_setting}' is not a choice.")
    elif set(part.earthings) != set(supply.options if supply is not None and supply.type == "choice" else ()):
        yield Fault("earthings", "earthings", "wants one earthing for each position of earthing_setting.")
