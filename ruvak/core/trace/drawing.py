"""A run as it is drawn: pieces in columns, connectors in lanes, every contact, and the links between them."""

from collections.abc import Iterator
from itertools import pairwise
from typing import Literal

from ruvak.core.rig.connectors import Form
from ruvak.core.rig.element import Element
from ruvak.core.rig.points import ContactRef, End, Endpoint, NodeRef, PointRef
from ruvak.core.rig.ports import BalancedChannel
from ruvak.core.rig.rig import KitItem, Rig, Run, name_of
from ruvak.core.rig.values import Record
from ruvak.core.trace.layout import DrawnPlace, Layout
from ruvak.core.trace.trace import Link, Roles, Trace, connector_at, element_points, merge_groups, pairs_of
from ruvak.core.units import engineering


class DrawnConnector(Record):
    """A connector of a piece. `lane` is its row, 0 at the top; `contacts` are point ids in drawing order."""

    end: End
    """The connector, written owner.connector."""
    label: str
    """What is printed beside it."""
    form: Form
    """Its form."""
    lane: int
    """Its row, 0 at the top."""
    contacts: tuple[PointRef, ...]
    """Its contacts in drawing order."""


class DrawnPiece(Record):
    """Gear at an end, or a piece between. `column` counts joins from the source; `id` is unique."""

    id: str
    """Its name within the drawing."""
    owner: str
    """The device or piece."""
    kind: Literal["gear", "lead", "adapter", "box"]
    """What it is."""
    name: str
    """What it is called."""
    length_m: float | None
    """Length of a lead in metres; null where it has none."""
    installed: bool
    """Whether it is part of the venue."""
    column: int
    """Joins from the source."""
    ins: tuple[DrawnConnector, ...]
    """Connectors the run enters by."""
    outs: tuple[DrawnConnector, ...]
    """Connectors the run leaves by."""


class DrawnLink(Record):
    """Metal between two points. Inner nodes of a part may stand at either end."""

    kind: Literal["wire", "core", "screen", "mate"]
    """What joins them."""
    a: PointRef
    """One point."""
    b: PointRef
    """The other point."""
    owner: str
    """The device or piece it is in; of two mated contacts the run."""


class DrawnElement(Record):
    """A component that interrupts the metal: its points in the order its type names them, its value in words."""

    type: Literal["resistor", "capacitor", "inductor", "transformer", "buffer"]
    """What it is."""
    owner: str
    """The piece it is in."""
    points: tuple[PointRef, ...]
    """The points it lies between."""
    label: str
    """Its value in words."""


class DrawnConductor(Record):
    """All points of this run on one piece of its own metal, and what it is to source and destination."""

    id: str
    """Its name within the drawing."""
    points: tuple[PointRef, ...]
    """Every point on it."""
    carries: tuple[str, ...]
    """Of a source: channel names (a minus in front of a balanced output's cold), and "return"."""
    arrives: tuple[str, ...]
    """At a destination: "hot", "cold", "screen"."""


class DrawnInput(Record):
    """What listens at a destination's contacts; an unbalanced input has no cold."""

    gear: str
    """The device."""
    input: str
    """The input of its part."""
    hot: PointRef
    """Where its hot leg is."""
    cold: PointRef | None
    """Where its cold leg is; null where it is unbalanced."""


class RunDrawing(Record):
    """Everything the strip needs; nothing about position in pixels."""

    pieces: tuple[DrawnPiece, ...]
    """Devices at its ends and pieces between."""
    links: tuple[DrawnLink, ...]
    """Metal between contacts."""
    elements: tuple[DrawnElement, ...]
    """Components within pieces."""
    conductors: tuple[DrawnConductor, ...]
    """Points that are one piece of metal."""
    listening: tuple[DrawnInput, ...]
    """Inputs it ends at."""


def draw(rig: Rig, traced: Trace, run: Run) -> RunDrawing:
    """The drawing of one run of a traced rig."""
    layout = Layout(rig, traced, run)
    shown = layout.points
    pieces = tuple(_piece(rig, layout, place) for place in layout.places)
    own = [*(link for piece in run.pieces for link in traced.inside.get(piece, ())), *traced.mated.get(run.id, ())]
    links = [link for link in own if link.a in shown and link.b in shown]
    links += _within_sockets(rig, traced, pieces)
    elements = tuple(
        DrawnElement(
            type=element.type,
            owner=piece,
            points=tuple(point.of(piece) for point in element_points(element)),
            label=_label(element),
        )
        for piece in run.pieces
        for element in rig.part_of(piece).elements
        if all(point.of(piece) in shown for point in element_points(element))
    )
    return RunDrawing(
        pieces=pieces,
        links=tuple(DrawnLink(kind=link.kind, a=link.a, b=link.b, owner=link.owner) for link in links),
        elements=elements,
        conductors=_conductors(rig, traced, pieces, merge_groups(sorted(shown, key=str), pairs_of(links))),
        listening=tuple(_listening(rig, traced, pieces)),
    )


def _within_sockets(rig: Rig, traced: Trace, pieces: tuple[DrawnPiece, ...]) -> list[Link]:
    """Contacts of one gear socket that the device itself joins: a balanced socket wired unbalanced shows it."""
    result = []
    for piece in pieces:
        own = _own_metal(traced, piece.owner) if piece.kind == "gear" else {}
        for drawn in (*piece.ins, *piece.outs) if own else ():
            groups: dict[str, list[ContactRef | NodeRef]] = {}
            for contact in drawn.contacts:
                if contact in own:
                    groups.setdefault(own[contact], []).append(contact)
            for group in groups.values():
                result += [Link("wire", a, b, piece.id) for a, b in pairwise(group)]
    return result


def _own_metal(traced: Trace, owner: str) -> dict[ContactRef | NodeRef, str]:
    known = traced.drawing_cache.own
    if owner not in known:
        wires = traced.inside.get(owner, [])
        known[owner] = merge_groups(
            sorted({point for pair in pairs_of(wires) for point in pair}, key=str), pairs_of(wires)
        )
    return known[owner]


def _listening(rig: Rig, traced: Trace, pieces: tuple[DrawnPiece, ...]) -> Iterator[DrawnInput]:
    """The inputs behind a destination's shown contacts."""
    for piece in pieces:
        at = {traced.node_of[contact]: contact for drawn in piece.ins for contact in drawn.contacts}
        for receiver in rig.part_of(piece.owner).inputs if piece.kind == "gear" else ():
            hot = at.get(traced.node_of[receiver.hot.of(piece.owner)])
            cold = at.get(traced.node_of[receiver.cold.of(piece.owner)]) if receiver.type == "balanced" else None
            if hot is not None:
                yield DrawnInput(gear=piece.owner, input=receiver.id, hot=hot, cold=cold)


def _label(element: Element) -> str:
    match element.type:
        case "resistor":
            return engineering(element.ohm.value, "\N{GREEK CAPITAL LETTER OMEGA}")
        case "capacitor":
            return engineering(element.farad.value, "F")
        case "inductor":
            return engineering(element.henry.value, "H")
        case "transformer":
            return f"{element.turns_ratio.value:g}:1"
        case "buffer":
            return f"{element.gain_db.value:+g} dB".replace("-", "\N{MINUS SIGN}")


def _piece(rig: Rig, layout: Layout, place: DrawnPlace) -> DrawnPiece:
    thing, part = rig.owners_by_id[place.owner], rig.part_of(place.owner)
    kit = thing if isinstance(thing, KitItem) else None

    def drawn(end: Endpoint) -> DrawnConnector:
        connector = connector_at(rig, end)
        return DrawnConnector(
            end=end,
            label=connector.label,
            form=connector.form,
            lane=layout.lanes[end],
            contacts=tuple(end.contact(contact) for contact in layout.contacts(end)),
        )

    return DrawnPiece(
        id=place.id,
        owner=place.owner,
        kind=part.kind,
        name=name_of(rig, place.owner),
        length_m=kit.length_m if kit else None,
        installed=kit is not None and kit.installed,
        column=place.column,
        ins=tuple(drawn(end) for end in place.ins),
        outs=tuple(drawn(end) for end in place.outs),
    )


def _conductors(
    rig: Rig, traced: Trace, pieces: tuple[DrawnPiece, ...], group_of: dict[ContactRef | NodeRef, str]
) -> tuple[DrawnConductor, ...]:
    carries: dict[ContactRef | NodeRef, dict[str, None]] = {}
    arrives: dict[ContactRef | NodeRef, dict[str, None]] = {}
    for piece in pieces:
        if piece.kind != "gear":
            continue
        for drawn in piece.outs:
            for contact in drawn.contacts:
                carries.setdefault(contact, {}).update(
                    _leaving(rig, traced, piece.owner).get(traced.node_of[contact], {})
                )
        for drawn in piece.ins:
            for contact in drawn.contacts:
                arrives.setdefault(contact, {}).update(
                    _entering(rig, traced, piece.owner).get(traced.node_of[contact], {})
                )
    groups: dict[str, list[ContactRef | NodeRef]] = {}
    for point in sorted(group_of, key=str):
        groups.setdefault(group_of[point], []).append(point)
    return tuple(
        DrawnConductor(
            id=name,
            points=tuple(group),
            carries=tuple(dict.fromkeys(word for point in group for word in carries.get(point, ()))),
            arrives=tuple(dict.fromkeys(word for point in group for word in arrives.get(point, ()))),
        )
        for name, group in sorted(groups.items())
    )


def _leaving(rig: Rig, traced: Trace, owner: str) -> Roles:
    """What the device sends out by each of its nodes, also by way of its own wires (a left/mono socket)."""
    known = traced.drawing_cache.leaving
    if owner not in known:
        result: Roles = {}
        for output in rig.part_of(owner).outputs:
            for channel in output.channels:
                result.setdefault(traced.node_of[channel.hot.of(owner)], {})[channel.id] = None
                if isinstance(channel, BalancedChannel):
                    result.setdefault(traced.node_of[channel.cold.of(owner)], {})[f"\N{MINUS SIGN}{channel.id}"] = None
            if output.type == "unbalanced":
                result.setdefault(traced.node_of[output.common.of(owner)], {})["return"] = None
        known[owner] = result
    return known[owner]


def _entering(rig: Rig, traced: Trace, owner: str) -> Roles:
    """What each of the device's nodes is to its inputs."""
    known = traced.drawing_cache.entering
    if owner not in known:
        result: Roles = {}
        for receiver in rig.part_of(owner).inputs:
            roles = {"hot": receiver.hot}
            roles |= (
                {"cold": receiver.cold, "screen": receiver.screen}
                if receiver.type == "balanced"
                else {"screen": receiver.common}
            )
            for role, point in roles.items():
                result.setdefault(traced.node_of[point.of(owner)], {})[role] = None
        known[owner] = result
    return known[owner]
