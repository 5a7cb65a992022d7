"""A box that belongs to a computer brings it along: the computer's supply decides what the box will hum."""

from collections.abc import Iterable, Iterator, Mapping

from ruvak.core.entry.line_ends import End
from ruvak.core.entry.wanted import Wanted
from ruvak.core.parts.library import library
from ruvak.core.rig.earth import Bond
from ruvak.core.rig.edits import Op, RemoveThing, SetField
from ruvak.core.rig.part import Part, belongs_to_computer, is_computer, usb_ends
from ruvak.core.rig.rig import Gear, Rig, connectors_in_use

COMPUTER_OF = "Computer of "
"""How a computer's name begins that came along with a box."""
COMPUTER = "laptop-headphone-trs35"
"""The part a computer is taken for where nobody says which."""


def hosts_for(rig: Rig, new: Iterable[Gear], plugged: Mapping[str, str]) -> tuple[dict[str, Gear], tuple[Bond, ...]]:
    """The same new devices by id, with their computers, and the metal of the USB leads between them.

    `plugged`: the computer of a device that the line itself joins to one, both by id; that lead is a run and no bond.
    Else a computer that the rig or the line has already is taken where it is the only one.
    """
    gear = {device.id: device for device in new}
    parts = {**library(), **rig.parts_by_id}
    bonds: list[Bond] = []
    for device in list(gear.values()):
        if not belongs_to_computer(parts[device.part]) or device.host is not None:
            continue
        if device.id in plugged:
            gear[device.id] = device.model_copy(update={"host": plugged[device.id]})
            continue
        # Whose picture is captured is another computer than the one that captures it.
        captures = any(entry.signal == "video" for entry in parts[device.part].inputs)
        near = rig.gear if captures else (*rig.gear, *gear.values())
        computers = [other for other in near if is_computer(parts[other.part])]
        name = f"{COMPUTER_OF}{device.name[:100]}"
        host = computers[0] if len(computers) == 1 else Gear(id=_made_up_id(device), name=name, part=COMPUTER)
        if host.id not in rig.owners_by_id:
            gear[host.id] = host
        gear[device.id] = device.model_copy(update={"host": host.id})
        lead = f"USB lead of {device.name[:100]}"
        bonds.append(Bond(id=_bond_id(device), name=lead, kind="usb", a=device.id, b=host.id))
    return gear, tuple(bonds)


def plugged_by_usb(wanted: Wanted) -> dict[str, str]:
    """By device the computer that the line joins it to by USB, both by id; empty for every other line."""
    ends = (*wanted.sources, *wanted.goals)
    computers = [end for end in ends if is_computer(end.part) and _is_usb(end)]
    devices = [end for end in ends if end not in computers and _is_usb(end)]
    return {device.gear.id: computers[0].gear.id for device in devices} if len(computers) == 1 else {}


def may_go_by_usb(wanted: Wanted) -> bool:
    """Whether the line joins a computer and a device with a USB socket by other sockets than that."""
    near, far = (ends[0].part for ends in (wanted.sources, wanted.goals)) if wanted.goals else (None, None)
    return near is not None and far is not None and has_usb_between(near, far) and not plugged_by_usb(wanted)


def has_usb_between(one: Part, other: Part) -> bool:
    """Whether a USB lead joins the two: a computer and a device with a USB socket."""
    return is_computer(one) != is_computer(other) and any(map(usb_ends, (one, other)))


def is_made_up(computer: Gear) -> bool:
    """Whether it came along with a box, and nobody has said what it is called."""
    return computer.name.startswith(COMPUTER_OF)


def lead_in_place_of_bond(rig: Rig, plugged: Mapping[str, str], names: Mapping[str, str]) -> Iterator[Op]:
    """Of a device that is there already: from now on its USB lead is the run's, and its computer the run's.

    `names`: by id what the line calls the devices; a computer that came along with a box is called so from now on.
    """
    for gear in rig.gear:
        if gear.id in plugged.values() and names.get(gear.id, gear.name) != gear.name:
            yield SetField(kind="gear", id=gear.id, field="name", value=names[gear.id])
    for id_, host in plugged.items():
        device = rig.owners_by_id.get(id_)
        if isinstance(device, Gear):
            if any(bond.id == _bond_id(device) for bond in rig.bonds):
                yield RemoveThing(kind="bonds", id=_bond_id(device))
            if device.host != host:
                yield SetField(kind="gear", id=device.id, field="host", value=host)
                if device.host == _made_up_id(device) and _is_unused(rig, device.host):
                    yield RemoveThing(kind="gear", id=device.host)


def _is_unused(rig: Rig, computer: str) -> bool:
    """Whether nothing is plugged into it and it belongs to one device alone."""
    in_use = {end.owner for end in connectors_in_use(rig)}
    return computer not in in_use and sum(device.host == computer for device in rig.gear) == 1


def _made_up_id(device: Gear) -> str:
    return f"{device.id[:50]}-computer"


def _bond_id(device: Gear) -> str:
    return f"{device.id[:58]}-usb"


def _is_usb(end: End) -> bool:
    """Whether the line means its USB sockets."""
    own = {connector.id: connector for connector in end.part.connectors}
    sockets = [own[socket.connector] for choice in end.choices for socket in choice]
    return bool(sockets) and all(socket.form.startswith("usb") or socket.id in usb_ends(end.part) for socket in sockets)
