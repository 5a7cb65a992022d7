"""A rig reduced to what is in use: unplugged gear and a desk's empty channels change nothing, but take time."""

from collections.abc import Hashable, Iterable

from networkx.utils import UnionFind

from ruvak.core.rig.element import ends_of_element
from ruvak.core.rig.part import Part, belongs_to_computer, usb_ends
from ruvak.core.rig.points import Contact, InnerNode
from ruvak.core.rig.rig import Rig, connectors_in_use


def prune(rig: Rig, keep: Iterable[str] = ()) -> Rig:
    """Only gear and kit that some run touches, each device with the sockets in use and what belongs to them.

    `keep`: gear that stays though nothing is plugged in. Ids of gear, kit, runs, connectors, outputs and inputs stay as
    they are; parts get names of their own, since two devices of a kind may use different sockets.
    """
    used: dict[str, set[str]] = {piece: set() for run in rig.runs for piece in run.pieces}
    used |= {entry: set() for entry in keep}
    for end in connectors_in_use(rig):
        used.setdefault(end.owner, set()).add(end.connector)
    for target in (target for bond in rig.bonds for target in (bond.a, bond.b)):
        # A projector that only a video lead joins to the rig still closes a loop.
        if target.owner in rig.owners_by_id:
            socket = (target.point.connector,) if isinstance(target.point, Contact) else ()
            used.setdefault(target.owner, set()).update(socket)
    gear = [device for device in rig.gear if device.id in used]
    for device in gear:
        part = rig.parts_by_id[device.part]
        if belongs_to_computer(part):
            # Whether it has one is still to be seen.
            used[device.id].update(usb_ends(part))
    small = {device.id: prune_part(rig.parts_by_id[device.part], used[device.id]) for device in gear}
    kit = []
    for item in (item for item in rig.kit if item.id in used):
        part = rig.parts_by_id[item.part]
        slim = prune_multicore(part, used[item.id])
        if slim is part:
            kit.append(item)
        else:
            small[item.id] = slim
            kit.append(item.model_copy(update={"part": f"of-{item.id}"[:64]}))
    needed = {item.part for item in kit}
    return rig.with_fields(
        gear=tuple(device.model_copy(update={"part": f"of-{device.id}"[:64]}) for device in gear),
        kit=tuple(kit),
        parts=(
            *(part for part in rig.parts if part.id in needed),
            *(part.model_copy(update={"id": f"of-{id_}"[:64]}) for id_, part in small.items()),
        ),
    )


def sub_rig(rig: Rig, *run_ids: str) -> Rig:
    """The rig with these runs and what belongs to them, nothing else: to compare wirings of them quickly."""
    return prune(rig.with_fields(runs=tuple(run for run in rig.runs if run.id in run_ids)))


def prune_multicore(part: Part, used: Iterable[str]) -> Part:
    """A lead of many separate cables without those that nothing in use is joined to; the part itself where none is."""
    if len(part.cables) < 2:
        return part
    joined: UnionFind[Hashable] = UnionFind(connector.id for connector in part.connectors)
    for wire in part.wires:
        joined.union(_place(wire.a), _place(wire.b))
    for element in part.elements:
        joined.union(*(_place(point) for _, point in ends_of_element(element)))
    for number, cable in enumerate(part.cables):
        ends = [point for conductor in cable.conductors for point in (conductor.a, conductor.b) if point is not None]
        joined.union(number, *(_place(point) for point in ends))
    here = {joined[name] for name in used}
    keep = {connector.id for connector in part.connectors if joined[connector.id] in here}
    if len(keep) == len(part.connectors):
        return part

    def stays(place: Hashable) -> bool:
        return joined[place] in here

    return part.model_copy(
        update={
            "connectors": tuple(connector for connector in part.connectors if connector.id in keep),
            "wires": tuple(wire for wire in part.wires if stays(_place(wire.a))),
            "cables": tuple(cable for number, cable in enumerate(part.cables) if stays(number)),
            "elements": tuple(element for element in part.elements if stays(_place(ends_of_element(element)[0][1]))),
        }
    )


def _place(point: Contact | InnerNode) -> Hashable:
    """A connector's id for all of its contacts, an inner node for itself."""
    return point.connector if isinstance(point, Contact) else point


def prune_part(part: Part, used: Iterable[str]) -> Part:
    """The part with these connectors, those that share an output or input with them, and nothing of the others."""
    keep = set(used)
    outputs = tuple(output for output in part.outputs if keep & set(output.connectors))
    inputs = tuple(receiver for receiver in part.inputs if keep & set(receiver.connectors))
    for port in (*outputs, *inputs):
        keep |= set(port.connectors)
    if len(keep) == len(part.connectors):
        return part
    gone = {connector.id for connector in part.connectors} - keep

    def stays(*points: Contact | InnerNode) -> bool:
        return not any(point.connector in gone for point in points if isinstance(point, Contact))

    ids = {receiver.id for receiver in inputs}
    mixes = [
        mix.model_copy(update={"left": kept(mix.left, ids), "right": kept(mix.right, ids)})
        for mix in part.mixes
        if ids & {*mix.left, *mix.right}
    ]
    return part.model_copy(
        update={
            "connectors": tuple(connector for connector in part.connectors if connector.id in keep),
            "wires": tuple(wire for wire in part.wires if stays(wire.a, wire.b)),
            "switches": tuple(
                switch for switch in part.switches if switch.connector in keep and stays(switch.a, switch.b)
            ),
            "outputs": outputs,
            "inputs": inputs,
            "mixes": tuple(mixes),
        }
    )


def kept(names: tuple[str, ...], ids: set[str]) -> tuple[str, ...]:
    """The names among these ids, in their order."""
    return tuple(name for name in names if name in ids)
