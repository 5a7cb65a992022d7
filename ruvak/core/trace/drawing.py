"""A run as it is drawn: pieces in columns, connectors in lanes, every contact, and the links between them."""

from typing import Literal

from ruvak.core.rig.connectors import Form
from ruvak.core.rig.part import Connector, Element, Part
from ruvak.core.rig.rig import KitItem, Rig, Run
from ruvak.core.rig.values import Record
from ruvak.core.trace.trace import Trace, contacts_of, element_points
from ruvak.core.units import engineering


class DrawnConnector(Record):
    """A connector of a piece. `lane` is its row, 0 at the top; `contacts` are point ids in drawing order."""

    end: str
    label: str
    form: Form
    lane: int
    contacts: tuple[str, ...]


class DrawnPiece(Record):
    """Gear at an end, or a leg. `column` counts joins from the source."""

    owner: str
    kind: Literal["gear", "lead", "adapter", "box"]
    name: str
    length_m: float | None
    column: int
    ins: tuple[DrawnConnector, ...]
    outs: tuple[DrawnConnector, ...]


class DrawnLink(Record):
    """Metal between two points. Inner nodes of a part may stand at either end."""

    kind: Literal["wire", "core", "screen", "mate"]
    a: str
    b: str
    owner: str


class DrawnElement(Record):
    """A component that interrupts the metal: its points in the order its type names them, its value in words."""

    type: Literal["resistor", "capacitor", "transformer"]
    owner: str
    points: tuple[str, ...]
    label: str


class DrawnConductor(Record):
    """All points of this run on one piece of metal, and what it is to source and destination."""

    id: str
    points: tuple[str, ...]
    carries: tuple[str, ...]
    """Of the source: channel names, and "return"."""
    arrives: tuple[str, ...]
    """At the destination: "hot", "cold", "screen"."""


class RunDrawing(Record):
    """Everything the strip needs; nothing about position in pixels."""

    pieces: tuple[DrawnPiece, ...]
    links: tuple[DrawnLink, ...]
    elements: tuple[DrawnElement, ...]
    conductors: tuple[DrawnConductor, ...]


def draw(rig: Rig, traced: Trace, run: Run) -> RunDrawing:
    """The drawing of one run of a traced rig."""
    pieces = _pieces(rig, run)
    shown = {contact for piece in pieces for drawn in (*piece.ins, *piece.outs) for contact in drawn.contacts}
    legs = set(run.legs)
    links = tuple(
        DrawnLink(kind=link.kind, a=link.a, b=link.b, owner=link.owner)
        for link in traced.links
        if link.owner in legs or link.owner == run.id or (link.a in shown and link.b in shown)
    )
    elements = tuple(
        DrawnElement(
            type=element.type,
            owner=leg,
            points=tuple(f"{leg}.{p}" for p in element_points(element)),
            label=_label(element),
        )
        for leg in run.legs
        for element in rig.part_of(leg).elements
    )
    points = shown | {point for link in links for point in (link.a, link.b)}
    points |= {point for element in elements for point in element.points}
    return RunDrawing(
        pieces=pieces, links=links, elements=elements, conductors=_conductors(rig, traced, pieces, points)
    )


def ends_of(rig: Rig, run: Run, side: Literal["in", "out"]) -> tuple[tuple[str, Connector], ...]:
    """(end, connector) of the gear sockets a run leaves from ("out") or arrives at ("in"), in order of joins."""
    found: dict[str, Connector] = {}
    for join in run.joins:
        for end in (join.a, join.b):
            owner, name = end.split(".")
            part = rig.part_of(owner)
            connector = next(one for one in part.connectors if one.id == name)
            if part.kind == "gear" and connector.side == side:
                found[end] = connector
    return tuple(found.items())


def _label(element: Element) -> str:
    match element.type:
        case "resistor":
            return engineering(element.ohm.value, "\N{GREEK CAPITAL LETTER OMEGA}")
        case "capacitor":
            return engineering(element.farad.value, "F")
        case "transformer":
            return f"{element.turns_ratio.value:g}:1"


def _pieces(rig: Rig, run: Run) -> tuple[DrawnPiece, ...]:
    partner = {join.a: join.b for join in run.joins} | {join.b: join.a for join in run.joins}
    lanes: dict[str, int] = {}
    columns: dict[str, int] = {}
    entries: dict[str, list[str]] = {}
    order: list[str] = []
    queue = [(end, 0) for end, _ in ends_of(rig, run, "out")]
    for end, _ in queue:
        owner = end.split(".")[0]
        lanes[end] = len(lanes)
        columns[owner] = 0
        if owner not in order:
            order.append(owner)
    lane_count = max(1, len(lanes))
    while queue:
        end, column = queue.pop(0)
        other = partner.get(end)
        if other is None:
            continue
        owner = other.split(".")[0]
        lanes[other] = lanes[end]
        entries.setdefault(owner, []).append(other)
        columns[owner] = max(columns.get(owner, 0), column + 1)
        if owner in order:
            continue
        order.append(owner)
        if rig.part_of(owner).kind == "gear":
            continue
        for index, connector in enumerate(_far_side(rig.part_of(owner), other)):
            far = f"{owner}.{connector.id}"
            lanes[far] = lanes[other] if index == 0 else lane_count
            lane_count += index > 0
            queue.append((far, columns[owner]))
    last = max(columns.values(), default=0)
    pieces = []
    for owner in order:
        part = rig.part_of(owner)
        is_end = part.kind == "gear" and owner in entries
        ins = entries.get(owner, [])
        outs = [end for end in lanes if end.split(".")[0] == owner and end not in ins]
        pieces.append(_piece(rig, owner, last if is_end else columns[owner], ins, outs, lanes))
    return tuple(pieces)


def _piece(rig: Rig, owner: str, column: int, ins: list[str], outs: list[str], lanes: dict[str, int]) -> DrawnPiece:
    thing, part = rig.owners_by_id[owner], rig.part_of(owner)
    by_id = {connector.id: connector for connector in part.connectors}

    def drawn(end: str) -> DrawnConnector:
        connector = by_id[end.split(".")[1]]
        contacts = tuple(f"{end}.{contact}" for contact in contacts_of(connector))
        return DrawnConnector(end=end, label=connector.label, form=connector.form, lane=lanes[end], contacts=contacts)

    return DrawnPiece(
        owner=owner,
        kind=part.kind,
        name=thing.tag if isinstance(thing, KitItem) else thing.name,
        length_m=thing.length_m if isinstance(thing, KitItem) else None,
        column=column,
        ins=tuple(drawn(end) for end in ins),
        outs=tuple(drawn(end) for end in outs),
    )


def _far_side(part: Part, entered: str) -> tuple[Connector, ...]:
    """Where signal goes on: the other side from the connector that was entered (leads also work backwards)."""
    name = entered.split(".")[1]
    side = next(connector.side for connector in part.connectors if connector.id == name)
    return tuple(connector for connector in part.connectors if connector.side != side)


def _conductors(
    rig: Rig, traced: Trace, pieces: tuple[DrawnPiece, ...], points: set[str]
) -> tuple[DrawnConductor, ...]:
    carries: dict[str, dict[str, None]] = {}
    arrives: dict[str, dict[str, None]] = {}
    for piece in pieces:
        if piece.kind != "gear":
            continue
        part = rig.part_of(piece.owner)
        ends = {drawn.end for drawn in (*piece.ins, *piece.outs)}
        for output in part.outputs:
            if ends & {f"{piece.owner}.{name}" for name in output.connectors}:
                for channel in output.channels:
                    carries.setdefault(f"{piece.owner}.{channel.hot}", {})[channel.id] = None
                carries.setdefault(f"{piece.owner}.{output.common}", {})["return"] = None
        for receiver in part.inputs:
            if ends & {f"{piece.owner}.{name}" for name in receiver.connectors}:
                for role in ("hot", "cold", "screen"):
                    arrives.setdefault(f"{piece.owner}.{getattr(receiver, role)}", {})[role] = None
    groups: dict[str, list[str]] = {}
    for point in sorted(points):
        groups.setdefault(traced.conductor_of[point], []).append(point)
    return tuple(
        DrawnConductor(
            id=name,
            points=tuple(group),
            carries=tuple(dict.fromkeys(word for point in group for word in carries.get(point, ()))),
            arrives=tuple(dict.fromkeys(word for point in group for word in arrives.get(point, ()))),
        )
        for name, group in sorted(groups.items())
    )
