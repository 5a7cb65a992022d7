"""One PDF of the sheets that somebody chose."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from ruvak.core.pull.pull_list import PullList
from ruvak.core.sheets.sheets import RigSheets
from ruvak.formats.printed.labels import LabelSize, label_sheets
from ruvak.formats.printed.lists import check_sheet, hook_up_sheet, input_sheet, pull_sheets
from ruvak.formats.printed.page import Paper, Sheet, pdf
from ruvak.formats.printed.wiring import wiring_sheet_pages

SheetName = Literal["pull", "inputs", "hook-up", "check", "labels", "wiring"]


@dataclass(frozen=True)
class Wanted:
    """What somebody chose to print."""

    sheets: tuple[SheetName, ...]
    """Which sheets."""
    paper: Paper = "a4"
    """Of the lists; labels come on the paper that they are sold on."""
    labels: LabelSize = "65"
    """How many labels are on a sheet."""
    skip: int = 0
    """Labels of the first sheet that are used up already."""


def printed(sheets: RigSheets, pulled: PullList | None, wanted: Wanted, address: str) -> bytes:
    """The chosen sheets in the order in which they are used. `address`: of the rig, for the codes on labels."""
    about = ", ".join(filter(None, (sheets.name, sheets.venue, sheets.occasion)))
    return pdf(list(_sheets(sheets, pulled, wanted, address)), wanted.paper, about)


def _sheets(sheets: RigSheets, pulled: PullList | None, wanted: Wanted, address: str) -> Iterator[Sheet]:
    if "pull" in wanted.sheets and pulled is not None:
        yield from pull_sheets(pulled)
    if "inputs" in wanted.sheets:
        yield input_sheet(sheets)
    if "hook-up" in wanted.sheets:
        yield from hook_up_sheet(sheets)
    if "check" in wanted.sheets:
        yield check_sheet(sheets)
    if "wiring" in wanted.sheets:
        yield wiring_sheet_pages(sheets.wirings)
    if "labels" in wanted.sheets:
        yield from label_sheets(sheets.labels, wanted.labels, address, wanted.skip)
