"""Cells of tables: rows of CSV text, and cells that a spreadsheet must not take for a formula."""

import csv
import io
from collections.abc import Iterable

from ruvak.core.errors import Fault, FaultyDocument

FORMULA = ("=", "+", "-", "@", "\t", "\r")
"""What a spreadsheet takes a cell for a formula by: OWASP's note on CSV injection, from memory."""


def rows_of(lines: list[str], delimiter: str, problem: type[FaultyDocument]) -> list[list[str]]:
    """The cells of each line. Raises `problem` where a quotation mark is opened and never closed."""
    try:
        table = list(csv.reader(io.StringIO("\n".join(lines)), delimiter=delimiter, strict=True))
    except csv.Error as error:
        sentence = "A quotation mark is opened and never closed: close it, or take it out."
        raise problem((Fault("open_quote", "file", sentence),)) from error
    return [[read_cell(cell) for cell in row] for row in table]


def write_cell(text: str) -> str:
    """As text, with an apostrophe in front where it would be taken for a formula."""
    return f"'{text}" if text.startswith(FORMULA) else text


def read_cell(text: str) -> str:
    """Without the apostrophe that write_cell() puts in front."""
    return text[1:] if text.startswith("'") and text[1:].startswith(FORMULA) else text


def table_of(headings: tuple[str, ...], rows: Iterable[tuple[str, ...]]) -> str:
    """CSV with its headings; no cell is taken for a formula."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(headings)
    writer.writerows(tuple(map(write_cell, row)) for row in rows)
    return out.getvalue()
