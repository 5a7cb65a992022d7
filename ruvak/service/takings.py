"""Which rig has what of the cupboard at what time. Two rigs never have the same thing at one time.

Whoever takes something locks its row first, always in the order of ids and after the rig that takes it.
"""

from collections.abc import Collection, Iterable
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import Select, delete, func, select, tuple_
from sqlalchemy.orm import Session

from ruvak.core.cupboard.draw import Taken, drawn_by
from ruvak.core.errors import Fault, RuvakError
from ruvak.core.rig.rig import Rig, name_of
from ruvak.core.rig.values import Record
from ruvak.store.house import CupboardRow, TakenRow
from ruvak.store.tables import GearRow, OccasionRow, RigRow

MOST_NAMED = 4
"""So many things are named in a refusal; the others are counted."""


class AlreadyTaken(RuvakError):
    """Another rig has it for those hours; nothing was changed."""

    code = "already_taken"

    def __init__(self, message: str, clashes: "tuple[Clash, ...]" = ()) -> None:
        self.clashes = clashes
        self.faults = tuple(Fault(self.code, clash.thing, clash.words) for clash in clashes)
        super().__init__(message)


@dataclass(frozen=True)
class Clash:
    """A thing in this rig that cannot be had."""

    thing: str
    """Its id in the rig."""
    words: str
    """Who has it and when, or how many there are."""


class Holding(Record):
    """A rig that has a thing of the cupboard for some hours."""

    item: str
    """The thing."""
    number: int
    """Which of several alike."""
    rig: str
    """The rig that has it."""
    rig_name: str
    """What that is called."""
    occasion: str
    """What it is for."""
    starts_at: datetime
    """From when."""
    ends_at: datetime
    """Until when."""


def holdings(session: Session, since: datetime, items: Iterable[str] | None = None) -> list[Holding]:
    """Who has what from a moment on, the earliest first; of some things, or of all."""
    query = _holdings().where(TakenRow.ends_at > since)
    if items is not None:
        query = query.where(TakenRow.item_id.in_(list(items)))
    return [_holding(row, rig, occasion) for row, rig, occasion in session.execute(query)]


def taken_by_others(session: Session, rig_id: str) -> frozenset[Taken]:
    """What this rig cannot have for the hours of its occasion; nothing where it has no date."""
    hours = hours_of(session, rig_id)
    if hours is None:
        return frozenset()
    return taken_within(session, *hours, but_by=[rig_id])


def taken_within(session: Session, starts_at: datetime, ends_at: datetime, but_by: Collection[str]) -> frozenset[Taken]:
    """What rigs other than these have at some time of these hours."""
    query = select(TakenRow.item_id, TakenRow.number).where(
        TakenRow.rig_id.not_in(but_by), TakenRow.starts_at < ends_at, TakenRow.ends_at > starts_at
    )
    return frozenset(session.execute(query).tuples())


def hours_of(session: Session, rig_id: str) -> tuple[datetime, datetime] | None:
    """Of a rig's occasion; None for one without, and for templates and archived rigs, which take nothing."""
    query = select(OccasionRow.starts_at, OccasionRow.ends_at).join(RigRow, RigRow.occasion_id == OccasionRow.id)
    row = session.execute(query.where(RigRow.id == rig_id, RigRow.shelf == "plans")).first()
    return (row.starts_at, row.ends_at) if row is not None else None


def carriers_at_the_same_time(session: Session, rig_id: str) -> list[float]:
    """What transmits by radio, in megahertz, in plans of the house whose hours meet those of this rig; nothing where it
    has no date."""
    hours = hours_of(session, rig_id)
    if hours is None:
        return []
    starts_at, ends_at = hours
    others = select(RigRow.id).join(OccasionRow, RigRow.occasion_id == OccasionRow.id)
    others = others.where(RigRow.id != rig_id, RigRow.shelf == "plans")
    others = others.where(OccasionRow.starts_at < ends_at, OccasionRow.ends_at > starts_at)
    tuned = select(GearRow.radio_mhz).where(func.jsonb_array_length(GearRow.radio_mhz) > 0)
    return sorted(mhz for each in session.scalars(tuned.where(GearRow.holder_id.in_(others))) for mhz in each)


def take_what_is_drawn(session: Session, rig: Rig) -> None:
    """What the rig has drawn from the cupboard is taken for the hours of its occasion, and nothing else. The rig is
    locked. Raises AlreadyTaken."""
    hours = hours_of(session, rig.id)
    wanted = drawn_by(rig) if hours is not None else {}
    have = {
        (row.item_id, row.number): (row.starts_at, row.ends_at)
        for row in session.scalars(select(TakenRow).where(TakenRow.rig_id == rig.id))
    }
    gone = [key for key, at in have.items() if key not in wanted or at != hours]
    if gone:
        keys = tuple_(TakenRow.item_id, TakenRow.number)
        session.execute(delete(TakenRow).where(TakenRow.rig_id == rig.id, keys.in_(gone)))
    new = sorted(key for key in wanted if have.get(key) != hours)
    if not new or hours is None:
        return
    there = _locked(session, {item for item, _ in new})
    new = [key for key in new if key[0] in there]
    if clashes := _clashes(session, rig, new, there, hours):
        named = "; ".join(clash.words for clash in clashes[:MOST_NAMED])
        more = f"; and {len(clashes) - MOST_NAMED} more" if len(clashes) > MOST_NAMED else ""
        raise AlreadyTaken(f"{named}{more}. Nothing was saved: take others, or change the hours.", tuple(clashes))
    starts_at, ends_at = hours
    session.add_all(
        TakenRow(item_id=item, number=number, rig_id=rig.id, starts_at=starts_at, ends_at=ends_at)
        for item, number in new
    )
    session.flush()


def _locked(session: Session, items: set[str]) -> dict[str, int]:
    """How many there are of each, locked until the transaction's end; what the house does not have is left out."""
    query = select(CupboardRow.id, CupboardRow.count).where(CupboardRow.id.in_(items)).order_by(CupboardRow.id)
    return dict(session.execute(query.with_for_update()).tuples().all())


def _clashes(
    session: Session, rig: Rig, new: list[Taken], there: dict[str, int], hours: tuple[datetime, datetime]
) -> list[Clash]:
    drawn = drawn_by(rig)
    result = [
        Clash(drawn[key].id, f"There are only {there[key[0]]} of {name_of(rig, drawn[key].id).rsplit(' ', 1)[0]}")
        for key in new
        if key[1] > there[key[0]]
    ]
    starts_at, ends_at = hours
    query = _holdings().where(
        tuple_(TakenRow.item_id, TakenRow.number).in_(new),
        TakenRow.rig_id != rig.id,
        TakenRow.starts_at < ends_at,
        TakenRow.ends_at > starts_at,
    )
    for row, rig_name, occasion in session.execute(query):
        thing = drawn[(row.item_id, row.number)].id
        what = rig_name if occasion == rig_name else f"{rig_name} ({occasion})"
        result.append(Clash(thing, f"{name_of(rig, thing)} is taken by {what}"))
    return result


def _holdings() -> Select[TakenRow, str, str]:
    return (
        select(TakenRow, RigRow.name, OccasionRow.name)
        .join(RigRow, RigRow.id == TakenRow.rig_id)
        .join(OccasionRow, OccasionRow.id == RigRow.occasion_id)
        .order_by(TakenRow.starts_at, TakenRow.item_id, TakenRow.number)
    )


def _holding(row: TakenRow, rig_name: str, occasion: str) -> Holding:
    return Holding(
        item=row.item_id,
        number=row.number,
        rig=row.rig_id,
        rig_name=rig_name,
        occasion=occasion,
        starts_at=row.starts_at,
        ends_at=row.ends_at,
    )
