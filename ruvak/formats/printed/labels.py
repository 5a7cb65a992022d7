"""Sheets of labels for the ends of leads: sizes as they are sold, a code for each, data told apart from audio."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

import segno
from reportlab.lib.units import mm
from reportlab.lib.utils import simpleSplit
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from ruvak.core.sheets.labels import EndLabel
from ruvak.formats.cells import table_of
from ruvak.formats.printed.page import PAPERS, Drawn, Paper, Sheet
from ruvak.formats.printed.type import NAME, STRONG, font_for, printable, register, shortened

LabelSize = Literal["65", "24", "14", "30", "10"]
INCH_MM = 25.4
CODE_MM = 15.0
"""Side of a code: read from a 200-dpi print at level M, with modules of 0.35 mm and more."""
QUIET = 2
"""Modules of white around a code: half of what ISO/IEC 18004 asks for, since the label's own edge is white too."""
PADDING_MM = 1.8
BAND_MM = 4.2


@dataclass(frozen=True)
class LabelSheet:
    """A sheet as it is sold, by what is on it; margins are equal on both sides. Sizes in millimetres: common practice,
    from the figures that makers print on the box."""

    paper: Paper
    columns: int
    rows: int
    width_mm: float
    height_mm: float
    gap_mm: float
    """Between columns; rows touch."""


LABEL_SHEETS: dict[LabelSize, LabelSheet] = {
    "65": LabelSheet("a4", 5, 13, 38.1, 21.2, 2.5),
    "24": LabelSheet("a4", 3, 8, 64.0, 33.9, 2.5),
    "14": LabelSheet("a4", 2, 7, 99.1, 38.1, 2.5),
    "30": LabelSheet("letter", 3, 10, 2.625 * INCH_MM, INCH_MM, 0.125 * INCH_MM),
    "10": LabelSheet("letter", 2, 5, 4 * INCH_MM, 2 * INCH_MM, 0.1875 * INCH_MM),
}


def label_sheets(labels: Sequence[EndLabel], size: LabelSize, address: str, skip: int = 0) -> Iterator[Sheet]:
    """Full pages of labels. `address`: before the path of a run's check; `skip`: labels of the first sheet that are
    used up already."""
    register()
    sheet = LABEL_SHEETS[size]
    on_one = sheet.columns * sheet.rows
    places: list[EndLabel | None] = [None] * (skip % on_one)
    places += labels
    width, height = PAPERS[sheet.paper]
    for first in range(0, len(places), on_one):
        page = places[first : first + on_one]

        def draw(canvas: Canvas, page: list[EndLabel | None] = page) -> None:
            for index, label in enumerate(page):
                if label is not None:
                    _draw(canvas, sheet, index, label, address)

        yield Sheet("Labels", [Drawn(width, height, draw)], bare=sheet.paper)


def labels_to_csv(labels: Sequence[EndLabel], address: str) -> str:
    """The labels as a table, for a label printer of one's own."""
    headings = ("code", "run", "lead", "plugs_into", "destination", "carries", "address")
    rows = (
        (label.code, label.name, label.tag, label.plugs_into, label.destination, label.kind, address_of(label, address))
        for label in labels
    )
    return table_of(headings, rows)


def address_of(label: EndLabel, address: str) -> str:
    """What the label's code holds: the run's card in the line check."""
    return f"{address.rstrip('/')}/check/{label.run}"


def _draw(canvas: Canvas, sheet: LabelSheet, index: int, label: EndLabel, address: str) -> None:
    page_width, page_height = PAPERS[sheet.paper]
    width, height = sheet.width_mm * mm, sheet.height_mm * mm
    gap = sheet.gap_mm * mm
    left = (page_width - sheet.columns * width - (sheet.columns - 1) * gap) / 2 + index % sheet.columns * (width + gap)
    top = page_height - (page_height - sheet.rows * height) / 2 - index // sheet.columns * height
    canvas.saveState()
    canvas.translate(left, top - height)
    padding = PADDING_MM * mm
    text_left = padding
    if not label.is_audio:
        # A black bar with the kind in white: told apart by shape, not by colour.
        canvas.rect(0, 0, BAND_MM * mm, height, stroke=0, fill=1)
        canvas.saveState()
        canvas.translate(BAND_MM * mm * 0.72, height / 2)
        canvas.rotate(90)
        canvas.setFillGray(1.0)
        size = _fitting(label.kind, STRONG, 8.0, height - 2 * padding)
        canvas.setFont(STRONG, size)
        canvas.drawCentredString(0, 0, label.kind)
        canvas.restoreState()
        text_left += BAND_MM * mm
    side = min(CODE_MM * mm, height - 2 * padding)
    _draw_code(canvas, address_of(label, address), width - padding - side, (height - side) / 2, side)
    _draw_text(canvas, label, text_left, height, width - side - 2 * padding - text_left)
    canvas.restoreState()


def _draw_text(canvas: Canvas, label: EndLabel, left: float, height: float, width: float) -> None:
    """The code large, what it is, what this end goes into, where the run ends: as many lines as the label has room."""
    scale = min(height / (21.2 * mm), 1.9)
    bottom, y = PADDING_MM * mm, height - PADDING_MM * mm
    for text, wanted, points, most in (
        (f"{label.code} {label.tag}".rstrip(), NAME, 13.0, 1),
        (label.name, NAME, 9.5, 1),
        (f"in {label.plugs_into}", NAME, 7.5, 2),
        (f"to {label.destination}", NAME, 7.0, 2),
    ):
        font, size = font_for(text, wanted), points * scale
        lines = simpleSplit(printable(text), font, size, width)
        for number, line in enumerate(lines[:most], 1):
            if y - size < bottom:
                return
            y -= size * 1.08
            canvas.setFont(font, size)
            rest = " ".join(lines[number - 1 :]) if number == most else line
            canvas.drawString(left, y, shortened(rest, font, size, width))


def _draw_code(canvas: Canvas, text: str, left: float, bottom: float, side: float) -> None:
    code = segno.make(text, error="m", micro=False)
    matrix = code.matrix
    module = side / (len(matrix) + 2 * QUIET)
    path = canvas.beginPath()
    for row, line in enumerate(matrix):
        for column, dark in enumerate(line):
            if dark:
                x, y = left + (column + QUIET) * module, bottom + (len(matrix) - 1 - row + QUIET) * module
                path.rect(x, y, module, module)
    canvas.drawPath(path, stroke=0, fill=1)


def _fitting(text: str, font: str, size: float, width: float) -> float:
    """The size, or as much less as the text needs."""
    return min(size, size * width / max(stringWidth(text, font, size), 0.1))
