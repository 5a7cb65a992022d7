"""Kit as CSV: out as a table, in as rows that are read like typed lines."""

import csv
import io
from collections.abc import Iterable

from ruvak.core.cupboard.item import CupboardItem
from ruvak.core.errors import Fault, FaultyDocument
from ruvak.core.rig.rig import Rig
from ruvak.formats.cells import rows_of, write_cell

HEADINGS = ("tag", "what", "length_m", "owned", "installed")
CUPBOARD_HEADINGS = ("tag", "count", "what", "length_m", "store", "condition", "remark")
KNOWN: dict[str, tuple[str, ...]] = {
    "count": ("count", "qty", "quantity", "number", "how many", "pieces"),
    "tag": ("tag", "label", "id"),
    "what": ("what", "item", "type", "name", "lead", "kind", "description"),
    "length_m": ("length_m", "length", "metres", "m", "long"),
    "owned": ("owned", "own"),
    "installed": ("installed", "built in"),
    "store": ("store", "where", "place", "location", "kept in"),
    "condition": ("condition", "state", "status"),
    "remark": ("remark", "note", "notes", "comment"),
}
NO = ("no", "false", "0", "n")
YES = ("yes", "true", "1", "y", "x")
MOST_CHARACTERS = 200_000


class BadKitList(FaultyDocument):
    """A list that cannot be read; its faults name rows and columns."""

    code = "bad_kit_list"


def kit_to_csv(rig: Rig) -> str:
    """Every item of the kit, a row each, in the rig's order."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(HEADINGS)
    for item in rig.kit:
        length = f"{item.length_m:g}" if item.length_m is not None else ""
        flags = ("yes" if entry else "no" for entry in (item.owned, item.installed))
        writer.writerow((write_cell(item.tag), write_cell(rig.part_of(item.id).name), length, *flags))
    return out.getvalue()


def cupboard_to_csv(items: Iterable[CupboardItem]) -> str:
    """Everything in the house's cupboard, a row each."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(CUPBOARD_HEADINGS)
    for item in items:
        length = f"{item.length_m:g}" if item.length_m is not None else ""
        words = (item.name, item.part.name, item.store, item.condition, item.remark)
        name, what, store, condition, remark = map(write_cell, words)
        writer.writerow((name if item.count == 1 else "", item.count, what, length, store, condition, remark))
    return out.getvalue()


def lines_from_csv(text: str) -> str:
    """The rows as lines that read_kit() and read_cupboard() understand. Raises BadKitList."""
    if len(text) > MOST_CHARACTERS:
        raise BadKitList((Fault("too_long", "file", "This is longer than any kit list; is it the right file?"),))
    rows = [line for line in text.lstrip("\ufeff").splitlines() if line.strip(" ,;\t")]
    if len(rows) < 2:
        sentence = "A kit list has a line of headings (tag, what, length_m, owned) and rows below it."
        raise BadKitList((Fault("too_short", "file", sentence),))
    delimiter = max(",;\t", key=rows[0].count)
    table = rows_of(rows, delimiter, BadKitList)
    columns: dict[str, int] = {}
    for index, heading in enumerate(table[0]):
        for name, known in KNOWN.items():
            if heading.strip().lower() in known:
                columns.setdefault(name, index)
    if "what" not in columns:
        have = ", ".join(heading.strip() or "(empty)" for heading in table[0])
        sentence = f"No column says what each thing is; the headings are {have}. Call the right one 'what'."
        raise BadKitList((Fault("no_column", "row 1", sentence),))
    return "\n".join(_line(columns, cells) for cells in table[1:])


def _line(columns: dict[str, int], cells: list[str]) -> str:
    def cell(name: str) -> str:
        at = columns.get(name)
        return cells[at].strip() if at is not None and at < len(cells) else ""

    length = cell("length_m")
    words = [f"{cell('tag')}:" if cell("tag") else "", cell("count"), cell("what")]
    words.append(f"{length} m" if length and length[-1].isdigit() else length)
    words.append("to get" if cell("owned").lower() in NO else "")
    words.append("installed" if cell("installed").lower() in YES else "")
    line = " ".join(word for word in words if word)
    line += f", in {cell('store')}" if cell("store") else ""
    condition, remark = cell("condition").lower(), cell("remark")
    if condition and condition != "good":
        line += f", {condition}{f': {remark}' if remark else ''}"
    return line
