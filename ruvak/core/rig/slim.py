"""A part reduced to the connectors in use: what the rest of a large desk has changes nothing, but takes time."""

from collections.abc import Iterable

from ruvak.core.rig.part import Part


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
