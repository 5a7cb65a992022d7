"""Occasions as iCalendar, read back and held against RFC 5545: line ends and lengths of section 3.1, the texts' escapes
of 3.3.11, the properties an event must have of 3.6.1."""

import unittest
from datetime import UTC, datetime, timedelta, timezone

from icalendar import Calendar

from ruvak.formats.calendar import CalendarEntry, to_icalendar

ENTRY = CalendarEntry(
    id="sunday-1",
    name="Sunday, with choir; early",
    starts_at=datetime(2026, 11, 29, 9, 30, tzinfo=timezone(timedelta(hours=1))),
    ends_at=datetime(2026, 11, 29, 12, 0, tzinfo=timezone(timedelta(hours=1))),
    place="Ferrywell Hall",
    words=("Rig: Sunday talk", "Open: crackle on M31, " + "and more " * 20),
)
NOW = datetime(2026, 11, 1, tzinfo=UTC)


class ICalendar(unittest.TestCase):
    def test_it_is_read_back_as_it_was_written(self) -> None:
        (event,) = Calendar.from_ical(to_icalendar([ENTRY], NOW)).walk("VEVENT")
        self.assertEqual(event.decoded("dtstart"), ENTRY.starts_at)
        self.assertEqual(event.decoded("dtend"), ENTRY.ends_at)
        self.assertEqual(str(event["summary"]), ENTRY.name)
        self.assertEqual(str(event["description"]), "\n".join(ENTRY.words))

    def test_lines_end_and_are_folded_as_the_standard_says(self) -> None:
        lines = to_icalendar([ENTRY], NOW).split(b"\r\n")
        self.assertEqual((lines[0], lines[-2], lines[-1]), (b"BEGIN:VCALENDAR", b"END:VCALENDAR", b""))
        self.assertTrue(all(len(line) <= 75 and b"\n" not in line for line in lines))
        self.assertIn(b"SUMMARY:Sunday\\, with choir\\; early", lines)
        self.assertIn(b"DTSTART:20261129T083000Z", lines)

    def test_every_event_has_what_it_must_have(self) -> None:
        lines = to_icalendar([ENTRY], NOW).decode()
        for name in ("UID:", "DTSTAMP:", "DTSTART:"):
            self.assertEqual(lines.count(name), 1, name)
