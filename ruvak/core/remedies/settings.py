"""Edits that only flip a switch or move a control of gear in the run."""

from collections.abc import Iterator

from ruvak.core.analyse import RunAnalysis
from ruvak.core.rig.edits import Edit, SetField, set_setting
from ruvak.core.rig.part import Part, Setting
from ruvak.core.rig.rig import Gear, Rig, SettingValue, setting_of

HEADROOM_AIM_DB = 6.0
"""Where a level remedy leaves the loudest passages: this far below clip. Common practice."""


def settings_edits(rig: Rig, result: RunAnalysis) -> Iterator[Edit]:
    """Each switch of the sockets in use in its other positions, each level control where the findings ask for it.

    Two outputs that make one stereo run have a control each: they are also moved together. Equal switches of devices of
    one kind that stand alike (the taps along a 100 V line) are moved together only.
    """
    # Mono gives up one of two sides: only where one is lost anyway.
    loses = any(finding.code.side_is_lost for finding in result.findings)
    levels: list[tuple[str, SetField]] = []
    alike: dict[tuple[str, str, SettingValue, SettingValue], list[Gear]] = {}
    for control in result.controls:
        gear = next(device for device in rig.gear if device.id == control.gear)
        part = rig.part_of(gear.id)
        for setting in (setting for setting in part.settings if setting.id == control.setting):
            if setting.id in {output.mono_setting for output in part.outputs} and not loses:
                continue
            now = setting_of(gear, part, setting.id)
            for value in _others(setting, now, result):
                if setting.id == part.earthing_setting and not _keeps_earth(part, now, value):
                    continue
                op = set_setting(gear.id, setting.id, value)
                label = f"{gear.name}: {setting.label}"
                if setting.type == "level":
                    levels.append((label, op))
                if setting.type == "choice":
                    alike.setdefault((gear.part, setting.id, now, value), []).append(gear)
                    continue
                yield Edit(label=f"{label} {setting_in_words(value)}"[:120], ops=(op,))
    if len(levels) > 1:
        label = " and ".join(f"{words} {setting_in_words(op.value)}" for words, op in levels if op.value is not None)
        yield Edit(label=label[:120], ops=tuple(op for _, op in levels))
    for (part_id, setting_id, _, value), devices in alike.items():
        words = next(setting.label for setting in rig.parts_by_id[part_id].settings if setting.id == setting_id)
        names = " and ".join(filter(None, (", ".join(device.name for device in devices[:-1]), devices[-1].name)))
        ops = tuple(set_setting(device.id, setting_id, value) for device in devices)
        yield Edit(label=f"{names}: {words} {setting_in_words(value)}"[:120], ops=ops)


def _keeps_earth(part: Part, now: SettingValue, value: SettingValue) -> bool:
    """Never from an earthed plug to one without; a battery leaves the mains altogether."""
    before, after = part.earthings.get(str(now)), part.earthings.get(str(value))
    return not (before is not None and before.type == "class-1" and after is not None and after.type == "class-2")


def setting_in_words(value: SettingValue) -> str:
    """A setting's value in words."""
    if isinstance(value, bool):
        return "on" if value else "off"
    if isinstance(value, str):
        return value
    return f"{value:.0f} dB".replace("-", "\N{MINUS SIGN}")


def _others(setting: Setting, now: SettingValue, result: RunAnalysis) -> Iterator[SettingValue]:
    match setting.type:
        case "switch":
            yield not now
        case "choice":
            at = setting.options.index(str(now))
            # The nearest position first: where several do, the smallest change is the one to make.
            near = sorted(setting.options, key=lambda option: abs(setting.options.index(option) - at))
            yield from (option for option in near if option != now)
        case "level":
            assert isinstance(now, float | int), "rig.check: a level setting holds a number"
            wanted = _wanted_db(result)
            value = min(setting.max_db, max(setting.min_db, round(now + wanted)))
            if wanted and value != now:
                yield float(value)


def _wanted_db(result: RunAnalysis) -> float:
    """How much the source should change, from the level findings; 0 where there are none."""
    for finding in result.findings:
        if finding.code.is_too_loud:
            return float(finding.params["headroom_db"]) - HEADROOM_AIM_DB
        if finding.code.is_too_quiet:
            return float(finding.params["short_db"])
    return 0.0
