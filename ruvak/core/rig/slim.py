"""A rig reduced to what is in use: unplugged gear and a desk's empty channels change nothing, but take time."""

from collections.abc import Hashable, Iterable

from networkx.utils import UnionFind

from ruvak.core.rig.element import ends_of_element
from ruvak.core.rig.part import Part
from ruvak.core.rig.rig import Rig


def in_use(rig: Rig, keep: Iterable[str] = ()) -> Rig:
    """Only gear and kit that some run touches, each device with the sockets in use and what belongs to them.

    `keep`: gear that stays though nothing is plugged in. Ids of gear, kit, runs, connectors, outputs and inputs stay as
    they are; parts get names of their own, since two devices of a kind may use different sockets.
    """
    used: dict[str, set[str]] = {leg: set() for run in rig.runs for leg in run.legs}
    used |= {one: set() for one in keep}
    for end in (end for run in rig.runs for join in run.joins for end in (join.a, join.b)):
        used.setdefault(end.split(".")[0], set()).add(end.split(".")[1])
    for end in (end for bond in rig.bonds for end in (bond.a, bond.b)):
        # A projector that only a video lead joins to the rig still closes a loop.
        if end.split(".")[0] in rig.owners_by_id:
            used.setdefault(end.split(".")[0], set()).update(end.split(".")[1:2] if end.count(".") == 2 else ())
    gear = [one for one in rig.gear if one.id in used]
    small = {one.id: slimmed(rig.parts_by_id[one.part], used[one.id]) for one in gear}
    kit = []
    for item in (one for one in rig.kit if one.id in used):
        part = rig.parts_by_id[item.part]
        slim = slimmed_multicore(part, used[item.id])
        if slim is part:
            kit.append(item)
        else:
            small[item.id] = slim
            kit.append(item.model_copy(update={"part": f"of-{item.id}"[:64]}))
    needed = {item.part for item in kit}
    return rig.replaced(
        gear=tuple(one.model_copy(update={"part": f"of-{one.id}"[:64]}) for one in gear),
        kit=tuple(kit),
        parts=(
            *(part for part in rig.parts if part.id in needed),
            *(part.model_copy(update={"id": f"of-{id_}"[:64]}) for id_, part in small.items()),
        ),
    )


def slimmed_multicore(part: Part, used: Iterable[str]) -> Part:
    """A lead of many separate cables without those that nothing in use is joined to; the part itself where none is."""
    if len(part.cables) < 2:
        return part
    joined: UnionFind[Hashable] = UnionFind(one.id for one in part.connectors)
    links = [(wire.a, wire.b) for wire in part.wires]
    for element in part.elements:
        points = [point for _, point in ends_of_element(element)]
        links += [(points[0], point) for point in points[1:]]
    for number, cable in enumerate(part.cables):
        ends = [point for one in cable.conductors for point in (one.a, one.b) if point is not None]
        links += [(f"#{number}.", point) for point in ends]
    for a, b in links:
        joined.union(a.split(".")[0], b.split(".")[0])
    here = {joined[name] for name in used}
    keep = {one.id for one in part.connectors if joined[one.id] in here}
    if len(keep) == len(part.connectors):
        return part

    def stays(point: str) -> bool:
        return joined[point.split(".")[0]] in here

    return part.model_copy(
        update={
            "connectors": tuple(one for one in part.connectors if one.id in keep),
            "wires": tuple(wire for wire in part.wires if stays(wire.a)),
            "cables": tuple(cable for number, cable in enumerate(part.cables) if stays(f"#{number}.")),
            "elements": tuple(one for one in part.elements if stays(ends_of_element(one)[0][1])),
        }
    )


def slimmed(part: Part, used: Iterable[str]) -> Part:
    """The part with these connectors, those that share an output or input with them, and nothing of the others."""
    keep = set(used)
    outputs = tuple(one for one in part.outputs if keep & set(one.connectors))
    inputs = tuple(one for one in part.inputs if keep & set(one.connectors))
    for port in (*outputs, *inputs):
        keep |= set(port.connectors)
    if len(keep) == len(part.connectors):
        return part
    gone = {one.id for one in part.connectors} - keep

    def stays(*points: str) -> bool:
        return not any(point.split(".")[0] in gone for point in points if "." in point)

    ids = {one.id for one in inputs}
    mixes = [
        mix.model_copy(update={"left": kept(mix.left, ids), "right": kept(mix.right, ids)})
        for mix in part.mixes
        if ids & {*mix.left, *mix.right}
    ]
    return part.model_copy(
        update={
            "connectors": tuple(one for one in part.connectors if one.id in keep),
            "wires": tuple(wire for wire in part.wires if stays(wire.a, wire.b)),
            "switches": tuple(one for one in part.switches if one.connector in keep and stays(one.a, one.b)),
            "outputs": outputs,
            "inputs": inputs,
            "mixes": tuple(mixes),
        }
    )


def kept(names: tuple[str, ...], ids: set[str]) -> tuple[str, ...]:
    """The names among these ids, in their order."""
    return tuple(name for name in names if name in ids)
