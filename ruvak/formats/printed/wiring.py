"""Wiring drawn contact to contact, for whoever solders: on paper and as SVG."""

from collections import Counter
from collections.abc import Iterator

from reportlab.graphics import renderPDF, renderSVG
from reportlab.graphics.shapes import Circle, Drawing, Group, Line, Path, Rect, String
from reportlab.lib.colors import black, white
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, KeepTogether, Spacer

from ruvak.core.sheets.wiring import Joint, Plug, WiringSheet
from ruvak.formats.printed.page import Drawn, Sheet, heading, table
from ruvak.formats.printed.type import NAME, STRONG, TEXT, TIMES, font_for, paragraph, printable, register

WIDTH, ROW, HEAD, GAP = 460.0, 26.0, 30.0, 18.0
"""In points: of the drawing, a contact, a plug's heading, between plugs."""
LEFT, RIGHT = 60.0, WIDTH - 60.0
DOT, RESISTOR = 4.5, 58.0
CONTACT_WORDS = {"T": "tip", "R": "ring", "R1": "ring 1", "R2": "ring 2", "S": "sleeve", "pin": "centre"}
OHM, KILO = "\N{GREEK CAPITAL LETTER OMEGA}", 1000.0
_Point = tuple[float, float]


def wiring_sheet_pages(sheets: tuple[WiringSheet, ...]) -> Sheet:
    """All of them, as many on a page as fit."""
    flowables: list[Flowable] = []
    for sheet in sheets:
        drawing = draw_wiring(sheet)

        def draw(canvas: Canvas, drawing: Drawing = drawing) -> None:
            renderPDF.draw(drawing, canvas, 0, 0)

        rows = [[paragraph(a), paragraph(b, STRONG)] for a, b in _facts(sheet)]
        flowables.append(
            KeepTogether(
                [
                    *heading(f"{sheet.count} {TIMES} {sheet.name}"),
                    paragraph(sheet.words, TEXT, 10),
                    Spacer(1, 6),
                    Drawn(WIDTH, drawing.height, draw),
                    *([table(rows, (120, 55))] if rows else []),
                    Spacer(1, 10),
                ]
            )
        )
    return Sheet("Wiring", flowables)


def wiring_svg(sheet: WiringSheet) -> str:
    """One of them as a picture."""
    text: str = renderSVG.drawToString(draw_wiring(sheet))
    for font, families in _FAMILIES.items():
        text = text.replace(font, families)
    return text


_FAMILIES = {NAME: "Saira, 'Arial Narrow', sans-serif", STRONG: "'IBM Plex Sans', Arial, sans-serif"}
"""What a viewer takes for the fonts of the page, which a picture does not carry with it."""


def say_ohm(ohm: float) -> str:
    """Resistance as it is printed: 0 Ω, 680 Ω, 2.2 kΩ."""
    if ohm < KILO:
        return f"{ohm:g} {OHM}"
    return f"{ohm / KILO:.4g} k{OHM}"


def _facts(sheet: WiringSheet) -> Iterator[tuple[str, str]]:
    """What a meter reads where it is not plain metal, and what is lost."""
    for reading in sheet.readings:
        if reading.ohm > 0:
            yield f"A meter reads from {reading.a} to {reading.b}", say_ohm(reading.ohm)
    for loss in sheet.losses:
        yield f"Loss from {loss.signal}, 150 {OHM} into 10 k{OHM}", f"{loss.loss_db:.1f} dB"
    for end in sheet.cut:
        plug, _, contact = end.partition(".")
        words = next((each.words for each in sheet.plugs if each.id == plug), plug)
        yield f"Left unconnected at the other end, and insulated: the screen of {words}", _contact(contact)


def draw_wiring(sheet: WiringSheet) -> Drawing:
    """The drawing: plugs in at the left, out at the right, what is soldered between their contacts."""
    register()
    sides = _sides(sheet.plugs)
    height = max(_height(plugs) for plugs in sides)
    drawing = Drawing(WIDTH, height)
    places: dict[str, _Point] = {}
    for plugs, x, outward in ((sides[0], LEFT, -1), (sides[1], RIGHT, 1)):
        y = height - (height - _height(plugs)) / 2
        for plug in plugs:
            y = _draw_plug(drawing, plug, x, outward, y, places)
    inner = [point for joint in sheet.joints for point in (joint.a, joint.b) if point and point not in places]
    for number, point in enumerate(dict.fromkeys(inner), 1):
        places[point] = (WIDTH / 2, height * number / (len(set(inner)) + 1))
    points = tuple(places.values())
    joints = Group()
    bows: dict[tuple[str, str], int] = {}
    for joint in sheet.joints:
        _draw_joint(joints, joint, places, bows)
    resistors = [joint for joint in sheet.joints if joint.ohm is not None]
    ends = Counter(point for joint in resistors for point in (joint.a, joint.b))
    for joint in resistors:
        _draw_resistor(joints, joint, places, ends)
    drawing.add(joints)
    for x, y in points:
        drawing.add(Circle(x, y, DOT, fillColor=white, strokeColor=black, strokeWidth=1.4))
    return drawing


def _sides(plugs: tuple[Plug, ...]) -> tuple[list[Plug], list[Plug]]:
    left = [plug for plug in plugs if plug.side == "in"]
    right = [plug for plug in plugs if plug.side == "out"]
    if not right:
        left, right = left[:1], left[1:]
    if not left:
        left, right = right[:1], right[1:]
    return left, right


def _height(plugs: list[Plug]) -> float:
    return sum(HEAD + ROW * len(plug.contacts) for plug in plugs) + GAP * max(0, len(plugs) - 1) + 8


def _draw_plug(drawing: Drawing, plug: Plug, x: float, outward: int, top: float, places: dict[str, _Point]) -> float:
    """A plug with its contacts below each other; where the next one begins."""
    is_left = outward < 0
    words = printable(plug.words)
    font = font_for(words, NAME)
    edge = 0.0 if is_left else WIDTH
    drawing.add(String(edge, top - 16, words, fontName=font, fontSize=14, textAnchor="start" if is_left else "end"))
    y = top - HEAD
    body = ROW * len(plug.contacts)
    drawing.add(_box(x - 11, y - body + 1, 22, body - 2, 7))
    for contact in plug.contacts:
        place = (x, y - ROW / 2)
        places[f"{plug.id}.{contact}"] = place
        at = x + outward * 17
        drawing.add(
            String(
                at,
                place[1] - 4,
                _contact(contact),
                fontName=STRONG,
                fontSize=11,
                textAnchor="end" if is_left else "start",
            )
        )
        y -= ROW
    return y - GAP


def _contact(name: str) -> str:
    return CONTACT_WORDS.get(name, name)


def _draw_joint(group: Group, joint: Joint, places: dict[str, _Point], bows: dict[tuple[str, str], int]) -> None:
    """The line between two contacts; a conductor that is cut ends in a cross."""
    dash: tuple[float, ...] = (5, 3) if joint.kind == "screen" else ()
    width = 1.8 if joint.kind == "screen" else 2.2
    x, y = places[joint.a]
    inward = 1 if x < WIDTH / 2 else -1
    if not joint.b:
        end = x + inward * 60
        group.add(Line(x, y, end, y, strokeWidth=width, strokeDashArray=dash))
        for dy in (-5, 5):
            group.add(Line(end - 5, y - dy, end + 5, y + dy, strokeWidth=1.6))
        return
    to_x, to_y = places[joint.b]
    if to_x != x:
        group.add(Line(x, y, to_x, to_y, strokeWidth=width, strokeDashArray=dash))
        return
    # Two contacts of one side: a bow into the middle, each further in than the one before.
    side = ("left" if inward > 0 else "right", joint.kind)
    bows[side] = bows.get(side, 0) + 1
    depth = inward * (26.0 + 20.0 * bows[side] + abs(to_y - y) / 6 + (RESISTOR / 2 if joint.ohm is not None else 0.0))
    path = Path(strokeWidth=width, strokeDashArray=dash, fillColor=None, strokeColor=black)
    path.moveTo(x, y)
    path.curveTo(x + depth, y, x + depth, to_y, to_x, to_y)
    group.add(path)
    if joint.ohm is not None:
        places[_key(joint)] = (x + depth * 0.75, (y + to_y) / 2)


def _key(joint: Joint) -> str:
    """Under which the middle of a bow is kept among the places; no contact is called so."""
    return f"{joint.a} to {joint.b}"


def _draw_resistor(group: Group, joint: Joint, places: dict[str, _Point], ends: Counter[str]) -> None:
    """A box in the line with its value, level so that it can be read; where several meet in a contact, away from it."""
    (x, y), (to_x, to_y) = places[joint.a], places[joint.b]
    share = 0.25 if ends[joint.a] < ends[joint.b] else 0.75 if ends[joint.a] > ends[joint.b] else 0.5
    x, y = places.get(_key(joint), (x + (to_x - x) * share, y + (to_y - y) * share))
    group.add(_box(x - RESISTOR / 2, y - 9, RESISTOR, 18, 0))
    words = say_ohm(joint.ohm or 0.0)
    group.add(String(x, y - 4, words, fontName=STRONG, fontSize=11, textAnchor="middle"))


def _box(x: float, y: float, width: float, height: float, radius: float) -> Rect:
    box = Rect(x, y, width, height, rx=radius, ry=radius)
    box.fillColor, box.strokeColor, box.strokeWidth = white, black, 1.2
    return box
