"""Input lists as CSV: any separator, any order of columns, headings matched by what they usually say."""

from rapidfuzz import fuzz, process

from ruvak.core.entry.rows import InputRow
from ruvak.core.errors import Fault, FaultyDocument
from ruvak.formats.cells import rows_of

COLUMNS: dict[str, tuple[str, ...]] = {
    "channel": ("channel", "ch", "chan", "input", "no", "nr", "number", "#", "desk channel"),
    "who": ("who", "source", "name", "instrument", "musician", "what", "description", "signal"),
    "device": ("mic", "mic/di", "microphone", "microphone or di", "mic or di", "di", "mic type", "device", "pickup"),
    "stand": ("stand", "mic stand", "stands", "boom"),
    "phantom": ("phantom", "48v", "+48v", "p48", "phantom power", "48 v"),
}
_NEAR = 84.0
MOST_ROWS = 200
MOST_CHARACTERS = 200_000


class BadInputList(FaultyDocument):
    """A list that cannot be read; its faults name rows and columns."""

    code = "bad_input_list"


def rows_from_csv(text: str) -> tuple[InputRow, ...]:
    """The rows of an input list with a heading line. Raises BadInputList."""
    if len(text) > MOST_CHARACTERS:
        raise BadInputList((Fault("too_long", "file", "This is longer than any input list; is it the right file?"),))
    lines = [line for line in text.lstrip("\ufeff").splitlines() if line.strip(" ,;\t")]
    if len(lines) < 2:
        sentence = "An input list has a line of headings (channel, who, mic or DI, stand, phantom) and rows below it."
        raise BadInputList((Fault("too_short", "file", sentence),))
    table = rows_of(lines, _delimiter(lines[0]), BadInputList)
    if len(table) > MOST_ROWS + 1:
        sentence = f"This list has {len(table) - 1} rows, and {MOST_ROWS} at once are the most: bring it in in parts."
        raise BadInputList((Fault("too_many", f"row {MOST_ROWS + 2}", sentence),))
    columns = match_headings(table[0])
    missing = [name for name in ("channel", "who") if name not in columns.values()]
    if missing:
        have = ", ".join(heading.strip() or "(empty)" for heading in table[0])
        sentence = f"No column for {' and '.join(missing)}; the headings are {have}. Rename the right one."
        raise BadInputList((Fault("no_column", "row 1", sentence),))
    return tuple(_row(number, cells, columns) for number, cells in enumerate(table[1:], 2) if any(cells))


def match_headings(headings: list[str]) -> dict[int, str]:
    """Index of each heading that was recognised to what it is; each kind once, the closest heading winning."""
    words = {word: name for name, known in COLUMNS.items() for word in known}
    scored = []
    for index, heading in enumerate(headings):
        result = process.extractOne(heading.strip().lower(), list(words), scorer=fuzz.ratio, score_cutoff=_NEAR)
        if result:
            scored.append((-result[1], index, words[result[0]]))
    columns: dict[int, str] = {}
    for _, index, name in sorted(scored):
        if name not in columns.values():
            columns[index] = name
    return columns


def _delimiter(headings: str) -> str:
    return max(",;\t", key=headings.count)


def _row(number: int, cells: list[str], columns: dict[int, str]) -> InputRow:
    values = {name: cells[index][:120] for index, name in columns.items() if index < len(cells)}
    return InputRow(row=number, **{"channel": "", "who": "", **values})
