"""Which switches and controls of a device belong to the sockets that are in use."""

from collections.abc import Iterable, Iterator

from ruvak.core.rig.part import BalancedInput, Part, Setting, UnbalancedInput


def settings_in_use(part: Part, connectors: Iterable[str]) -> tuple[Setting, ...]:
    """Those of the outputs and inputs at these connectors, and those that belong to no socket at all."""
    used = set(connectors)
    here, elsewhere = set[str](), set[str]()
    for port in (*part.outputs, *part.inputs):
        names = (
            getattr(port, "level_setting", None),
            getattr(port, "mono_setting", None),
            getattr(port, "mode_setting", None),
            port.phantom.setting if isinstance(port, BalancedInput | UnbalancedInput) and port.phantom else None,
        )
        (here if used & set(port.connectors) else elsewhere).update(name for name in names if name)
    return tuple(one for one in part.settings if one.id in here or one.id not in elsewhere)


def phantom_settings(part: Part, connectors: Iterable[str]) -> Iterator[str]:
    """Switches of the phantom supplies at these connectors."""
    used = set(connectors)
    for one in part.inputs:
        if isinstance(one, BalancedInput) and one.phantom and one.phantom.setting and used & set(one.connectors):
            yield one.phantom.setting
