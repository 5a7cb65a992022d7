"""The pull list of a day: every rig of that day shares the cupboard by its hours."""

from datetime import datetime, timedelta

from sqlalchemy import select
from sqlalchemy.orm import Session

from ruvak.core.cupboard.item import CupboardItem
from ruvak.core.pull.assign import Assignment, assign
from ruvak.core.pull.need import needs_of
from ruvak.core.pull.pull_list import PullList, pull_list
from ruvak.core.pull.supply import Lead, leads_in
from ruvak.core.pull.take import of_rig, take
from ruvak.core.rig.edits import Edit
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.values import Record
from ruvak.service.kept import KeptRigs
from ruvak.service.takings import hours_of, taken_within
from ruvak.service.versions import Version, version_of
from ruvak.store.rigs import SavedRig
from ruvak.store.tables import OccasionRow, RigRow

ALWAYS = (0.0, 4e9)
"""Hours of a rig without a date, as seconds: whenever that will be."""
DAY = timedelta(days=1)


class RigEdit(Record):
    """What one rig of the day would be changed by."""

    rig: str
    """The rig."""
    version: Version
    """The version that was looked at."""
    edit: Edit
    """The change."""


class DayPull(Record):
    """The pull list of a day, and what makes its rigs so."""

    list: PullList
    """What goes where."""
    edits: tuple[RigEdit, ...]
    """What would change; empty where everything lies so already."""


def pull_of_day(
    session: Session, kept: KeptRigs, items: tuple[CupboardItem, ...], rig_id: str, spare_m: float
) -> DayPull:
    """Of a rig and those whose hours begin on the same day, by this machine's clock. Raises NotFound."""
    saved = _rigs_of_day(session, kept, rig_id)
    rigs = [each.rig for each, _ in saved]
    needs = [need for each, hours in saved for need in needs_of(each.rig, hours, spare_m)]
    leads = leads_in(items, rigs)
    assignment = assign(needs, _free(session, leads, rigs, [hours for _, hours in saved]))
    return DayPull(
        list=pull_list(rigs, assignment),
        edits=tuple(_edits(saved, assignment, {item.id: item for item in items})),
    )


def _edits(
    saved: list[tuple[SavedRig, tuple[float, float]]], assignment: Assignment, items: dict[str, CupboardItem]
) -> list[RigEdit]:
    result = []
    for each, _ in saved:
        edit = take(each.rig, of_rig(assignment.filled, each.rig.id), items)
        if edit is not None:
            result.append(RigEdit(rig=each.rig.id, version=version_of(each.holders), edit=edit))
    return result


def _rigs_of_day(session: Session, kept: KeptRigs, rig_id: str) -> list[tuple[SavedRig, tuple[float, float]]]:
    own = kept.current(session, rig_id)
    own_hours = hours_of(session, rig_id)
    if own_hours is None:
        return [(own, ALWAYS)]
    starts_at, ends_at = own_hours
    midnight = starts_at.astimezone().replace(hour=0, minute=0, second=0, microsecond=0)
    others = session.execute(
        select(RigRow.id, OccasionRow.starts_at, OccasionRow.ends_at)
        .join(OccasionRow, OccasionRow.id == RigRow.occasion_id)
        .where(RigRow.id != rig_id, RigRow.shelf == "plans")
        .where(OccasionRow.starts_at >= midnight, OccasionRow.starts_at < midnight + DAY)
        .order_by(RigRow.id)
    ).all()
    rest = [(kept.current(session, row.id), _hours(row.starts_at, row.ends_at)) for row in others]
    return [(own, _hours(starts_at, ends_at)), *rest]


def _hours(starts_at: datetime, ends_at: datetime) -> tuple[float, float]:
    return starts_at.timestamp(), ends_at.timestamp()


def _free(session: Session, leads: list[Lead], rigs: list[Rig], hours: list[tuple[float, float]]) -> list[Lead]:
    """Without what rigs of other days have at some of these hours."""
    dated = [each for each in hours if each != ALWAYS]
    if not dated:
        return leads
    first, last = min(start for start, _ in dated), max(end for _, end in dated)
    from_, to = (datetime.fromtimestamp(moment).astimezone() for moment in (first, last))
    taken = taken_within(session, from_, to, but_by=[rig.id for rig in rigs])
    return [lead for lead in leads if (lead.item, lead.number) not in taken]
