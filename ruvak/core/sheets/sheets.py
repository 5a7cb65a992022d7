"""Everything of a rig that is printed, from one analysis."""

from ruvak.core.analyse import Analysis
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.values import Id, Record
from ruvak.core.sheets.inputs import InputLine, input_list
from ruvak.core.sheets.labels import EndLabel, end_labels
from ruvak.core.sheets.wiring import WiringSheet, wiring_sheets
from ruvak.core.steps.card import CheckCard, check_card
from ruvak.core.steps.hook_up import HookUp, hook_up


class RigSheets(Record):
    """What can be printed of a rig."""

    rig: Id
    """The rig."""
    name: str
    """What it is called."""
    occasion: str
    """When it is for, as somebody wrote it."""
    venue: str
    """Where."""
    inputs: tuple[InputLine, ...]
    """The input list by stage area."""
    hook_up: HookUp
    """Connecting and switching on, and down again."""
    checks: tuple[CheckCard, ...]
    """What to expect of each run, by number; without what is likely when it is wrong."""
    labels: tuple[EndLabel, ...]
    """For both ends of every lead."""
    wirings: tuple[WiringSheet, ...]
    """For whoever solders."""


def rig_sheets(rig: Rig, analysis: Analysis) -> RigSheets:
    """The sheets of a prepared rig."""
    solved = {each.run: each for each in analysis.runs}
    runs = sorted(rig.runs, key=lambda run: run.number)
    return RigSheets(
        rig=rig.id,
        name=rig.name,
        occasion=rig.occasion,
        venue=rig.venue.name,
        inputs=input_list(rig),
        hook_up=hook_up(rig),
        checks=tuple(check_card(rig, run, solved[run.id], ()) for run in runs if run.id in solved),
        labels=end_labels(rig),
        wirings=wiring_sheets(rig),
    )
