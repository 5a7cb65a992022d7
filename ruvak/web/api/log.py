"""The log: entries of a rig, and everything that happened in the house."""

from datetime import UTC, datetime, timedelta

from flask import Response, make_response, request

from ruvak.core.log.trends import Trends
from ruvak.formats.calendar import CalendarEntry, to_icalendar
from ruvak.formats.log_list import log_to_csv
from ruvak.service.access import Right
from ruvak.service.log_book import LogNews, RigLog
from ruvak.service.log_lines import MOST_LINES, LogQuery
from ruvak.web.answers import add_etag, answer, download, use_cases
from ruvak.web.api.blueprint import blueprint, file_of
from ruvak.web.log_schemas import LINES_AT_ONCE, Added, AfterQuery, EntriesBody, LogLineList, WeeksQuery
from ruvak.web.schemas import RigPath
from ruvak.web.who import person

api = blueprint("log", "What happened", reads_need=Right.READ)


@api.post("/rigs/<rig_id>/log", responses={"200": Added})
def add_entries(path: RigPath, body: EntriesBody) -> Response:
    """Adds checks, readings and notes. Sent twice, they are there once; they come from any device in any order."""
    return answer(Added(last=use_cases().log_book.add(path.rig_id, body.entries, person())))


@api.get("/rigs/<rig_id>/log", responses={"200": RigLog, "304": None})
def read_rig_log(path: RigPath) -> Response:
    """A rig's entries, the last answer about each run, and what its runs had the last time."""
    tag = use_cases().log_book.tag(path.rig_id)
    if tag in request.if_none_match:
        return add_etag(make_response(), tag)
    return add_etag(answer(use_cases().log_book.read(path.rig_id)), tag)


@api.get("/rigs/<rig_id>/log/news", responses={"200": LogNews})
def read_log_news(path: RigPath, query: AfterQuery) -> Response:
    """What came into a rig's log after an entry, for whoever has the rest already."""
    return answer(use_cases().log_book.news(path.rig_id, query.after))


@api.get("/log", responses={"200": LogLineList})
def list_log(query: LogQuery) -> Response:
    """Everything that happened, the latest first: checks, readings, notes, edits of rigs, what was done to things."""
    return answer(LogLineList(tuple(use_cases().log_lines.list_lines(query, LINES_AT_ONCE))))


@api.get("/log/weeks", responses={"200": Trends})
def read_trends(query: WeeksQuery) -> Response:
    """Over the weeks: how long each check took, measured hum beside computed, and what fails again."""
    return answer(_trends(query))


@api.get("/log/calendar", responses={"200": file_of("text/calendar")})
def export_work_days(query: WeeksQuery) -> Response:
    """Each day's check as an event, with what was wrong."""
    entries = [
        CalendarEntry(
            id=f"check-{day.rig}-{day.began_at:%Y%m%d}",
            name=f"Check: {day.rig_name}",
            starts_at=day.began_at,
            ends_at=max(day.ended_at, day.began_at + timedelta(minutes=1)),
            place="",
            words=(f"{day.good} good, {day.wrong} wrong", *day.found),
        )
        for day in _trends(query).days
    ]
    return download(to_icalendar(entries, datetime.now(UTC)), "text/calendar; charset=utf-8", "checks.ics")


def _trends(query: WeeksQuery) -> Trends:
    since = datetime.now(UTC) - timedelta(days=query.days)
    return use_cases().log_lines.over_the_weeks(query.rig, since)


@api.get("/log/file", responses={"200": file_of("text/csv")})
def export_log(query: LogQuery) -> Response:
    """The same lines as CSV."""
    lines = use_cases().log_lines.list_lines(query, MOST_LINES)
    return download(log_to_csv(lines), "text/csv; charset=utf-8", "log.csv")
