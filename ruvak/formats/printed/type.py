"""Type of the printed pages: the interface's own fonts, cut by script/shared/fonts.py."""

from functools import cache
from pathlib import Path
from xml.sax.saxutils import escape

from reportlab.lib.colors import HexColor
from reportlab.lib.styles import ParagraphStyle
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.platypus import Paragraph

FONTS = Path(__file__).parents[1] / "fonts"
NAME, TEXT, STRONG = "ruvak-name", "ruvak-text", "ruvak-strong"
"""Condensed letters for names of runs and devices; text; what stands out in it."""
FILES = {NAME: "name.ttf", TEXT: "text.ttf", STRONG: "strong.ttf"}
SIZES = {NAME: 14.0, TEXT: 11.0, STRONG: 11.0}
"""In points: read at arm's length in little light."""
LEADING = 1.25
TIMES = "\N{MULTIPLICATION SIGN}"
_MISSING = "?"


@cache
def register() -> dict[str, frozenset[int]]:
    """Makes the fonts known to the PDF library; the characters that each has."""
    result = {}
    for font, file in FILES.items():
        face = TTFont(font, str(FONTS / file))
        pdfmetrics.registerFont(face)
        result[font] = frozenset(face.face.charToGlyph)
    return result


def font_for(text: str, wanted: str) -> str:
    """The wanted font, or the one with more alphabets where that lacks a character."""
    known = register()
    return wanted if all(ord(letter) in known[wanted] for letter in text) else STRONG if wanted == NAME else TEXT


def printable(text: str) -> str:
    """The text in characters that can be printed: what no font has becomes a question mark."""
    known = register()[TEXT]
    return "".join(letter if ord(letter) in known else _SPELLED.get(letter, _MISSING) for letter in text)


_SPELLED = {
    "→": "\N{SINGLE RIGHT-POINTING ANGLE QUOTATION MARK}",
    "\n": " ",
    "\t": " ",
    "≥": ">=",
    "≤": "<=",
    "\u00ad": "",
}


def paragraph(text: str, font: str = TEXT, size: float | None = None, colour: str = "#000000") -> Paragraph:
    """Text that is broken into lines where it does not fit."""
    text = printable(text)
    font = font_for(text, font)
    size = size or SIZES[font]
    style = ParagraphStyle(
        f"{font}-{size}", fontName=font, fontSize=size, leading=size * LEADING, textColor=HexColor(colour)
    )
    return Paragraph(escape(text), style)


def shortened(text: str, font: str, size: float, width: float) -> str:
    """The text as far as it goes into a width, in points."""
    text = printable(text)
    if pdfmetrics.stringWidth(text, font, size) <= width:
        return text
    while text and pdfmetrics.stringWidth(f"{text}…", font, size) > width:
        text = text[:-1]
    return f"{text.rstrip()}…"
