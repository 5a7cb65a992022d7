"""Which switches and controls of a device belong to the sockets that are in use."""

from collections.abc import Iterable, Iterator

from ruvak.core.rig.part import Part, Setting
from ruvak.core.rig.ports import BalancedInput


def settings_in_use(part: Part, connectors: Iterable[str]) -> tuple[Setting, ...]:
    """Those of the outputs and inputs at these connectors, and those that belong to no socket at all."""
    used = set(connectors)
    here, elsewhere = set[str](), set[str]()
    ports = [(one.connectors, (one.level_setting, one.mono_setting)) for one in part.outputs]
    ports += [(one.connectors, (one.mode_setting, one.phantom.setting if one.phantom else None)) for one in part.inputs]
    for names, settings in ports:
        (here if not used.isdisjoint(names) else elsewhere).update(name for name in settings if name)
    return tuple(one for one in part.settings if one.id in here or one.id not in elsewhere)


def phantom_settings(part: Part, connectors: Iterable[str]) -> Iterator[str]:
    """Switches of the phantom supplies at these connectors."""
    used = set(connectors)
    for one in part.inputs:
        if isinstance(one, BalancedInput) and one.phantom and one.phantom.setting and used & set(one.connectors):
            yield one.phantom.setting
