"""A box that belongs to a computer brings it along: the computer's supply decides what the box will hum."""

from collections.abc import Iterable

from ruvak.core.parts.library import library
from ruvak.core.rig.earth import Bond
from ruvak.core.rig.part import Part, usb_plugs
from ruvak.core.rig.rig import Gear, Rig

COMPUTER = "laptop-headphone-trs35"
"""The part a computer is taken for where nobody says which."""


def hosts_for(rig: Rig, new: Iterable[Gear], typed: Gear | None = None) -> tuple[dict[str, Gear], tuple[Bond, ...]]:
    """The same new devices by id, with their computers, and the metal of the USB leads between them.

    `typed`: the computer that the line names. Else one that the rig or the line has already is taken where it is the
    only one.
    """
    gear = {device.id: device for device in new}
    parts = {**library(), **rig.parts_by_id}
    bonds: list[Bond] = []
    for device in list(gear.values()):
        if not usb_plugs(parts[device.part]) or device.host is not None:
            continue
        # Whose picture is captured is another computer than the one that captures it.
        captures = any(entry.signal == "video" for entry in parts[device.part].inputs)
        near = rig.gear if captures else (*rig.gear, *gear.values())
        computers = [other for other in near if is_computer(parts[other.part])]
        name = f"Computer of {device.name[:100]}"
        host = typed or (
            computers[0] if len(computers) == 1 else Gear(id=f"{device.id[:50]}-computer", name=name, part=COMPUTER)
        )
        if host.id not in rig.owners_by_id:
            gear[host.id] = host
        gear[device.id] = device.model_copy(update={"host": host.id})
        lead = f"USB lead of {device.name[:100]}"
        bonds.append(Bond(id=f"{device.id[:58]}-usb", name=lead, kind="usb", a=device.id, b=host.id))
    return gear, tuple(bonds)


def is_computer(part: Part) -> bool:
    """Whether it is a laptop, a desktop computer or the like."""
    earthings = (*part.earthings.values(), *([part.earthing] if part.earthing is not None else []))
    return any(earthing.computer for earthing in earthings)
