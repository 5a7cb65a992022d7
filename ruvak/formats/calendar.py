"""Occasions as iCalendar (RFC 5545), for the calendars of phones and computers."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import UTC, datetime

from icalendar import Calendar, Event


@dataclass(frozen=True)
class CalendarEntry:
    """A date: `words` are what is to be known about it, a line each."""

    id: str
    name: str
    starts_at: datetime
    ends_at: datetime
    place: str
    words: tuple[str, ...]


def to_icalendar(entries: Iterable[CalendarEntry], now: datetime) -> bytes:
    """A calendar with an event for each, in UTC so that no calendar has to know the zone."""
    calendar = Calendar()
    calendar.add("prodid", "-//Ruvak//EN")
    calendar.add("version", "2.0")
    for entry in entries:
        event = Event()
        event.add("uid", f"{entry.id}@ruvak")
        event.add("dtstamp", now.astimezone(UTC))
        event.add("dtstart", entry.starts_at.astimezone(UTC))
        event.add("dtend", entry.ends_at.astimezone(UTC))
        event.add("summary", entry.name)
        if entry.place:
            event.add("location", entry.place)
        if entry.words:
            event.add("description", "\n".join(entry.words))
        calendar.add_component(event)
    return bytes(calendar.to_ical())
