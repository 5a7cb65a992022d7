"""Which switches and controls of a device belong to the sockets that are in use."""

from collections.abc import Iterable, Iterator

from ruvak.core.rig.part import Part, Setting
from ruvak.core.rig.ports import BalancedInput


def settings_in_use(part: Part, connectors: Iterable[str]) -> tuple[Setting, ...]:
    """Those of the outputs and inputs at these connectors, and those that belong to no socket at all."""
    used = set(connectors)
    here, elsewhere = set[str](), set[str]()
    ports = [(output.connectors, (output.level_setting, output.mono_setting)) for output in part.outputs]
    ports += [
        (receiver.connectors, (receiver.mode_setting, receiver.phantom.setting if receiver.phantom else None))
        for receiver in part.inputs
    ]
    for names, settings in ports:
        (here if not used.isdisjoint(names) else elsewhere).update(name for name in settings if name)
    return tuple(setting for setting in part.settings if setting.id in here or setting.id not in elsewhere)


def phantom_settings(part: Part, connectors: Iterable[str]) -> Iterator[str]:
    """Switches of the phantom supplies at these connectors."""
    used = set(connectors)
    for receiver in part.inputs:
        if (
            isinstance(receiver, BalancedInput)
            and receiver.phantom
            and receiver.phantom.setting
            and used & set(receiver.connectors)
        ):
            yield receiver.phantom.setting
