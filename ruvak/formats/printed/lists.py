"""The lists: pull list, packing list, input list, hook-up sheet, line check to be ticked."""

from collections.abc import Iterator
from itertools import groupby

from reportlab.lib.units import mm
from reportlab.platypus import Flowable, Spacer

from ruvak.core.pull.pull_list import PullLine, PullList
from ruvak.core.sheets.inputs import InputLine
from ruvak.core.sheets.sheets import RigSheets
from ruvak.core.steps.card import CheckCard
from ruvak.core.steps.hook_up import HookUpStep
from ruvak.formats.cells import table_of
from ruvak.formats.printed.page import Sheet, TickBox, heading, table
from ruvak.formats.printed.type import NAME, STRONG, TEXT, TIMES, paragraph

PHASE_WORDS = {
    "place": "Stands",
    "quiet": "Before anything is plugged in",
    "connect": "Connect, with everything off",
    "power": "Switch on",
    "phantom": "Phantom power",
    "choose": "Computers",
    "level": "Levels",
    "call": "The call",
    "mute": "Mute",
    "off": "Switch off",
    "unplug": "Unplug",
}
"""Headings of the hook-up sheet by phase."""


def pull_sheets(pulled: PullList) -> Iterator[Sheet]:
    """The pull list, what is short, and the packing list."""
    flowables: list[Flowable] = []
    if pulled.shortages:
        flowables += heading("Borrow or buy")
        flowables.append(
            table(
                [
                    [
                        TickBox(),
                        paragraph(f"{short.count} {TIMES}", STRONG),
                        paragraph(f"{short.part}{_length(short.length_m)}", STRONG),
                        paragraph(", ".join(short.runs)),
                    ]
                    for short in pulled.shortages
                ],
                (8, 12, 80, 82),
            )
        )
    for rig, lines in groupby(pulled.lines, key=lambda line: line.rig_name):
        flowables += heading(f"Leads for {rig}")
        rows = [[TickBox(), *_pulled(line)] for line in lines]
        flowables.append(table(rows, (8, 10, 48, 68, 48), ("", "no.", "run", "what", "from")))
    yield Sheet("Pull list", flowables)
    flowables = []
    for store, things in groupby(sorted(pulled.packing, key=lambda each: each.store), key=lambda each: each.store):
        flowables += heading(store[:1].upper() + store[1:] if store else "Besides")
        rows = [
            [
                TickBox(),
                paragraph(f"{thing.count} {TIMES}", STRONG),
                paragraph(thing.words, STRONG),
                paragraph(", ".join(thing.tags)),
            ]
            for thing in things
        ]
        flowables.append(table(rows, (8, 12, 80, 82)))
    yield Sheet("Packing list", flowables)


def _pulled(line: PullLine) -> list[Flowable]:
    leads = " + ".join(f"{lead.tag}, {lead.length_m:g} m" for lead in line.leads)
    get = "" if line.get_m is None else f"get {line.part}, {line.get_m:g} m"
    what = leads or get or line.part
    suspect = [lead.tag for lead in line.leads if lead.suspect]
    if suspect:
        what += f" (test {', '.join(suspect)} first)"
    stores = ", ".join(dict.fromkeys(lead.store for lead in line.leads))
    return [paragraph(str(line.number), NAME), paragraph(line.name, NAME), paragraph(what, STRONG), paragraph(stores)]


def _length(length_m: float | None) -> str:
    return "" if length_m is None else f", {length_m:g} m"


def input_sheet(sheets: RigSheets) -> Sheet:
    """The input list, a table for each area of the stage."""
    flowables: list[Flowable] = []
    for area, lines in groupby(sheets.inputs, key=lambda line: line.area):
        flowables += heading(area)
        rows = [
            [
                paragraph(str(line.number), NAME),
                paragraph(line.name, NAME),
                paragraph(line.device + (f", {line.note}" if line.note else "")),
                paragraph("+48 V" if line.phantom else "", STRONG),
                paragraph(line.socket, STRONG),
                paragraph(line.leads),
                paragraph(line.into, STRONG),
            ]
            for line in lines
        ]
        titles = ("no.", "who", "source", "", "socket", "leads", "arrives at")
        flowables.append(table(rows, (9, 36, 46, 13, 20, 24, 34), titles))
    return Sheet("Input list", flowables)


def inputs_to_csv(lines: tuple[InputLine, ...]) -> str:
    """The input list as a table."""
    headings = ("area", "number", "who", "what", "phantom", "socket", "leads", "arrives_at", "note")
    rows = (
        (
            line.area, str(line.number), line.name, line.device, "yes" if line.phantom else "", line.socket, line.leads,
            line.into, line.note,
        )
        for line in lines
    )  # fmt: skip
    return table_of(headings, rows)


def hook_up_sheet(sheets: RigSheets) -> Iterator[Sheet]:
    """Up, and down again, on pages of their own."""
    yield Sheet("Hook-up", list(_steps(sheets.hook_up.up)))
    yield Sheet("Switching off", list(_steps(sheets.hook_up.down)))


def _steps(steps: tuple[HookUpStep, ...]) -> Iterator[Flowable]:
    for phase, group in groupby(steps, key=lambda step: step.phase):
        yield from heading(PHASE_WORDS[phase])
        rows, said = [], ""
        for step in group:
            why = step.why if step.why != said else ""
            rows.append([TickBox(), paragraph(step.words, STRONG), paragraph(why, TEXT, 9.5)])
            said = step.why
        yield table(rows, (8, 110, 64))


def check_sheet(sheets: RigSheets) -> Sheet:
    """A row for each run, to be ticked at the desk and typed in afterwards."""
    rows = [
        [
            paragraph(str(card.number), NAME),
            [paragraph(card.name, NAME), paragraph(f"{card.source} to {card.into}", TEXT, 9.5)],
            [paragraph(words, TEXT, 9.5) for words in _expected(card)],
            TickBox(),
            TickBox(),
            TickBox(),
            Spacer(1, 11 * mm),
        ]
        for card in sheets.checks
    ]
    titles = ("no.", "run", "what to expect", "good", "wrong", "skip", "what was heard")
    return Sheet("Line check", [table(rows, (9, 52, 48, 11, 12, 11, 39), titles)])


def _expected(card: CheckCard) -> Iterator[str]:
    if card.phantom:
        yield f"{card.phantom[0].upper()}{card.phantom[1:]}."
    by_words: dict[str, list[str]] = {}
    for each in card.expected:
        average, loudest = _signed(each.meter.average_dbfs), _signed(each.meter.peak_dbfs)
        arrives = each.arriving_dbu is not None
        words = f"average at {average} dBFS, loudest {loudest}" if arrives else "nothing arrives"
        by_words.setdefault(words, []).append(each.input)
    for words, inputs in by_words.items():
        yield f"{', '.join(inputs)}: {words}"
    yield from card.levels


def _signed(level_dbfs: float) -> str:
    return f"{level_dbfs:.0f}".replace("-", "\N{MINUS SIGN}")
