"""Pages of paper: sizes, a heading on each, and lists that run over as many as they need."""

import io
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any, Literal

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import (
    BaseDocTemplate,
    CondPageBreak,
    Flowable,
    Frame,
    NextPageTemplate,
    PageBreak,
    PageTemplate,
    Spacer,
    Table,
    TableStyle,
)

from ruvak.formats.printed.type import NAME, STRONG, TEXT, font_for, paragraph, printable, register, shortened

Paper = Literal["a4", "letter"]
PAPERS: dict[Paper, tuple[float, float]] = {"a4": A4, "letter": LETTER}
MARGIN = 14 * mm
HEAD = 16 * mm
GREY = HexColor("#555555")
LINE = HexColor("#999999")
BOX = 4.2 * mm
"""A square to be ticked with a thick pen."""


@dataclass(frozen=True)
class Sheet:
    """One kind of list: its heading, and what is on it. `bare`: full pages of this paper without a heading."""

    title: str
    flowables: Sequence[Flowable]
    bare: Paper | None = None


class TickBox(Flowable):
    """An empty square."""

    def __init__(self, size: float = BOX) -> None:
        super().__init__()
        self.width = self.height = size

    def wrap(self, _width: float, _height: float) -> tuple[float, float]:
        """Its size."""
        return self.width, self.height

    def draw(self) -> None:
        """On the page."""
        self.canv.setLineWidth(1.1)
        self.canv.rect(0, 0, self.width, self.height)


class Drawn(Flowable):
    """Something that is drawn by a function into a box."""

    def __init__(self, width: float, height: float, draw: Callable[[Canvas], None]) -> None:
        super().__init__()
        self.width, self.height, self._draw = width, height, draw

    def wrap(self, _width: float, _height: float) -> tuple[float, float]:
        """Its size."""
        return self.width, self.height

    def draw(self) -> None:
        """On the page."""
        self._draw(self.canv)


def pdf(sheets: Sequence[Sheet], paper: Paper, about: str) -> bytes:
    """The sheets one after another, each on a page of its own. `about`: what stands at the head of each page."""
    register()
    out = io.BytesIO()
    width, height = PAPERS[paper]
    document = BaseDocTemplate(out, pagesize=(width, height), title=printable(about), author="Ruvak")
    story: list[Any] = []
    templates = []
    for number, sheet in enumerate(sheets):
        name = f"sheet-{number}"
        templates.append(_template(name, sheet, (width, height), about))
        story += [NextPageTemplate(name), *([PageBreak()] if number else []), *sheet.flowables]
    if not story:
        templates.append(_template("empty", Sheet("", ()), (width, height), about))
        story = [paragraph("There is nothing to print.")]
    document.addPageTemplates(templates)
    document.build(story)
    return out.getvalue()


def _template(name: str, sheet: Sheet, size: tuple[float, float], about: str) -> PageTemplate:
    width, height = size
    if sheet.bare:
        width, height = PAPERS[sheet.bare]
        return PageTemplate(name, [Frame(0, 0, width, height, 0, 0, 0, 0)], pagesize=(width, height))
    frame = Frame(MARGIN, MARGIN, width - 2 * MARGIN, height - 2 * MARGIN - HEAD, 0, 0, 0, 0)

    def head(canvas: Canvas, document: BaseDocTemplate) -> None:
        top = height - MARGIN
        page = f"page {document.page}"
        canvas.setFont(NAME, 20)
        title = shortened(sheet.title, NAME, 20, width / 2)
        canvas.drawString(MARGIN, top - 6 * mm, title)
        canvas.setFont(TEXT, 10)
        canvas.drawRightString(width - MARGIN, top - 9 * mm, page)
        canvas.setFont(STRONG, 10)
        canvas.drawRightString(width - MARGIN, top - 4 * mm, shortened(about, STRONG, 10, width / 2 - MARGIN))
        canvas.setStrokeColor(LINE)
        canvas.line(MARGIN, top - 12 * mm, width - MARGIN, top - 12 * mm)

    return PageTemplate(name, [frame], onPage=head)


def heading(text: str) -> list[Flowable]:
    """Of a part of a list, kept on a page with the first rows after it."""
    text = printable(text)
    return [CondPageBreak(30 * mm), Spacer(1, 3 * mm), paragraph(text, font_for(text, STRONG), 12), Spacer(1, 1.5 * mm)]


def table(rows: Sequence[Sequence[Any]], widths: Sequence[float], titles: Sequence[str] = ()) -> Table:
    """Rows with a line under each; titles are repeated on every page. Widths in millimetres."""
    content = [list(row) for row in rows]
    if titles:
        content.insert(0, [paragraph(title, TEXT, 9, "#555555") for title in titles])
    result = Table(content, colWidths=[width * mm for width in widths], repeatRows=1 if titles else 0)
    result.setStyle(
        TableStyle(
            [
                ("VALIGN", (0, 0), (-1, -1), "MIDDLE"),
                ("LEFTPADDING", (0, 0), (-1, -1), 1.5),
                ("RIGHTPADDING", (0, 0), (-1, -1), 4),
                ("TOPPADDING", (0, 0), (-1, -1), 3),
                ("BOTTOMPADDING", (0, 0), (-1, -1), 4),
                ("LINEBELOW", (0, 0), (-1, -1), 0.4, LINE),
            ]
        )
    )
    return result
