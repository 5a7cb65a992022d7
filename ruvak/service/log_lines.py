"""Everything that happened in the house, in time order: the log's entries, edits of rigs, what was done to things of
the cupboard, and notes of dates."""

from collections.abc import Iterator
from datetime import datetime
from typing import TypeVarTuple

from sqlalchemy import Select, func, select
from sqlalchemy.orm import InstrumentedAttribute, Session, sessionmaker

from ruvak.core.log.line import LineKind, LogLine, line_of
from ruvak.core.log.trends import Trends, trends
from ruvak.core.rig.values import Id, Moment, Record, Words
from ruvak.store import log
from ruvak.store.house import CupboardChangeRow, NoteRow
from ruvak.store.log import LogRow, entry_of
from ruvak.store.tables import EditRow, OccasionRow, RigRow
from ruvak.store.words import has_words

MOST_LINES = 10_000
"""In one file; a house that checks fifty runs every week fills it in some three years."""


Columns = TypeVarTuple("Columns")


class LogQuery(Record):
    """Which lines. Everything that is given has to hold."""

    rig: Id | None = None
    """Of this rig."""
    run: Id | None = None
    """About this run."""
    item: Id | None = None
    """About this thing of the cupboard."""
    kind: LineKind | None = None
    """Of this kind."""
    words: Words = ""
    """Each of these words stands in the line, or in the name of its rig, run, thing, venue or person."""
    before: Moment | None = None
    """Earlier than this."""


class LogLines:
    """The use case over one database."""

    def __init__(self, sessions: sessionmaker[Session]) -> None:
        self._sessions = sessions

    def list_lines(self, query: LogQuery, most: int) -> list[LogLine]:
        """The latest first."""
        with self._sessions() as session:
            lines = [line for source in _SOURCES for line in source(session, query, most)]
        return sorted(lines, key=lambda line: (line.at, line.id), reverse=True)[:most]

    def over_the_weeks(self, rig_id: str | None, since: datetime) -> Trends:
        """What the log says since then: of a rig and those that it was copied from, or of the whole house."""
        row = LogRow
        with self._sessions() as session:
            where = [row.at >= since]
            if rig_id is not None:
                where.append(row.rig_id.in_([rig_id, *log.copied_from(session, rig_id)]))
            latest = select(row).where(*where).order_by(row.at.desc()).limit(MOST_LINES)
            entries = [entry_of(each) for each in session.scalars(latest)]
            rigs = {entry.rig for entry in entries if entry.rig is not None}
            hours = select(RigRow.id, OccasionRow.doors_at).join(OccasionRow, OccasionRow.id == RigRow.occasion_id)
            doors = session.execute(hours.where(RigRow.id.in_(rigs), OccasionRow.doors_at.is_not(None))).all()
            return trends(entries, {rig: at for rig, at in doors if at is not None})


def _entries(session: Session, query: LogQuery, most: int) -> Iterator[LogLine]:
    row = LogRow
    if query.kind == "change":
        return
    names = (row.rig_name, row.run_name, row.venue_name, row.person_name, func.array_to_string(row.thing_names, " "))
    searched = func.concat_ws(
        " ", *names, row.body["words"].astext, row.body["answer"].astext, row.body["heard"].astext
    )
    where = [has_words(searched, query.words.split())]
    where += [row.body["kind"].astext == query.kind] if query.kind is not None else []
    where += [row.body["run"].astext == query.run] if query.run is not None else []
    where += [row.rig_id == query.rig] if query.rig is not None else []
    where += [row.items.contains([query.item])] if query.item is not None else []
    rows = session.scalars(_latest(select(row).where(*where), row.at, query, most)).all()
    corrections = row.body["corrects"].astext
    corrected = set(session.scalars(select(corrections).where(corrections.in_([each.id for each in rows]))))
    for each in rows:
        yield line_of(entry_of(each), each.venue_name, each.id in corrected)


def _edits(session: Session, query: LogQuery, most: int) -> Iterator[LogLine]:
    row = EditRow
    if query.kind not in (None, "change") or query.run is not None or query.item is not None:
        return
    where = [has_words(func.concat_ws(" ", row.label, row.person_name, RigRow.name), query.words.split())]
    where += [row.rig_id == query.rig] if query.rig is not None else []
    base = select(row, RigRow.name).join(RigRow, RigRow.id == row.rig_id).where(*where)
    for each, name in session.execute(_latest(base, row.made_at, query, most)):
        words = each.label if each.kind == "edit" else f"{_AGAIN[each.kind]}: {each.label}"
        yield _line(f"edit-{each.id}", each.made_at, "change", words, each.person_name, rig=each.rig_id, rig_name=name)


def _cupboard(session: Session, query: LogQuery, most: int) -> Iterator[LogLine]:
    row = CupboardChangeRow
    if query.kind not in (None, "change") or query.rig is not None or query.run is not None:
        return
    where = [has_words(func.concat_ws(" ", row.name, row.words, row.person_name), query.words.split())]
    where += [row.item_id == query.item] if query.item is not None else []
    for each in session.scalars(_latest(select(row).where(*where), row.made_at, query, most)):
        name = f"cupboard-{each.id}"
        yield _line(name, each.made_at, "change", each.words, each.person_name, things=(each.name,))


def _notes(session: Session, query: LogQuery, most: int) -> Iterator[LogLine]:
    row = NoteRow
    if query.kind not in (None, "note") or query.rig is not None or query.run is not None:
        return
    where = [has_words(func.concat_ws(" ", row.words, row.person_name, OccasionRow.name), query.words.split())]
    where += [row.item_id == query.item] if query.item is not None else []
    base = select(row, OccasionRow.name).join(OccasionRow, OccasionRow.id == row.occasion_id).where(*where)
    for each, name in session.execute(_latest(base, row.made_at, query, most)):
        yield _line(f"note-{each.id}", each.made_at, "note", each.words, each.person_name, rig_name=name)


def _latest(
    base: Select[*Columns], at: InstrumentedAttribute[datetime], query: LogQuery, most: int
) -> Select[*Columns]:
    if query.before is not None:
        base = base.where(at < query.before)
    return base.order_by(at.desc()).limit(most)


_AGAIN = {"undo": "Undone", "redo": "Done again"}
_SOURCES = (_entries, _edits, _cupboard, _notes)


def _line(
    name: str,
    at: datetime,
    kind: LineKind,
    words: str,
    person: str,
    rig: str | None = None,
    rig_name: str = "",
    things: tuple[str, ...] = (),
) -> LogLine:
    return LogLine(
        id=name,
        at=at,
        kind=kind,
        words=words,
        rig=rig,
        rig_name=rig_name,
        venue="",
        run=None,
        run_name="",
        things=things,
        person=person,
        corrected=False,
    )
