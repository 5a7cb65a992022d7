"""The log as CSV."""

from collections.abc import Iterable

from ruvak.core.log.line import LogLine
from ruvak.formats.cells import table_of

HEADINGS = ("when", "kind", "what", "rig", "venue", "run", "things", "who", "corrected")


def log_to_csv(lines: Iterable[LogLine]) -> str:
    """A row each, times in ISO 8601 with their offset."""
    return table_of(
        HEADINGS,
        (
            (
                line.at.isoformat(timespec="seconds"),
                line.kind,
                line.words,
                line.rig_name,
                line.venue,
                line.run_name,
                ", ".join(line.things),
                line.person,
                "yes" if line.corrected else "",
            )
            for line in lines
        ),
    )
